using System.Diagnostics;
using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Lowfell.Core.Layers;
using Lowfell.Core.Words;
using Npgsql;

namespace Lowfell.Benchmarks;

/// <summary>A year of evenings: 100,000 events on 200 pieces of 5 zones with 20 layers each, and what the views then take.</summary>
internal sealed class YearOfWork(HttpClient http, string database, Action<string, double, double> report)
{
    private const int Designs = 20, PiecesEach = 10, ZonesEach = 5, LayersEach = 20, Pots = 1000, EventsEach = 100;
    private string workshop = "", set = "";
    private readonly List<string> zones = [];

    public async Task Run(int serverProcess)
    {
        await Make();
        await new BenchFollowed(http, report).Run(workshop, set);
        await Job();
        await Measure("");
        await Cold();
        await Steps();
        await MoreMaterials();
        await Measure(", 18,000 materials on the shelf", overviewBar: 500, storeBar: 200);
        var memory = File.ReadLines($"/proc/{serverProcess}/status").First(l => l.StartsWith("VmRSS", StringComparison.Ordinal)).Split(' ', StringSplitOptions.RemoveEmptyEntries)[1];
        report("memory of the server after all of it, MB", double.Parse(memory, CultureInfo.InvariantCulture) / 1024, 400);
        report("receipts of all writes so far, MB", await Scalar("select (pg_total_relation_size('write_receipts') + pg_total_relation_size('spent_writes')) / 1048576.0"), 20);
    }

    private async Task Make()
    {
        workshop = (await Send(HttpMethod.Post, "/api/workshops", new { name = "Year bench" }))["id"]!.GetValue<string>();
        await Execute($"insert into materials select (jsonb_populate_record(null::materials, to_jsonb(m) || jsonb_build_object('id', gen_random_uuid(), 'workshop_id', '{workshop}'))).* from materials m where m.workshop_id <> '{workshop}' and m.maker <> ''");
        await Execute($"insert into slice_versions select '{workshop}', s, 1000 from unnest(array['shelf', 'stock']) s on conflict (workshop_id, slice) do update set version = slice_versions.version + 1000");
        var shelf = (await Get($"/api/shelf/{workshop}/materials")).AsArray().Select(m => (m!["name"]!.GetValue<string>(), m["id"]!.GetValue<string>())).ToLookup(m => m.Item1, m => m.Item2);
        for (var d = 0; d < Designs; d++)
        {
            var design = new
            {
                name = $"Yard {d + 1}",
                pieces = PiecesEach,
                substrate = "printed plastic",
                silhouette = "wall",
                zones = Enumerable.Range(1, ZonesEach).Select(z => new { name = $"Face {z}", areaCm2 = 40 + 10 * z, relief = "deep", jointMm = 900, edgeMm = 400 }),
            };
            if (d == 0)
                set = (await Send(HttpMethod.Post, "/api/plan/sets", new { workshopId = workshop, name = "Whole yard", scale = 56, tableMetres = 0.9, design }))["setId"]!.GetValue<string>();
            else
                await Send(HttpMethod.Post, $"/api/plan/sets/{set}/designs", design);
        }

        zones.AddRange((await Get($"/api/plan/sets/{set}"))["designs"]!.AsArray().SelectMany(d => d!["zones"]!.AsArray()).Select(z => z!["id"]!.GetValue<string>()));
        var stack = Workload.WithSlips(40).Take(LayersEach - 1).Append(Workload.Stack(40, sound: true).Last(l => l.Technique == Technique.Varnish)).ToList();
        foreach (var zone in zones)
            await Store(zone, new JsonArray([.. stack.Select(l => Word(l, shelf))]));
        await Events();
    }

