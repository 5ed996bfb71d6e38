using System.IO.Compression;
using Lowfell.Store;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Lowfell.Server.Tests;

/// <summary>Data made before there were revisions and a stream of work keeps every row.</summary>
public sealed class OldDataTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Everything_of_before_is_still_there()
    {
        var connection = await server.Empty();
        await using (var zipped = new GZipStream(File.OpenRead(Path.Combine(AppContext.BaseDirectory, "before-the-stream.sql.gz")), CompressionMode.Decompress))
        using (var reader = new StreamReader(zipped))
            await LowfellServer.Execute(connection, await reader.ReadToEndAsync(Stop));
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

    /// <summary>Every row of every table, in every column there was; the authority alone is another, since its key lay open.</summary>
    [Fact]
    public async Task Every_row_of_before_the_seal_is_still_there()
    {
        var connection = await server.Empty();
        await using (var zipped = new GZipStream(File.OpenRead(Path.Combine(AppContext.BaseDirectory, "before-the-seal.sql.gz")), CompressionMode.Decompress))
        using (var reader = new StreamReader(zipped))
            await LowfellServer.Execute(connection, await reader.ReadToEndAsync(Stop));
        var before = await Tables(connection);
        Assert.True(before.Count > 40 && before["work_events"].Contains("kept before", StringComparison.Ordinal) && before["authorities"].Length > 100);
        await using var db = new LowfellDb(LowfellDb.Options(connection));
        await db.Database.MigrateAsync(Stop);
        foreach (var (table, rows) in before.Where(t => t.Key is not ("authorities" or "write_receipts" or "spent_writes" or "__EFMigrationsHistory")))
            Assert.Equal(rows, (await Rows(connection, table, before)).Replace(", \"told\": \"{}\"", "", StringComparison.Ordinal));
        Assert.Empty(await db.Authorities.ToListAsync(Stop));

        // Receipts that had a secret in them are spent ids now; all others are as they were.
        var receipts = before["write_receipts"].Split('\n');
        Assert.Equal(receipts.Length, await db.WriteReceipts.CountAsync(Stop) + await db.SpentWrites.CountAsync(Stop));
        Assert.Equal(2, await db.SpentWrites.CountAsync(Stop));
        Assert.Equal(0, await db.WriteReceipts.CountAsync(r => r.Told.Contains("calendar/") || r.Told.Contains("goodUntil"), Stop));
        var refusal = Assert.Single(await db.BenchRefusals.ToListAsync(Stop));
        Assert.Equal(("{}", null), (refusal.Told, refusal.Settled));
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
            all[table] = await Rows(connection, table, all);
        return all;
    }

    /// <summary>The rows of a table as text, in the columns it had before.</summary>
    private async Task<string> Rows(string connection, string table, IReadOnlyDictionary<string, string> _)
    {
        await using var db = new NpgsqlConnection(connection);
        await db.OpenAsync(Stop);
        var named = string.Join(", ", columns[table].Select(c => $"'{c}', t.\"{c}\""));
        await using var ask = new NpgsqlCommand($"set time zone 'UTC'; select coalesce(string_agg(x, E'\\n' order by x), '') from (select jsonb_build_object({named})::text as x from \"{table}\" t) r", db);
        return (string)(await ask.ExecuteScalarAsync(Stop))!;
    }

    [Fact]
    public async Task The_file_of_a_set_from_before_the_seal_comes_in_with_every_row()
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, $"/api/workshops/{await server.WorkshopId()}/sets/file") { Content = new ByteArrayContent(await File.ReadAllBytesAsync(Path.Combine(AppContext.BaseDirectory, "set-file-before-the-seal.zip"), Stop)) { Headers = { { "Content-Type", "application/zip" } } } };
        request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
        using var answer = await server.Http.SendAsync(request, Stop);
        var said = System.Text.Json.Nodes.JsonNode.Parse(await answer.Content.ReadAsStringAsync(Stop))!;
        Assert.True(answer.IsSuccessStatusCode, said.ToJsonString());
        Assert.Equal(2, said["photographs"]!.GetValue<int>());
        static string Document(Stream zip)
        {
            using var archive = new ZipArchive(zip);
            using var reader = new StreamReader(archive.GetEntry("set.json")!.Open());
            return reader.ReadToEnd();
        }

        var (was, now) = (Document(File.OpenRead(Path.Combine(AppContext.BaseDirectory, "set-file-before-the-seal.zip"))).Split('\n'), Document(await server.Http.GetStreamAsync($"/api/sets/{said["setId"]}/file", Stop)).Split('\n'));
        static List<string> Of(IEnumerable<string> lines) => lines.Where(l => !l.Contains("\"clock\":", StringComparison.Ordinal) && !l.Contains("\"name\": \"Harrowmere Sluice", StringComparison.Ordinal) && !l.Contains("\"label\":", StringComparison.Ordinal)).Select(l => l.TrimEnd(',')).ToList();
        Assert.Equal(Of(was), Of(now));
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
