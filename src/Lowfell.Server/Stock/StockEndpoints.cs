using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Lowfell.Server.Stock;

/// <summary>Stock as moves that are only ever added, and what to buy.</summary>
public static class StockEndpoints
{
    private const int MostMoves = 500, LongestReason = 500, HistoryLength = 200;
    private const decimal MostMl = 1_000_000;

    public static void MapStock(this IEndpointRouteBuilder app)
    {
        var stock = app.MapGroup("/api/stock").WithTags("Stock");
        stock.MapPost("/{workshopId:guid}/moves", Add).WithName("addStockMoves").WithSummary("Records bought, used, lent and the like; all of them or none.").Writes<StockTold, IReadOnlyList<StockDto>>(Tell);
        stock.MapGet("/materials/{materialId:guid}/moves", History).WithName("stockMoves").WithSummary("The newest moves of a material first.").ProducesProblem(404);
        stock.MapPost("/moves/{id:guid}/undo", Undo).WithName("undoStockMove").Writes<StockTold, IReadOnlyList<StockDto>>(Tell);
        stock.MapGet("/{workshopId:guid}/shopping", ShoppingLists.Of).WithName("shoppingList").WithSummary("What all sets of a workshop take against its shelf, in whole packs.").ProducesProblem(400).ProducesProblem(404);
        stock.MapGet("/{workshopId:guid}/shopping.csv", ShoppingLists.Csv).WithName("shoppingCsv").ProducesProblem(404);
    }

    /// <summary>What moves come to: the materials moved.</summary>
    private sealed record StockTold(IReadOnlyList<Guid> Materials);

    private static Task<IReadOnlyList<StockDto>> Tell(StockTold told, Telling telling) => StockOf(told.Materials, telling.Db, telling.Stop);

    private static async Task<Outcome<StockTold>> Add(Guid workshopId, StockMovesIn entry, Write write)
    {
        if (!await write.Db.Workshops.AnyAsync(w => w.Id == workshopId, write.Stop))
            return Problems.NotFound("workshop");
        write.In(workshopId);
        var faults = new Faults();
        var moves = entry.Moves ?? [];
        faults.Require(moves.Count is > 0 and <= MostMoves, "moves", $"Give from 1 to {MostMoves} moves.");
        var rows = new List<StockMoveRow>();
        for (var i = 0; i < Math.Min(moves.Count, MostMoves); i++)
            if (Read(moves[i], $"moves[{i}]", write.ToldAt, faults) is { } row)
                rows.Add(row);
        faults.Require(rows.Select(r => r.Id).Distinct().Count() == rows.Count, "moves", "Every move needs an id of its own.");
        var materials = rows.Select(r => r.MaterialId).ToHashSet();
        var known = await write.Db.Materials.Where(m => m.WorkshopId == workshopId && materials.Contains(m.Id)).Select(m => m.Id).ToListAsync(write.Stop);
        for (var i = 0; i < rows.Count; i++)
            faults.Require(known.Contains(rows[i].MaterialId), $"moves[{i}].materialId", "This material is not on the shelf.");
        if (faults.Any)
            return faults.ToProblem();
        return await Store(rows, write);
    }

    private static StockMoveRow? Read(StockMoveIn? move, string at, DateTimeOffset now, Faults faults)
    {
        faults.Require(move?.Id is not null && move.Id != Guid.Empty, $"{at}.id", "Give the move an id, so that it counts once however often it is sent.");
        faults.Require(move?.MaterialId is not null, $"{at}.materialId", "Name the material.");
        faults.Require(move?.Kind is not (null or StockMoveKind.Opening), $"{at}.kind", "Say whether it was bought, used, thrown away, lent, returned or corrected.");
        var ml = move?.Ml ?? 0;
        var signed = move?.Kind == StockMoveKind.Corrected;
        faults.Require(Math.Abs(ml) <= MostMl && decimal.Round(ml, 2) == ml && (signed ? ml != 0 : ml > 0), $"{at}.ml", signed ? "Give what the correction adds or takes, in ml, not 0." : "Give ml above 0, with at most two decimals.");
        faults.Text(move?.Reason, $"{at}.reason", LongestReason, needed: signed);
        if (faults.Any)
            return null;
        return new StockMoveRow
        {
            Id = move!.Id!.Value,
            MaterialId = move.MaterialId!.Value,
            Kind = move.Kind!.Value,
            Ml = move.Kind is StockMoveKind.Used or StockMoveKind.ThrownAway or StockMoveKind.Lent ? -ml : ml,
            Reason = move.Reason?.Trim() ?? "",
            At = now,
        };
    }

