using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Order;
using Lowfell.Core.Sight;
using Lowfell.Core.Start;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Plan;

/// <summary>Questions about colour: where to start, what is seen, how two stacks differ.</summary>
public static class ColourEndpoints
{
    private const int MostStarts = 50;

    public static void MapColour(this IEndpointRouteBuilder app)
    {
        var plan = app.MapGroup("/api/plan").WithTags("Plan");
        plan.MapPost("/zones/{zoneId:guid}/start", Start).WithName("startHere").WithSummary("Materials and mixes for a layer so that the finished zone ends in a colour.").ProducesProblem(400).ProducesProblem(404);
        plan.MapPost("/zones/{zoneId:guid}/sight", Sight).WithName("zoneSight").WithSummary("Which marks and limits are seen from the table.").ProducesProblem(400).ProducesProblem(404);
        plan.MapPost("/zones/{zoneId:guid}/compare", Compare).WithName("compareStacks").WithSummary("Two stacks on one zone, side by side.").ProducesProblem(400).ProducesProblem(404);
        plan.MapGet("/sets/{setId:guid}/treatments", Treatments).WithName("treatments").ProducesProblem(404);
        plan.MapGet("/designs/{designId:guid}/table", TableView.Of).WithName("tableView").WithSummary("A design as seen from 0.3 to 3 m.").ProducesProblem(404);
        plan.MapPost("/zones/{zoneId:guid}/observe", Observation.Take).WithName("observe").WithSummary("Tunes a material's strength by what was seen.").Writes<ObserveReading>();
    }

    private static async Task<Results<Ok<IReadOnlyList<StartDto>>, ProblemHttpResult>> Start(Guid zoneId, StartIn ask, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfZone(db, zoneId, stop) is not { } at)
            return Problems.NotFound("zone");
        var faults = new Faults();
        var draft = Draft.Read(at, ask.Layers, faults);
        var wanted = faults.Colour(ask.Wanted, "wanted") ?? default;
        faults.Range(ask.Count, "count", 1, MostStarts);
        var index = Draft.IndexOf(draft, ask.LayerId, faults);
        var position = ask.Position ?? Position.Field;
        if (index >= 0)
            faults.Require(StartHere.CanAsk(draft!.Predictions, index, position), "layerId", "Start from a layer that coats the whole zone: a primer, a base coat, a rim.");
        if (faults.Any)
            return faults.ToProblem();
        var run = draft!.Predictions;
        var shelf = draft.Context.Shelf.Where(m => ask.OutOfStockToo == true || at.Graph.StockMl.GetValueOrDefault(m.Id) > 0).ToList();
        var count = ask.Count ?? 12;

