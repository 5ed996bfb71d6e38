namespace Lowfell.Core.Colour;

/// <summary>CIELAB (ISO/CIE 11664-4) under the white point of <see cref="Observer"/>.</summary>
public readonly record struct Lab(double L, double A, double B)
{
    private const double Epsilon = 216.0 / 24389.0;
    private const double Kappa = 24389.0 / 27.0;

    /// <summary>CIELAB of tristimulus values.</summary>
    public static Lab FromXyz(Xyz xyz)
    {
        var fx = F(xyz.X / Observer.White.X);
        var fy = F(xyz.Y / Observer.White.Y);
        var fz = F(xyz.Z / Observer.White.Z);
        return new Lab(116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz));
    }

    /// <summary>Tristimulus values of CIELAB, the inverse of <see cref="FromXyz"/>.</summary>
    public static Xyz ToXyz(Lab lab)
    {
        var fy = (lab.L + 16) / 116;
        return new Xyz(Observer.White.X * Cube(fy + lab.A / 500), Cube(fy), Observer.White.Z * Cube(fy - lab.B / 200));
    }

    /// <summary>Luminance Y that has this lightness.</summary>
    public static double Luminance(double lightness) => Cube((lightness + 16) / 116);

    private static double Cube(double f) => f * f * f > Epsilon ? f * f * f : (116 * f - 16) / Kappa;

    public static Lab operator +(Lab a, Lab b) => new(a.L + b.L, a.A + b.A, a.B + b.B);

    public static Lab operator -(Lab a, Lab b) => new(a.L - b.L, a.A - b.A, a.B - b.B);

    /// <summary>As vectors: how far one goes along the other, times its length.</summary>
    public double Dot(Lab other) => L * other.L + A * other.A + B * other.B;

    /// <summary>Chroma, the distance from neutral.</summary>
    public double Chroma => Math.Sqrt(A * A + B * B);

    /// <summary>CIE76, the plain distance: quick, and good enough to sort by.</summary>
    public double DistanceTo(Lab other) => Math.Sqrt((L - other.L) * (L - other.L) + (A - other.A) * (A - other.A) + (B - other.B) * (B - other.B));

    private static double F(double t) => t > Epsilon ? Math.Cbrt(t) : (Kappa * t + 16) / 116;
}
