using System.Text.Json.Nodes;
using Lowfell.Store;

namespace Lowfell.Server.Tests;

/// <summary>A set that was read once is kept and brought up to date in parts; nobody may ever be able to tell.</summary>
public sealed class GraphTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private async Task<SetGraph> Read(SetGraphs graphs)
    {
        await using var db = server.Db();
        return (await graphs.OfSet(db, await server.SetId(), Stop))!;
    }

    private async Task Store(string design, string zone, Action<JsonNode> change)
    {
        var path = $"/api/plan/zones/{await server.ZoneId(design, zone)}";
        var sheet = await server.Get(path);
        var layers = sheet["layers"]!.DeepClone().AsArray();
        change(layers);
        var (status, _) = await server.Send(HttpMethod.Put, $"{path}/stack", new JsonObject { ["version"] = sheet["version"]!.DeepClone(), ["layers"] = layers });
        Assert.Equal(200, status);
    }

    private static void OneMoreCoat(JsonNode layers) => layers[1]!["coats"] = layers[1]!["coats"]!.GetValue<int>() % 5 + 1;

    [Fact]
    public async Task What_a_change_left_alone_is_taken_over_as_it_is()
    {
        var graphs = server.Graphs();
        var before = await Read(graphs);
        Assert.Same(before, await Read(graphs));
        var layers = before.Places.ToDictionary(p => p.Zone.Id, p => p.Layers);
        var walls = before.Find(await server.ZoneId("Pump house", "Walls"))!.Zone;
        await Store("Pump house", "Walls", OneMoreCoat);
        var after = await Read(graphs);
        Assert.NotSame(before, after);
        foreach (var place in after.Places)
            Assert.Equal(place.Zone.SurfaceId != walls.SurfaceId, layers[place.Zone.Id] == place.Layers);
        foreach (var id in before.Treatments.Keys)
            Assert.Equal(id != walls.TreatmentId, before.Treatments[id].Layers.SequenceEqual(after.Treatments[id].Layers));
        Assert.Equal(before.Layers(walls)[1].Coats % 5 + 1, after.Layers(walls)[1].Coats);
        Assert.Same(before.Materials[before.Layers(walls)[1].Main!.Id], after.Materials[after.Layers(walls)[1].Main!.Id]);
    }

    [Fact]
    public async Task After_writes_of_every_kind_it_reads_like_one_that_was_never_kept()
    {
        var (set, workshop) = (await server.SetId(), await server.WorkshopId());
        var views = new List<string> { $"/api/plan/sets/{set}", $"/api/plan/sets/{set}/remarks", $"/api/stock/{workshop}/shopping", $"/api/pots/{set}", $"/api/shelf/{workshop}/materials" };
        foreach (var (design, zone) in new[] { ("Pump house", "Walls"), ("Reed dredger", "Hull"), ("Jetty section", "Timber") })
            views.Add($"/api/plan/zones/{await server.ZoneId(design, zone)}");
        var peat = (await server.Get($"/api/shelf/{workshop}/materials")).AsArray().First(m => m!.Text("name") == "Peat Seven")!;

        async Task Enter(Action<JsonNode> change)
        {
            var now = (await server.Get($"/api/shelf/{workshop}/materials")).AsArray().First(m => m!["id"]!.ToString() == peat["id"]!.ToString())!.Copy().AsObject();
            change(now);
            var body = new JsonObject(now.Where(p => Entered.Contains(p.Key)).Select(p => KeyValuePair.Create(p.Key, p.Value?.DeepClone())));
            var (status, answer) = await server.Send(HttpMethod.Put, $"/api/shelf/materials/{peat["id"]}", body);
            Assert.True(status == 200, answer.ToJsonString());
        }

        var many = "name,kind,colour,stock_ml\n" + string.Concat(Enumerable.Range(0, 1300).Select(n => FormattableString.Invariant($"Reed Tone {(n * 7919) % 1300},paint,#{(n * 12_345) % 0xffffff:x6},{n % 9}\n")));
        var writes = new (string What, Func<Task> Do)[]
        {
            ("a layer", () => Store("Pump house", "Walls", OneMoreCoat)),
            ("a stack that other zones share", () => Store("Lock-wall straight", "Coping", l => l.AsArray().RemoveAt(l.AsArray().Count - 1))),
            ("what is in stock", async () => await server.Send(HttpMethod.Post, $"/api/stock/{workshop}/moves", new { moves = new[] { new { id = Guid.NewGuid(), materialId = peat["id"]!.GetValue<Guid>(), kind = "bought", ml = 17, reason = "" } } })),
            ("a material's colour", () => Enter(m => m["colour"] = "#41362d")),
            ("a material's name", () => Enter(m => m["name"] = "Peat Eight")),
            ("a house rule", HouseRule),
            ("a file of 1,300 materials", async () => Assert.Equal(200, (await server.Send(HttpMethod.Post, $"/api/shelf/{workshop}/csv", new { text = many, store = true })).Status)),
            ("a layer after that", () => Store("Reed dredger", "Hull", OneMoreCoat)),
        };
        foreach (var view in views)
            await server.Get(view);
        foreach (var (what, write) in writes)
        {
            await write();
            var (factory, fresh) = server.Start();
            await using (factory)
            using (fresh)
                foreach (var view in views)
                    Assert.True(await Answer(fresh, view) == await Answer(server.Http, view), $"{view} after {what}");
        }

        async Task HouseRule()
        {
            var rules = await server.Get($"/api/workshops/{workshop}/house-rules");
            var question = rules["questions"]!.AsArray().First(q => q!["answers"]!.AsArray().Count > 1)!;
            var other = question["answers"]!.AsArray().First(a => a!.Text("word") != question.Text("answer"))!.Text("word");
            var body = new JsonObject { ["version"] = rules["version"]!.Copy(), ["answers"] = new JsonObject { [question.Text("school")] = other } };
            var (status, answer) = await server.Send(HttpMethod.Put, $"/api/workshops/{workshop}/house-rules", body);
            Assert.True(status == 200, answer.ToJsonString());
        }
    }

    private static readonly HashSet<string> Entered =
    [
        "version", "name", "maker", "code", "kind", "carrier", "colour", "overBlack", "overWhite", "coatsToHide", "sheen", "solidsFraction", "thinners", "touchMinutes", "recoatMinutes",
        "cureMinutes", "heatSafe", "stockMl", "packMl", "price", "hazards", "notes", "lustre", "mostThinnerShare", "dropMl", "densityGPerMl",
    ];

    private static async Task<string> Answer(HttpClient http, string view) => await http.GetStringAsync(view, Stop);

    [Fact]
    public async Task An_answer_that_failed_is_worked_out_again_when_it_is_asked_for_again()
    {
        await using var db = server.Db();
        var graph = (await server.Graphs().OfSet(db, await server.SetId(), TestContext.Current.CancellationToken))!;
        await Assert.ThrowsAsync<IOException>(() => graph.OfAll<string>("any", () => throw new IOException("for once")));
        Assert.Equal("answered", await graph.OfAll("any", () => "answered"));
        Assert.Equal("answered", await graph.OfAll("any", () => "worked out again"));
    }
}
