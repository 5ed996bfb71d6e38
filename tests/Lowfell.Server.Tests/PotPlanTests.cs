using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>What is said of pots against the plan, and what is wrong with a step.</summary>
public sealed class PotPlanTests(LowfellServer server) : PotDesk(server), IClassFixture<LowfellServer>
{
    [Fact]
    public async Task Advice_grows_from_one_pot_to_several_as_the_vessel_shrinks()
    {
        var (mix, _) = await Ground();
        var advice = (await Server.Get($"{await Root()}/advice?key={Uri.EscapeDataString(mix.Text("recipeKey"))}")).AsArray();
        var pots = advice.ToDictionary(a => a!.Text("vessel"), a => a!["pots"]!.GetValue<int>());
        Assert.True(pots["jar"] < pots["wet palette"] && pots["wet palette"] < pots["palette"]);
        Assert.All(advice, a => Assert.True(a!["pots"]!.GetValue<int>() * a["eachMl"]!.GetValue<decimal>() >= mix["ml"]!.GetValue<decimal>() - 0.01m));
        Assert.Equal(404, (await Server.Send(HttpMethod.Get, $"{await Root()}/advice?key=none", null)).Status);
    }

    [Fact]
    public async Task A_pot_moved_to_the_palette_has_minutes_and_a_long_wrong_step_is_told_by_its_fields()
    {
        var pot = await Make("Moved about", ("Fen Black", 3), ("Tap Water", 1));
        (var status, pot) = await Step(pot, "move", new { vessel = "palette" });
        Assert.Equal((200, "palette"), (status, pot.Text("vessel")));
        Assert.True(pot["goodUntil"]!.GetValue<DateTimeOffset>() < DateTimeOffset.UtcNow.AddHours(2));
        async Task<string> Fields(string step, object body)
        {
            var (code, refused) = await Step(pot, step, body);
            Assert.Equal(400, code);
            return string.Join(' ', refused.Fields().Distinct().Order());
        }

        Assert.Equal("vessel", await Fields("move", new { vessel = "palette" }));
        Assert.Equal("label ml newPotId vessel", await Fields("split", new { ml = 0 }));
        Assert.Equal("otherId otherVersion", await Fields("join", new { otherId = pot["id"]!.GetValue<Guid>() }));
        Assert.Equal("ml pieceIds zoneId", await Fields("give", new { zoneId = Guid.NewGuid(), pieceIds = Array.Empty<Guid>(), ml = 0 }));
        Assert.Equal("amounts[0] amounts[1].materialId", await Fields("top-up", new { amounts = new object[] { new { materialId = await Material("Tap Water") }, new { ml = 1 } } }));
        Assert.Equal("leftMl", await Fields("correct", new { leftMl = -1 }));
        Assert.Equal("note", await Fields("throw-away", new { note = new string('x', 501) }));
        var (none, _) = await Server.Send(HttpMethod.Post, $"{await Root()}/{Guid.NewGuid()}/throw-away", new { id = Guid.NewGuid(), version = 1 });
        Assert.Equal(404, none);
    }

    [Fact]
    public async Task A_pot_of_a_plan_that_moved_on_is_told_as_off_its_recipe()
    {
        var (mix, _) = await Ground();
        var (status, pot) = await Server.Send(HttpMethod.Post, await Root(), new
        {
            id = Guid.NewGuid(),
            eventId = Guid.NewGuid(),
            label = "Stands in",
            vessel = "jar",
            recipeKey = mix.Text("recipeKey"),
            amounts = new object[] { new { materialId = await Material("Mud Dark"), ml = 2 }, new { materialId = await Material("Salt White"), ml = 2 } },
        });
        Assert.Equal(200, status);
        Assert.True(pot["offRecipe"]!.GetValue<double>() > 5);
        var (code, refused) = await Server.Send(HttpMethod.Post, await Root(), new { id = Guid.NewGuid(), eventId = Guid.NewGuid(), label = "No such", vessel = "jar", recipeKey = "gone*1", amounts = new object[] { new { materialId = await Material("Mud Dark"), ml = 1 } } });
        Assert.Equal((400, "recipeKey"), (code, refused.Fields().Single()));
    }

    /// <summary>Two windows pour two pots into each other at the same moment, again and again: one wins, nobody waits for ever, nothing is lost.</summary>
    [Fact]
    public async Task Pouring_two_pots_into_each_other_at_once_never_locks_up()
    {
        var (a, b) = (await Make("To and fro", ("Wall Filler", 5)), await Make("Fro and to", ("Wall Filler", 7)));
        for (var n = 0; n < 8; n++)
        {
            object Join(System.Text.Json.Nodes.JsonNode other) => new { otherId = other["id"]!.GetValue<Guid>(), otherVersion = other["version"]!.GetValue<uint>() };
            var answers = await Task.WhenAll(Step(a, "join", Join(b)), Step(b, "join", Join(a)));
            Assert.Single(answers, x => x.Status == 200);
            Assert.Single(answers, x => x.Status is 409 or 400);
            a = (await Server.Get($"{await Root()}/{a["id"]}"))["pot"]!;
            b = (await Server.Get($"{await Root()}/{b["id"]}"))["pot"]!;
            Assert.Equal((12m, 0m), (Ml(a) + Ml(b), Math.Min(Ml(a), Ml(b))));

            // Half goes back, so that both hold something in the next round.
            var (full, empty) = Ml(a) > 0 ? (a, b) : (b, a);
            var fresh = Guid.NewGuid();
            Assert.Equal(200, (await Step(full, "split", new { newPotId = fresh, ml = 6, label = $"Half {n}", vessel = "jar" })).Status);
            a = (await Server.Get($"{await Root()}/{full["id"]}"))["pot"]!;
            b = (await Server.Get($"{await Root()}/{fresh}"))["pot"]!;
            Assert.Equal(0, Ml(empty));
        }
    }
}
