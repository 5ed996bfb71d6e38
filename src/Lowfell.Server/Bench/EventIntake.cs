using Lowfell.Core.Bench;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Bench;

/// <summary>Why an event did not fit, or as much of it as did not: Rest is that, where the others were taken in.</summary>
internal sealed record NotFitting(string Why, BenchEventIn? Rest = null);

/// <summary>Who told an event, when it happened, and under which number and id it goes into the stream.</summary>
internal sealed record Teller(string Actor, string Device, long? Number, DateTimeOffset At, bool Guessed);

/// <summary>
/// Takes events of layers on pieces, and of pots for them, into the stream, as much of each as fits, and brings what the stream comes to up to it.
/// </summary>
internal sealed class EventIntake(Guid workshop, Write write, SetGraphs graphs)
{
    private const int MostPieces = 500, MostZones = 120, MostCoats = 20, LongestText = 500;
    private const double MostMinutes = 24 * 60;
    private const decimal MostMl = 5000;

    /// <summary>What is told of layers on pieces, and of pots for them; pots have more happen to them, elsewhere.</summary>
    public static readonly IReadOnlySet<WorkKind> Kinds = new HashSet<WorkKind>
    {
        WorkKind.Made, WorkKind.ToppedUp,
        WorkKind.Begun, WorkKind.Given, WorkKind.Paused, WorkKind.Skipped, WorkKind.Wiped, WorkKind.Mishap, WorkKind.HotAir, WorkKind.TouchedDry, WorkKind.Noted, WorkKind.Accepted, WorkKind.TakenBack,
    };

    private readonly Spots spots = new(workshop, write, graphs);
    private readonly PotIntake pots = new(workshop, write);
    private readonly HashSet<PieceKey> changed = [];
    private readonly Dictionary<string, DateTimeOffset> from = [];

    private LowfellDb Db => write.Db;

    /// <summary>Adds an event; what of it did not fit, and why.</summary>
    public async Task<NotFitting?> Take(BenchEventIn e, Teller by)
    {
        if (Wrong(e) is { } why)
            return new(why);
        if (e.Kind == WorkKind.TakenBack)
            return Said(await TakeBack(e, by));
        if (e.ZoneId is null && e.Kind is WorkKind.Noted or WorkKind.Mishap)
        {
            Db.Add(Row(e, by));
            return null;
        }

        if (e.ZoneId is not { } zone)
            return new("It does not say on which zone.");
        if (e.Kind is not (WorkKind.Made or WorkKind.ToppedUp))
            return await Lay(e, by);
        if (await spots.Of(zone) is not { } spot)
            return new(await spots.WhyNoZone(zone));
        return Said(await pots.Fill(e, spot.Graph, filled => Row(e, by, pot: filled), by.At));
    }

    /// <summary>What no event can be, wherever it is of.</summary>
    private static string? Wrong(BenchEventIn e)
    {
        if (e.Note?.Length > LongestText || e.SavedBy?.Length > LongestText)
            return $"At most {LongestText} characters can be noted. All of it is kept here; shorten it and take it in.";
        if ((e.Note + e.SavedBy).Any(c => char.IsControl(c) && c is not ('\n' or '\t')))
            return "What was noted has control characters in it.";
        if (e.Minutes is < 0 or > MostMinutes)
            return $"Minutes taken are from 0 to {MostMinutes:0}.";
        if (e.Also is { } also && (also.Count > MostZones || also.Any(a => a?.ZoneId is null || a.LayerId is null) || also.Select(a => a!.ZoneId).Append(e.ZoneId).Distinct().Count() <= also.Count))
            return $"It is of at most {MostZones} zones besides, each with its layer, each once.";
        if (e.Coats is { } coats && (e.Kind != WorkKind.Given || coats is < 1 or > MostCoats))
            return $"Coats are told with what was done: from 1 to {MostCoats}.";
        return e.Ml is <= 0 or > MostMl ? $"What was taken from the pot is more than 0 ml, at most {MostMl} ml." : null;
    }