    /// <summary>Pots and their events straight into the stream, as the server writes them: made, then laid on pieces again and again.</summary>
    private async Task Events()
    {
        // What is left in most of them was thrown away long ago.
        await Execute($"""
            insert into pots (id, workshop_id, label, vessel, recipe_key, made_at, life_began_at, good_until, note, changed_at, filling, filled_ml)
            select gen_random_uuid(), '{workshop}', 'Year pot ' || n, 'jar', '', now() - n * interval '8 hours', now() - n * interval '8 hours', now(), '', now(), 1, 1000 from generate_series(1, {Pots}) n;

            create temp table places as
            select row_number() over () as n, z.id as zone_id, l.id as layer_id, o.line_id, z.design_id
            from zones z join designs d on d.id = z.design_id join treatments t on t.id = z.treatment_id
              join revision_layers r on (r.treatment_id, r.revision) = (t.id, t.revision) join layers l on l.id = r.layer_id
              join layer_surfaces o on (o.layer_id, o.surface_id) = (l.id, z.surface_id) where d.set_id = '{set}';
            create temp table members as select design_id, id as piece_id, row_number() over (partition by design_id order by id) as n from pieces;
            create temp table coming as
            select gen_random_uuid() as id, p.id as pot_id, e as n, p.k
            from (select id, row_number() over () as k from pots where workshop_id = '{workshop}') p cross join generate_series(1, {EventsEach}) e order by e, p.k;

            -- A pot serves one layer of two zones, on every piece, five times over: coats, second goes, touch-ups.

            insert into work_events (id, workshop_id, actor, device, kind, told_at, at, received_at, note, saved_by, pot_id, zone_id, layer_id, line_id, filling)
            select c.id, '{workshop}', 'painter', 'bench', case when c.n = 1 then 'made' else 'given' end, now() - (100 - c.n) * interval '3 days', now() - (100 - c.n) * interval '3 days', now(), '', '', c.pot_id,
              case when c.n > 1 then x.zone_id end, case when c.n > 1 then x.layer_id end, case when c.n > 1 then x.line_id end, case when c.n > 1 then 1 end
            from coming c join places x on x.n = (2 * c.k + c.n % 2) % (select count(*) from places) + 1 order by c.n;
            insert into work_amounts (event_id, material_id, ml)
            select c.id, m.id, case when c.n = 1 then 49.5 + case when c.k % 5 = 0 then 5 else 0 end else -0.5 end from coming c cross join (select id from materials where workshop_id = '{workshop}' and kind = 'paint' order by name limit 2) m order by c.n;
            insert into work_pieces (event_id, piece_id)
            select e.id, m.piece_id from work_events e join places x on (x.zone_id, x.line_id) = (e.zone_id, e.line_id) join members m on m.design_id = x.design_id and m.n = (e.sequence / {Pots}) / 2 % {PiecesEach} + 1 where e.workshop_id = '{workshop}';
            update pots p set newest_event_id = e.id, last_out_event_id = e.id from (select distinct on (pot_id) pot_id, id from work_events order by pot_id, sequence desc) e where e.pot_id = p.id and p.workshop_id = '{workshop}';
            insert into slice_versions values ('{workshop}', 'work', 1) on conflict (workshop_id, slice) do update set version = slice_versions.version + 1;
            analyze;
            """);
        Console.WriteLine($"    {await Scalar($"select count(*) from work_events where workshop_id = '{workshop}'"):0} events, {await Scalar($"select count(*) from done_layers d join work_events e on e.id = d.event_id where e.workshop_id = '{workshop}'"):0} of them standing on pieces");
    }

    private async Task Measure(string with, double overviewBar = 200, double storeBar = 150)
    {
        var views = new (string What, string Path, double Bar)[]
        {
            ("overview", $"/api/plan/sets/{set}", overviewBar), ("one zone", $"/api/plan/zones/{zones[0]}", overviewBar), ("remarks", $"/api/plan/sets/{set}/remarks", overviewBar),
            ("shopping", $"/api/stock/{workshop}/shopping", overviewBar), ("pots", $"/api/pots/{set}", Math.Max(300, overviewBar)),
        };
        foreach (var (_, path, _) in views)
            await http.GetStringAsync(path);
        var stored = new List<double>();
        for (var n = 0; n < 9; n++)
            stored.Add(await Touch(zones[3]));
        report($"a year of work: storing a layer, with its reading{with}", stored.Order().ElementAt(4), storeBar);
        foreach (var (what, path, bar) in views)
        {
            var times = new List<double>();
            for (var n = 0; n < 9; n++)
            {
                await Touch(zones[n % zones.Count]);
                times.Add(await Once(() => http.GetStringAsync(path)));
            }

            report($"a year of work: {what} after a write to the plan{with}", times.Order().ElementAt(4), bar);
        }

        var (step, overview) = await AfterWork($"/api/plan/sets/{set}");
        report($"a year of work: laying a pot on two pieces{with}", step, overviewBar);
        report($"a year of work: overview after that{with}", overview, overviewBar);
        using var zipped = new HttpRequestMessage(HttpMethod.Get, $"/api/pots/{set}");
        zipped.Headers.AcceptEncoding.ParseAdd("br");
        using var answer = await http.SendAsync(zipped);
        report($"a year of work: pots as transferred, kB{with}", (await answer.Content.ReadAsByteArrayAsync()).Length / 1024.0, 300);
    }

