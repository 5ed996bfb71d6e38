using Lowfell.Core.Layers;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Sets;

/// <summary>Reads sets as they are listed, and one with everything that can be changed about it.</summary>
internal static class SetsReader
{
    private const int MostColours = 12;

    public static async Task<IReadOnlyList<SetCard>> Cards(Guid workshop, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        var sets = await db.Sets.AsNoTracking().Where(s => s.WorkshopId == workshop).OrderBy(s => s.PutAwayAt != null).ThenBy(s => s.Rank).ThenBy(s => s.Name).ToListAsync(stop);
        var cards = new List<SetCard>(sets.Count);
        foreach (var set in sets)
            if (await graphs.OfSet(db, set.Id, stop) is { } graph)
                cards.Add(await graph.OfAll(nameof(SetCard), () => Card(graph)));
        return cards;
    }

    private static SetCard Card(SetGraph graph)
    {
        var s = graph.Set;
        var looks = graph.Places.AsParallel().AsOrdered().Select(p => (Colour: Finished(p), Area: (double)p.Zone.AreaCm2 * SetGraph.PieceCount(p.Design))).ToList();
        var area = looks.Sum(l => l.Area);
        var picture = looks.Where(l => l.Area > 0).GroupBy(l => l.Colour).Select(g => new ColourShare(g.Key, Math.Round(g.Sum(l => l.Area) / area, 4))).OrderByDescending(c => c.Share).Take(MostColours).ToList();
        int all = 0, done = 0;
        foreach (var place in graph.Places)
            foreach (var layer in place.Layers)
            {
                var pieces = SetGraph.PieceCount(place.Design);
                all += pieces;
                done += Math.Min(pieces, graph.OverCount(place.Zone.Id, layer.Id));
            }

        return new SetCard(
            s.Id, s.Version, s.Name, s.Scale, s.TableMetres, s.Handling, s.TargetSheen, s.DueDate, s.Rank, s.PutAwayAt,
            graph.Designs.Count, graph.Designs.Sum(SetGraph.PieceCount), done, all, graph.Designs.Select(d => d.Silhouette).ToList(), picture);
    }

    private static string Finished(Place place) => place.Graph.Once(place.Design, $"finished {place.Zone.Id}", () =>
    {
        var run = place.View.Predictions;
        return (run.Count > 0 ? run[^1].Average : run.SeenBelow(0).Field).Colour.ToString();
    }, ofShelf: false);

    public static async Task<SetSheet?> Sheet(Guid setId, LowfellDb db, CancellationToken stop)
    {
        if (await db.Sets.AsNoTracking().FirstOrDefaultAsync(s => s.Id == setId, stop) is not { } s)
            return null;
        var designs = await db.Designs.AsNoTracking().Where(d => d.SetId == setId).Include(d => d.Zones.OrderBy(z => z.Position)).Include(d => d.Pieces).OrderBy(d => d.Position).AsSplitQuery().ToListAsync(stop);
        var zones = designs.SelectMany(d => d.Zones).Select(z => z.Id).ToList();
        var pieces = designs.SelectMany(d => d.Pieces).Select(p => p.Id).ToList();
        var treatments = designs.SelectMany(d => d.Zones).Select(z => z.TreatmentId).Distinct().ToList();
        var names = await db.Treatments.Where(t => treatments.Contains(t.Id)).ToDictionaryAsync(t => t.Id, t => t.Name, stop);
        var shared = await db.Zones.Where(z => treatments.Contains(z.TreatmentId) && z.PutAwayAt == null).GroupBy(z => z.SurfaceId).Select(g => new { g.Key, Count = g.Count() }).ToDictionaryAsync(g => g.Key, g => g.Count, stop);
        var touches = await db.ZoneTouches.AsNoTracking().Where(t => zones.Contains(t.FirstZoneId)).ToListAsync(stop);
        var touching = touches.SelectMany(t => new[] { (t.FirstZoneId, Other: t.SecondZoneId), (t.SecondZoneId, Other: t.FirstZoneId) }).ToLookup(t => t.Item1, t => t.Other);
        var worked = await Kept.Zones(db, zones, stop);
        var workedPieces = await Kept.Pieces(db, pieces, stop);
        ZoneFacts Word(ZoneRow z) => new(
            z.Id, z.Version, z.Name, z.Position, z.AreaCm2, z.Relief, z.UpShare, z.SideShare, z.DownShare, z.RaisedShare, z.FieldShare, z.RecessShare,
            z.EdgeMm, z.JointMm, z.SmallestDetailMm, z.FaceWidthMm, z.Handling, z.TargetSheen, z.CutEdge, z.BeforeAssembly, z.Surface, z.SurfaceLengthMm, z.SurfaceHeightMm, z.RivetMm, z.Across,
            touching[z.Id].ToList(), z.TreatmentId, names[z.TreatmentId], shared.GetValueOrDefault(z.SurfaceId), worked.Contains(z.Id), ZoneFill.Guess(z, s.Scale), z.PutAwayAt);
        return new SetSheet(
            s.Id, s.Version, s.WorkshopId, s.Name, s.Scale, s.TableMetres, s.Handling, s.TargetSheen, s.DueDate, s.ReserveMl, s.Rank, s.PutAwayAt,
            designs.Select(d => new DesignSheet(
                d.Id, d.Version, d.Name, d.Silhouette, d.Substrate, d.Position, d.PutAwayAt,
                d.Pieces.OrderBy(p => p.Label.Length).ThenBy(p => p.Label, StringComparer.Ordinal)
                    .Select(p => new PieceSheet(p.Id, p.Version, p.Label, p.RimNumber, p.ParentId, p.Spare, workedPieces.Contains(p.Id), p.PutAwayAt)).ToList(),
                d.Zones.Select(Word).ToList())).ToList());
    }
}
