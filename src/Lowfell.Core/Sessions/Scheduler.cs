namespace Lowfell.Core.Sessions;

/// <summary>What came of looking for a timetable.</summary>
/// <param name="Timetable">Null where there is none, or none was found.</param>
/// <param name="Bound">What none can be better than; null where chains and hours alone show that there is none.</param>
public sealed record Schedule(Timetable? Timetable, Bound? Bound);

/// <summary>Makes timetables: what to do in which stretch and in what order, so that nothing is ruined and all is finished soon.</summary>
public static class Scheduler
{
    /// <summary>What no timetable can be better than; null where chains and hours alone show that there is none.</summary>
    public static Bound? BoundOf(Work work) => work.Operations.Count == 0 ? new Bound(-1, 0, 0) : Bounds.Of(new Facts(work));

    /// <summary>The best timetable that is found within a limit: the same one every time when rounds are counted.</summary>
    /// <exception cref="ArgumentException">Operations wait for each other in a circle.</exception>
    public static Schedule Make(Work work, SearchLimit limit)
    {
        if (work.Operations.Count == 0)
            return new Schedule(new Timetable([], new Outcome(0, -1, 0, 0, 0, 0)), new Bound(-1, 0, 0));
        var facts = new Facts(work);
        if (Bounds.Of(facts) is not { } bound)
            return new Schedule(null, null);
        if (limit.Side <= 1)
            return new Schedule(Search.Run(facts, bound, limit), bound);
        var found = new Timetable?[limit.Side];
        Parallel.For(0, limit.Side, i => found[i] = Search.Run(facts, bound, limit with { Seed = limit.Seed + i }));
        return new Schedule(found.OfType<Timetable>().Order(Comparer<Timetable>.Create((a, b) => a.Outcome.CompareTo(b.Outcome, work.Goal))).FirstOrDefault(), bound);
    }
}
