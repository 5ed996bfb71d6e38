using System.Globalization;
using Lowfell.Core.Layers;
using Lowfell.Core.Sessions;
using Lowfell.Core.Variation;
using Lowfell.Core.Words;
using Lowfell.Server.Stacks;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Log;

/// <summary>What part of the log is asked for: of one piece, one zone, certain kinds, or from before a place in it.</summary>
internal sealed record LogAsk(Guid? PieceId, Guid? ZoneId, IReadOnlyList<WorkKind> Kinds, (DateTimeOffset At, long Sequence)? Before, int Most);

/// <summary>Words the log of a set.</summary>
internal sealed class LogReader(SetGraph graph, LowfellDb db, CancellationToken stop)
{
    /// <summary>Readings this long before and after what happened belong to it.</summary>
    private static readonly TimeSpan around = TimeSpan.FromMinutes(15);

    private const int MostReadings = 20_000;

    private readonly TimeZoneInfo zone = TimeZoneInfo.FindSystemTimeZoneById(graph.Workshop.TimeZone);

    public async Task<LogPage> Read(LogAsk ask)
    {
        var rows = await Rows(ask);
        var ids = rows.Select(r => r.Id).ToList();
        var photos = (await PhotoEndpoints.Words(db.Photos.Where(p => p.EventId != null && ids.Contains(p.EventId.Value) && p.PutAwayAt == null), db, stop)).ToLookup(p => p.EventId!.Value);
        var next = rows.Count == ask.Most ? Mark(rows[^1].At, rows[^1].Sequence) : "";
        return new LogPage(graph.Workshop.Id, graph.Set.Id, graph.Set.Name, graph.Workshop.TimeZone, rows.Select(r => Word(r, photos[r.Id].ToList())).ToList(), await Air(rows), await Marks(ask, next.Length > 0 ? rows[^1].At : null), next);
    }

    /// <summary>The air while something happened: between the first and the last event of each evening.</summary>
    private async Task<List<EveningAir>> Air(List<Row> rows)
    {
        if (rows.Count == 0)
            return [];
        var evenings = rows.GroupBy(r => Evenings.Of(r.At, zone)).ToDictionary(g => g.Key, g => (From: g.Min(r => r.At) - around, To: g.Max(r => r.At) + around));
        var (from, to) = (evenings.Values.Min(e => e.From), evenings.Values.Max(e => e.To));
        var said = await RoomBook.Measured(db, graph.Workshop.Id).Where(r => r.At >= from && r.At <= to).OrderByDescending(r => r.At).Take(MostReadings).Select(r => new { r.At, C = r.TemperatureC!.Value, Humidity = r.RelativeHumidity!.Value }).ToListAsync(stop);
        return said.GroupBy(r => Evenings.Of(r.At, zone)).Where(g => evenings.ContainsKey(g.Key))
            .Select(g => (g.Key, Said: g.Where(r => r.At >= evenings[g.Key].From && r.At <= evenings[g.Key].To).ToList())).Where(g => g.Said.Count > 0)
            .Select(g => new EveningAir(g.Key, Math.Round(g.Said.Min(r => r.C), 1), Math.Round(g.Said.Max(r => r.C), 1), Math.Round(g.Said.Min(r => r.Humidity), 2), Math.Round(g.Said.Max(r => r.Humidity), 2))).ToList();
    }

    /// <summary>What came out otherwise than planned in the time of this page.</summary>
    private async Task<List<LogMarks>> Marks(LogAsk ask, DateTimeOffset? from)
    {
        if (ask.Kinds.Count > 0 && !ask.Kinds.Contains(WorkKind.Noted))
            return [];
        var until = ask.Before?.At;
        var zones = graph.Places.Where(p => ask.ZoneId is null || p.Zone.Id == ask.ZoneId).Select(p => p.Zone.Id).ToList();
        var rows = await db.MarksDone.AsNoTracking().Where(m => zones.Contains(m.ZoneId) && (ask.PieceId == null || m.PieceId == ask.PieceId) && (from == null || m.At >= from) && (until == null || m.At < until)).OrderByDescending(m => m.At).Take(ask.Most).ToListAsync(stop);
        var told = new Dictionary<MarksDoneRow, LogMarks>();
        foreach (var of in rows.GroupBy(r => (r.ZoneId, r.LineId)))
            if (graph.Find(of.Key.ZoneId) is { } at && at.Layers.FirstOrDefault(l => l.Id == of.Key.LineId) is { Varied: { } varied } layer)
            {
                var plan = PlanOfPieces.Of(at, layer, varied);
                foreach (var row in of)
                    told[row] = Word(row, at, layer, plan.Pieces.FirstOrDefault(p => p.Piece.Id == row.PieceId)?.Marks.Marks ?? []);
            }

        return rows.Where(told.ContainsKey).Select(r => told[r]).ToList();
    }

