using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>Plans that lay a layer differently on every piece: kept, undone, dealt, at the bench, and beside what was done.</summary>
public sealed class VariationTests(LowfellServer server) : IClassFixture<LowfellServer>, IAsyncLifetime
{
    private readonly Painter painter = new(server, 1);

    public async ValueTask InitializeAsync() => await painter.Begin();

    public ValueTask DisposeAsync() => ValueTask.CompletedTask;

    private async Task<string> Root() => $"/api/variation/{await server.SetId()}";

    private async Task<JsonNode> Entry(Func<JsonNode, bool> which) => (await server.Get(await Root()))["layers"]!.AsArray().First(e => which(e!))!;

    private async Task<string> At(Func<JsonNode, bool> which)
    {
        var entry = await Entry(which);
        return $"{await Root()}/{entry.Text("treatmentId")}/{entry.Text("layerId")}";
    }

    private static bool IsPatch(JsonNode e) => e.Text("technique") == "patch" && e.Text("treatment") == "Lock brick";

    private static JsonObject Asked(int seed, double? mm = null, double? marks = null, double? spread = null, bool dealt = false, string? habit = null) =>
        new() { ["seed"] = seed, ["meanMm"] = mm, ["marks"] = marks, ["spread"] = spread, ["dealt"] = dealt, ["habit"] = habit };

    private async Task<JsonNode> Keep(string at, JsonObject? varied, bool byShelf = false)
    {
        var (status, kept) = await painter.Send(HttpMethod.Put, at, new JsonObject { ["treatmentVersion"] = (await server.Get(at))["treatmentVersion"]!.DeepClone(), ["varied"] = varied, ["byShelf"] = byShelf });
        Assert.True(status == 200, kept.ToJsonString());
        return kept;
    }

    [Fact]
    public async Task The_demo_has_plans_for_moss_and_for_rust_over_all_their_zones()
    {
        var list = (await server.Get(await Root()))["layers"]!.AsArray();
        Assert.Equal(["Lichen Yellow", "Lichen Yellow", "Rust Bloom", "Withy Grey + Lichen Yellow"], list.Where(e => e!["varied"]!.GetValue<bool>()).Select(e => e!.Text("paint")).Order());
        var rust = await server.Get(await At(e => e.Text("paint") == "Rust Bloom" && e["varied"]!.GetValue<bool>()));
        Assert.Equal(["Iron", "Mooring ring", "Mooring ring"], rust["zones"]!.AsArray().Select(z => z!.Text("zone")).Order());
        foreach (var zone in rust["zones"]!.AsArray())
        {
            Assert.Equal(0, zone!["figures"]!["sharedPlaces"]!.GetValue<int>());
            Assert.All(zone["pieces"]!.AsArray(), p => Assert.Contains("at the ", p!.Text("words")));
        }

        // Two zones of one treatment are not copies of each other.
        var all = rust["zones"]!.AsArray().SelectMany(z => z!["pieces"]!.AsArray().Select(p => p!.Text("words"))).ToList();
        Assert.Equal(all.Count, all.Distinct().Count());
    }

    [Fact]
    public async Task A_plan_is_looked_at_kept_reckoned_with_and_undone()
    {
        var at = await At(IsPatch);
        var before = await server.Get(at);
        Assert.False(before["kept"]!.GetValue<bool>());
        double Ml(JsonNode plan) => plan["zones"]![0]!["figures"]!["ml"]!.GetValue<double>();
        var (_, look) = await server.Send(HttpMethod.Post, $"{at}/look", new JsonObject { ["varied"] = Asked(9, mm: 12, marks: 2) });
        Assert.False(look["kept"]!.GetValue<bool>());
        Assert.Equal(12, look["zones"]![0]!["figures"]!["askedMm"]!.GetValue<double>());
        Assert.True(Ml(look) < Ml(before) / 3, "two small patches take less than four tenths of a face");
        var kept = await Keep(at, Asked(9, mm: 12, marks: 2));
        Assert.True(kept["kept"]!.GetValue<bool>());
        Assert.Equal(look["zones"]!.ToJsonString(), kept["zones"]!.ToJsonString());

        // The plan of layers reckons with the same.
        var zone = await server.Get($"/api/plan/zones/{await server.ZoneId("Lock-wall straight", "Brick field")}");
        var patch = zone["layers"]!.AsArray().Single(l => l!.Text("technique") == "patch")!;
        Assert.Equal(9, patch["varied"]!["seed"]!.GetValue<int>());
        var needs = zone["reading"]!["layers"]!.AsArray().Single(l => l!.Text("id") == patch.Text("id"))!["needs"]!.AsArray();
        Assert.Equal(Ml(kept), needs.Sum(n => n!["ml"]!.GetValue<double>()), 0.1);
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.False((await server.Get(at))["kept"]!.GetValue<bool>());
    }

