using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Tests;

public sealed class ColourTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private async Task<(string Path, JsonNode Sheet)> Open(string design = "Lock-wall straight", string zone = "Brick field")
    {
        var path = $"/api/plan/zones/{await server.ZoneId(design, zone)}";
        return (path, await server.Get(path));
    }

    private static JsonArray Layers(JsonNode sheet) => sheet["layers"]!.Copy().AsArray();

    private static string LayerOf(JsonNode sheet, string technique) => sheet["layers"]!.AsArray().First(l => l!.Text("technique") == technique)!.Text("id");

    private static double Number(JsonNode node, string name) => node[name]!.GetValue<double>();

    [Fact]
    public async Task A_start_put_into_the_stack_ends_where_it_said()
    {
        var (path, sheet) = await Open();
        var (status, starts) = await server.Send(HttpMethod.Post, path + "/start",
            new JsonObject { ["layers"] = Layers(sheet), ["layerId"] = LayerOf(sheet, "base coat"), ["position"] = "field", ["wanted"] = "#7a5a44", ["count"] = 5 });
        Assert.Equal(200, status);
        Assert.Equal(5, starts.AsArray().Count);
        var differences = starts.AsArray().Select(s => Number(s!, "difference")).ToList();
        Assert.Equal(differences.Order(), differences);
        var layers = Layers(sheet);
        var at = layers.ToList().FindIndex(l => l!.Text("technique") == "base coat");
        foreach (var field in new[] { "paint", "dilution", "coats" })
            layers[at]![field] = starts[0]![field]?.Copy();
        var reading = (await server.Send(HttpMethod.Post, path + "/reading", new JsonObject { ["layers"] = layers })).Body;
        Assert.Equal(starts[0]!.Text("field"), reading["layers"]!.AsArray()[^1]!.Text("field"));
    }

    [Theory]
    [InlineData("wanted", "blue", "wanted")]
    [InlineData("layerId", "0190a1b2-0000-7000-8000-000000000000", "layerId")]
    [InlineData("count", 900, "count")]
    [InlineData("layers", null, "layers")]
    public async Task A_start_that_cannot_be_asked_names_the_field(string field, object? value, string named)
    {
        var (path, sheet) = await Open();
        var ask = new JsonObject { ["layers"] = Layers(sheet), ["layerId"] = LayerOf(sheet, "base coat"), ["wanted"] = "#7a5a44" };
        ask[field] = value is null ? null : JsonValue.Create(value);
        var (status, problem) = await server.Send(HttpMethod.Post, path + "/start", ask);
        Assert.Equal(400, status);
        Assert.Contains(named, problem.Fields());
    }

    [Fact]
    public async Task A_wash_cannot_be_started_from()
    {
        var (path, sheet) = await Open();
        var (status, problem) = await server.Send(HttpMethod.Post, path + "/start",
            new JsonObject { ["layers"] = Layers(sheet), ["layerId"] = LayerOf(sheet, "pin wash"), ["wanted"] = "#7a5a44" });
        Assert.Equal(400, status);
        Assert.Contains("layerId", problem.Fields());
    }

    [Fact]
    public async Task A_target_is_kept_read_and_taken_away()
    {
        var (path, sheet) = await Open("Lock-wall straight", "Coping");
        var version = sheet["zone"]!["version"]!.GetValue<uint>();
        var (status, kept) = await server.Send(HttpMethod.Put, path, new { version, targetColour = "#8A8478", targetPosition = "raised" });
        Assert.Equal(200, status);
        Assert.Equal("#8a8478", kept["reading"]!["target"]!.Text("wanted"));
        Assert.Equal(kept["reading"]!["layers"]!.AsArray()[^1]!.Text("raised"), kept["reading"]!["target"]!.Text("predicted"));
        Assert.NotEmpty(kept["reading"]!["target"]!.Text("words"));
        version = kept["zone"]!["version"]!.GetValue<uint>();
        Assert.Equal(400, (await server.Send(HttpMethod.Put, path, new { version, targetColour = "red" })).Status);
        var gone = (await server.Send(HttpMethod.Put, path, new { version, targetColour = "" })).Body;
        Assert.Null(gone["reading"]!["target"]);
    }

    [Fact]
    public async Task Sight_judges_marks_and_neighbours_and_loses_them_from_afar()
    {
        var (path, sheet) = await Open();
        var near = (await server.Send(HttpMethod.Post, path + "/sight", new JsonObject { ["layers"] = Layers(sheet) })).Body;
        Assert.Equal(0.9, Number(near, "metres"));
        Assert.NotEmpty(near["details"]!.AsArray());
        Assert.NotEmpty(near["neighbours"]!.AsArray());
        var far = (await server.Send(HttpMethod.Post, path + "/sight", new JsonObject { ["layers"] = Layers(sheet), ["metres"] = 90 })).Body;
        Assert.Equal(near["details"]!.AsArray().Count, far["details"]!.AsArray().Count);
        foreach (var (a, b) in near["details"]!.AsArray().Zip(far["details"]!.AsArray()))
        {
            Assert.True(Number(b!, "difference") <= Number(a!, "difference"));
            Assert.Equal(Number(a!, "lostBeyondMetres") < 90, b!.Text("verdict") == "lost");
        }

        Assert.Equal(400, (await server.Send(HttpMethod.Post, path + "/sight", new JsonObject { ["layers"] = Layers(sheet), ["metres"] = 0 })).Status);
    }

    [Fact]
    public async Task Two_stacks_are_compared_position_by_position()
    {
        var (path, sheet) = await Open();
        var same = (await server.Send(HttpMethod.Post, path + "/compare", new JsonObject { ["layers"] = Layers(sheet), ["treatmentId"] = sheet["treatmentId"]!.Copy() })).Body;
        Assert.All(same["positions"]!.AsArray(), p => Assert.Equal(0, Number(p!, "difference")));
        var thinner = Layers(sheet);
        thinner.First(l => l!.Text("technique") == "filter")!["strength"] = 2;
        var other = (await server.Send(HttpMethod.Post, path + "/compare", new JsonObject { ["layers"] = Layers(sheet), ["with"] = thinner })).Body;
        Assert.Contains(other["positions"]!.AsArray(), p => Number(p!, "difference") > 0.2);
        var (status, problem) = await server.Send(HttpMethod.Post, path + "/compare", new JsonObject { ["layers"] = Layers(sheet) });
        Assert.Equal(400, status);
        Assert.Contains("with", problem.Fields());
        Assert.NotEmpty((await server.Get($"/api/plan/sets/{await server.SetId()}/treatments")).AsArray());
    }

    [Fact]
    public async Task The_table_shows_every_zone_from_each_distance()
    {
        var overview = await server.Get($"/api/plan/sets/{await server.SetId()}");
        var design = overview["designs"]![0]!;
        var table = await server.Get($"/api/plan/designs/{design.Text("id")}/table");
        Assert.Equal(0.3, table["metres"]![0]!.GetValue<double>());
        Assert.Equal(3, table["metres"]!.AsArray()[^1]!.GetValue<double>());
        Assert.Equal(design["zones"]!.AsArray().Count, table["zones"]!.AsArray().Count);
        Assert.All(table["zones"]!.AsArray(), z => Assert.Equal(28, z!["seen"]!.AsArray().Count));
        Assert.NotEmpty(table["pairs"]!.AsArray());
    }

    [Fact]
    public async Task A_look_tunes_the_material_and_can_be_taken_back()
    {
        var (path, sheet) = await Open("Jetty section", "Rope");
        var ask = new JsonObject { ["layers"] = Layers(sheet), ["layerId"] = LayerOf(sheet, "base coat"), ["observed"] = "#8a7a5a" };
        var told = (await server.Send(HttpMethod.Post, path + "/observe", ask.Copy())).Body;
        Assert.Null(told["calibrationId"]);
        Assert.True(Number(told, "differenceAfter") <= Number(told, "difference"));
        Assert.Equal(sheet.ToJsonString(), (await server.Get(path)).ToJsonString());

        ask["store"] = true;
        var key = Guid.NewGuid();
        var stored = (await server.Send(HttpMethod.Post, path + "/observe", ask.Copy(), key)).Body;
        Assert.Equal(stored.ToJsonString(), (await server.Send(HttpMethod.Post, path + "/observe", ask, key)).Body.ToJsonString());
        var tuned = await server.Get(path);
        Assert.NotEqual(sheet["reading"]!["layers"]!.ToJsonString(), tuned["reading"]!["layers"]!.ToJsonString());
        var history = (await server.Get($"/api/shelf/materials/{stored.Text("materialId")}/calibrations")).AsArray();
        Assert.Single(history);
        var after = (await server.Send(HttpMethod.Post, $"/api/shelf/calibrations/{stored.Text("calibrationId")}/take-back", null)).Body;
        Assert.NotNull(after[0]!["takenBackAt"]);
        Assert.Equal(sheet["reading"]!["layers"]!.ToJsonString(), (await server.Get(path))["reading"]!["layers"]!.ToJsonString());
    }

    [Fact]
    public async Task A_clear_layer_cannot_be_tuned()
    {
        var (path, sheet) = await Open();
        var (status, problem) = await server.Send(HttpMethod.Post, path + "/observe",
            new JsonObject { ["layers"] = Layers(sheet), ["layerId"] = LayerOf(sheet, "varnish"), ["observed"] = "#8a7a5a" });
        Assert.Equal(400, status);
        Assert.Contains("layerId", problem.Fields());
    }

    [Fact]
    public async Task A_set_kept_in_memory_follows_a_change_made_at_another_server()
    {
        var (path, sheet) = await Open("Pump house", "Door");
        var (other, http) = server.Start();
        await using var ended = other;
        var area = 2 * sheet["zone"]!["areaCm2"]!.GetValue<decimal>();
        using var change = new HttpRequestMessage(HttpMethod.Put, path) { Content = JsonContent.Create(new { version = sheet["zone"]!["version"]!.GetValue<uint>(), areaCm2 = area }) };
        change.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
        Assert.Equal(200, (int)(await http.SendAsync(change, TestContext.Current.CancellationToken)).StatusCode);
        Assert.Equal(area, (await server.Get(path))["zone"]!["areaCm2"]!.GetValue<decimal>());
    }

    [Fact]
    public async Task The_nearest_on_the_shelf_come_first()
    {
        var nearest = $"/api/shelf/{await server.WorkshopId()}/nearest";
        var (status, found) = await server.Send(HttpMethod.Post, nearest, new { colour = "#b5552f", count = 6 });
        Assert.Equal(200, status);
        Assert.Equal(6, found.AsArray().Count);
        var differences = found.AsArray().Select(s => Number(s!, "difference")).ToList();
        Assert.Equal(differences.Order(), differences);
        Assert.All(found.AsArray(), f => Assert.InRange(f!["paint"]!.AsArray().Count, 1, 2));
        Assert.Equal(400, (await server.Send(HttpMethod.Post, nearest, new { colour = "rust" })).Status);
    }

    [Fact]
    public async Task A_photo_is_corrected_by_its_grey_card()
    {
        var (status, colour) = await server.Send(HttpMethod.Post, "/api/shelf/photo", new { card = new[] { 0.36, 0.18, 0.09 }, sample = new[] { 0.36, 0.18, 0.09 } });
        Assert.Equal(200, status);
        Assert.Equal("#767676", colour.Text("colour"));
        var (refused, problem) = await server.Send(HttpMethod.Post, "/api/shelf/photo", new { card = new[] { 1.0, 0.18, 0.09 }, sample = new[] { 0.36, 0.18, 0.09 } });
        Assert.Equal(400, refused);
        Assert.Contains("card", problem.Fields());
    }

    [Theory]
    [InlineData("#808080", "#808080", "thinner coat")]
    [InlineData("#c0c0c0", "#707070", "swapped")]
    public async Task Impossible_cards_are_refused_with_the_reason(string overBlack, string overWhite, string says)
    {
        var (status, problem) = await server.Send(HttpMethod.Post, "/api/shelf/drawdown", new { name = "New", kind = "paint", carrier = "water acrylic", overBlack, overWhite });
        Assert.Equal(400, status);
        Assert.Contains(says, problem["errors"]![0]!.Text("message"));
    }

    [Fact]
    public async Task Calc_sight_answers_the_worked_case()
    {
        var (status, sight) = await server.Send(HttpMethod.Post, "/api/calc/sight", new { spot = "#d8cfc0", field = "#3c4a2e", millimetres = 0.5, metres = 1 });
        Assert.Equal(200, status);
        Assert.Equal(25.2287, Number(sight, "difference"), 4);
        Assert.Equal("seen", sight.Text("verdict"));
        Assert.True(Number(sight, "lostBeyondMetres") > 1);
        var (refused, problem) = await server.Send(HttpMethod.Post, "/api/calc/sight", new { spot = "#d8cfc0", field = "grey", millimetres = 0, metres = -1 });
        Assert.Equal(400, refused);
        Assert.Equal(["field", "millimetres", "metres"], problem.Fields());
    }
}
