using Lowfell.Core.Bench;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>Mishaps as they were told at the bench, the newest first.</summary>
public static class MishapBook
{
    private const int Most = 500;

    public static async Task<IReadOnlyList<ToldMishap>> Read(LowfellDb db, Guid workshop, CancellationToken stop) =>
        (await (
            from e in db.WorkEvents.AsNoTracking()
            where e.WorkshopId == workshop && e.Kind == WorkKind.Mishap && e.LayerId != null && !db.WorkEvents.Any(u => u.UndoesId == e.Id)
            join layer in db.Layers on e.LayerId equals layer.Id
            orderby e.At descending

            // What it took is what the layer took when it was next laid on one of its pieces.
            let again = db.WorkEvents.Where(g => g.Kind == WorkKind.Given && ((g.ZoneId == e.ZoneId && g.LineId == e.LineId) || g.Also.Any(a => a.ZoneId == e.ZoneId && a.LineId == e.LineId)) && g.At > e.At && g.Pieces.Any(p => e.Pieces.Any(x => x.PieceId == p.PieceId)))
                .OrderBy(g => g.At).Select(g => db.TakenTimes.Where(t => t.EventId == g.Id && t.Counts).Select(t => (decimal?)t.Minutes).FirstOrDefault()).FirstOrDefault()
            select new { layer.Technique, e.Note, e.SavedBy, again, e.At }).Take(Most).ToListAsync(stop))
        .Select(m => new ToldMishap(m.Technique, m.Note, m.SavedBy, (double?)m.again, m.At)).ToList();
}