    [Fact]
    public async Task A_piece_that_is_added_changes_no_other()
    {
        var at = await At(e => e.Text("paint") == "Rust Bloom" && e["varied"]!.GetValue<bool>());
        async Task<Dictionary<string, string>> Words() => (await server.Get(at))["zones"]!.AsArray().SelectMany(z => z!["pieces"]!.AsArray()).ToDictionary(p => p!.Text("label"), p => p!.Text("words"));
        var before = await Words();
        var design = (await server.Get($"/api/sets/{await server.SetId()}"))["designs"]!.AsArray().Single(d => d!.Text("name") == "Jetty section")!;
        var (status, said) = await server.Send(HttpMethod.Post, $"/api/designs/{design.Text("id")}/pieces", new JsonObject { ["labels"] = new JsonArray("J0") });
        Assert.True(status is 200 or 201, said.ToJsonString());
        var after = await Words();
        Assert.Equal(before.Count + 1, after.Count);
        Assert.All(before, b => Assert.Equal(b.Value, after[b.Key]));
    }

    [Fact]
    public async Task Materials_are_dealt_by_their_parts_or_by_the_shelf_and_are_no_mix_any_more()
    {
        var at = await At(e => e.Text("technique") == "stipple" && e.Text("treatment") == "Lock coping");
        var kept = await Keep(at, Asked(4, dealt: true));
        var dealt = kept["dealt"]!.AsArray();
        Assert.Equal(["Lichen Yellow", "Withy Grey"], dealt.Select(d => d!.Text("name")).Order());
        Assert.All(dealt, d => Assert.Equal(d!["share"]!.GetValue<double>(), d["pieceShare"]!.GetValue<double>(), 0.1));
        foreach (var zone in kept["zones"]!.AsArray())
        {
            var words = zone!["pieces"]!.AsArray().Select(p => p!.Text("words").Split(';')[0]).ToList();
            Assert.All(words.Zip(words.Skip(1)), w => Assert.NotEqual(w.First, w.Second));
        }

        // No pot of both is asked for any more, and each is needed as before.
        var pots = (await server.Get($"/api/pots/{await server.SetId()}")).ToJsonString();
        Assert.DoesNotContain("Withy Grey + Lichen Yellow", pots);
        var shelf = await Keep(at, Asked(4, dealt: true), byShelf: true);
        var stock = shelf["dealt"]!.AsArray();
        var sum = stock.Sum(d => d!["stockMl"]!.GetValue<double>());
        Assert.All(stock, d => Assert.Equal(d!["stockMl"]!.GetValue<double>() / sum, d["share"]!.GetValue<double>(), 0.06));
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(200, (await painter.Undo()).Status);
    }

