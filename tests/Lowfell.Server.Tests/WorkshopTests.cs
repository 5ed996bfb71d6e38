using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>What a workshop is called, how warm it is and what its prices are in can be changed, and nobody's change is lost.</summary>
public sealed class WorkshopTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private async Task<JsonNode> Made(string name) => (await server.Send(HttpMethod.Post, "/api/workshops", new { name, currency = "marks" })).Body;

    private async Task<JsonNode> Stored(string id) => (await server.Get("/api/workshops")).AsArray().Single(w => w!.Text("id") == id)!;

    private Task<(int Status, JsonNode Body)> Change(JsonNode workshop, JsonObject change)
    {
        change["version"] ??= workshop["version"]!.Copy();
        return server.Send(HttpMethod.Put, $"/api/workshops/{workshop.Text("id")}", change);
    }

    [Fact]
    public async Task What_is_left_out_stays_as_it_is()
    {
        var made = await Made("Loft bench");
        Assert.Equal(("marks", 20m), (made.Text("currency"), made["temperatureC"]!.GetValue<decimal>()));
        var (status, changed) = await Change(made, new() { ["temperatureC"] = 14.5, ["relativeHumidity"] = 0.7 });
        Assert.Equal((200, "Loft bench", "marks", 14.5m), (status, changed.Text("name"), changed.Text("currency"), changed["temperatureC"]!.GetValue<decimal>()));
        (status, changed) = await Change(changed, new() { ["name"] = "  Cellar bench ", ["currency"] = "" });
        Assert.Equal((200, "Cellar bench", ""), (status, changed.Text("name"), changed.Text("currency")));
        Assert.Equal(0.7m, (await Stored(made.Text("id")))["relativeHumidity"]!.GetValue<decimal>());
    }

    [Fact]
    public async Task An_older_change_is_told_of_the_newer_one()
    {
        var made = await Made("Shed bench");
        Assert.Equal(200, (await Change(made, new() { ["currency"] = "groats" })).Status);
        var (status, problem) = await Change(made, new() { ["currency"] = "pence" });
        Assert.Equal((409, "changed-elsewhere", "groats"), (status, problem.Text("code"), problem["current"]!.Text("currency")));
        (status, _) = await Change(problem["current"]!, new() { ["currency"] = "pence" });
        Assert.Equal(200, status);
    }

    [Theory]
    [InlineData("""{"name":" "}""", "name")]
    [InlineData("""{"temperatureC":80}""", "temperatureC")]
    [InlineData("""{"relativeHumidity":1.2}""", "relativeHumidity")]
    [InlineData("""{"currency":"sovereigns of the realm"}""", "currency")]
    [InlineData("""{"currency":"\u202e"}""", "currency")]
    public async Task A_wrong_entry_names_its_field_and_changes_nothing(string change, string field)
    {
        var made = await Made($"Bench {Guid.NewGuid():n}"[..20]);
        var (status, problem) = await Change(made, JsonNode.Parse(change)!.AsObject());
        Assert.Equal((400, field), (status, problem.Fields().Single()));
        Assert.Equal(made["version"]!.GetValue<uint>(), (await Stored(made.Text("id")))["version"]!.GetValue<uint>());
    }

    [Fact]
    public async Task A_change_says_what_it_was_made_from_and_where()
    {
        var made = await Made("Barn bench");
        var (status, problem) = await server.Send(HttpMethod.Put, $"/api/workshops/{made.Text("id")}", new { name = "Yard bench" });
        Assert.Equal((400, "version"), (status, problem.Fields().Single()));
        Assert.Equal(404, (await server.Send(HttpMethod.Put, $"/api/workshops/{Guid.NewGuid()}", new { name = "Yard bench", version = 1 })).Status);
    }

    [Fact]
    public async Task Another_climate_is_seen_in_the_set_at_once()
    {
        var workshop = await Stored($"{await server.WorkshopId()}");
        var set = $"/api/plan/sets/{workshop["sets"]![0]!.Text("id")}";
        Assert.Equal(17m, (await server.Get(set))["temperatureC"]!.GetValue<decimal>());
        Assert.Equal(200, (await Change(workshop, new() { ["temperatureC"] = 9, ["airMoves"] = true })).Status);
        var overview = await server.Get(set);
        Assert.Equal((9m, true), (overview["temperatureC"]!.GetValue<decimal>(), overview["airMoves"]!.GetValue<bool>()));
    }
}
