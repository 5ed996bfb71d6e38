namespace Lowfell.Core.Colour;

/// <summary>How far apart two colours look.</summary>
public static class ColourDifference
{
    private static readonly double Pow25To7 = Math.Pow(25, 7);

    // Fixed angles of the formula's weighting of hue, as cosines and sines.
    private static readonly (double Cos, double Sin) at6 = Angle(6), at30 = Angle(30), at63 = Angle(63), at275 = Angle(275);

    /// <summary>
    /// CIEDE2000 with kL = kC = kH = 1. About 1 is the least that can be seen side by side.
    /// Hues are carried as directions rather than angles: the bisector of two directions is the formula's mean hue without
    /// its cases for turning past 360 degrees, and multiples of an angle need no further cosine.
    /// Source: Sharma, Wu and Dalal (2005), Color Research &amp; Application 30.
    /// </summary>
    public static double Ciede2000(Lab first, Lab second)
    {
        if (first == second)
            return 0;
        var g = 0.5 * (1 - Saturated((first.Chroma + second.Chroma) / 2));
        var a1 = first.A * (1 + g);
        var a2 = second.A * (1 + g);
        var c1 = Math.Sqrt(a1 * a1 + first.B * first.B);
        var c2 = Math.Sqrt(a2 * a2 + second.B * second.B);
        var (cos, sin, deltaH) = MeanHue(a1, first.B, c1, a2, second.B, c2);

        var cos2 = cos * cos - sin * sin;
        var sin2 = 2 * cos * sin;
        var cos3 = cos2 * cos - sin2 * sin;
        var sin3 = sin2 * cos + cos2 * sin;
        var cos4 = cos2 * cos2 - sin2 * sin2;
        var sin4 = 2 * cos2 * sin2;
        var t = 1
            - 0.17 * (cos * at30.Cos + sin * at30.Sin)
            + 0.24 * cos2
            + 0.32 * (cos3 * at6.Cos - sin3 * at6.Sin)
            - 0.20 * (cos4 * at63.Cos + sin4 * at63.Sin);

        var meanL = (first.L + second.L) / 2;
        var meanC = (c1 + c2) / 2;
        var fromMid = (meanL - 50) * (meanL - 50);
        var l = (second.L - first.L) / LightnessWeight(fromMid);
        var c = (c2 - c1) / (1 + 0.045 * meanC);
        var h = deltaH / (1 + 0.015 * meanC * t);
        var turn = BlueTurn(cos, sin);
        var rt = turn == 0 ? 0 : -Math.Sin(Radians(2 * turn)) * 2 * Saturated(meanC);
        return Math.Sqrt(Math.Max(0, l * l + c * c + h * h + rt * c * h));
    }

    /// <summary>
    /// Whether a CIEDE2000 within <paramref name="room"/> is possible: a quick no for a search. Never no for a pair that is within,
    /// sometimes yes for one that is not. Lightness is weighted by 1.75 at most; chroma and hue differences together are at
    /// least the distance in a and b and are weighted by 1 + 0.045 times the mean chroma at most; only blues have a term
    /// between the two, so that pairs with b above 0 can be judged so.
    /// </summary>
    public static bool MayBeWithin(double room, Lab first, Lab second)
    {
        if (first.B <= 0 || second.B <= 0)
            return true;
        double l = second.L - first.L, a = second.A - first.A, b = second.B - first.B;

        // a is stretched by 1.5 at most before chroma is taken, and the mean chroma cannot pass that of one plus half the distance.
        var distance = Math.Sqrt(a * a + b * b);
        var chromaWeight = 1 + 0.045 * 1.5 * (first.Chroma + distance / 2);
        var (lightness, chroma) = (l / MostLightnessWeight, distance / chromaWeight);
        return lightness * lightness + chroma * chroma <= room * room * (1 + YellowTurn);
    }

    /// <summary>The luminances outside of which no colour can be within <paramref name="room"/> of another.</summary>
    public static (double Darkest, double Lightest) LuminancesWithin(double room, Lab colour) =>
        (Lab.Luminance(colour.L - MostLightnessWeight * room), Lab.Luminance(colour.L + MostLightnessWeight * room));

    private const double MostLightnessWeight = 1.75;

    /// <summary>More than the blue term can still amount to for hues from 0 to 180 degrees.</summary>
    private const double YellowTurn = 1e-3;

    private static double LightnessWeight(double fromMid) => 1 + 0.015 * fromMid / Math.Sqrt(20 + fromMid);

    /// <summary>sqrt(c^7 / (c^7 + 25^7)): 0 for greys, near 1 for vivid colours.</summary>
    private static double Saturated(double chroma)
    {
        var c3 = chroma * chroma * chroma;
        var c7 = c3 * c3 * chroma;
        return Math.Sqrt(c7 / (c7 + Pow25To7));
    }

    /// <summary>Direction of the mean hue, and the hue difference as a chord.</summary>
    private static (double Cos, double Sin, double DeltaH) MeanHue(double a1, double b1, double c1, double a2, double b2, double c2)
    {
        if (c1 * c2 == 0)
            return c1 + c2 == 0 ? (1, 0, 0) : ((a1 + a2) / (c1 + c2), (b1 + b2) / (c1 + c2), 0);
        double x = a1 / c1 + a2 / c2, y = b1 / c1 + b2 / c2;
        var length = Math.Sqrt(x * x + y * y);
        if (length < 1e-3)
            return BetweenOpposites(Hue(a1, b1), Hue(a2, b2), Math.Sqrt(c1 * c2));
        return (x / length, y / length, (a1 * b2 - a2 * b1) / (Math.Sqrt(c1 * c2) * length / 2));
    }

    /// <summary>Opposite hues have no bisector to speak of; the published cases on angles decide.</summary>
    private static (double Cos, double Sin, double DeltaH) BetweenOpposites(double h1, double h2, double meanChroma)
    {
        var step = h2 - h1;
        var mean = (h1 + h2) / 2;
        if (Math.Abs(step) > 180)
        {
            step -= Math.Sign(step) * 360;
            mean += 180;
        }

        var (cos, sin) = Angle(mean);
        return (cos, sin, 2 * meanChroma * Math.Sin(Radians(step / 2)));
    }

    /// <summary>Degrees by which blues are turned; nothing beyond 125 degrees from 275, where the published bell is below 1e-9.</summary>
    private static double BlueTurn(double cos, double sin)
    {
        if (cos * at275.Cos + sin * at275.Sin < -0.57)
            return 0;
        var offset = (Hue(cos, sin) - 275) / 25;
        return 30 * Math.Exp(-offset * offset);
    }

    private static double Radians(double degrees) => degrees * (Math.PI / 180);

    private static (double Cos, double Sin) Angle(double degrees) => (Math.Cos(Radians(degrees)), Math.Sin(Radians(degrees)));

    private static double Hue(double a, double b)
    {
        var h = Math.Atan2(b, a) * (180 / Math.PI);
        return h < 0 ? h + 360 : h;
    }
}
