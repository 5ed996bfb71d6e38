namespace Lowfell.Core.Instruments;

/// <summary>A weight that has come to rest, grams, and from when on.</summary>
public readonly record struct Rest(double Grams, DateTimeOffset At);

/// <summary>Finds out when a scale has come to rest. Its own trembling is averaged out.</summary>
public static class Weighing
{
    /// <summary>At rest is what stays within so many grams for so long.</summary>
    public const double TremblesGrams = 0.04;
    private static readonly TimeSpan rests = TimeSpan.FromMilliseconds(1600);
    private const int FewestReadings = 4;

    /// <summary>The weight at rest at the end of some readings; null while it moves or is not known yet.</summary>
    /// <param name="readings">What the scale said, the oldest first.</param>
    public static Rest? Of(IReadOnlyList<ScaleReading> readings)
    {
        if (readings.Count < FewestReadings)
            return null;
        var end = readings[^1].At;
        double low = double.MaxValue, high = double.MinValue, sum = 0;
        var count = 0;
        for (var i = readings.Count - 1; i >= 0; i--)
        {
            low = Math.Min(low, readings[i].Grams);
            high = Math.Max(high, readings[i].Grams);
            if (high - low > TremblesGrams)
                break;
            sum += readings[i].Grams;
            count++;
            if (count >= FewestReadings && end - readings[i].At >= rests)
                return new Rest(sum / count, readings[i].At);
        }

        return null;
    }
}

/// <summary>One material of a mix that is poured onto a scale.</summary>
/// <param name="Parts">Its share of the mix by volume, as parts; above 0.</param>
/// <param name="DropMl">The drop of its bottle, ml.</param>
/// <param name="DensityGPerMl">Grams per millilitre.</param>
public readonly record struct PourPart(double Parts, double DropMl, double DensityGPerMl);

/// <summary>What to pour next: so many more drops of one part; none where the mix is as near as drops bring it.</summary>
/// <param name="Part">Which part; −1 when nothing is wanted.</param>
/// <param name="Drops">How many more of its drops.</param>
/// <param name="WorstShare">How far the part that is farthest off is from its share, as a share of that: 0.03 is 3 %.</param>
public readonly record struct Pour(int Part, int Drops, double WorstShare);

/// <summary>Mixes by weight: from what really lies in the pot to what is still wanted, drop by drop.</summary>
public static class PourByWeight
{
    /// <summary>What is poured cannot be taken out: whoever has too much of one part makes it up with the others.</summary>
    /// <param name="parts">The mix.</param>
    /// <param name="pouredGrams">What was poured of each part, grams.</param>
    /// <param name="wantedMl">How much of the mix is wanted, ml.</param>
    /// <exception cref="ArgumentException">As many weights as parts are needed, and parts above 0.</exception>
    public static Pour Next(IReadOnlyList<PourPart> parts, IReadOnlyList<double> pouredGrams, double wantedMl)
    {
        if (parts.Count == 0 || parts.Count != pouredGrams.Count || parts.Any(p => !(p.Parts > 0 && p.DropMl > 0 && p.DensityGPerMl > 0)))
            throw new ArgumentException("As many weights as parts, and parts, drops and densities above 0.", nameof(parts));
        var all = parts.Sum(p => p.Parts);
        var ml = parts.Select((p, i) => Math.Max(0, pouredGrams[i]) / p.DensityGPerMl).ToArray();

        // The part that there is most of says how large the mix becomes. Less than half a drop beyond what was wanted is as wanted.
        var one = wantedMl / all;
        for (var i = 0; i < parts.Count; i++)
            if (ml[i] - wantedMl / all * parts[i].Parts > parts[i].DropMl / 2)
                one = Math.Max(one, ml[i] / parts[i].Parts);
        var (part, drops) = (-1, 0);
        for (var i = 0; i < parts.Count && part < 0; i++)
            if ((int)Math.Round((one * parts[i].Parts - ml[i]) / parts[i].DropMl, MidpointRounding.AwayFromZero) is > 0 and var more)
                (part, drops) = (i, more);
        if (part < 0)
            (part, drops) = Balance(parts, ml);
        return new Pour(part, drops, Worst(parts, ml));
    }

    /// <summary>All is poured but for less than half a drop each: one drop more where that brings the shares nearer.</summary>
    private static (int Part, int Drops) Balance(IReadOnlyList<PourPart> parts, double[] ml)
    {
        var (best, part) = (Worst(parts, ml), -1);
        for (var i = 0; i < parts.Count; i++)
        {
            var more = (double[])ml.Clone();
            more[i] += parts[i].DropMl;
            if (Worst(parts, more) is var off && off < best - 1e-9)
                (best, part) = (off, i);
        }

        return part < 0 ? (-1, 0) : (part, 1);
    }

    /// <summary>How far the farthest part is from its share of what lies there, as a share of that share.</summary>
    private static double Worst(IReadOnlyList<PourPart> parts, double[] ml)
    {
        double all = parts.Sum(p => p.Parts), lies = ml.Sum();
        return lies <= 0 ? 1 : parts.Select((p, i) => Math.Abs(ml[i] / lies / (p.Parts / all) - 1)).Max();
    }
}
