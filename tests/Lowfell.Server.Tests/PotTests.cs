using System.Text.Json.Nodes;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Lowfell.Server.Tests;

/// <summary>Pots over HTTP: what goes in comes from the shelf, nothing is lost between pots, and nothing that happened is changed.</summary>
public sealed class PotTests(LowfellServer server) : PotDesk(server), IClassFixture<LowfellServer>
{
    [Fact]
    public async Task A_pot_takes_from_the_shelf_what_goes_in_and_counts_once()
    {
        var before = await StockOf("Wet Slate");
        var body = new { id = Guid.NewGuid(), eventId = Guid.NewGuid(), label = "Counted once", vessel = "wet palette", amounts = new object[] { new { materialId = await Material("Wet Slate"), drops = 20 }, new { materialId = await Material("Tap Water"), ml = 0.5m } } };
        var (status, pot) = await Server.Send(HttpMethod.Post, await Root(), body);
        Assert.Equal((200, 1.5m), (status, Ml(pot)));
        (status, _) = await Server.Send(HttpMethod.Post, await Root(), body);
        Assert.Equal(200, status);
        Assert.Equal(before - 1, await StockOf("Wet Slate"));
        Assert.Equal("2 : 1", pot.Text("dilution"));
        (status, var refused) = await Server.Send(HttpMethod.Post, await Root(), body with { id = Guid.NewGuid(), eventId = Guid.NewGuid() });
        Assert.Equal((409, "already-there"), (status, refused.Text("code")));
    }

    [Fact]
    public async Task What_the_shelf_does_not_hold_is_refused_unless_the_bottle_held_more()
    {
        var clay = await StockOf("Reed Straw");
        var amounts = new object[] { new { materialId = await Material("Reed Straw"), ml = clay + 2 } };
        var (status, refused) = await Server.Send(HttpMethod.Post, await Root(), new { id = Guid.NewGuid(), eventId = Guid.NewGuid(), label = "Too much", vessel = "jar", amounts });
        Assert.Equal((409, "not-enough"), (status, refused.Text("code")));
        Assert.Equal(clay, await StockOf("Reed Straw"));
        (status, _) = await Server.Send(HttpMethod.Post, await Root(), new { id = Guid.NewGuid(), eventId = Guid.NewGuid(), label = "Held more", vessel = "jar", amounts, bottleHadMore = true });
        Assert.Equal((200, 0m), (status, await StockOf("Reed Straw")));
        await using var db = Server.Db();
        Assert.Equal(2, await db.StockMoves.Where(m => m.Kind == StockMoveKind.Corrected && m.Reason.Contains("Held more")).SumAsync(m => m.Ml, Stop));
    }

    [Fact]
    public async Task Thinning_topping_up_splitting_and_joining_lose_nothing()
    {
        var pot = await Make("Step by step", ("Fen Black", 2), ("Tap Water", 1));
        var (_, answer) = await Server.Send(HttpMethod.Post, $"{await Root()}/{pot["id"]}/ask", new { paint = 1, thinner = 2, thinnerId = await Material("Tap Water") });
        Assert.Equal(3, answer["add"]![0]!["ml"]!.GetValue<decimal>());
        (_, pot) = await Step(pot, "top-up", new { amounts = new[] { new { materialId = await Material("Tap Water"), ml = 3 } } });
        Assert.Equal("1 : 2", pot.Text("dilution"));
        var newId = Guid.NewGuid();
        (var status, pot) = await Step(pot, "split", new { newPotId = newId, ml = 2.5m, label = "Half of it", vessel = "palette" });
        Assert.Equal((200, 3.5m), (status, Ml(pot)));
        var other = (await Server.Get($"{await Root()}/{newId}"))["pot"]!;
        Assert.Equal(2.5m, Ml(other));
        Assert.Equal(2, Of(pot, "Fen Black") + Of(other, "Fen Black"));
        (status, pot) = await Step(pot, "join", new { otherId = newId, otherVersion = other["version"]!.GetValue<uint>() });
        Assert.Equal((200, 6m, 2m), (status, Ml(pot), Of(pot, "Fen Black")));
        Assert.Equal(0, Ml((await Server.Get($"{await Root()}/{newId}"))["pot"]!));

        (status, pot) = await Step(pot, "throw-away", new { ml = 1 });
        Assert.Equal((200, 5m), (status, Ml(pot)));
        (status, pot) = await Step(pot, "correct", new { leftMl = 4 });
        Assert.Equal((200, 4m), (status, Ml(pot)));
        (status, var refused) = await Step(pot, "throw-away", new { ml = 4.1m });
        Assert.Equal((400, "ml"), (status, refused.Fields().Single()));
    }

