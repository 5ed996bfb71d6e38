using Lowfell.Core.Materials;

namespace Lowfell.Core.Mixing.Pots;

/// <summary>So much of one material, ml.</summary>
public readonly record struct Portion(Material Material, decimal Ml);

/// <summary>
/// What is in a pot. Immutable; every operation conserves volume exactly, material by material, in ten-thousandths of a millilitre
/// (a five-hundredth of a drop).
/// </summary>
public sealed class PotContents
{
    /// <summary>Decimals that volumes are kept to.</summary>
    public const int Decimals = 4;

    private const decimal Grain = 0.0001m;

    private PotContents(IReadOnlyList<Portion> portions) => Portions = portions;

    public static readonly PotContents Empty = new([]);

    /// <summary>Each material once, in the order it went in; none of nothing.</summary>
    public IReadOnlyList<Portion> Portions { get; }

    /// <summary>All of it, ml.</summary>
    public decimal Ml => Portions.Sum(p => p.Ml);

    /// <summary>What is thinner, ml.</summary>
    public decimal ThinnerMl => Portions.Where(p => p.Material.IsThinner).Sum(p => p.Ml);

    /// <summary>Thinner's share of the whole, 0..1; 0 for an empty pot.</summary>
    public double ThinnerShare => Ml > 0 ? (double)(ThinnerMl / Ml) : 0;

    /// <summary>A pot with so much of each; the same material named twice is added up.</summary>
    /// <exception cref="ArgumentOutOfRangeException">A negative volume.</exception>
    public static PotContents Of(IEnumerable<Portion> portions) => Empty.With(portions);

    /// <summary>Tops up.</summary>
    /// <exception cref="ArgumentOutOfRangeException">A negative volume.</exception>
    public PotContents With(IEnumerable<Portion> more)
    {
        var all = Portions.ToList();
        foreach (var (material, ml) in more)
        {
            ArgumentOutOfRangeException.ThrowIfNegative(ml, nameof(more));
            var at = all.FindIndex(p => p.Material.Id == material.Id);
            if (at < 0)
                all.Add(new Portion(material, decimal.Round(ml, Decimals)));
            else
                all[at] = all[at] with { Ml = all[at].Ml + decimal.Round(ml, Decimals) };
        }

        return new PotContents(all.Where(p => p.Ml > 0).ToList());
    }

    /// <summary>Pours another pot in.</summary>
    public PotContents Join(PotContents other) => With(other.Portions);

    /// <summary>
    /// Takes so much out of the stirred pot: of every material its share. What cannot be split evenly goes to the largest remainders,
    /// so that what is taken and what is left add up to what was there.
    /// </summary>
    /// <param name="ml">From 0 to all of it.</param>
    /// <exception cref="ArgumentOutOfRangeException">Negative, or more than there is.</exception>
    public (PotContents Taken, PotContents Left) Take(decimal ml)
    {
        ml = decimal.Round(ml, Decimals);
        ArgumentOutOfRangeException.ThrowIfNegative(ml);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(ml, Ml);
        if (ml == 0)
            return (Empty, this);
        var whole = Ml;
        var exact = Portions.Select(p => p.Ml * ml / whole).ToList();
        var taken = exact.Select(e => Math.Floor(e / Grain) * Grain).ToList();
        var missing = (int)((ml - taken.Sum()) / Grain);
        foreach (var i in Enumerable.Range(0, taken.Count).OrderByDescending(i => exact[i] - taken[i]).ThenBy(i => i).Take(missing))
            taken[i] += Grain;
        return (
            new PotContents(Portions.Select((p, i) => p with { Ml = taken[i] }).Where(p => p.Ml > 0).ToList()),
            new PotContents(Portions.Select((p, i) => p with { Ml = p.Ml - taken[i] }).Where(p => p.Ml > 0).ToList()));
    }

    /// <summary>Parts in the smallest whole numbers that say what is in it, in the order of <see cref="Portions"/>.</summary>
    public IReadOnlyList<Parts> Ratio() => Parts.Whole(Portions.Select(p => Parts.Of(p.Ml)).ToList());

    /// <summary>As a layer takes it: paint in parts, and all thinner as its dilution with the thinner there is most of.</summary>
    public (IReadOnlyList<MixPart> Paint, Dilution? Dilution) AsPaint()
    {
        var paint = Portions.Where(p => !p.Material.IsThinner).ToList();
        var thinner = Portions.Where(p => p.Material.IsThinner).ToList();
        var parts = Parts.Whole(paint.Select(p => Parts.Of(p.Ml)).ToList());
        if (thinner.Count == 0 || paint.Count == 0)
            return ((paint.Count == 0 ? thinner : paint).Select((p, i) => new MixPart(p.Material, paint.Count == 0 ? Parts.Of(p.Ml) : parts[i])).ToList(), null);
        var ratio = Parts.Whole([Parts.Of(paint.Sum(p => p.Ml)), Parts.Of(thinner.Sum(p => p.Ml))]);
        return (paint.Select((p, i) => new MixPart(p.Material, parts[i])).ToList(), new Dilution(thinner.MaxBy(p => p.Ml).Material, ratio[0], ratio[1]));
    }

    /// <inheritdoc/>
    public override string ToString() => string.Join(" + ", Portions.Select(p => $"{p.Ml:0.####} {p.Material.Name}"));
}
