using Lowfell.Core.Sessions;

namespace Lowfell.Core.Tests.Sessions;

/// <summary>Reads a timetable against its work, written apart from what makes it: every rule in its own words.</summary>
public static class TimetableCheck
{
    /// <summary>Everything that is wrong with it.</summary>
    public static List<string> Faults(Work work, Timetable table)
    {
        var faults = new List<string>();
        var at = table.Placements.ToDictionary(p => p.Operation);
        if (at.Count != work.Operations.Count || table.Placements.Count != work.Operations.Count)
            faults.Add("not every operation lies once");
        for (var i = 0; i < work.Operations.Count; i++)
        {
            var (o, p) = (work.Operations[i], at[i]);
            if (p.End - p.Start != o.Minutes + o.HotAirMinutes)
                faults.Add($"{o.Id} is as long as it is not");
            if (!work.Hours.Any(h => p.Start >= h.Start && p.End <= h.End))
                faults.Add($"{o.Id} lies outside the hours");
            if (p.Painter < 0 || p.Painter >= work.Painters)
                faults.Add($"{o.Id} has no painter");
            if (Sprays(work, i) && !(work.Spraying ?? work.Hours).Any(h => p.Start >= h.Start && p.End <= h.End))
                faults.Add($"{o.Id} is sprayed when it may not be");
            foreach (var a in o.After)
                if (p.Start - at[a.Operation].End < a.MinWait || (a.MaxWait is { } most && p.Start - at[a.Operation].End > most))
                    faults.Add($"{o.Id} comes {p.Start - at[a.Operation].End} min after {work.Operations[a.Operation].Id}, not {a.MinWait} to {a.MaxWait}");
        }

        foreach (var one in table.Placements)
            foreach (var other in table.Placements.Where(x => x.Operation > one.Operation))
            {
                if (one.Painter == other.Painter && one.Start < other.End && other.Start < one.End)
                    faults.Add($"{one.Operation} and {other.Operation} at once");
                if (Sprays(work, one.Operation) && Sprays(work, other.Operation) && one.Start < other.End && other.Start < one.End)
                    faults.Add($"{one.Operation} and {other.Operation} in the spray place at once");
                int a = work.Operations[one.Operation].HotAirMinutes, b = work.Operations[other.Operation].HotAirMinutes;
                if (a > 0 && b > 0 && one.End - a < other.End && other.End - b < one.End)
                    faults.Add($"{one.Operation} and {other.Operation} under the dryer at once");
            }

        foreach (var (a, b) in work.NotWetTogether)
        {
            var (first, second) = at[a].Start <= at[b].Start ? (a, b) : (b, a);
            if (at[second].Start < at[first].End + work.Operations[first].WetMinutes)
                faults.Add($"{a} and {b} wet together");
        }

        if (work.DryingPlaces is { } places)
            foreach (var moment in table.Placements.Select(p => p.End))
                if (table.Placements.Count(p => p.End <= moment && moment < p.End + work.Operations[p.Operation].WetMinutes) > places)
                    faults.Add($"more than {places} dry at {moment}");
        foreach (var (hours, painter) in work.Hours.SelectMany(h => Enumerable.Range(0, work.Painters).Select(p => (h, p))))
            SetUps(work, table.Placements.Where(p => p.Painter == painter && p.Start >= hours.Start && p.Start < hours.End).OrderBy(p => p.Start).ThenBy(p => p.End).ToList(), hours, faults);
        var finish = table.Placements.Max(p => p.End);
        var used = work.Hours.Select((h, i) => (h, i)).Where(h => table.Placements.Any(p => p.Start >= h.h.Start && p.End <= h.h.End)).ToList();
        if (table.Outcome.Finish != finish || table.Outcome.Sessions != used.Count || table.Outcome.LastStretch != used[^1].i || table.Outcome.Late != Math.Max(0, finish - (work.Due ?? finish)))
            faults.Add("it comes to something else than it says");
        return faults;
    }

    private static bool Sprays(Work work, int o) => work.Operations[o].SetUp is >= 0 and var s && work.SetUps[s].Spray;

    /// <summary>Every getting ready and cleaning has its minutes in one piece, between the operations that need it.</summary>
    private static void SetUps(Work work, List<Placement> line, Stretch hours, List<string> faults)
    {
        int inHand = -1, since = hours.Start, widest = 0;
        foreach (var p in line)
        {
            var set = work.Operations[p.Operation].SetUp;
            widest = Math.Max(widest, p.Start - since);
            since = p.End;
            if (set < 0)
                continue;
            var needs = set == inHand ? 0 : (inHand >= 0 ? work.SetUps[inHand].CleanMinutes : 0) + work.SetUps[set].Minutes;
            if (widest < needs)
                faults.Add($"{work.Operations[p.Operation].Id} has {widest} of {needs} minutes to be got ready");
            (inHand, widest) = (set, 0);
        }

        if (inHand >= 0 && Math.Max(widest, hours.End - since) < work.SetUps[inHand].CleanMinutes)
            faults.Add($"nothing is cleaned at {hours.End}");
    }
}
