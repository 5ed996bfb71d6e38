using Lowfell.Core.Sessions;
using Lowfell.Server.Http;
using Lowfell.Server.Timetables;
using Lowfell.Store;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Lowfell.Server.Sessions;

/// <summary>What a painter argues with: the same work done otherwise, side by side; and how the plan may come out.</summary>
internal static class Alternatives
{
    private const int Trials = 400, QuickTrials = 120, Group = 4, Share = 3;
    private const int MinutesOfOneMore = 150;

    public static void Map(RouteGroupBuilder group)
    {
        group.MapGet("/alternatives", Of).WithName("alternatives").WithSummary("The same work done otherwise: finish, hands-on minutes, sessions, idling, set-ups and chance of each.").ProducesProblem(404);
        group.MapGet("/chance", Chances).WithName("chance").WithSummary("How the plan may come out, and the three figures that move it most.").ProducesProblem(404);
    }

    private static async Task<Results<Ok<IReadOnlyList<Alternative>>, ProblemHttpResult>> Of(Guid workshopId, LowfellDb db, SetGraphs graphs, TimeProvider time, CancellationToken stop)
    {
        if (await Planner.Read(workshopId, db, graphs, time.GetUtcNow(), stop) is not var (planner, row))
            return Problems.NotFound("workshop");
        return TypedResults.Ok(await Task.Run(() => (IReadOnlyList<Alternative>)All(planner, row is null ? new Manner() : KeptPlan.Read(row.Plan).Manner, stop), stop));
    }

    /// <summary>Each differs in one thing from the manner of the plan there is; pieces together as they come.</summary>
    private static List<Alternative> All(Planner planner, Manner manner, CancellationToken stop)
    {
        var usual = planner.Terms with { Manner = manner with { AtOnce = null } };
        Terms As(Manner other) => planner.Terms with { Manner = other };
        var known = planner.Best(usual);
        (string Id, string Name, string Words, Func<Terms> Terms, bool CanTake)[] ways =
        [
            ("steps", "Step by step", "All pieces together, as many as windows and hours allow.", () => usual, true),
            ("groups", $"In groups of {Group}", "A few pieces through every layer, then the next few.", () => As(manner with { AtOnce = Group }), true),
            ("singly", "One at a time", "Each piece by itself: more set-ups, and the first is done soonest.", () => As(manner with { AtOnce = 1 }), true),
            manner.Careful
                ? ("careful", "As drying usually goes", "Waits and windows by their usual figures, not on the safe side.", () => As(manner with { Careful = false }), true)
                : ("careful", "On the safe side", "Waits as long as slow drying asks, windows as short as they may be.", () => As(manner with { Careful = true }), true),
            manner.Goal == Goal.Fewest
                ? ("goal", "Finished soonest", "The earliest last evening comes first, then fewer of them.", () => As(manner with { Goal = Goal.Soonest }), true)
                : ("goal", "Fewest sessions", "As few as can be by the due date, even where it is finished later.", () => As(manner with { Goal = Goal.Fewest }), true),
            ("hot-air", "With hot air", "On water-based coats that the finish waits for; washes as the house rules say, crackle paste never.", () => usual with { HotAir = WaitedFor(known) }, false),
            ("evening", "One more evening", "Another session every week.", () => usual with { Hours = OneMore(usual.Hours) }, false),
            ("hands", "A second pair of hands", "Two at the bench: one spray place, one dryer.", () => usual with { Painters = usual.Painters + 1 }, false),
            ("unseen", "Without what cannot be seen", "Layers nobody could tell from the table are left out.", () => usual with { Without = Fitting.Unseen(planner, stop) }, false),
        ];
        return ways.AsParallel().AsOrdered().WithCancellation(stop).Select(w => Read(planner, w.Id, w.Name, w.Words, w.Terms(), w.CanTake, known)).ToList();
    }

