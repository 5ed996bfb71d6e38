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

    private const int Rounds = 8;
    private const double Nudge = 1e-3;

    /// <summary>The strength after one more observation.</summary>
    /// <param name="predict">CIELAB predicted where the colour was seen, for a strength of the material.</param>
    /// <param name="now">Its strength so far.</param>
    /// <param name="observed">What was seen there.</param>
    public static Strength Tune(Func<Strength, Lab> predict, Strength now, Lab observed)
    {
        // In logarithms, so that twice and half are as far from 1; x is the step away from the strength so far.
        double x = 0, y = 0;
        Strength At(double h, double t) => now.Then(new Strength(Math.Exp(h), Math.Exp(t)));
        var prior = ReadingError / Math.Log(StrengthError);
        prior *= prior;
        for (var round = 0; round < Rounds; round++)
        {
            var here = predict(At(x, y));
            Lab byHiding = Slope(predict(At(x + Nudge, y)), here), byTint = Slope(predict(At(x, y + Nudge)), here);
            var missed = new Lab(observed.L - here.L, observed.A - here.A, observed.B - here.B);
            double hh = Dot(byHiding, byHiding) + prior, tt = Dot(byTint, byTint) + prior, ht = Dot(byHiding, byTint);
            double h = Dot(byHiding, missed) - prior * x, t = Dot(byTint, missed) - prior * y;
            var determinant = hh * tt - ht * ht;
            x = Math.Clamp(x + (tt * h - ht * t) / determinant, -1, 1);
            y = Math.Clamp(y + (hh * t - ht * h) / determinant, -1, 1);
        }

        var tuned = At(x, y);
        return Missed(predict(tuned), observed) < Missed(predict(now), observed) ? tuned : now;
    }

    private static double Missed(Lab predicted, Lab observed) => ColourDifference.Ciede2000(predicted, observed);

    private static Lab Slope(Lab after, Lab before) => new((after.L - before.L) / Nudge, (after.A - before.A) / Nudge, (after.B - before.B) / Nudge);

    private static double Dot(Lab a, Lab b) => a.L * b.L + a.A * b.A + a.B * b.B;
}
