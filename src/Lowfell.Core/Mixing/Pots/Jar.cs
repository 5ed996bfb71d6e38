using Lowfell.Core.Mixing.Measures;

namespace Lowfell.Core.Mixing.Pots;

/// <summary>How an amount in a jar is said.</summary>
public enum JarMeasure
{
    /// <summary>Parts of the recipe.</summary>
    Parts,

    /// <summary>Share of the whole, in percent.</summary>
    Percent,

    /// <summary>Drops of its own bottle, or brush-loads of what does not drip.</summary>
    Drops,

    Ml, Grams,
}

/// <summary>A recipe in an amount: parts, shares, drops, ml and grams are views of the same thing, and changing one moves the others.</summary>
/// <param name="Recipe">What it is.</param>
/// <param name="Ml">How much of it, at least 0.</param>
public sealed record Jar(Recipe Recipe, decimal Ml)
{
    /// <summary>What is in it, to a ten-thousandth of a millilitre.</summary>
    public PotContents Contents => Recipe.Fill(Ml);

    /// <summary>
    /// The jar after one component was set. Parts and percent change what it is and keep how much; drops, ml and grams keep what it
    /// is and change how much.
    /// </summary>
    /// <param name="material">A component.</param>
    /// <param name="measure">What was typed.</param>
    /// <param name="value">Above 0; a percentage below 100.</param>
    /// <exception cref="ArgumentOutOfRangeException">A value that no jar can have.</exception>
    /// <exception cref="ArgumentException">Not in this jar.</exception>
    public Jar With(Guid material, JarMeasure measure, decimal value)
    {
        ArgumentOutOfRangeException.ThrowIfNegativeOrZero(value);
        var part = Recipe.Parts.FirstOrDefault(p => p.Material.Id == material) ?? throw new ArgumentException("This material is not in the jar.", nameof(material));
        return measure switch
        {
            JarMeasure.Parts => this with { Recipe = Replaced(part, Parts.Of(value)) },
            JarMeasure.Percent => this with { Recipe = Replaced(part, OfTheOthers(part, value)).Plain(TypedShare) },
            JarMeasure.Drops => Scaled(part, value * WholeDrops.UnitMl(part)),
            JarMeasure.Grams => Scaled(part, value / UsualMeasures.DensityOf(part.Material)),
            _ => Scaled(part, value),
        };
    }

    /// <summary>A percentage typed as 33.33 means a third.</summary>
    private const double TypedShare = 0.0005;

    private Recipe Replaced(MixPart part, Parts parts) => Recipe.Of(Recipe.Parts.Select(p => p.Material.Id == part.Material.Id ? p with { Parts = parts } : p));

    /// <summary>Parts that are so many percent of the whole: p of 100 to the rest of the recipe.</summary>
    private Parts OfTheOthers(MixPart part, decimal percent)
    {
        ArgumentOutOfRangeException.ThrowIfGreaterThanOrEqual(percent, 100);
        var others = Recipe.Parts.Where(p => p.Material.Id != part.Material.Id).Aggregate(Parts.Zero, (sum, p) => sum + p.Parts);
        if (others.Numerator == 0)
            throw new ArgumentOutOfRangeException(nameof(percent), "The only component is all of it.");
        Parts share = Parts.Of(percent), rest = Parts.Of(100) - share;
        return Parts.Of(share.Numerator * rest.Denominator, share.Denominator * rest.Numerator) * others;
    }

    private Jar Scaled(MixPart part, decimal ml)
    {
        var all = Recipe.Parts.Sum(p => p.Parts.ToDecimal());
        return this with { Ml = decimal.Round(ml * all / part.Parts.ToDecimal(), PotContents.Decimals) };
    }
}
