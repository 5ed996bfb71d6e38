using Lowfell.Core.Sessions;
using Lowfell.Server.Http;
using Lowfell.Server.Timetables;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Sessions;

/// <summary>The timetable of a workshop: read, taken over, changed by hand.</summary>
public static class SessionsEndpoints
{
    private const int MostAtOnce = 500, MostLateMinutes = 600, LongestWhy = 300;

    public static void MapSessions(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/sessions/{workshopId:guid}").WithTags("Time");
        group.MapGet("/", Of).WithName("sessions").WithSummary("What to do in which stretch at the bench, for all sets of a workshop: the plan that was taken over, or the best of this moment.").ProducesProblem(404);
        group.MapPost("/", TakeOver).WithName("takeOverTimetable").WithSummary("Takes a timetable over, so that it stays as it is until another is.").Writes<TimetableTold, SessionsReading>(Tell);
        group.MapPost("/moves", Move).WithName("moveOperation").WithSummary("Does an operation in another session and pins it there, or says why not and where else.").Writes<TimetableTold, SessionsReading>(Tell);
        group.MapGet("/late", Late).WithName("late").WithSummary("What moves when the next session begins so much later.").ProducesProblem(400).ProducesProblem(404);
        Alternatives.Map(group);
        Fitting.Map(group);
        Calendars.Map(group, app);
    }

    private static async Task<Results<Ok<SessionsReading>, ProblemHttpResult>> Of(Guid workshopId, LowfellDb db, SetGraphs graphs, TimeProvider time, CancellationToken stop) =>
        await Planner.Read(workshopId, db, graphs, time.GetUtcNow(), stop) is var (planner, row)
            ? TypedResults.Ok(await Task.Run(() => new SessionsReader(planner).Read(row), stop)) : Problems.NotFound("workshop");

    private static async Task<SessionsReading> Tell(TimetableTold told, Telling telling)
    {
        var (planner, row) = (await Planner.Read(told.WorkshopId, telling.Db, telling.Graphs, DateTimeOffset.UtcNow, telling.Stop))!.Value;
        return new SessionsReader(planner).Read(row);
    }

    private static async Task<Outcome<TimetableTold>> TakeOver(Guid workshopId, TimetableIn entry, Write write, SetGraphs graphs)
    {
        if (await ForWriting(workshopId, write, graphs) is not var (planner, row))
            return Problems.NotFound("workshop");
        var faults = new Faults();
        faults.Require(entry.Number is not null, "number", "Give the number of the plan this one stands in for, 0 for none.");
        faults.Require(entry.From is not null, "from", "Say what to take over: anew, or closest.");
        faults.Range(entry.AtOnce, "atOnce", 1, MostAtOnce);
        faults.Range(entry.LateMinutes, "lateMinutes", 0, MostLateMinutes);
        if (faults.Any)
            return faults.ToProblem();
        if (entry.Number != (row?.Number ?? 0))
            return Moved(planner, row);
        var kept = row is null ? null : KeptPlan.Read(row.Plan);
        var closest = entry.From == TimetableOrigin.Closest && kept is not null;
        var manner = closest ? kept!.Manner : new Manner(entry.AtOnce, entry.Careful, entry.Goal);
        var terms = planner.Terms with { Manner = manner, LateMinutes = entry.LateMinutes ?? 0, Kept = closest || manner.AtOnce == kept?.AtOnce ? kept : null };
        var made = await Task.Run(() => closest ? planner.Closest(terms) : planner.Best(terms), write.Stop);
        if (made.Table is null)
            return Clashes(planner, made);
        var why = entry.LateMinutes > 0 ? $"The session began {entry.LateMinutes} min late" : closest ? "What has changed was taken over" : Words(manner);
        return await Store(write, planner, row, Planner.Keep(made, manner, kept, key => IsPinned(kept, key)), why);
    }

