using Lowfell.Core.Pieces;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Lowfell.Server.Plan;

/// <summary>Where a varied layer goes on one piece; cells of three by three, 0 top left to 8 bottom right.</summary>
public sealed record VariedPieceDto(string Label, IReadOnlyList<int> Cells, Amount Amount);

/// <summary>The plan that lays a layer differently on every piece of a design.</summary>
internal static class Variation
{
    public static async Task<Results<Ok<IReadOnlyList<VariedPieceDto>>, ProblemHttpResult>> Of(Guid zoneId, int seed, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfZone(db, zoneId, stop) is not { } at)
            return Problems.NotFound("zone");
        var faults = new Faults();
        faults.Range(seed, "seed", 1, 1_000_000);
        if (faults.Any)
            return faults.ToProblem();
        var pieces = at.Design.Pieces.Where(p => p.ParentId is null).OrderBy(p => p.Label.Length).ThenBy(p => p.Label, StringComparer.Ordinal).ToList();
        return TypedResults.Ok<IReadOnlyList<VariedPieceDto>>(
            VariationPlan.For(seed, pieces.Count).Zip(pieces, (v, p) => new VariedPieceDto(p.Label, v.Cells, v.Amount)).ToList());
    }
}
