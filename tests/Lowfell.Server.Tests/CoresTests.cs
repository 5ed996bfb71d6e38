using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>What is really on the pieces of the demo, and what becomes of a difference.</summary>
public sealed class CoresTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private static JsonNode Piece(JsonNode cores, string label) => cores["pieces"]!.AsArray().Single(p => p!.Text("label") == label)!;

    private static List<string> Faults(JsonNode piece) => piece["differences"]!.AsArray().Select(d => d!.Text("fault")).ToList();

    [Fact]
    public async Task Differences_come_with_what_is_laid_are_accepted_with_a_reason_and_go_with_what_is_missing()
    {
        var device = new BenchDevice(server, "cores");
        await device.Begin();
        var (set, zone) = (await server.SetId(), await server.ZoneId("Jetty section", "Timber"));
        var path = $"/api/pieces/{set}/cores?zoneId={zone}";
        Task<JsonNode> Cores() => server.Get(path);
        var bare = await Cores();
        Assert.All(bare["pieces"]!.AsArray(), p => Assert.Empty(Faults(p!)));
        var lines = bare["lines"]!.AsArray().Select(l => l!["layerId"]!.GetValue<Guid>()).ToList();
        var ids = bare["pieces"]!.AsArray().ToDictionary(p => p!.Text("label"), p => p!["id"]!.GetValue<Guid>());

        // Three of four get two layers, the first of them only the second; on one it is too soon.
        Guid[] others = [ids["J2"], ids["J3"], ids["J4"]];
        await device.Tell(
            device.Event("given", zone, lines[0], others, 4000), device.Event("given", zone, lines[1], [ids["J1"], ids["J2"], ids["J3"]], 1000), device.Event("given", zone, lines[1], [ids["J4"]], 3999),
            device.Event("mishap", zone, lines[1], [ids["J2"]], 900, e => { e["note"] = "a thumb in it"; e["savedBy"] = "a dab of water"; }));
        var cores = await Cores();
        Assert.Equal(["missing"], Faults(Piece(cores, "J1")));
        Assert.Empty(Faults(Piece(cores, "J2")));
        Assert.Equal(["too young"], Faults(Piece(cores, "J4")));
        var missing = Piece(cores, "J1")["differences"]![0]!;
        Assert.True(missing["difference"]!.GetValue<double>() >= 0);
        Assert.Contains("layer 1", missing.Text("words"), StringComparison.OrdinalIgnoreCase);
        Assert.NotNull(Piece(cores, "J2")["cells"]![1]!["colour"]);

        // What the hand has leapt is asked about, and nothing else reaches over it: neither the timetable nor what is still to do.
        Assert.Contains("let it be, or take that off first", missing.Text("todo"), StringComparison.Ordinal);
        var plan = await server.Get($"/api/sessions/{await server.WorkshopId()}");
        var planned = plan["sessions"]!.AsArray().SelectMany(s => s!["operations"]!.AsArray()).Where(o => o!["zoneId"]!.GetValue<Guid>() == zone).Select(o => o!["layerId"]!.GetValue<Guid>()).ToHashSet();
        Assert.DoesNotContain(lines[0], planned);
        Assert.Contains(lines[2], planned);
        var costs = (await server.Get($"/api/estimates/{set}"))["designs"]!.AsArray().SelectMany(d => d!["zones"]!.AsArray()).Single(z => z!["id"]!.GetValue<Guid>() == zone)!["layers"]!.AsArray();
        Assert.Equal([0, 0, 4], costs.Take(3).Select(l => l!["piecesToGo"]!.GetValue<int>()));

        // What may stay says so, and can be taken back.
        var accept = device.Event("accepted", zone, lines[0], [ids["J1"]], with: e => e["note"] = "the far side");
        await device.Tell(accept);
        Assert.True(Piece(await Cores(), "J1")["differences"]![0]!["accepted"]!.GetValue<bool>());
        await device.Tell(device.Event("taken back", with: e => e["undoesId"] = accept["id"]!.GetValue<Guid>()));
        Assert.False(Piece(await Cores(), "J1")["differences"]![0]!["accepted"]!.GetValue<bool>());

        // Brought level, it lies above what should lie on it.
        await device.Tell(device.Event("given", zone, lines[0], [ids["J1"]]));
        Assert.Contains("swapped", Faults(Piece(await Cores(), "J1")));
        var story = (await server.Get($"/api/pieces/{set}/{ids["J2"]}/story"))["events"]!.AsArray();
        Assert.Equal(["mishap", "given", "given"], story.Select(e => e!.Text("kind")));
        Assert.Equal("a dab of water", story[0]!.Text("savedBy"));
        var csv = await server.Http.GetStringAsync(path.Replace("cores?", "cores.csv?", StringComparison.Ordinal), TestContext.Current.CancellationToken);
        Assert.Equal(1 + 4 * lines.Count, csv.Split('\n', StringSplitOptions.RemoveEmptyEntries).Length);
    }

    [Fact]
    public async Task Pots_that_are_not_alike_are_told_apart_by_what_is_in_them()
    {
        var cores = await server.Get($"/api/pieces/{await server.SetId()}/cores?zoneId={await server.ZoneId("Lock-wall straight", "Tide band")}");
        var other = cores["pieces"]!.AsArray().Where(p => Faults(p!).Any(f => f is "other pot" or "other dilution")).Select(p => p!.Text("label")).ToList();
        Assert.Equal(["W5", "W6"], other);
        var words = Piece(cores, "W5")["differences"]!.AsArray().First(d => d!.Text("fault").StartsWith("other", StringComparison.Ordinal))!;
        Assert.Contains("Tide again", words.Text("words"), StringComparison.Ordinal);
        Assert.True(words["difference"]!.GetValue<double>() > 0);
        Assert.Equal(404, (await server.Send(HttpMethod.Get, $"/api/pieces/{await server.SetId()}/cores?zoneId={Guid.NewGuid()}", null)).Status);
    }

    /// <summary>The plan knows how far the pieces of a zone have really come: remarks are judged, and mended, by that.</summary>
    [Fact]
    public async Task How_far_pieces_have_come_is_told_for_the_plan()
    {
        var zone = await server.ZoneId("Mud-and-salt base", "Reed bed");
        var soFar = (await server.Get($"/api/plan/zones/{zone}/so-far")).AsArray();
        Assert.Equal([(6, "B1 B2 B3 B4")], soFar.Select(s => (s!["laid"]!.GetValue<int>(), string.Join(' ', s["pieces"]!.AsArray()))));
        Assert.True(soFar[0]!["minutesSinceLast"]!.GetValue<double>() > 60);

        // On a piece that far, no remedy touches what is laid.
        var layers = (await server.Get($"/api/plan/zones/{zone}"))["layers"]!.AsArray();
        var without = new JsonArray([.. layers.Where((_, i) => i != 4).Select(l => l!.DeepClone())]);
        var (status, read) = await new Painter(server, 0, "so far").Send(HttpMethod.Post, $"/api/plan/zones/{zone}/reading", new JsonObject { ["layers"] = without, ["laid"] = 4, ["minutesSinceLast"] = 600 });
        Assert.Equal(200, status);
        Assert.All(read["findings"]!.AsArray().SelectMany(f => f!["remedies"]!.AsArray()).SelectMany(r => r!["edits"]!.AsArray()), e => Assert.True(e!["at"]!.GetValue<int>() >= 3, e.ToJsonString()));
        Assert.Equal(404, (int)(await server.Http.GetAsync($"/api/plan/zones/{Guid.NewGuid()}/so-far", TestContext.Current.CancellationToken)).StatusCode);
    }
}