    /// <summary>What was on the palette for a moment has most of its life left, and so has the jar it goes back into.</summary>
    [Fact]
    public async Task A_pouring_keeps_the_share_of_life_that_was_left_and_can_be_taken_back_at_both_pots()
    {
        static DateTimeOffset Ends(JsonNode pot) => pot["goodUntil"]!.GetValue<DateTimeOffset>();
        async Task<JsonNode> Of(Guid id) => (await Server.Get($"{await Root()}/{id}"))["pot"]!;
        async Task<JsonArray> Events(JsonNode of) => (await Server.Get($"{await Root()}/{of["id"]}"))["events"]!.AsArray();
        var jar = await Make("Back into the jar", ("Fen Black", 3), ("Tap Water", 1));
        var (ends, onPalette) = (Ends(jar), Guid.NewGuid());
        (_, jar) = await Step(jar, "split", new { newPotId = onPalette, ml = 1, label = "On the palette", vessel = "palette" });
        var palette = await Of(onPalette);
        Assert.True(Ends(palette) < DateTimeOffset.UtcNow.AddDays(1));
        (var status, jar) = await Step(jar, "join", new { otherId = onPalette, otherVersion = palette["version"]!.GetValue<uint>() });
        Assert.Equal((200, 4m), (status, Ml(jar)));
        Assert.InRange(Ends(jar), ends - (ends - DateTimeOffset.UtcNow) * 0.2, ends);

        // At the palette it stands as a pouring out, and is taken back just as well from there.
        var out_ = (await Events(palette))[0]!;
        Assert.Equal(("poured out", true), (out_.Text("kind"), out_["canTakeBack"]!.GetValue<bool>()));
        (status, palette) = await Step(await Of(onPalette), $"events/{out_["id"]}/take-back", new { });
        Assert.Equal((200, 1m, 3m), (status, Ml(palette), Ml(await Of(Guid.Parse(jar.Text("id"))))));
        Assert.Equal(ends, Ends(await Of(Guid.Parse(jar.Text("id")))));

        // Once something came after it at either pot it stands.
        jar = await Of(Guid.Parse(jar.Text("id")));
        (_, jar) = await Step(jar, "join", new { otherId = onPalette, otherVersion = palette["version"]!.GetValue<uint>() });
        var joined = (await Events(jar))[0]!;
        await Step(await Of(onPalette), "top-up", new { amounts = new[] { new { materialId = await Material("Tap Water"), ml = 1 } } });
        Assert.False((await Events(jar))[0]!["canTakeBack"]!.GetValue<bool>());
        (status, var refused) = await Step(jar, $"events/{joined["id"]}/take-back", new { });
        Assert.Equal((409, "built-upon"), (status, refused.Text("code")));
    }

    /// <summary>What pouring together would make is told before it is done: enamel and water acrylic curdle.</summary>
    [Fact]
    public async Task Pouring_together_is_looked_at_first()
    {
        var acrylic = await Make("To pour into", ("Fen Black", 2));
        var more = await Make("More of it", ("Fen Black", 1), ("Tap Water", 1));
        var enamel = await Make("Of another kind", ("Bog Umber", 1));
        async Task<JsonNode> Ask(object? other) => (await Server.Send(HttpMethod.Post, $"{await Root()}/{acrylic["id"]}/ask", new { otherId = other })).Body;
        var same = await Ask(more.Text("id"));
        Assert.Equal(4, same["totalMl"]!.GetValue<decimal>());
        Assert.DoesNotContain(same["remarks"]!.AsArray(), r => r!["severity"]?.GetValue<string>() == "stop");
        Assert.Contains((await Ask(enamel.Text("id")))["remarks"]!.AsArray(), r => r!["severity"]?.GetValue<string>() == "stop" && r.Text("says").Contains("curdle", StringComparison.Ordinal));
        Assert.Equal(404, (await Server.Send(HttpMethod.Post, $"{await Root()}/{acrylic["id"]}/ask", new { otherId = Guid.NewGuid() })).Status);
        Assert.Equal(404, (await Server.Send(HttpMethod.Post, $"{await Root()}/{acrylic["id"]}/ask", new { otherId = acrylic.Text("id") })).Status);
    }