    private LogMarks Word(MarksDoneRow row, Place at, Layer layer, IReadOnlyList<PlacedMark> planned) => new(
        Session(row.At), row.At, graph.Plan.PieceLabels.GetValueOrDefault(row.PieceId, "?"), at.Zone.Name, at.Design.Name, EnumWords.Of(layer.Technique), row.Marks, row.MeanMm, planned.Count,
        planned.Count > 0 ? Math.Round(planned.Average(m => m.SizeMm), 1) : 0, row.Note);

    /// <summary>A place in the log, as it travels.</summary>
    public static string Mark(DateTimeOffset at, long sequence) => FormattableString.Invariant($"{at.UtcTicks}-{sequence}");

    public static (DateTimeOffset At, long Sequence)? Place(string? mark) =>
        mark?.Split('-') is [var ticks, var number] && long.TryParse(ticks, NumberStyles.None, CultureInfo.InvariantCulture, out var at) && at <= DateTimeOffset.MaxValue.UtcTicks && long.TryParse(number, NumberStyles.None, CultureInfo.InvariantCulture, out var sequence)
            ? (new DateTimeOffset(at, TimeSpan.Zero), sequence) : null;

    private sealed record Row(
        Guid Id, WorkKind Kind, long Sequence, DateTimeOffset At, string Actor, Guid? ZoneId, Guid? LineId, Technique? Technique, string Pot, string Note, string SavedBy, decimal? Minutes, bool Counts, decimal? EstimateMinutes, bool TakenBack,
        bool Guessed, int? Coats, List<Guid> Also, List<Guid> Pieces);

    /// <summary>Newest first. What happens to pots alone is no set's; it is told with every set of the workshop.</summary>
    private Task<List<Row>> Rows(LogAsk ask)
    {
        var (workshop, set) = (graph.Workshop.Id, graph.Set.Id);
        var of = db.WorkEvents.AsNoTracking().Where(e => e.WorkshopId == workshop && e.Kind != WorkKind.TakenBack && e.Kind != WorkKind.PouredOut && e.Kind != WorkKind.CarriedOver
            && (e.ZoneId == null || db.Zones.Any(z => z.Id == e.ZoneId && db.Designs.Any(d => d.Id == z.DesignId && d.SetId == set))));
        if (ask.PieceId is { } piece)
            of = of.Where(e => e.Pieces.Any(p => p.PieceId == piece));
        if (ask.ZoneId is { } at)
            of = of.Where(e => e.ZoneId == at || e.Also.Any(a => a.ZoneId == at));
        if (ask.Kinds.Count > 0)
            of = of.Where(e => ask.Kinds.Contains(e.Kind));
        if (ask.Before is var (until, sequence))
            of = of.Where(e => e.At < until || (e.At == until && e.Sequence < sequence));
        return (
            from e in of
            join pot in db.Pots on e.PotId equals pot.Id into pots
            from pot in pots.DefaultIfEmpty()
            join layer in db.Layers on e.LayerId equals layer.Id into layers
            from layer in layers.DefaultIfEmpty()
            join taken in db.TakenTimes on e.Id equals taken.EventId into times
            from taken in times.DefaultIfEmpty()
            orderby e.At descending, e.Sequence descending
            select new Row(
                e.Id, e.Kind, e.Sequence, e.At, e.Actor, e.ZoneId, e.LineId, layer == null ? null : layer.Technique, pot == null ? "" : pot.Label, e.Note, e.SavedBy, taken == null ? null : taken.Minutes, taken != null && taken.Counts, e.EstimateMinutes,
                db.WorkEvents.Any(u => u.UndoesId == e.Id), e.Clock != null, e.Coats, e.Also.Select(a => a.ZoneId).ToList(), e.Pieces.Select(p => p.PieceId).ToList())).AsSplitQuery().Take(ask.Most).ToListAsync(stop);
    }

    private LogEntry Word(Row row, IReadOnlyList<PhotoDto> photos)
    {
        var place = row.ZoneId is { } z ? graph.Find(z) : null;
        var number = place?.Layers.Select((l, i) => (l.Id, i)).Where(x => x.Id == row.LineId).Select(x => (int?)x.i + 1).FirstOrDefault();
        return new LogEntry(
            row.Id, row.Kind, row.At, Session(row.At), row.Actor, place?.Design.Name ?? "", row.ZoneId, row.ZoneId is { } own ? Zones(row.Also.Prepend(own)) : "",
            number, row.Technique is { } t ? EnumWords.Of(t) : "", Labels(row.Pieces), row.Pot, row.Minutes, row.EstimateMinutes, row.Counts, row.Note, row.SavedBy, row.TakenBack, row.Guessed, photos);
    }

    private string Zones(IEnumerable<Guid> ids) => string.Join(", ", ids.Select(z => graph.Find(z)?.Zone.Name ?? graph.Plan.ZoneNames.GetValueOrDefault(z, "")).Order(StringComparer.Ordinal));

    private List<string> Labels(List<Guid> pieces) => pieces.Select(p => graph.Plan.PieceLabels.GetValueOrDefault(p, "?")).OrderBy(l => l.Length).ThenBy(l => l, StringComparer.Ordinal).ToList();

    private DateOnly Session(DateTimeOffset at) => Evenings.Of(at, zone);
}
