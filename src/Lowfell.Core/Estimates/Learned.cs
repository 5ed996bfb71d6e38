namespace Lowfell.Core.Estimates;

/// <summary>A time that was logged, against what was estimated for it.</summary>
/// <param name="EstimatedMinutes">By the rules of thumb.</param>
/// <param name="LoggedMinutes">By the clock.</param>
/// <param name="Pieces">On how many pieces.</param>
public readonly record struct LoggedTime(double EstimatedMinutes, double LoggedMinutes, int Pieces)
{
    /// <summary>So far off that it is asked about before it counts: a timer was left running, or stopped too soon.</summary>
    public bool IsDoubtful => LoggedMinutes > 3 * EstimatedMinutes || LoggedMinutes < EstimatedMinutes / 3;
}

/// <summary>What logged times make of an estimate.</summary>
/// <param name="Factor">Minutes are the rule of thumb's times this.</param>
/// <param name="Error">How far off a single time usually is then, as a share.</param>
/// <param name="Low">The factor lies above this in four of five cases.</param>
/// <param name="High">And below this.</param>
public sealed record Learned(double Factor, double Error, double Low, double High)
{
    /// <summary>The rule of thumb counts as so many pieces.</summary>
    private const double PriorPieces = 0.5;

    /// <summary>From fewer pieces nothing is learned: the first few are as likely to mislead as to tell.</summary>
    public const int FewestPieces = 4;

    /// <summary>What lies further out than so many typical deviations says nothing (Beaton and Tukey 1974).</summary>
    private const double Counts = 3;

    /// <summary>So many deviations of one piece, shared out over all, have to be passed before anything moves.</summary>
    private const double Stays = 1.25;

    /// <summary>Hands that were never watched spread like the rule of thumb; it counts as so many pieces. None are steadier than the least.</summary>
    private const double PriorSpread = 2, SteadiestHands = 0.06;

    private const int Passes = 30;

    /// <summary>From the middle of the deviations to their typical size, where they are spread as errors are.</summary>
    private const double OfMiddle = 1.4826;

    /// <summary>Half the width of an interval that holds four of five, in deviations.</summary>
    private const double FourOfFive = 1.2816;

    /// <summary>
    /// Shrinks logged times towards the rule of thumb: by the logarithm of their ratio, since half and double are as far off, about their
    /// middle, with what lies far out left aside. Without enough of them it is the rule of thumb.
    /// </summary>
    public static Learned Of(IEnumerable<LoggedTime> times)
    {
        var prior = Math.Log(1 + HandsOn.TypicalError);
        var seen = times.Where(t => t is { EstimatedMinutes: > 0, LoggedMinutes: > 0, Pieces: > 0 }).Select(t => (At: Math.Log(t.LoggedMinutes / t.EstimatedMinutes), Weight: (double)t.Pieces)).ToList();
        var pieces = seen.Sum(s => s.Weight);
        if (pieces < FewestPieces)
            return new Learned(1, HandsOn.TypicalError, Math.Exp(-FourOfFive * prior), Math.Exp(FourOfFive * prior));
        var centre = Middle(seen);
        double spread = prior, counted = 0;
        for (var pass = 0; pass < Passes; pass++)
        {
            spread = Math.Max(SteadiestHands, (OfMiddle * Middle(seen.Select(s => (Math.Abs(s.At - centre), s.Weight)).ToList()) * pieces + prior * PriorSpread) / (pieces + PriorSpread));
            double sum = 0;
            counted = 0;
            foreach (var (at, w) in seen)
            {
                var out_ = Math.Abs(at - centre) / (Counts * spread);
                var held = out_ < 1 ? Math.Pow(1 - out_ * out_, 2) * w : 0;
                (sum, counted) = (sum + held * at, counted + held);
            }

            centre = sum / (counted + PriorPieces);
        }

        var learned = Math.CopySign(Math.Max(0, Math.Abs(centre) - Stays * spread / pieces), centre);
        var ofCentre = spread / Math.Sqrt(counted + PriorPieces);
        return new Learned(Math.Exp(learned), Math.Exp(spread) - 1, Math.Exp(learned - FourOfFive * ofCentre), Math.Exp(learned + FourOfFive * ofCentre));
    }

    /// <summary>The value that half of the weight lies below.</summary>
    private static double Middle(List<(double At, double Weight)> of)
    {
        var half = of.Sum(x => x.Weight) / 2;
        foreach (var (at, weight) in of.OrderBy(x => x.At))
            if ((half -= weight) <= 0)
                return at;
        return 0;
    }
}