    [Fact]
    public async Task Two_windows_never_overwrite_each_other()
    {
        var pot = await Make("Two windows", ("Sedge Green", 3));
        var (status, first) = await Step(pot, "throw-away", new { ml = 1 });
        Assert.Equal(200, status);
        (status, var refused) = await Step(pot, "throw-away", new { ml = 1 });
        Assert.Equal((409, 2m), (status, refused["current"]!["ml"]!.GetValue<decimal>()));
        var id = Guid.NewGuid();
        await Step(first, "throw-away", new { id, ml = 1 });
        (status, var again) = await Step(first, "throw-away", new { id, ml = 1 });
        Assert.Equal((200, 1m), (status, Ml(again)));
    }

    [Fact]
    public async Task The_newest_step_is_taken_back_and_what_it_took_from_the_shelf_returns()
    {
        var pot = await Make("Taken back", ("Mud Dark", 2));
        var stock = await StockOf("Mud Dark");
        (_, pot) = await Step(pot, "top-up", new { amounts = new[] { new { materialId = await Material("Mud Dark"), ml = 1.5m } } });
        Assert.Equal(stock - 1.5m, await StockOf("Mud Dark"));
        var events = (await Server.Get($"{await Root()}/{pot["id"]}"))["events"]!.AsArray();
        Assert.Equal(("topped up", true), (events[0]!.Text("kind"), events[0]!["canTakeBack"]!.GetValue<bool>()));
        (var status, pot) = await Step(pot, $"events/{events[0]!["id"]}/take-back", new { });
        Assert.Equal((200, 2m, stock), (status, Ml(pot), await StockOf("Mud Dark")));
        (status, var refused) = await Step(pot, $"events/{events[1]!["id"]}/take-back", new { });
        Assert.Equal((409, "not-undone"), (status, refused.Text("code")));
    }

    [Fact]
    public async Task The_database_itself_refuses_to_change_what_happened()
    {
        foreach (var sql in new[] { "update work_events set note = 'x'", "delete from work_amounts", "delete from work_pieces", "update pot_contents set ml = ml + 1", "delete from pots", "update layers set coats = 2", "delete from revision_layers", "delete from treatment_revisions" })
            await Assert.ThrowsAsync<PostgresException>(() => LowfellServer.Execute(Server.Connection, sql));
        await using var db = Server.Db();
        var sums = await db.WorkEvents.SelectMany(e => e.Amounts, (e, a) => new { e.PotId, a.MaterialId, a.Ml }).GroupBy(a => new { a.PotId, a.MaterialId }).Select(g => new { g.Key, Ml = g.Sum(a => a.Ml) }).ToListAsync(Stop);
        Assert.All(await db.PotContents.AsNoTracking().ToListAsync(Stop), c => Assert.Equal(sums.Single(s => s.Key.PotId == c.PotId && s.Key.MaterialId == c.MaterialId).Ml, c.Ml));
    }