    [Fact]
    public async Task What_was_laid_otherwise_is_set_beside_the_plan_and_can_be_taken_back()
    {
        // The demo has one coping that came out otherwise; another is noted.
        var at = await At(e => e.Text("technique") == "stipple" && e.Text("treatment") == "Lock coping");
        var zone = (await server.Get(at))["zones"]!.AsArray().First(z => z!["figures"]!["done"]!.GetValue<int>() > 0)!;
        var piece = zone["pieces"]!.AsArray().First(p => p!.Text("state") == "done" && p!["done"] is null)!;
        var (status, told) = await painter.Send(HttpMethod.Put, $"{at}/done", new JsonObject { ["zoneId"] = zone.Text("zoneId"), ["pieceId"] = piece.Text("pieceId"), ["marks"] = 7, ["meanMm"] = 2.5, ["note"] = "a whole row of them" });
        Assert.True(status == 200, told.ToJsonString());
        var figures = told["zones"]!.AsArray().Single(z => z!.Text("zoneId") == zone.Text("zoneId"))!["figures"]!;
        Assert.Equal(2, figures["otherwise"]!.GetValue<int>());
        Assert.NotEqual(zone["figures"]!["doneMarks"]!.GetValue<double>(), figures["doneMarks"]!.GetValue<double>());
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(zone["figures"]!.ToJsonString(), (await server.Get(at))["zones"]!.AsArray().Single(z => z!.Text("zoneId") == zone.Text("zoneId"))!["figures"]!.ToJsonString());
    }

    [Fact]
    public async Task What_cannot_be_is_refused_with_the_field_and_the_reason()
    {
        var at = await At(IsPatch);
        var version = (await server.Get(at))["treatmentVersion"]!;
        foreach (var (varied, field) in new[] { (Asked(0), "varied.seed"), (Asked(1, mm: 900), "varied.meanMm"), (Asked(1, marks: 40), "varied.marks"), (Asked(1, spread: 2), "varied.spread"), (Asked(1, dealt: true), "varied.dealt") })
        {
            var (status, said) = await painter.Send(HttpMethod.Put, at, new JsonObject { ["treatmentVersion"] = version.DeepClone(), ["varied"] = varied });
            Assert.Equal(400, status);
            Assert.Contains(field, said.Fields());
        }

        Assert.Equal(409, (await painter.Send(HttpMethod.Put, at, new JsonObject { ["treatmentVersion"] = 1, ["varied"] = Asked(2) })).Status);
        Assert.Equal(404, (await server.Send(HttpMethod.Post, $"{await Root()}/{Guid.NewGuid()}/{Guid.NewGuid()}/look", new JsonObject { ["varied"] = Asked(1) })).Status);
        var base_ = await At(e => e.Text("technique") == "base coat" && e["canBeDealt"]!.GetValue<bool>());
        Assert.Equal(400, (await painter.Send(HttpMethod.Put, base_, new JsonObject { ["treatmentVersion"] = (await server.Get(base_))["treatmentVersion"]!.DeepClone(), ["varied"] = Asked(2) })).Status);
        Assert.Equal(400, (await painter.Send(HttpMethod.Put, $"{at}/done", new JsonObject { ["zoneId"] = Guid.NewGuid(), ["pieceId"] = Guid.NewGuid(), ["marks"] = -1 })).Status);
    }

    [Fact]
    public async Task At_the_bench_the_plan_is_said_for_every_piece()
    {
        var entry = await Entry(e => e.Text("paint") == "Rust Bloom" && e["varied"]!.GetValue<bool>());
        var plan = await server.Get(await At(e => e.Text("layerId") == entry.Text("layerId")));
        var ring = plan["zones"]!.AsArray().First(z => z!.Text("zone") == "Mooring ring")!;
        async Task<JsonNode> Task(string layer) => await server.Get($"/api/bench/{painter.Workshop}/task?zoneId={ring.Text("zoneId")}&layerId={layer}");
        var pieces = (await Task(entry.Text("layerId")))["pieces"]!.AsArray();
        Assert.NotEmpty(pieces);
        Assert.All(pieces, p => Assert.Equal(ring["pieces"]!.AsArray().Single(q => q!.Text("pieceId") == p!.Text("id"))!.Text("words"), p!.Text("planned")));

        // A layer that is laid alike says nothing of the kind; what the painter wrote at it is said.
        var zone = await server.Get($"/api/plan/zones/{await server.ZoneId("Lock-wall straight", "Brick field")}");
        var wash = zone["layers"]!.AsArray().Single(l => l!.Text("technique") == "pin wash")!;
        var task = await server.Get($"/api/bench/{painter.Workshop}/task?zoneId={zone["zone"]!.Text("id")}&layerId={wash.Text("id")}");
        Assert.All(task["pieces"]!.AsArray(), p => Assert.Equal("", p!.Text("planned")));
        Assert.Equal("Joints only, no pool wider than 1 mm.", task["watch"]![0]!.GetValue<string>());
    }

