using Lowfell.Core.Colour;

namespace Lowfell.Core.Materials;

/// <summary>How much stronger than its entry says a material is in this workshop: factors on scattering and on absorption.</summary>
/// <param name="Hiding">Factor on scattering, 0.5 to 2; 1 is as entered.</param>
/// <param name="Tint">Factor on absorption, 0.5 to 2.</param>
public readonly record struct Strength(double Hiding, double Tint)
{
    public const double Least = 0.5, Most = 2;

    public static readonly Strength AsEntered = new(1, 1);

    /// <summary>Both factors one after the other, kept within the bounds.</summary>
    public Strength Then(Strength step) => new(Math.Clamp(Hiding * step.Hiding, Least, Most), Math.Clamp(Tint * step.Tint, Least, Most));

    /// <summary>What leads from another strength to this one.</summary>
    public Strength Since(Strength before) => new(Hiding / before.Hiding, Tint / before.Tint);

    /// <summary>Optics at this strength.</summary>
    public Optics Of(Optics entered)
    {
        if (this == AsEntered)
            return entered;
        Span<double> k = stackalloc double[Observer.Bands], s = stackalloc double[Observer.Bands];
        for (var i = 0; i < k.Length; i++)
            (k[i], s[i]) = (entered.K[i] * Tint, entered.S[i] * Hiding);
        return new Optics(k, s);
    }
}

/// <summary>
/// Tunes a material's strength so that the prediction comes nearer to what was seen: least squares in CIELAB, damped by how far
/// wrong an eye and how far off an entry usually are, so that one look never turns everything over.
/// The damping is that of Levenberg (1944), Quarterly of Applied Mathematics 2, with the prior widths below.
/// </summary>
public static class Calibration
{
    /// <summary>Usual error of a colour read by eye or off a photo, in CIELAB units.</summary>
    public const double ReadingError = 3;

    /// <summary>Usual error of an entered strength, as a factor: half as much again.</summary>
    public const double StrengthError = 1.5;

    private const int Rounds = 12;
    private const double Nudge = 1e-3;

    /// <summary>Where the search begins besides at the strength so far: a paint may be off by so much that what is near leads astray. Shares of the way to the bounds.</summary>
    private static readonly (double Hiding, double Tint)[] starts = [(0, 0), (0.8, 0.8), (0.8, -0.8), (-0.8, 0.8), (-0.8, -0.8)];

    /// <summary>The strength after one more observation; the one there was where none predicts what was seen any better.</summary>
    /// <param name="predict">CIELAB predicted where the colour was seen, for a strength of the material.</param>
    /// <param name="now">Its strength so far.</param>
    /// <param name="observed">What was seen there.</param>
    public static Strength Tune(Func<Strength, Lab> predict, Strength now, Lab observed)
    {
        var fit = new Fit(predict, now, observed);
        var before = Missed(predict(now), observed);
        foreach (var (_, strength) in starts.Select(fit.From).OrderBy(end => end.Cost))
            if (Missed(predict(strength), observed) < before)
                return strength;
        return now;
    }

    /// <summary>One search: steps away from the strength so far in logarithms, so that twice and half are as far from 1.</summary>
    private sealed class Fit(Func<Strength, Lab> predict, Strength now, Lab observed)
    {
        private readonly double prior = Math.Pow(ReadingError / Math.Log(StrengthError), 2);
        private readonly (double Low, double High) hiding = Bounds(now.Hiding), tint = Bounds(now.Tint);

        private static (double Low, double High) Bounds(double factor) => (Math.Log(Strength.Least / factor), Math.Log(Strength.Most / factor));

        /// <summary>Goes down from a start, never up, to what costs least near it.</summary>
        public (double Cost, Strength Strength) From((double Hiding, double Tint) start)
        {
            var (x, y) = (Way(start.Hiding, hiding), Way(start.Tint, tint));
            var (here, cost) = Look(x, y);
            var damping = 1.0;
            for (var round = 0; round < Rounds && damping < 1e6; round++)
            {
                // At a bound the slope is taken from inside.
                double dx = x + Nudge > hiding.High ? -Nudge : Nudge, dy = y + Nudge > tint.High ? -Nudge : Nudge;
                Lab byHiding = Slope(predict(At(x + dx, y)), here, dx), byTint = Slope(predict(At(x, y + dy)), here, dy);
                var missed = new Lab(observed.L - here.L, observed.A - here.A, observed.B - here.B);
                double hh = Dot(byHiding, byHiding) + prior, tt = Dot(byTint, byTint) + prior, ht = Dot(byHiding, byTint);
                double h = Dot(byHiding, missed) - prior * x, t = Dot(byTint, missed) - prior * y;
                double hhd = hh * (1 + damping), ttd = tt * (1 + damping), determinant = hhd * ttd - ht * ht;
                double nextX = Math.Clamp(x + (ttd * h - ht * t) / determinant, hiding.Low, hiding.High), nextY = Math.Clamp(y + (hhd * t - ht * h) / determinant, tint.Low, tint.High);
                var (there, nextCost) = Look(nextX, nextY);
                if (nextCost < cost)
                    (x, y, here, cost, damping) = (nextX, nextY, there, nextCost, damping / 10);
                else
                    damping *= 10;
            }

            return (cost, At(x, y));
        }

        private static double Way(double share, (double Low, double High) bounds) => share >= 0 ? share * bounds.High : -share * bounds.Low;

        private (Lab Here, double Cost) Look(double x, double y)
        {
            var here = predict(At(x, y));
            var missed = new Lab(observed.L - here.L, observed.A - here.A, observed.B - here.B);
            return (here, Dot(missed, missed) + prior * (x * x + y * y));
        }

        private Strength At(double h, double t) => now.Then(new Strength(Math.Exp(h), Math.Exp(t)));
    }

    private static double Missed(Lab predicted, Lab observed) => ColourDifference.Ciede2000(predicted, observed);

    private static Lab Slope(Lab after, Lab before, double step) => new((after.L - before.L) / step, (after.A - before.A) / step, (after.B - before.B) / step);

    private static double Dot(Lab a, Lab b) => a.L * b.L + a.A * b.A + a.B * b.B;
}
