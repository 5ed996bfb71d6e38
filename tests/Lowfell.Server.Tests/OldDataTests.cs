using System.IO.Compression;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Lowfell.Store;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Lowfell.Server.Tests;

/// <summary>Data made before there were revisions and a stream of work keeps every row.</summary>
public sealed partial class OldDataTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Everything_of_before_is_still_there()
    {
        var connection = await server.Empty();
        await Load(connection, "before-the-stream");
        var before = await Sums(connection, "pot_events", "pot_event_amounts", "pot_event_pieces", "layers");
        await using var db = new LowfellDb(LowfellDb.Options(connection));
        await db.Database.MigrateAsync(Stop);
        Assert.Equal(before, await Sums(connection, "work_events", "work_amounts", "work_pieces", "revision_layers"));

        // In the order they happened, each with what stood before it; what came out of the plan keeps the line it was done on.
        var events = await db.WorkEvents.AsNoTracking().Include(e => e.Amounts).OrderBy(e => e.Sequence).ToListAsync(Stop);
        Assert.Equal(events.Select(e => e.ToldAt).Order(), events.Select(e => e.ToldAt));
        Assert.All(events.Where(e => e.ZoneId is not null), e => Assert.NotNull(e.LineId));
        Assert.Contains(events, e => e.ZoneId is not null && e.LayerId is null);
        foreach (var kept in await db.Pots.AsNoTracking().ToListAsync(Stop))
        {
            var replayed = new Store.Rows.PotRow { Id = kept.Id, Label = kept.Label };
            foreach (var e in events.Where(e => e.PotId == kept.Id))
                PotState.Take(replayed, e, events.Find(u => u.Id == e.UndoesId));
            Assert.Equal((kept.Filling, kept.FilledMl, kept.NewestEventId, kept.LastOutEventId), (replayed.Filling, replayed.FilledMl, replayed.NewestEventId, replayed.LastOutEventId));
        }
    }

    private static async Task Load(string connection, string dump)
    {
        await using var zipped = new GZipStream(File.OpenRead(Path.Combine(AppContext.BaseDirectory, dump + ".sql.gz")), CompressionMode.Decompress);
        using var reader = new StreamReader(zipped);
        await LowfellServer.Execute(connection, await reader.ReadToEndAsync(Stop));
    }

    /// <summary>Columns that are called otherwise by now.</summary>
    private static readonly Dictionary<(string Table, string Column), string> renamed = new() { [("layers", "line_id")] = "step_id" };

    /// <summary>Every row of every table, in every column there was; the authority alone is another, where its key lay open.</summary>
    [Theory]
    [InlineData("before-the-seal")]
    [InlineData("before-the-surfaces")]
    public async Task Every_row_of_before_is_still_there(string dump)
    {
        var connection = await server.Empty();
        await Load(connection, dump);
        var before = await Tables(connection);
        Assert.True(before.Count > 40 && before["work_events"].Contains("kept before", StringComparison.Ordinal));
        await using var db = new LowfellDb(LowfellDb.Options(connection));
        await db.Database.MigrateAsync(Stop);
        foreach (var (table, rows) in before.Where(t => t.Key is not ("authorities" or "write_receipts" or "spent_writes" or "__EFMigrationsHistory" or "journal_changes")))
            Assert.Equal(rows, (await Rows(connection, table, now: true)).Replace(", \"told\": \"{}\"", "", StringComparison.Ordinal));

        // What was written down of zones says which surface they took.
        Assert.Equal(before["journal_changes"], TheirSurface().Replace(await Rows(connection, "journal_changes", now: true), ""));
    }

    [GeneratedRegex("\"surface_id\": \"[0-9a-f-]{36}\", |, \"surface_id\": \"[0-9a-f-]{36}\"")]
    private static partial Regex TheirSurface();

    [Fact]
    public async Task Keys_that_lay_open_before_the_seal_are_none_any_more()
    {
        var connection = await server.Empty();
        await Load(connection, "before-the-seal");
        var before = await Tables(connection);
        Assert.True(before["authorities"].Length > 100);
        await using var db = new LowfellDb(LowfellDb.Options(connection));
        await db.Database.MigrateAsync(Stop);
        Assert.Empty(await db.Authorities.ToListAsync(Stop));

        // Receipts that had a secret in them are spent ids now; all others are as they were.
        var receipts = before["write_receipts"].Split('\n');
        Assert.Equal(receipts.Length, await db.WriteReceipts.CountAsync(Stop) + await db.SpentWrites.CountAsync(Stop));
        Assert.Equal(2, await db.SpentWrites.CountAsync(Stop));
        Assert.Equal(0, await db.WriteReceipts.CountAsync(r => r.Told.Contains("calendar/") || r.Told.Contains("goodUntil"), Stop));
        var refusal = Assert.Single(await db.BenchRefusals.ToListAsync(Stop));
        Assert.Equal(("{}", null), (refusal.Told, refusal.Settled));
    }

    /// <summary>A treatment of before has one surface, on which every layer of every version lies under its line, and which all its zones take.</summary>
    [Fact]
    public async Task Every_treatment_of_before_the_surfaces_means_what_it_meant()
    {
        var connection = await server.Empty();
        await Load(connection, "before-the-surfaces");
        async Task<string> Stacks(string line, string where) => await Text(connection, $"""
            select string_agg(concat_ws(' ', z.id, z.name, r.number, p.position, {line}, l.technique, l.material_id, l.mix_id, l.coats, l.strength, l.region, l.down_to), E'\n' order by z.id, r.number, p.position)
            from zones z join treatment_revisions r on r.treatment_id = z.treatment_id join revision_layers p on p.treatment_id = r.treatment_id and p.revision = r.number join layers l on l.id = p.layer_id {where}
            """);
        var before = await Stacks("l.line_id", "");
        Assert.True(before.Split('\n').Length > 250);
        await using var db = new LowfellDb(LowfellDb.Options(connection));
        await db.Database.MigrateAsync(Stop);
        Assert.Equal(before, await Stacks("o.line_id", "join layer_surfaces o on o.layer_id = l.id and o.surface_id = z.surface_id and o.differs = 0"));
        Assert.Equal(await db.Layers.CountAsync(Stop), await db.LayerSurfaces.CountAsync(Stop));
        Assert.Equal(await db.Treatments.CountAsync(Stop), await db.Surfaces.CountAsync(Stop));
        Assert.Equal(
            await db.Treatments.OrderBy(t => t.Id).Select(t => new { t.Id, t.Name }).ToListAsync(Stop),
            await Revisions.Surfaces(db).OrderBy(s => s.TreatmentId).Select(s => new { Id = s.SurfaceId, s.Name }).ToListAsync(Stop));
    }

    private readonly Dictionary<string, string[]> columns = [];

    private async Task<Dictionary<string, string>> Tables(string connection)
    {
        await using var db = new NpgsqlConnection(connection);
        await db.OpenAsync(Stop);
        await using (var ask = new NpgsqlCommand("select table_name, string_agg(column_name, ',' order by ordinal_position) from information_schema.columns where table_schema = 'public' group by 1", db))
        await using (var reader = await ask.ExecuteReaderAsync(Stop))
            while (await reader.ReadAsync(Stop))
                columns[reader.GetString(0)] = reader.GetString(1).Split(',');
        var all = new Dictionary<string, string>();
        foreach (var table in columns.Keys)
            all[table] = await Rows(connection, table, now: false);
        return all;
    }

    /// <summary>The rows of a table as text, in the columns it had before.</summary>
    private async Task<string> Rows(string connection, string table, bool now)
    {
        var named = string.Join(", ", columns[table].Select(c => $"'{c}', t.\"{(now ? renamed.GetValueOrDefault((table, c), c) : c)}\""));
        return await Text(connection, $"select coalesce(string_agg(x, E'\\n' order by x), '') from (select jsonb_build_object({named})::text as x from \"{table}\" t) r");
    }

    private static async Task<string> Text(string connection, string sql)
    {
        await using var db = new NpgsqlConnection(connection);
        await db.OpenAsync(Stop);
        await using var ask = new NpgsqlCommand("set time zone 'UTC'; " + sql, db);
        return (string)(await ask.ExecuteScalarAsync(Stop))!;
    }

    /// <summary>Every row of a file of before, in every column it had, is in the file that the set makes once it came in.</summary>
    [Theory]
    [InlineData("set-file-before-the-seal", 2)]
    [InlineData("set-file-before-the-surfaces", 0)]
    public async Task The_file_of_a_set_of_before_comes_in_with_every_row(string file, int photographs)
    {
        var bytes = await File.ReadAllBytesAsync(Path.Combine(AppContext.BaseDirectory, file + ".zip"), Stop);
        using var request = new HttpRequestMessage(HttpMethod.Post, $"/api/workshops/{await server.WorkshopId()}/sets/file") { Content = new ByteArrayContent(bytes) { Headers = { { "Content-Type", "application/zip" } } } };
        request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
        using var answer = await server.Http.SendAsync(request, Stop);
        var said = JsonNode.Parse(await answer.Content.ReadAsStringAsync(Stop))!;
        Assert.True(answer.IsSuccessStatusCode, said.ToJsonString());
        Assert.Equal(photographs, said["photographs"]!.GetValue<int>());
        var (was, now) = (Document(new MemoryStream(bytes)), Document(await server.Http.GetStreamAsync($"/api/sets/{said["setId"]}/file", Stop)));
        foreach (var (table, rows) in was.Where(t => t.Value is JsonArray))
        {
            Assert.Equal(rows!.AsArray().Count, now[table]!.AsArray().Count);
            foreach (var (then, here) in rows.AsArray().Zip(now[table]!.AsArray()))
                foreach (var (column, value) in then!.AsObject().Where(c => c.Key is not ("clock" or "label") && (table, c.Key) is not ("sets", "name")))
                    Assert.Equal(value?.ToJsonString(), here![renamed.GetValueOrDefault((table, column), column)]?.ToJsonString());
        }
    }

    private static JsonObject Document(Stream zip)
    {
        using var archive = new ZipArchive(zip);
        using var reader = new StreamReader(archive.GetEntry("set.json")!.Open());
        return JsonNode.Parse(reader.ReadToEnd())!.AsObject();
    }

    private static async Task<string> Sums(string connection, string events, string amounts, string pieces, string layers)
    {
        await using var db = new NpgsqlConnection(connection);
        await db.OpenAsync(Stop);
        await using var ask = new NpgsqlCommand($"""
            select concat_ws(' ', (select count(*) from {events}), (select md5(string_agg(id || kind || note, ',' order by id)) from {events}), (select sum(ml) from {amounts}), (select count(*) from {pieces}),
              (select count(*) from {layers}), (select sum(ml) from pot_contents), (select md5(string_agg(id || ml::text, ',' order by id)) from stock_moves), (select sum(stock_ml) from materials),
              (select count(*) from zones), (select count(*) from pieces), (select count(*) from accepted_findings), (select count(*) from mixes))
            """, db);
        return (string)(await ask.ExecuteScalarAsync(Stop))!;
    }
}
