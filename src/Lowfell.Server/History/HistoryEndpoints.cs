using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.History;

/// <summary>One thing that was done; undone when <paramref name="UndoneAt"/> says so. <paramref name="Here"/> on this device.</summary>
public sealed record StepEntry(Guid Id, DateTimeOffset At, string Actor, bool Here, string Words, bool Removes, DateTimeOffset? UndoneAt);

/// <summary>What was done, newest first, and what undo and redo would turn next on this device; null when there is nothing.</summary>
public sealed record Steps(IReadOnlyList<StepEntry> Done, Guid? Undo, Guid? Redo);

/// <summary>A step by its id, or the next on this device.</summary>
public sealed record TurnIn(Guid? Step);

/// <summary>The step that was turned, in its words.</summary>
public sealed record Turned(Guid Step, string Words, bool Undone);

/// <summary>One undo for everything that can be changed about a plan: in order, across views and reloads.</summary>
public static class HistoryEndpoints
{
    /// <summary>So far back it goes.</summary>
    public const int Most = OldSteps.Kept;

    public static void MapHistory(this IEndpointRouteBuilder app)
    {
        var history = app.MapGroup("/api/workshops/{workshopId:guid}").WithTags("History");
        history.MapGet("/steps", List).WithName("steps").WithSummary($"The last {Most} things that were done, newest first, with those removed within a month.").ProducesProblem(404);
        history.MapPost("/undo", Undo).WithName("undo").WithSummary("Turns the newest step of this device back, or the one named. Refused where something else changed the same since; nothing is overwritten.").Writes<Turned>();
        history.MapPost("/redo", Redo).WithName("redo").WithSummary("Turns the step undone last forth again.").Writes<Turned>();
    }

    private static async Task<Results<Ok<Steps>, ProblemHttpResult>> List(Guid workshopId, HttpRequest request, LowfellDb db, TimeProvider clock, CancellationToken stop)
    {
        if (!await db.Workshops.AnyAsync(w => w.Id == workshopId, stop))
            return Problems.NotFound("workshop");
        var device = Actor.Of(request).Device;
        var month = clock.GetUtcNow() - Receipts.Kept;
        var newest = await db.JournalSteps.AsNoTracking().Where(s => s.WorkshopId == workshopId).OrderByDescending(s => s.Sequence).Take(Most).ToListAsync(stop);
        var oldest = newest.Count > 0 ? newest[^1].Sequence : 0;
        var removals = newest.Count < Most ? [] : await db.JournalSteps.AsNoTracking().Where(s => s.WorkshopId == workshopId && s.Removes && s.UndoneAt == null && s.At > month && s.Sequence < oldest).OrderByDescending(s => s.Sequence).Take(Most).ToListAsync(stop);
        return TypedResults.Ok(new Steps(
            newest.Concat(removals).Select(s => new StepEntry(s.Id, s.At, s.Actor, s.Device == device, s.Words, s.Removes, s.UndoneAt)).ToList(),
            Next(newest, device, back: true)?.Id, Next(newest, device, back: false)?.Id));
    }

    /// <summary>
    /// What undo turns next: the newest step of a device that stands. And redo: the oldest undone one that came after it; a new step
    /// makes those that were undone before it history.
    /// </summary>
    private static JournalStepRow? Next(IReadOnlyList<JournalStepRow> newestFirst, string device, bool back)
    {
        var own = newestFirst.Where(s => s.Device == device);
        return back ? own.FirstOrDefault(s => s.UndoneAt is null) : own.TakeWhile(s => s.UndoneAt is not null).LastOrDefault();
    }

    private static Task<Outcome<Turned>> Undo(Guid workshopId, TurnIn entry, Write write) => Turn(workshopId, entry.Step, back: true, write);

    private static Task<Outcome<Turned>> Redo(Guid workshopId, TurnIn entry, Write write) => Turn(workshopId, entry.Step, back: false, write);

    private static async Task<Outcome<Turned>> Turn(Guid workshopId, Guid? named, bool back, Write write)
    {
        // One at a time in a workshop: the next step is another once this one is turned.
        if (await write.Db.Database.SqlQuery<Guid>($"select id as \"Value\" from workshops where id = {workshopId} for no key update").ToListAsync(write.Stop) is not [_])
            return Problems.NotFound("workshop");
        write.In(workshopId);
        var steps = write.Db.JournalSteps.AsNoTracking().Where(s => s.WorkshopId == workshopId);
        var step = named is { } id
            ? await steps.FirstOrDefaultAsync(s => s.Id == id, write.Stop)
            : Next(await steps.Where(s => s.Device == write.Actor.Device).OrderByDescending(s => s.Sequence).Take(Most).ToListAsync(write.Stop), write.Actor.Device, back);
        if (step is null)
            return Problems.Of(StatusCodes.Status409Conflict, "nothing-to-turn", back ? "There is nothing to undo on this device." : "There is nothing to redo.");
        if (step.UndoneAt is null != back)
            return Problems.Of(StatusCodes.Status409Conflict, "turned-already", back ? "This is undone already." : "This stands already.");
        foreach (var table in await Journal.Turn(write.Db, step.Id, back, write.Actor, write.Stop))
            foreach (var slice in Slices.OfTable(write.Db, table))
                write.Touch(slice);
        DateTimeOffset? undone = back ? write.Now : null;
        await write.Db.Database.ExecuteSqlAsync($"update journal_steps set undone_at = {undone} where id = {step.Id}", write.Stop);
        return new Turned(step.Id, step.Words, back);
    }
}
