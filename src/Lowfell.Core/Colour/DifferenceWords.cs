namespace Lowfell.Core.Colour;

/// <summary>Says a colour difference as people do.</summary>
public static class DifferenceWords
{
    /// <summary>A hue turned by less than this share of the whole difference is not worth a word.</summary>
    private const double Telling = 0.35;

    /// <summary>How much, and which way the second lies from the first: "plainly darker and redder".</summary>
    public static string Of(Lab from, Lab to)
    {
        var difference = ColourDifference.Ciede2000(from, to);
        if (difference < 1)
            return "the same to the eye";
        return $"{HowMuch(difference)} {string.Join(" and ", WhichWay(from, to))}";
    }

    private static string HowMuch(double difference) => difference switch
    {
        < 2 => "a trace",
        < 4 => "a little",
        < 8 => "plainly",
        < 16 => "much",
        _ => "altogether",
    };

    private static IEnumerable<string> WhichWay(Lab from, Lab to)
    {
        double l = to.L - from.L, a = to.A - from.A, b = to.B - from.B;
        var whole = Math.Sqrt(l * l + a * a + b * b);
        if (Math.Abs(l) > Telling * whole)
            yield return l < 0 ? "darker" : "lighter";
        if (Math.Abs(a) > Telling * whole && Math.Abs(a) >= Math.Abs(b))
            yield return a < 0 ? "greener" : "redder";
        if (Math.Abs(b) > Telling * whole && Math.Abs(b) > Math.Abs(a))
            yield return b < 0 ? "bluer" : "yellower";
    }
}
