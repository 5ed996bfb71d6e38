namespace Lowfell.Core.Sessions;

/// <summary>What can stand in the way of a timetable.</summary>
public enum FactKind
{
    Window,
    Wait,
    Hours,
    Spraying,
    Minutes,
    Places,
}

/// <summary>One fact of the work, and the operations it is about: the earlier first.</summary>
public sealed record Fact(FactKind Kind, IReadOnlyList<int> Operations, string Words);

/// <summary>
/// Why there is no timetable: a smallest set of facts that cannot be had together, found by dividing them (QuickXplain, Junker 2004).
/// Taken away means: a window that stays open, a wait of nothing, hands at every hour, spraying at any of them, work that takes no
/// time, room to dry for all.
/// </summary>
public static class Clash
{
    /// <summary>The facts that clash; empty where a timetable can be had after all.</summary>
    /// <param name="work">Work without a timetable.</param>
    /// <param name="stop">Ends it; what is found by then is not the smallest.</param>
    public static IReadOnlyList<Fact> Of(Work work, CancellationToken stop = default)
    {
        var facts = All(work);
        if (CanBeDone(work, facts, stop))
            return [];
        return Explain(work, [], facts, known: false, stop);
    }

    /// <summary>The work with only these facts of all it has.</summary>
    public static Work Only(Work work, IReadOnlyCollection<Fact> facts)
    {
        var kept = facts.Select(Key).ToHashSet();
        bool Has(FactKind kind, params int[] of) => kept.Contains(Key(kind, of));
        var hours = Has(FactKind.Hours);
        return work with
        {
            Hours = hours ? work.Hours : [new Stretch(0, Endless(work))],
            Spraying = Has(FactKind.Spraying) ? work.Spraying : null,
            DryingPlaces = Has(FactKind.Places) ? work.DryingPlaces : null,
            NotWetTogether = work.NotWetTogether.Where(p => Has(FactKind.Wait, -1, p.First, p.Second)).ToList(),
            Operations = work.Operations.Select((o, i) => (Has(FactKind.Minutes, i) ? o : o with { Minutes = 0, HotAirMinutes = 0 }) with
            {
                After = o.After.Select(a => a with
                {
                    MinWait = a.MinWait <= 0 || Has(FactKind.Wait, a.Operation, i) ? a.MinWait : 0,
                    MaxWait = a.MaxWait is not null && Has(FactKind.Window, a.Operation, i) ? a.MaxWait : null,
                }).ToList(),
            }).ToList(),
        };
    }

    /// <summary>Every fact of the work; those a painter would change first stand first.</summary>
    public static List<Fact> All(Work work)
    {
        string Id(int o) => work.Operations[o].Id;
        var facts = new List<Fact> { new(FactKind.Hours, [], "the hours there are") };
        if (work.Spraying is not null)
            facts.Add(new(FactKind.Spraying, [], "the hours in which spraying is allowed"));
        if (work.DryingPlaces is { } places)
            facts.Add(new(FactKind.Places, [], $"{places} place{(places == 1 ? "" : "s")} to dry"));
        var afters = work.Operations.SelectMany((o, i) => o.After.Select(a => (After: a, Later: i))).ToList();
        facts.AddRange(afters.Where(a => a.After.MaxWait is not null).Select(a => new Fact(FactKind.Window, [a.After.Operation, a.Later], $"{Id(a.Later)} at most {a.After.MaxWait} min after {Id(a.After.Operation)}")));
        facts.AddRange(afters.Where(a => a.After.MinWait > 0).Select(a => new Fact(FactKind.Wait, [a.After.Operation, a.Later], $"{Id(a.Later)} at least {a.After.MinWait} min after {Id(a.After.Operation)}")));
        facts.AddRange(work.NotWetTogether.Select(p => new Fact(FactKind.Wait, [p.First, p.Second], $"{Id(p.First)} and {Id(p.Second)} not wet together")));
        facts.AddRange(work.Operations.Select((o, i) => (o, i)).Where(x => x.o.Length > 0).Select(x => new Fact(FactKind.Minutes, [x.i], $"{x.o.Id} takes {x.o.Length} min")));
        return facts;
    }

    private static int Endless(Work work) =>
        work.Hours[^1].End + work.Operations.Sum(o => o.Length + o.WetMinutes + o.After.Sum(a => Math.Max(0, a.MinWait))) + work.SetUps.Sum(s => s.Minutes + s.CleanMinutes) * (work.Operations.Count + 1);

    private static string Key(Fact fact) => fact.Kind == FactKind.Wait && fact.Words.EndsWith("not wet together", StringComparison.Ordinal)
        ? Key(FactKind.Wait, [-1, .. fact.Operations]) : Key(fact.Kind, [.. fact.Operations]);

    private static string Key(FactKind kind, int[] of) => $"{kind} {string.Join(' ', of)}";

    private static List<Fact> Explain(Work work, List<Fact> background, List<Fact> facts, bool known, CancellationToken stop)
    {
        if (known && !CanBeDone(work, background, stop))
            return [];
        if (facts.Count == 1)
            return facts;
        var half = facts.Count / 2;
        List<Fact> first = facts[..half], second = facts[half..];
        var ofSecond = Explain(work, [.. background, .. first], second, first.Count > 0, stop);
        var ofFirst = Explain(work, [.. background, .. ofSecond], first, ofSecond.Count > 0, stop);
        return [.. ofFirst, .. ofSecond];
    }

    private static bool CanBeDone(Work work, IReadOnlyCollection<Fact> facts, CancellationToken stop)
    {
        var only = new Facts(Only(work, facts));
        return Bounds.Of(only) is { } bound && Search.Finds(only, bound, new SearchLimit(1, null) { Stop = stop });
    }
}
