using Lowfell.Core.Bench;
using Lowfell.Core.Estimates;
using Lowfell.Core.Words;
using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Bench;

/// <summary>
/// Takes in what a device has to tell from the bench: in its order, each once, however often and however late it is sent. One event that
/// cannot be is refused for good, and the rest goes on.
/// </summary>
internal sealed class BenchIntake(Guid workshop, BenchDeviceRow device, TimeSpan behind, Write write, SetGraphs graphs)
{
    public const int MostEvents = 200;
    private const int MostPieces = 500, LongestText = 500, OldestDays = 60;
    private const double MostMinutes = 24 * 60;
    private const decimal MostMl = 5000;
    private static readonly TimeSpan slack = TimeSpan.FromSeconds(5), farthestClock = TimeSpan.FromDays(365 * 100);

    /// <summary>What is told of layers on pieces, and of pots for them; pots have more happen to them, elsewhere.</summary>
    private static readonly IReadOnlySet<WorkKind> kinds = new HashSet<WorkKind>
    {
        WorkKind.Made, WorkKind.ToppedUp,
        WorkKind.Begun, WorkKind.Given, WorkKind.Paused, WorkKind.Skipped, WorkKind.Wiped, WorkKind.Mishap, WorkKind.HotAir, WorkKind.TouchedDry, WorkKind.Noted, WorkKind.Accepted, WorkKind.TakenBack,
    };

    private readonly Dictionary<Guid, Place?> places = [];
    private readonly PotIntake pots = new(workshop, write);
    private readonly Dictionary<(Guid Zone, Guid Line), Guid?> rows = [];
    private readonly HashSet<PieceKey> changed = [];
    private DateTimeOffset from = DateTimeOffset.MaxValue;

    private LowfellDb Db => write.Db;

    public static async Task<Outcome<BenchTold>> Take(Guid workshopId, BenchEventsIn entry, Write write, SetGraphs graphs)
    {
        if (!await write.Db.Workshops.AnyAsync(w => w.Id == workshopId, write.Stop))
            return Problems.NotFound("workshop");
        var faults = new Faults();
        var events = entry.Events ?? [];
        faults.Require(entry.SentAt is { } sent && (write.Now - sent).Duration() < farthestClock, "sentAt", "Give the device's clock at the moment of sending, set to this century.");
        faults.Require(events.Count is > 0 and <= MostEvents, "events", $"Send from 1 to {MostEvents} events at a time, the oldest first.");
        for (var i = 0; i < Math.Min(events.Count, MostEvents); i++)
        {
            faults.Id(events[i]?.Id, $"events[{i}].id");
            faults.Require(events[i]?.Kind is { } kind && kinds.Contains(kind), $"events[{i}].kind", $"Say what happened: {string.Join(", ", kinds.Select(EnumWords.Of))}.");
            faults.Require(events[i]?.ToldAt is not null, $"events[{i}].toldAt", "Give the instant by the device's clock.");
            faults.Require(events[i]?.Number is > 0 && (i == 0 || events[i]!.Number == events[i - 1]?.Number + 1), $"events[{i}].number", "Number the events of a device one after the other, without a gap.");
        }

        if (faults.Any)
            return faults.ToProblem();
        write.In(workshopId);
        var potIds = events.Select(e => e!.PotId).OfType<Guid>().Distinct().ToList();
        await write.Db.Database.ExecuteSqlAsync($"select 1 from pots where id = any({potIds}) order by id for no key update", write.Stop);
        await PieceBook.Hold(write.Db, workshopId, write.Stop);
        var name = write.Actor.Device;
        var device = await write.Db.BenchDevices.FindAsync([workshopId, name], write.Stop);
        if (device is null)
            write.Db.Add(device = new BenchDeviceRow { WorkshopId = workshopId, Device = name });
        var known = events.Where(e => e!.Number <= device.LastNumber).Select(e => e!.Id!.Value).ToList();
        var here = await write.Db.WorkEvents.Where(e => known.Contains(e.Id) && e.WorkshopId == workshopId).Select(e => e.Id).Union(write.Db.BenchRefusals.Where(r => known.Contains(r.EventId) && r.WorkshopId == workshopId).Select(r => r.EventId)).CountAsync(write.Stop);
        if (here < known.Distinct().Count())
            return Order("number-used", "These numbers are used up for other events of this device. Number what is left to tell from the last number on; nothing was stored.", device);
        if (events[0]!.Number > device.LastNumber + 1)
            return Order("out-of-order", $"Event {device.LastNumber + 1} of this device has not come yet. Send what comes before first; nothing was stored.", device);
        var behind = write.Now - entry.SentAt!.Value;
        var intake = new BenchIntake(workshopId, device, behind, write, graphs);
        foreach (var e in events.Skip(known.Count))
            await intake.Take(e!, entry.SentAt.Value);
        device.BehindMs = (long)behind.TotalMilliseconds;
        device.SeenAt = write.Now;
        await intake.Keep();
        return new BenchTold(workshopId, name, events[0]!.Number!.Value, events[^1]!.Number!.Value);
    }

