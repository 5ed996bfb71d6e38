namespace Lowfell.Core.Instruments;

/// <summary>
/// A room sensor that is none: it plays a seeded day, for trying things out and for tests. The room follows the sun and the heating, and
/// its instrument trembles.
/// </summary>
public sealed class StandInClimate(int seed)
{
    private const double MeanC = 18.5, SwingC = 2.2, TrembleC = 0.08, MeanHumidity = 0.55, HumidityPerC = -0.025, TrembleHumidity = 0.004;

    /// <summary>The warmest hour of the day.</summary>
    private const double WarmestHour = 16;

    private readonly double offC = Noise(seed, 1), drift = Noise(seed, 2) * 0.03;

    /// <summary>What it says at an instant: the same for the same seed and instant.</summary>
    public ClimateReading At(DateTimeOffset at)
    {
        var hour = at.UtcDateTime.TimeOfDay.TotalHours;
        var swing = SwingC * Math.Cos((hour - WarmestHour) / 24 * 2 * Math.PI);
        var tick = (int)(at.ToUnixTimeSeconds() / 10);
        return new(at, MeanC + offC + swing + TrembleC * Noise(seed, tick), Math.Clamp(MeanHumidity + drift + HumidityPerC * swing + TrembleHumidity * Noise(seed + 1, tick), 0.05, 0.95));
    }

    /// <summary>A room whose heating went off: it cools evenly from one temperature, with the same trembling.</summary>
    public ClimateReading Cooling(DateTimeOffset at, DateTimeOffset since, double fromC, double cAnHour, double humidity)
    {
        var tick = (int)(at.ToUnixTimeSeconds() / 10);
        return new(at, fromC - Math.Max(0, (at - since).TotalHours) * cAnHour + TrembleC * Noise(seed, tick), humidity + TrembleHumidity * Noise(seed + 1, tick));
    }

    /// <summary>About normal, mean 0 and spread 1: three even numbers summed.</summary>
    internal static double Noise(int seed, int tick)
    {
        var sum = 0.0;
        for (var i = 0; i < 3; i++)
        {
            var x = unchecked((uint)((seed * 73_856_093) ^ (tick * 19_349_663) ^ (i * 83_492_791)));
            x = unchecked((x ^ (x >> 16)) * 0x45d9f3b);
            x = unchecked((x ^ (x >> 16)) * 0x45d9f3b);
            sum += (x ^ (x >> 16)) / (double)uint.MaxValue * 2 - 1;
        }

        return sum;
    }
}

/// <summary>A scale that is none: what lies on it, with the trembling and the slow drift of a cheap one.</summary>
/// <param name="seed">The same seed trembles alike.</param>
/// <param name="trembleGrams">Spread of one reading.</param>
/// <param name="driftGramsAMinute">How its zero wanders.</param>
public sealed class StandInScale(int seed, double trembleGrams = 0.006, double driftGramsAMinute = 0.02)
{
    private const int TicksASecond = 5;

    /// <summary>What it says with so much on it, so long after it was switched on.</summary>
    public ScaleReading At(DateTimeOffset since, TimeSpan after, double grams) =>
        new(since + after, Math.Round(grams + after.TotalMinutes * driftGramsAMinute + trembleGrams * StandInClimate.Noise(seed, (int)(after.TotalSeconds * TicksASecond)), 3));
}

/// <summary>What a hand puts onto a scale that is none: an empty pot, a rest, and then one part after the other, drop by drop.</summary>
/// <param name="potGrams">The empty pot.</param>
/// <param name="poursGrams">How much of each part.</param>
/// <param name="dropGrams">One drop.</param>
public sealed class StandInHand(double potGrams, IReadOnlyList<double> poursGrams, double dropGrams = 0.06)
{
    private const double RestSeconds = 4, DropsASecond = 2;

    /// <summary>Grams on the scale so long after the pot was put there.</summary>
    public double At(TimeSpan after)
    {
        var (left, grams) = (after.TotalSeconds - RestSeconds, potGrams);
        foreach (var pour in poursGrams)
        {
            if (left <= 0)
                return grams;
            var drops = Math.Ceiling(pour / dropGrams);
            grams += Math.Min(pour, Math.Floor(left * DropsASecond) * dropGrams);
            left -= drops / DropsASecond + RestSeconds;
        }

        return grams;
    }
}
