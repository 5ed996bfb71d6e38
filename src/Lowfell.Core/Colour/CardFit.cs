namespace Lowfell.Core.Colour;

/// <summary>
/// Finishes the reading of a contrast card: scales absorption and scattering by smooth curves over the spectrum, three for each,
/// until the film gives both colours back. Damped least squares in CIELAB, after Levenberg (1944), Quarterly of Applied Mathematics 2.
/// </summary>
internal static class CardFit
{
    private const int N = Observer.Bands, Curves = 3, Unknowns = 2 * Curves, MostRounds = 40;
    private const double Nudge = 1e-4, LargestStep = 0.5, LeastOptics = 1e-4;

    /// <summary>Middles and width of the curves, in bands of 10 nm from 380 nm: about 450, 540 and 620 nm.</summary>
    private static readonly double[] middles = [7, 16, 24];

    private const double Width = 5;

    /// <summary>The optics nearest to <paramref name="from"/> found that show both colours; what was missed by CIEDE2000 at most with it.</summary>
    public static (Optics Optics, double Missed) Finish(Optics from, Lab overBlack, Lab overWhite, Surface surface)
    {
        Span<double> x = stackalloc double[Unknowns], step = stackalloc double[Unknowns], tried = stackalloc double[Unknowns];
        x.Clear();
        var best = from;
        double least = Missed(from, overBlack, overWhite, surface), damping = 1e-3;
        var here = Residual(Scaled(from, x), overBlack, overWhite, surface);
        var jacobian = new double[Unknowns, Unknowns];
        for (var round = 0; round < MostRounds && damping < 1e6; round++)
        {
            for (var j = 0; j < Unknowns; j++)
            {
                x.CopyTo(tried);
                tried[j] += Nudge;
                var there = Residual(Scaled(from, tried), overBlack, overWhite, surface);
                for (var i = 0; i < Unknowns; i++)
                    jacobian[i, j] = (there[i] - here[i]) / Nudge;
            }

            Solve(jacobian, here, damping, step);
            for (var j = 0; j < Unknowns; j++)
                tried[j] = x[j] - Math.Clamp(step[j], -LargestStep, LargestStep);
            var optics = Scaled(from, tried);
            var next = Residual(optics, overBlack, overWhite, surface);
            if (Length(next) >= Length(here))
            {
                damping *= 8;
                continue;
            }

            damping = Math.Max(1e-9, damping / 4);
            tried.CopyTo(x);
            here = next;
            if (Missed(optics, overBlack, overWhite, surface) is var missed && missed < least)
                (best, least) = (optics, missed);
        }

        return (best, least);
    }

    private static double Missed(Optics optics, Lab overBlack, Lab overWhite, Surface surface)
    {
        var (black, white) = Shown(optics, surface);
        return Math.Max(ColourDifference.Ciede2000(overBlack, black), ColourDifference.Ciede2000(overWhite, white));
    }

    private static (Lab Black, Lab White) Shown(Optics optics, Surface surface)
    {
        var (black, white) = optics.OnCard(1, surface);
        return (black.ToLab(), white.ToLab());
    }

    private static double[] Residual(Optics optics, Lab overBlack, Lab overWhite, Surface surface)
    {
        var (b, w) = Shown(optics, surface);
        return [b.L - overBlack.L, b.A - overBlack.A, b.B - overBlack.B, w.L - overWhite.L, w.A - overWhite.A, w.B - overWhite.B];
    }

    private static double Length(double[] v) => v.Sum(x => x * x);

    /// <summary>Factors are exponentials of the curves, so that nothing turns negative.</summary>
    private static Optics Scaled(Optics from, ReadOnlySpan<double> x)
    {
        Span<double> k = stackalloc double[N], s = stackalloc double[N];
        for (var i = 0; i < N; i++)
        {
            double forK = 0, forS = 0;
            for (var c = 0; c < Curves; c++)
            {
                var away = (i - middles[c]) / Width;
                var weight = Math.Exp(-away * away / 2);
                forK += x[c] * weight;
                forS += x[Curves + c] * weight;
            }

            k[i] = Math.Max(from.K[i], LeastOptics) * Math.Exp(forK);
            s[i] = Math.Max(from.S[i], LeastOptics) * Math.Exp(forS);
        }

        return new Optics(k, s);
    }

    /// <summary>(J'J + damping diag(J'J)) step = J' residual, by elimination.</summary>
    private static void Solve(double[,] jacobian, double[] residual, double damping, Span<double> step)
    {
        var a = new double[Unknowns, Unknowns + 1];
        for (var i = 0; i < Unknowns; i++)
        {
            for (var j = 0; j < Unknowns; j++)
                for (var r = 0; r < Unknowns; r++)
                    a[i, j] += jacobian[r, i] * jacobian[r, j];
            a[i, i] += damping * a[i, i] + 1e-12;
            for (var r = 0; r < Unknowns; r++)
                a[i, Unknowns] += jacobian[r, i] * residual[r];
        }

        for (var i = 0; i < Unknowns; i++)
        {
            for (var r = i + 1; r < Unknowns; r++)
            {
                var factor = a[r, i] / a[i, i];
                for (var j = i; j <= Unknowns; j++)
                    a[r, j] -= factor * a[i, j];
            }
        }

        for (var i = Unknowns - 1; i >= 0; i--)
        {
            step[i] = a[i, Unknowns];
            for (var j = i + 1; j < Unknowns; j++)
                step[i] -= a[i, j] * step[j];
            step[i] /= a[i, i];
        }
    }
}
