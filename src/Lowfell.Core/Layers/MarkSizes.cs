namespace Lowfell.Core.Layers;

/// <summary>
/// Sizes of marks as shares of their mean: many small ones and few large, by a log-normal distribution that is cut into equal parts. A plan draws
/// from the parts without putting back, so that a whole round of draws has the mean exactly.
/// </summary>
public static class MarkSizes
{
    /// <summary>Parts of equal weight.</summary>
    public const int Parts = 8;

    /// <summary>The standard deviation of the logarithm of sizes at their wildest; what two of a pair tremble against each other, at most.</summary>
    private const double Wildest = 0.8, Trembles = 0.1;

    /// <summary>No mark is smaller than this share of the mean.</summary>
    private const double Smallest = 0.2;

    /// <summary>The mean of each part, smallest first; together their mean is 1.</summary>
    /// <param name="spread">0, all alike, to 1.</param>
    public static double[] OfParts(double spread)
    {
        var sigma = Wildest * Math.Clamp(spread, 0, 1);
        var raw = Enumerable.Range(0, Parts).Select(p => Enumerable.Range(0, 10).Average(s => Math.Exp(sigma * Quantile((p + (s + 0.5) / 10) / Parts)))).ToArray();
        var sum = raw.Sum();
        var shares = raw.Select(r => Math.Max(Smallest, r * Parts / sum)).ToArray();
        var mean = shares.Average();
        return shares.Select(s => s / mean).ToArray();
    }

    /// <summary>Share of a part by which two that follow each other may differ, one up and one down.</summary>
    public static double Tremble(double spread) => Trembles * Math.Clamp(spread, 0, 1);

    /// <summary>The mean of the squares, against the square of the mean: what areas are reckoned with. At least 1.</summary>
    public static double MeanSquare(double spread) => OfParts(spread).Average(s => s * s);

    /// <summary>Quantiles of the normal distribution, by Acklam's rational approximation (2003), to 1e-9.</summary>
    private static double Quantile(double p)
    {
        ReadOnlySpan<double> a = [-3.969683028665376e+01, 2.209460984245205e+02, -2.759285104469687e+02, 1.383577518672690e+02, -3.066479806614716e+01, 2.506628277459239e+00];
        ReadOnlySpan<double> b = [-5.447609879822406e+01, 1.615858368580409e+02, -1.556989798598866e+02, 6.680131188771972e+01, -1.328068155288572e+01];
        ReadOnlySpan<double> c = [-7.784894002430293e-03, -3.223964580411365e-01, -2.400758277161838e+00, -2.549732539343734e+00, 4.374664141464968e+00, 2.938163982698783e+00];
        ReadOnlySpan<double> d = [7.784695709041462e-03, 3.224671290700398e-01, 2.445134137142996e+00, 3.754408661907416e+00];
        const double Low = 0.02425;
        if (p < Low || p > 1 - Low)
        {
            var q = Math.Sqrt(-2 * Math.Log(Math.Min(p, 1 - p)));
            var x = (((((c[0] * q + c[1]) * q + c[2]) * q + c[3]) * q + c[4]) * q + c[5]) / ((((d[0] * q + d[1]) * q + d[2]) * q + d[3]) * q + 1);
            return p < Low ? x : -x;
        }

        var r = p - 0.5;
        var s = r * r;
        return (((((a[0] * s + a[1]) * s + a[2]) * s + a[3]) * s + a[4]) * s + a[5]) * r / (((((b[0] * s + b[1]) * s + b[2]) * s + b[3]) * s + b[4]) * s + 1);
    }
}
