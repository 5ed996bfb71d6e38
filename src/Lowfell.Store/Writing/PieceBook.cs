using Lowfell.Core.Bench;
using Lowfell.Core.Treatments;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>
/// Keeps what the stream comes to for every layer on every piece, in the transaction that adds to the stream: the events of a layer on a
/// piece are few, and are folded anew whenever one is added, since one may come late or be taken back.
/// </summary>
public static class PieceBook
{
    /// <summary>Has whoever else writes of the bench of this workshop wait: what is folded here must be all there is.</summary>
    public static Task Hold(LowfellDb db, Guid workshop, CancellationToken stop) =>
        db.Database.ExecuteSqlAsync($"select pg_advisory_xact_lock(hashtextextended({"bench " + workshop}, 0))", stop);

    /// <summary>Brings some layers of pieces up to what the stream, as it is stored, says of them.</summary>
    public static async Task Refold(LowfellDb db, IReadOnlyCollection<PieceKey> keys, CancellationToken stop)
    {
        if (keys.Count == 0)
            return;
        var (zones, lines, pieces) = (keys.Select(k => k.Zone).Distinct().ToList(), keys.Select(k => k.Line).Distinct().ToList(), keys.Select(k => k.Piece).Distinct().ToList());
        var also = await db.WorkAlso.Where(a => zones.Contains(a.ZoneId) && lines.Contains(a.LineId)).Select(a => a.EventId).ToListAsync(stop);
        var events = await Read(db.WorkEvents.Where(e => ((e.ZoneId != null && zones.Contains(e.ZoneId.Value) && lines.Contains(e.LineId!.Value)) || also.Contains(e.Id)) && e.Pieces.Any(p => pieces.Contains(p.PieceId))), db, stop);
        var wanted = keys.ToHashSet();
        var folded = PieceFold.Of(events);
        var rows = (await db.PieceLayers.Where(p => zones.Contains(p.ZoneId) && lines.Contains(p.LineId) && pieces.Contains(p.PieceId)).ToListAsync(stop)).ToDictionary(r => new PieceKey(r.ZoneId, r.LineId, r.PieceId));
        foreach (var key in wanted)
            if (!folded.TryGetValue(key, out var layer))
            {
                if (rows.TryGetValue(key, out var gone))
                    db.Remove(gone);
            }
            else if (rows.TryGetValue(key, out var row))
                Write(layer, row);
            else
                db.Add(Write(layer, New(key)));
    }

    /// <summary>Brings the times taken on a device up to what it told from an instant on.</summary>
    public static async Task Retime(LowfellDb db, Guid workshop, string device, DateTimeOffset from, CancellationToken stop)
    {
        var mine = db.WorkEvents.Where(e => e.WorkshopId == workshop && e.Device == device && e.ZoneId != null && e.Kind != WorkKind.CarriedOver);

        var (at, sequence) = await Before(mine, from, db, stop);
        var since = mine.Where(e => e.At > at || (e.At == at && e.Sequence >= sequence));
        var events = await Read(since, db, stop);
        var ids = await since.Select(e => e.Id).ToListAsync(stop);
        var rows = await db.TakenTimes.Where(t => ids.Contains(t.EventId)).ToDictionaryAsync(t => t.EventId, stop);
        var taken = TakenTimes.Of(events).ToDictionary(t => t.Event);
        db.RemoveRange(rows.Where(r => !taken.ContainsKey(r.Key)).Select(r => r.Value));
        foreach (var time in taken.Values)
        {
            if (!rows.TryGetValue(time.Event, out var row))
                db.Add(row = new TakenTimeRow { EventId = time.Event });
            (row.Pieces, row.Minutes, row.Counts) = (time.Pieces, Stored(time.Minutes), time.Counts);
        }
    }

    /// <summary>
    /// From which event on to go through, so that hands are on what they are on at an instant: where they went over to another layer the
    /// last time before it, or the night before it, over which nothing is carried.
    /// </summary>
    private static async Task<(DateTimeOffset At, long Sequence)> Before(IQueryable<WorkEventRow> mine, DateTimeOffset from, LowfellDb db, CancellationToken stop)
    {
        var earlier = mine.Where(e => e.At < from);
        if (await earlier.OrderByDescending(e => e.At).Select(e => (DateTimeOffset?)e.At).FirstOrDefaultAsync(stop) is not { } last || from - last > TakenTimes.Night)
            return (from, 0);
        var begun = await earlier.Where(e => e.Kind == WorkKind.Begun && !db.WorkEvents.Any(u => u.UndoesId == e.Id)).OrderByDescending(e => e.At).ThenByDescending(e => e.Sequence).Take(MostBegun)
            .Select(e => new { e.At, e.Sequence, On = new { e.ZoneId, e.LineId }, Also = e.Also.Select(a => new { ZoneId = (Guid?)a.ZoneId, LineId = (Guid?)a.LineId }).ToList() }).AsSplitQuery().ToListAsync(stop);
        if (begun.Count == 0)
            return (from, 0);
        var over = begun.Zip(begun.Skip(1)).FirstOrDefault(b => !b.First.Also.Append(b.First.On).Intersect(b.Second.Also.Append(b.Second.On)).Any()).First ?? (begun.Count < MostBegun ? begun[^1] : null);
        if (over is not null && from - over.At <= TakenTimes.Night)
            return (over.At, over.Sequence);
        var night = await Night(earlier, from, stop);
        return over is not null && over.At > night ? (over.At, over.Sequence) : (night, 0);
    }

