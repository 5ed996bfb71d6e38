using Lowfell.Core.Words;

namespace Lowfell.Core.Sessions;

/// <summary>Why an operation of the binding chain lies where it does.</summary>
public enum Binds
{
    /// <summary>Nothing before it: the first hours there are.</summary>
    Hours,

    /// <summary>The one before it in the chain dries.</summary>
    Wait,

    /// <summary>The hands are at the one before it until then.</summary>
    Hands,
}

/// <summary>A link of the chain that ends at the finish.</summary>
/// <param name="Operation">Index.</param>
/// <param name="By">What holds it back.</param>
/// <param name="Minutes">From the end of the link before to its start.</param>
public sealed record ChainLink(int Operation, Binds By, int Minutes);

/// <summary>The operations, waits and hours that end at the finish: nothing ends sooner unless one of them does.</summary>
public static class Binding
{
    /// <summary>The chain of a timetable, first link first.</summary>
    public static IReadOnlyList<ChainLink> Of(Work work, Timetable table)
    {
        if (table.Placements.Count == 0)
            return [];
        var at = table.Placements.OrderBy(p => p.Operation).ToArray();
        var byPainter = at.GroupBy(p => p.Painter).ToDictionary(g => g.Key, g => g.OrderBy(p => p.Start).ThenBy(p => p.End).ToList());
        var chain = new List<ChainLink>();
        for (Placement? now = at.MaxBy(p => p.End); now is { } p;)
        {
            var wait = work.Operations[p.Operation].After.OrderByDescending(a => at[a.Operation].End + a.MinWait).FirstOrDefault();
            var line = byPainter[p.Painter];
            var index = line.IndexOf(p);
            Placement? hands = index > 0 ? line[index - 1] : null;

            // What it waits for holds it back where no hours lie between the end of the wait and its start.
            var ready = wait is null ? -1 : at[wait.Operation].End + wait.MinWait;
            if (wait is not null && (hands is null || ready >= hands.Value.End || MinutesBetween(work, ready, p.Start) == 0))
            {
                chain.Add(new ChainLink(p.Operation, Binds.Wait, p.Start - at[wait.Operation].End));
                now = at[wait.Operation];
            }
            else if (hands is { } before)
            {
                chain.Add(new ChainLink(p.Operation, Binds.Hands, p.Start - before.End));
                now = before;
            }
            else
            {
                chain.Add(new ChainLink(p.Operation, Binds.Hours, 0));
                now = null;
            }
        }

        chain.Reverse();
        return chain;
    }

    /// <summary>In a sentence: what sets the finish, the wait or the hours.</summary>
    public static string Words(Work work, IReadOnlyList<ChainLink> chain)
    {
        if (chain.Count == 0)
            return "There is nothing to do.";
        var longest = chain.Select((link, i) => (link, Before: i > 0 ? chain[i - 1].Operation : -1)).Where(x => x.link.By == Binds.Wait).OrderByDescending(x => x.link.Minutes).FirstOrDefault();
        var waiting = chain.Where(c => c.By == Binds.Wait).Sum(c => c.Minutes);
        var span = waiting + chain.Where(c => c.By == Binds.Hands).Sum(c => c.Minutes) + chain.Sum(c => work.Operations[c.Operation].Length);

        // Where most of the way to the finish is waiting, more hours would not bring it much sooner.
        return longest.link is { } wait && waiting > span / 2
            ? $"The wait of {Duration.Words(wait.Minutes)} between {work.Operations[longest.Before].Id} and {work.Operations[wait.Operation].Id} sets the finish, not the hands."
            : "The hands set the finish, not the waits: more hours would bring it sooner.";
    }

    private static int MinutesBetween(Work work, int from, int to) => work.Hours.Sum(h => Math.Max(0, Math.Min(h.End, to) - Math.Max(h.Start, from)));
}
