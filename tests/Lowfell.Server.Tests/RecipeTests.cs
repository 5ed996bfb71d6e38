using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>Mixes kept under a name, and put onto layers.</summary>
public sealed class RecipeTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private async Task<string> Material(string name) =>
        (await server.Get($"/api/shelf/{await server.WorkshopId()}/materials")).AsArray().Single(m => m!["name"]!.ToString() == name)!["id"]!.ToString();

    private async Task<object[]> Parts() => [new { materialId = await Material("Brick Clay"), parts = 3 }, new { materialId = await Material("Wet Slate"), parts = 1 }, new { materialId = await Material("Tarnside Thinner"), parts = 2 }];

    [Fact]
    public async Task A_mix_is_kept_renamed_removed_and_each_comes_back()
    {
        var painter = new Painter(server, 0, "keeper");
        await painter.Begin();
        var recipes = $"/api/workshops/{painter.Workshop}/recipes";
        var told = await painter.Do(HttpMethod.Post, recipes, new { name = "Old brick", parts = await Parts() });
        var card = (await server.Get(recipes)).AsArray().Single()!;
        Assert.Equal(("Old brick", 2, "2 : 1"), (card["name"]!.ToString(), card["paint"]!.AsArray().Count, card["thinned"]!.ToString()));
        Assert.Equal([3m, 1m, 2m], card["parts"]!.AsArray().Select(p => p!["parts"]!.GetValue<decimal>()));

        var (status, problem) = await painter.Send(HttpMethod.Post, recipes, new { name = "Old brick", parts = await Parts() });
        Assert.Equal((409, "name"), (status, problem.Fields().Single()));
        (status, problem) = await painter.Send(HttpMethod.Post, recipes, new { name = "", parts = Array.Empty<object>() });
        Assert.Equal(400, status);
        Assert.Equal(["name", "parts"], problem.Fields().Order());

        await painter.Do(HttpMethod.Put, $"/api/recipes/{told["id"]}", new { version = card["version"], name = "Wet brick", parts = (await Parts())[..2] });
        var changed = (await server.Get(recipes)).ToJsonString();
        Assert.Contains("Wet brick", changed, StringComparison.Ordinal);
        await painter.Do(HttpMethod.Delete, $"/api/recipes/{told["id"]}", null);
        Assert.Empty((await server.Get(recipes)).AsArray());
        Assert.Equal(200, (await painter.Undo()).Status);
        AssertSame(changed, await server.Get(recipes));
        Assert.Equal(200, (await painter.Undo()).Status);
        AssertSame(card.ToJsonString(), (await server.Get(recipes))[0]!);
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Empty((await server.Get(recipes)).AsArray());
    }

    /// <summary>The same but for the version, which moves with every write.</summary>
    private static void AssertSame(string was, JsonNode now)
    {
        static string Plain(string json) => System.Text.RegularExpressions.Regex.Replace(json, "\"version\":\\d+", "");
        Assert.Equal(Plain(was), Plain(now.ToJsonString()));
    }

    [Fact]
    public async Task A_mix_is_put_onto_a_layer_as_paint_and_dilution()
    {
        var painter = new Painter(server, 0, "mixer");
        await painter.Begin();
        var before = await painter.Whole();
        var set = (await server.Get($"/api/workshops/{painter.Workshop}/sets"))[0]!["id"]!;
        var zone = (await server.Get($"/api/sets/{set}"))["designs"]![0]!["zones"]![0]!;
        var sheet = await server.Get($"/api/plan/zones/{zone["id"]}");
        var layer = sheet["layers"]!.AsArray().First(l => l!["technique"]!.ToString() == "base coat")!["id"]!;
        var (status, problem) = await painter.Send(HttpMethod.Put, $"/api/zones/{zone["id"]}/mix", new { layerId = Guid.NewGuid(), parts = await Parts() });
        Assert.Equal((400, "layerId"), (status, problem.Fields().Single()));
        await painter.Do(HttpMethod.Put, $"/api/zones/{zone["id"]}/mix", new { layerId = layer, parts = await Parts() });
        var laid = (await server.Get($"/api/plan/zones/{zone["id"]}"))["layers"]!.AsArray().Single(l => l!["id"]!.ToString() == layer.ToString())!;
        Assert.Equal([3m, 1m], laid["paint"]!.AsArray().Select(p => p!["parts"]!.GetValue<decimal>()));
        Assert.Equal((2m, 1m), (laid["dilution"]!["paint"]!.GetValue<decimal>(), laid["dilution"]!["thinner"]!.GetValue<decimal>()));
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(before, await painter.Whole());
    }
}