    private async Task<(double Step, double View)> AfterWork(string path)
    {
        List<double> steps = [], views = [];
        var pot = (await Get($"/api/pots/{set}"))["pots"]![0]!;
        await placeOf;
        for (var n = 0; n < 7; n++)
        {
            steps.Add(await Once(async () => pot = await Give(pot)));
            views.Add(await Once(() => http.GetStringAsync(path)));
        }

        return (steps.Order().ElementAt(3), views.Order().ElementAt(3));
    }

    /// <summary>The remarks of a set that nobody has gone through yet, and how the plan answers meanwhile.</summary>
    private async Task Job()
    {
        var (start, meanwhile) = (Stopwatch.GetTimestamp(), new List<double>());
        var job = await Send(HttpMethod.Post, $"/api/plan/sets/{set}/remarks/job", new { });
        do
            meanwhile.Add(await Once(() => http.GetStringAsync($"/api/plan/zones/{zones[1]}")));
        while ((await Get($"/api/jobs/{job["id"]}"))["state"]!.GetValue<string>() is "waiting" or "running");
        report("a year of work: remarks of the whole set as a job", Stopwatch.GetElapsedTime(start).TotalMilliseconds, 30_000);
        report("a year of work: a zone while that job is worked on", meanwhile.Order().ElementAt(meanwhile.Count / 2), 200);
    }

    private async Task Cold()
    {
        await Touch(zones[0]);
        var all = await Once(() => Task.WhenAll(Enumerable.Range(0, 150).Select(_ => http.GetStringAsync($"/api/plan/sets/{set}"))));
        report("a year of work: 150 askers of a plan that nobody has read yet", all, 1500);
    }

    /// <summary>The same step of a new pot and of one with 2,000 steps behind it.</summary>
    private async Task Steps()
    {
        var material = (await Get($"/api/shelf/{workshop}/materials")).AsArray().First(m => m!["stockMl"]!.GetValue<decimal>() > 5)!["id"]!.GetValue<string>();
        var young = await Send(HttpMethod.Post, $"/api/pots/{set}", new { id = Guid.NewGuid(), eventId = Guid.NewGuid(), label = "Young pot", vessel = "jar", amounts = new[] { new { materialId = material, ml = 4 } } });
        var old = await Send(HttpMethod.Post, $"/api/pots/{set}", new { id = Guid.NewGuid(), eventId = Guid.NewGuid(), label = "Old pot", vessel = "jar", amounts = new[] { new { materialId = material, ml = 500 } }, bottleHadMore = true });
        for (var n = 0; n < 2000; n++)
            old = await Give(old);
        async Task<double> Step(Func<JsonNode> pot, Action<JsonNode> now) => await Median(21, async () => now(await Give(pot())));
        var first = await Step(() => young, p => young = p);
        var late = await Step(() => old, p => old = p);
        report("a step of a new pot", first, 150);
        report("the same after 2,000 steps", late, Math.Max(first * 1.5, first + 5));
    }

    private async Task<JsonNode> Give(JsonNode pot)
    {
        var place = (await placeOf)!;
        return await Send(HttpMethod.Post, $"/api/pots/{set}/{pot["id"]}/give", new
        {
            id = Guid.NewGuid(),
            version = pot["version"]!.GetValue<uint>(),
            zoneId = zones[0],
            layerId = place["layers"]![1]!["id"]!.GetValue<string>(),
            pieceIds = pieces,
            ml = 0.01,
        });
    }

    private Task<JsonNode> placeOf => known ??= Place();
    private Task<JsonNode>? known;
    private string[] pieces = [];

    private async Task<JsonNode> Place()
    {
        await using var db = new NpgsqlConnection(database);
        await db.OpenAsync();
        await using var ask = new NpgsqlCommand($"select p.id::text from pieces p join zones z on z.design_id = p.design_id where z.id = '{zones[0]}' limit 2", db);
        await using var rows = await ask.ExecuteReaderAsync();
        var found = new List<string>();
        while (await rows.ReadAsync())
            found.Add(rows.GetString(0));
        pieces = [.. found];
        return await Get($"/api/plan/zones/{zones[0]}");
    }

