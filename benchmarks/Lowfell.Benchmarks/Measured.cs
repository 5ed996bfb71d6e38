using System.Diagnostics;

namespace Lowfell.Benchmarks;

/// <summary>Measures, and prints beside the bar. A yardstick (the same arithmetic, bare) is run first, so that two runs on different machines can be compared as ratios.</summary>
internal static class Measured
{
    /// <summary>How long the yardstick took, ms.</summary>
    public static double Yardstick { get; } = Time(() => Workload.Yardstick(40 * 3 * 36), 400);

    public static void Heading() => Console.WriteLine($"{"what",-66}{"median ms",12}{"bar ms",10}{"x yardstick",14}");

    public static void Report(string what, double ms, double bar) =>
        Console.WriteLine($"{what,-66}{ms,12:0.000}{bar,10:0.#}{ms / Yardstick,14:0.0}   {(ms <= bar ? "within" : "OVER")}");

    public static double TimeAfter(Action before, Action work, int rounds)
    {
        var times = new double[2 * rounds];
        for (var i = 0; i < times.Length; i++)
        {
            before();
            var start = Stopwatch.GetTimestamp();
            work();
            times[i] = Stopwatch.GetElapsedTime(start).TotalMilliseconds;
        }

        // The first half only warms up.
        Array.Sort(times, rounds, rounds);
        return times[rounds + rounds / 2];
    }

    public static double Time(Action work, int rounds)
    {
        // Long enough for the compiler to have made up its mind in the background.
        var warm = Stopwatch.GetTimestamp();
        while (Stopwatch.GetElapsedTime(warm).TotalMilliseconds < 1500)
            work();
        var times = new double[rounds];
        for (var i = 0; i < rounds; i++)
        {
            var start = Stopwatch.GetTimestamp();
            work();
            times[i] = Stopwatch.GetElapsedTime(start).TotalMilliseconds;
        }

        Array.Sort(times);
        return times[rounds / 2];
    }
}
