using System.Globalization;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Mixing.Pots;

/// <summary>What goes into a pot, thinner included, in the smallest whole parts: 3 + 2 thinned 4 : 1 is 12 + 8 + 5.</summary>
public sealed class Recipe
{
    private Recipe(IReadOnlyList<MixPart> parts) => Parts = parts;

    /// <summary>Paints as they are listed, the thinner last.</summary>
    public IReadOnlyList<MixPart> Parts { get; }

    /// <summary>Two recipes share a key exactly when they make the same pot.</summary>
    public string Key => string.Join('+', Parts.OrderBy(p => p.Material.Id).Select(p => string.Create(CultureInfo.InvariantCulture, $"{p.Material.Id:n}*{p.Parts}")));

    /// <summary>Something has to be measured and stirred; a single neat material comes straight from its bottle.</summary>
    public bool NeedsMixing => Parts.Count > 1;

    /// <summary>The pot that a layer is laid from; null for work without material, and where materials are dealt to the pieces instead of mixed.</summary>
    public static Recipe? Of(Layer layer)
    {
        if (layer.Paint.Count == 0 || layer.IsDealt)
            return null;
        if (layer.Dilution is not { } dilution || dilution.ThinnerParts.Numerator == 0)
            return Of(layer.Paint);
        var paint = layer.Paint.Aggregate(Mixing.Parts.Zero, (sum, p) => sum + p.Parts);
        return Of([.. layer.Paint.Select(p => p with { Parts = p.Parts * dilution.PaintParts }), new MixPart(dilution.Thinner, paint * dilution.ThinnerParts)]);
    }

    /// <summary>The pots that a layer is laid from, each with its share of the whole: one, but for a layer whose materials are dealt.</summary>
    public static IReadOnlyList<(Recipe Recipe, double Share)> Each(Layer layer)
    {
        if (!layer.IsDealt)
            return Of(layer) is { } one ? [(one, 1)] : [];
        var all = layer.Paint.Sum(p => p.Parts.ToDouble());
        return layer.Paint.Select(p => (Of(layer with { Paint = [p], Varied = null })!, p.Parts.ToDouble() / all)).ToList();
    }

    /// <summary>A recipe in the smallest whole parts; the same material named twice is added up.</summary>
    public static Recipe Of(IEnumerable<MixPart> parts)
    {
        var once = parts.Where(p => p.Parts.Numerator > 0).GroupBy(p => p.Material.Id)
            .Select(g => new MixPart(g.First().Material, g.Aggregate(Mixing.Parts.Zero, (sum, p) => sum + p.Parts))).OrderBy(p => p.Material.IsThinner).ToList();
        var whole = Mixing.Parts.Whole(once.Select(p => p.Parts).ToList());
        return new Recipe(once.Select((p, i) => p with { Parts = whole[i] }).ToList());
    }

    /// <summary>The recipe of what is in a pot.</summary>
    public static Recipe Of(PotContents contents) => Of(contents.Portions.Select(p => new MixPart(p.Material, Mixing.Parts.Of(p.Ml))));

    /// <summary>
    /// The fewest whole parts that say the same to within a share: what was split and measured to a ten-thousandth of a
    /// millilitre is 12 + 8 + 5 again, and not 222 077 + 148 051 + 92 532.
    /// </summary>
    /// <param name="within">How far each component's share of the whole may be off, above 0.</param>
    public Recipe Plain(double within = Measured)
    {
        var shares = Shares();
        for (var n = shares.Count; ; n++)
        {
            var counts = shares.Select(s => (long)Math.Max(1, Math.Round(s * n, MidpointRounding.AwayFromZero))).ToList();
            var all = (double)counts.Sum();
            if (counts.Select((c, i) => Math.Abs(c / all - shares[i])).Max() <= within)
                return Of(Parts.Select((p, i) => p with { Parts = Mixing.Parts.Of(counts[i]) }));
        }
    }

    /// <summary>Nobody could measure the difference to another recipe of the same materials.</summary>
    public bool IsNear(Recipe other)
    {
        if (other.Parts.Count != Parts.Count)
            return false;
        var theirs = other.Parts.Zip(other.Shares()).ToDictionary(p => p.First.Material.Id, p => p.Second);
        return Parts.Zip(Shares()).All(p => theirs.TryGetValue(p.First.Material.Id, out var share) && Math.Abs(share - p.Second) <= Measured);
    }

    /// <summary>Nobody measures nearer than this share of a pot.</summary>
    private const double Measured = 0.002;

    /// <summary>Share of the whole, 0..1, in the order of <see cref="Parts"/>.</summary>
    public IReadOnlyList<double> Shares()
    {
        var all = Parts.Sum(p => p.Parts.ToDouble());
        return Parts.Select(p => p.Parts.ToDouble() / all).ToList();
    }

    /// <summary>A pot of one ml to the part: exact, for asking about the mix itself.</summary>
    public PotContents Whole() => PotContents.Of(Parts.Select(p => new Portion(p.Material, p.Parts.ToDecimal())));

    /// <summary>So much of it, split by parts; volumes are rounded to what pots keep and add up to the whole.</summary>
    /// <param name="ml">All of it, at least 0.</param>
    public PotContents Fill(decimal ml)
    {
        // Taken from a thousandfold pot, the remainders fall as they do in every other split.
        var large = PotContents.Of(Parts.Select(p => new Portion(p.Material, p.Parts.ToDecimal() * Math.Max(1000, ml * 1000))));
        return large.Take(ml).Taken;
    }
}
