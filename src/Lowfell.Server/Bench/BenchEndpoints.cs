using System.Text.Json;
using Lowfell.Server.Http;
using Lowfell.Server.Timetables;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;

namespace Lowfell.Server.Bench;

/// <summary>The bench: what to do now, what is drying, and what happened.</summary>
public static class BenchEndpoints
{
    public static void MapBench(this IEndpointRouteBuilder app)
    {
        var json = app.ServiceProvider.GetRequiredService<IOptions<JsonOptions>>().Value.SerializerOptions;
        var group = app.MapGroup("/api/bench/{workshopId:guid}").WithTags("Bench");
        group.MapGet("/", Of).WithName("bench").WithSummary("What to do in the session at hand, what is drying, and how far this device is with what it has told.").ProducesProblem(404).For(DeviceRole.Look, DeviceRole.Work);
        group.MapGet("/task", Task).WithName("benchTask").WithSummary("A layer on all pieces that want it, for work outside of the timetable.").ProducesProblem(404).For(DeviceRole.Look, DeviceRole.Work);
        group.MapPost("/events", BenchIntake.Take).WithName("tellBench").WithSummary("What happened at the bench, in the order of a device: each counts once, however often and however late it is sent.").Writes<BenchTold, BenchAnswer>((told, telling) => Tell(told, telling, json)).For(DeviceRole.Work);
        group.MapUnfit();
        group.MapPost("/rebuild", Rebuild).WithName("rebuildPieces").WithSummary("Folds the whole stream anew and puts right what is kept of it; tells how much differed.").Writes<RebuiltPieces>();
    }

    private static async Task<Results<Ok<BenchReading>, ProblemHttpResult>> Of(Guid workshopId, HttpRequest request, LowfellDb db, SetGraphs graphs, TimeProvider time, CancellationToken stop)
    {
        var now = time.GetUtcNow();
        if (await Planner.Read(workshopId, db, graphs, now, stop) is not var (planner, row))
            return Problems.NotFound("workshop");
        return TypedResults.Ok(await new BenchReader(planner, db, now, stop).Read(row, Actor.Of(request).Device));
    }

    private static async Task<Results<Ok<BenchTask>, ProblemHttpResult>> Task(Guid workshopId, Guid zoneId, Guid layerId, LowfellDb db, SetGraphs graphs, TimeProvider time, CancellationToken stop)
    {
        var now = time.GetUtcNow();
        if (await Planner.Read(workshopId, db, graphs, now, stop) is not var (planner, _))
            return Problems.NotFound("workshop");
        return await new BenchReader(planner, db, now, stop).Task(zoneId, layerId) is { } task ? TypedResults.Ok(task) : Problems.NotFound("layer");
    }

    private static async Task<BenchAnswer> Tell(BenchTold told, Telling telling, JsonSerializerOptions json)
    {
        var device = await telling.Db.BenchDevices.AsNoTracking().FirstAsync(d => d.WorkshopId == told.WorkshopId && d.Device == told.Device, telling.Stop);
        var rows = await telling.Db.BenchRefusals.AsNoTracking().Where(r => r.WorkshopId == told.WorkshopId && r.Device == told.Device && r.Number >= told.From && r.Number <= told.To && r.Settled == null).OrderBy(r => r.Number)
            .Select(r => new { r.EventId, Number = r.Number!.Value, r.Why, r.Told, Part = telling.Db.WorkEvents.Any(e => e.Id == r.EventId && e.DeviceNumber == r.Number) }).ToListAsync(telling.Stop);
        return new BenchAnswer(device.LastNumber, device.BehindMs, rows.Select(r => new BenchRefusal(r.EventId, r.Number, r.Why, r.Part ? UnfitBook.Read(r.Told, json)?.PieceIds : null)).ToList());
    }

    /// <summary>How many rows of what is kept were not as a replay has them.</summary>
    public sealed record RebuiltPieces(Guid WorkshopId, int Differed);

    private static async Task<Outcome<RebuiltPieces>> Rebuild(Guid workshopId, Write write)
    {
        if (!await write.Db.Workshops.AnyAsync(w => w.Id == workshopId, write.Stop))
            return Problems.NotFound("workshop");
        write.In(workshopId);
        await PieceBook.Hold(write.Db, workshopId, write.Stop);
        var differed = await PieceBook.Rebuild(write.Db, workshopId, write.Stop);
        return new RebuiltPieces(workshopId, differed);
    }
}
