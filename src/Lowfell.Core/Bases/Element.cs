namespace Lowfell.Core.Bases;

/// <summary>What lies or stands on a base.</summary>
public enum ElementKind
{
    Rock, Cork, Tuft, Reed, Plank,
}

/// <summary>
/// A body seen from above: all that is nearer than its radius to a line of its length about its middle. Without length it is a disc. Millimetres; the turn in degrees.
/// </summary>
public readonly record struct Body(double X, double Y, double RadiusMm, double LengthMm = 0, double Turn = 0)
{
    public ((double X, double Y) From, (double X, double Y) To) Ends
    {
        get
        {
            if (LengthMm == 0)
                return ((X, Y), (X, Y));
            var (dx, dy) = (Math.Cos(Turn * Math.PI / 180) * LengthMm / 2, Math.Sin(Turn * Math.PI / 180) * LengthMm / 2);
            return ((X - dx, Y - dy), (X + dx, Y + dy));
        }
    }

    /// <summary>Free room between two bodies, mm; below 0 where they lie in each other.</summary>
    public double GapTo(Body other)
    {
        var apart = LengthMm == 0 && other.LengthMm == 0 ? Math.Sqrt((X - other.X) * (X - other.X) + (Y - other.Y) * (Y - other.Y)) : Apart(Ends, other.Ends);
        return apart - RadiusMm - other.RadiusMm;
    }

    private static double Apart(((double X, double Y) From, (double X, double Y) To) a, ((double X, double Y) From, (double X, double Y) To) b) =>
        Cross(a, b) ? 0 : Math.Min(Math.Min(ToLine(a.From, b), ToLine(a.To, b)), Math.Min(ToLine(b.From, a), ToLine(b.To, a)));

    private static double ToLine((double X, double Y) p, ((double X, double Y) From, (double X, double Y) To) line)
    {
        double dx = line.To.X - line.From.X, dy = line.To.Y - line.From.Y, long2 = dx * dx + dy * dy;
        var t = long2 == 0 ? 0 : Math.Clamp(((p.X - line.From.X) * dx + (p.Y - line.From.Y) * dy) / long2, 0, 1);
        double x = line.From.X + t * dx - p.X, y = line.From.Y + t * dy - p.Y;
        return Math.Sqrt(x * x + y * y);
    }

    private static bool Cross(((double X, double Y) From, (double X, double Y) To) a, ((double X, double Y) From, (double X, double Y) To) b)
    {
        static double Side((double X, double Y) p, (double X, double Y) q, (double X, double Y) r) => (q.X - p.X) * (r.Y - p.Y) - (q.Y - p.Y) * (r.X - p.X);
        return Side(a.From, a.To, b.From) * Side(a.From, a.To, b.To) < 0 && Side(b.From, b.To, a.From) * Side(b.From, b.To, a.To) < 0;
    }
}

/// <summary>
/// Something on a base. A half stone is the half of its disc that lies to the side of its turn: its flat side stands against the rim.
/// </summary>
public readonly record struct Element(ElementKind Kind, double X, double Y, double RadiusMm, double LengthMm = 0, double Turn = 0, bool Half = false)
{
    public Body Body => new(X, Y, RadiusMm, LengthMm, Half ? 0 : Turn);

    /// <summary>What it covers, mm².</summary>
    public double AreaMm2 => (Half ? 0.5 : 1) * Math.PI * RadiusMm * RadiusMm + 2 * RadiusMm * LengthMm;

    /// <summary>Whether it lies within the outline, so many mm from the rim.</summary>
    public bool IsWithin(BaseShape shape, double marginMm)
    {
        if (!Half)
        {
            var (from, to) = Body.Ends;
            return shape.Holds(from.X, from.Y, RadiusMm, marginMm) && shape.Holds(to.X, to.Y, RadiusMm, marginMm);
        }

        // The corners of its flat side, and its round one.
        for (var i = 0; i <= 6; i++)
        {
            var turn = (Turn - 90 + 30 * i) * Math.PI / 180;
            if (shape.Room(X + Math.Cos(turn) * RadiusMm, Y + Math.Sin(turn) * RadiusMm) < marginMm - 1e-6)
                return false;
        }

        return true;
    }
}

/// <summary>What stands on a base later: nothing may lie there.</summary>
public enum FlatKind
{
    Foot, Hull, Magnet,
}

/// <summary>A flat that is kept free, as a body.</summary>
public readonly record struct Flat(FlatKind Kind, double X, double Y, double WidthMm, double HeightMm, double Turn = 0)
{
    public Body Body => WidthMm >= HeightMm ? new(X, Y, HeightMm / 2, WidthMm - HeightMm, Turn) : new(X, Y, WidthMm / 2, HeightMm - WidthMm, Turn + 90);
}
