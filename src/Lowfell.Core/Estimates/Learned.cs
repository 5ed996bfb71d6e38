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
    private const double PriorPieces = 6;

    /// <summary>Further from the middle than this many typical deviations, a time counts less the further it is (Huber 1964).</summary>
    private const double Straight = 1.5;

    private const int Passes = 20;

    /// <summary>Half the width of an interval that holds four of five, in deviations.</summary>
    private const double FourOfFive = 1.2816;

    /// <summary>
    /// Shrinks logged times towards the rule of thumb: by the logarithm of their ratio, since half and double are as far off, with
    /// outliers held in check. Without any it is the rule of thumb.
    /// </summary>
    public static Learned Of(IEnumerable<LoggedTime> times)
    {
        var prior = Math.Log(1 + HandsOn.TypicalError);
        var seen = times.Where(t => t is { EstimatedMinutes: > 0, LoggedMinutes: > 0, Pieces: > 0 }).Select(t => (At: Math.Log(t.LoggedMinutes / t.EstimatedMinutes), Weight: (double)t.Pieces)).ToList();
        double centre = 0, pieces = seen.Sum(s => s.Weight);
        for (var pass = 0; pass < Passes; pass++)
        {
            double sum = 0, weight = PriorPieces;
            foreach (var (at, w) in seen)
            {
                var held = Math.Min(1, Straight * prior / Math.Max(1e-9, Math.Abs(at - centre)));
                (sum, weight) = (sum + held * w * at, weight + held * w);
            }

            centre = sum / weight;
        }

        var spread = PriorPieces * prior * prior;
        foreach (var (at, w) in seen)
            spread += w * Math.Pow(Math.Min(Straight * prior, Math.Abs(at - centre)), 2);
        var deviation = Math.Sqrt(spread / (PriorPieces + pieces));
        var ofCentre = deviation / Math.Sqrt((PriorPieces + pieces) / PriorPieces);
        return new Learned(Math.Exp(centre), Math.Exp(deviation) - 1, Math.Exp(centre - FourOfFive * ofCentre), Math.Exp(centre + FourOfFive * ofCentre));
    }
}