    private static Microsoft.AspNetCore.Http.HttpResults.ProblemHttpResult Order(string code, string says, BenchDeviceRow device) =>
        Problems.Of(StatusCodes.Status409Conflict, code, says, [new Fault("events[0].number", says)], new { lastNumber = device.LastNumber });

    /// <summary>One event: into the stream, or refused. Saved one by one, so that the stream keeps their order.</summary>
    private async Task Take(BenchEventIn e, DateTimeOffset sentAt)
    {
        device.LastNumber = e.Number!.Value;
        if (await Read(e, sentAt) is { } why)
            Db.Add(new BenchRefusalRow { EventId = await IsRefused(e.Id!.Value) ? Guid.NewGuid() : e.Id.Value, WorkshopId = workshop, Device = device.Device, Number = e.Number.Value, Why = why, At = write.Now });
        await write.Save();
    }

    /// <summary>An event of this id was refused already: another of the same id is refused under one of its own.</summary>
    private Task<bool> IsRefused(Guid id) => Db.BenchRefusals.AnyAsync(x => x.EventId == id, write.Stop);

    /// <summary>Adds an event, or says why it cannot be.</summary>
    private async Task<string?> Read(BenchEventIn e, DateTimeOffset sentAt)
    {
        if (e.ToldAt > sentAt + slack)
            return "It is said to have happened after it was sent.";
        if (e.ToldAt < sentAt.AddDays(-OldestDays))
            return $"It is said to have happened more than {OldestDays} days ago.";
        var at = e.ToldAt!.Value + behind;
        if (e.Note?.Length > LongestText || e.SavedBy?.Length > LongestText)
            return $"At most {LongestText} characters can be noted.";
        if ((e.Note + e.SavedBy).Any(c => char.IsControl(c) && c is not ('\n' or '\t')))
            return "What was noted has control characters in it.";
        if (e.Minutes is < 0 or > MostMinutes)
            return $"Minutes taken are from 0 to {MostMinutes:0}.";
        if (await Db.WorkEvents.AnyAsync(x => x.Id == e.Id, write.Stop) || await IsRefused(e.Id!.Value))
            return "This id is another event's.";
        var row = Row(e, at > write.Now ? write.Now : at);
        if (e.Kind == WorkKind.TakenBack)
            return await TakeBack(row, e);
        if (e.ZoneId is null && e.Kind is WorkKind.Noted or WorkKind.Mishap)
        {
            Db.Add(row);
            return null;
        }

        if (await PlaceOf(e.ZoneId) is not { } place)
            return "This zone is not in this workshop.";
        if (e.Kind is WorkKind.Made or WorkKind.ToppedUp)
            return await pots.Fill(e, place.Graph, filled => Row(e, row.At, pot: filled), row.At);
        if (e.LayerId is not { } line || await RowOf(place, line) is not { } layerRow)
            return "This layer was never planned for the zone.";
        var pieces = (e.PieceIds ?? []).Distinct().ToList();
        if (pieces.Count is 0 or > MostPieces)
            return $"Say which pieces: from 1 to {MostPieces}.";
        if (!pieces.All(p => place.Design.Pieces.Any(x => x.Id == p)))
            return "One of these pieces is not of this design.";
        var layer = place.Layers.FirstOrDefault(l => l.Id == line);
        var estimate = layer is null ? null : (decimal?)decimal.Round((decimal)HandsOn.Batch(layer, place.Context.Zone, pieces.Count, place.Context.Pace), 2);
        PotRow? pot = null;
        if (e is { Kind: WorkKind.Given, PotId: { } id } && (pot = await pots.Of(id)) is null)
            return "This pot is not of this workshop.";
        if (e.Ml is <= 0 or > MostMl)
            return $"What was taken from the pot is from 0 to {MostMl} ml.";
        row = Row(e, row.At, new On(place.Zone.Id, layerRow, line, estimate), pot);
        row.Pieces.AddRange(pieces.Select(p => new WorkPieceRow { EventId = row.Id, PieceId = p }));
        if (pot is not null)
            pots.Lay(row, pot, e.Ml, layer is null ? 0 : Quantities.PotMl(layer, place.Context.Zone, pieces.Count), place.Graph);
        Db.Add(row);
        Mark(row);
        return null;
    }

    /// <summary>Where something was laid, by which layer, and what that was thought to take.</summary>
    private readonly record struct On(Guid Zone, Guid Layer, Guid Line, decimal? EstimateMinutes);

