using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;

namespace Lowfell.Server.Bench;

/// <summary>What did not fit: looked at, taken in after all, put right, or let go of; each can be undone.</summary>
internal static class UnfitEndpoints
{
    private const int LongestTold = 100_000, LongestWhy = 500;

    public static void MapUnfit(this RouteGroupBuilder bench)
    {
        var group = bench.MapGroup("/unfit");
        group.MapGet("/", Of).WithName("unfit").WithSummary("Events that did not fit, kept whole, and what was decided about them.").ProducesProblem(404).For(DeviceRole.Work);
        group.MapPost("/", Keep).WithName("keepUnfit").WithSummary("Keeps something from a device that could not be read as an event.").Writes<UnfitTold>().For(DeviceRole.Work);
        group.MapPost("/{id:guid}/take-in", (Guid workshopId, Guid id, Write write, SetGraphs graphs, HttpContext http, IOptions<JsonOptions> json) => TakeIn(workshopId, id, null, write, graphs, http, json)).WithName("takeInUnfit").WithSummary("Takes an event in after all, as it was told.").Writes<UnfitTold>().For(DeviceRole.Work);
        group.MapPost("/{id:guid}/correct", (Guid workshopId, Guid id, UnfitChange change, Write write, SetGraphs graphs, HttpContext http, IOptions<JsonOptions> json) => TakeIn(workshopId, id, change, write, graphs, http, json)).WithName("correctUnfit").WithSummary("Takes an event in, put right: another zone, layer, pieces or note.").Writes<UnfitTold>().For(DeviceRole.Work);
        group.MapPost("/{id:guid}/let-go", LetGo).WithName("letGoUnfit").WithSummary("An event is not wanted; it stays in the list of what was decided.").Writes<UnfitTold>().For(DeviceRole.Work);
        group.MapPost("/{id:guid}/undo", Undo).WithName("undoUnfit").WithSummary("Takes back what was decided: what was taken in is taken back, and the event waits again.").Writes<UnfitTold>().For(DeviceRole.Work);
    }

    /// <summary>Another device sees and settles what it told itself.</summary>
    private static string? Only(HttpContext http) => http.DeviceOf() is { } device ? Actor.NameOfPaired(device.Id) : null;

    private static async Task<Results<Ok<UnfitReading>, ProblemHttpResult>> Of(Guid workshopId, LowfellDb db, HttpContext http, IOptions<JsonOptions> json, CancellationToken stop) =>
        await db.Workshops.AnyAsync(w => w.Id == workshopId, stop) ? TypedResults.Ok(await UnfitBook.Of(db, workshopId, Only(http), json.Value.SerializerOptions, stop)) : Problems.NotFound("workshop");

    private static async Task<BenchRefusalRow?> Find(Guid workshop, Guid id, Write write, HttpContext http)
    {
        await PieceBook.Hold(write.Db, workshop, write.Stop);
        write.In(workshop);
        var only = Only(http);
        return await write.Db.BenchRefusals.FirstOrDefaultAsync(r => r.EventId == id && r.WorkshopId == workshop && (only == null || r.Device == only), write.Stop);
    }

    private static ProblemHttpResult Decided(BenchRefusalRow row) =>
        Problems.Of(StatusCodes.Status409Conflict, "settled", $"This was decided already: {Core.Words.EnumWords.Of(row.Settled!.Value)}. Undo that first.");

    private static async Task<Outcome<UnfitTold>> Keep(Guid workshopId, UnfitIn entry, Write write)
    {
        if (!await write.Db.Workshops.AnyAsync(w => w.Id == workshopId, write.Stop))
            return Problems.NotFound("workshop");
        write.In(workshopId);
        var faults = new Faults();
        faults.Id(entry.Id, "id");
        faults.Require(entry.Told is { Length: > 0 and <= LongestTold } text && !text.Contains('\0', StringComparison.Ordinal), "told", $"Send what is to be kept as text, at most {LongestTold} characters.");
        faults.Text(entry.Why, "why", LongestWhy);
        if (faults.Any)
            return faults.ToProblem();
        if (!await write.Db.BenchRefusals.AnyAsync(r => r.EventId == entry.Id, write.Stop))
            write.Db.Add(new BenchRefusalRow { EventId = entry.Id!.Value, WorkshopId = workshopId, Device = write.Actor.Device, Why = entry.Why!, Actor = write.Actor.Name, Told = entry.Told!, HappenedAt = entry.ToldAt is { } told && told <= write.Now ? told.ToUniversalTime() : null, At = write.Now });
        write.Touch(Slice.Work);
        await write.Save();
        return new UnfitTold(workshopId, entry.Id!.Value);
    }

