using Lowfell.Core.Mixing.Measures;

namespace Lowfell.Core.Mixing.Pots;

/// <summary>A recipe as whole drops, or brush-loads of what does not drip, in the order of its parts.</summary>
/// <param name="Counts">How many of each, at least 1.</param>
/// <param name="Contents">What they are, ml.</param>
/// <param name="Difference">CIEDE2000 to the recipe on a card, one coat.</param>
public sealed record DropCounts(IReadOnlyList<int> Counts, PotContents Contents, double Difference);

/// <summary>Parts to drops and back, with each bottle's own drop.</summary>
public static class WholeDrops
{
    /// <summary>A colour this near (CIEDE2000) is taken for the recipe.</summary>
    public const double UsualWithin = 0.5;

    /// <summary>More drops than this and a syringe is the better tool.</summary>
    public const int MostDrops = 400;

    /// <summary>Volume of one drop or brush-load of a component, ml.</summary>
    public static decimal UnitMl(MixPart part) => UsualMeasures.DoesNotDrip(part.Material.Kind) ? UsualMeasures.BrushLoadMl : UsualMeasures.DropOf(part.Material);

    /// <summary>The whole drops nearest to so much of a recipe; at least one of each.</summary>
    public static DropCounts Nearest(Recipe recipe, decimal ml)
    {
        var portions = recipe.Parts.Select(p => p.Parts.ToDecimal()).ToList();
        var all = portions.Sum();
        return Of(recipe, recipe.Parts.Select((p, i) => (int)Math.Max(1, Math.Round(ml * portions[i] / all / UnitMl(p), MidpointRounding.AwayFromZero))).ToList());
    }

    /// <summary>The fewest whole drops that keep the colour within a tolerance and the thinning within a twentieth; the nearest there are when none do.</summary>
    public static DropCounts Fewest(Recipe recipe, double within = UsualWithin)
    {
        var drop = recipe.Parts.Min(UnitMl);
        DropCounts? best = null;
        var wantedThinner = recipe.Whole().ThinnerShare;
        for (var n = recipe.Parts.Count; n <= MostDrops; n++)
        {
            var tried = Nearest(recipe, n * drop);
            if (best is not null && tried.Counts.SequenceEqual(best.Counts))
                continue;
            if (tried.Difference <= within && Math.Abs(tried.Contents.ThinnerShare - wantedThinner) <= ThinnerWithin)
                return tried;
            if (best is null || tried.Difference < best.Difference)
                best = tried;
        }

        return best!;
    }

    /// <summary>What so many drops of each make, and how far that is from the recipe.</summary>
    public static DropCounts Of(Recipe recipe, IReadOnlyList<int> counts)
    {
        var contents = PotContents.Of(recipe.Parts.Select((p, i) => new Portion(p.Material, counts[i] * UnitMl(p))));
        return new DropCounts(counts, contents, PotColour.Draw(contents).DifferenceTo(PotColour.Draw(recipe.Whole())));
    }

    private const double ThinnerWithin = 0.05;
}
