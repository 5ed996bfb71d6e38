using System.Globalization;

namespace Lowfell.Core.Mixing;

/// <summary>Says a ratio as people do: small whole parts where it is one, and nearly so where drops made it something else.</summary>
public static class RatioWords
{
    /// <summary>The largest part that is still counted rather than measured.</summary>
    private const int MostCounted = 12;

    /// <summary>"4 : 1", or "≈ 4.1 : 1" when no small whole parts say it; "neat" without thinner.</summary>
    /// <param name="paint">Parts of paint, above 0.</param>
    /// <param name="thinner">Parts of thinner.</param>
    public static string Of(Parts paint, Parts thinner)
    {
        if (thinner.Numerator == 0)
            return "neat";
        var whole = Parts.Whole([paint, thinner]);
        if (whole.All(p => p.Numerator <= MostCounted))
            return $"{whole[0]} : {whole[1]}";
        var (more, less) = (paint.ToDouble(), thinner.ToDouble());
        return more >= less
            ? string.Create(CultureInfo.InvariantCulture, $"≈ {more / less:0.#} : 1")
            : string.Create(CultureInfo.InvariantCulture, $"≈ 1 : {less / more:0.#}");
    }
}
