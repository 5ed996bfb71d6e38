using Lowfell.Core.Sessions;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Timetables;

/// <summary>A timetable with the work it is of; Table is null where none can be had.</summary>
internal sealed record Made(BenchWork Bench, Timetable? Table, Bound? Bound)
{
    /// <summary>Operations that have left their session.</summary>
    public IReadOnlyList<int> Moved { get; init; } = [];

    /// <summary>Operations that the plan before knew nothing of.</summary>
    public int New { get; init; }
}

/// <summary>Makes timetables of a workshop's sets.</summary>
internal sealed class Planner(WorkshopRow workshop, IReadOnlyList<SetGraph> sets, DateTimeOffset now, CancellationToken stop)
{
    /// <summary>So far ahead a timetable is looked for; longer where the work needs it.</summary>
    private static readonly int[] weeksAhead = [52, 208];

    /// <summary>Counted in operations placed and not in time: asked again, the plan is the same.</summary>
    private const int Placings = 60_000, FewestRounds = 6, MostRounds = 400;

    /// <summary>A workshop with its sets, and the plan it goes by; null when there is no such workshop.</summary>
    public static async Task<(Planner Planner, TimetableRow? Row)?> Read(Guid workshopId, LowfellDb db, SetGraphs graphs, DateTimeOffset now, CancellationToken stop)
    {
        if (await db.Workshops.AsNoTracking().FirstOrDefaultAsync(w => w.Id == workshopId, stop) is not { } workshop)
            return null;
        var sets = new List<SetGraph>();
        foreach (var id in await db.Sets.Where(s => s.WorkshopId == workshopId && s.PutAwayAt == null).OrderBy(s => s.Rank).ThenBy(s => s.Name).Select(s => s.Id).ToListAsync(stop))
            if (await graphs.OfSet(db, id, stop) is { } graph)
                sets.Add(graph);
        var row = await db.Timetables.AsNoTracking().Where(t => t.WorkshopId == workshopId).OrderByDescending(t => t.Number).FirstOrDefaultAsync(stop);
        return (new Planner(workshop, sets, now.AddTicks(-(now.Ticks % TimeSpan.TicksPerMinute)), stop), row);
    }

    public WorkshopRow Workshop => workshop;
    public IReadOnlyList<SetGraph> Sets => sets;
    public DateTimeOffset Now => now;

    /// <summary>Nobody has said the hours.</summary>
    public bool Guessed => BenchHours.Read(workshop.Hours, out _) is null;

    /// <summary>As things are: the hours of the workshop, everybody who paints there.</summary>
    public Terms Terms => new(BenchHours.Read(workshop.Hours, out _) ?? BenchHours.Usual, Math.Max(1, workshop.Painters.Length));

    /// <summary>As a plan that was taken over has it.</summary>
    public Terms By(KeptPlan kept) => Terms with { Kept = kept, Manner = kept.Manner };

    public PlanInputs Inputs => PlanInputs.Of(workshop, new BenchHoursOf(Terms.Hours.ToString(), Terms.Painters), sets);

    /// <summary>The best that is found, begun from a plan where one is kept.</summary>
    /// <param name="terms">How.</param>
    /// <param name="share">Looked for so many times shorter.</param>
    /// <param name="known">A timetable of the same operations.</param>
    public Made Best(Terms terms, int share = 1, Made? known = null)
    {
        Made? made = null;
        foreach (var weeks in weeksAhead)
        {
            var bench = BenchWork.Of(workshop, sets, terms, weeks, now);
            if (bench.Work.Hours.Count == 0 && bench.Work.Operations.Count > 0)
                continue;
            var begin = known?.Table?.Placements ?? (terms.Kept is { } kept ? Replanning.Of(bench.Work, bench.Placed(kept))?.Timetable.Placements : null);
            var found = Scheduler.Make(bench.Work, Limit(bench.Work, share, begin));
            made = new Made(bench, found.Timetable, found.Bound);
            if (found.Timetable is not null)
                return made;
        }

        return made ?? new Made(BenchWork.Of(workshop, sets, terms with { Hours = BenchHours.Usual }, 1, now), null, null);
    }

