using System.Net;
using System.Net.ServerSentEvents;
using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>What one window stores arrives in the others, whatever server they are at.</summary>
public sealed class ChangesTests(LowfellServer server) : PotDesk(server), IClassFixture<LowfellServer>
{
    /// <summary>An open line to a server: events in the order they come.</summary>
    private sealed class Line(HttpResponseMessage answer, IAsyncEnumerator<SseItem<string>> events) : IAsyncDisposable
    {
        public static async Task<Line> Open(HttpClient http, Guid workshop)
        {
            var answer = await http.GetAsync($"/api/changes/{workshop}", HttpCompletionOption.ResponseHeadersRead, Stop);
            Assert.Equal("text/event-stream", answer.Content.Headers.ContentType?.MediaType);
            return new Line(answer, SseParser.Create(await answer.Content.ReadAsStreamAsync(Stop)).EnumerateAsync(Stop).GetAsyncEnumerator(Stop));
        }

        public async Task<JsonNode> Next()
        {
            Assert.True(await events.MoveNextAsync());
            Assert.Equal("versions", events.Current.EventType);
            return JsonNode.Parse(events.Current.Data)!;
        }

        /// <summary>The first event that holds; others may come between.</summary>
        public async Task<JsonNode> Until(Func<JsonNode, bool> holds)
        {
            while (true)
                if (await Next() is var told && holds(told))
                    return told;
        }

        public async ValueTask DisposeAsync()
        {
            answer.Dispose();
            await events.DisposeAsync();
        }
    }

    private static long Version(JsonNode told, string slice) => told["versions"]![slice]!.GetValue<long>();

    private async Task<Guid> Accept(string name)
    {
        var key = Guid.NewGuid();
        var (status, body) = await Server.Send(HttpMethod.Post, $"/api/shelf/{await Server.WorkshopId()}/materials", JsonNode.Parse($$"""{"name":"{{name}}","kind":"paint","carrier":"water acrylic","colour":"#445566"}"""), key);
        Assert.True(status == 201, body.ToJsonString());
        return key;
    }

    [Fact]
    public async Task A_page_at_another_server_hears_of_a_write_and_by_which_it_was()
    {
        var (other, http) = Server.Start();
        await using var _ = other;
        await using var line = await Line.Open(http, await Server.WorkshopId());
        var now = await line.Next();
        Assert.Equal(Guid.Empty, now["write"]!.GetValue<Guid>());
        var key = await Accept("Heard of");
        var told = await line.Until(t => t["write"]!.GetValue<Guid>() == key);
        Assert.Equal(now["versions"]!["shelf"] is { } was ? was.GetValue<long>() + 1 : 1, Version(told, "shelf"));
        Assert.Null(told["versions"]!["work"]);
    }

    [Fact]
    public async Task Other_workshops_are_not_told_of()
    {
        var (_, made) = await Server.Send(HttpMethod.Post, "/api/workshops", new { name = "Quiet bench" });
        await using var line = await Line.Open(Server.Http, made["id"]!.GetValue<Guid>());
        await line.Next();
        var theirs = await Accept("Not for them");
        var key = Guid.NewGuid();
        await Server.Send(HttpMethod.Put, $"/api/workshops/{made["id"]}/house-rules/bare-percent", """{"meaning":"of the mix"}""", key);

        // Word of the making itself may still have been on its way when the line was opened.
        await line.Until(t =>
        {
            var write = t["write"]!.GetValue<Guid>();
            Assert.NotEqual(theirs, write);
            return write == key;
        });
    }

    [Fact]
    public async Task A_line_to_the_database_that_breaks_is_taken_up_again_and_nothing_is_missed()
    {
        await using var line = await Line.Open(Server.Http, await Server.WorkshopId());
        await line.Next();
        await LowfellServer.Execute(Server.Connection, "select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and query ilike 'listen lowfell_changes%'");
        await Accept("While nobody listened");
        var workshop = await Server.WorkshopId();
        await using var db = Server.Db();
        var stored = db.SliceVersions.Single(v => v.WorkshopId == workshop && v.Slice == Store.Rows.Slice.Shelf).Version;

        // Told as a change when the line was back in time, or else as things stand.
        await line.Until(t => t["versions"]!["shelf"] is not null && Version(t, "shelf") >= stored);
        var key = await Accept("And after that");
        await line.Until(t => t["write"]!.GetValue<Guid>() == key || Version(t, "shelf") > stored);
    }

    [Fact]
    public async Task A_workshop_that_is_not_there_is_said_to_be_missing()
    {
        using var answer = await Server.Http.GetAsync($"/api/changes/{Guid.NewGuid()}", Stop);
        Assert.Equal(HttpStatusCode.NotFound, answer.StatusCode);
    }

    [Fact]
    public async Task A_server_that_stops_lets_its_listeners_go()
    {
        var (other, http) = Server.Start();
        await using var line = await Line.Open(http, await Server.WorkshopId());
        await line.Next();

        // Without that it would wait half a minute for them.
        await other.DisposeAsync().AsTask().WaitAsync(TimeSpan.FromSeconds(20), Stop);
    }
}