    private static async Task<Outcome<StockTold>> Store(List<StockMoveRow> rows, Write write)
    {
        var db = write.Db;
        var ids = rows.Select(r => r.Id).ToList();
        var materials = rows.Select(r => r.MaterialId).Distinct().ToList();

        // Rows are locked in one order, so that two batches never wait for each other; a move sent again waits here too.
        var there = await db.Database.SqlQuery<Held>($"select id, name, stock_ml from materials where id = any({materials}) order by id for no key update").ToDictionaryAsync(m => m.Id, write.Stop);
        var known = await db.StockMoves.AsNoTracking().Where(m => ids.Contains(m.Id)).Select(m => m.Id).ToListAsync(write.Stop);

        // One by one: a correction must be in before what it makes possible, and a batch would be put in another order.
        var left = there.Values.ToDictionary(m => m.Id, m => m.StockMl);
        foreach (var row in rows.Where(r => !known.Contains(r.Id)))
        {
            if ((left[row.MaterialId] += row.Ml) < 0)
                return Problems.Of(StatusCodes.Status409Conflict, "not-enough",
                    $"That is more than there is ({string.Join(", ", there.Values.Select(m => FormattableString.Invariant($"{m.Name}: {m.StockMl:0.##} ml")))}). Record first what was really there, as a correction; nothing was stored.",
                    current: there.Values.Select(m => new StockDto(m.Id, m.StockMl)).ToList());
            db.Add(row);
            await write.Save();
        }

        return new StockTold(materials);
    }

    private sealed record Held(Guid Id, string Name, decimal StockMl);

    private static async Task<IReadOnlyList<StockDto>> StockOf(IReadOnlyList<Guid> materials, LowfellDb db, CancellationToken stop) =>
        await db.Materials.AsNoTracking().Where(m => materials.Contains(m.Id)).OrderBy(m => m.Id).Select(m => new StockDto(m.Id, m.StockMl)).ToListAsync(stop);

    private static async Task<Results<Ok<IReadOnlyList<StockMoveDto>>, ProblemHttpResult>> History(Guid materialId, LowfellDb db, CancellationToken stop)
    {
        if (!await db.Materials.AnyAsync(m => m.Id == materialId, stop))
            return Problems.NotFound("material");
        var moves = await db.StockMoves.AsNoTracking().Where(m => m.MaterialId == materialId).OrderByDescending(m => m.At).ThenByDescending(m => m.Id).Take(HistoryLength)
            .Select(m => new StockMoveDto(m.Id, m.MaterialId, m.Kind, m.Ml, m.Reason, m.At, m.UndoesId, db.StockMoves.Any(u => u.UndoesId == m.Id))).ToListAsync(stop);
        return TypedResults.Ok<IReadOnlyList<StockMoveDto>>(moves);
    }

    private static async Task<Outcome<StockTold>> Undo(Guid id, UndoMoveIn entry, Write write)
    {
        var db = write.Db;
        if (await db.StockMoves.AsNoTracking().FirstOrDefaultAsync(m => m.Id == id, write.Stop) is not { } move)
            return Problems.NotFound("stock move");
        write.In(await db.Materials.Where(m => m.Id == move.MaterialId).Select(m => m.WorkshopId).FirstAsync(write.Stop));
        var faults = new Faults();
        faults.Require(entry.Id is not null && entry.Id != Guid.Empty, "id", "Give the undoing an id of its own.");
        if (faults.Any)
            return faults.ToProblem();
        if (await db.StockMoves.AsNoTracking().FirstOrDefaultAsync(m => m.UndoesId == id, write.Stop) is { } already && already.Id != entry.Id)
            return Problems.Of(StatusCodes.Status409Conflict, "undone-already", "This move was taken back already.");
        return await Store([new StockMoveRow { Id = entry.Id!.Value, MaterialId = move.MaterialId, Kind = StockMoveKind.Corrected, Ml = -move.Ml, Reason = "taken back", At = write.ToldAt, UndoesId = id }], write);
    }
}