    private static NotFitting? Said(string? why) => why is null ? null : new(why);

    private async Task<NotFitting?> Lay(BenchEventIn e, Teller by)
    {
        var (on, astray, why) = await Find(e);
        if (on.Count == 0)
            return new(why);
        var told = (e.PieceIds ?? []).Distinct().ToList();
        if (told.Count is 0 or > MostPieces)
            return new($"Say which pieces: from 1 to {MostPieces}.");
        var there = await spots.Pieces(on[0].Spot.Design);
        var (pieces, unknown) = (told.Where(there.Contains).ToList(), told.Where(p => !there.Contains(p)).ToList());

        // Where neither all zones nor all pieces fit, nothing that is left of it would say what was done.
        if (pieces.Count == 0 || (unknown.Count > 0 && astray.Count > 0))
            return new(await spots.WhyNoPieces(unknown));
        PotRow? pot = null;
        if (e is { Kind: WorkKind.Given, PotId: { } id } && (pot = await pots.Of(id)) is null)
            return new("The pot it was laid from is not of this workshop.");
        Add(e, by, on, pieces, pot);
        if (astray.Count > 0)
            return new(why, e with { ZoneId = astray[0].ZoneId, LayerId = astray[0].LayerId, Also = astray.Skip(1).ToList() });
        return unknown.Count == 0 ? null : new(await spots.WhyNoPieces(unknown), e with { PieceIds = unknown });
    }

    private void Add(BenchEventIn e, Teller by, IReadOnlyList<On> on, List<Guid> pieces, PotRow? pot)
    {
        var coated = on.Where(o => o.Layer is not null).Select(o => (Layer: e.Coats is { } coats ? o.Layer! with { Coats = coats } : o.Layer!, o.Spot.Place!.Context)).ToList();
        var estimate = coated.Count == 0 ? null : (decimal?)decimal.Round((decimal)coated.Sum(o => HandsOn.Batch(o.Layer, o.Context.Zone, pieces.Count, o.Context.Pace)), 2);
        var row = Row(e, by, on[0], pot, estimate: estimate);
        row.Also.AddRange(on.Skip(1).Select(o => new WorkAlsoRow { EventId = row.Id, ZoneId = o.Spot.Zone, LineId = o.Line }));
        row.Pieces.AddRange(pieces.Select(p => new WorkPieceRow { EventId = row.Id, PieceId = p }));
        if (pot is not null)
            pots.Lay(row, pot, e.Ml, coated.Sum(o => Quantities.PotMl(o.Layer, o.Context.Zone, pieces.Count)), on[0].Spot.Graph);
        Db.Add(row);
        Mark(row);
    }

    /// <summary>Where an event is of, zone by zone; what of it is nowhere, and why.</summary>
    private async Task<(IReadOnlyList<On> On, IReadOnlyList<AlsoIn> Astray, string Why)> Find(BenchEventIn e)
    {
        var (on, astray, whys) = (new List<On>(), new List<AlsoIn>(), new List<string>());
        foreach (var told in (e.Also ?? []).Prepend(new AlsoIn(e.ZoneId, e.LayerId)))
        {
            var spot = await spots.Of(told!.ZoneId!.Value);
            var row = spot is not null && told.LayerId is { } line ? await spots.Row(spot, line, e.SeenId) : null;
            var why = spot is null ? await spots.WhyNoZone(told.ZoneId.Value)
                : row is null ? "This layer was never planned for the zone."
                : on.Count > 0 && spot.Design != on[0].Spot.Design ? "It is on another design: tell it by itself."
                : on.Count > 0 && row != on[0].Row ? "It is a layer of its own there by now: tell it by itself." : null;
            if (why is null)
                on.Add(new On(spot!, row!.Value, told.LayerId!.Value));
            else
            {
                astray.Add(told);
                whys.Add(why);
            }
        }

        return (on, astray, string.Join(' ', whys.Distinct()));
    }

