using Lowfell.Core.Colour;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Server.Http;
using Lowfell.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Shelf;

/// <summary>A material that comes near another: how far one brushed coat lies off over black and over white, the larger of both.</summary>
public sealed record StandIn(Guid MaterialId, string Name, double Difference, string Words);

/// <summary>What on the shelf comes nearest to a material that is not on it, or is running out.</summary>
internal static class StandIns
{
    private const int Shown = 5;

    public static async Task<Results<Ok<IReadOnlyList<StandIn>>, ProblemHttpResult>> Of(Guid id, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await db.Materials.AsNoTracking().Where(m => m.Id == id).Select(m => (Guid?)m.WorkshopId).FirstOrDefaultAsync(stop) is not { } workshop)
            return Problems.NotFound("material");
        var shelf = await graphs.ShelfOf(db, workshop, stop);
        var missing = shelf.Materials[id];

        // Only what does the same work: a wash is no paint, and what spirit carries does not thin with water.
        var alike = shelf.OnShelf.Where(m => m.Id != id && m.Kind == missing.Kind).ToList();
        if (alike.Any(m => m.Carrier == missing.Carrier))
            alike = alike.Where(m => m.Carrier == missing.Carrier).ToList();
        var drawn = Draw(missing);
        return TypedResults.Ok<IReadOnlyList<StandIn>>(alike.AsParallel().AsOrdered()
            .Select(m => (Material: m, Drawn: Draw(m)))
            .Select(m => new StandIn(m.Material.Id, m.Material.Name, Math.Round(m.Drawn.DifferenceTo(drawn), 2), DifferenceWords.Of(drawn.OverWhite.ToLab(), m.Drawn.OverWhite.ToLab())))
            .OrderBy(s => s.Difference).ThenBy(s => s.Name, StringComparer.Ordinal).Take(Shown).ToList());
    }

    private static Drawn Draw(Material material) => PotColour.Draw([new MixPart(material, Parts.One)], null);
}
