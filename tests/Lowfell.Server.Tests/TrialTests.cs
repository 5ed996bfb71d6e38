using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>Trials: laid out, kept, looked at, learned from, and one field chosen.</summary>
public sealed class TrialTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private async Task<string> Root() => $"/api/trials/{await server.SetId()}";

    /// <summary>A trial on the mud of the bases: coats of the ground, under two washes.</summary>
    private async Task<(JsonObject Ask, JsonArray Layers)> Ask(double mm = 40)
    {
        var zone = await server.ZoneId("Mud-and-salt base", "Fen mud");
        var layers = (await server.Get($"/api/plan/zones/{zone}"))["layers"]!.AsArray();
        JsonNode With(int at, string field, JsonNode value)
        {
            var other = layers[at]!.Copy();
            other[field] = value;
            return other;
        }

        return (new JsonObject
        {
            ["id"] = Guid.NewGuid(),
            ["zoneId"] = zone,
            ["name"] = "How much ground under how much wash?",
            ["tile"] = new JsonObject { ["widthMm"] = mm, ["heightMm"] = mm },
            ["factors"] = new JsonArray(
                new JsonObject { ["layerId"] = layers[3]!["id"]!.DeepClone(), ["levels"] = new JsonArray(With(3, "coats", 1), With(3, "coats", 2), With(3, "coats", 3)) },
                new JsonObject { ["layerId"] = layers[4]!["id"]!.DeepClone(), ["levels"] = new JsonArray(With(4, "strength", 0.5), layers[4]!.DeepClone()) }),
        }, layers);
    }

    private async Task<JsonNode> Kept()
    {
        var (ask, _) = await Ask();
        var (status, trial) = await server.Send(HttpMethod.Post, await Root(), ask);
        Assert.True(status == 201, trial.ToJsonString());
        return trial;
    }

    [Fact]
    public async Task A_trial_is_laid_out_with_fields_masks_waits_and_predictions()
    {
        var (ask, _) = await Ask();
        var (status, trial) = await server.Send(HttpMethod.Post, $"{await Root()}/look", ask);
        Assert.True(status == 200, trial.ToJsonString());
        var cells = trial["cells"]!.AsArray();
        Assert.Equal(6, cells.Count);
        Assert.Equal(1600, cells.Sum(c => c!["widthMm"]!.GetValue<double>() * c["heightMm"]!.GetValue<double>()), 2.0);
        Assert.Single(cells, c => c!["held"]!.GetValue<bool>());
        Assert.Equal(["1 coat", "2 coats", "3 coats"], trial["factors"]![0]!["levels"]!.AsArray().Select(l => l!.GetValue<string>()));

        // Three coats one over the other move the tape twice; two washes that differ twice.
        Assert.Equal(4, trial["maskingMoves"]!.GetValue<int>());
        var steps = trial["steps"]!.AsArray();
        Assert.Equal(steps.Count, steps.Select(s => s!["number"]!.GetValue<int>()).Distinct().Count());
        Assert.All(steps.Where(s => s!["masks"]!.AsArray().Count > 0), s => Assert.Contains("tape", s!.Text("words")));
        Assert.True(steps.Sum(s => s!["waitMinutes"]!.GetValue<double>()) > 100);
    }

    [Fact]
    public async Task What_does_not_fit_or_is_not_a_trial_is_refused_with_the_reason()
    {
        var (small, layers) = await Ask(15);
        var (_, look) = await server.Send(HttpMethod.Post, $"{await Root()}/look", small);
        Assert.Contains("do not fit", look.Text("refusal"));
        Assert.Empty(look["cells"]!.AsArray());
        Assert.Equal(400, (await server.Send(HttpMethod.Post, await Root(), small)).Status);
        foreach (var (change, field) in new (Action<JsonObject>, string)[]
        {
            (a => a["zoneId"] = Guid.NewGuid(), "zoneId"), (a => a["tile"]!["widthMm"] = 5000, "tile.widthMm"), (a => a["factors"] = new JsonArray(), "factors"),
            (a => a["factors"]![0]!["layerId"] = Guid.NewGuid(), "factors[0].layerId"), (a => a["factors"]![0]!["levels"]!.AsArray().RemoveAt(0), ""),
            (a => a["factors"]![1]!["levels"]![0] = layers[4]!.DeepClone(), "factors[1].levels[1]"), (a => a["factors"]![0]!["levels"]![1]!["coats"] = 99, "factors[0].levels[1].coats"), (a => a["name"] = " ", "name"),
        })
        {
            var (ask, _) = await Ask();
            change(ask);
            var (status, said) = await server.Send(HttpMethod.Post, await Root(), ask);
            if (field.Length > 0)
                Assert.True(status == 400 && said.Fields().Contains(field), $"{field}: {status} {said.ToJsonString()}");
        }

        Assert.Equal(404, (int)(await server.Http.GetAsync($"{await Root()}/{Guid.NewGuid()}", TestContext.Current.CancellationToken)).StatusCode);
    }

    [Fact]
    public async Task What_was_seen_teaches_the_paints_and_can_be_taken_back()
    {
        var trial = await Kept();
        var path = $"{await Root()}/{trial["id"]}";
        foreach (var cell in trial["cells"]!.AsArray().Select(c => c!))
            Assert.Equal(200, (await server.Send(HttpMethod.Put, $"{path}/looks", new { cell = cell.Text("cell"), position = "field", observed = Darker(cell.Text("field")) })).Status);
        var (_, seen) = await server.Send(HttpMethod.Put, $"{path}/looks", new { cell = trial["cells"]![0]!.Text("cell"), position = "raised", observed = "#123456" });
        Assert.Equal(2, seen["cells"]![0]!["looks"]!.AsArray().Count);
        (_, seen) = await server.Send(HttpMethod.Put, $"{path}/looks", new { cell = trial["cells"]![0]!.Text("cell"), position = "raised" });
        Assert.Single(seen["cells"]![0]!["looks"]!.AsArray());
        var lesson = seen["lesson"]!;
        Assert.True(lesson["missedAfter"]!.GetValue<double>() < lesson["missedBefore"]!.GetValue<double>());
        var (status, taught) = await server.Send(HttpMethod.Post, $"{path}/teach", null);
        Assert.True(status == 200, taught.ToJsonString());
        Assert.True(taught["cells"]!.AsArray().Average(c => c!["looks"]![0]!["difference"]!.GetValue<double>()) < seen["cells"]!.AsArray().Average(c => c!["looks"]![0]!["difference"]!.GetValue<double>()));

        // The same looks do not count twice; one more does.
        Assert.True(taught["lesson"]!["takenOver"]!.GetValue<bool>());
        Assert.Equal(409, (await server.Send(HttpMethod.Post, $"{path}/teach", null)).Status);

        // At the material it is one look of many, and goes back.
        var material = lesson["taught"]!.AsArray().First(t => Math.Abs(t!["tintAfter"]!.GetValue<double>() - 1) > 0.01)!;
        var looks = await server.Get($"/api/shelf/materials/{material["materialId"]}/calibrations");
        var look = looks.AsArray().Single(l => l!.Text("place").StartsWith("trial ", StringComparison.Ordinal))!;
        Assert.Equal(200, (await server.Send(HttpMethod.Post, $"/api/shelf/calibrations/{look["id"]}/take-back", null)).Status);
        Assert.Equal(400, (await server.Send(HttpMethod.Put, $"{path}/looks", new { cell = "9 9", position = "field", observed = "#123456" })).Status);
        Assert.Equal(400, (await server.Send(HttpMethod.Put, $"{path}/looks", new { cell = "0 0", position = "field", observed = "brown" })).Status);
    }

    private static string Darker(string colour) => $"#{string.Concat(new[] { 1, 3, 5 }.Select(i => $"{(int)(Convert.ToInt32(colour.Substring(i, 2), 16) * 0.86):x2}"))}";

    [Fact]
    public async Task A_field_becomes_a_version_of_the_treatment_or_one_of_its_own_and_is_undone()
    {
        var trial = await Kept();
        var (path, workshop, zone) = ($"{await Root()}/{trial["id"]}", await server.WorkshopId(), await server.ZoneId("Mud-and-salt base", "Fen mud"));
        var cell = trial["cells"]!.AsArray().First(c => c!["levels"]![0]!.GetValue<int>() == 2 && !c["held"]!.GetValue<bool>())!.Text("cell");
        var (own, made) = await server.Send(HttpMethod.Post, $"{path}/choose", new { cell, name = "Fen mud, three coats" });
        Assert.True(own == 200, made.ToJsonString());
        Assert.Contains((await server.Get($"/api/plan/workshops/{workshop}/treatments")).AsArray(), t => t!.Text("name") == "Fen mud, three coats");

        // The record says which trial it is from; where nothing becomes otherwise, no version is made.
        Assert.Contains((await server.Get($"/api/log/{await server.SetId()}/record"))["trials"]!.AsArray(), t => t!.Text("name") == trial.Text("name") && t!.Text("zone") == "Fen mud, Mud-and-salt base");
        var held = trial["cells"]!.AsArray().Single(c => c!["held"]!.GetValue<bool>())!.Text("cell");
        var (left, stays) = await server.Send(HttpMethod.Post, $"{path}/choose", new { cell = held, treatmentVersion = made["treatmentVersion"]!.GetValue<uint>() });
        Assert.Equal((200, held, made["treatmentVersion"]!.GetValue<uint>()), (left, stays.Text("chosen"), stays["treatmentVersion"]!.GetValue<uint>()));
        var (status, chosen) = await server.Send(HttpMethod.Post, $"{path}/choose", new { cell, treatmentVersion = made["treatmentVersion"]!.GetValue<uint>() });
        Assert.True(status == 200, chosen.ToJsonString());
        Assert.Equal(cell, chosen.Text("chosen"));
        Assert.Equal(3, (await server.Get($"/api/plan/zones/{zone}"))["layers"]![3]!["coats"]!.GetValue<int>());
        Assert.Equal(409, (await server.Send(HttpMethod.Post, $"{path}/choose", new { cell, treatmentVersion = made["treatmentVersion"]!.GetValue<uint>() })).Status);
        var (undone, _) = await server.Send(HttpMethod.Post, $"/api/workshops/{workshop}/undo", new { });
        Assert.Equal(200, undone);
        Assert.Equal(2, (await server.Get($"/api/plan/zones/{zone}"))["layers"]![3]!["coats"]!.GetValue<int>());
        Assert.Equal(200, (await server.Send(HttpMethod.Post, $"/api/workshops/{workshop}/undo", new { })).Status);
        Assert.Equal(cell, (await server.Get(path)).Text("chosen"));
    }

    [Fact]
    public async Task A_trial_is_renamed_put_away_and_never_overwritten_silently()
    {
        var trial = await Kept();
        var path = $"{await Root()}/{trial["id"]}";
        var (status, renamed) = await server.Send(HttpMethod.Put, path, new { version = trial["version"]!.GetValue<uint>(), name = "Ground and wash" });
        Assert.Equal((200, "Ground and wash"), (status, renamed.Text("name")));
        Assert.Equal(409, (await server.Send(HttpMethod.Put, path, new { version = trial["version"]!.GetValue<uint>(), name = "Wash and ground" })).Status);
        var (_, away) = await server.Send(HttpMethod.Put, path, new { version = renamed["version"]!.GetValue<uint>(), putAway = true });
        Assert.True(away["putAway"]!.GetValue<bool>());
        Assert.Equal(400, (await server.Send(HttpMethod.Put, path, new { version = away["version"]!.GetValue<uint>(), tile = new { widthMm = 15, heightMm = 15 } })).Status);
    }

    [Fact]
    public async Task What_would_tell_most_is_proposed_with_its_expected_error()
    {
        var (status, proposals) = await server.Send(HttpMethod.Post, $"{await Root()}/propose", new { zoneId = await server.ZoneId("Mud-and-salt base", "Fen mud"), target = "#4a3a28", position = "field" });
        Assert.True(status == 200, proposals.ToJsonString());
        Assert.NotEmpty(proposals.AsArray());
        Assert.All(proposals.AsArray(), p => Assert.True(p!["errorThen"]!.GetValue<double>() <= p["errorNow"]!.GetValue<double>()));
        Assert.All(proposals.AsArray(), p => Assert.Contains("layer ", p!.Text("words")));
        Assert.Equal(400, (await server.Send(HttpMethod.Post, $"{await Root()}/propose", new { zoneId = Guid.NewGuid() })).Status);
    }

    [Fact]
    public async Task A_tile_has_the_relief_of_the_zone_or_one_of_its_own()
    {
        var (ask, _) = await Ask();
        async Task<JsonNode> On(string? relief)
        {
            var asked = ask.Copy().AsObject();
            (asked["id"], asked["name"], asked["tile"]!["relief"]) = (Guid.NewGuid(), "How much ground on a card?", relief);
            var (status, trial) = await server.Send(HttpMethod.Post, await Root(), asked);
            Assert.True(status == 201, trial.ToJsonString());
            return trial;
        }

        static string Raised(JsonNode trial) => string.Join(' ', trial["cells"]!.AsArray().Select(c => c!["raised"]!.ToJsonString()));
        var (zones, smooth) = (await On(null), await On("smooth"));
        var own = (await server.Get($"/api/plan/zones/{await server.ZoneId("Mud-and-salt base", "Fen mud")}"))["zone"]!.Text("relief");
        Assert.Null(zones["tile"]!["relief"]);
        Assert.Equal("smooth", (await server.Get($"{await Root()}/{smooth.Text("id")}"))["tile"]!.Text("relief"));
        Assert.Equal(Raised(zones), Raised(await On(own)));
        Assert.NotEqual(Raised(zones), Raised(smooth));

        // On the bench it is what it is, and what is read of it is read of that.
        await server.Send(HttpMethod.Post, $"{await Root()}/{smooth.Text("id")}/bench", null);
        var tile = (await server.Get($"/api/plan/sets/{await server.SetId()}"))["designs"]!.AsArray().Single(d => d!.Text("name") == "Tile: How much ground on a card?")!;
        var zone = (await server.Get($"/api/plan/zones/{tile["zones"]![0]!.Text("id")}"))["zone"]!;
        Assert.Equal("smooth", zone.Text("relief"));
        Assert.Equal(400, (await server.Send(HttpMethod.Post, $"{await Root()}/look", new JsonObject { ["zoneId"] = ask["zoneId"]!.DeepClone(), ["tile"] = new JsonObject { ["widthMm"] = 40, ["heightMm"] = 40, ["relief"] = "hilly" }, ["factors"] = ask["factors"]!.DeepClone() })).Status);
    }

    [Fact]
    public async Task A_tile_on_the_bench_is_a_piece_like_any_other_with_the_steps_as_its_layers()
    {
        var trial = await Kept();
        var at = $"{await Root()}/{trial.Text("id")}";
        var painter = new Painter(server, 1);
        await painter.Begin();
        var (status, put) = await painter.Send(HttpMethod.Post, $"{at}/bench", null);
        Assert.True(status == 200, put.ToJsonString());
        Assert.True(put["onBench"]!.GetValue<bool>());
        var design = (await server.Get($"/api/plan/sets/{await server.SetId()}"))["designs"]!.AsArray().Single(d => d!.Text("name") == "Tile: How much ground under how much wash?")!;
        var zone = await server.Get($"/api/plan/zones/{design["zones"]![0]!.Text("id")}");
        Assert.Equal(trial["steps"]!.AsArray().Select(s => s!.Text("words")), zone["layers"]!.AsArray().Select(l => l!.Text("note")));
        Assert.Equal(16, zone["zone"]!["areaCm2"]!.GetValue<double>(), 0.01);

        // Sessions plan it, and the bench says for which fields a step is, and where the tape goes.
        var sessions = (await server.Get($"/api/sessions/{painter.Workshop}")).ToJsonString();
        Assert.Contains("Tile: How much ground", sessions);
        var layer = zone["layers"]!.AsArray().First(l => l!.Text("note").Contains("tape"))!;
        var task = await server.Get($"/api/bench/{painter.Workshop}/task?zoneId={zone["zone"]!.Text("id")}&layerId={layer.Text("id")}");
        Assert.Contains(task["watch"]!.AsArray(), w => w!.GetValue<string>().Contains("tape"));
        Assert.Equal(409, (await painter.Send(HttpMethod.Post, $"{at}/bench", null)).Status);
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.False((await server.Get(at))["onBench"]!.GetValue<bool>());
    }

    [Fact]
    public async Task Every_trial_that_is_proposed_finds_room_on_its_tile_and_comes_near_what_was_wished_for()
    {
        var zone = await server.ZoneId("Mud-and-salt base", "Fen mud");
        async Task<JsonArray> Propose(JsonObject question)
        {
            question["zoneId"] = zone;
            var (status, found) = await server.Send(HttpMethod.Post, $"{await Root()}/propose", question);
            Assert.True(status == 200, found.ToJsonString());
            return found.AsArray();
        }

        var found = await Propose(new JsonObject { ["wish"] = "decides most" });
        Assert.NotEmpty(found);
        Assert.All(found, p => Assert.Null(p!["nearest"]));
        foreach (var p in found)
        {
            Assert.Equal(p!["factors"]!.AsArray().Aggregate(1, (n, f) => n * f!["levels"]!.AsArray().Count), p["fields"]!.GetValue<int>());
            Assert.True(p["gainPerField"]!.GetValue<double>() * p["fields"]!.GetValue<int>() <= p["errorNow"]!.GetValue<double>() + 0.2);
            var (_, look) = await server.Send(HttpMethod.Post, $"{await Root()}/look", new JsonObject { ["zoneId"] = zone, ["tile"] = p["tile"]!.DeepClone(), ["factors"] = p["factors"]!.DeepClone() });
            Assert.Equal("", look.Text("refusal"));
        }

        // What gets darker is not what gets lighter; a colour that is there already is met.
        var (darker, lighter) = (await Propose(new JsonObject { ["wish"] = "darker" }), await Propose(new JsonObject { ["wish"] = "lighter" }));
        Assert.All(darker.Concat(lighter), p => Assert.NotNull(p!["nearest"]));
        Assert.NotEqual(darker.ToJsonString(), lighter.ToJsonString());
        var now = (await server.Get($"/api/plan/zones/{zone}"))["reading"]!["layers"]!.AsArray().Last()!.Text("field");
        Assert.True((await Propose(new JsonObject { ["target"] = now }))[0]!["nearest"]!.GetValue<double>() < 1.5);
    }
}