    /// <summary>Where something was laid, and by which layer, under which line; Layer is that as it is planned now, null where it is not.</summary>
    private sealed record On(Spot Spot, Guid Row, Guid Line)
    {
        public Layer? Layer { get; } = Spot.Place?.Layers.FirstOrDefault(l => l.Id == Line);
    }

    private WorkEventRow Row(BenchEventIn e, Teller by, On? on = null, PotRow? pot = null, Guid? undoes = null, decimal? estimate = null) => new()
    {
        Id = e.Id!.Value,
        WorkshopId = workshop,
        Actor = by.Actor,
        Device = by.Device,
        DeviceNumber = by.Number,
        Kind = e.Kind!.Value,
        ToldAt = e.ToldAt!.Value.ToUniversalTime(),
        At = by.At.ToUniversalTime(),
        Clock = by.Guessed ? WorkEventRow.Guessed : null,
        ReceivedAt = write.Now,
        Note = e.Note?.Trim() ?? "",
        SavedBy = e.SavedBy?.Trim() ?? "",
        SaidMinutes = e.Minutes is { } minutes ? decimal.Round((decimal)minutes, 2) : null,
        EstimateMinutes = estimate,
        ZoneId = on?.Spot.Zone,
        LayerId = on?.Row,
        LineId = on?.Line,
        Coats = on is null ? null : e.Coats,
        UndoesId = undoes,
        PotId = pot?.Id,
        BeforeId = pot?.NewestEventId,
        Filling = on is null ? null : pot?.Filling,
    };

    /// <summary>Takes an event back; why not, where it cannot be.</summary>
    public async Task<string?> TakeBack(BenchEventIn e, Teller by)
    {
        if (e.UndoesId is not { } id || await Db.WorkEvents.AsNoTracking().Include(x => x.Amounts).Include(x => x.Pieces).Include(x => x.Also).AsSplitQuery().FirstOrDefaultAsync(x => x.Id == id && x.WorkshopId == workshop, write.Stop) is not { } old)
            return "What is to be taken back is not known here.";
        if (!Kinds.Contains(old.Kind) || old.Kind == WorkKind.TakenBack)
            return "That is not taken back at the bench.";
        if (await Db.WorkEvents.AnyAsync(x => x.UndoesId == id, write.Stop))
            return "That was taken back already.";

        // Out of the pot came what is on the pieces, unless more was taken after it: then what it was is not known any more.
        var pot = old.PotId is { } source && await pots.Of(source) is { } its && its.NewestEventId == old.Id ? its : null;
        var filled = old.Kind is WorkKind.Made or WorkKind.ToppedUp;
        if (filled && pot is null)
            return "Something happened to the pot since. Take that back first, or say at the pots what is left in it.";
        var taken = Row(e, by, pot: pot, undoes: old.Id);
        if (pot is not null)
            pots.TakeBack(taken, old, pot);
        Db.Add(taken);
        if (filled)
            await pots.BackToShelf(old, by.At);
        Mark(old);
        return null;
    }

    private void Mark(WorkEventRow of)
    {
        if (of.ZoneId is not { } zone)
            return;
        foreach (var (at, line) in of.Also.Select(a => (a.ZoneId, a.LineId)).Prepend((zone, of.LineId!.Value)))
            changed.UnionWith(of.Pieces.Select(p => new PieceKey(at, line, p.PieceId)));
        from[of.Device] = from.TryGetValue(of.Device, out var earliest) && earliest < of.At ? earliest : of.At;
    }

    /// <summary>Brings what the stream comes to up to it.</summary>
    public async Task Keep()
    {
        await write.Save();
        if (changed.Count == 0)
            return;
        await PieceBook.Refold(Db, changed, write.Stop);
        foreach (var (device, earliest) in from)
            await PieceBook.Retime(Db, workshop, device, earliest, write.Stop);
        await write.Save();
    }
}
