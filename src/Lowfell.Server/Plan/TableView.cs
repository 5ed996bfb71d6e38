using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Order;
using Lowfell.Core.Sight;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Plan;

/// <summary>A design as seen from each of a row of distances, so that a slider needs no further question.</summary>
internal static class TableView
{
    private static readonly double[] distances = Enumerable.Range(3, 28).Select(i => i / 10.0).ToArray();

    private const int MostPlaces = 3;

    public static async Task<Results<Ok<TableReading>, ProblemHttpResult>> Of(Guid designId, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        var setId = await db.Designs.Where(d => d.Id == designId).Select(d => (Guid?)d.SetId).FirstOrDefaultAsync(stop);
        if (setId is null || await graphs.OfSet(db, setId.Value, stop) is not { } graph)
            return Problems.NotFound("design");
        var design = graph.Designs.First(d => d.Id == designId);
        var seen = design.Zones.ToDictionary(z => z.Id, z => Painted(graph, design, z));
        return TypedResults.Ok(new TableReading(
            design.Id, design.Name, distances,
            design.Zones.Select(z => Word(z, seen[z.Id], graph.Set.Scale)).ToList(),
            design.Zones.SelectMany(z => graph.Touching[z.Id].Where(o => z.Id.CompareTo(o) < 0 && seen.ContainsKey(o)).Select(o => Word(z.Id, o, seen[z.Id], seen[o]))).ToList()));
    }

    /// <summary>The mean colour of a zone with a stored treatment on it.</summary>
    public static Seen Mean(SetGraph graph, DesignRow design, ZoneRow row) => Painted(graph, design, row).Mean;

    private sealed record Surface(Zone Zone, SeenSplit Seen, Seen Mean, SeenSplit Beside, IReadOnlyList<(Region Place, SeenSplit Seen)> Places, SeenSplit? Masked);

    private static Surface Painted(SetGraph graph, DesignRow design, ZoneRow row)
    {
        var run = new StackView(graph.Context(row, design), graph.Layers(row)).Predictions;
        var seen = run.SeenBelow(run.Count);
        var beside = run.SeenBeside(run.Count);

        // What differs most is drawn: a zone is never told in more than four parts. The larger lies beneath the smaller.
        var places = run.Places.Select(p => (Place: p, Seen: run.SeenWithin(run.Count, p)))
            .OrderByDescending(p => p.Seen.DifferenceTo(beside).Largest()).Take(MostPlaces)
            .OrderByDescending(p => Regions.PlaceShare(p.Place, run.Zone)).ToList();
        var under = Masking.Under(run.Layers) is { } kept ? new StackView(graph.Context(row, design), kept).Predictions : null;
        return new Surface(run.Zone, seen, run.Count > 0 ? run[^1].Average : seen.Field, beside, places, under?.SeenBelow(under.Count));
    }

    private static TableZone Word(ZoneRow row, Surface surface, int scale) => new(
        row.Id, row.Name, row.Relief, row.RaisedShare, row.FieldShare, row.RecessShare, row.AreaCm2,
        FromEach(surface.Zone, surface.Seen), surface.Places.Count == 0 ? null
            : new TableParts(FromEach(surface.Zone, surface.Beside), surface.Places.Select(p => new TablePlace(p.Place, FromEach(surface.Zone, p.Seen))).ToList()),
        Surfaces.Word(row, scale), surface.Masked is { } masked ? FromEach(surface.Zone, masked) : null);

    private static List<SeenAt> FromEach(Zone zone, SeenSplit seen) =>
        distances.Select(m => FromTheTable.Colours(zone, seen, m)).Select(c => new SeenAt(c.Raised.ToString(), c.Field.ToString(), c.Recess.ToString())).ToList();

    private static TablePair Word(Guid one, Guid other, Surface first, Surface second)
    {
        var apart = distances.Select(m => FromTheTable.Between(first.Zone, first.Mean, second.Zone, second.Mean, m)).ToList();
        return new TablePair(one, other, apart.Select(a => Math.Round(a.Difference, 2)).ToList(), apart.Select(a => a.Verdict).ToList());
    }
}
