using Lowfell.Core.Bench;
using Lowfell.Server.Http;
using Lowfell.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Plan;

/// <summary>Pieces that have come equally far: up to which layer, counted from 1 at the bottom, and minutes since the last of them was laid.</summary>
public sealed record ComeSoFar(int Laid, double MinutesSinceLast, IReadOnlyList<string> Pieces);

/// <summary>How far the pieces of a zone have really come: what is on them can be built upon and no longer changed.</summary>
internal static class HowFar
{
    public static async Task<Results<Ok<IReadOnlyList<ComeSoFar>>, ProblemHttpResult>> Of(Guid zoneId, LowfellDb db, SetGraphs graphs, TimeProvider time, CancellationToken stop)
    {
        if (await graphs.OfZone(db, zoneId, stop) is not { } at)
            return Problems.NotFound("zone");
        var order = at.Layers.Select((l, i) => (l.Id, i)).ToDictionary(x => x.Id, x => x.i);
        var done = (await db.PieceLayers.AsNoTracking().Where(p => p.ZoneId == zoneId && p.State == PieceState.Done).Select(p => new { p.PieceId, p.LineId, DoneAt = p.DoneAt!.Value }).ToListAsync(stop)).Where(p => order.ContainsKey(p.LineId)).ToLookup(p => p.PieceId);
        var now = time.GetUtcNow();
        return TypedResults.Ok<IReadOnlyList<ComeSoFar>>(SetGraph.PiecesOf(at.Design).Where(p => done[p.Id].Any())
            .Select(p => (p.Label, Laid: done[p.Id].Max(d => order[d.LineId]) + 1, Since: (now - done[p.Id].Max(d => d.DoneAt)).TotalMinutes))
            .GroupBy(p => p.Laid).OrderByDescending(g => g.Key)

            // Of pieces that are equally far the youngest is the one to be careful with.
            .Select(g => new ComeSoFar(g.Key, Math.Max(0, Math.Floor(g.Min(p => p.Since))), g.Select(p => p.Label).ToList())).ToList());
    }
}
