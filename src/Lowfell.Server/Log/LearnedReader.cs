using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Order;
using Lowfell.Core.Sessions;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Log;

/// <summary>What the log says of the minutes of techniques and of the drying of materials, beside what is estimated.</summary>
internal sealed class LearnedReader(IReadOnlyList<SetGraph> sets, LowfellDb db, CancellationToken stop)
{
    private const int MostTimes = 10_000;

    private readonly Dictionary<Guid, Place> places = sets.SelectMany(s => s.Places).DistinctBy(p => p.Zone.Id).ToDictionary(p => p.Zone.Id);
    private WorkshopRow Workshop => sets[0].Workshop;

    public async Task<LearnedReading> Read()
    {
        var minutes = await Minutes();
        var pace = StoredPace.Read(Workshop.Paces);
        return new LearnedReading(
            Workshop.Id, Workshop.Version, minutes.OrderByDescending(m => m.Sum(x => x.Time.Pieces)).Select(m => Word(m.Key, m.ToList(), pace)).ToList(),
            (await Drying()).OrderByDescending(d => d.Pieces).ThenBy(d => d.Material, StringComparer.Ordinal).ToList());
    }

    private sealed record Timed(Technique Technique, LoggedTime Time);

    /// <summary>Times of batches: what one device told of one layer in one evening, since it is got ready and cleaned once.</summary>
    private async Task<ILookup<Technique, Timed>> Minutes()
    {
        var workshop = Workshop.Id;
        var rows = await (
            from t in db.TakenTimes.AsNoTracking()
            join e in db.WorkEvents on t.EventId equals e.Id
            where e.WorkshopId == workshop && t.Counts
            orderby e.At descending
            select new { e.ZoneId, e.LineId, e.Device, e.At, e.Coats, Also = e.Also.OrderBy(a => a.ZoneId).Select(a => new { a.ZoneId, a.LineId }).ToList(), t.Pieces, t.Minutes }).Take(MostTimes).ToListAsync(stop);
        var zone = TimeZoneInfo.FindSystemTimeZoneById(Workshop.TimeZone);
        var bare = Bare(StoredPace.Read(Workshop.Paces));
        return rows.Select(r => (Row: r, On: r.Also.Select(a => (a.ZoneId, a.LineId)).Prepend((r.ZoneId!.Value, r.LineId!.Value)).ToList()))
            .GroupBy(r => (On: string.Join(' ', r.On), r.Row.Coats, r.Row.Device, Evening: Evenings.Of(r.Row.At, zone)))
            .Select(g =>
            {
                var layers = g.First().On.Select(o => places.TryGetValue(o.Item1, out var place) && place.Layers.FirstOrDefault(l => l.Id == o.Item2) is { } layer
                    ? (Place: place, Layer: g.Key.Coats is { } coats ? layer with { Coats = coats } : layer) : default).ToList();
                if (layers.Any(l => l.Layer is null))
                    return null;
                var pieces = g.Sum(x => x.Row.Pieces);
                return new Timed(layers[0].Layer.Technique, new LoggedTime(layers.Sum(l => HandsOn.Batch(l.Layer, l.Place.Context.Zone, pieces, bare)), (double)g.Sum(x => x.Row.Minutes), pieces));
            }).OfType<Timed>().ToLookup(t => t.Technique);
    }

    /// <summary>What the workshop says of itself, without what was learned before: that is learned anew from all times.</summary>
    private static Pace Bare(Pace pace) => new(pace.Own.ToDictionary(o => o.Key, o => o.Value with { Factor = null }));

    private LearnedMinutes Word(Technique technique, List<Timed> times, Pace pace)
    {
        var sound = times.Where(t => !t.Time.IsDoubtful).Select(t => t.Time).ToList();
        var learned = Learned.Of(sound);
        var own = pace.Of(technique);
        var then = new Pace(new Dictionary<Technique, PaceFigures>(pace.Own) { [technique] = own with { Factor = Math.Round(learned.Factor, 3), Error = Math.Round(learned.Error, 3) } });
        var open = (from place in places.Values from layer in place.Layers where layer.Technique == technique let left = SetGraph.PieceCount(place.Design) - place.Graph.OverCount(place.Zone.Id, layer.Id) where left > 0 select (layer, place.Context.Zone, left)).ToList();
        double Takes(Pace by) => open.Sum(o => HandsOn.Batch(o.layer, o.Zone, o.left, by));
        return new LearnedMinutes(
            technique, sound.Sum(t => t.Pieces), sound.Count, times.Count - sound.Count, Math.Round(learned.Factor, 3), Math.Round(learned.Low, 3), Math.Round(learned.High, 3), Math.Round(learned.Error, 3), own.Factor ?? 1, own,
            Math.Round(Takes(pace)), Math.Round(Takes(then)));
    }

    private async Task<List<LearnedDrying>> Drying()
    {
        var workshop = Workshop.Id;
        var touched = await (
            from e in db.WorkEvents.AsNoTracking()
            where e.WorkshopId == workshop && e.Kind == WorkKind.TouchedDry && !db.WorkEvents.Any(u => u.UndoesId == e.Id)
            from p in e.Pieces

                // The finger was on one of its zones: on the first.
            join layer in db.PieceLayers on new { Zone = e.ZoneId!.Value, Line = e.LineId!.Value, p.PieceId } equals new { Zone = layer.ZoneId, Line = layer.LineId, layer.PieceId }
            where layer.DoneAt != null && layer.DoneAt < e.At && !layer.HotAir
            select new { e.Id, e.ZoneId, e.LineId, e.At, DoneAt = layer.DoneAt!.Value }).Take(MostTimes).ToListAsync(stop);
        var found = new Dictionary<Guid, List<LoggedTime>>();
        foreach (var t in touched.GroupBy(t => (t.Id, t.ZoneId, t.LineId)))
        {
            if (!places.TryGetValue(t.Key.ZoneId!.Value, out var place) || place.View is not { } view || view.IndexOf(t.Key.LineId!.Value) is not (>= 0 and var at) || view.Layers[at].Main is not { } main)
                continue;
            if (!found.TryGetValue(main.Id, out var times))
                found[main.Id] = times = [];
            times.Add(new LoggedTime(view.DryingOf(at).TouchMinutes.Usual, t.Average(x => (x.At - x.DoneAt).TotalMinutes), t.Count()));
        }

        return found.Select(f =>
        {
            var (sound, material) = (f.Value.Where(t => !t.IsDoubtful).ToList(), sets[0].Materials[f.Key]);
            var learned = Learned.Of(sound);
            var touch = material.DryTimes.TouchMinutes;
            return new LearnedDrying(
                f.Key, material.Name, sound.Sum(t => t.Pieces), f.Value.Count - sound.Count, Math.Round(touch, 1), Math.Round(touch * learned.Factor, 1), Math.Round(touch * learned.Low, 1), Math.Round(touch * learned.High, 1), Math.Round(learned.Factor, 3));
        }).ToList();
    }
}
