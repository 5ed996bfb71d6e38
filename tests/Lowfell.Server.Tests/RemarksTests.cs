using System.Text.Json.Nodes;
using Lowfell.Core.Order;
using Lowfell.Store;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Tests;

/// <summary>Remarks over a set: gathered, mended everywhere at once, put back, lived with; house rules.</summary>
public sealed class RemarksTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private async Task<string> SetPath() => $"/api/plan/sets/{await server.SetId()}";

    private static IEnumerable<JsonNode> Groups(JsonNode remarks) => remarks["groups"]!.AsArray().Select(g => g!);

    [Fact]
    public async Task Remarks_are_gathered_worst_first_and_counted_as_the_plan_counts_them()
    {
        var remarks = await server.Get(await SetPath() + "/remarks");
        var severities = Groups(remarks).Select(g => g.Text("severity")).ToList();
        Assert.Equal(severities.OrderBy(s => Array.IndexOf(["stop", "caution", "hint"], s)), severities);
        Assert.True(Groups(remarks).SelectMany(g => g["items"]!.AsArray()).Select(i => i!.Text("zoneId")).Distinct().Count() >= 6);
        var zones = (await server.Get(await SetPath()))["designs"]!.AsArray().SelectMany(d => d!["zones"]!.AsArray()).ToList();
        foreach (var severity in new[] { "stops", "cautions", "hints" })
            Assert.Equal(zones.Sum(z => z![severity]!.GetValue<int>()), remarks[severity]!.GetValue<int>());
    }

    [Fact]
    public async Task One_remedy_is_done_over_the_set_and_put_back()
    {
        var path = await SetPath();
        var ask = new { rule = "wash-on-flat", remedy = "as-filter", store = false };
        var (_, shown) = await server.Send(HttpMethod.Post, path + "/remedies", ask);
        Assert.Equal(3, shown["changes"]!.AsArray().Count);
        Assert.All(shown["changes"]!.AsArray(), c => Assert.NotEmpty(c!["change"]!["gone"]!.AsArray()));
        Assert.Contains(Groups(await server.Get(path + "/remarks")), g => g.Text("rule") == "wash-on-flat");

        var versions = shown["changes"]!.AsArray().Select(c => new { treatmentId = c!.Text("treatmentId"), version = c!["version"]!.GetValue<uint>() }).ToList();
        var (status, done) = await server.Send(HttpMethod.Post, path + "/remedies", new { ask.rule, ask.remedy, store = true, versions }, Guid.NewGuid());
        Assert.Equal(200, status);
        Assert.DoesNotContain(Groups(await server.Get(path + "/remarks")), g => g.Text("rule") == "wash-on-flat");

        // What was shown no longer stands: the same versions are refused, and nothing is stored.
        (status, _) = await server.Send(HttpMethod.Post, path + "/remedies", new { ask.rule, ask.remedy, store = true, versions });
        Assert.Equal(409, status);

        var stacks = new JsonArray(shown["changes"]!.AsArray().Select(c => (JsonNode)new JsonObject { ["treatmentId"] = c!.Text("treatmentId"), ["version"] = done["versions"]!.AsArray().Single(v => v!.Text("treatmentId") == c!.Text("treatmentId"))!["version"]!.GetValue<uint>(), ["layers"] = c!["before"]!.Copy() }).ToArray());
        (status, _) = await server.Send(HttpMethod.Put, path + "/stacks", new JsonObject { ["stacks"] = stacks.Copy() }, Guid.NewGuid());
        Assert.Equal(200, status);
        Assert.Contains(Groups(await server.Get(path + "/remarks")), g => g.Text("rule") == "wash-on-flat");

        // Put back twice: the first has moved the versions on, so all of it is refused.
        (status, var refused) = await server.Send(HttpMethod.Put, path + "/stacks", new JsonObject { ["stacks"] = stacks.Copy() });
        Assert.Equal(409, status);
        Assert.Equal("changed-elsewhere", refused.Text("code"));
    }

    [Fact]
    public async Task Stacks_are_put_back_all_or_none()
    {
        var path = await SetPath();
        await using var db = server.Db();
        var treatments = await db.Treatments.Where(t => t.Name == "Jetty rope" || t.Name == "Reed bed").ToListAsync(Stop);
        var stacks = treatments.Select((t, i) => new { treatmentId = t.Id, version = t.Version + (uint)i, layers = Array.Empty<object>() }).ToList();
        var (status, _) = await server.Send(HttpMethod.Put, path + "/stacks", new { stacks });
        Assert.Equal(409, status);
        var ids = treatments.Select(t => t.Id).ToList();
        Assert.All(await db.Treatments.AsNoTracking().Where(t => ids.Contains(t.Id)).ToListAsync(Stop), t => Assert.Equal(1, t.Revision));
        (status, var problem) = await server.Send(HttpMethod.Put, path + "/stacks", new { stacks = new[] { new { treatmentId = Guid.NewGuid(), version = (uint?)null, layers = Array.Empty<object>() } } });
        Assert.Equal(400, status);
        Assert.Equal(["stacks[0].treatmentId", "stacks[0].version"], problem.Fields());
    }

    [Fact]
    public async Task A_remark_lived_with_is_quiet_until_its_facts_change()
    {
        var zone = $"/api/plan/zones/{await server.ZoneId("Pump house", "Cut edges")}";
        var sheet = await server.Get(zone);
        JsonNode Finding(JsonNode reading) => reading["findings"]!.AsArray().Single(f => f!.Text("rule") == "wash-on-flat")!;
        var finding = Finding(sheet["reading"]!);
        object Entry(string? reason, string? facts = null) => new { rule = "wash-on-flat", layerId = finding["layers"]![0]!.GetValue<Guid>(), facts = facts ?? finding.Text("facts"), reason };

        var (status, problem) = await server.Send(HttpMethod.Post, zone + "/accepted", Entry("  "));
        Assert.Equal((400, "reason"), (status, problem.Fields().Single()));
        (status, problem) = await server.Send(HttpMethod.Post, zone + "/accepted", Entry("it is meant", new string('0', 32)));
        Assert.Equal((409, "facts-changed"), (status, problem.Text("code")));
        var open = (await server.Get(await SetPath() + "/remarks"))["cautions"]!.GetValue<int>();
        (status, var accepted) = await server.Send(HttpMethod.Post, zone + "/accepted", Entry("the club likes it flat"), Guid.NewGuid());
        Assert.Equal(200, status);
        Assert.Equal(accepted.Text("id"), (await server.Send(HttpMethod.Post, zone + "/accepted", Entry("again"))).Body.Text("id"));
        Assert.Equal("the club likes it flat", Finding((await server.Get(zone))["reading"]!)["accepted"]!.Text("reason"));
        var remarks = await server.Get(await SetPath() + "/remarks");
        Assert.Equal((open - 1, 1), (remarks["cautions"]!.GetValue<int>(), remarks["accepted"]!.GetValue<int>()));

        // A layer put in elsewhere changes nothing; another coat on the layer itself does.
        JsonArray Edited(Action<List<JsonNode>> edit)
        {
            var layers = sheet["layers"]!.AsArray().Select(l => l!.Copy()).ToList();
            edit(layers);
            return new JsonArray([.. layers]);
        }

        async Task<JsonNode> Read(JsonArray layers) => (await server.Send(HttpMethod.Post, zone + "/reading", new JsonObject { ["layers"] = layers })).Body;
        var wash = finding["layers"]![0]!.GetValue<Guid>();
        var inspect = sheet["layers"]![0]!.Copy();
        (inspect["id"], inspect["technique"], inspect["paint"], inspect["dilution"]) = (Guid.NewGuid(), "inspect", new JsonArray(), null);
        Assert.NotNull(Finding(await Read(Edited(l => l.Insert(0, inspect.Copy()))))["accepted"]);
        Assert.Null(Finding(await Read(Edited(l => l.Single(x => x["id"]!.GetValue<Guid>() == wash)["strength"] = 1.5)))["accepted"]);

        (status, _) = await server.Send(HttpMethod.Post, $"/api/plan/accepted/{accepted.Text("id")}/take-back", null);
        Assert.Equal(200, status);

        // What was only just looked at is no reason to answer as it stood before.
        Assert.Null(Finding(await Read(Edited(_ => { })))["accepted"]);
        Assert.Null(Finding((await server.Get(zone))["reading"]!)["accepted"]);
        await using var db = server.Db();
        Assert.NotNull((await db.AcceptedFindings.SingleAsync(Stop)).TakenBackAt);
    }

    [Fact]
    public async Task An_edit_says_beforehand_what_it_does()
    {
        var zone = $"/api/plan/zones/{await server.ZoneId("Lock-wall straight", "Back face")}";
        var layers = (await server.Get(zone))["layers"]!.AsArray();
        var after = new JsonArray(layers.Where(l => l!.Text("technique") != "all-over wash").Select(l => l!.Copy()).ToArray());
        var (status, change) = await server.Send(HttpMethod.Post, zone + "/change", new JsonObject { ["layers"] = layers.Copy(), ["after"] = after });
        Assert.Equal(200, status);
        Assert.True(change["minutes"]!.GetValue<double>() < -10);
        Assert.Contains(change["amounts"]!.AsArray(), a => a!.Text("name") == "Peat Wash" && a!["ml"]!.GetValue<double>() < -10);
        Assert.Contains(change["gone"]!.AsArray(), g => g!.Text("rule") == "wash-on-flat");
        Assert.True(change["difference"]!["field"]!.GetValue<double>() > 3);
    }

    [Fact]
    public async Task House_rules_say_what_they_do_before_they_are_stored_and_never_overwrite()
    {
        var path = $"/api/workshops/{await server.WorkshopId()}/house-rules";
        var house = await server.Get(path);
        Assert.Equal(10, house["questions"]!.AsArray().Count);
        var answers = new Dictionary<string, string> { ["pigments"] = "leave loose" };
        var (_, effects) = await server.Send(HttpMethod.Post, path + "/preview", new { answers });
        var gone = effects[0]!["gone"]!.AsArray();
        Assert.NotEmpty(gone);
        Assert.All(gone, g => Assert.Equal("pigment-sealed", g!.Text("rule")));
        Assert.Empty(effects[0]!["come"]!.AsArray());
        var before = (await server.Get(await SetPath() + "/remarks"))["hints"]!.GetValue<int>();

        var version = house["version"]!.GetValue<uint>();
        var (status, stored) = await server.Send(HttpMethod.Put, path, new { version, answers }, Guid.NewGuid());
        Assert.Equal(200, status);
        Assert.Equal(before - gone.Count, (await server.Get(await SetPath() + "/remarks"))["hints"]!.GetValue<int>());
        (status, var conflict) = await server.Send(HttpMethod.Put, path, new { version, answers = new Dictionary<string, string> { ["pigments"] = "fix when handled" } });
        Assert.Equal(409, status);
        Assert.NotNull(conflict["current"]);
        (status, var problem) = await server.Send(HttpMethod.Put, path, new { version, answers = new Dictionary<string, string> { ["pigments"] = "eat them", ["tea"] = "milk" } });
        Assert.Equal(400, status);
        Assert.Equal(["answers.pigments", "answers.tea"], problem.Fields());
        await server.Send(HttpMethod.Put, path, new { version = stored["version"]!.GetValue<uint>(), answers = new Dictionary<string, string> { ["pigments"] = "fix when handled" } });
    }

    [Fact]
    public async Task The_care_sheet_gathers_what_can_hurt()
    {
        var care = await server.Get(await SetPath() + "/care");
        Assert.Contains(care["groups"]!.AsArray(), g => g!.Text("hazard") == "instant glue");
        Assert.Contains(care["labels"]!.AsArray(), l => l!.Text("material") == "Slate Undercoat");
        var overview = await server.Get(await SetPath());
        var jetty = overview["designs"]!.AsArray().Single(d => d!.Text("name") == "Jetty section")!.Text("id");
        var one = await server.Get($"{await SetPath()}/care?designId={jetty}");
        Assert.DoesNotContain(one["groups"]!.AsArray(), g => g!.Text("hazard") == "instant glue");
    }

    /// <summary>Under both answers of every school the demo ends without a stop, and with nothing left that a remedy would mend.</summary>
    [Fact]
    public async Task The_demo_is_free_of_stops_once_every_remedy_is_applied()
    {
        await using var db = server.Db();
        var graph = (await server.Graphs().OfSet(db, await server.SetId(), Stop))!;
        foreach (var question in Schools.All)
        {
            foreach (var answer in question.Answers)
            {
                var rules = Schools.With(new HouseRules(), question.School, answer.Word)!;
                foreach (var place in graph.Places)
                {
                    var context = graph.Context(place.Zone, place.Design, rules);
                    var layers = place.Layers;
                    for (var round = 0; round < 60; round++)
                    {
                        // The first remedy of the worst remark, as somebody would who presses the same key again and again.
                        if (OrderCheck.Run(context, layers).FirstOrDefault(f => f.Severity != Severity.Hint && f.Remedies.Count > 0) is not { } finding)
                            break;
                        layers = StackEdit.Apply(layers, finding.Remedies[0].Edits).Select(l => l.Id == Guid.Empty ? l with { Id = Guid.NewGuid() } : l).ToList();
                    }

                    var left = OrderCheck.Run(context, layers);
                    Assert.DoesNotContain(left, f => f.Severity == Severity.Stop);
                    Assert.True(left.All(f => f.Severity == Severity.Hint || f.Remedies.Count == 0), $"{answer.Text}, {place.Name}: {left.FirstOrDefault()?.Why}");
                }
            }
        }
    }
}
