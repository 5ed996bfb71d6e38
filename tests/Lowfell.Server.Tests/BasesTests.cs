using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>Bases laid out over a tray: drawn, kept, changed by hand, put into the plan, undone.</summary>
public sealed class BasesTests(LowfellServer server) : IClassFixture<LowfellServer>, IAsyncLifetime
{
    private readonly Painter painter = new(server, 1);
    private string at = "";

    public async ValueTask InitializeAsync()
    {
        await painter.Begin();
        var root = $"/api/bases/{await server.SetId()}";
        at = $"{root}/{(await server.Get(root))["designs"]!.AsArray().Single()!.Text("designId")}";
        var tray = await server.Get(at);
        if (tray["version"] is not null)
            return;

        // What one would begin with, two feet on it: as large as the zones that look up, which are its textures.
        var wish = tray["wish"]!.Copy();
        Assert.Equal(32.1, wish["shape"]!["widthMm"]!.GetValue<double>());
        Assert.Equal(["by reeds", "anywhere", "anywhere"], wish["textures"]!.AsArray().Select(t => t!.Text("place")));
        wish["flats"] = JsonNode.Parse("""[{ "kind": "foot", "x": -3.4, "y": 0, "widthMm": 8, "heightMm": 3.6, "turn": 80 }, { "kind": "foot", "x": 3.4, "y": 0, "widthMm": 8, "heightMm": 3.6, "turn": 100 }]""");
        await painter.Do(HttpMethod.Put, at, new JsonObject { ["wish"] = wish });
    }

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private static JsonArray Bases(JsonNode tray) => tray["bases"]!.AsArray();

    [Fact]
    public async Task Bases_keep_the_rules_differ_and_have_the_areas_of_their_zones()
    {
        var tray = await server.Get(at);
        Assert.Equal(24, Bases(tray).Count);
        Assert.All(Bases(tray), b => Assert.Empty(b!["broken"]!.AsArray()));
        Assert.True(tray["leastDifference"]!.GetValue<double>() >= tray["wantedDifference"]!.GetValue<double>());
        foreach (var texture in tray["textures"]!.AsArray())
            Assert.Equal(texture!["zoneCm2"]!.GetValue<double>(), texture["drawnCm2"]!.GetValue<double>(), 0.1);
        Assert.Equal(Enumerable.Range(1, 24).Select(n => $"B{n}"), Bases(tray).Select(b => b!.Text("label")));
        Assert.Contains("Short Reed Tufts", tray["counts"]!.AsArray().Single(c => c!.Text("kind") == "reed")!.Text("layer"));
    }

    [Fact]
    public async Task Areas_and_counts_go_into_the_plan_and_the_shopping_list_and_come_back_with_one_undo()
    {
        var before = await server.Get(at);
        var (_, tray) = (await painter.Send(HttpMethod.Post, $"{at}/plan", null));
        foreach (var texture in tray["textures"]!.AsArray())
            Assert.Equal(texture!["drawnCm2"]!.GetValue<double>(), texture["zoneCm2"]!.GetValue<double>(), 0.01 * texture["drawnCm2"]!.GetValue<double>());
        var set = tray["counts"]!.AsArray().Where(c => c!.Text("kind") is "tuft" or "reed").ToList();
        Assert.All(set, c => Assert.Equal(set.Sum(s => s!["all"]!.GetValue<int>()), c!["planned"]!.GetValue<int>()));
        var zone = await server.Get($"/api/plan/zones/{await server.ZoneId("Mud-and-salt base", "Reed bed")}");
        var tufts = zone["layers"]!.AsArray().Single(l => l!.Text("technique") == "tuft")!;
        Assert.Equal(set.Sum(s => s!["all"]!.GetValue<int>()), zone["reading"]!["layers"]!.AsArray().Single(l => l!.Text("id") == tufts.Text("id"))!["needs"]![0]!["count"]!.GetValue<int>());
        Assert.Equal(200, (await painter.Undo()).Status);
        var after = await server.Get(at);
        Assert.Equal(before["textures"]!.ToJsonString(), after["textures"]!.ToJsonString());
        Assert.Equal(before["counts"]!.ToJsonString(), after["counts"]!.ToJsonString());
    }

    [Fact]
    public async Task A_hand_moves_one_thing_and_the_rest_keeps_its_place()
    {
        var before = await server.Get(at);
        var first = Bases(before).First(b => b!["elements"]!.AsArray().Count > 1)!;
        var elements = first["elements"]!.Copy().AsArray();
        elements[0]!["x"] = 14.9;
        elements[0]!["y"] = 0;
        async Task<(int, JsonNode)> Put(JsonNode? what, JsonNode? version = null) =>
            await painter.Send(HttpMethod.Put, $"{at}/hand", new JsonObject { ["version"] = version?.DeepClone() ?? (await server.Get(at))["version"]!.DeepClone(), ["pieceId"] = first.Text("pieceId"), ["elements"] = what?.DeepClone() });
        var (status, tray) = await Put(elements);
        Assert.True(status == 200, tray.ToJsonString());
        var mine = Bases(tray).Single(b => b!.Text("pieceId") == first.Text("pieceId"))!;
        Assert.True(mine["byHand"]!.GetValue<bool>());
        var broken = mine["broken"]!.AsArray().First(b => b!.Text("fault") == "over rim")!;
        Assert.NotNull(broken["toX"]);

        // Its ground, and every other base, are as they were.
        Assert.Equal(first["textures"]!.ToJsonString(), mine["textures"]!.ToJsonString());
        foreach (var (a, b) in Bases(before).Zip(Bases(tray)).Where(x => x.First!.Text("pieceId") != first.Text("pieceId")))
            Assert.Equal(a!["elements"]!.ToJsonString(), b!["elements"]!.ToJsonString());

        // Drawn again with another number, it stays as the hand has it.
        var wish = tray["wish"]!.Copy();
        wish["seed"] = 99;
        var (_, other) = await painter.Send(HttpMethod.Put, at, new JsonObject { ["version"] = tray["version"]!.DeepClone(), ["wish"] = wish });
        Assert.Equal(mine["elements"]!.ToJsonString(), Bases(other).Single(b => b!.Text("pieceId") == first.Text("pieceId"))!["elements"]!.ToJsonString());
        Assert.Equal(409, (await Put(elements, tray["version"])).Item1);
        Assert.Equal(200, (await painter.Undo()).Status);
        var (_, back) = await Put(null);
        Assert.Equal(Bases(before).ToJsonString(), Bases(back).ToJsonString());
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(before["bases"]!.ToJsonString(), (await server.Get(at))["bases"]!.ToJsonString());
    }

