using Lowfell.Core.Colour;

namespace Lowfell.Core.Layers;

/// <summary>A colour at one position, as seen and as measured by difference formulas.</summary>
public readonly record struct Seen(SrgbColour Colour, Lab Lab)
{
    internal static Seen Of(ReadOnlySpan<double> reflectance)
    {
        var linear = Observer.ToLinear(reflectance);
        return new Seen(linear.ToSrgb(), Lab.FromXyz(Observer.ToXyz(linear)));
    }
}

/// <summary>One colour for each position of a relief.</summary>
public readonly record struct SeenSplit(Seen Raised, Seen Field, Seen Recess)
{
    public Seen this[Position position] => position switch
    {
        Position.Raised => Raised,
        Position.Field => Field,
        _ => Recess,
    };

    /// <summary>CIEDE2000 between two such triples, position by position.</summary>
    public Split DifferenceTo(SeenSplit other) => new(
        ColourDifference.Ciede2000(Raised.Lab, other.Raised.Lab),
        ColourDifference.Ciede2000(Field.Lab, other.Field.Lab),
        ColourDifference.Ciede2000(Recess.Lab, other.Recess.Lab));
}

/// <summary>One part of a zone: the places that make it one, the share of the zone it takes in, and its colours, dry and while the last layer is wet.</summary>
public sealed record PartSeen(IReadOnlyList<Region> Places, double Share, SeenSplit Seen, SeenSplit Wet);

/// <summary>What a surface looks like after one layer.</summary>
public sealed record LayerPrediction
{
    /// <summary>Each position over the whole zone.</summary>
    public required SeenSplit Seen { get; init; }

    /// <summary>Mean over the zone's area shares: what the eye makes of it from the table.</summary>
    public required Seen Average { get; init; }

    /// <summary>Darker, deeper colours while the layer is wet; the same as dry for layers that do not change on drying.</summary>
    public required SeenSplit Wet { get; init; }

    /// <summary>CIEDE2000 to the layer below at each position, where the layer lies.</summary>
    public required Split Change { get; init; }

    /// <summary>Dry film left, um, averaged over each position.</summary>
    public required Split DryFilmUm { get; init; }

    /// <summary>Share of each position covered, 0..1.</summary>
    public required Split Cover { get; init; }

    public Seen Raised => Seen.Raised;
    public Seen Field => Seen.Field;
    public Seen Recess => Seen.Recess;

    public double LargestChange => Math.Max(Change.Raised, Math.Max(Change.Field, Change.Recess));

    public Seen At(Position position) => Seen[position];
}
