using Lowfell.Core.Sessions;
using Lowfell.Server.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Lowfell.Server.Calc;

/// <summary>Makes a timetable for whoever asks, or names the smallest clash.</summary>
internal static class ScheduleCalc
{
    private const int UsualMilliseconds = 1000, MostMilliseconds = 60_000, UsualSeed = 7;

    private static readonly int side = Math.Clamp(Environment.ProcessorCount, 1, 4);

    /// <summary>Reading and telling take their part of the time that was given.</summary>
    private const double SearchShare = 0.9;

    public static async Task<Results<Ok<ScheduleOut>, ProblemHttpResult>> Make(ScheduleIn ask, CancellationToken stop)
    {
        var faults = new Faults();
        faults.Range(ask.BudgetMilliseconds ?? UsualMilliseconds, "budgetMilliseconds", 1, MostMilliseconds);
        if (ScheduleReader.Read(ask, faults) is not { } work)
            return faults.ToProblem();
        var limit = new SearchLimit(null, TimeSpan.FromMilliseconds(SearchShare * (ask.BudgetMilliseconds ?? UsualMilliseconds)), ask.Seed ?? UsualSeed) { Stop = stop, Side = side };
        return TypedResults.Ok(await Task.Run(() => Answer(work, limit, stop), stop));
    }

    private static ScheduleOut Answer(Work work, SearchLimit limit, CancellationToken stop)
    {
        string Id(int o) => work.Operations[o].Id;
        var made = Scheduler.Make(work, limit);
        var bound = made.Bound is { } b ? new BoundOut(b.LastStretch, b.Sessions, b.Finish) : null;
        if (made.Timetable is not { } table)
            return new ScheduleOut(false, [], null, null, null, null, null, null, bound, null, Clash.Of(work, stop).Select(f => new ClashOut(f.Kind, f.Operations.Select(Id).ToList(), f.Words)).ToList());
        var (o, chain) = (table.Outcome, Binding.Of(work, table));
        return new ScheduleOut(
            true, table.Placements.OrderBy(p => p.Start).ThenBy(p => p.Painter).Select(p => new PlacementOut(Id(p.Operation), p.Start, p.End, p.Painter)).ToList(),
            o.Finish, o.Late, o.LastStretch, o.Sessions, o.Idle, o.SetUps, bound, new BindingOut(Binding.Words(work, chain), chain.Select(c => Id(c.Operation)).ToList()), []);
    }
}