    private static async Task<Outcome<TimetableTold>> Move(Guid workshopId, OperationMoveIn entry, Write write, SetGraphs graphs)
    {
        if (await ForWriting(workshopId, write, graphs) is not var (planner, row))
            return Problems.NotFound("workshop");
        var faults = new Faults();
        faults.Require(entry.Number is not null, "number", "Give the number of the plan it is in, 0 for none.");
        faults.Require(entry is { ZoneId: not null, LayerId: not null, PieceId: not null }, "layerId", "Name the operation by zone, layer and its first piece.");
        if (faults.Any)
            return faults.ToProblem();
        if (entry.Number != (row?.Number ?? 0))
            return Moved(planner, row);
        var kept = row is null ? null : KeptPlan.Read(row.Plan);
        var key = new KeyOf(entry.ZoneId!.Value, entry.LayerId!.Value, entry.PieceId!.Value, entry.Beforehand);
        var loose = kept is null ? null : kept with { Operations = kept.Operations.Select(o => Is(o, key) ? o with { Pinned = false } : o).ToList() };
        var made = await Task.Run(() => kept is null ? planner.Best(planner.Terms) : planner.Closest(planner.By(loose!)), write.Stop);
        if (made.Table is null)
            return Clashes(planner, made);
        var operation = made.Bench.Set.Batches.Select((b, i) => (At: made.Bench.At(b), i)).FirstOrDefault(x => x.At.Place.Zone.Id == key.Zone && x.At.Layer.Id == key.Line && x.At.Beforehand == key.Beforehand && x.At.Pieces.Any(p => p.Id == key.FirstPiece));
        if (operation.At is null)
            return Problems.NotFound("operation");
        var label = made.Bench.Work.Operations[operation.i].Id;
        if (entry.To is not { } to)
        {
            write.Says(Short($"Let {label} go where it likes"));
            return await Store(write, planner, row, Planner.Keep(made, kept?.Manner ?? new Manner(), kept, k => k != operation.At.Key && IsPinned(kept, k)), $"{label} is no longer pinned");
        }

        var stretch = made.Bench.Work.Hours.Select((h, i) => (Evening: made.Bench.EveningOf(h), i)).FirstOrDefault(x => to >= x.Evening.Start && to < x.Evening.End, (default, -1)).i;
        if (stretch < 0)
            return Problems.Of(StatusCodes.Status409Conflict, "cannot-move", "There is no session at that time. Add it to the hours of the workshop first.", [new Fault("to", "Choose an instant within a session.")]);
        var move = Moving.To(made.Bench.Work, made.Table.Placements, operation.i, stretch);
        if (move.Plan is not { } plan)
        {
            var nearest = move.Nearest is { } n ? made.Bench.EveningOf(made.Bench.Work.Hours[n]).Start : (DateTimeOffset?)null;
            var says = $"{label} cannot be done there. {move.Reason}{(nearest is { } at ? $" The nearest session that works is {SessionsReader.Day(at)}, {at:HH:mm}." : "")}";
            return Problems.Of(StatusCodes.Status409Conflict, "cannot-move", says, [new Fault("to", says)], nearest is null ? null : new { nearest });
        }

        var moved = plan.Moved.Count(o => o != operation.i);
        return await Store(
            write, planner, row, Planner.Keep(made with { Table = plan.Timetable }, kept?.Manner ?? new Manner(), kept, k => k == operation.At.Key || IsPinned(kept, k)),
            Short($"{label} moved to {SessionsReader.Day(made.Bench.Instant(made.Bench.Work.Hours[stretch].Start))}{(moved > 0 ? $", and {moved} with it" : "")}"));
    }