    /// <summary>So many times something is begun before another is, at the most, before the night is looked for.</summary>
    private const int MostBegun = 40;

    /// <summary>The first event after the last night before an instant.</summary>
    private static async Task<DateTimeOffset> Night(IQueryable<WorkEventRow> earlier, DateTimeOffset from, CancellationToken stop)
    {
        for (var back = TakenTimes.Night * 2; ; back *= 2)
        {
            var heard = await earlier.Where(e => e.At >= from - back).OrderByDescending(e => e.At).Select(e => e.At).ToListAsync(stop);
            if (heard.Prepend(from).Zip(heard.Append(from - back)).FirstOrDefault(x => x.First - x.Second > TakenTimes.Night) is var night && night != default)
                return night.First;
        }
    }

    /// <summary>A time as it is stored.</summary>
    public static decimal Stored(double minutes) => decimal.Round((decimal)Math.Min(minutes, 9_999_999), 2);

    /// <summary>All of a workshop's layers on pieces and times, folded from its whole stream.</summary>
    public static async Task<(IReadOnlyDictionary<PieceKey, PieceLayer> Layers, IReadOnlyList<TakenTime> Times)> Replay(LowfellDb db, Guid workshop, CancellationToken stop)
    {
        var events = await Read(db.WorkEvents.Where(e => e.WorkshopId == workshop && e.ZoneId != null), db, stop);
        return (PieceFold.Of(events), TakenTimes.Of(events));
    }

    /// <summary>How many rows of what is kept differ from a replay of the whole stream: none, unless something is wrong.</summary>
    public static async Task<int> Differences(LowfellDb db, Guid workshop, CancellationToken stop)
    {
        var (layers, times) = await Replay(db, workshop, stop);
        var kept = await db.PieceLayers.AsNoTracking().Where(p => db.Zones.Any(z => z.Id == p.ZoneId && db.Designs.Any(d => d.Id == z.DesignId && db.Sets.Any(s => s.Id == d.SetId && s.WorkshopId == workshop)))).ToListAsync(stop);
        var taken = await db.TakenTimes.AsNoTracking().Where(t => db.WorkEvents.Any(e => e.Id == t.EventId && e.WorkshopId == workshop)).ToDictionaryAsync(t => t.EventId, stop);
        return kept.Count(row => !layers.TryGetValue(new(row.ZoneId, row.LineId, row.PieceId), out var layer) || ToCore(row) != layer) + Math.Max(0, layers.Count - kept.Count)
            + times.Count(t => !taken.TryGetValue(t.Event, out var row) || (row.Pieces, row.Minutes, row.Counts) != (t.Pieces, Stored(t.Minutes), t.Counts)) + Math.Max(0, taken.Count - times.Count);
    }

    /// <summary>Puts a workshop's layers on pieces and times as a replay has them, whatever was kept; how many rows differed.</summary>
    public static async Task<int> Rebuild(LowfellDb db, Guid workshop, CancellationToken stop)
    {
        var differed = await Differences(db, workshop, stop);
        if (differed == 0)
            return 0;
        var (layers, times) = await Replay(db, workshop, stop);
        await db.PieceLayers.Where(p => db.Zones.Any(z => z.Id == p.ZoneId && db.Designs.Any(d => d.Id == z.DesignId && db.Sets.Any(s => s.Id == d.SetId && s.WorkshopId == workshop)))).ExecuteDeleteAsync(stop);
        await db.TakenTimes.Where(t => db.WorkEvents.Any(e => e.Id == t.EventId && e.WorkshopId == workshop)).ExecuteDeleteAsync(stop);
        db.AddRange(layers.Values.Select(l => Write(l, New(l.Key))));
        db.AddRange(times.Select(t => new TakenTimeRow { EventId = t.Event, Pieces = t.Pieces, Minutes = Stored(t.Minutes), Counts = t.Counts }));
        return differed;
    }