    [Fact]
    public async Task A_face_that_is_measured_is_as_wide_as_it_was_measured_and_what_is_fixed_to_it_is_on_it()
    {
        var id = await server.ZoneId("Lock-wall straight", "Brick field");
        async Task<JsonNode> Face() => (await server.Get(await At(IsPatch)))["zones"]!.AsArray().Single(z => z!.Text("zoneId") == id.ToString())!["face"]!;
        var before = await Face();
        Assert.Equal((240, 132.5, true), (before["widthMm"]!.GetValue<double>(), before["heightMm"]!.GetValue<double>(), before["measured"]!.GetValue<bool>()));
        var slime = await server.Get(await At(e => e.Text("paint") == "Tide Slime"));
        Assert.All(slime["zones"]!.AsArray(), z => Assert.Equal(["Mooring ring"], z!["face"]!["anchors"]!.AsArray().Select(a => a!.Text("name"))));
        Assert.Contains(slime["zones"]![0]!["pieces"]!.AsArray(), p => p!.Text("words").Contains("under the mooring ring"));
        async Task<(int, JsonNode)> Change(JsonObject change)
        {
            var sheet = (await server.Get($"/api/sets/{await server.SetId()}"))["designs"]!.AsArray().SelectMany(d => d!["zones"]!.AsArray()).Single(z => z!.Text("id") == id.ToString())!;
            change["version"] = sheet["version"]!.DeepClone();
            return await painter.Send(HttpMethod.Put, $"/api/zones/{id}", change);
        }

        var (status, said) = await Change(new JsonObject { ["faceWidthMm"] = 300 });
        Assert.True(status == 200, said.ToJsonString());
        Assert.Equal((300, 106.0), ((await Face())["widthMm"]!.GetValue<double>(), (await Face())["heightMm"]!.GetValue<double>()));
        Assert.Equal(200, (await Change(new JsonObject { ["clear"] = new JsonArray("faceWidthMm") })).Item1);
        Assert.False((await Face())["measured"]!.GetValue<bool>());
        Assert.Equal(400, (await Change(new JsonObject { ["faceWidthMm"] = 0 })).Item1);
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(before.ToJsonString(), (await Face()).ToJsonString());
    }

    [Fact]
    public async Task A_piece_that_is_removed_renamed_or_moved_changes_no_other()
    {
        var at = await At(e => e.Text("paint") == "Rust Bloom" && e["varied"]!.GetValue<bool>());
        async Task<Dictionary<string, string>> Words() => (await server.Get(at))["zones"]!.AsArray().SelectMany(z => z!["pieces"]!.AsArray().Select(p => (Id: p!.Text("pieceId"), Words: p!.Text("words")))).ToDictionary(p => p.Id, p => p.Words);
        var before = await Words();
        var jetties = (await server.Get($"/api/sets/{await server.SetId()}"))["designs"]!.AsArray().Single(d => d!.Text("name") == "Jetty section")!["pieces"]!.AsArray();
        var (first, second) = (jetties[0]!, jetties[1]!);
        await painter.Do(HttpMethod.Put, $"/api/pieces/{second.Text("id")}", new JsonObject { ["version"] = second["version"]!.DeepClone(), ["label"] = "Z9" });
        await painter.Do(HttpMethod.Delete, $"/api/pieces/{first.Text("id")}", new JsonObject { ["version"] = first["version"]!.DeepClone() });
        var after = await Words();
        Assert.DoesNotContain(first.Text("id"), after.Keys);
        Assert.All(after, a => Assert.Equal(before[a.Key], a.Value));
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(before, await Words());
    }

