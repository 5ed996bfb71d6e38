using Lowfell.Core.Mixing.Measures;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Server.Http;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Lowfell.Server.Pots;

/// <summary>
/// Writes what happens to pots: one transaction a step, rows locked in one order, each event once however often it is sent, and
/// stock taken from the shelf in the same breath.
/// </summary>
internal sealed class PotBook(LowfellDb db, SetGraph graph, SetGraphs graphs, DateTimeOffset now, CancellationToken stop)
{
    public const int LongestNote = 500, LongestLabel = 80;
    private const decimal MostMl = 5_000;
    private const int MostDrops = 20_000, MostPortions = 12;

    public DateTimeOffset Now => now;

    public SetGraph Graph => graph;

    /// <summary>Carries a step out on locked pots. The step adds events; answering a problem leaves everything as it was.</summary>
    /// <param name="eventId">The id that the client gave; when it is known already, the pot is returned as it stands.</param>
    /// <param name="pots">The pots in question with the versions they were seen in; the first is answered with.</param>
    /// <param name="step">What to do.</param>
    public async Task<Results<Ok<PotDto>, ProblemHttpResult>> Do(Guid eventId, IReadOnlyList<(Guid Id, uint? Version)> pots, Func<IReadOnlyList<PotRow>, Task<ProblemHttpResult?>> step)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        try
        {
            var ids = pots.Select(p => p.Id).Order().ToList();
            await db.Database.ExecuteSqlAsync($"select 1 from pots where id = any({ids}) order by id for update", stop);
            var rows = new List<PotRow>();
            foreach (var (id, version) in pots)
            {
                if (await Tracked(id) is not { } row || row.WorkshopId != graph.Workshop.Id)
                    return Problems.NotFound("pot");
                if (row.Events.Any(e => e.Id == eventId))
                    return TypedResults.Ok(PotsReader.ToDto(row, graph));
                if (row.Version != version)
                    return Problems.Changed("pot", PotsReader.ToDto(row, graph));
                rows.Add(row);
            }

            if (await step(rows) is { } problem)
                return problem;
            foreach (var row in rows)
                row.ChangedAt = now;
            await db.SaveChangesAsync(stop);
            await transaction.CommitAsync(stop);
        }
        catch (DbUpdateException e) when (e.InnerException is PostgresException { SqlState: PostgresErrorCodes.CheckViolation, ConstraintName: "ck_materials_stock" })
        {
            return await NotEnough(transaction);
        }