    private WorkEventRow Row(BenchEventIn e, DateTimeOffset at, On? on = null, PotRow? pot = null, Guid? undoes = null) => new()
    {
        Id = e.Id!.Value,
        WorkshopId = workshop,
        Actor = write.Actor.Name,
        Device = device.Device,
        DeviceNumber = e.Number,
        Kind = e.Kind!.Value,
        ToldAt = e.ToldAt!.Value.ToUniversalTime(),
        At = at.ToUniversalTime(),
        ReceivedAt = write.Now,
        Note = e.Note?.Trim() ?? "",
        SavedBy = e.SavedBy?.Trim() ?? "",
        SaidMinutes = e.Minutes is { } minutes ? decimal.Round((decimal)minutes, 2) : null,
        EstimateMinutes = on?.EstimateMinutes,
        ZoneId = on?.Zone,
        LayerId = on?.Layer,
        LineId = on?.Line,
        UndoesId = undoes,
        PotId = pot?.Id,
        BeforeId = pot?.NewestEventId,
        Filling = on is null ? null : pot?.Filling,
    };

    private async Task<string?> TakeBack(WorkEventRow row, BenchEventIn e)
    {
        if (e.UndoesId is not { } id || await Db.WorkEvents.AsNoTracking().Include(x => x.Amounts).Include(x => x.Pieces).FirstOrDefaultAsync(x => x.Id == id && x.WorkshopId == workshop, write.Stop) is not { } old)
            return "What is to be taken back is not known here.";
        if (!kinds.Contains(old.Kind) || old.Kind == WorkKind.TakenBack)
            return "That is not taken back at the bench.";
        if (await Db.WorkEvents.AnyAsync(x => x.UndoesId == id, write.Stop))
            return "That was taken back already.";

        // Out of the pot came what is on the pieces, unless more was taken after it: then what it was is not known any more.
        var pot = old.PotId is { } from && await pots.Of(from) is { } its && its.NewestEventId == old.Id ? its : null;
        var filled = old.Kind is WorkKind.Made or WorkKind.ToppedUp;
        if (filled && pot is null)
            return "Something happened to the pot since. Take that back first, or say at the pots what is left in it.";
        var taken = Row(e, row.At, pot: pot, undoes: old.Id);
        if (pot is not null)
            pots.TakeBack(taken, old, pot);
        Db.Add(taken);
        if (filled)
            await pots.BackToShelf(old, row.At);
        Mark(old);
        return null;
    }

    private void Mark(WorkEventRow of)
    {
        if (of.ZoneId is not { } zone)
            return;
        changed.UnionWith(of.Pieces.Select(p => new PieceKey(zone, of.LineId!.Value, p.PieceId)));
        from = of.At < from ? of.At : from;
    }

    /// <summary>Brings what the stream comes to up to it.</summary>
    private async Task Keep()
    {
        await write.Save();
        if (changed.Count == 0)
            return;
        await PieceBook.Refold(Db, changed, write.Stop);
        await PieceBook.Retime(Db, workshop, device.Device, from, write.Stop);
        await write.Save();
    }

    private async Task<Place?> PlaceOf(Guid? zone)
    {
        if (zone is not { } id)
            return null;
        if (places.TryGetValue(id, out var known))
            return known;
        var set = await Db.Zones.Where(z => z.Id == id).Join(Db.Designs, z => z.DesignId, d => d.Id, (z, d) => d.SetId).Where(s => Db.Sets.Any(x => x.Id == s && x.WorkshopId == workshop)).Select(s => (Guid?)s).FirstOrDefaultAsync(write.Stop);
        return places[id] = set is { } of && await graphs.OfSet(Db, of, write.Stop) is { } graph ? graph.Find(id) : null;
    }

    /// <summary>The newest row of a layer's line: on the zone's treatment, or on one it had before.</summary>
    private async Task<Guid?> RowOf(Place place, Guid line)
    {
        if (rows.TryGetValue((place.Zone.Id, line), out var known))
            return known;
        var all = await Db.Layers.AsNoTracking().Where(l => l.LineId == line && Db.Treatments.Any(t => t.Id == l.TreatmentId && t.WorkshopId == workshop)).Select(l => new { l.Id, l.TreatmentId }).ToListAsync(write.Stop);
        var now = await Revisions.Layers(Db).Where(l => l.TreatmentId == place.Zone.TreatmentId && l.LineId == line).Select(l => (Guid?)l.Id).FirstOrDefaultAsync(write.Stop);
        return rows[(place.Zone.Id, line)] = now ?? all.OrderByDescending(l => l.TreatmentId == place.Zone.TreatmentId).ThenByDescending(l => l.Id).Select(l => (Guid?)l.Id).FirstOrDefault();
    }
}
