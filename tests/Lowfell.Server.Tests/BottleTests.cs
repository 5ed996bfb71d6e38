using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>The drop of a bottle over HTTP, and what follows from it in every jar.</summary>
public sealed class BottleTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private async Task<JsonNode> Card(string name) =>
        (await server.Get($"/api/shelf/{await server.WorkshopId()}/materials"))!.AsArray().Single(m => m!.Text("name") == name)!;

    private async Task<(int Status, JsonNode Body)> Count(JsonNode card, object entry)
    {
        var json = System.Text.Json.JsonSerializer.SerializeToNode(entry)!.AsObject();
        json["version"] ??= card["version"]!.GetValue<uint>();
        return await server.Send(HttpMethod.Put, $"/api/shelf/materials/{card["id"]}/bottle", json);
    }

    private async Task<JsonNode> Line(JsonNode card) =>
        (await server.Send(HttpMethod.Post, $"/api/pots/{await server.SetId()}/jar", new { parts = new[] { new { materialId = card["id"]!.GetValue<Guid>(), parts = 1 } }, totalMl = 10 })).Body["lines"]![0]!;

    [Fact]
    public async Task Twenty_drops_weighed_tell_the_drop_and_jars_count_by_it()
    {
        var card = await Card("Old Terracotta");
        var before = await Line(card);
        Assert.Equal((200m, false), (before["units"]!.GetValue<decimal>(), before["calibrated"]!.GetValue<bool>()));
        var (status, found) = await Count(card, new { drops = 20, grams = 1.0m, densityGPerMl = 1.25m });
        Assert.Equal((200, 0.04m, 0.002m), (status, found["dropMl"]!.GetValue<decimal>(), found["doubtMl"]!.GetValue<decimal>()));
        var after = await Line(card);
        Assert.Equal((250m, true, 12.5m, true), (after["units"]!.GetValue<decimal>(), after["calibrated"]!.GetValue<bool>(), after["grams"]!.GetValue<decimal>(), after["weighed"]!.GetValue<bool>()));

        // The density stays for the next time, and goes out with the shelf.
        (_, found) = await Count(await Card("Old Terracotta"), new { drops = 25, grams = 1.25m });
        Assert.Equal(0.04m, found["dropMl"]!.GetValue<decimal>());
        var csv = await server.Http.GetStringAsync($"/api/shelf/{await server.WorkshopId()}/materials.csv", TestContext.Current.CancellationToken);
        Assert.Contains(",0.04,1.25,", csv.Split('\n').Single(l => l.Contains("Old Terracotta", StringComparison.Ordinal)), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_drop_that_no_bottle_gives_is_refused_and_so_is_an_old_version()
    {
        var card = await Card("Reed Straw");
        async Task<string> Fields(object entry)
        {
            var (status, refused) = await Count(card, entry);
            Assert.Equal(400, status);
            return string.Join(' ', refused.Fields().Order());
        }

        Assert.Equal("ml", await Fields(new { drops = 20, ml = 40 }));
        Assert.Equal("grams", await Fields(new { drops = 20, grams = 0.01m }));
        Assert.Equal("drops ml", await Fields(new { drops = 0 }));
        Assert.Equal("densityGPerMl ml", await Fields(new { drops = 20, ml = 1, grams = 1, densityGPerMl = 90 }));
        Assert.Equal(200, (await Count(card, new { drops = 20, ml = 1 })).Status);
        var (status, changed) = await Count(card, new { drops = 20, ml = 0.9m });
        Assert.Equal((409, 0.05m), (status, changed["current"]!["dropMl"]!.GetValue<decimal>()));
        Assert.Equal(404, (await server.Send(HttpMethod.Put, $"/api/shelf/materials/{Guid.NewGuid()}/bottle", new { version = 1, drops = 20, ml = 1 })).Status);
    }

    [Fact]
    public async Task Pastes_are_counted_in_brush_loads()
    {
        var line = await Line(await Card("Fen Mud Paste"));
        Assert.Equal(("brush-loads", 40m), (line.Text("unitWord"), line["units"]!.GetValue<decimal>()));
    }
}