        graphs.Forget();
        return await Answer(pots[0].Id);
    }

    /// <summary>A new pot, with what it begins with.</summary>
    public async Task<Results<Ok<PotDto>, ProblemHttpResult>> Make(PotRow pot, PotEventRow made, bool? bottleHadMore)
    {
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        try
        {
            await db.Database.ExecuteSqlAsync($"select pg_advisory_xact_lock(hashtextextended({pot.Id.ToString()}, 0))", stop);
            if (await db.Pots.AnyAsync(p => p.Id == pot.Id, stop))
                return await Answer(pot.Id);
            db.Add(pot);
            await db.SaveChangesAsync(stop);
            db.Add(made);
            await FromShelf(made, bottleHadMore == true);
            await db.SaveChangesAsync(stop);
            await transaction.CommitAsync(stop);
        }
        catch (DbUpdateException e) when (e.InnerException is PostgresException { SqlState: PostgresErrorCodes.CheckViolation, ConstraintName: "ck_materials_stock" })
        {
            return await NotEnough(transaction);
        }

        graphs.Forget();
        return await Answer(pot.Id);
    }

    /// <summary>Takes an event's amounts from the shelf. Rows are locked by id first, so that two pots never wait for each other.</summary>
    public async Task FromShelf(PotEventRow filled, bool bottleHadMore)
    {
        var ids = filled.Amounts.Select(a => a.MaterialId).Order().ToList();
        await db.Database.ExecuteSqlAsync($"select 1 from materials where id = any({ids}) order by id for update", stop);
        await db.SaveChangesAsync(stop);
        var label = await db.Pots.Where(p => p.Id == filled.PotId).Select(p => p.Label).FirstAsync(stop);
        var stock = await db.Materials.AsNoTracking().Where(m => ids.Contains(m.Id)).ToDictionaryAsync(m => m.Id, m => m.StockMl, stop);
        foreach (var amount in filled.Amounts.OrderBy(a => a.MaterialId))
        {
            if (bottleHadMore && stock[amount.MaterialId] < amount.Ml)
            {
                db.Add(new StockMoveRow { Id = Guid.NewGuid(), MaterialId = amount.MaterialId, Kind = StockMoveKind.Corrected, Ml = amount.Ml - stock[amount.MaterialId], Reason = $"the bottle held more when {label} was mixed", At = now });
                await db.SaveChangesAsync(stop);
            }

            db.Add(new StockMoveRow { Id = Guid.NewGuid(), MaterialId = amount.MaterialId, Kind = StockMoveKind.Used, Ml = -amount.Ml, Reason = $"pot {label}", At = now, PotEventId = filled.Id });
            await db.SaveChangesAsync(stop);
        }
    }

    /// <summary>Puts back on the shelf what an event took from it.</summary>
    public async Task BackToShelf(Guid eventId)
    {
        foreach (var move in await db.StockMoves.AsNoTracking().Where(m => m.PotEventId == eventId && !db.StockMoves.Any(u => u.UndoesId == m.Id)).OrderBy(m => m.MaterialId).ToListAsync(stop))
            db.Add(new StockMoveRow { Id = Guid.NewGuid(), MaterialId = move.MaterialId, Kind = StockMoveKind.Corrected, Ml = -move.Ml, Reason = "taken back", At = now, UndoesId = move.Id });
    }

    public PotEventRow Event(Guid id, Guid pot, PotEventKind kind, IEnumerable<Portion> amounts, int sign = 1, string note = "", Guid? other = null, Guid? twin = null, Guid? undoes = null, Guid? zone = null, Guid? layer = null)
    {
        var row = new PotEventRow { Id = id, PotId = pot, Kind = kind, At = now, Note = note, OtherPotId = other, TwinId = twin, UndoesId = undoes, ZoneId = zone, LayerId = layer };
        row.Amounts.AddRange(amounts.Where(a => a.Ml != 0).Select(a => new PotEventAmountRow { EventId = id, MaterialId = a.Material.Id, Ml = sign * a.Ml }));
        return row;
    }

    public PotContents Contents(PotRow pot) => graph.Contents(pot.Contents.Select(c => (c.MaterialId, c.Ml)));

    /// <summary>Portions as they were measured: drops count by the bottle's own drop.</summary>
    public List<PotEventAmountRow>? ReadPortions(IReadOnlyList<PortionIn?>? entries, Faults faults)
    {
        entries ??= [];
        faults.Require(entries.Count is > 0 and <= MostPortions, "amounts", $"Say what goes in: from 1 to {MostPortions} materials.");
        var rows = new List<PotEventAmountRow>();
        for (var i = 0; i < Math.Min(entries.Count, MostPortions); i++)
        {
            var at = $"amounts[{i}]";
            var entry = entries[i];
            var material = entry?.MaterialId is { } id && graph.Materials.TryGetValue(id, out var known) ? known : null;
            faults.Require(material is not null, $"{at}.materialId", "This material is not on the shelf. Choose one that is.");
            faults.Require((entry?.Ml is null) != (entry?.Drops is null), at, "Give either ml or drops.");
            faults.Require(entry?.Drops is null or (> 0 and <= MostDrops), $"{at}.drops", $"Give whole drops from 1 to {MostDrops}.");
            faults.Require(entry?.Ml is null or (> 0 and <= MostMl), $"{at}.ml", $"Give ml above 0, at most {MostMl:0}.");
            if (faults.Any)
                continue;
            var ml = entry!.Ml ?? entry.Drops!.Value * WholeDrops.UnitMl(new Core.Mixing.MixPart(material!, Core.Mixing.Parts.One));
            rows.Add(new PotEventAmountRow { MaterialId = material!.Id, Ml = decimal.Round(ml, PotContents.Decimals), Drops = entry.Drops });
        }

        faults.Require(rows.Select(r => r.MaterialId).Distinct().Count() == rows.Count, "amounts", "Each material only once; add its amounts together.");
        return faults.Any ? null : rows;
    }

    private async Task<PotRow?> Tracked(Guid id) =>
        await db.Pots.Include(p => p.Contents).Include(p => p.Events).ThenInclude(e => e.Amounts).Include(p => p.Events).ThenInclude(e => e.Pieces).AsSplitQuery().FirstOrDefaultAsync(p => p.Id == id, stop);

    private async Task<Results<Ok<PotDto>, ProblemHttpResult>> Answer(Guid id)
    {
        db.ChangeTracker.Clear();
        var fresh = (await graphs.OfSet(db, graph.Set.Id, stop))!;
        return TypedResults.Ok(PotsReader.ToDto((await PotsReader.Read(db, id, stop))!, fresh));
    }

    private async Task<ProblemHttpResult> NotEnough(Microsoft.EntityFrameworkCore.Storage.IDbContextTransaction transaction)
    {
        await transaction.RollbackAsync(stop);
        return Problems.Of(StatusCodes.Status409Conflict, "not-enough",
            "The shelf does not hold that much by the books. Mix less, record what was bought, or say that the bottle held more; nothing was stored.");
    }
}