    [Fact]
    public async Task A_base_that_is_added_changes_none_of_the_others()
    {
        var before = await server.Get(at);
        var (status, said) = await painter.Send(HttpMethod.Post, $"/api/designs/{before.Text("designId")}/pieces", new JsonObject { ["labels"] = new JsonArray("A0") });
        Assert.True(status == 201, said.ToJsonString());
        var after = Bases(await server.Get(at));
        Assert.Equal(25, after.Count);
        foreach (var (a, b) in Bases(before).Zip(after))
            Assert.Equal(a!["elements"]!.ToJsonString() + a["textures"]!.ToJsonString(), b!["elements"]!.ToJsonString() + b["textures"]!.ToJsonString());
        Assert.Equal(200, (await painter.Undo()).Status);
    }

    [Fact]
    public async Task A_copy_and_a_design_that_goes_to_another_set_take_their_bases_along()
    {
        var before = await server.Get(at);
        var second = Bases(before)[1]!;
        var elements = new JsonArray(new JsonObject { ["kind"] = "cork", ["x"] = 7, ["y"] = 6, ["radiusMm"] = 4 });
        await painter.Do(HttpMethod.Put, $"{at}/hand", new JsonObject { ["version"] = before["version"]!.DeepClone(), ["pieceId"] = second["pieceId"]!.DeepClone(), ["elements"] = elements });
        static string Lies(JsonNode tray) => string.Join('\n', Bases(tray).Select(b => b!.Text("label") + b!["elements"]!.ToJsonString() + b["textures"]!.ToJsonString() + b["byHand"]));
        var changed = await server.Get(at);
        Assert.Contains("cork", changed["counts"]!.AsArray().Select(c => c!.Text("kind")));
        var set = await server.SetId();
        var copy = (await painter.Do(HttpMethod.Post, $"/api/sets/{set}/copies", new JsonObject())).Text("id");
        var root = $"/api/bases/{copy}";
        var theirs = (await server.Get(root))["designs"]!.AsArray().Single()!;
        Assert.True(theirs["planned"]!.GetValue<bool>());
        Assert.Equal(Lies(changed), Lies(await server.Get($"{root}/{theirs.Text("designId")}")));

        // The textures are zones of the copy, and not of the original.
        Assert.Empty((await server.Get($"{root}/{theirs.Text("designId")}"))["textures"]!.AsArray().Select(t => t!.Text("zoneId")).Intersect(changed["textures"]!.AsArray().Select(t => t!.Text("zoneId"))));

        // A design goes over to the other set, with its tray.
        await painter.Do(HttpMethod.Post, $"/api/sets/{copy}/merges", new JsonObject { ["fromSetId"] = set, ["designs"] = new JsonArray(changed["designId"]!.DeepClone()) });
        Assert.Empty((await server.Get($"/api/bases/{set}"))["designs"]!.AsArray());
        Assert.Equal(Lies(changed), Lies(await server.Get($"{root}/{changed.Text("designId")}")));
        for (var n = 0; n < 3; n++)
            Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(Lies(before), Lies(await server.Get(at)));
    }

    [Fact]
    public async Task What_cannot_be_is_refused_with_the_field_and_the_reason()
    {
        var tray = await server.Get(at);
        foreach (var (change, field) in new (Action<JsonNode>, string)[]
        {
            (w => w["seed"] = 0, "wish.seed"), (w => w["shape"]!["widthMm"] = 2, "wish.shape.widthMm"), (w => w["textures"] = new JsonArray(), "wish.textures"), (w => w["textures"]![0]!["share"] = 3, "wish.textures[0].share"),
            (w => w["textures"]![0]!["zoneId"] = Guid.NewGuid(), "wish.textures[0].zoneId"), (w => w["flats"]![0]!["x"] = 100, "wish.flats[0]"), (w => w["rocks"] = 99, "wish.rocks"), (w => w["marginMm"] = 12, "wish.marginMm"), (w => w["columns"] = 0, "wish.columns"),
        })
        {
            var wish = tray["wish"]!.Copy();
            change(wish);
            var (status, said) = await server.Send(HttpMethod.Post, $"{at}/look", new JsonObject { ["wish"] = wish });
            Assert.True(status == 400, $"{field}: {said.ToJsonString()}");
            Assert.Contains(field, said.Fields());
        }

        var (refused, why) = await painter.Send(HttpMethod.Put, $"{at}/hand", new JsonObject { ["version"] = tray["version"]!.DeepClone(), ["pieceId"] = Guid.NewGuid(), ["elements"] = new JsonArray() });
        Assert.Equal(400, refused);
        Assert.Contains("pieceId", why.Fields());
        Assert.Equal(404, (await server.Send(HttpMethod.Post, $"/api/bases/{await server.SetId()}/{Guid.NewGuid()}/look", new JsonObject { ["wish"] = tray["wish"]!.DeepClone() })).Status);
    }
}
