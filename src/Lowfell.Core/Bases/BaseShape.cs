namespace Lowfell.Core.Bases;

/// <summary>The outline of a base, seen from above. A tile joins others, so that it has no rim.</summary>
public enum Outline
{
    Round, Oval, Square, Rectangle, Tile,
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

    /// <summary>Half of the shorter side, mm: what distances are compared with.</summary>
    public double ReachMm => Math.Min(HalfWidth, HalfHeight);

    /// <summary>The half sides of the box around it, mm.</summary>
    public (double X, double Y) Half => (HalfWidth, HalfHeight);

    /// <summary>Whether a point lies within the outline.</summary>
    public bool Has(double x, double y) => IsCurved ? x / HalfWidth * (x / HalfWidth) + y / HalfHeight * (y / HalfHeight) <= 1 : Math.Abs(x) <= HalfWidth && Math.Abs(y) <= HalfHeight;

    /// <summary>How far a point lies within the outline, mm; below 0 outside of it.</summary>
    public double Room(double x, double y) => Outline switch
    {
        Outline.Round => HalfWidth - Math.Sqrt(x * x + y * y),
        Outline.Oval => (Has(x, y) ? 1 : -1) * ToEllipse(Math.Abs(x), Math.Abs(y), HalfWidth, HalfHeight),
        _ => Math.Min(HalfWidth - Math.Abs(x), HalfHeight - Math.Abs(y)),
    };

    /// <summary>Whether a disc lies wholly within the outline, so many mm from the rim.</summary>
    public bool Holds(double x, double y, double radiusMm, double marginMm) => Room(x, y) >= radiusMm + marginMm;

    /// <summary>The direction straight in from the rim, where that is nearest to a point: of length 1.</summary>
    public (double X, double Y) Inward(double x, double y)
    {
        // The slope of the room, by a small step either way.
        const double Step = 1e-3;
        double gx = Room(x + Step, y) - Room(x - Step, y), gy = Room(x, y + Step) - Room(x, y - Step);
        var long_ = Math.Sqrt(gx * gx + gy * gy);
        return long_ < 1e-12 ? (0, 1) : (gx / long_, gy / long_);
    }

    /// <summary>Distance of a point of the first quadrant to an ellipse, by bisection of the one root there is (Eberly 2013, Distance from a Point to an Ellipse).</summary>
    private static double ToEllipse(double x, double y, double a, double b)
    {
        if (a < b)
            (x, y, a, b) = (y, x, b, a);
        if (y < 1e-12)
        {
            // On the longer axis the nearest point may lie to either side of it.
            var along = a * a - b * b;
            if (a * x < along)
            {
                var cos = a * x / along;
                double px = a * cos, py = b * Math.Sqrt(Math.Max(0, 1 - cos * cos));
                return Math.Sqrt((px - x) * (px - x) + py * py);
            }

            return Math.Abs(x - a);
        }

        double low = b * y - b * b, high = b * y - b * b + Math.Sqrt(a * a * x * x + b * b * y * y) + a;
        for (var n = 0; n < 60 && high - low > 1e-7 * a * a; n++)
        {
            var t = (low + high) / 2;
            double u = a * x / (t + a * a), v = b * y / (t + b * b);
            if (u * u + v * v > 1)
                low = t;
            else
                high = t;
        }

        var at = (low + high) / 2;
        double nx = a * a * x / (at + a * a), ny = b * b * y / (at + b * b);
        return Math.Sqrt((nx - x) * (nx - x) + (ny - y) * (ny - y));
    }
}