    private static async Task<Results<Ok<LateReading>, ProblemHttpResult>> Late(Guid workshopId, int minutes, LowfellDb db, SetGraphs graphs, TimeProvider time, CancellationToken stop)
    {
        if (minutes is < 0 or > MostLateMinutes)
            return Problems.Of(StatusCodes.Status400BadRequest, "invalid", $"Give minutes from 0 to {MostLateMinutes}.", [new Fault("minutes", $"Give minutes from 0 to {MostLateMinutes}.")]);
        if (await Planner.Read(workshopId, db, graphs, time.GetUtcNow(), stop) is not var (planner, row))
            return Problems.NotFound("workshop");
        return TypedResults.Ok(await Task.Run(() =>
        {
            var kept = row is null ? Planner.Keep(planner.Best(planner.Terms), new Manner(), null, _ => false) : KeptPlan.Read(row.Plan);
            var made = planner.Closest(planner.By(kept) with { LateMinutes = minutes });
            if (made.Table is not { } table)
                return new LateReading("No timetable can be had with that.", [], null);
            var finish = made.Bench.Instant(table.Outcome.Finish);
            var was = kept.Operations.Count == 0 ? finish : kept.Operations.Max(o => o.End);
            var moved = made.Moved.Select(o => $"{made.Bench.Work.Operations[o].Id}: {SessionsReader.Day(made.Bench.Instant(table.Placements[o].Start))}").ToList();
            var words = moved.Count == 0 ? "Nothing has to move to another session." : $"{moved.Count} of {table.Placements.Count} operations move to another session.";
            return new LateReading(finish.Date == was.Date ? $"{words} It is finished {SessionsReader.Day(finish)} all the same." : $"{words} It is finished {SessionsReader.Day(finish)} rather than {SessionsReader.Day(was)}.", moved, finish);
        }, stop));
    }

    private static async Task<(Planner, TimetableRow?)?> ForWriting(Guid workshopId, Write write, SetGraphs graphs)
    {
        await write.Hold<WorkshopRow>(workshopId);
        if (await Planner.Read(workshopId, write.Db, graphs, write.Now, write.Stop) is not { } read)
            return null;
        write.In(workshopId);
        return read;
    }

    private static async Task<Outcome<TimetableTold>> Store(Write write, Planner planner, TimetableRow? before, KeptPlan plan, string why)
    {
        write.Db.Add(new TimetableRow { WorkshopId = planner.Workshop.Id, Number = (before?.Number ?? 0) + 1, MadeAt = write.Now, Why = Short(why), Plan = plan.Write(), Inputs = planner.Inputs.Write() });
        write.Says($"Timetable: {char.ToLowerInvariant(why[0])}{why[1..]}");
        await write.Save();
        return new TimetableTold(planner.Workshop.Id);
    }

    /// <summary>How a plan was made, for its story.</summary>
    private static string Words(Manner manner)
    {
        var words = new List<string> { manner.AtOnce switch { null => "Made anew", 1 => "Made anew, one piece at a time", var n => $"Made anew, in groups of {n}" } };
        if (manner.Careful)
            words.Add("on the safe side");
        if (manner.Goal == Goal.Fewest)
            words.Add("in the fewest sessions");
        return string.Join(", ", words);
    }

    private static bool Is(KeptOperation o, KeyOf key) => o.Zone == key.Zone && o.Line == key.Line && o.Beforehand == key.Beforehand && o.Pieces.Contains(key.FirstPiece);

    private static bool IsPinned(KeptPlan? kept, KeyOf key) => kept?.Operations.Any(o => o.Pinned && Is(o, key)) ?? false;

    private static string Short(string text) => text.Length <= LongestWhy ? text : text[..(LongestWhy - 1)] + "…";

    private static ProblemHttpResult Moved(Planner planner, TimetableRow? row) => Problems.Changed("timetable", new { number = row?.Number ?? 0, workshopId = planner.Workshop.Id });

    private static ProblemHttpResult Clashes(Planner planner, Made made) =>
        Problems.Of(StatusCodes.Status409Conflict, "no-timetable", "No timetable can be had. These cannot be had together: " + string.Join("; ", planner.Clash(made).Select(f => f.Words)) + ". Take any one away and it works.");
}
