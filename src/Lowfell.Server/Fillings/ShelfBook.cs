using Lowfell.Server.Writing;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Fillings;

/// <summary>Takes from the shelf what goes into pots, and puts it back when that is taken back.</summary>
public sealed class ShelfBook(Write write)
{
    /// <summary>
    /// Takes an event's amounts. Rows are locked by id first, so that two pots never wait for each other; with
    /// <paramref name="bottleHadMore"/> a bottle that held more than the books say is corrected first.
    /// </summary>
    /// <returns>False when the shelf does not hold that much by the books.</returns>
    public async Task<bool> Take(PotRow pot, WorkEventRow filled, bool bottleHadMore, DateTimeOffset at)
    {
        await write.Save();
        var ids = filled.Amounts.Select(a => a.MaterialId).ToList();
        var stock = await write.Db.Database.SqlQuery<Held>($"select id, stock_ml from materials where id = any({ids}) order by id for no key update").ToDictionaryAsync(m => m.Id, m => m.StockMl, write.Stop);
        foreach (var amount in filled.Amounts.OrderBy(a => a.MaterialId))
        {
            var missing = amount.Ml - stock[amount.MaterialId];
            if (missing > 0 && !bottleHadMore)
                return false;
            if (missing > 0)
                await Move(amount.MaterialId, StockMoveKind.Corrected, missing, $"the bottle held more when {pot.Label} was mixed", at, null);
            await Move(amount.MaterialId, StockMoveKind.Used, -amount.Ml, $"pot {pot.Label}", at, filled.Id);
        }

        return true;
    }

    private sealed record Held(Guid Id, decimal StockMl);

    /// <summary>Puts back what an event took.</summary>
    public async Task PutBack(Guid eventId, DateTimeOffset at)
    {
        foreach (var move in await write.Db.StockMoves.AsNoTracking().Where(m => m.WorkEventId == eventId && !write.Db.StockMoves.Any(u => u.UndoesId == m.Id)).OrderBy(m => m.MaterialId).ToListAsync(write.Stop))
            await Move(move.MaterialId, StockMoveKind.Corrected, -move.Ml, "taken back", at, null, move.Id);
    }

    private async Task Move(Guid material, StockMoveKind kind, decimal ml, string reason, DateTimeOffset at, Guid? workEvent, Guid? undoes = null)
    {
        write.Db.Add(new StockMoveRow { Id = Guid.NewGuid(), MaterialId = material, Kind = kind, Ml = ml, Reason = reason, At = at, WorkEventId = workEvent, UndoesId = undoes });
        await write.Save();
    }
}
