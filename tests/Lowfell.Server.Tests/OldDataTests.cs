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
