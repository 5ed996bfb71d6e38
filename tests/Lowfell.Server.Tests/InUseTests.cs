using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>Materials that layers are made with: a change tells what it does, and one is replaced by another everywhere.</summary>
public sealed class InUseTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private async Task<JsonNode> Material(string name) =>
        (await server.Get($"/api/shelf/{await server.WorkshopId()}/materials")).AsArray().Single(m => m!["name"]!.ToString() == name)!;

    [Fact]
    public async Task Another_colour_is_looked_at_before_it_is_stored()
    {
        var clay = await Material("Brick Clay");
        var entry = clay.Copy().AsObject();
        foreach (var own in entry.Select(e => e.Key).Except(["name", "maker", "code", "kind", "carrier", "colour", "sheen", "version"]).ToList())
            entry.Remove(own);
        var (status, same) = await server.Send(HttpMethod.Post, $"/api/shelf/materials/{clay["id"]}/effect", entry);
        Assert.Equal(200, status);
        entry["colour"] = "#2244aa";
        var (_, other) = await server.Send(HttpMethod.Post, $"/api/shelf/materials/{clay["id"]}/effect", entry);
        var zones = other["zones"]!.AsArray();
        Assert.Contains(zones, z => z!["zone"]!.ToString() == "Brick field, Lock-wall straight" && z["difference"]!.GetValue<double>() > 3);
        Assert.True(zones.Count >= same["zones"]!.AsArray().Count);
        Assert.True(other["treatments"]!.GetValue<int>() >= 1 && other["layers"]!.GetValue<int>() >= other["treatments"]!.GetValue<int>());

        // A look stores nothing.
        Assert.Equal(clay.ToJsonString(), (await Material("Brick Clay")).ToJsonString());
    }

    [Fact]
    public async Task One_is_replaced_by_another_everywhere_in_one_step()
    {
        var painter = new Painter(server, 0, "replacer");
        await painter.Begin();
        var before = await painter.Whole();
        JsonNode clay = await Material("Brick Clay"), slate = await Material("Wet Slate");
        var (_, look) = await server.Send(HttpMethod.Post, $"/api/shelf/materials/{clay["id"]}/replace/effect", new { with = slate["id"] });
        Assert.Equal(before, await painter.Whole());
        var zone = look["zones"]![0]!;
        var told = await painter.Do(HttpMethod.Post, $"/api/shelf/materials/{clay["id"]}/replace", new { with = slate["id"] });
        Assert.Equal(look["treatments"]!.GetValue<int>(), told["treatments"]!.GetValue<int>());
        Assert.Empty((await server.Get($"/api/shelf/materials/{clay["id"]}/uses")).AsArray());

        // The zone has become what the look said it would.
        var sheet = await server.Get($"/api/plan/zones/{zone["zoneId"]}");
        Assert.Equal(zone["after"]!.ToString(), sheet["reading"]!["layers"]!.AsArray()[^1]!["average"]!.ToString());
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(before, await painter.Whole());
        Assert.Equal(409, (await painter.Undo()).Status);
    }

    [Fact]
    public async Task What_layers_have_can_be_taken_off_the_shelf_and_is_offered_its_nearest()
    {
        var painter = new Painter(server, 0, "tidier");
        await painter.Begin();
        var shelf = $"/api/shelf/{painter.Workshop}/materials";
        var clay = await Material("Brick Clay");
        var uses = (await server.Get($"/api/shelf/materials/{clay["id"]}/uses")).ToJsonString();
        var zone = (await server.Get($"/api/shelf/materials/{clay["id"]}/uses"))[0]!;
        await painter.Do(HttpMethod.Delete, $"/api/shelf/materials/{clay["id"]}", null);
        Assert.DoesNotContain((await server.Get(shelf)).AsArray(), m => m!["id"]!.ToString() == clay["id"]!.ToString());
        Assert.Contains((await server.Get($"{shelf}?away=true")).AsArray(), m => m!["id"]!.ToString() == clay["id"]!.ToString());
        Assert.Equal(uses, (await server.Get($"/api/shelf/materials/{clay["id"]}/uses")).ToJsonString());

        // The nearest does the same work, and says how far off it is.
        var near = (await server.Get($"/api/shelf/materials/{clay["id"]}/stand-ins")).AsArray();
        Assert.NotEmpty(near);
        Assert.Equal(near.Select(n => n!["difference"]!.GetValue<double>()).Order(), near.Select(n => n!["difference"]!.GetValue<double>()));
        var on = (await server.Get(shelf)).AsArray().ToDictionary(m => m!["id"]!.ToString(), m => m!["kind"]!.ToString());
        Assert.All(near, n => Assert.Equal("paint", on[n!["materialId"]!.ToString()]));
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.NotNull(await Material("Brick Clay"));
        Assert.NotNull(zone);
    }

    [Fact]
    public async Task What_is_put_away_uses_nothing()
    {
        var painter = new Painter(server, 0, "parter");
        await painter.Begin();
        var rust = await Material("Rust Bloom");
        var uses = $"/api/shelf/materials/{rust["id"]}/uses";
        var before = (await server.Get(uses)).AsArray();
        await painter.Do(HttpMethod.Post, $"/api/treatments/{before[0]!["treatmentId"]}/copies", new { });
        Assert.True((await server.Get(uses)).AsArray().Count > before.Count);
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(before.ToJsonString(), (await server.Get(uses)).ToJsonString());
        Assert.Equal(rust["uses"]!.GetValue<int>(), (await Material("Rust Bloom"))["uses"]!.GetValue<int>());
    }

    [Fact]
    public async Task Only_another_of_the_shelf_can_take_its_place()
    {
        var clay = await Material("Brick Clay");
        foreach (var with in new[] { clay["id"]!.ToString(), Guid.NewGuid().ToString() })
        {
            var (status, problem) = await server.Send(HttpMethod.Post, $"/api/shelf/materials/{clay["id"]}/replace", new { with });
            Assert.Equal(400, status);
            Assert.Contains("with", problem.Fields());
        }
    }
}
