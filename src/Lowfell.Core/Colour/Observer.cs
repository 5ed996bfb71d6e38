using System.Numerics;

namespace Lowfell.Core.Colour;

/// <summary>
/// The CIE 1931 2-degree observer under illuminant D65, 36 bands from 380 to 730 nm by 10 nm,
/// and what follows from it: white point, sRGB matrices, colour of a reflectance.
/// Sources: ISO/CIE 11664-1 and 11664-2; IEC 61966-2-1 for the primaries.
/// </summary>
public static class Observer
{
    /// <summary>Number of wavelength bands.</summary>
    public const int Bands = 36;

    private static readonly double[] xBar =
    [
        0.001368, 0.004243, 0.01431, 0.04351, 0.13438, 0.2839, 0.34828, 0.3362, 0.2908,
        0.19536, 0.09564, 0.03201, 0.0049, 0.0093, 0.06327, 0.1655, 0.2904, 0.43345,
        0.5945, 0.7621, 0.9163, 1.0263, 1.0622, 1.0026, 0.85445, 0.6424, 0.4479,
        0.2835, 0.1649, 0.0874, 0.04677, 0.0227, 0.011359, 0.00579, 0.002899, 0.00144,
    ];

    private static readonly double[] yBar =
    [
        0.000039, 0.00012, 0.000396, 0.00121, 0.004, 0.0116, 0.023, 0.038, 0.06,
        0.09098, 0.13902, 0.20802, 0.323, 0.503, 0.71, 0.862, 0.954, 0.99495,
        0.995, 0.952, 0.87, 0.757, 0.631, 0.503, 0.381, 0.265, 0.175,
        0.107, 0.061, 0.032, 0.017, 0.00821, 0.004102, 0.002091, 0.001047, 0.00052,
    ];

    private static readonly double[] zBar =
    [
        0.00645, 0.02005, 0.06785, 0.2074, 0.6456, 1.3856, 1.74706, 1.77211, 1.6692,
        1.28764, 0.81295, 0.46518, 0.272, 0.1582, 0.07825, 0.04216, 0.0203, 0.00875,
        0.0039, 0.0021, 0.00165, 0.0011, 0.0008, 0.00034, 0.00019, 0.00005, 0.00002,
        0, 0, 0, 0, 0, 0, 0, 0, 0,
    ];

    private static readonly double[] d65 =
    [
        49.9755, 54.6482, 82.7549, 91.486, 93.4318, 86.6823, 104.865, 117.008, 117.812,
        114.861, 115.923, 108.811, 109.354, 107.802, 104.79, 107.689, 104.405, 104.046,
        100, 96.3342, 95.788, 88.6856, 90.0062, 89.5991, 87.6987, 83.2886, 83.6992,
        80.0268, 80.2146, 82.2778, 78.2842, 69.7213, 71.6091, 74.349, 61.604, 69.8856,
    ];

    private static readonly double norm = 1 / Dot(d65, yBar);

    /// <summary>Tristimulus values of the perfect white (reflectance 1 in every band); Y is 1.</summary>
    public static readonly Xyz White = new(norm * Dot(d65, xBar), 1, norm * Dot(d65, zBar));

    // Rebuilt from the sRGB primaries and this very white, so that flat spectra are exactly neutral;
    // the usual four-digit matrix would tint greys by up to 0.1.
    private static readonly double[,] rgbToXyz = FromPrimaries(White);
    private static readonly double[,] xyzToRgb = Matrix3.Invert(rgbToXyz);

    private static readonly double[] toRed = Row(0);
    private static readonly double[] toGreen = Row(1);
    private static readonly double[] toBlue = Row(2);
    private static readonly double[] toLuminance = d65.Zip(yBar, (light, eye) => norm * light * eye).ToArray();

    /// <summary>The three rows that turn 36 reflectances into linear red, green and blue.</summary>
    internal static ReadOnlySpan<double> RowOf(int channel) => channel switch { 0 => toRed, 1 => toGreen, _ => toBlue };

    /// <summary>The row that turns 36 reflectances into luminance.</summary>
    internal static ReadOnlySpan<double> LuminanceRow => toLuminance;