    /// <summary>Events of layers on pieces that still stand. What came over with a copy is as its original was.</summary>
    private static async Task<List<BenchEvent>> Read(IQueryable<WorkEventRow> of, LowfellDb db, CancellationToken stop)
    {
        var rows = await (
            from e in of
            join twin in db.WorkEvents on e.TwinId equals twin.Id into twins
            from twin in twins.DefaultIfEmpty()
            where e.Kind != WorkKind.TakenBack && !db.WorkEvents.Any(u => u.UndoesId == e.Id)
            select new { e.Id, e.Sequence, e.At, e.Device, e.Kind, Zone = e.ZoneId!.Value, Line = e.LineId!.Value, e.LayerId, e.PotId, e.Filling, e.Coats, e.Note, e.EstimateMinutes, e.SaidMinutes, Twin = e.Kind == WorkKind.CarriedOver ? twin : null, Also = e.Also.OrderBy(a => a.ZoneId).ToList(), Pieces = e.Pieces.Select(p => p.PieceId).ToList() })
            .AsNoTracking().AsSplitQuery().ToListAsync(stop);
        var whole = await Whole(db, rows.Select(r => r.LayerId ?? r.Twin?.LayerId).OfType<Guid>().Distinct().ToList(), stop);
        return rows.Select(r => new BenchEvent(r.Id, r.Sequence, r.Twin?.At ?? r.At, r.Kind == WorkKind.CarriedOver ? "" : r.Device, KindOf(r.Kind), r.Zone, r.Line, r.Pieces)
        {
            WholeCoats = whole.GetValueOrDefault((r.LayerId ?? r.Twin?.LayerId, r.Line), 1),
            Also = r.Also.Select(a => new Target(a.ZoneId, a.LineId) { Coats = whole.GetValueOrDefault((r.LayerId, a.LineId), 1) }).ToList(),
            Coats = r.Coats,
            Layer = r.LayerId ?? r.Twin?.LayerId,
            Pot = r.PotId ?? r.Twin?.PotId,
            Filling = r.Filling ?? r.Twin?.Filling,
            Note = r.Note,
            EstimateMinutes = (double?)r.EstimateMinutes,
            SaidMinutes = (double?)r.SaidMinutes,
        }).ToList();
    }

    /// <summary>How many coats make a layer whole where it lies under a line: on a surface it may be different.</summary>
    private static async Task<Dictionary<(Guid? Layer, Guid Line), int>> Whole(LowfellDb db, List<Guid> layers, CancellationToken stop) => (await (
            from lay in db.LayerSurfaces
            join layer in db.Layers on lay.LayerId equals layer.Id
            where layers.Contains(lay.LayerId)
            select new { lay.LayerId, lay.LineId, Coats = (lay.Differs & (int)Differs.Coats) == 0 ? layer.Coats : lay.Coats }).ToListAsync(stop))
        .ToDictionary(l => ((Guid?)l.LayerId, l.LineId), l => l.Coats);

    private static DoneKind KindOf(WorkKind kind) => kind switch
    {
        WorkKind.Given or WorkKind.CarriedOver => DoneKind.Given,
        WorkKind.Begun => DoneKind.Begun,
        WorkKind.Paused => DoneKind.Paused,
        WorkKind.Skipped => DoneKind.Skipped,
        WorkKind.Wiped => DoneKind.Wiped,
        WorkKind.Mishap => DoneKind.Mishap,
        WorkKind.HotAir => DoneKind.HotAir,
        WorkKind.Noted or WorkKind.TouchedDry => DoneKind.Noted,
        WorkKind.Accepted => DoneKind.Accepted,
        _ => throw new InvalidOperationException($"An event of a layer on pieces is never {kind}."),
    };

    private static PieceLayerRow New(PieceKey key) => new() { ZoneId = key.Zone, LineId = key.Line, PieceId = key.Piece, Why = "" };

    private static PieceLayerRow Write(PieceLayer from, PieceLayerRow to)
    {
        (to.State, to.BegunAt, to.Coats, to.DoneAt, to.DoneById, to.LayerId, to.PotId, to.Filling) = (from.State, from.BegunAt, from.Coats, from.DoneAt, from.DoneBy, from.Layer, from.Pot, from.Filling);
        (to.HotAir, to.Wipes, to.Mishaps, to.Why, to.Accepted, to.At) = (from.HotAir, from.Wipes, from.Mishaps, from.Why, from.Accepted, from.At);
        return to;
    }

    /// <summary>What is kept of a layer on a piece.</summary>
    public static PieceLayer ToCore(PieceLayerRow row) => new(new PieceKey(row.ZoneId, row.LineId, row.PieceId))
    {
        State = row.State,
        BegunAt = row.BegunAt,
        Coats = row.Coats,
        DoneAt = row.DoneAt,
        DoneBy = row.DoneById,
        Layer = row.LayerId,
        Pot = row.PotId,
        Filling = row.Filling,
        HotAir = row.HotAir,
        Wipes = row.Wipes,
        Mishaps = row.Mishaps,
        Why = row.Why,
        Accepted = row.Accepted,
        At = row.At,
    };
}