    private static Alternative Read(Planner planner, string id, string name, string words, Terms terms, bool canTake, Made known)
    {
        // More of anything never ends later than what is known without it, and the fewest sessions are never more than it has.
        var made = id switch
        {
            "steps" => known,
            "evening" or "hands" => planner.Best(terms, Share, known),
            "goal" when terms.Manner.AtOnce is null => planner.Best(terms, Share, known),
            _ => planner.Best(terms, Share),
        };
        if (made.Table is not { } table)
            return new Alternative(id, name, words, null, 0, 0, 0, 0, null, false, terms.Manner.AtOnce, terms.Manner.Careful, terms.Manner.Goal);
        var work = made.Bench.Work;
        var chance = work.Operations.Count == 0 ? null : Chance.Of(work, table, made.Bench.Figures(), QuickTrials);
        return new Alternative(
            id, name, words, table.Placements.Count == 0 ? null : made.Bench.Instant(table.Outcome.Finish), work.Operations.Sum(o => o.Length), table.Outcome.Sessions, table.Outcome.Idle, table.Outcome.SetUps, chance?.OnTime, canTake, terms.Manner.AtOnce, terms.Manner.Careful, terms.Manner.Goal);
    }

    /// <summary>Layers that the chain to the finish waits for.</summary>
    private static HashSet<(Guid, Guid)> WaitedFor(Made made)
    {
        if (made.Table is not { } table)
            return [];
        var chain = Binding.Of(made.Bench.Work, table);
        return Enumerable.Range(1, Math.Max(0, chain.Count - 1)).Where(i => chain[i].By == Binds.Wait).Select(i => made.Bench.At(made.Bench.Set.Batches[chain[i - 1].Operation])).Select(a => (a.Place.Zone.Id, a.Layer.Id)).ToHashSet();
    }

    /// <summary>A stretch as long as an evening on the day that lies farthest from the others.</summary>
    private static BenchHours OneMore(BenchHours hours)
    {
        var days = hours.Weekly.Select(w => (int)w.Day).ToHashSet();
        int Apart(int day) => days.Count == 0 ? 7 : days.Min(d => Math.Min((d - day + 7) % 7, (day - d + 7) % 7));
        var best = Enumerable.Range(0, 7).OrderByDescending(Apart).ThenBy(d => (d + 6) % 7).First();
        var start = hours.Weekly.Count > 0 ? hours.Weekly[0].Start : new TimeOnly(19, 30);
        var end = start.Hour < 21 ? start.AddMinutes(MinutesOfOneMore) : new TimeOnly(23, 59);
        return hours with { Weekly = hours.Weekly.Append(new WeeklyStretch((DayOfWeek)best, start, end)).OrderBy(w => ((int)w.Day + 6) % 7).ThenBy(w => w.Start).ToList() };
    }

    private static async Task<Results<Ok<ChanceReading>, ProblemHttpResult>> Chances(Guid workshopId, LowfellDb db, SetGraphs graphs, TimeProvider time, CancellationToken stop)
    {
        if (await Planner.Read(workshopId, db, graphs, time.GetUtcNow(), stop) is not var (planner, row))
            return Problems.NotFound("workshop");
        return TypedResults.Ok(await Task.Run(() =>
        {
            var kept = row is null ? null : KeptPlan.Read(row.Plan);
            var made = kept is null ? planner.Best(planner.Terms) : planner.Closest(planner.By(kept));
            if (made.Table is not { Placements.Count: > 0 } table)
                return new ChanceReading(null, null, null, null, 0, []);
            var outlook = Chance.Of(made.Bench.Work, table, made.Bench.Figures(), Trials);
            return new ChanceReading(
                outlook.OnTime, made.Bench.Instant(outlook.Early), made.Bench.Instant(outlook.Middle), made.Bench.Instant(outlook.Late), Trials, outlook.Most.Select(m => new InfluenceReading(m.Name, Math.Round(m.Minutes / 1440, 1))).ToList());
        }, stop));
    }
}