    /// <summary>What is left of a kept plan, with as little moved as can be; the best where that cannot be had.</summary>
    public Made Closest(Terms terms)
    {
        foreach (var weeks in weeksAhead)
        {
            var bench = BenchWork.Of(workshop, sets, terms, weeks, now);
            if (bench.Work.Operations.Count > 0 && bench.Work.Hours.Count == 0)
                continue;
            var placed = bench.Placed(terms.Kept!);
            if (Replanning.Of(bench.Work, placed, Patience) is not { } plan)
                continue;

            // Where little moved would still end much later, it is looked for something better from there.
            var table = plan.Timetable;
            if (placed.Count > 0 && table.Outcome.Finish > placed.Max(p => p.End) + Patience && Improved(bench.Work, table) is { } sooner && sooner.Outcome.LastStretch < table.Outcome.LastStretch)
                plan = new Replan(sooner, placed.Where(p => StretchOf(bench.Work, p.Start) != StretchOf(bench.Work, sooner.Placements[p.Operation].Start)).Select(p => p.Operation).ToList());
            return new Made(bench, plan.Timetable, Scheduler.BoundOf(bench.Work)) { Moved = plan.Moved, New = bench.Work.Operations.Count - placed.Count };
        }

        return Best(terms);
    }

    /// <summary>A plan may end a day later before more than has to is moved for it.</summary>
    private const int Patience = 1440;

    private Timetable? Improved(Work work, Timetable from) => Scheduler.Make(work, Limit(work, 1, from.Placements)).Timetable;

    private static int StretchOf(Work work, int minute) => work.Hours.TakeWhile(h => h.End <= minute).Count();

    private SearchLimit Limit(Work work, int share, IReadOnlyList<Placement>? begin) => new(Math.Clamp(Placings / share / Math.Max(1, work.Operations.Count), FewestRounds, MostRounds), null) { Stop = stop, Begin = begin };

    /// <summary>The smallest set of facts that cannot be had together.</summary>
    public IReadOnlyList<Fact> Clash(Made made) => Core.Sessions.Clash.Of(made.Bench.Work, stop);

    /// <summary>A timetable as it is stored; sessions keep the ids of those whose operations they have.</summary>
    public static KeptPlan Keep(Made made, Manner manner, KeptPlan? before, Func<KeyOf, bool> pinned)
    {
        var (bench, table) = (made.Bench, made.Table!);
        var operations = table.Placements.OrderBy(p => p.Start).ThenBy(p => p.Painter).Select(p =>
        {
            var at = bench.At(bench.Set.Batches[p.Operation]);
            return new KeptOperation(at.Place.Zone.Id, at.Layer.Id, at.Pieces.Select(x => x.Id).ToList(), bench.Instant(p.Start), bench.Instant(p.End), p.Painter, pinned(at.Key), at.Beforehand);
        }).ToList();
        var taken = new HashSet<Guid>();
        var sessions = bench.Work.Hours.Select(h => (Hours: h, Mine: operations.Where(o => bench.Minute(o.Start) >= h.Start && bench.Minute(o.Start) < h.End).ToList())).Where(s => s.Mine.Count > 0)
            .Select(s => new KeptSession(IdOf(s.Mine), bench.EveningOf(s.Hours).Start, bench.EveningOf(s.Hours).End)).ToList();
        return new KeptPlan(operations, sessions, manner.AtOnce, manner.Careful, manner.Goal);

        Guid IdOf(List<KeptOperation> mine)
        {
            var was = before is null ? null : mine.SelectMany(o => before.Operations.Where(b => b.Zone == o.Zone && b.Line == o.Line && b.Pieces.Intersect(o.Pieces).Any()))
                .Select(b => before.Sessions.FirstOrDefault(s => b.Start >= s.Start && b.Start < s.End)?.Id).OfType<Guid>().Where(id => !taken.Contains(id))
                .GroupBy(id => id).OrderByDescending(g => g.Count()).Select(g => (Guid?)g.Key).FirstOrDefault();
            var id = was ?? Guid.CreateVersion7();
            taken.Add(id);
            return id;
        }
    }
}
