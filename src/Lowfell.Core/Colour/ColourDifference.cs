namespace Lowfell.Core.Colour;

/// <summary>How far apart two colours look.</summary>
public static class ColourDifference
{
    private static readonly double Pow25To7 = Math.Pow(25, 7);

    /// <summary>
    /// CIEDE2000 with kL = kC = kH = 1. About 1 is the least that can be seen side by side.
    /// Source: Sharma, Wu and Dalal (2005), Color Research &amp; Application 30.
    /// </summary>
    public static double Ciede2000(Lab first, Lab second)
    {
        var meanChroma = (first.Chroma + second.Chroma) / 2;
        var meanChroma7 = Math.Pow(meanChroma, 7);
        var g = 0.5 * (1 - Math.Sqrt(meanChroma7 / (meanChroma7 + Pow25To7)));
        var a1 = first.A * (1 + g);
        var a2 = second.A * (1 + g);
        var c1 = Math.Sqrt(a1 * a1 + first.B * first.B);
        var c2 = Math.Sqrt(a2 * a2 + second.B * second.B);
        var h1 = Hue(a1, first.B);
        var h2 = Hue(a2, second.B);

        var deltaL = second.L - first.L;
        var deltaC = c2 - c1;
        var hueStep = c1 * c2 == 0 ? 0 : Wrap(h2 - h1);
        var deltaH = 2 * Math.Sqrt(c1 * c2) * Math.Sin(Radians(hueStep / 2));

        var meanL = (first.L + second.L) / 2;
        var meanC = (c1 + c2) / 2;
        var meanH = MeanHue(h1, h2, c1 * c2 == 0);

        var t = 1
            - 0.17 * Math.Cos(Radians(meanH - 30))
            + 0.24 * Math.Cos(Radians(2 * meanH))
            + 0.32 * Math.Cos(Radians(3 * meanH + 6))
            - 0.20 * Math.Cos(Radians(4 * meanH - 63));
        var offset = (meanH - 275) / 25;
        var deltaTheta = 30 * Math.Exp(-offset * offset);
        var meanC7 = Math.Pow(meanC, 7);
        var rc = 2 * Math.Sqrt(meanC7 / (meanC7 + Pow25To7));
        var fromMid = (meanL - 50) * (meanL - 50);
        var sl = 1 + 0.015 * fromMid / Math.Sqrt(20 + fromMid);
        var sc = 1 + 0.045 * meanC;
        var sh = 1 + 0.015 * meanC * t;
        var rt = -Math.Sin(Radians(2 * deltaTheta)) * rc;

        var l = deltaL / sl;
        var c = deltaC / sc;
        var h = deltaH / sh;
        return Math.Sqrt(Math.Max(0, l * l + c * c + h * h + rt * c * h));
    }

    private static double Radians(double degrees) => degrees * (Math.PI / 180);

    private static double Hue(double a, double b)
    {
        if (a == 0 && b == 0)
            return 0;
        var h = Math.Atan2(b, a) * (180 / Math.PI);
        return h < 0 ? h + 360 : h;
    }

    private static double Wrap(double step) => step > 180 ? step - 360 : step < -180 ? step + 360 : step;

    private static double MeanHue(double h1, double h2, bool neutral)
    {
        if (neutral)
            return h1 + h2;
        var sum = h1 + h2;
        if (Math.Abs(h1 - h2) <= 180)
            return sum / 2;
        return sum < 360 ? (sum + 360) / 2 : (sum - 360) / 2;
    }
}
