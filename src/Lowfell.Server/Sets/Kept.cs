using Lowfell.Store;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Sets;

/// <summary>What work, pots, accepted remarks or tiles that were looked at refer to: it is put away and never torn out.</summary>
internal static class Kept
{
    public static async Task<HashSet<Guid>> Zones(LowfellDb db, IReadOnlyCollection<Guid> zones, CancellationToken stop) =>
        (await db.WorkEvents.Where(e => zones.Contains(e.ZoneId!.Value)).Select(e => e.ZoneId!.Value)
            .Union(db.WorkAlso.Where(a => zones.Contains(a.ZoneId)).Select(a => a.ZoneId))
            .Union(db.AcceptedFindings.Where(a => zones.Contains(a.ZoneId)).Select(a => a.ZoneId))
            .Union(db.Trials.Where(t => zones.Contains(t.ZoneId) && db.TrialLooks.Any(l => l.TrialId == t.Id)).Select(t => t.ZoneId)).ToListAsync(stop)).ToHashSet();

    public static async Task<HashSet<Guid>> Pieces(LowfellDb db, IReadOnlyCollection<Guid> pieces, CancellationToken stop) =>
        (await db.Set<Store.Rows.WorkPieceRow>().Where(p => pieces.Contains(p.PieceId)).Select(p => p.PieceId)
            .Union(db.MarksDone.Where(m => pieces.Contains(m.PieceId)).Select(m => m.PieceId)).ToListAsync(stop)).ToHashSet();
}
