namespace Lowfell.Core.Bases;

/// <summary>The outline of a base, seen from above.</summary>
public enum Outline
{
    Round, Oval, Square, Rectangle,
}

/// <summary>
/// The top of a base: true size in mm, its middle at 0, 0. A round or square one is as high as it is wide.
/// </summary>
public readonly record struct BaseShape(Outline Outline, double WidthMm, double HeightMm)
{
    public const double LeastMm = 15, MostMm = 300;

    private bool IsCurved => Outline is Outline.Round or Outline.Oval;

    private double HalfWidth => WidthMm / 2;

    private double HalfHeight => Outline is Outline.Round or Outline.Square ? WidthMm / 2 : HeightMm / 2;

    /// <summary>Its area, mm².</summary>
    public double AreaMm2 => IsCurved ? Math.PI * HalfWidth * HalfHeight : 4 * HalfWidth * HalfHeight;

    /// <summary>The same without a margin all round, mm².</summary>
    public double AreaWithin(double marginMm)
    {
        double w = Math.Max(0, HalfWidth - marginMm), h = Math.Max(0, HalfHeight - marginMm);
        return IsCurved ? Math.PI * w * h : 4 * w * h;
    }

    /// <summary>Half of the shorter side, mm: what distances are compared with.</summary>
    public double ReachMm => Math.Min(HalfWidth, HalfHeight);

    /// <summary>Whether a disc lies wholly within the outline, so many mm from the rim.</summary>
    public bool Holds(double x, double y, double radiusMm, double marginMm)
    {
        double w = HalfWidth - marginMm - radiusMm, h = HalfHeight - marginMm - radiusMm;
        if (w < 0 || h < 0)
            return false;

        // An ellipse drawn in by the radius on both sides lies within the true parallel of it.
        return IsCurved ? w > 0 && h > 0 && x * x / (w * w) + y * y / (h * h) <= 1 : Math.Abs(x) <= w && Math.Abs(y) <= h;
    }

    /// <summary>The half sides of the box around it, mm.</summary>
    public (double X, double Y) Half => (HalfWidth, HalfHeight);
}

/// <summary>Where feet, a hull or a magnet stand: nothing may lie there.</summary>
public readonly record struct Flat(double X, double Y, double RadiusMm);

public enum ElementKind
{
    Rock, Tuft, Reed,
}

/// <summary>Something that stands on a base, as a disc from above.</summary>
public readonly record struct Element(ElementKind Kind, double X, double Y, double RadiusMm)
{
    public double DistanceTo(Element other) => Math.Sqrt((X - other.X) * (X - other.X) + (Y - other.Y) * (Y - other.Y));
}

/// <summary>What is wanted on every base of a tray.</summary>
/// <param name="Shape">Of all bases.</param>
/// <param name="MarginMm">The rim, kept free, by how they are handled.</param>
/// <param name="Flats">Kept free as well.</param>
/// <param name="Rocks">How many on the mean.</param>
/// <param name="Tufts">Tufts, in several sizes.</param>
/// <param name="Reeds">Reeds; they stand together.</param>
/// <param name="GapMm">The least room between two things.</param>
public sealed record BaseWish(BaseShape Shape, double MarginMm, IReadOnlyList<Flat> Flats, double Rocks, double Tufts, double Reeds, double GapMm = 0.5);

/// <summary>One base as it is laid out.</summary>
public sealed record BasePlan(IReadOnlyList<Element> Elements)
{
    /// <summary>Where the weight of the composition lies, by area, as a share of the reach: 0 is the middle.</summary>
    public (double X, double Y) Weight(BaseShape shape)
    {
        var all = Elements.Sum(e => e.RadiusMm * e.RadiusMm);
        return all == 0 ? (0, 0) : (Elements.Sum(e => e.X * e.RadiusMm * e.RadiusMm) / all / shape.ReachMm, Elements.Sum(e => e.Y * e.RadiusMm * e.RadiusMm) / all / shape.ReachMm);
    }
}
