using System.Numerics;
using System.Runtime.InteropServices;

namespace Lowfell.Core.Colour;

/// <summary>
/// Two-constant optics of paint films. K absorbs, S scatters, both per unit thickness; only K*X and S*X matter.
/// All reflectances are internal: there is no surface correction.
/// Sources: Kubelka and Munk (1931), Zeitschrift fuer technische Physik 12; Kubelka (1948), J. Opt. Soc. Am. 38.
/// </summary>
public static class KubelkaMunk
{
    /// <summary>K/S of an endlessly thick film of reflectance 0..1.</summary>
    public static double RatioFromMasstone(double reflectance) =>
        (1 - reflectance) * (1 - reflectance) / (2 * reflectance);

    /// <summary>Reflectance of an endlessly thick film from K/S.</summary>
    public static double Masstone(double ratio) => 1 / (1 + ratio + Math.Sqrt(ratio * (ratio + 2)));

    /// <summary>
    /// Reflectance of one band of a film of thickness <paramref name="x"/> over a ground.
    /// Written so that no limit (K = 0, S = 0, thin, thick) divides zero by zero, overflows or cancels.
    /// </summary>
    public static double Film(double k, double s, double x, double ground)
    {
        var beta = Math.Sqrt(k * (k + 2 * s));
        var depth = beta * x;
        if (depth < 0.5)
        {
            var t = beta == 0 ? x : Math.Tanh(depth) / beta;
            return (ground + t * (s * (1 - ground) - ground * k)) / (1 + t * (k + s * (1 - ground)));
        }

        var rho = s / (k + s + beta);
        var e = Math.Exp(-2 * depth);
        return (rho * (1 - e) + ground * (e - rho * rho)) / (1 - rho * rho * e - ground * rho * (1 - e));
    }

    /// <summary>Film over a ground in every band, several bands at once; <paramref name="result"/> may be the ground itself.</summary>
    public static void Film(ReadOnlySpan<double> k, ReadOnlySpan<double> s, double x, ReadOnlySpan<double> ground, Span<double> result)
    {
        Span<double> beta = stackalloc double[result.Length], a = stackalloc double[result.Length], b = stackalloc double[result.Length];
        Beta(k, s, beta);
        Film(k, s, beta, x, a, b);
        ground.CopyTo(result);
        Lay(a, b, 1, 1, result);
    }

    /// <summary>sqrt(K(K + 2S)) of every band: what a film of any thickness needs to know of its paint.</summary>
    public static void Beta(ReadOnlySpan<double> k, ReadOnlySpan<double> s, Span<double> beta)
    {
        ReadOnlySpan<Vector<double>> ks = Cast(k), ss = Cast(s);
        var betas = MemoryMarshal.Cast<double, Vector<double>>(beta);
        for (var i = 0; i < betas.Length; i++)
            betas[i] = Vector.SquareRoot(ks[i] * (ks[i] + ss[i] + ss[i]));
        for (var i = betas.Length * Vector<double>.Count; i < beta.Length; i++)
            beta[i] = Math.Sqrt(k[i] * (k[i] + 2 * s[i]));
    }

