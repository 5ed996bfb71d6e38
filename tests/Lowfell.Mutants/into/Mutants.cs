using System.Collections.Concurrent;

namespace Lowfell;

/// <summary>Which fault is switched on in this process, and which tests came by the places of all of them.</summary>
public static class Mutants
{
    private static readonly int active = int.Parse(Environment.GetEnvironmentVariable("LOWFELL_MUTANT") ?? "-1", System.Globalization.CultureInfo.InvariantCulture);
    private static readonly string? trace = Environment.GetEnvironmentVariable("LOWFELL_MUTANT_TRACE");
    private static readonly ConcurrentDictionary<(int, string), byte> seen = [];
    private static readonly System.Threading.Lock hold = new();

    /// <summary>For each fault the tests that ran when it was noted last: what is come by a million times is noted once.</summary>
    private static readonly string[]?[] noted = new string[]?[10_000];
    private static volatile string[] running = [];

    /// <summary>What was come by while no test ran: servers that a class of tests begins with. All its tests come by it.</summary>
    private static ConcurrentDictionary<int, byte> between = [], begun = [];
    private static string lastClass = "";

    static Mutants()
    {
        if (trace is not null)
            AppDomain.CurrentDomain.ProcessExit += (_, _) => File.WriteAllLines(trace, seen.Keys.Select(s => $"{s.Item1} {s.Item2}"));
    }

    /// <summary>Whether a fault is on. While tests are traced, it is noted for each that runs: a server's thread does not know for whom it works.</summary>
    public static bool On(int number)
    {
        if (trace is not null && running is { Length: 0 })
            between.TryAdd(number, 0);
        else if (trace is not null && running is var now && !ReferenceEquals(noted[number], now))
        {
            foreach (var test in now)
                seen.TryAdd((number, test), 0);
            noted[number] = now;
        }

        return number == active;
    }

    public static void Begin(string test)
    {
        lock (hold)
        {
            running = [.. running, test];
            if (trace is null)
                return;
            if (test[..test.LastIndexOf('.')] is var its && its != lastClass)
                (lastClass, begun, between) = (its, between, []);
            foreach (var number in begun.Keys)
                seen.TryAdd((number, test), 0);
        }
    }

    public static void End(string test)
    {
        lock (hold)
            running = running.Where((t, i) => i != Array.IndexOf(running, test)).ToArray();
    }
}
