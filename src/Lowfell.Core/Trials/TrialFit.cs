using Lowfell.Core.Colour;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Trials;

/// <summary>What came of a fit: the parameters, and how much each observation was believed, 0..1.</summary>
public sealed record Fitted(IReadOnlyList<double> Parameters, IReadOnlyList<double> Weights);

/// <summary>
/// Fits the strengths of several materials to all fields of a trial together: damped least squares in CIELAB (Levenberg 1944, Quarterly of
/// Applied Mathematics 2) with the usual errors of an eye and of an entry as priors, and with Tukey's biweight on each field (Beaton and
/// Tukey 1974, Technometrics 16), so that one that was spoiled counts for nothing.
/// </summary>
public static class TrialFit
{
    private const int Rounds = 30, Reweighings = 8;
    private const double Nudge = 1e-3;

    /// <summary>From so many usual errors on a field is not believed at all.</summary>
    private const double Biweight = 4.685;

    /// <summary>Half of all errors of three channels lie within so many of one channel's deviation.</summary>
    private const double MedianOfThree = 1.538;

    /// <summary>An eye is never better than this, CIELAB units a channel: fields that agree by chance must not make it so.</summary>
    private const double LeastError = 0.5;

    /// <summary>The width of what is thought of a strength beforehand, in logarithms.</summary>
    public static readonly double Prior = Math.Log(Calibration.StrengthError);

    /// <summary>Fits.</summary>
    /// <param name="predict">CIELAB of every observed field for parameters; 0 of all is as it was thought before.</param>
    /// <param name="observed">What was seen there.</param>
    /// <param name="parameters">How many parameters.</param>
    /// <param name="low">The least each may be.</param>
    /// <param name="high">The most.</param>
    /// <exception cref="ArgumentException">Nothing observed, or bounds that are not as many as parameters.</exception>
    public static Fitted Of(Func<double[], IReadOnlyList<Lab>> predict, IReadOnlyList<Lab> observed, int parameters, IReadOnlyList<double> low, IReadOnlyList<double> high)
    {
        if (observed.Count == 0 || low.Count != parameters || high.Count != parameters)
            throw new ArgumentException("Something has to be observed, and every parameter bounded.", nameof(observed));
        var weights = Enumerable.Repeat(1.0, observed.Count).ToArray();
        var at = new double[parameters];
        for (var turn = 0; turn < Reweighings; turn++)
        {
            at = Descend(predict, observed, weights, at, low, high);
            var errors = predict(at).Zip(observed, (p, o) => p.DistanceTo(o)).ToArray();

            // The error of most fields, not of the worst one.
            var usual = Math.Max(LeastError, errors.Order().ElementAt(errors.Length / 2) / MedianOfThree);
            var next = errors.Select(e => e / usual / Math.Sqrt(3) is var u && u < Biweight ? Math.Pow(1 - u * u / (Biweight * Biweight), 2) : 0).ToArray();
            var moved = next.Zip(weights, (a, b) => Math.Abs(a - b)).Max();
            weights = next;
            if (moved < 1e-3)
                break;
        }

        return new(at, weights);
    }

    private static double[] Descend(Func<double[], IReadOnlyList<Lab>> predict, IReadOnlyList<Lab> observed, double[] weights, double[] start, IReadOnlyList<double> low, IReadOnlyList<double> high)
    {
        var prior = Math.Pow(Calibration.ReadingError / Prior, 2);
        double Cost(IReadOnlyList<Lab> here, double[] x) => here.Select((p, i) => weights[i] * Math.Pow(p.DistanceTo(observed[i]), 2)).Sum() + prior * x.Sum(v => v * v);
        var at = (double[])start.Clone();
        var seen = predict(at);
        var (cost, damping) = (Cost(seen, at), 1e-2);
        for (var round = 0; round < Rounds && damping < 1e8; round++)
        {
            var slopes = Slopes(predict, seen, at, high);
            var n = at.Length;
            var (normal, right) = (new double[n, n], new double[n]);
            for (var a = 0; a < n; a++)
            {
                for (var b = a; b < n; b++)
                    normal[a, b] = normal[b, a] = Enumerable.Range(0, observed.Count).Sum(i => weights[i] * slopes[a][i].Dot(slopes[b][i])) + (a == b ? prior : 0);
                right[a] = Enumerable.Range(0, observed.Count).Sum(i => weights[i] * slopes[a][i].Dot(observed[i] - seen[i])) - prior * at[a];
            }

            var moved = false;
            while (!moved && damping < 1e8)
            {
                var step = Solve(normal, right, damping);
                var there = at.Select((v, i) => Math.Clamp(v + step[i], low[i], high[i])).ToArray();
                var then = predict(there);
                var nextCost = Cost(then, there);
                if (nextCost < cost)
                {
                    moved = true;
                    if (cost - nextCost < 1e-9 * cost)
                        return there;
                    (at, seen, cost, damping) = (there, then, nextCost, damping / 10);
                }
                else
                {
                    damping *= 10;
                }
            }
        }

        return at;
    }

    private static Lab[][] Slopes(Func<double[], IReadOnlyList<Lab>> predict, IReadOnlyList<Lab> here, double[] at, IReadOnlyList<double> high) => Enumerable.Range(0, at.Length).Select(p =>
    {
        // At a bound the slope is taken from inside.
        var by = at[p] + Nudge > high[p] ? -Nudge : Nudge;
        var nudged = (double[])at.Clone();
        nudged[p] += by;
        return predict(nudged).Zip(here, (there, h) => new Lab((there.L - h.L) / by, (there.A - h.A) / by, (there.B - h.B) / by)).ToArray();
    }).ToArray();

    /// <summary>Gauss with pivots, on a few dozen unknowns at most; the diagonal grown by the damping.</summary>
    private static double[] Solve(double[,] normal, double[] right, double damping)
    {
        var n = right.Length;
        var (m, x) = ((double[,])normal.Clone(), (double[])right.Clone());
        for (var i = 0; i < n; i++)
            m[i, i] *= 1 + damping;
        for (var i = 0; i < n; i++)
        {
            var pivot = Enumerable.Range(i, n - i).MaxBy(r => Math.Abs(m[r, i]));
            for (var c = 0; c < n; c++)
                (m[i, c], m[pivot, c]) = (m[pivot, c], m[i, c]);
            (x[i], x[pivot]) = (x[pivot], x[i]);
            for (var r = i + 1; r < n; r++)
            {
                var f = m[r, i] / m[i, i];
                for (var c = i; c < n; c++)
                    m[r, c] -= f * m[i, c];
                x[r] -= f * x[i];
            }
        }

        for (var i = n - 1; i >= 0; i--)
            x[i] = (x[i] - Enumerable.Range(i + 1, n - i - 1).Sum(c => m[i, c] * x[c])) / m[i, i];
        return x;
    }
}
