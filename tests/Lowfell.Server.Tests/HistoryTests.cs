using System.Text.Json.Nodes;
using Lowfell.Store;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Tests;

/// <summary>One undo for everything: in order, exactly, and never over what somebody else did.</summary>
public sealed class HistoryTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    [Theory]
    [InlineData(1)]
    public async Task Fifty_changes_by_chance_undone_one_by_one_give_back_the_beginning(int seed)
    {
        var painter = new Painter(server, seed, $"bench {seed}");
        await painter.Begin();
        var states = new List<string> { await painter.Whole() };
        string? newest = null;
        for (var tries = 0; states.Count <= 50; tries++)
        {
            Assert.True(tries < 600, "Too little of what was tried could be done.");
            if (await painter.Change() is >= 200 and < 300 && (await painter.Steps())["undo"]?.GetValue<string>() is { } step && step != newest)
            {
                newest = step;
                states.Add(await painter.Whole());
                Assert.Empty(await painter.Wrong());
            }
        }

        for (var i = states.Count - 2; i >= 0; i--)
        {
            var (status, body) = await painter.Undo();
            Assert.True(status == 200, body.ToJsonString());
            Assert.Equal(states[i], await painter.Whole());
            Assert.Empty(await painter.Wrong());
        }

        for (var i = 1; i < states.Count; i++)
        {
            var (status, body) = await painter.Redo();
            Assert.True(status == 200, body.ToJsonString());
            Assert.Equal(states[i], await painter.Whole());
            Assert.Empty(await painter.Wrong());
        }

        while ((await painter.Undo()).Status == 200)
        {
        }

        Assert.Equal(states[0], await painter.Whole());
        await Figures(painter);
    }

    /// <summary>Every view of every set can still be read.</summary>
    private async Task Figures(Painter painter)
    {
        foreach (var set in (await server.Get($"/api/workshops/{painter.Workshop}/sets")).AsArray())
        {
            await server.Get($"/api/plan/sets/{set!["id"]}");
            await server.Get($"/api/pots/{set["id"]}");
        }
    }

    [Fact]
    public async Task A_copy_with_what_was_done_begins_where_its_original_is_and_goes_with_one_undo()
    {
        var painter = new Painter(server, 0, "twin");
        await painter.Begin();
        var sets = $"/api/workshops/{painter.Workshop}/sets";
        var set = (await server.Get(sets))[0]!;
        var bare = await painter.Do(HttpMethod.Post, $"/api/sets/{set["id"]}/copies", new { });
        var twin = await painter.Do(HttpMethod.Post, $"/api/sets/{set["id"]}/copies", new { withWork = true });
        var cards = (await server.Get(sets)).AsArray().ToDictionary(s => s!["id"]!.ToString(), s => s!);
        Assert.True(set["layersDone"]!.GetValue<int>() > 0);
        Assert.Equal(set["layersDone"]!.ToString(), cards[twin["id"]!.ToString()]["layersDone"]!.ToString());
        Assert.Equal("0", cards[bare["id"]!.ToString()]["layersDone"]!.ToString());
        Assert.Empty(await painter.Wrong());

        // What is left to lay is what is left on the original, to the last millilitre.
        var left = (await server.Get($"/api/pots/{set["id"]}"))["mixes"]!.AsArray().Select(m => $"{m!["recipeKey"]} {m["ml"]}").Order();
        Assert.Equal(left, (await server.Get($"/api/pots/{twin["id"]}"))["mixes"]!.AsArray().Select(m => $"{m!["recipeKey"]} {m["ml"]}").Order());

        // Work is never torn out: the copy goes out of sight, and comes back as it was.
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.DoesNotContain((await server.Get(sets)).AsArray(), s => s!["id"]!.ToString() == twin["id"]!.ToString() && s["putAwayAt"] is null);
        Assert.Equal(200, (await painter.Redo()).Status);
        Assert.Equal(cards[twin["id"]!.ToString()]["layersDone"]!.ToString(), (await server.Get(sets)).AsArray().Single(s => s!["id"]!.ToString() == twin["id"]!.ToString())!["layersDone"]!.ToString());
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(200, (await painter.Undo()).Status);
    }

    [Fact]
    public async Task Writes_of_one_gesture_are_one_step()
    {
        var painter = new Painter(server, 0, "slider");
        await painter.Begin();
        var before = await painter.Whole();
        var gesture = Guid.NewGuid();
        foreach (var humidity in new[] { 0.31, 0.32, 0.33 })
            await painter.Do(HttpMethod.Put, $"/api/workshops/{painter.Workshop}", new { version = (await server.Get("/api/workshops"))[0]!["version"], relativeHumidity = humidity }, gesture);
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(before, await painter.Whole());
        Assert.Equal(409, (await painter.Undo()).Status);

        // What was undone is not gone on with.
        await painter.Do(HttpMethod.Put, $"/api/workshops/{painter.Workshop}", new { version = (await server.Get("/api/workshops"))[0]!["version"], relativeHumidity = 0.4 }, gesture);
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(before, await painter.Whole());
        Assert.Equal(200, (await painter.Redo()).Status);
        Assert.Equal(200, (await painter.Undo()).Status);
    }

    [Fact]
    public async Task Undo_takes_back_what_was_done_here_and_nothing_that_came_over_it()
    {
        Painter one = new(server, 0, "desk"), two = new(server, 0, "tablet");
        await one.Begin();
        await two.Begin();
        var set = await server.SetId();
        async Task<object> Version() => (await one.Sheet(set))["version"]!;
        await one.Do(HttpMethod.Put, $"/api/sets/{set}", new { version = await Version(), tableMetres = 1.1 });
        await two.Do(HttpMethod.Put, $"/api/sets/{set}", new { version = await Version(), reserveMl = 4 });

        // They did not touch: each takes back its own.
        var (status, body) = await one.Undo();
        Assert.Equal((200, 0.9m, 4m), (status, (await one.Sheet(set))["tableMetres"]!.GetValue<decimal>(), (await one.Sheet(set))["reserveMl"]!.GetValue<decimal>()));
        Assert.Contains("Changed the facts of Harrowmere Sluice", body.Text("words"), StringComparison.Ordinal);
        Assert.Equal(200, (await one.Redo()).Status);

        await two.Do(HttpMethod.Put, $"/api/sets/{set}", new { version = await Version(), tableMetres = 1.3 });
        (status, body) = await one.Undo();
        Assert.Equal((409, "touched-since"), (status, body.Text("code")));
        Assert.Contains("Changed the facts of Harrowmere Sluice", body.Text("detail"), StringComparison.Ordinal);
        Assert.Equal(1.3m, (await one.Sheet(set))["tableMetres"]!.GetValue<decimal>());
        Assert.Equal(200, (await two.Undo()).Status);
        Assert.Equal(200, (await one.Undo()).Status);
        Assert.Equal(200, (await two.Undo()).Status);
    }

    [Fact]
    public async Task Undo_of_a_layer_leaves_what_another_did_to_the_others()
    {
        Painter one = new(server, 0, "left"), two = new(server, 0, "right");
        await one.Begin();
        await two.Begin();
        var zone = await server.ZoneId("Pump house", "Timber");
        async Task Store(Painter who, Action<JsonArray> change)
        {
            var sheet = await server.Get($"/api/plan/zones/{zone}");
            var layers = sheet["layers"]!.Copy().AsArray();
            change(layers);
            await who.Do(HttpMethod.Put, $"/api/plan/zones/{zone}/stack", new { version = sheet["version"], layers });
        }

        async Task<string> Stack() => string.Join(" ", (await server.Get($"/api/plan/zones/{zone}"))["layers"]!.AsArray().Select(l => $"{l!.Text("technique")}×{l!["coats"]}"));
        var before = await Stack();
        await Store(one, l => l[1]!["coats"] = 5);
        await Store(two, l => l.RemoveAt(l.Count - 1));
        await Store(two, l => l[0]!["coats"] = 3);
        Assert.Equal(200, (await one.Undo()).Status);
        Assert.Equal((await Stack()).Replace("×3", "×1", StringComparison.Ordinal), before[..before.LastIndexOf(' ')]);
        Assert.Equal(200, (await one.Redo()).Status);
        Assert.Contains("×5", await Stack(), StringComparison.Ordinal);

        // The same layer, changed by both: it stays.
        await Store(two, l => l[1]!["coats"] = 4);
        var (status, problem) = await one.Undo();
        Assert.Equal((409, "touched-since"), (status, problem.Text("code")));
        Assert.Contains("coats", problem.Text("detail"), StringComparison.Ordinal);
        for (var i = 0; i < 3; i++)
            Assert.Equal(200, (await two.Undo()).Status);
        Assert.Equal(200, (await one.Undo()).Status);
        Assert.Equal(before, await Stack());
    }

    [Fact]
    public async Task Two_windows_merge_what_does_not_touch_and_are_told_of_what_does()
    {
        var painter = new Painter(server, 0, "two windows");
        await painter.Begin();
        var set = await server.SetId();
        var seen = (await painter.Sheet(set))["version"]!;
        await painter.Do(HttpMethod.Put, $"/api/sets/{set}", new { version = seen, handling = "display" });
        await painter.Do(HttpMethod.Put, $"/api/sets/{set}", new { version = seen, targetSheen = "satin" });
        var (status, body) = await painter.Send(HttpMethod.Put, $"/api/sets/{set}", new { version = seen, handling = "hard play" });
        Assert.Equal((409, "changed-elsewhere", "display"), (status, body.Text("code"), body["current"]!.Text("handling")));
        var sheet = await painter.Sheet(set);
        Assert.Equal(("display", "satin"), (sheet.Text("handling"), sheet.Text("targetSheen")));
        await painter.Undo();
        await painter.Undo();
    }

    [Fact]
    public async Task What_was_removed_is_brought_back_by_itself()
    {
        var painter = new Painter(server, 0, "remover");
        await painter.Begin();
        var copy = (await painter.Do(HttpMethod.Post, $"/api/sets/{await server.SetId()}/copies", new { name = "Fen Gate" }))["id"]!.GetValue<Guid>();
        var removed = await painter.Do(HttpMethod.Delete, $"/api/sets/{copy}", null);
        Assert.True(removed["removed"]!.GetValue<bool>());
        var (status, body) = await painter.Send(HttpMethod.Put, $"/api/sets/{copy}", new { version = 1, name = "Gone" });
        Assert.Equal(404, status);
        await painter.Do(HttpMethod.Put, $"/api/workshops/{painter.Workshop}", new { version = (await server.Get("/api/workshops"))[0]!["version"], currency = "£" });
        var steps = (await server.Get($"/api/workshops/{painter.Workshop}/steps"))["done"]!.AsArray();
        var removal = steps.First(s => s!["removes"]!.GetValue<bool>() && s.Text("words").Contains("Fen Gate", StringComparison.Ordinal))!;
        Assert.Equal(200, (await painter.Undo(removal["id"]!.GetValue<Guid>())).Status);
        Assert.Equal(7, (await painter.Sheet(copy))["designs"]!.AsArray().Count);
        Assert.Equal(409, (await painter.Undo(removal["id"]!.GetValue<Guid>())).Status);
        Assert.Equal(200, (await painter.Undo()).Status);
    }

    [Fact]
    public async Task What_is_removed_takes_its_trays_trials_and_tiles_along_and_brings_them_back()
    {
        var painter = new Painter(server, 0, "tray");
        await painter.Begin();
        var copy = (await painter.Do(HttpMethod.Post, $"/api/sets/{await server.SetId()}/copies", new { })).Text("id");
        var (bases, trials) = ($"/api/bases/{copy}", $"/api/trials/{copy}");
        var at = $"{bases}/{(await server.Get(bases))["designs"]![0]!.Text("designId")}";
        await painter.Do(HttpMethod.Put, at, new JsonObject { ["wish"] = (await server.Get(at))["wish"]!.DeepClone() });
        var zone = (await painter.Sheet(Guid.Parse(copy)))["designs"]!.AsArray().Single(d => d!.Text("name") == "Mud-and-salt base")!["zones"]!.AsArray().Single(z => z!.Text("name") == "Fen mud")!.Text("id");
        var layer = (await server.Get($"/api/plan/zones/{zone}"))["layers"]![3]!;
        var levels = new JsonArray([.. new[] { 1, 2, 3 }.Select(coats => { var l = layer.Copy(); l["coats"] = coats; return l; })]);
        var factors = new JsonArray(new JsonObject { ["layerId"] = layer["id"]!.DeepClone(), ["levels"] = levels });
        var trial = await painter.Do(HttpMethod.Post, trials, new JsonObject { ["id"] = Guid.NewGuid(), ["zoneId"] = zone, ["name"] = "How much ground?", ["tile"] = new JsonObject { ["widthMm"] = 40, ["heightMm"] = 40 }, ["factors"] = factors });
        await painter.Do(HttpMethod.Post, $"{trials}/{trial.Text("id")}/bench", null);
        var tile = (await painter.Sheet(Guid.Parse(copy)))["designs"]!.AsArray()[^1]!.Text("id");
        async Task<string> All() => (await server.Get(at)).ToJsonString() + (await server.Get($"{trials}/{trial.Text("id")}")).ToJsonString() + (await server.Get(bases)).ToJsonString();

        // First the zone alone, then the tile's design, then the tray's, then all of it.
        foreach (var path in new[] { $"zones/{zone}", $"designs/{tile}", $"designs/{at.Split('/')[^1]}", $"sets/{copy}" })
        {
            var before = await All();
            Assert.True((await painter.Do(HttpMethod.Delete, $"/api/{path}", null))["removed"]!.GetValue<bool>());
            for (var turns = 0; turns < 2; turns++)
            {
                var (status, body) = await painter.Undo();
                Assert.True(status == 200, path + body.ToJsonString());
                Assert.Equal(Unversioned(before), Unversioned(await All()));
                if (turns == 0)
                    Assert.Equal(200, (await painter.Redo()).Status);
            }
        }
    }

    private static string Unversioned(string json) => System.Text.RegularExpressions.Regex.Replace(json, "\"version\":\\d+", "");

    [Fact]
    public async Task Work_is_put_away_and_never_torn_out()
    {
        var painter = new Painter(server, 0, "archivist");
        await painter.Begin();
        var set = await server.SetId();
        var sheet = await painter.Sheet(set);
        var pots = (await server.Get($"/api/pots/{set}")).ToJsonString();
        var worked = sheet["designs"]!.AsArray().First(d => d!["zones"]!.AsArray().Any(z => z!["worked"]!.GetValue<bool>()))!;
        var answer = await painter.Do(HttpMethod.Delete, $"/api/designs/{worked["id"]}", null);
        Assert.False(answer["removed"]!.GetValue<bool>());
        Assert.DoesNotContain((await server.Get($"/api/plan/sets/{set}"))["designs"]!.AsArray(), d => d!.Text("name") == worked.Text("name"));

        // The pots still tell every piece that got of them.
        var given = JsonNode.Parse(pots)!["pots"]!.AsArray().SelectMany(p => p!["pieces"]!.AsArray()).Select(p => p!.ToJsonString()).Order().ToList();
        var still = (await server.Get($"/api/pots/{set}"))["pots"]!.AsArray().SelectMany(p => p!["pieces"]!.AsArray()).Select(p => p!.ToJsonString()).Order().ToList();
        Assert.NotEmpty(given);
        Assert.Equal(given, still);
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(pots, (await server.Get($"/api/pots/{set}")).ToJsonString());
    }

    [Fact]
    public async Task The_last_steps_are_kept_however_old_and_no_more_than_that()
    {
        var painter = new Painter(server, 0, "pruner");
        await painter.Begin();
        for (var i = 0; i < 205; i++)
            await painter.Do(HttpMethod.Put, $"/api/workshops/{painter.Workshop}", new { version = (await server.Get("/api/workshops"))[0]!["version"], currency = $"c{i % 9}" });
        await using var db = server.Db();
        Assert.Equal(0, await OldSteps.Prune(db, DateTimeOffset.UtcNow, TestContext.Current.CancellationToken));
        Assert.True(await OldSteps.Prune(db, DateTimeOffset.UtcNow.AddDays(31), TestContext.Current.CancellationToken) > 0);
        Assert.Equal(OldSteps.Kept, await db.JournalSteps.CountAsync(TestContext.Current.CancellationToken));
        Assert.Equal(200, (await painter.Undo()).Status);
        Assert.Equal(200, (await painter.Redo()).Status);
    }

    [Fact]
    public async Task What_is_not_changed_by_a_write_of_a_plan_is_no_step()
    {
        await using var db = server.Db();
        var before = await db.JournalSteps.CountAsync(TestContext.Current.CancellationToken);
        var painter = new Painter(server, 0, "stock");
        await painter.Begin();
        var material = (await server.Get($"/api/shelf/{painter.Workshop}/materials"))[0]!;
        await painter.Do(HttpMethod.Post, $"/api/stock/{painter.Workshop}/moves", new { moves = new[] { new { id = Guid.NewGuid(), materialId = material["id"], kind = "bought", ml = 10 } } });
        Assert.Equal(before, await db.JournalSteps.CountAsync(TestContext.Current.CancellationToken));
    }

    [Fact]
    public async Task What_was_removed_this_month_stands_in_the_list_however_much_was_done_since()
    {
        var workshop = await server.WorkshopId();
        await using var db = server.Db();
        async Task Step(string words, int daysAgo, bool removes) => await db.Database.ExecuteSqlAsync(
            $"insert into journal_steps (id, workshop_id, actor, device, at, words, removes) values ({Guid.NewGuid()}, {workshop}, 'long ago', 'elsewhere', now() - make_interval(days => {daysAgo}), {words}, {removes})", TestContext.Current.CancellationToken);
        await Step("Removed long ago", 40, true);
        await Step("Removed this month", 20, true);
        for (var n = 0; n < 205; n++)
            await Step($"Did a little {n}", 1, false);
        var words = (await server.Get($"/api/workshops/{workshop}/steps"))["done"]!.AsArray().Select(s => s!.Text("words")).ToList();
        Assert.Contains("Removed this month", words);
        Assert.DoesNotContain("Removed long ago", words);
        await db.Database.ExecuteSqlAsync($"delete from journal_steps where actor = 'long ago'", TestContext.Current.CancellationToken);
    }
}
