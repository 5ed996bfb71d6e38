using Lowfell.Store;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Sets;

/// <summary>What work, pots or accepted remarks refer to: it is put away and never torn out.</summary>
internal static class Kept
{
    public static async Task<HashSet<Guid>> Zones(LowfellDb db, IReadOnlyCollection<Guid> zones, CancellationToken stop) =>
        (await db.WorkEvents.Where(e => zones.Contains(e.ZoneId!.Value)).Select(e => e.ZoneId!.Value)
            .Union(db.AcceptedFindings.Where(a => zones.Contains(a.ZoneId)).Select(a => a.ZoneId)).ToListAsync(stop)).ToHashSet();

    public static async Task<HashSet<Guid>> Pieces(LowfellDb db, IReadOnlyCollection<Guid> pieces, CancellationToken stop) =>
        (await db.Set<Store.Rows.WorkPieceRow>().Where(p => pieces.Contains(p.PieceId)).Select(p => p.PieceId).Distinct().ToListAsync(stop)).ToHashSet();
}
