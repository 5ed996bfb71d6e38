using Lowfell.Core.Colour;

namespace Lowfell.Core.Layers;

/// <summary>
/// The colours between which nine hands of ten end at one place, when every layer is laid thin, usual or heavy by chance.
/// </summary>
/// <param name="Thin">Where thin hands end.</param>
/// <param name="Heavy">Where heavy hands end.</param>
/// <param name="Difference">CIEDE2000 between the two.</param>
/// <param name="Decides">Index of the layer that causes most of it; -1 where no layer does.</param>
/// <param name="Share">How much of the difference that layer causes alone, CIEDE2000.</param>
/// <param name="Aside">How far an end may lie beside the way from thin to heavy, in CIELAB.</param>
public readonly record struct HandRange(Seen Thin, Seen Heavy, double Difference, int Decides, double Share, double Aside)
{
    /// <summary>Less than this beside the way is nothing to the eye.</summary>
    private const double LeastAside = 2;

    /// <summary>Whether a colour lies in the range.</summary>
    public bool Holds(Lab lab)
    {
        Lab way = Heavy.Lab - Thin.Lab, from = lab - Thin.Lab;
        var length = way.Dot(way);
        var along = length > 0 ? from.Dot(way) / length : 0;
        var aside = new Lab(from.L - along * way.L, from.A - along * way.A, from.B - along * way.B);
        return along is >= 0 and <= 1 && aside.Dot(aside) <= Math.Pow(Math.Max(LeastAside, Aside), 2);
    }
}

/// <summary>One range for each position of a relief.</summary>
public readonly record struct HandRangeSplit(HandRange Raised, HandRange Field, HandRange Recess)
{
    public HandRange this[Position position] => position switch
    {
        Position.Raised => Raised,
        Position.Field => Field,
        _ => Recess,
    };
}
