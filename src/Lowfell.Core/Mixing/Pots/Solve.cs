namespace Lowfell.Core.Mixing.Pots;

/// <summary>The most that can be mixed of a recipe from what there is.</summary>
/// <param name="Ml">All of it.</param>
/// <param name="Limit">The component that ends first.</param>
public sealed record MostOf(decimal Ml, MixPart Limit);

/// <summary>Questions about amounts, each with one answer.</summary>
public static class Solve
{
    /// <summary>
    /// What to add so that a pot stands at paint : thinner. Too thick, it takes thinner; too thin, it takes more of its own paint,
    /// in the ratio it is in. Nothing when it is there already.
    /// </summary>
    /// <param name="pot">What is in it; some paint at least.</param>
    /// <param name="wanted">The ratio wanted, with the thinner to use.</param>
    /// <exception cref="ArgumentException">A pot without paint.</exception>
    public static IReadOnlyList<Portion> ToRatio(PotContents pot, Dilution wanted)
    {
        var thinner = pot.ThinnerMl;
        var paint = pot.Ml - thinner;
        if (paint <= 0)
            throw new ArgumentException("There is no paint in this pot to thin.", nameof(pot));
        var missing = paint * wanted.ThinnerParts.ToDecimal() / wanted.PaintParts.ToDecimal() - thinner;
        if (missing > 0)
            return [new Portion(wanted.Thinner, decimal.Round(missing, PotContents.Decimals))];
        if (missing == 0)
            return [];
        if (wanted.ThinnerParts.Numerator == 0)
            throw new ArgumentException("What is thinned cannot be made neat again; only less thin.", nameof(wanted));
        var paintMissing = thinner * wanted.PaintParts.ToDecimal() / wanted.ThinnerParts.ToDecimal() - paint;
        return pot.Portions.Where(p => !p.Material.IsThinner).Select(p => p with { Ml = decimal.Round(p.Ml * paintMissing / paint, PotContents.Decimals) }).ToList();
    }

    /// <summary>What to add so that a pot holds so much of the same mix; nothing when it does.</summary>
    public static IReadOnlyList<Portion> ToVolume(PotContents pot, decimal ml) =>
        ml <= pot.Ml ? [] : Recipe.Of(pot).Fill(ml - pot.Ml).Portions;

    /// <summary>How much of a recipe the stock allows.</summary>
    /// <param name="recipe">At least one component.</param>
    /// <param name="stockMl">What there is of each; materials left out have no limit.</param>
    public static MostOf Most(Recipe recipe, IReadOnlyDictionary<Guid, decimal> stockMl)
    {
        var all = recipe.Parts.Sum(p => p.Parts.ToDecimal());
        var limits = recipe.Parts.Where(p => stockMl.ContainsKey(p.Material.Id)).Select(p => new MostOf(stockMl[p.Material.Id] * all / p.Parts.ToDecimal(), p)).ToList();
        return limits.Count == 0 ? new MostOf(decimal.MaxValue, recipe.Parts[0]) : limits.MinBy(l => l.Ml)!;
    }
}