        // The same two paints in another ratio are no other advice; the best ratio of each stands for it.
        var found = StartHere.Find(run, index, position, wanted.ToLab(), shelf, count * StartHere.AllRatios.Count, stop: stop)
            .DistinctBy(b => b.Paint.Count == 1 ? (b.Paint[0].Material.Id, Guid.Empty) : (b.Paint[0].Material.Id, b.Paint[1].Material.Id)).Take(count);
        return TypedResults.Ok<IReadOnlyList<StartDto>>(found.Select(b => Word(draft, index, position, wanted.ToLab(), b)).ToList());
    }

    private static StartDto Word(StackView draft, int index, Position position, Lab wanted, Beginning b)
    {
        var stack = draft.Layers.ToList();
        stack[index] = stack[index] with { Paint = b.Paint, Dilution = b.Dilution, Coats = b.Coats };
        var run = draft.Predict(stack);
        var end = run.SeenBelow(stack.Count);
        var layer = LayerWords.ToDto(stack[index]);
        return new StartDto(layer.Paint, layer.Dilution, b.Coats, b.Hides, Math.Round(b.Difference, 2), DifferenceWords.Of(wanted, end[position].Lab),
            end.Raised.Colour.ToString(), end.Field.Colour.ToString(), end.Recess.Colour.ToString(), run.RangeBelow(run.Count)[position].Holds(wanted));
    }

    private static async Task<Results<Ok<SightReading>, ProblemHttpResult>> Sight(Guid zoneId, SightDraftIn ask, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfZone(db, zoneId, stop) is not { } at)
            return Problems.NotFound("zone");
        var faults = new Faults();
        var draft = Draft.Read(at, ask.Layers, faults);
        faults.Range(ask.Metres, "metres", 0.1, 100);
        if (faults.Any)
            return faults.ToProblem();
        var run = draft!.Predictions;
        var metres = ask.Metres ?? (double)at.Graph.Set.TableMetres;
        var details = Details.Judge(run, metres, SetGraph.PieceCount(at.Design)).Select(d => new DetailDto(
            draft.Layers[d.Layer].Id, d.Position, d.Millimetres, d.Shape, Math.Round(d.Difference, 2), d.Verdict, Math.Round(d.LostBeyondMetres, 2), Math.Round(d.MinutesSaved))).ToList();
        var mean = run.Count > 0 ? run[^1].Average : run.SeenBelow(0).Field;
        return TypedResults.Ok(new SightReading(metres, mean.Colour.ToString(), details, Neighbours(at, run.Zone, mean, metres)));
    }

    private static List<NeighbourDto> Neighbours(Place at, Zone zone, Seen mean, double metres) =>
        at.Design.Zones.Where(z => at.Graph.Touching[at.Zone.Id].Contains(z.Id)).Select(z =>
        {
            var theirs = TableView.Mean(at.Graph, at.Design, z);
            var apart = FromTheTable.Between(zone, mean, at.Graph.ToCore(z, at.Design), theirs, metres);
            return new NeighbourDto(z.Id, z.Name, theirs.Colour.ToString(), Math.Round(apart.Difference, 2), apart.Verdict);
        }).ToList();

    private static async Task<Results<Ok<CompareReading>, ProblemHttpResult>> Compare(Guid zoneId, CompareIn ask, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfZone(db, zoneId, stop) is not { } at)
            return Problems.NotFound("zone");
        var faults = new Faults();
        var mine = Draft.Read(at, ask.Layers, faults);
        faults.Require((ask.TreatmentId is null) != (ask.With is null), "with", "Give either a treatment or other layers to compare with.");
        var known = ask.TreatmentId is { } id ? at.Graph.Places.FirstOrDefault(p => p.Zone.TreatmentId == id && (ask.SurfaceId is null || p.Zone.SurfaceId == ask.SurfaceId))?.Layers : null;
        if (ask.TreatmentId is not null)
            faults.Require(known is not null, "treatmentId", "This treatment is not used in the set. Choose one that is.");
        var other = known ?? (ask.With is null ? null : Draft.Read(at, ask.With, faults, "with")?.Layers);
        if (faults.Any)
            return faults.ToProblem();
        StackRun a = mine!.Predictions, b = mine.Predict(other!);
        SeenSplit first = a.SeenBelow(a.Count), second = b.SeenBelow(b.Count);
        HandRangeSplit hands = a.RangeBelow(a.Count), theirs = b.RangeBelow(b.Count);
        ComparedPosition Word(Position p, Seen x, Seen y)
        {
            var within = hands[p].Holds(y.Lab) || theirs[p].Holds(x.Lab);
            var apart = ColourDifference.Ciede2000(x.Lab, y.Lab);
            return new(p, x.Colour.ToString(), y.Colour.ToString(), Math.Round(apart, 2), within && apart >= 1 ? "no more than a hand varies" : DifferenceWords.Of(x.Lab, y.Lab), within);
        }

        return TypedResults.Ok(new CompareReading(
            other!.Select(LayerWords.ToDto).ToList(), new StackReader(at.Graph).Read(at.Design, at.Zone, other!),
            Enum.GetValues<Position>().Select(p => Word(p, first[p], second[p])).ToList(),
            Word(Position.Field, a.Count > 0 ? a[^1].Average : first.Field, b.Count > 0 ? b[^1].Average : second.Field)));
    }

    private static async Task<Results<Ok<IReadOnlyList<TreatmentEntry>>, ProblemHttpResult>> Treatments(Guid setId, LowfellDb db, SetGraphs graphs, CancellationToken stop) =>
        await graphs.OfSet(db, setId, stop) is { } graph
            ? TypedResults.Ok<IReadOnlyList<TreatmentEntry>>(graph.Treatments.Values.OrderBy(t => t.Name).Select(t => new TreatmentEntry(t.Id, t.Name, t.Layers.Count)).ToList())
            : Problems.NotFound("set");
}
