using System.Reflection;
using System.Text.Json;
using System.Text.Json.Nodes;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Server.Stacks;
using Lowfell.Store;
using Lowfell.Store.Files;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Tests;

/// <summary>What goes one way comes back the other: field by field, by the lists of fields themselves, so that a new one cannot be forgotten.</summary>
public sealed class RoundTripTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private static readonly JsonSerializerOptions web = JsonSerializerOptions.Web;

    /// <summary>Of a row that is copied: what its copy has of its own, and why.</summary>
    private static readonly Dictionary<string, string> own = new()
    {
        ["Id"] = "it is another",
        ["Version"] = "the store counts it",
        ["PutAwayAt"] = "what was put away is not copied",
        ["SetId"] = "where it was copied to",
        ["DesignId"] = "where it was copied to",
        ["ParentId"] = "the copy of the piece it belongs to",
        ["Rank"] = "it stands behind what it was copied from",
        ["Treatment"] = "a row of its own",
        ["Zones"] = "rows of their own",
        ["Pieces"] = "rows of their own",
        ["Designs"] = "rows of their own",
    };

    private static List<PropertyInfo> Fields<T>(params string[] besides) => typeof(T).GetProperties().Where(p => !own.ContainsKey(p.Name) && !besides.Contains(p.Name)).ToList();

    private static void Alike<T>(IReadOnlyList<T> was, IReadOnlyList<T> now, T bare, params string[] besides)
    {
        var fields = Fields<T>(besides);
        Assert.NotEmpty(was);
        Assert.Equal(was.Count, now.Count);
        for (var i = 0; i < was.Count; i++)
            Assert.All(fields, f => Assert.Equal((f.Name, f.GetValue(was[i])), (f.Name, f.GetValue(now[i]))));

        // Every field was something else than what it is by itself.
        Assert.All(fields, f => Assert.True(was.Any(row => !Equals(f.GetValue(row), f.GetValue(bare))), f.Name));
    }

    [Fact]
    public async Task Every_field_of_a_set_and_of_all_in_it_is_in_its_copy()
    {
        await using var db = server.Db();
        var of = await server.SetId();
        var set = await db.Sets.SingleAsync(s => s.Id == of, Stop);
        (set.Scale, set.TableMetres, set.Handling, set.TargetSheen, set.DueDate, set.ReserveMl) = (56, 1.4m, Handling.HardPlay, Sheen.Gloss, new DateOnly(2027, 2, 3), 1.75m);
        foreach (var design in await db.Designs.Where(d => d.SetId == of).OrderBy(d => d.Position).Include(d => d.Zones).Include(d => d.Pieces).AsSplitQuery().ToListAsync(Stop))
        {
            var i = 0;
            foreach (var zone in design.Zones.OrderBy(z => z.Id))
            {
                i++;
                (zone.UpShare, zone.SideShare, zone.DownShare, zone.RaisedShare, zone.FieldShare, zone.RecessShare) = (0.2m, 0.5m, 0.3m, 0.15m, 0.6m, 0.25m);
                (zone.EdgeMm, zone.JointMm, zone.SmallestDetailMm, zone.FaceWidthMm, zone.AreaCm2) = (100 + i, 200 + i, 0.5m + i, 300 + i, 40.5m + i);
                (zone.Handling, zone.TargetSheen, zone.TargetColour, zone.TargetPosition) = (Handling.Display, Sheen.Gloss, $"#1020{i % 90 + 10}", Position.Recess);
                (zone.CutEdge, zone.BeforeAssembly, zone.Surface, zone.SurfaceLengthMm, zone.SurfaceHeightMm, zone.RivetMm, zone.Across) = (true, true, SurfaceKind.Panels, 11 + i, 7 + i, 2.5m, true);
            }

            var first = design.Pieces.OrderBy(p => p.Number).First();
            foreach (var piece in design.Pieces.Where(p => p != first))
                (piece.RimNumber, piece.Spare, piece.ParentId) = ($"R{piece.Number}", true, first.Id);
        }

        await db.SaveChangesAsync(Stop);
        var (status, copy) = await server.Send(HttpMethod.Post, $"/api/sets/{of}/copies", new { });
        Assert.True(status is 200 or 201, copy.ToJsonString());
        var to = copy["id"]!.GetValue<Guid>();
        await using var after = server.Db();
        Task<List<SetRow>> Sets(Guid id) => after.Sets.AsNoTracking().Where(s => s.Id == id).ToListAsync(Stop);
        Task<List<DesignRow>> Designs(Guid id) => after.Designs.AsNoTracking().Where(d => d.SetId == id && d.PutAwayAt == null).OrderBy(d => d.Position).ThenBy(d => d.Name).Include(d => d.Zones.Where(z => z.PutAwayAt == null)).Include(d => d.Pieces.Where(p => p.PutAwayAt == null)).AsSplitQuery().ToListAsync(Stop);
        Alike(await Sets(of), await Sets(to), new SetRow { Name = "" }, "Name", "WorkshopId");
        var (was, now) = (await Designs(of), await Designs(to));
        Alike(was, now, new DesignRow { Name = "" });
        static List<ZoneRow> Zones(List<DesignRow> of) => of.SelectMany(d => d.Zones.OrderBy(z => z.Name)).ToList();
        static List<PieceRow> Pieces(List<DesignRow> of) => of.SelectMany(d => d.Pieces.OrderBy(p => p.Label)).ToList();
        Alike(Zones(was), Zones(now), new ZoneRow { Name = "" });
        Alike(Pieces(was), Pieces(now), new PieceRow { Label = "" });
        static List<string> Parents(List<DesignRow> of) => of.SelectMany(d => d.Pieces.Select(p => $"{d.Name} {p.Label} {d.Pieces.Find(q => q.Id == p.ParentId)?.Label}")).Order().ToList();
        Assert.Equal(Parents(was), Parents(now));

        // What touches what, by names.
        async Task<List<string>> Touches(List<DesignRow> of)
        {
            var names = of.SelectMany(d => d.Zones.Select(z => (z.Id, Name: $"{d.Name} {z.Name}"))).ToDictionary(z => z.Id, z => z.Name);
            var ids = names.Keys.ToList();
            return (await after.ZoneTouches.Where(t => ids.Contains(t.FirstZoneId) && ids.Contains(t.SecondZoneId)).ToListAsync(Stop)).Select(t => string.Join(" + ", new[] { names[t.FirstZoneId], names[t.SecondZoneId] }.Order())).Order().ToList();
        }

        var touches = await Touches(was);
        Assert.NotEmpty(touches);
        Assert.Equal(touches, await Touches(now));
    }

    private static string Key(PropertyInfo field) => JsonNamingPolicy.CamelCase.ConvertName(field.Name);

    private static void Alike(JsonNode was, JsonNode now, params string[] besides) => Assert.All(typeof(LayerDto).GetProperties().Select(Key).Except(besides),
        name => Assert.True(JsonNode.DeepEquals(was[name]?.Copy(), now[name]?.Copy()), $"{name}: {was[name]?.ToJsonString()} became {now[name]?.ToJsonString()}"));

    [Fact]
    public async Task Every_field_of_a_layer_is_stored_and_comes_back_with_undo_versions_copies_and_parting()
    {
        var zone = await server.ZoneId("Jetty section", "Timber");
        var path = $"/api/plan/zones/{zone}";
        var sheet = await server.Get(path);
        var shelf = (await server.Get($"/api/shelf/{await server.WorkshopId()}/materials")).AsArray();
        List<Guid> Of(string kind) => shelf.Where(m => m!.Text("kind") == kind).Take(2).Select(m => m!["id"]!.GetValue<Guid>()).ToList();
        var (paints, thinner) = (Of("paint"), Of("thinner")[0]);
        var below = sheet["layers"]!.AsArray()[0]!.Copy();
        var plain = JsonNode.Parse($$"""{ "id": "{{Guid.NewGuid()}}", "technique": "prime", "paint": [], "coats": 1, "region": "all", "strength": 1, "tool": "brush", "drying": "air", "optional": false, "note": "" }""")!;
        var full = JsonSerializer.SerializeToNode(new
        {
            id = Guid.NewGuid(),
            technique = "painted chip",
            paint = new[] { new { materialId = paints[0], parts = 3m }, new { materialId = paints[1], parts = 2m } },
            dilution = new { thinnerId = thinner, paint = 2m, thinner = 3m },
            coats = 4,
            region = "edges",
            strength = 0.75m,
            tool = "sponge",
            drying = "hot air",
            waitMinutes = 95,
            optional = true,
            note = "from the left",
            markMm = 1.25m,
            varied = new { seed = 77, habit = "at edges", meanMm = 2.5m, marks = 1.5m, spread = 0.25m, dealt = true },
            downTo = below["id"]!.GetValue<Guid>(),
            details = 3.25m,
            fades = true,
            preparation = "shaken",
        }, web)!;
        async Task<JsonNode> Put(params JsonNode[] layers)
        {
            var at = await server.Get(path);
            var (status, body) = await server.Send(HttpMethod.Put, path + "/stack", new JsonObject { ["version"] = at["version"]!.Copy(), ["layers"] = new JsonArray(layers.Select(l => l.Copy()).ToArray()) });
            Assert.True(status == 200, body.ToJsonString());
            return await server.Get(path);
        }

        JsonNode Full(JsonNode layers) => layers.AsArray().Single(l => l!.Text("technique") == "painted chip")!;
        var stored = await Put(below, plain, full);
        Alike(full, Full(stored["layers"]!));
        var bare = stored["layers"]!.AsArray().Single(l => l!["id"]!.GetValue<Guid>() == plain["id"]!.GetValue<Guid>())!;
        Assert.All(typeof(LayerDto).GetProperties().Select(Key), name => Assert.False(JsonNode.DeepEquals(full[name]?.Copy(), bare[name]?.Copy()), $"{name} is what it is by itself."));

        // Whatever a row of it can hold has been said.
        await using (var db = server.Db())
        {
            var line = full["id"]!.GetValue<Guid>();
            var row = await db.Layers.AsNoTracking().Include(l => l.Over).SingleAsync(l => l.StepId == line, Stop);
            string[] other = [nameof(LayerRow.MaterialId), nameof(LayerRow.Mix)];
            Assert.All(typeof(LayerRow).GetProperties().Where(p => !other.Contains(p.Name)), f => Assert.NotEqual(f.GetValue(new LayerRow()), f.GetValue(row)));
        }

        // Cleared, and back again: by undo, and as an old version. A version that has a name is not lost among those of the same hour.
        var treatment = stored["treatmentId"]!.GetValue<Guid>();
        var number = (await server.Get($"/api/treatments/{treatment}/versions"))[0]!["number"]!.GetValue<int>();
        Assert.Equal(200, (await server.Send(HttpMethod.Put, $"/api/treatments/{treatment}/versions/{number}/name", new { name = "All of it" })).Status);
        var painter = new Painter(server, 0, "round");
        await painter.Begin();
        var (cleared, _) = await painter.Send(HttpMethod.Put, path + "/stack", new { version = (await server.Get(path))["version"], layers = Array.Empty<object>() });
        Assert.Equal(200, cleared);
        Assert.Empty((await server.Get(path))["layers"]!.AsArray());
        Assert.Equal(200, (await painter.Undo()).Status);
        Alike(full, Full((await server.Get(path))["layers"]!));
        var empty = await Put();
        var versions = (await server.Get($"/api/treatments/{treatment}/versions")).AsArray();
        var old = versions.Single(v => v!["number"]!.GetValue<int>() == number)!;
        Alike(full, Full(old["layers"]!));
        Assert.Equal(200, (await server.Send(HttpMethod.Post, $"/api/treatments/{treatment}/versions/{old["number"]}/bring-back", new { version = empty["version"] })).Status);
        Alike(full, Full((await server.Get(path))["layers"]!));

        // A copy of the treatment has layers of its own, and says the same of each.
        await painter.Do(HttpMethod.Post, $"/api/treatments/{treatment}/copies", new { });
        await using var after = server.Db();
        var copy = await after.Treatments.Where(t => t.CameFromId == treatment).OrderByDescending(t => t.Id).Select(t => t.Id).FirstAsync(Stop);
        var twins = (await server.Get($"/api/treatments/{copy}/versions")).AsArray()[0]!["layers"]!.AsArray();
        Alike(full, Full(twins), "id", "downTo");
        Assert.Equal(twins[0]!["id"]!.GetValue<Guid>(), Full(twins)["downTo"]!.GetValue<Guid>());

        // Parted, the zone has all of it still.
        await painter.Do(HttpMethod.Post, $"/api/zones/{zone}/part", new { });
        Alike(full, Full((await server.Get(path))["layers"]!));
    }

    /// <summary>Tables of which nothing is in the file of a set, and why.</summary>
    private static readonly Dictionary<string, string> notInFile = new()
    {
        ["workshops"] = "a set comes into another one",
        ["stock_moves"] = "what stands on another shelf is another's",
        ["pot_contents"] = "reckoned from what was filled in",
        ["done_layers"] = "reckoned from what was done",
        ["piece_layers"] = "reckoned from what was done",
        ["taken_times"] = "reckoned from what was done",
        ["bench_devices"] = "devices are of the workshop",
        ["bench_refusals"] = "what did not fit is decided where it was told",
        ["write_receipts"] = "each write is answered once",
        ["spent_writes"] = "each write is answered once",
        ["slice_versions"] = "what windows are told of",
        ["recipes"] = "mixes kept by name are of the workshop",
        ["recipe_parts"] = "mixes kept by name are of the workshop",
        ["timetables"] = "evenings are of the workshop",
        ["calendar_addresses"] = "who may look is of the workshop",
        ["journal_steps"] = "what can be undone is of the workshop",
        ["jobs"] = "what is being worked out just now",
        ["blobs"] = "pictures are files of their own in it",
        ["authorities"] = "who may come in is nobody else's business",
        ["doors"] = "who may come in is nobody else's business",
        ["pairing_keys"] = "who may come in is nobody else's business",
        ["paired_devices"] = "who may come in is nobody else's business",
        ["readings"] = "instruments are of the workshop",
    };

    /// <summary>Columns of tables that are in it which are not, and why.</summary>
    private static readonly Dictionary<string, string> columnsNotInFile = new()
    {
        ["materials.stock_ml"] = "what stands on another shelf is another's",
        ["materials.put_away_at"] = "a set needs them",
        ["calibrations.trial_id"] = "they are of the paint and stay when the trial goes",
        ["mixes.recipe_key"] = "made from its parts",
        ["accepted_findings.facts"] = "found again where it is taken in",
        ["work_events.sequence"] = "the order of its lines",
        ["work_events.device_number"] = "counted by the device it was told on",
        ["photos.blob_id"] = "the picture is a file of its own in it",
        ["photos.small_id"] = "made from the picture",
        ["photos.freed_at"] = "only pictures that are there are in it",
    };

    [Fact]
    public void Every_table_and_column_is_in_the_file_of_a_set_or_left_out_for_a_reason()
    {
        using var db = server.Db();
        var inFile = SetTable.All(db).ToDictionary(t => t.Stored);
        var all = db.Model.GetEntityTypes().ToDictionary(e => e.GetTableName()!);
        Assert.Equal(all.Keys.Except(inFile.Keys).Order(StringComparer.Ordinal), notInFile.Keys.Order(StringComparer.Ordinal));
        var missing = all.Where(e => inFile.ContainsKey(e.Key)).SelectMany(e => e.Value.GetProperties().Where(p => !p.IsConcurrencyToken).Select(p => p.GetColumnName()).Except(["id", "workshop_id"])
            .Except(inFile[e.Key].Columns.Select(c => c.Name)).Select(c => $"{e.Key}.{c}"));
        Assert.Equal(missing.Order(StringComparer.Ordinal), columnsNotInFile.Keys.Order(StringComparer.Ordinal));
    }
}
