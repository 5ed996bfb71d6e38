using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Tests;

/// <summary>Somebody who changes their mind about everything, by chance; and what a workshop comes to, to be compared.</summary>
internal sealed class Painter(LowfellServer server, int seed, string device = "bench")
{
    private readonly Random random = new(seed);

    public Guid Workshop { get; private set; }

    public async Task Begin() => Workshop = await server.WorkshopId();

    public async Task<(int Status, JsonNode Body)> Send(HttpMethod method, string path, object? body, Guid? step = null)
    {
        using var request = new HttpRequestMessage(method, path) { Content = JsonContent.Create(body ?? new { }) };
        request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
        request.Headers.Add("Lowfell-Device", device);
        if (step is { } of)
            request.Headers.Add("Lowfell-Step", of.ToString());
        using var answer = await server.Http.SendAsync(request, TestContext.Current.CancellationToken);
        var text = await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken);
        return ((int)answer.StatusCode, text.Length == 0 ? new JsonObject() : JsonNode.Parse(text)!);
    }

    /// <summary>Does what must succeed.</summary>
    public async Task<JsonNode> Do(HttpMethod method, string path, object? body, Guid? step = null)
    {
        var (status, answer) = await Send(method, path, body, step);
        Assert.True(status is >= 200 and < 300, $"{method} {path} {System.Text.Json.JsonSerializer.Serialize(body)}: {status} {answer.ToJsonString()}");
        return answer;
    }

    public Task<(int Status, JsonNode Body)> Undo(Guid? step = null) => Send(HttpMethod.Post, $"/api/workshops/{Workshop}/undo", new { step });

    public Task<(int Status, JsonNode Body)> Redo(Guid? step = null) => Send(HttpMethod.Post, $"/api/workshops/{Workshop}/redo", new { step });

    public async Task<JsonNode> Steps()
    {
        using var request = new HttpRequestMessage(HttpMethod.Get, $"/api/workshops/{Workshop}/steps");
        request.Headers.Add("Lowfell-Device", device);
        using var answer = await server.Http.SendAsync(request, TestContext.Current.CancellationToken);
        return JsonNode.Parse(await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken))!;
    }

    public Task<JsonNode> Sheet(Guid set) => server.Get($"/api/sets/{set}");

    private static JsonNode Json(object of) => System.Text.Json.JsonSerializer.SerializeToNode(of, System.Text.Json.JsonSerializerOptions.Web)!;

    private JsonNode Any(IEnumerable<JsonNode?> of) => of.ElementAt(random.Next(of.Count()))!;

    private static Guid Id(JsonNode node) => node["id"]!.GetValue<Guid>();

    private static uint Version(JsonNode node) => node["version"]!.GetValue<uint>();

    private static bool Here(JsonNode? node) => node!["putAwayAt"] is null;

    private string Name(string stem) => $"{stem} {random.Next(1_000_000)}";

    /// <summary>One change of any kind; the status it was answered with.</summary>
    public async Task<int> Change()
    {
        await using var db = server.Db();
        var cards = (await db.Sets.Select(s => new { s.Id }).OrderBy(s => s.Id).ToListAsync()).Select(s => JsonNode.Parse($$"""{ "id": "{{s.Id}}" }""")).ToList();
        var card = Any(cards);
        var of = Id(card);
        var set = Json(await db.Sets.Where(s => s.Id == of).Select(s => new { s.Id, s.Version, s.PutAwayAt }).SingleAsync());
        var designs = Json(await db.Designs.Where(d => d.SetId == of).OrderBy(d => d.Id).Select(d => new
        {
            d.Id,
            d.Version,
            d.PutAwayAt,
            Zones = d.Zones.OrderBy(z => z.Id).Select(z => new { z.Id, z.Version, z.PutAwayAt, z.TreatmentId, z.SurfaceId }),
            Pieces = d.Pieces.OrderBy(p => p.Id).Select(p => new { p.Id, p.Version, p.PutAwayAt }),
        }).AsSplitQuery().ToListAsync()).AsArray();
        var design = designs.Count > 0 ? Any(designs) : null;
        var zone = design is not null && design["zones"]!.AsArray().Count > 0 ? Any(design["zones"]!.AsArray()) : null;
        var piece = design is not null && design["pieces"]!.AsArray().Count > 0 ? Any(design["pieces"]!.AsArray()) : null;
        var treatment = Any((await db.Treatments.OrderBy(t => t.Id).Select(t => new { t.Id, t.Version, t.PutAwayAt }).ToListAsync()).Select(t => Json(t)));
        var (status, _) = random.Next(32) switch
        {
            0 => await Send(HttpMethod.Put, $"/api/sets/{Id(set)}", new { version = Version(set), name = Name("Set") }),
            1 => await Send(HttpMethod.Put, $"/api/sets/{Id(set)}", new { version = Version(set), scale = random.Next(20, 200), measuresFollow = random.Next(2) == 0, tableMetres = 0.5 + random.Next(10) / 10.0, handling = "display" }),
            2 => await Send(HttpMethod.Put, $"/api/sets/{Id(set)}", new { version = Version(set), rank = random.Next(4), dueDate = "2027-01-01", reserveMl = random.Next(9) }),
            3 when cards.Count < 6 => await Send(HttpMethod.Post, $"/api/sets/{Id(set)}/copies", new { }),
            4 => await Send(HttpMethod.Post, $"/api/sets/{Id(set)}/{(Here(set) ? "put-away" : "bring-back")}", null),
            5 when cards.Count > 1 => await Send(HttpMethod.Delete, $"/api/sets/{Id(set)}", null),
            6 when cards.Count > 1 => await Send(HttpMethod.Post, $"/api/sets/{Id(set)}/merges", new { fromSetId = Id(Any(cards)) }),
            7 when design is not null => await Send(HttpMethod.Put, $"/api/designs/{Id(design)}", new { version = Version(design), name = Name("Design"), position = random.Next(5), substrate = "resin" }),
            8 when design is not null => await Send(HttpMethod.Post, $"/api/designs/{Id(design)}/copies", new { setId = Id(Any(cards)) }),
            9 when design is not null => await Send(HttpMethod.Post, $"/api/designs/{Id(design)}/{(Here(design) ? "put-away" : "bring-back")}", null),
            10 when design is not null => await Send(HttpMethod.Delete, $"/api/designs/{Id(design)}", null),
            11 when design is not null => await Send(HttpMethod.Post, $"/api/designs/{Id(design)}/pieces", new { count = random.Next(1, 4), spare = random.Next(2) == 0 }),
            12 when piece is not null => await Send(HttpMethod.Put, $"/api/pieces/{Id(piece)}", new { version = Version(piece), label = Name("P"), rimNumber = $"{random.Next(99)}", parentId = Id(Any(design!["pieces"]!.AsArray())) }),
            13 when piece is not null => await Send(HttpMethod.Post, $"/api/pieces/{Id(piece)}/{(Here(piece) ? "put-away" : "bring-back")}", null),
            14 when piece is not null => await Send(HttpMethod.Delete, $"/api/pieces/{Id(piece)}", null),
            15 when design is not null => await Send(HttpMethod.Post, $"/api/designs/{Id(design)}/zones", new { name = Name("Zone"), areaCm2 = random.Next(1, 400), surface = "courses", relief = "deep", position = random.Next(3) }),
            16 when zone is not null => await Send(HttpMethod.Put, $"/api/zones/{Id(zone)}", new { version = Version(zone), name = Name("Zone"), areaCm2 = random.Next(1, 400), jointMm = random.Next(4000), surface = "panels", rivetMm = 2.5, handling = "hard play" }),
            17 when zone is not null => await Send(HttpMethod.Put, $"/api/zones/{Id(zone)}", new { version = Version(zone), touches = design!["zones"]!.AsArray().Where(z => Here(z) && Id(z!) != Id(zone) && random.Next(2) == 0).Select(z => Id(z!)).ToList(), clear = new[] { "handling" } }),
            18 when zone is not null => await Send(HttpMethod.Post, $"/api/zones/{Id(zone)}/copies", new { designId = Id(Any(designs)) }),
            19 when zone is not null => await Send(HttpMethod.Delete, $"/api/zones/{Id(zone)}", null),
            20 when zone is not null && Here(zone) && Here(design!) => await Stack(zone),
            21 when zone is not null && Here(zone) && Here(design!) => await Send(HttpMethod.Post, $"/api/zones/{Id(zone)}/part", new { }),
            22 when zone is not null && Here(zone) && Here(design!) => await Send(HttpMethod.Post, $"/api/zones/{Id(zone)}/link", new { version = Version(zone), treatmentId = Id(treatment) }),
            23 => await Send(HttpMethod.Put, $"/api/treatments/{Id(treatment)}", new { version = Version(treatment), name = Name("Treatment") }),
            24 => await Versions(treatment),
            25 => await Send(HttpMethod.Post, $"/api/treatments/{Id(treatment)}/{(random.Next(2) == 0 ? "copies" : Here(treatment) ? "put-away" : "bring-back")}", new { }),
            26 or 27 or 28 => await Over(treatment, db),
            29 when zone is not null => await Together(treatment, db),
            _ => await Workshops(),
        };
        Assert.True(status is (>= 200 and < 300) or 400 or 404 or 409, $"{status}");
        return status;
    }

    /// <summary>A layer more, one less, or another number of coats.</summary>
    private async Task<(int Status, JsonNode Body)> Stack(JsonNode zone)
    {
        await using var db = server.Db();
        var treatment = zone["treatmentId"]!.GetValue<Guid>();
        var version = await db.Treatments.Where(t => t.Id == treatment).Select(t => t.Version).SingleAsync();
        var layers = (await server.Get($"/api/treatments/{treatment}/versions?surfaceId={zone["surfaceId"]}")).AsArray().First(v => v!["current"]!.GetValue<bool>())!["layers"]!.Copy().AsArray();
        if (layers.Count == 0 || random.Next(3) == 0)
            layers.Add(JsonNode.Parse($$"""{ "id": "{{Guid.NewGuid()}}", "technique": "inspect", "paint": [], "coats": 1, "region": "all", "strength": 1, "tool": "fingers", "drying": "air", "optional": false, "note": "" }"""));
        else if (random.Next(2) == 0)
            layers.RemoveAt(random.Next(layers.Count));
        else
            layers[random.Next(layers.Count)]!["coats"] = random.Next(1, 6);
        return await Send(HttpMethod.Put, $"/api/plan/zones/{Id(zone)}/stack", new { version, layers });
    }

    /// <summary>A layer over other surfaces, in another place, or one more; or surfaces called otherwise.</summary>
    private async Task<(int Status, JsonNode Body)> Over(JsonNode treatment, Store.LowfellDb db)
    {
        var several = await db.Treatments.Where(t => db.Zones.Where(z => z.TreatmentId == t.Id).Select(z => z.SurfaceId).Distinct().Count() > 1).OrderBy(t => t.Id).Select(t => t.Id).ToListAsync();
        var id = several.Count > 0 ? several[random.Next(several.Count)] : Id(treatment);
        var order = await server.Get($"/api/treatments/{id}/order");
        var (steps, surfaces) = (order["steps"]!.AsArray(), order["surfaces"]!.AsArray());
        Guid? Step() => steps.Count == 0 || random.Next(5) == 0 ? null : Any(steps)["layer"]!["id"]!.GetValue<Guid>();
        var over = surfaces.Where(_ => random.Next(2) == 0).DefaultIfEmpty(Any(surfaces)).Select(s => Id(s!)).ToList();
        var version = Version(order);
        return random.Next(4) switch
        {
            0 => await Send(HttpMethod.Put, $"/api/treatments/{id}/surfaces", new { version, surfaces = surfaces.OrderBy(_ => random.Next()).Select(s => new { id = Id(s!), name = Name("Surface"), onId = (Guid?)null }).ToList() }),
            1 => await Send(HttpMethod.Post, $"/api/treatments/{id}/steps", new { version, over, aboveId = Step(), layer = new { id = Guid.NewGuid(), technique = "inspect", paint = Array.Empty<object>(), coats = 1, region = "all", strength = 1, tool = "fingers", drying = "air", optional = false, note = "" } }),
            2 when Step() is { } step => await Send(HttpMethod.Put, $"/api/treatments/{id}/steps/{step}/place", new { version, aboveId = Step() }),
            _ when Step() is { } step => await Send(HttpMethod.Put, $"/api/treatments/{id}/steps/{step}/over", new { version, over }),
            _ => await Workshops(),
        };
    }

    private async Task<(int Status, JsonNode Body)> Together(JsonNode treatment, Store.LowfellDb db)
    {
        var others = await db.Treatments.Where(t => t.Id != Id(treatment) && t.PutAwayAt == null).OrderBy(t => t.Id).Select(t => new { treatmentId = t.Id, version = t.Version }).ToListAsync();
        return others.Count == 0 || !Here(treatment) ? await Workshops()
            : await Send(HttpMethod.Post, $"/api/treatments/{Id(treatment)}/together", new { version = Version(treatment), with = others.OrderBy(_ => random.Next()).Take(random.Next(1, 3)).ToList() });
    }

    private async Task<(int Status, JsonNode Body)> Versions(JsonNode treatment)
    {
        var versions = (await server.Get($"/api/treatments/{Id(treatment)}/versions")).AsArray();
        var number = Any(versions)["number"]!.GetValue<int>();
        return random.Next(2) == 0
            ? await Send(HttpMethod.Put, $"/api/treatments/{Id(treatment)}/versions/{number}/name", new { name = Name("Version") })
            : await Send(HttpMethod.Post, $"/api/treatments/{Id(treatment)}/versions/{number}/bring-back", new { version = Version(treatment) });
    }

    private async Task<(int Status, JsonNode Body)> Workshops()
    {
        var row = (await server.Get("/api/workshops"))[0]!;
        return await Send(HttpMethod.Put, $"/api/workshops/{Workshop}", new { version = Version(row), temperatureC = random.Next(5, 30), painters = new[] { "AB", $"C{random.Next(9)}" }, tableMetres = 1.2 });
    }

    /// <summary>Tables that are not compared as they stand, and why.</summary>
    private static readonly Dictionary<string, string> apart = new()
    {
        ["treatments"] = "a version moves its number: compared by the layers it has",
        ["treatment_revisions"] = "history only grows",
        ["revision_layers"] = "history only grows",
        ["layers"] = "history only grows",
        ["layer_surfaces"] = "history only grows",
        ["surfaces"] = "history only grows",
        ["revision_surfaces"] = "history only grows",
        ["mixes"] = "a recipe that was once needed stays",
        ["mix_components"] = "a recipe that was once needed stays",
        ["journal_steps"] = "it is what was done and undone",
        ["write_receipts"] = "each write is answered once",
        ["spent_writes"] = "each write is answered once",
        ["slice_versions"] = "an undo is a change as well",
    };

    /// <summary>
    /// Everything that can be changed, as it stands, table by table of the model: rows in their order; of a treatment the surfaces and layers it has,
    /// whichever revision they are, and none that were only made and put away again.
    /// </summary>
    public async Task<string> Whole()
    {
        await using var db = server.Db();
        var all = db.Model.GetEntityTypes().Select(e => e.GetTableName()!).Distinct().ToList();
        Assert.Empty(apart.Keys.Except(all));
        var parts = all.Except(apart.Keys).Order(StringComparer.Ordinal).Select(table => $"(select '{table} ' || coalesce(jsonb_agg(to_jsonb(t) order by to_jsonb(t)::text)::text, '') from {table} t)").Append("""
            (select coalesce(jsonb_agg(jsonb_build_object('id', t.id, 'name', t.name, 'layers', (select jsonb_agg(l.layer_id order by l.position) from revision_layers l where l.treatment_id = t.id and l.revision = t.revision),
                'surfaces', (select jsonb_agg(jsonb_build_array(s.surface_id, s.name, s.on_id) order by s.position) from revision_surfaces s
                  join treatment_revisions r on (r.treatment_id, r.surfaces_of) = (s.treatment_id, s.revision) where r.treatment_id = t.id and r.number = t.revision)) order by t.id)::text, '')
            from treatments t where put_away_at is null)
            """);
#pragma warning disable EF1002 // Names of tables, as the model has them.
        return await db.Database.SqlQueryRaw<string>($"select {string.Join(" || E'\n' || ", parts)} as \"Value\"").SingleAsync();
#pragma warning restore EF1002
    }

    /// <summary>What is counted and measured is what the stream of work and the moves of stock come to; says what is not.</summary>
    public async Task<List<string>> Wrong()
    {
        await using var db = server.Db();
        return await db.Database.SqlQueryRaw<string>("""
            select 'done: ' || d.* as "Value" from (
              (select zone_id, line_id, piece_id, times from done_layers)
              except
              (select e.zone_id, e.line_id, p.piece_id, count(*)::int from work_events e join work_pieces p on p.event_id = e.id
               where e.kind in ('given', 'carried over') and not exists (select from work_events u where u.undoes_id = e.id)
                 and not exists (select from work_events x join work_pieces y on y.event_id = x.id where x.kind = 'wiped' and (x.zone_id, x.line_id, y.piece_id) = (e.zone_id, e.line_id, p.piece_id) and (x.at, x.sequence) > (e.at, e.sequence))
               group by e.zone_id, e.line_id, p.piece_id, coalesce(e.pot_id, (select pot_id from work_events t where t.id = e.twin_id)), coalesce(e.filling, (select filling from work_events t where t.id = e.twin_id)))) d
            union all
            select 'pot: ' || c.pot_id from pot_contents c where ml <> (select sum(a.ml) from work_amounts a join work_events e on e.id = a.event_id where e.pot_id = c.pot_id and a.material_id = c.material_id)
            union all
            select 'stock: ' || m.name from materials m where stock_ml <> coalesce((select sum(ml) from stock_moves s where s.material_id = m.id), 0)
            union all
            select 'piece without its parent''s design: ' || p.label from pieces p join pieces q on q.id = p.parent_id where p.design_id <> q.design_id
            union all
            select 'touching zones of two designs: ' || t.first_zone_id from zone_touches t join zones a on a.id = t.first_zone_id join zones b on b.id = t.second_zone_id where a.design_id <> b.design_id
            union all
            select 'a zone with a treatment that is put away: ' || z.name from zones z join treatments t on t.id = z.treatment_id join designs d on d.id = z.design_id join sets s on s.id = d.set_id
              where t.put_away_at is not null and z.put_away_at is null and d.put_away_at is null and s.put_away_at is null
            """).ToListAsync(TestContext.Current.CancellationToken);
    }
}