    private async Task MoreMaterials()
    {
        foreach (var part in new[] { "a", "b" })
        {
            var text = Workload.Csv(9_000, 0).Replace("Paint ", $"Paint {part} ", StringComparison.Ordinal);
            var lines = text.Split('\n');
            text = string.Join('\n', lines.Select((l, i) => i == 0 || l.Length == 0 ? l : $"{part}{l}"));
            await Send(HttpMethod.Post, $"/api/shelf/{workshop}/csv", new { text, store = true });
        }

        var first = await Once(() => http.GetStringAsync($"/api/plan/sets/{set}"));
        report("18,000 materials: the first overview", first, 500);
        report("18,000 materials: a page of the shelf nobody has seen", await Once(() => http.GetStringAsync($"/api/shelf/{workshop}/materials?page=7")), 1500);
    }

    /// <summary>Reads a zone, changes a layer of it and stores that; how long the storing took, its answer with the new reading included.</summary>
    private async Task<double> Touch(string zone)
    {
        var sheet = await Get($"/api/plan/zones/{zone}");
        var layers = sheet["layers"]!.DeepClone().AsArray();
        layers[3]!["coats"] = layers[3]!["coats"]!.GetValue<int>() % 3 + 1;
        return await Once(() => Send(HttpMethod.Put, $"/api/plan/zones/{zone}/stack", new JsonObject { ["version"] = sheet["version"]!.DeepClone(), ["layers"] = layers }));
    }

    private async Task Store(string zone, JsonArray layers)
    {
        var sheet = await Get($"/api/plan/zones/{zone}");
        await Send(HttpMethod.Put, $"/api/plan/zones/{zone}/stack", new JsonObject { ["version"] = sheet["version"]!.DeepClone(), ["layers"] = layers });
    }

    private static JsonObject Word(Layer layer, ILookup<string, string> shelf) => new()
    {
        ["id"] = Guid.NewGuid().ToString(),
        ["technique"] = EnumWords.Of(layer.Technique),
        ["paint"] = new JsonArray([.. layer.Paint.Select(p => new JsonObject { ["materialId"] = shelf[p.Material.Name].First(), ["parts"] = 1 })]),
        ["dilution"] = layer.Dilution is { } d ? new JsonObject { ["thinnerId"] = shelf[d.Thinner.Name].First(), ["paint"] = d.PaintParts.ToDecimal(), ["thinner"] = d.ThinnerParts.ToDecimal() } : null,
        ["coats"] = layer.Coats,
        ["region"] = EnumWords.Of(layer.Region),
        ["strength"] = layer.Strength,
        ["tool"] = EnumWords.Of(layer.Tool),
        ["drying"] = EnumWords.Of(layer.Drying),
        ["waitMinutes"] = layer.WaitMinutes is { } wait ? (int)wait : null,
        ["optional"] = layer.Optional,
        ["note"] = "",
    };

    private async Task<JsonNode> Get(string path) => JsonNode.Parse(await http.GetStringAsync(path))!;

    private async Task<JsonNode> Send(HttpMethod method, string path, object body)
    {
        using var request = new HttpRequestMessage(method, path) { Content = JsonContent.Create(body) };
        request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
        using var answer = await http.SendAsync(request);
        var text = await answer.Content.ReadAsStringAsync();
        return answer.IsSuccessStatusCode ? JsonNode.Parse(text)! : throw new InvalidOperationException($"{path}: {text}");
    }

    private async Task Execute(string sql)
    {
        await using var db = new NpgsqlConnection(database);
        await db.OpenAsync();
        await using var command = new NpgsqlCommand(sql, db) { CommandTimeout = 600 };
        await command.ExecuteNonQueryAsync();
    }

    private async Task<double> Scalar(string sql)
    {
        await using var db = new NpgsqlConnection(database);
        await db.OpenAsync();
        await using var command = new NpgsqlCommand(sql, db);
        return Convert.ToDouble(await command.ExecuteScalarAsync(), CultureInfo.InvariantCulture);
    }

    private static async Task<double> Median(int rounds, Func<Task> work)
    {
        var times = new List<double>();
        for (var i = 0; i < rounds; i++)
            times.Add(await Once(work));
        return times.Order().ElementAt(rounds / 2);
    }

    private static async Task<double> Once(Func<Task> work)
    {
        var start = Stopwatch.GetTimestamp();
        await work();
        return Stopwatch.GetElapsedTime(start).TotalMilliseconds;
    }
}
