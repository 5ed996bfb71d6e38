using System.Net.Http.Json;
using System.Text.Json;
using System.Text.Json.Nodes;
using Lowfell.Store;
using Lowfell.Store.Demo;
using Lowfell.Tests;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;

namespace Lowfell.Server.Tests;

/// <summary>The real server on a loopback port over its own clone of one migrated database with the demo in it.</summary>
public sealed class LowfellServer : IAsyncLifetime
{
    private static readonly string Template = Environment.GetEnvironmentVariable("LOWFELL_TEST_TEMPLATE") ?? "lowfell_template";
    private static readonly Lazy<Task> template = new(MakeTemplate);
    private WebApplicationFactory<Program>? factory;
    private string name = "";

    /// <summary>The database as its owner reaches it, and as the server does.</summary>
    public string Connection { get; private set; } = "";
    public string Serving { get; private set; } = "";
    public HttpClient Http { get; private set; } = new();

    /// <summary>What the server is made of.</summary>
    public IServiceProvider Services => factory!.Services;

    /// <summary>A database of its own before which no server runs yet.</summary>
    public static async Task<LowfellServer> Asleep()
    {
        var asleep = new LowfellServer();
        await asleep.Clone();
        return asleep;
    }

    public async ValueTask InitializeAsync()
    {
        await Clone();
        (factory, Http) = Start();
    }

    private async Task Clone()
    {
        await template.Value;
        name = $"test_{Guid.NewGuid():n}";
        await TestDatabase.Create(name, Template);
        Connection = TestDatabase.As(TestDatabase.Owner, name);
        Serving = TestDatabase.As(TestDatabase.Serve, name);
    }

    /// <summary>A server over this database, beside any others.</summary>
    public (WebApplicationFactory<Program> Factory, HttpClient Http) Start(Action<IServiceCollection>? with = null, (string Key, string Value)[]? settings = null)
    {
        var another = Served.Start(name, 0, with, settings ?? []);
        return (another, another.CreateClient());
    }

    public async ValueTask DisposeAsync()
    {
        var untold = await Untold();
        Http.Dispose();
        if (factory is not null)
            await factory.DisposeAsync();
        await TestDatabase.Drop(name);
        Assert.Empty(untold);
    }

    /// <summary>Steps that stand in the list of what can be undone without a word of what they did: what they changed. Whatever tests went through here, there are none.</summary>
    private async Task<List<string>> Untold()
    {
        await using var db = Db();
        return await db.Database.SqlQuery<string>($"""select distinct c.table_name as "Value" from journal_steps s join journal_changes c on c.step_id = s.id where s.words = 'Changed the plan'""").ToListAsync();
    }

    /// <summary>A reader of sets of its own, with nothing read yet.</summary>
    public SetGraphs Graphs() => new(new Factory(Connection));

    private sealed class Factory(string connection) : IDbContextFactory<LowfellDb>
    {
        public LowfellDb CreateDbContext() => new(LowfellDb.Options(connection));
    }

    /// <summary>A new database with nothing in it, as its owner reaches it.</summary>
    public async Task<string> Empty()
    {
        var empty = $"test_{Guid.NewGuid():n}";
        await TestDatabase.Create(empty);
        return TestDatabase.As(TestDatabase.Owner, empty);
    }

    public LowfellDb Db() => new(LowfellDb.Options(Connection));

    public static Task Execute(string connection, string sql) => TestDatabase.Execute(connection, sql);

    public async Task<JsonNode> Get(string path) => (await Http.GetFromJsonAsync<JsonNode>(path, TestContext.Current.CancellationToken))!;

    public async Task<(int Status, JsonNode Body)> Send(HttpMethod method, string path, object? body, Guid? key = null)
    {
        using var request = new HttpRequestMessage(method, path);
        request.Content = body is string raw ? new StringContent(raw, System.Text.Encoding.UTF8, "application/json") : JsonContent.Create(body);
        request.Headers.Add("Idempotency-Key", (key ?? Guid.NewGuid()).ToString());
        using var answer = await Http.SendAsync(request, TestContext.Current.CancellationToken);
        var text = await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken);
        return ((int)answer.StatusCode, text.Length == 0 ? new JsonObject() : JsonNode.Parse(text)!);
    }

    public async Task<Guid> SetId() => (await Get("/api/workshops"))[0]!["sets"]![0]!["id"]!.GetValue<Guid>();

    public async Task<Guid> WorkshopId() => (await Get("/api/workshops"))[0]!["id"]!.GetValue<Guid>();

    /// <summary>The id of a zone of the demo.</summary>
    public async Task<Guid> ZoneId(string design, string zone)
    {
        var overview = await Get($"/api/plan/sets/{await SetId()}");
        var entry = overview["designs"]!.AsArray().Single(d => d!["name"]!.GetValue<string>() == design)!;
        return entry["zones"]!.AsArray().Single(z => z!["name"]!.GetValue<string>() == zone)!["id"]!.GetValue<Guid>();
    }

    private static async Task MakeTemplate()
    {
        if (await TestDatabase.Exists(Template))
            return;
        await TestDatabase.Create(Template);
        await using var db = new LowfellDb(LowfellDb.Options(new NpgsqlConnectionStringBuilder(TestDatabase.As(TestDatabase.Owner, Template)) { Pooling = false }.ConnectionString));
        await db.Database.MigrateAsync();
        await ServingRole.Grant(db, TestDatabase.Serve, CancellationToken.None);
        await DemoSet.LoadIfNew(db, new DateTimeOffset(2026, 11, 1, 12, 0, 0, TimeSpan.Zero));
    }
}

internal static class JsonNodes
{
    public static string Text(this JsonNode node, string name) => node[name]!.GetValue<string>();

    /// <summary>The field names of a refusal.</summary>
    public static IEnumerable<string> Fields(this JsonNode problem) => problem["errors"]!.AsArray().Select(e => e!.Text("field"));

    public static JsonNode Copy(this JsonNode node) => JsonNode.Parse(node.ToJsonString(new JsonSerializerOptions()))!;
}
