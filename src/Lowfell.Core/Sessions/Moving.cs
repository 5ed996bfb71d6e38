namespace Lowfell.Core.Sessions;

/// <summary>What came of asking for an operation in another stretch.</summary>
/// <param name="Plan">The plan with it there; null where it cannot be had.</param>
/// <param name="Reason">Why not, in a sentence; empty where it can.</param>
/// <param name="Nearest">Index of the nearest stretch in which it can; null where there is none.</param>
public sealed record Move(Replan? Plan, string Reason, int? Nearest);

/// <summary>Puts one operation into the stretch a painter wants it in, and moves of the rest only what has to.</summary>
public static class Moving
{
    private const int Farthest = 40;

    /// <summary>The plan with an operation in a stretch, or why not and where else.</summary>
    public static Move To(Work work, IReadOnlyList<Placement> was, int operation, int stretch)
    {
        if (Try(work, was, operation, stretch) is { } plan)
            return new Move(plan, "", null);
        var reason = Why(work, operation, stretch);
        for (var away = 1; away <= Farthest; away++)
            foreach (var near in new[] { stretch - away, stretch + away })
                if (near >= 0 && near < work.Hours.Count && Try(work, was, operation, near) is not null)
                    return new Move(null, reason, near);
        return new Move(null, reason, null);
    }

    /// <summary>The same work with an operation that has to begin and end within a stretch.</summary>
    public static Work Pinned(Work work, int operation, Stretch to) => work with
    {
        Operations = work.Operations.Select((o, i) => i != operation ? o : o with { NotBefore = Math.Max(o.NotBefore, to.Start), NotAfter = Math.Min(o.NotAfter ?? int.MaxValue, to.End - o.Length) }).ToList(),
    };

    private static Replan? Try(Work work, IReadOnlyList<Placement> was, int operation, int stretch)
    {
        var pinned = Pinned(work, operation, work.Hours[stretch]);
        return pinned.Operations[operation] is { NotAfter: { } latest } o && latest < o.NotBefore ? null : Replanning.Of(pinned, was);
    }

    private static string Why(Work work, int operation, int stretch)
    {
        var (o, to) = (work.Operations[operation], work.Hours[stretch]);
        var setUp = o.SetUp >= 0 ? work.SetUps[o.SetUp].Minutes + work.SetUps[o.SetUp].CleanMinutes : 0;
        if (o.Length + setUp > to.Minutes)
            return $"It takes {o.Length + setUp} min with its set-up, and this session has {to.Minutes}.";
        var facts = new Facts(work);
        if (Bounds.Heads(facts) is { } heads && heads[operation] > to.End - o.Length)
        {
            var waits = o.After.MaxBy(a => heads[a.Operation] + work.Operations[a.Operation].Length + a.MinWait);
            return waits is null || heads[operation] == o.NotBefore ? "What it lies on is not dry by then." : $"{work.Operations[waits.Operation].Id} cannot be done and dry by then.";
        }

        if (o.SetUp >= 0 && work.SetUps[o.SetUp].Spray && work.Spraying is { } spraying && !spraying.Any(s => Math.Min(s.End, to.End) - Math.Max(s.Start, to.Start) >= o.Length))
            return "There is no time for spraying in this session.";
        if (o.After.FirstOrDefault(a => a.MaxWait is not null) is { } window)
            return $"Its window after {work.Operations[window.Operation].Id} is {window.MaxWait} min, and the two do not fit there together.";
        return "There is no room for it with what else has to stay where it is.";
    }
}
