using System.Text.Json;
using Lowfell.Core.Bench;
using Lowfell.Core.Words;
using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Options;

namespace Lowfell.Server.Bench;

/// <summary>
/// Takes in what a device has to tell from the bench: in its order, each once, however often and however late it is sent. What does not fit
/// is kept whole until a person decides about it, and the rest goes on.
/// </summary>
internal sealed class BenchIntake(Guid workshop, BenchDeviceRow device, ToldClock clock, Write write, EventIntake events, JsonSerializerOptions json)
{
    public const int MostEvents = 200;
    private static readonly TimeSpan farthestClock = TimeSpan.FromDays(365 * 100);
    private DateTimeOffset? before;

    private LowfellDb Db => write.Db;

    public static async Task<Outcome<BenchTold>> Take(Guid workshopId, BenchEventsIn entry, Write write, SetGraphs graphs, IOptions<JsonOptions> json)
    {
        if (!await write.Db.Workshops.AnyAsync(w => w.Id == workshopId, write.Stop))
            return Problems.NotFound("workshop");
        var told = entry.Events ?? [];
        if (Wrong(entry, told, write.Now) is { Any: true } faults)
            return faults.ToProblem();
        write.In(workshopId);
        var potIds = told.Select(e => e!.PotId).OfType<Guid>().Distinct().ToList();
        await write.Db.Database.ExecuteSqlAsync($"select 1 from pots where id = any({potIds}) order by id for no key update", write.Stop);
        await PieceBook.Hold(write.Db, workshopId, write.Stop);
        var name = write.Actor.Device;
        var device = await write.Db.BenchDevices.FindAsync([workshopId, name], write.Stop);
        if (device is null)
            write.Db.Add(device = new BenchDeviceRow { WorkshopId = workshopId, Device = name });
        var known = told.Where(e => e!.Number <= device.LastNumber).Select(e => e!.Id!.Value).ToList();
        var here = await write.Db.WorkEvents.Where(e => known.Contains(e.Id) && e.WorkshopId == workshopId).Select(e => e.Id).Union(write.Db.BenchRefusals.Where(r => known.Contains(r.EventId) && r.WorkshopId == workshopId).Select(r => r.EventId)).CountAsync(write.Stop);
        if (here < known.Distinct().Count())
            return Order("number-used", "These numbers are used up for other events of this device. Number what is left to tell from the last number on; nothing was stored.", device);
        if (told[0]!.Number > device.LastNumber + 1)
            return Order("out-of-order", $"Event {device.LastNumber + 1} of this device has not come yet. Send what comes before first; nothing was stored.", device);
        var events = new EventIntake(workshopId, write, graphs);
        var intake = new BenchIntake(workshopId, device, new ToldClock(write.Now, new(entry.SentAt!.Value, entry.Epoch, entry.Tick)), write, events, json.Value.SerializerOptions)
        {
            before = await write.Db.WorkEvents.Where(e => e.WorkshopId == workshopId && e.Device == name).OrderByDescending(e => e.Sequence).Select(e => (DateTimeOffset?)e.At).FirstOrDefaultAsync(write.Stop),
        };
        foreach (var e in told.Skip(known.Count))
            await intake.Take(e!);
        device.BehindMs = (long)(write.Now - entry.SentAt.Value).TotalMilliseconds;
        device.SeenAt = write.Now;
        await events.Keep();
        return new BenchTold(workshopId, name, told[0]!.Number!.Value, told[^1]!.Number!.Value);
    }

    /// <summary>What cannot be read as events in an order at all.</summary>
    private static Faults Wrong(BenchEventsIn entry, IReadOnlyList<BenchEventIn?> told, DateTimeOffset now)
    {
        var faults = new Faults();
        faults.Require(entry.SentAt is { } sent && (now - sent).Duration() < farthestClock, "sentAt", "Give the device's clock at the moment of sending, set to this century.");
        faults.Require(told.Count is > 0 and <= MostEvents, "events", $"Send from 1 to {MostEvents} events at a time, the oldest first.");
        for (var i = 0; i < Math.Min(told.Count, MostEvents); i++)
        {
            faults.Id(told[i]?.Id, $"events[{i}].id");
            faults.Require(told[i]?.Kind is { } kind && EventIntake.Kinds.Contains(kind), $"events[{i}].kind", $"Say what happened: {string.Join(", ", EventIntake.Kinds.Select(EnumWords.Of))}.");
            faults.Require(told[i]?.ToldAt is not null, $"events[{i}].toldAt", "Give the instant by the device's clock.");
            faults.Require(told[i]?.Number is > 0 && (i == 0 || told[i]!.Number == told[i - 1]?.Number + 1), $"events[{i}].number", "Number the events of a device one after the other, without a gap.");
        }

        return faults;
    }

