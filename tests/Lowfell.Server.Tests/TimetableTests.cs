using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>Timetables that are taken over, changed by hand, out of date, and come to an end.</summary>
public sealed class TimetableTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private static DateTimeOffset At(JsonNode? n) => n!.GetValue<DateTimeOffset>();

    private static List<JsonNode> Operations(JsonNode plan) => plan["sessions"]!.AsArray().SelectMany(s => s!["operations"]!.AsArray()).Select(o => o!).ToList();

    private static string Key(JsonNode o) => $"{o["zoneId"]} {o["layerId"]} {o["pieceId"]}{(o["beforehand"]!.GetValue<bool>() ? " beforehand" : "")}";

    private static Dictionary<string, DateTimeOffset> Starts(JsonNode plan) => Operations(plan).ToDictionary(Key, o => At(o["start"]));

    private static int Number(JsonNode plan) => plan["kept"]?["number"]!.GetValue<int>() ?? 0;

    private async Task<(Painter Painter, string Path)> Someone(string device)
    {
        var painter = new Painter(server, 0, device);
        await painter.Begin();

        // Nobody is at the bench today: a session that is on would go on while the test looks at it.
        var days = Enumerable.Range(2, 5).Select(d => DateTimeOffset.UtcNow.AddDays(d).DayOfWeek.ToString()[..3]);
        await Hours(painter, string.Join(' ', days) + " 19:00-22:00");
        return (painter, $"/api/sessions/{painter.Workshop}");
    }

    private async Task<JsonNode> Keep(Painter painter, string path, int? atOnce = null) =>
        await painter.Do(HttpMethod.Post, path, new { number = Number(await server.Get(path)), from = "anew", atOnce });

    private async Task<JsonNode> Hours(Painter painter, string hours, int? dryingPlaces = null)
    {
        var row = (await server.Get("/api/workshops")).AsArray().Single(w => w!["id"]!.GetValue<Guid>() == painter.Workshop)!;
        return await painter.Do(HttpMethod.Put, $"/api/workshops/{painter.Workshop}", new { version = row["version"], hours, dryingPlaces });
    }

    [Fact]
    public async Task A_plan_that_is_taken_over_stays_until_another_is_and_says_when_it_is_out_of_date()
    {
        var (painter, path) = await Someone("keeper");
        var kept = await Keep(painter, path);
        Assert.Null(kept["news"]);
        Assert.Equal(Starts(kept), Starts(await server.Get(path)));

        // Another hour a week: nothing has to move, and it says so; taken over, it is the plan.
        var hours = kept["hours"]!.ToString();
        await Hours(painter, hours + ", extra 2035-01-01 10-12");
        var news = await server.Get(path);
        Assert.Contains("the hours", news["news"]!["words"]!.ToString());
        Assert.Contains("Nothing has to move", news["news"]!["words"]!.ToString());
        Assert.Equal(Starts(kept), Starts(news));

        // No evening next week: only what lay there moves.
        var first = At(kept["sessions"]![0]!["start"]);
        await Hours(painter, $"{hours}, away {first:yyyy-MM-dd}");
        var away = await server.Get(path);
        Assert.Matches("moves [1-9]", away["news"]!["words"]!.ToString());
        Assert.DoesNotContain(away["sessions"]!.AsArray(), s => At(s!["start"]).Date == first.Date);
        var over = await painter.Do(HttpMethod.Post, path, new { number = Number(away), from = "closest" });
        Assert.Null(over["news"]);
        Assert.Equal(Number(kept) + 1, Number(over));
        Assert.Equal(409, (await painter.Send(HttpMethod.Post, path, new { number = Number(kept), from = "anew" })).Status);
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(Number(kept), Number(await server.Get(path)));
        for (var i = 0; i < 2; i++)
            Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Null((await server.Get(path))["news"]);
    }

    [Fact]
    public async Task What_has_to_be_got_ready_has_its_own_place_in_the_plan_and_is_moved_like_anything_else()
    {
        var (painter, path) = await Someone("readier");
        var zone = await server.ZoneId("Mud-and-salt base", "Salt crust");
        var sheet = await server.Get($"/api/plan/zones/{zone}");
        var layers = sheet["layers"]!.Copy();
        var paste = layers.AsArray().Single(l => l!["technique"]!.ToString() == "crackle paste")!;
        paste["preparation"] = "left open";
        await painter.Do(HttpMethod.Put, $"/api/plan/zones/{zone}/stack", new { version = sheet["version"], layers });
        var kept = await Keep(painter, path);
        var ready = Operations(kept).Where(o => o["beforehand"]!.GetValue<bool>()).ToList();
        Assert.NotEmpty(ready);
        Assert.All(ready, r =>
        {
            var laid = Operations(kept).Single(o => !o["beforehand"]!.GetValue<bool>() && Key(o) + " beforehand" == Key(r));
            Assert.InRange((At(laid["start"]) - At(r["end"])).TotalMinutes, 30, 120);
            Assert.Contains(kept["sessions"]!.AsArray(), s => s!["ready"]!["prepare"]!.AsArray().Any(p => p!.ToString().Contains("left open")));
        });
        var first = ready[0];
        var here = kept["sessions"]!.AsArray().Single(s => s!["operations"]!.AsArray().Any(o => Key(o!) == Key(first)))!;
        var pinned = await painter.Do(HttpMethod.Post, path + "/moves", new { number = Number(kept), zoneId = first["zoneId"], layerId = first["layerId"], pieceId = first["pieceId"], beforehand = true, to = here["start"] });
        Assert.Equal([Key(first)], Operations(pinned).Where(o => o["pinned"]!.GetValue<bool>()).Select(Key));
        for (var i = 0; i < 3; i++)
            Assert.Equal(200, (await painter.Undo()).Status);
    }

    [Fact]
    public async Task Another_version_of_a_treatment_says_in_a_sentence_what_it_does_to_the_plan()
    {
        var (painter, path) = await Someone("stacker");
        await Keep(painter, path);
        var zone = await server.ZoneId("Lock-wall straight", "Coping");
        var sheet = await server.Get($"/api/plan/zones/{zone}");
        var layers = sheet["layers"]!.Copy();
        layers[1]!["coats"] = layers[1]!["coats"]!.GetValue<int>() + 1;
        await painter.Do(HttpMethod.Put, $"/api/plan/zones/{zone}/stack", new { version = sheet["version"], layers });
        Assert.Contains("the layers of Coping on Lock-wall straight", (await server.Get(path))["news"]!["words"]!.ToString());
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Null((await server.Get(path))["news"]);

        // Its measures make its minutes as well.
        var row = (await server.Get($"/api/plan/zones/{zone}"))["zone"]!;
        await painter.Do(HttpMethod.Put, $"/api/plan/zones/{zone}", new { version = row["version"], jointMm = row["jointMm"]!.GetValue<decimal>() + 400 });
        Assert.Contains("the measures of Coping on Lock-wall straight", (await server.Get(path))["news"]!["words"]!.ToString());
        Assert.Equal(200, (await painter.Undo()).Status);
    }

    [Fact]
    public async Task An_operation_is_moved_and_pinned_or_refused_with_the_reason_and_the_nearest_session_that_works()
    {
        var (painter, path) = await Someone("mover");
        var kept = await Keep(painter, path);
        var last = Operations(kept)[^1];
        object Move(JsonNode plan, JsonNode o, object? to) => new { number = Number(plan), zoneId = o["zoneId"], layerId = o["layerId"], pieceId = o["pieceId"], to };
        var (status, refusal) = await painter.Send(HttpMethod.Post, path + "/moves", Move(kept, last, At(kept["sessions"]![0]!["start"])));
        Assert.Equal((409, "cannot-move"), (status, refusal["code"]!.ToString()));
        Assert.Contains("The nearest session that works is", refusal["detail"]!.ToString());
        var nearest = At(refusal["current"]!["nearest"]);
        Assert.Equal(409, (await painter.Send(HttpMethod.Post, path + "/moves", Move(kept, last, At(kept["sessions"]![0]!["start"]).AddHours(-30)))).Status);
        Assert.Equal(404, (await painter.Send(HttpMethod.Post, path + "/moves", Move(kept, JsonNode.Parse($$"""{ "zoneId": "{{Guid.NewGuid()}}", "layerId": "{{Guid.NewGuid()}}", "pieceId": "{{Guid.NewGuid()}}" }""")!, nearest))).Status);

        var moved = await painter.Do(HttpMethod.Post, path + "/moves", Move(kept, last, nearest));
        var there = Operations(moved).Single(o => Key(o) == Key(last));
        Assert.True(there["pinned"]!.GetValue<bool>());
        var session = moved["sessions"]!.AsArray().Single(s => s!["operations"]!.AsArray().Any(o => Key(o!) == Key(last)))!;
        Assert.True(At(session["start"]) <= nearest && nearest < At(session["end"]));

        // Made anew, what is pinned stays.
        var anew = await Keep(painter, path);
        Assert.Equal(At(session["start"]), At(anew["sessions"]!.AsArray().Single(s => s!["operations"]!.AsArray().Any(o => Key(o!) == Key(last)))!["start"]));
        var loose = await painter.Do(HttpMethod.Post, path + "/moves", Move(anew, there, null));
        Assert.DoesNotContain(Operations(loose), o => o["pinned"]!.GetValue<bool>());
    }

    [Fact]
    public async Task Beginning_late_says_what_moves_before_it_is_taken_over()
    {
        var (painter, path) = await Someone("late");
        var kept = await Keep(painter, path);
        Assert.Empty((await server.Get(path + "/late?minutes=0"))["moved"]!.AsArray());
        var late = await server.Get(path + "/late?minutes=120");
        Assert.NotEmpty(late["moved"]!.AsArray());
        var over = await painter.Do(HttpMethod.Post, path, new { number = Number(kept), from = "closest", lateMinutes = 120 });
        Assert.Equal(late["finish"]!.ToString(), over["finish"]!.ToString());
        Assert.Equal(400, (await server.Send(HttpMethod.Get, path + "/late?minutes=-1", null)).Status);
        Assert.Equal(200, (await painter.Undo()).Status);
    }

    [Fact]
    public async Task Every_alternative_states_what_it_comes_to_and_those_that_can_be_taken_over_are()
    {
        var (painter, path) = await Someone("arguer");
        await Keep(painter, path);
        var ways = (await server.Get(path + "/alternatives")).AsArray();
        Assert.Equal(["steps", "groups", "singly", "careful", "goal", "hot-air", "evening", "hands", "unseen"], ways.Select(w => w!["id"]!.ToString()));
        Assert.All(ways, w => Assert.True(w!["handsOnMinutes"]!.GetValue<int>() > 0 && w["sessions"]!.GetValue<int>() > 0 && w["setUps"]!.GetValue<int>() > 0 && At(w["finish"]) > DateTimeOffset.UtcNow));
        JsonNode Way(string id) => ways.Single(w => w!["id"]!.ToString() == id)!;
        Assert.True(At(Way("hands")["finish"]) <= At(Way("steps")["finish"]));
        Assert.True(At(Way("evening")["finish"]) <= At(Way("steps")["finish"]));
        Assert.True(Way("unseen")["handsOnMinutes"]!.GetValue<int>() < Way("steps")["handsOnMinutes"]!.GetValue<int>());
        var groups = await Keep(painter, path, 4);
        Assert.Equal(4, groups["kept"]!["atOnce"]!.GetValue<int>());
        Assert.All(Operations(groups), o => Assert.True(o["pieces"]!.AsArray().Count <= 4));

        // On the safe side, and in as few sessions as can be: both stay when the plan is taken over as it is, or changed by hand.
        var safe = await painter.Do(HttpMethod.Post, path, new { number = Number(groups), from = "anew", careful = true, goal = "fewest" });
        Assert.True(safe["kept"]!["careful"]!.GetValue<bool>() && safe["kept"]!["goal"]!.ToString() == "fewest");
        Assert.Equal("Made anew, on the safe side, in the fewest sessions", safe["kept"]!["why"]!.ToString());
        Assert.True(Way("careful")["careful"]!.GetValue<bool>() && At(Way("careful")["finish"]) >= At(Way("steps")["finish"]));
        Assert.True(Way("goal")["goal"]!.ToString() == "fewest" && Way("goal")["sessions"]!.GetValue<int>() <= Way("steps")["sessions"]!.GetValue<int>());
        var still = await painter.Do(HttpMethod.Post, path, new { number = Number(safe), from = "closest" });
        Assert.True(still["kept"]!["careful"]!.GetValue<bool>() && still["kept"]!["goal"]!.ToString() == "fewest");
        Assert.Equal(Starts(safe), Starts(still));
        var back = (await server.Get(path + "/alternatives")).AsArray();
        Assert.False(back.Single(w => w!["id"]!.ToString() == "careful")!["careful"]!.GetValue<bool>());
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(200, (await painter.Undo()).Status);
        var chance = await server.Get(path + "/chance");
        Assert.True(At(chance["early"]) <= At(chance["middle"]) && At(chance["middle"]) <= At(chance["late"]));
        Assert.Equal(3, chance["most"]!.AsArray().Count);
        Assert.Equal(200, (await painter.Undo()).Status);
    }

    [Fact]
    public async Task A_point_of_the_trade_is_taken_over_as_left_out_gives_its_minutes_and_goes_back()
    {
        var (painter, path) = await Someone("thinner");
        var before = await server.Get(path + "/fit");
        var points = before["points"]!.AsArray();
        Assert.True(points.Count > 5);
        var upTo = points.Count / 2;
        var layers = points.Take(upTo + 1).SelectMany(p => p!["out"]!.AsArray()).Select(o => new { treatmentId = o!["treatmentId"], layerId = o["layerId"] }).ToList();
        var told = await painter.Do(HttpMethod.Post, path + "/left-out", new { layers });
        Assert.Equal(layers.Count, told["layers"]!.GetValue<int>());
        var after = await server.Get(path + "/fit");
        Assert.Equal(points[upTo]!["minutes"]!.GetValue<double>(), after["points"]![0]!["minutes"]!.GetValue<double>(), 0.2);
        Assert.Equal(layers.Count, after["leftOut"]!.AsArray().Count);
        var estimates = await server.Get($"/api/estimates/{await server.SetId()}");
        Assert.Equal(points[upTo]!["minutes"]!.GetValue<double>(), estimates["minutes"]!.GetValue<double>(), 2.0);

        // What is gone is not left out again, and all of it comes back to where it was.
        Assert.Equal(409, (await painter.Send(HttpMethod.Post, path + "/left-out", new { layers })).Status);
        await painter.Do(HttpMethod.Post, path + "/left-out/back", new { layers });
        Assert.Equal(before.ToJsonString(), (await server.Get(path + "/fit")).ToJsonString());
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(layers.Count, (await server.Get(path + "/fit"))["leftOut"]!.AsArray().Count);
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(before.ToJsonString(), (await server.Get(path + "/fit")).ToJsonString());
        Assert.Equal(400, (await painter.Send(HttpMethod.Post, path + "/left-out", new { layers = Array.Empty<object>() })).Status);
    }

    [Fact]
    public async Task Figures_of_a_technique_are_the_workshops_own_until_they_are_taken_back()
    {
        var (painter, _) = await Someone("pacer");
        var set = await server.SetId();
        var before = await server.Get($"/api/estimates/{set}");
        double Minutes(JsonNode of) => of["techniques"]!.AsArray().Single(t => t!["technique"]!.ToString() == "base coat")!["minutes"]!.GetValue<double>();
        var path = $"/api/workshops/{painter.Workshop}/paces/base%20coat";
        var told = await painter.Do(HttpMethod.Put, path, new { version = before["workshopVersion"], figures = new { factor = 2, error = 0.1 } });
        var after = await server.Get($"/api/estimates/{set}");
        Assert.InRange(Minutes(after), Minutes(before) * 1.7, Minutes(before) * 2);
        Assert.True(after["typicalError"]!.GetValue<double>() < before["typicalError"]!.GetValue<double>());
        Assert.Equal(409, (await painter.Send(HttpMethod.Put, path, new { version = before["workshopVersion"], figures = new { factor = 3 } })).Status);
        Assert.Equal("figures.learning", (await painter.Send(HttpMethod.Put, path, new { version = told["version"], figures = new { learning = 0.1 } })).Body.Fields().Single());
        Assert.Equal(404, (await painter.Send(HttpMethod.Put, $"/api/workshops/{painter.Workshop}/paces/flying", new { version = told["version"] })).Status);
        await painter.Do(HttpMethod.Put, path, new { version = told["version"] });
        Assert.Equal(Minutes(before), Minutes(await server.Get($"/api/estimates/{set}")));
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(Minutes(after), Minutes(await server.Get($"/api/estimates/{set}")));
        Assert.Equal(200, (await painter.Undo()).Status);
    }

    [Fact]
    public async Task What_cannot_be_had_is_refused_with_the_facts_that_clash_and_without_any_of_them_it_can()
    {
        var (painter, path) = await Someone("clasher");
        var hours = (await server.Get(path))["hours"]!.ToString();

        // Three minutes of spraying an evening hold no coat of anything.
        await Hours(painter, "Tue 19:00-22:00, spraying until 19:03");
        var plan = await server.Get(path);
        Assert.Null(plan["finish"]?.GetValue<DateTimeOffset?>());
        var clash = plan["clash"]!.AsArray();
        Assert.Contains(clash, c => c!["fact"]!.ToString() == "spraying");
        Assert.True(clash.Count <= 3, clash.ToJsonString());
        var (status, refusal) = await painter.Send(HttpMethod.Post, path, new { number = Number(plan), from = "anew" });
        Assert.Equal((409, "no-timetable"), (status, refusal["code"]!.ToString()));
        foreach (var c in clash)
            Assert.Contains(c!["words"]!.ToString(), refusal["detail"]!.ToString());
        await Hours(painter, "Tue 19:00-22:00");
        Assert.Empty((await server.Get(path))["clash"]!.AsArray());
        await Hours(painter, hours);
    }
}