    /// <summary>Linear sRGB of a reflectance of 36 bands, 0..1; out-of-gamut channels are not clipped.</summary>
    public static LinearRgb ToLinear(ReadOnlySpan<double> reflectance)
    {
        var r = Vector<double>.Zero;
        var g = Vector<double>.Zero;
        var b = Vector<double>.Zero;
        var i = 0;
        for (; i <= Bands - Vector<double>.Count; i += Vector<double>.Count)
        {
            var v = new Vector<double>(reflectance[i..]);
            r += new Vector<double>(toRed, i) * v;
            g += new Vector<double>(toGreen, i) * v;
            b += new Vector<double>(toBlue, i) * v;
        }

        double red = Vector.Sum(r), green = Vector.Sum(g), blue = Vector.Sum(b);
        for (; i < Bands; i++)
        {
            red += toRed[i] * reflectance[i];
            green += toGreen[i] * reflectance[i];
            blue += toBlue[i] * reflectance[i];
        }

        return new LinearRgb(red, green, blue);
    }

    /// <summary>Tristimulus values of linear sRGB.</summary>
    public static Xyz ToXyz(LinearRgb c) => new(
        rgbToXyz[0, 0] * c.R + rgbToXyz[0, 1] * c.G + rgbToXyz[0, 2] * c.B,
        rgbToXyz[1, 0] * c.R + rgbToXyz[1, 1] * c.G + rgbToXyz[1, 2] * c.B,
        rgbToXyz[2, 0] * c.R + rgbToXyz[2, 1] * c.G + rgbToXyz[2, 2] * c.B);

    /// <summary>Linear sRGB of tristimulus values; the inverse of <see cref="ToXyz"/>.</summary>
    public static LinearRgb ToLinear(Xyz c) => new(
        xyzToRgb[0, 0] * c.X + xyzToRgb[0, 1] * c.Y + xyzToRgb[0, 2] * c.Z,
        xyzToRgb[1, 0] * c.X + xyzToRgb[1, 1] * c.Y + xyzToRgb[1, 2] * c.Z,
        xyzToRgb[2, 0] * c.X + xyzToRgb[2, 1] * c.Y + xyzToRgb[2, 2] * c.Z);

    /// <summary>Luminance Y, 0..1, of a reflectance of 36 bands.</summary>
    public static double Luminance(ReadOnlySpan<double> reflectance)
    {
        var sum = Vector<double>.Zero;
        var i = 0;
        for (; i <= Bands - Vector<double>.Count; i += Vector<double>.Count)
            sum += new Vector<double>(toLuminance, i) * new Vector<double>(reflectance[i..]);
        var luminance = Vector.Sum(sum);
        for (; i < Bands; i++)
            luminance += toLuminance[i] * reflectance[i];
        return luminance;
    }

    private static double[] Row(int channel)
    {
        var row = new double[Bands];
        for (var i = 0; i < Bands; i++)
            row[i] = norm * d65[i] * (xyzToRgb[channel, 0] * xBar[i] + xyzToRgb[channel, 1] * yBar[i] + xyzToRgb[channel, 2] * zBar[i]);
        return row;
    }

    private static double[,] FromPrimaries(Xyz white)
    {
        double[] x = [0.64, 0.30, 0.15], y = [0.33, 0.60, 0.06];
        var primaries = new double[3, 3];
        for (var c = 0; c < 3; c++)
        {
            primaries[0, c] = x[c] / y[c];
            primaries[1, c] = 1;
            primaries[2, c] = (1 - x[c] - y[c]) / y[c];
        }

        var inverse = Matrix3.Invert(primaries);
        for (var c = 0; c < 3; c++)
        {
            var scale = inverse[c, 0] * white.X + inverse[c, 1] * white.Y + inverse[c, 2] * white.Z;
            for (var r = 0; r < 3; r++)
                primaries[r, c] *= scale;
        }

        return primaries;
    }

    private static double Dot(double[] a, double[] b)
    {
        var sum = 0.0;
        for (var i = 0; i < a.Length; i++)
            sum += a[i] * b[i];
        return sum;
    }
}