    private static async Task<Outcome<UnfitTold>> TakeIn(Guid workshopId, Guid id, UnfitChange? change, Write write, SetGraphs graphs, HttpContext http, IOptions<JsonOptions> json)
    {
        if (await Find(workshopId, id, write, http) is not { } row)
            return Problems.NotFound("event that did not fit");
        if (row.Settled is not null)
            return Decided(row);
        if (UnfitBook.Read(row.Told, json.Value.SerializerOptions) is not { } told || !EventIntake.Kinds.Contains(told.Kind!.Value))
            return Problems.Of(StatusCodes.Status409Conflict, "not-an-event", "What was kept of it is not enough to take it in. Note it by hand at the bench, then let this go.");
        var e = (change is null ? told : told with { ZoneId = change.ZoneId ?? told.ZoneId, LayerId = change.LayerId ?? told.LayerId, Also = change.ZoneId is null ? told.Also : null, PieceIds = change.PieceIds ?? told.PieceIds, Note = change.Note ?? told.Note }) with { Id = Guid.NewGuid() };
        if (e.PotId is { } pot)
            await write.Db.Database.ExecuteSqlAsync($"select 1 from pots where id = {pot} for no key update", write.Stop);
        var events = new EventIntake(workshopId, write, graphs);
        var refused = await events.Take(e, new Teller(row.Actor, row.Device, null, row.HappenedAt ?? row.At, row.HappenedAt is null));
        if (refused is not null)
            return Problems.Of(StatusCodes.Status409Conflict, "still-not", $"It still does not fit: {refused.Why}", [new Fault(refused.Rest is not { } rest ? "" : ReferenceEquals(rest.PieceIds, e.PieceIds) ? "zoneId" : "pieceIds", $"It still does not fit: {refused.Why}")]);
        await events.Keep();
        UnfitBook.Settle(row, change is null ? Settled.TakenIn : Settled.Corrected, write, e.Id);
        await write.Save();
        return new UnfitTold(workshopId, id);
    }

    private static async Task<Outcome<UnfitTold>> LetGo(Guid workshopId, Guid id, Write write, HttpContext http)
    {
        if (await Find(workshopId, id, write, http) is not { } row)
            return Problems.NotFound("event that did not fit");
        if (row.Settled is not null)
            return Decided(row);
        UnfitBook.Settle(row, Settled.LetGo, write, null);
        await write.Save();
        return new UnfitTold(workshopId, id);
    }

    private static async Task<Outcome<UnfitTold>> Undo(Guid workshopId, Guid id, Write write, SetGraphs graphs, HttpContext http)
    {
        if (await Find(workshopId, id, write, http) is not { } row)
            return Problems.NotFound("event that did not fit");
        if (row.BecameId is { } became && !await write.Db.WorkEvents.AnyAsync(x => x.UndoesId == became, write.Stop))
        {
            var events = new EventIntake(workshopId, write, graphs);
            if (await events.TakeBack(new BenchEventIn(Guid.NewGuid(), null, WorkKind.TakenBack, write.Now, UndoesId: became), new Teller(write.Actor.Name, row.Device, null, write.Now, false)) is { } why)
                return Problems.Of(StatusCodes.Status409Conflict, "still-not", why);
            await events.Keep();
        }

        UnfitBook.Settle(row, null, write, null);
        await write.Save();
        return new UnfitTold(workshopId, id);
    }
}