    /// <summary>
    /// What a film of thickness <paramref name="x"/> does to any ground, with all that takes an exponential worked out:
    /// R becomes R0 + T²R / (1 - R0 R), written with 1 - R0 so that white on white keeps all its digits. See <see cref="Lay"/>.
    /// </summary>
    /// <param name="k">Absorption of every band.</param>
    /// <param name="s">Scattering of every band.</param>
    /// <param name="beta">Of the same paint; see <see cref="Beta"/>.</param>
    /// <param name="x">Thickness.</param>
    /// <param name="lets">1 - R0, what the film does not reflect by itself.</param>
    /// <param name="through">T², what passes down and up again.</param>
    public static void Film(ReadOnlySpan<double> k, ReadOnlySpan<double> s, ReadOnlySpan<double> beta, double x, Span<double> lets, Span<double> through)
    {
        ReadOnlySpan<Vector<double>> ks = Cast(k), ss = Cast(s), betas = Cast(beta);
        Span<Vector<double>> rest = MemoryMarshal.Cast<double, Vector<double>>(lets), t2 = MemoryMarshal.Cast<double, Vector<double>>(through);

        // Exponentials in a loop of their own: mixed with the rest they would push everything else out of the registers.
        for (var i = 0; i < t2.Length; i++)
            t2[i] = Vector.Exp(Vector.Max(betas[i] * (-2 * x), opaque));
        for (var i = 0; i < t2.Length; i++)
        {
            // Where the film is so thin that 1 - e would cancel, tanh(d)/beta is X (1 - d²/3) to twelve digits.
            var (depth, e) = (betas[i] * x, t2[i]);
            var both = Vector<double>.One + e;
            var t = Vector.ConditionalSelect(Vector.LessThan(depth, new Vector<double>(ThinDepth)), x * (Vector<double>.One - depth * depth * (1.0 / 3)), (Vector<double>.One - e) / (both * betas[i]));
            var whole = Vector<double>.One + t * (ks[i] + ss[i]);
            rest[i] = (Vector<double>.One + t * ks[i]) / whole;
            t2[i] = 4 * e / (both * both * whole * whole);
        }

        for (var i = t2.Length * Vector<double>.Count; i < lets.Length; i++)
        {
            var e = Math.Exp(-2 * beta[i] * x);
            var t = beta[i] * x < ThinDepth ? x : (1 - e) / ((1 + e) * beta[i]);
            var whole = 1 + t * (k[i] + s[i]);
            (lets[i], through[i]) = ((1 + t * k[i]) / whole, 4 * e / ((1 + e) * (1 + e) * whole * whole));
        }
    }

    /// <summary>Lays a film on a share of a ground, as often as there are passes; the bands of the ground are changed in place.</summary>
    public static void Lay(ReadOnlySpan<double> lets, ReadOnlySpan<double> through, double share, int passes, Span<double> ground)
    {
        ReadOnlySpan<Vector<double>> rest = Cast(lets), t2 = Cast(through);
        var grounds = MemoryMarshal.Cast<double, Vector<double>>(ground);
        for (var pass = 0; pass < passes; pass++)
        {
            for (var i = 0; i < grounds.Length; i++)
            {
                var dark = Vector<double>.One - grounds[i];
                grounds[i] += share * (dark - rest[i] + t2[i] * grounds[i] / (rest[i] + (Vector<double>.One - rest[i]) * dark));
            }

            for (var i = grounds.Length * Vector<double>.Count; i < ground.Length; i++)
                ground[i] += share * (1 - ground[i] - lets[i] + through[i] * ground[i] / (lets[i] + (1 - lets[i]) * (1 - ground[i])));
        }
    }

    private static ReadOnlySpan<Vector<double>> Cast(ReadOnlySpan<double> bands) => MemoryMarshal.Cast<double, Vector<double>>(bands);

    private const double ThinDepth = 1e-3;

    // Nothing comes through a film this deep; smaller exponentials would only slow the processor down with denormal numbers.
    private static readonly Vector<double> opaque = new(-40);

    /// <summary>
    /// K and S of one band from a film of thickness 1 seen over a black and a white ground.
    /// Negative results of a noisy reading are raised to 0.
    /// </summary>
    /// <param name="overBlack">Reflectance over the black half.</param>
    /// <param name="overWhite">Reflectance over the white half.</param>
    /// <param name="black">Reflectance of the bare black half.</param>
    /// <param name="white">Reflectance of the bare white half.</param>
    /// <returns>K, S, and whether the film hid the card: then S is only a lower bound.</returns>
    public static (double K, double S, bool Hidden) FromContrastCard(double overBlack, double overWhite, double black, double white)
    {
        var s = 2 * (overBlack * white - overWhite * black);
        var k = (overBlack - black) * (1 - overWhite) * (1 - white) - (overWhite - white) * (1 - overBlack) * (1 - black);
        var v = (1 + overBlack * black) * (overWhite + white) - (1 + overWhite * white) * (overBlack + black);
        s = Math.Max(0, s);
        k = Math.Max(0, k);
        var w = Math.Sqrt(k * (k + 2 * s));
        if (w >= v || overWhite <= overBlack)
        {
            var ratio = RatioFromMasstone(Math.Clamp((overBlack + overWhite) / 2, 1e-4, 0.9999));
            return (ratio * HiddenScattering, HiddenScattering, true);
        }

        var c = w == 0 ? 1 / v : Math.Atanh(w / v) / w;
        return (c * k, c * s, overWhite - overBlack < 0.003);
    }

    /// <summary>Scattering assumed of a band that hides the card completely; more could not be told apart.</summary>
    public const double HiddenScattering = 4;
}