    /// <summary>From what is short, through buying and mixing, to pieces painted, a pot that ran out and a remix.</summary>
    [Fact]
    public async Task A_batch_from_the_shopping_list_to_the_remix()
    {
        var shopping = $"/api/stock/{await Server.WorkshopId()}/shopping";
        async Task<JsonNode?> Line() => (await Server.Get(shopping))["lines"]!.AsArray().FirstOrDefault(l => l!.Text("name") == "Peat Seven");
        var line = (await Line())!;
        Assert.Equal(41, line["needMl"]!.GetValue<double>(), 0.41);
        Assert.Equal((22m, 2), (line["stockMl"]!.GetValue<decimal>(), line["packs"]!.GetValue<int>()));
        await Server.Send(HttpMethod.Post, $"/api/stock/{await Server.WorkshopId()}/moves", new
        {
            moves = new object[] { new { id = Guid.NewGuid(), materialId = await Material("Peat Seven"), kind = "bought", ml = 34 }, new { id = Guid.NewGuid(), materialId = await Material("Brick Clay"), kind = "bought", ml = 51 } },
        });
        var (mix, place) = await Ground();
        var pieces = await PiecesOf(place);
        Assert.Equal(8, pieces.Count);
        var (status, pot) = await Server.Send(HttpMethod.Post, await Root(), new
        {
            id = Guid.NewGuid(),
            eventId = Guid.NewGuid(),
            label = "Ground two",
            vessel = "jar",
            recipeKey = mix.Text("recipeKey"),
            amounts = new object[] { new { materialId = await Material("Peat Seven"), ml = 24 }, new { materialId = await Material("Brick Clay"), ml = 16 }, new { materialId = await Material("Tap Water"), ml = 10 } },
        });
        Assert.Equal(200, status);
        Assert.Equal(0, pot["offRecipe"]!.GetValue<double>());
        var six = pieces.Take(6).Select(p => p!["id"]!.GetValue<Guid>()).ToList();
        Guid zone = place["zoneId"]!.GetValue<Guid>(), layer = place["layerId"]!.GetValue<Guid>();
        (status, pot) = await Step(pot, "give", new { zoneId = zone, layerId = layer, pieceIds = six });
        Assert.Equal((200, 6), (status, pot["pieces"]!.AsArray().Count));

        // Six walls take what the plan says six walls take; two are left to do.
        var amounts = (await Server.Get($"{await Root()}/amounts?sitting=6"))["lines"]!.AsArray().Single(l => l!["layerId"]!.GetValue<Guid>() == layer && l.Text("zone") == "Brick field on Lock-wall straight")!;
        Assert.Equal(2, amounts["pieces"]!.GetValue<int>());
        Assert.True((double)Ml(pot) < 50 - 40);

        // The tap is left open and the rest is lost; the brown is nearly gone too.
        (status, pot) = await Step(pot, "correct", new { leftMl = 0.5m, note = "knocked over" });
        var brown = await StockOf("Peat Seven");
        await Server.Send(HttpMethod.Post, $"/api/stock/{await Server.WorkshopId()}/moves", new { moves = new[] { new { id = Guid.NewGuid(), materialId = await Material("Peat Seven"), kind = "thrown away", ml = brown - 1 } } });
        var ranOut = await Server.Get($"{await Root()}/{pot["id"]}/ran-out");
        Assert.Equal(["W7", "W8"], ranOut["pieces"]!.AsArray().Where(p => !p!["done"]!.GetValue<bool>()).Select(p => p!.Text("label")));
        var options = ranOut["options"]!.AsArray();
        Assert.NotEmpty(options);
        Assert.DoesNotContain(options, o => o!["same"]!.GetValue<bool>());
        var differences = options.Select(o => o!["difference"]!.GetValue<double>()).ToList();
        Assert.Equal(differences.Order(), differences);
        Assert.True(differences[0] < 4, $"{differences[0]}");

        // Pieces are told to be kept apart exactly where the difference can be seen.
        Assert.All(options, o => Assert.Equal(o!["difference"]!.GetValue<double>() >= 1, o.Text("seam").Contains("W7, W8", StringComparison.Ordinal)));

        // The zone's remarks hear of pots once a second one was used.
        var needed = ranOut["neededMl"]!.GetValue<double>();
        Assert.InRange(needed, 10, 17);
    }

    [Fact]
    public async Task Two_pots_that_came_out_differently_are_told_of_on_the_zone()
    {
        var zone = await Server.ZoneId("Lock-wall straight", "Tide band");
        var findings = (await Server.Get($"/api/plan/zones/{zone}"))["reading"]!["findings"]!.AsArray();
        var remark = findings.Single(f => f!.Text("rule") == "mixed-pots")!;
        Assert.All(new[] { "Tide ground", "Tide again", "W6" }, word => Assert.Contains(word, remark.Text("why"), StringComparison.Ordinal));
    }