    private static Microsoft.AspNetCore.Http.HttpResults.ProblemHttpResult Order(string code, string says, BenchDeviceRow device) =>
        Problems.Of(StatusCodes.Status409Conflict, code, says, [new Fault("events[0].number", says)], new { lastNumber = device.LastNumber });

    /// <summary>One event: into the stream, or to what did not fit, or part of it to each. Saved one by one, so that the stream keeps their order.</summary>
    private async Task Take(BenchEventIn e)
    {
        device.LastNumber = e.Number!.Value;
        var (at, guessed) = clock.Of(e.Instant, before);
        before = at;
        if (await IsTold(e))
            return;
        var refused = await Used(e.Id!.Value) ? new NotFitting("This id is another event's.")
            : e.Kind == WorkKind.TakenBack && await LetGo(e, at) ? null
            : await events.Take(e, new Teller(write.Actor.Name, device.Device, e.Number, at, guessed));
        if (refused is not null)
            await Refuse(e, refused, at);
        await write.Save();
    }

    /// <summary>
    /// Told before, under another number: a device that was taken in anew, or lost count, sends what it has once more, and each counts once.
    /// </summary>
    private async Task<bool> IsTold(BenchEventIn e)
    {
        var (id, at) = (e.Id!.Value, Stored(e.ToldAt!.Value));
        if (await Db.WorkEvents.Where(x => x.Id == id && x.WorkshopId == workshop).Select(x => new { x.Kind, x.ToldAt, x.ZoneId, x.UndoesId }).FirstOrDefaultAsync(write.Stop) is { } there)
            return there.Kind == e.Kind && there.ToldAt == at && (there.ZoneId is null || there.ZoneId == e.ZoneId || e.Also?.Any(a => a?.ZoneId == there.ZoneId) == true) && there.UndoesId == e.UndoesId;
        return await Db.BenchRefusals.Where(x => x.EventId == id && x.WorkshopId == workshop).Select(x => x.Told).FirstOrDefaultAsync(write.Stop) is { } told && Same(told, e);
    }

    private bool Same(string told, BenchEventIn e) => UnfitBook.Read(told, json) is { } was && (was with { Number = null, PieceIds = null, ZoneId = null, LayerId = null, Also = null }) == (e with { Number = null, PieceIds = null, ZoneId = null, LayerId = null, Also = null, Amounts = was.Amounts });

    /// <summary>As the database keeps an instant: microseconds.</summary>
    private static DateTimeOffset Stored(DateTimeOffset at) => new(at.UtcTicks / TimeSpan.TicksPerMicrosecond * TimeSpan.TicksPerMicrosecond, TimeSpan.Zero);

    private async Task<bool> Used(Guid id) => await Db.WorkEvents.AnyAsync(x => x.Id == id, write.Stop) || await Db.BenchRefusals.AnyAsync(x => x.EventId == id, write.Stop);

    /// <summary>What did not fit is taken back by the one who told it: nobody has to decide about it any more.</summary>
    private async Task<bool> LetGo(BenchEventIn e, DateTimeOffset at)
    {
        if (await Db.BenchRefusals.FirstOrDefaultAsync(r => r.EventId == e.UndoesId && r.WorkshopId == workshop && r.Settled == null, write.Stop) is not { } open || await Db.WorkEvents.AnyAsync(x => x.Id == e.UndoesId, write.Stop))
            return false;
        UnfitBook.Settle(open, Settled.LetGo, write, became: null);
        var back = Refusal(e, e.Id!.Value, "It takes back what did not fit.", at);
        UnfitBook.Settle(back, Settled.LetGo, write, became: null);
        Db.Add(back);
        return true;
    }

    private async Task Refuse(BenchEventIn e, NotFitting why, DateTimeOffset at)
    {
        // One of the same id is kept under an id of its own.
        var free = !await Db.BenchRefusals.AnyAsync(x => x.EventId == e.Id, write.Stop);
        Db.Add(Refusal(why.Rest ?? e, free ? e.Id!.Value : Guid.NewGuid(), why.Why, at));
        write.Touch(Slice.Work);
    }

    private BenchRefusalRow Refusal(BenchEventIn e, Guid id, string why, DateTimeOffset at) => new()
    {
        EventId = id,
        WorkshopId = workshop,
        Device = device.Device,
        Number = e.Number,
        Why = why.Length <= 500 ? why : why[..499] + "…",
        Actor = write.Actor.Name,
        Told = JsonSerializer.Serialize(e, json),
        HappenedAt = at.ToUniversalTime(),
        At = write.Now,
    };
}