    [Fact]
    public async Task A_copy_of_the_set_has_the_same_plans_and_trays_and_with_the_work_what_was_noted()
    {
        var set = (await server.SetId()).ToString();
        var copy = (await painter.Do(HttpMethod.Post, $"/api/sets/{set}/copies", new JsonObject { ["withWork"] = true })).Text("id");
        async Task<JsonNode> Stipple(string of)
        {
            var entry = (await server.Get($"/api/variation/{of}"))["layers"]!.AsArray().First(e => e!.Text("technique") == "stipple" && e!.Text("treatment") == "Lock coping")!;
            return await server.Get($"/api/variation/{of}/{entry.Text("treatmentId")}/{entry.Text("layerId")}");
        }

        static string Said(JsonNode plan) => string.Join('\n', plan["zones"]!.AsArray().SelectMany(z => z!["pieces"]!.AsArray().Select(p => $"{z!.Text("zone")} {p!.Text("label")} {p!.Text("words")} {p!["done"]?["marks"]}")).Order());
        Assert.Equal(Said(await Stipple(set)), Said(await Stipple(copy)));

        // Beside the original, in the same set, the same zones get plans of their own.
        var walls = (await server.Get($"/api/sets/{set}"))["designs"]!.AsArray().Single(d => d!.Text("name") == "Lock-wall straight")!.Text("id");
        await painter.Do(HttpMethod.Post, $"/api/designs/{walls}/copies", new JsonObject());
        var zones = (await Stipple(set))["zones"]!.AsArray().Where(z => z!.Text("design").StartsWith("Lock-wall straight", StringComparison.Ordinal)).Select(z => string.Join(';', z!["pieces"]!.AsArray().Select(p => p!.Text("words")))).ToList();
        Assert.Equal(2, zones.Count);
        Assert.NotEqual(zones[0], zones[1]);
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(200, (await painter.Undo()).Status);
    }

    [Fact]
    public async Task The_log_tells_what_came_out_otherwise_beside_what_was_planned()
    {
        var set = await server.SetId();
        var marks = Assert.Single((await server.Get($"/api/log/{set}"))["marks"]!.AsArray())!;
        Assert.Equal(("W2", "Coping", "stipple", 2, 3), (marks.Text("piece"), marks.Text("zone"), marks.Text("technique"), marks["marks"]!.GetValue<int>(), marks["planned"]!.GetValue<int>()));
        Assert.True(marks["plannedMm"]!.GetValue<double>() > 5);
        Assert.Single((await server.Get($"/api/log/{set}?kinds=noted"))["marks"]!.AsArray());
        Assert.Empty((await server.Get($"/api/log/{set}?kinds=mishap"))["marks"]!.AsArray());
        Assert.Empty((await server.Get($"/api/log/{set}?zoneId={await server.ZoneId("Lock-wall straight", "Brick field")}"))["marks"]!.AsArray());

        // However small the pages are, it is told once.
        var (told, before) = (0, "");
        for (var n = 0; n < 200; n++)
        {
            var page = await server.Get($"/api/log/{set}?most=5{(before.Length > 0 ? $"&before={before}" : "")}");
            told += page["marks"]!.AsArray().Count;
            if ((before = page.Text("next")).Length == 0)
                break;
        }

        Assert.Equal(1, told);
    }

    [Fact]
    public async Task What_was_noted_of_a_piece_is_put_right_and_taken_back_by_noting_it_again()
    {
        var at = await At(e => e.Text("paint") == "Lichen Yellow" && e["varied"]!.GetValue<bool>());
        var zone = (await server.Get(at))["zones"]![0]!;
        var piece = zone["pieces"]![0]!;
        async Task<string> Noted(int? marks)
        {
            var (status, plan) = await painter.Send(HttpMethod.Put, $"{at}/done", new { zoneId = zone.Text("zoneId"), pieceId = piece.Text("pieceId"), marks, note = marks is null ? "" : $"there are {marks}" });
            Assert.True(status == 200, plan.ToJsonString());
            return plan["zones"]!.AsArray().Single(z => z!.Text("zoneId") == zone.Text("zoneId"))!["pieces"]!.AsArray().Single(p => p!.Text("pieceId") == piece.Text("pieceId"))!["done"]?["note"]?.GetValue<string>() ?? "";
        }

        var before = await Noted(null);
        Assert.Equal("there are 3", await Noted(3));
        Assert.Equal("there are 1", await Noted(1));
        Assert.Equal(before, await Noted(null));
    }
}
