using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Order;
using Lowfell.Core.Words;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Lowfell.Server.Estimates;

/// <summary>
/// A layer and where the zone stands after it. Minutes are estimates for the pieces that still want it; differences are CIEDE2000 as
/// seen from the set's table.
/// </summary>
public sealed record LayerCost(
    Guid Id, int Number, string Technique, string Paint, int PiecesToGo, double Minutes, double SpentMinutes, double ToGoMinutes, double Adds, double Left, Purpose Purpose, SeenAtPositions Seen);

public sealed record ZoneCost(Guid Id, string Name, double Minutes, IReadOnlyList<LayerCost> Layers);

public sealed record DesignCost(Guid Id, string Name, Silhouette Silhouette, int Pieces, double Minutes, IReadOnlyList<ZoneCost> Zones);

/// <summary>Minutes that go into a technique, the share they are usually off by, and the figures they come of: by rule of thumb, and the workshop's own.</summary>
public sealed record TechniqueCost(string Technique, double Minutes, double Error, PaceFigures Usual, PaceFigures Own);

/// <summary>What would take fewer minutes: left out, masked, or laid before the main colour; in the words of the rule that found it.</summary>
public sealed record SavingDto(Guid ZoneId, string Zone, Guid LayerId, int Number, string Title, string Words);

/// <summary>What is still to do on a set in hands-on minutes: estimates, with the share they are usually off by.</summary>
public sealed record EstimatesReading(
    Guid SetId, Guid WorkshopId, uint WorkshopVersion, decimal TableMetres, double Minutes, double TypicalError, IReadOnlyList<DesignCost> Designs, IReadOnlyList<TechniqueCost> Techniques,
    IReadOnlyList<SavingDto> Savings);

/// <summary>What the work costs in minutes, and what each of them is worth from the table.</summary>
public static class EstimatesEndpoints
{
    public static void MapEstimates(this IEndpointRouteBuilder app)
    {
        Paces.Map(app);
        app.MapGet("/api/estimates/{setId:guid}", Of).WithTags("Time").WithName("estimates").WithSummary("Hands-on minutes of every layer still to do, and where each zone would stand if it stopped there.").ProducesProblem(404);
    }

    private static async Task<Results<Ok<EstimatesReading>, ProblemHttpResult>> Of(Guid setId, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph)
            return Problems.NotFound("set");
        var designs = graph.Designs.AsParallel().AsOrdered().Select(d => Cost(graph, d)).ToList();
        var pace = StoredPace.Read(graph.Workshop.Paces);
        var techniques = designs.SelectMany(d => d.Zones).SelectMany(z => z.Layers).GroupBy(l => l.Technique)
            .Select(g => (Technique: Paces.Named(g.Key)!.Value, Minutes: g.Sum(l => l.Minutes))).Where(t => t.Minutes > 0).OrderByDescending(t => t.Minutes)
            .Select(t => new TechniqueCost(EnumWords.Of(t.Technique), Round(t.Minutes), pace.Error(t.Technique), Paces.Usual(t.Technique), pace.Of(t.Technique))).ToList();
        var minutes = designs.Sum(d => d.Minutes);
        var error = minutes <= 0 ? HandsOn.TypicalError : techniques.Sum(t => t.Minutes * t.Error) / techniques.Sum(t => t.Minutes);
        return TypedResults.Ok(new EstimatesReading(setId, graph.Workshop.Id, graph.Workshop.Version, graph.Set.TableMetres, Round(minutes), Math.Round(error, 3), designs, techniques, Savings(graph)));
    }

    /// <summary>Rules that weigh minutes: a layer nobody would miss, one cut in that could come first, a finished neighbour that wants masking.</summary>
    private static readonly HashSet<string> weighing = ["no-visible-change", "buried-colour", "cut-in-cost", "overspray"];

    private static List<SavingDto> Savings(SetGraph graph) => graph.Places.AsParallel().AsOrdered().SelectMany(place =>
    {
        var view = graph.Glance(place.Zone, place.Design);
        return OrderCheck.Rules.Where(r => weighing.Contains(r.Facts.Id)).SelectMany(r => r.Check(view)).Where(f => f.Layers.Count > 0)
            .Select(f => new SavingDto(place.Zone.Id, place.Name, view.Layers[f.Layers[0]].Id, f.Layers[0] + 1, f.Title, f.Why));
    }).ToList();

    private static DesignCost Cost(SetGraph graph, DesignRow design)
    {
        var pieces = SetGraph.PieceCount(design);
        var zones = design.Zones.Select(z => Cost(graph, design, z, pieces)).ToList();
        return new DesignCost(design.Id, design.Name, design.Silhouette, pieces, Round(zones.Sum(z => z.Minutes)), zones);
    }

    private static ZoneCost Cost(SetGraph graph, DesignRow design, ZoneRow zone, int pieces)
    {
        var layers = graph.Layers(zone);
        var run = new StackView(graph.Context(zone, design), layers).Predictions;
        int ToGo(int i) => Math.Max(0, pieces - graph.OverCount(zone.Id, layers[i].Id));
        var stops = StopHere.Of(run, ToGo, (double)graph.Set.TableMetres, run.Count == 0 ? null : StoredPace.Read(graph.Workshop.Paces));
        return new ZoneCost(zone.Id, zone.Name, Round(stops.Sum(s => s.Minutes)), stops.Select((s, i) => new LayerCost(
            s.Layer.Id, i + 1, EnumWords.Of(s.Layer.Technique), string.Join(" + ", s.Layer.Paint.Select(p => p.Material.Name)), ToGo(i),
            Round(s.Minutes), Round(s.Spent), Round(s.ToGo), Round(s.Adds), Round(s.Left), s.Purpose, SeenAtPositions.Of(s.Seen))).ToList());
    }

    private static double Round(double value) => Math.Round(value, 1);
}