    [Fact]
    public async Task What_is_typed_into_a_jar_moves_the_rest_and_what_cannot_be_is_told()
    {
        Guid peat = await Material("Peat Seven"), clay = await Material("Brick Clay"), water = await Material("Tap Water"), spirit = await Material("Chandlery Thinner");
        object Parts(params (Guid Id, int Parts)[] parts) => parts.Select(p => new { materialId = p.Id, parts = p.Parts }).ToList();
        async Task<(int Status, JsonNode Body)> Look(object body) => await Server.Send(HttpMethod.Post, $"{await Root()}/jar", body);
        var (status, jar) = await Look(new { parts = Parts((peat, 12), (clay, 8), (water, 5)), totalMl = 25 });
        Assert.Equal((200, "4 : 1", "fits"), (status, jar.Text("dilution"), jar["remarks"]![0]!.Text("fit")));
        Assert.Equal([12m, 8m, 5m], jar["lines"]!.AsArray().Select(l => l!["ml"]!.GetValue<decimal>()));
        Assert.Equal([240m, 160m, 100m], jar["lines"]!.AsArray().Select(l => l!["units"]!.GetValue<decimal>()));
        (_, jar) = await Look(new { parts = Parts((peat, 12), (clay, 8), (water, 5)), totalMl = 25, change = new { materialId = peat, measure = "drops", value = 120 } });
        Assert.Equal(12.5m, jar["totalMl"]!.GetValue<decimal>());
        (_, jar) = await Look(new { parts = Parts((peat, 12), (clay, 8), (water, 5)), totalMl = 25, change = new { materialId = water, measure = "percent", value = 60 } });
        Assert.Equal((25m, 60m, "too thin"), (jar["totalMl"]!.GetValue<decimal>(), jar["lines"]![2]!["percent"]!.GetValue<decimal>(), jar["remarks"]![0]!.Text("fit")));
        (_, jar) = await Look(new { parts = Parts((peat, 3), (spirit, 1)), tool = "airbrush" });
        Assert.Equal("wrong thinner", jar["remarks"]![0]!.Text("fit"));
        Assert.NotNull(jar["airbrush"]);
        Assert.NotEmpty(jar["cautions"]!.AsArray());
        (status, var refused) = await Look(new { parts = Parts((peat, 3), (Guid.NewGuid(), 1)), needleMm = 9, change = new { materialId = peat, measure = "percent", value = 100 } });
        Assert.Equal((400, "needleMm parts[1].materialId"), (status, string.Join(' ', refused.Fields().Order())));
    }

    /// <summary>Four clients mix, thin, split, pour together, lay and throw away at once: what left the shelf is in pots or accounted for.</summary>
    [Fact]
    public async Task Whatever_four_clients_do_to_pots_adds_up()
    {
        string[] names = ["Lime Render", "Coping Stone", "Tap Water"];
        var stock = new Dictionary<string, decimal>();
        foreach (var name in names)
            stock[name] = await StockOf(name);
        async Task Client(int seed)
        {
            var random = new Random(seed);
            var root = await Root();
            for (var n = 0; n < 24; n++)
            {
                var all = (await Server.Get(root))["pots"]!.AsArray().Where(p => p!.Text("label").StartsWith("Shared", StringComparison.Ordinal) && Ml(p!) > 0).ToList();
                if (all.Count < 3)
                {
                    await Server.Send(HttpMethod.Post, root, new { id = Guid.NewGuid(), eventId = Guid.NewGuid(), label = $"Shared {seed} {n}", vessel = "jar", amounts = new[] { new { materialId = await Material(names[random.Next(3)]), ml = random.Next(1, 20_000) / 10_000m } } });
                    continue;
                }

                var pot = all[random.Next(all.Count)]!;
                var other = all[random.Next(all.Count)]!;
                var (status, body) = random.Next(5) switch
                {
                    0 => await Step(pot, "top-up", new { amounts = new[] { new { materialId = await Material(names[random.Next(3)]), ml = random.Next(1, 10_000) / 10_000m } } }),
                    1 => await Step(pot, "split", new { newPotId = Guid.NewGuid(), ml = decimal.Round(Ml(pot) / 3, 4) + 0.0001m, label = $"Shared {seed} {n}", vessel = "jar" }),
                    2 => await Step(pot, "join", new { otherId = other["id"]!.GetValue<Guid>(), otherVersion = other["version"]!.GetValue<uint>() }),
                    3 => await Step(pot, "throw-away", new { ml = decimal.Round(Ml(pot) / 2, 4) + 0.0001m }),
                    _ => await Step(pot, "correct", new { leftMl = decimal.Round(Ml(pot) * 0.9m, 4) }),
                };
                Assert.True(status is 200 or 400 or 409, body.ToJsonString());
            }
        }

        await Task.WhenAll(Enumerable.Range(1, 4).Select(Client));
        await using var db = Server.Db();
        foreach (var name in names)
        {
            var id = await Material(name);
            var shared = db.Pots.Where(p => p.Label.StartsWith("Shared")).Select(p => p.Id);
            var inPots = await db.PotContents.Where(c => c.MaterialId == id && shared.Contains(c.PotId)).SumAsync(c => c.Ml, Stop);
            var gone = await db.WorkEvents.Where(e => shared.Contains(e.PotId!.Value) && (e.Kind == WorkKind.ThrownAway || e.Kind == WorkKind.Corrected)).SelectMany(e => e.Amounts).Where(a => a.MaterialId == id).SumAsync(a => -a.Ml, Stop);
            Assert.Equal(stock[name] - await StockOf(name), inPots + gone);
        }
    }
}
