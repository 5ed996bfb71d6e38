using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Tests;

public sealed class PlanTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private async Task<(string Path, JsonNode Sheet)> Open(string design, string zone)
    {
        var path = $"/api/plan/zones/{await server.ZoneId(design, zone)}";
        return (path, await server.Get(path));
    }

    private static JsonObject Stack(JsonNode sheet, IEnumerable<JsonNode?>? layers = null, uint? version = null) => new()
    {
        ["version"] = version ?? sheet["version"]!.GetValue<uint>(),
        ["layers"] = new JsonArray((layers ?? sheet["layers"]!.AsArray()).Select(l => l!.Copy()).ToArray()),
    };

    [Fact]
    public async Task Removing_the_barrier_is_a_stop_whose_remedy_takes_it_away()
    {
        var (path, sheet) = await Open("Lock-wall straight", "Brick field");
        var layers = sheet["layers"]!.AsArray().ToList();
        var pin = layers.FindIndex(l => l!.Text("technique") == "pin wash");
        Assert.Equal("varnish", layers[pin - 1]!.Text("technique"));
        layers.RemoveAt(pin - 1);
        var (status, reading) = await server.Send(HttpMethod.Post, path + "/reading", Stack(sheet, layers));
        Assert.Equal(200, status);
        var finding = reading["findings"]!.AsArray().Single(f => f!.Text("rule") == "same-solvent")!;
        Assert.Equal("stop", finding.Text("severity"));
        var edit = finding["remedies"]![0]!["edits"]![0]!;
        Assert.Equal("insert", edit.Text("op"));
        var added = edit["layer"]!.Copy();
        added["id"] = Guid.NewGuid();
        layers.Insert(edit["at"]!.GetValue<int>(), added);
        (status, reading) = await server.Send(HttpMethod.Post, path + "/reading", Stack(sheet, layers));
        Assert.Equal(200, status);
        Assert.DoesNotContain(reading["findings"]!.AsArray(), f => f!.Text("rule") == "same-solvent");
    }

    [Fact]
    public async Task Reading_a_draft_stores_nothing()
    {
        var (path, sheet) = await Open("Jetty section", "Rope");
        await server.Send(HttpMethod.Post, path + "/reading", Stack(sheet, []));
        Assert.Equal(sheet.ToJsonString(), (await server.Get(path)).ToJsonString());
    }

    [Fact]
    public async Task A_reordered_stack_with_a_new_mix_is_stored_as_sent()
    {
        var (path, sheet) = await Open("Jetty section", "Timber");
        var layers = sheet["layers"]!.AsArray().Reverse().Select(l => l!.Copy()).ToList();
        var paints = (await server.Get($"/api/shelf/{await server.WorkshopId()}/materials")).AsArray().Where(m => m!.Text("kind") == "paint").Take(2).ToList();
        layers[0]["paint"] = new JsonArray(
            new JsonObject { ["materialId"] = paints[0]!["id"]!.Copy(), ["parts"] = 1.5 },
            new JsonObject { ["materialId"] = paints[1]!["id"]!.Copy(), ["parts"] = 1 });
        layers[0]["note"] = "a note";
        var (status, stored) = await server.Send(HttpMethod.Put, path + "/stack", Stack(sheet, layers));
        Assert.Equal(200, status);
        var now = await server.Get(path);
        Assert.Equal(stored.ToJsonString(), now.ToJsonString());
        Assert.Equal(layers.Select(l => l.Text("id")), now["layers"]!.AsArray().Select(l => l!.Text("id")));
        Assert.Equal([3m, 2m], now["layers"]![0]!["paint"]!.AsArray().Select(p => p!["parts"]!.GetValue<decimal>()));
        Assert.Equal("a note", now["layers"]![0]!.Text("note"));
    }

    [Fact]
    public async Task An_edit_from_an_old_version_is_refused_with_what_is_there_now()
    {
        var (path, sheet) = await Open("Reed dredger", "Deck");
        var mine = sheet["layers"]!.AsArray().Select(l => l!.Copy()).ToList();
        mine[0]["coats"] = 3;
        var theirs = sheet["layers"]!.AsArray().Select(l => l!.Copy()).ToList();
        theirs[0]["coats"] = 2;
        Assert.Equal(200, (await server.Send(HttpMethod.Put, path + "/stack", Stack(sheet, theirs))).Status);
        var (status, problem) = await server.Send(HttpMethod.Put, path + "/stack", Stack(sheet, mine));
        Assert.Equal(409, status);
        Assert.Equal("changed-elsewhere", problem.Text("code"));
        Assert.Equal(2, problem["current"]!["layers"]![0]!["coats"]!.GetValue<int>());
        Assert.Equal(2, (await server.Get(path))["layers"]![0]!["coats"]!.GetValue<int>());
    }

    [Fact]
    public async Task Of_many_writers_at_once_exactly_one_wins()
    {
        var (path, sheet) = await Open("Reed dredger", "Cab glass");
        var answers = await Task.WhenAll(Enumerable.Range(1, 8).Select(n =>
        {
            var layers = sheet["layers"]!.AsArray().Select(l => l!.Copy()).ToList();
            layers[0]["note"] = $"writer {n}";
            return server.Send(HttpMethod.Put, path + "/stack", Stack(sheet, layers));
        }));
        var winner = Assert.Single(answers, a => a.Status == 200);
        Assert.All(answers.Where(a => a.Status != 200), a => Assert.Equal("changed-elsewhere", a.Body.Text("code")));
        Assert.Equal(winner.Body["layers"]![0]!.Text("note"), (await server.Get(path))["layers"]![0]!.Text("note"));
    }

    [Fact]
    public async Task A_write_with_a_key_is_stored_and_sent_again_carried_out_once()
    {
        var (path, sheet) = await Open("Reed dredger", "Hazard stripes");
        var layers = sheet["layers"]!.AsArray().Take(3).ToList();
        var key = Guid.NewGuid();
        var first = await server.Send(HttpMethod.Put, path + "/stack", Stack(sheet, layers), key);
        var again = await server.Send(HttpMethod.Put, path + "/stack", Stack(sheet, layers), key);
        Assert.Equal(200, first.Status);
        Assert.Equal(200, again.Status);
        Assert.Equal(first.Body["version"]!.ToJsonString(), again.Body["version"]!.ToJsonString());
        var now = await server.Get(path);
        Assert.Equal(first.Body["version"]!.ToJsonString(), now["version"]!.ToJsonString());
        Assert.Equal(3, now["layers"]!.AsArray().Count);
    }

    [Fact]
    public async Task Shared_treatments_change_on_every_zone_that_has_them()
    {
        var (path, sheet) = await Open("Lock-wall straight", "Coping");
        var (other, _) = await Open("Lock-wall corner", "Coping");
        Assert.Contains("Lock-wall corner, Coping", sheet["sharedWith"]!.AsArray().Select(s => s!.GetValue<string>()));
        var layers = sheet["layers"]!.AsArray().SkipLast(1).ToList();
        await server.Send(HttpMethod.Put, path + "/stack", Stack(sheet, layers));
        Assert.Equal(layers.Count, (await server.Get(other))["layers"]!.AsArray().Count);
    }

    [Fact]
    public async Task Measures_of_a_zone_change_its_amounts()
    {
        var (path, sheet) = await Open("Pump house", "Slate roof");
        var zone = sheet["zone"]!;
        var change = new JsonObject { ["version"] = zone["version"]!.Copy(), ["areaCm2"] = 400 };
        var (status, now) = await server.Send(HttpMethod.Put, path, change);
        Assert.Equal(200, status);
        double Ground(JsonNode s) => s["reading"]!["layers"]![1]!["needs"]![0]!["ml"]!.GetValue<double>();
        Assert.True(Ground(now) > 1.9 * Ground(sheet));

        // Another window that wants something else of the same is told; one that wants just that has it already.
        Assert.Equal(200, (await server.Send(HttpMethod.Put, path, change)).Status);
        change["areaCm2"] = 410;
        Assert.Equal(409, (await server.Send(HttpMethod.Put, path, change)).Status);
    }

    [Theory]
    [InlineData("areaCm2", "-5")]
    [InlineData("areaCm2", "0")]
    [InlineData("edgeMm", "-1")]
    [InlineData("up", "2")]
    public async Task Impossible_measures_are_refused_and_not_stored(string field, string value)
    {
        var (path, sheet) = await Open("Mud-and-salt base", "Rim");
        var (status, problem) = await server.Send(HttpMethod.Put, path, $$"""{"version":{{sheet["zone"]!["version"]}},"{{field}}":{{value}}}""");
        Assert.Equal(400, status);
        Assert.Contains(field, problem.Fields());
        Assert.Equal(sheet.ToJsonString(), (await server.Get(path)).ToJsonString());
    }

    [Theory]
    [InlineData("coats", "0", "layers[0].coats")]
    [InlineData("strength", "-0.1", "layers[0].strength")]
    [InlineData("waitMinutes", "-1", "layers[0].waitMinutes")]
    [InlineData("paint", """[{"materialId":"00000000-0000-0000-0000-00000000dead","parts":1}]""", "layers[0].paint[0].materialId")]
    [InlineData("dilution", """{"thinnerId":"00000000-0000-0000-0000-00000000dead","paint":1,"thinner":0}""", "layers[0].dilution.thinner")]
    [InlineData("id", "\"00000000-0000-0000-0000-000000000000\"", "layers[0].id")]
    public async Task Impossible_layers_are_refused_and_not_stored(string field, string value, string named)
    {
        var (path, sheet) = await Open("Mud-and-salt base", "Fen mud");
        var body = Stack(sheet);
        body["layers"]![0]![field] = JsonNode.Parse(value);
        var (status, problem) = await server.Send(HttpMethod.Put, path + "/stack", body);
        Assert.Equal(400, status);
        Assert.Contains(named, problem.Fields());
        Assert.Equal(sheet.ToJsonString(), (await server.Get(path)).ToJsonString());
    }

    [Fact]
    public async Task Three_hundred_layers_long_notes_and_unknown_words_are_refused()
    {
        var (path, sheet) = await Open("Mud-and-salt base", "Fen mud");
        var body = Stack(sheet);
        var many = Stack(sheet, Enumerable.Range(0, 300).Select(_ => body["layers"]![0]));
        Assert.Equal((400, "layers"), await Refusal(many));
        body["layers"]![0]!["note"] = new string('n', 5000);
        Assert.Equal((400, "layers[0].note"), await Refusal(body));
        body["layers"]![0]!["note"] = "";
        body["layers"]![0]!["technique"] = "conjuring";
        var (status, problem) = await server.Send(HttpMethod.Put, path + "/stack", body);
        Assert.Equal((400, "malformed-json"), (status, problem.Text("code")));
        Assert.Equal("layers[0].technique", Assert.Single(problem.Fields()));
        Assert.Equal(sheet.ToJsonString(), (await server.Get(path)).ToJsonString());

        async Task<(int, string)> Refusal(JsonNode sent)
        {
            var (code, said) = await server.Send(HttpMethod.Put, path + "/stack", sent);
            return (code, said.Fields().First());
        }
    }

    [Fact]
    public async Task A_layer_of_another_treatment_cannot_be_taken()
    {
        var (path, sheet) = await Open("Mud-and-salt base", "Fen mud");
        var (_, other) = await Open("Mud-and-salt base", "Reed bed");
        var (status, problem) = await server.Send(HttpMethod.Put, path + "/stack", Stack(sheet, other["layers"]!.AsArray()));
        Assert.Equal(400, status);
        Assert.Equal(["layers"], problem.Fields());
    }

    [Fact]
    public async Task What_is_not_there_is_404_with_a_code()
    {
        foreach (var path in new[] { $"/api/plan/zones/{Guid.NewGuid()}", $"/api/plan/sets/{Guid.NewGuid()}", "/api/nothing/here" })
        {
            using var answer = await server.Http.GetAsync(path, TestContext.Current.CancellationToken);
            Assert.Equal(404, (int)answer.StatusCode);
            Assert.Contains("not-found", await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken));
        }
    }
}
