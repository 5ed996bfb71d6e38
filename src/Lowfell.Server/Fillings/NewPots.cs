using Lowfell.Core.Mixing.Pots;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Fillings;

/// <summary>Pots as they begin.</summary>
public static class NewPots
{
    public const int LongestLabel = 80, MostFull = 500;

    /// <summary>A pot with something in it since an instant: as good as its contents are in its vessel, in the climate of the bench.</summary>
    public static PotRow Of(Guid id, string label, Vessel vessel, string recipeKey, PotContents contents, SetGraph graph, DateTimeOffset made, DateTimeOffset now, string note) => new()
    {
        Id = id,
        WorkshopId = graph.Workshop.Id,
        Label = label.Trim(),
        Vessel = vessel,
        RecipeKey = recipeKey,
        MadeAt = made,
        LifeBeganAt = made,
        GoodUntil = made.AddMinutes(PotLife.Of(contents, vessel, graph.Climate).Usual),
        ChangedAt = now,
        Note = note,
    };

    /// <summary>Whether a bench has as many pots with something in them as it keeps.</summary>
    public static async Task<bool> TooMany(LowfellDb db, Guid workshop, CancellationToken stop) =>
        await db.Pots.CountAsync(p => p.WorkshopId == workshop && p.Contents.Any(c => c.Ml > 0), stop) >= MostFull;
}
