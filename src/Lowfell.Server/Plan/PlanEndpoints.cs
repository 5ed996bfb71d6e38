using System.Runtime.CompilerServices;
using Lowfell.Core.Layers;
using Lowfell.Core.Order;
using Lowfell.Server.Http;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Plan;

/// <summary>The plan: designs, zones and their stacks.</summary>
public static class PlanEndpoints
{
    public static void MapPlan(this IEndpointRouteBuilder app)
    {
        var plan = app.MapGroup("/api/plan").WithTags("Plan");
        plan.MapGet("/techniques", Techniques).WithName("techniques");
        plan.MapGet("/sets/{setId:guid}", Overview).WithName("planOverview").ProducesProblem(404);
        plan.MapGet("/zones/{zoneId:guid}", OfZone).WithName("zoneSheet").ProducesProblem(404);
        plan.MapPut("/zones/{zoneId:guid}", ChangeZone).WithName("changeZone").ProducesProblem(400).ProducesProblem(404).ProducesProblem(409)
            .AddEndpointFilter<IdempotencyFilter>();
        plan.MapGet("/zones/{zoneId:guid}/variation", Variation.Of).WithName("variationPlan").WithSummary("Where a varied layer goes on each piece.").ProducesProblem(400).ProducesProblem(404);
        plan.MapPost("/zones/{zoneId:guid}/reading", Read).WithName("readDraft").ProducesProblem(400).ProducesProblem(404);
        plan.MapPut("/zones/{zoneId:guid}/stack", Store).WithName("storeStack").ProducesProblem(400).ProducesProblem(404).ProducesProblem(409)
            .AddEndpointFilter<IdempotencyFilter>();
    }

    private static Ok<IReadOnlyList<TechniqueDto>> Techniques() => TypedResults.Ok<IReadOnlyList<TechniqueDto>>(
        Enum.GetValues<Technique>().Select(t => TechniqueTable.For(t)).Select(f => new TechniqueDto(f.Technique, f.Laydown, f.UsualTool, f.Suits)).ToList());

    private static async Task<Results<Ok<PlanOverview>, ProblemHttpResult>> Overview(Guid setId, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph)
            return Problems.NotFound("set");
        return TypedResults.Ok(overviews.GetValue(graph, Listing));
    }

    /// <summary>Drafts come many a second while a slider moves; they need not look for other windows' changes every time.</summary>
    private static readonly TimeSpan DraftsLook = TimeSpan.FromMilliseconds(100);

    // What is listed of a set that has not changed is the same every time.
    private static readonly ConditionalWeakTable<SetGraph, PlanOverview> overviews = [];

    private static PlanOverview Listing(SetGraph graph)
    {
        var entries = graph.Designs.SelectMany(d => d.Zones.Select(z => (Design: d, Zone: z))).AsParallel().AsOrdered().Select(x => Entry(graph, x.Design, x.Zone)).ToList().ToDictionary(e => e.Id);
        var designs = graph.Designs.Select(d => new DesignEntry(
            d.Id, d.Name, d.Silhouette, d.Substrate, SetGraph.PieceCount(d), d.Zones.Select(z => entries[z.Id]).ToList())).ToList();
        return new PlanOverview(
            graph.Set.Id, graph.Set.Name, graph.Workshop.Id, graph.Workshop.Name, graph.Set.Scale, graph.Set.TableMetres, graph.Set.TargetSheen, graph.Set.Handling,
            graph.Workshop.TemperatureC, graph.Workshop.RelativeHumidity, designs.Sum(d => d.Pieces), designs);
    }

    private static ZoneEntry Entry(SetGraph graph, DesignRow design, ZoneRow row)
    {
        var view = new StackView(graph.Context(row, design), graph.Layers(row.TreatmentId));
        var open = new Remarks.ZoneRemarks(graph, row, view).Open(OrderCheck.Glance(view));
        int Count(Severity severity) => open.Count(f => f.Severity == severity);
        return new ZoneEntry(row.Id, row.Name, view.Count > 0 ? view.Predictions[^1].Field.Colour.ToString() : null, view.Count, Count(Severity.Stop), Count(Severity.Caution), Count(Severity.Hint));
    }

    private static async Task<Results<Ok<ZoneSheet>, ProblemHttpResult>> OfZone(Guid zoneId, LowfellDb db, SetGraphs graphs, CancellationToken stop) =>
        await graphs.OfZone(db, zoneId, stop) is { } at ? TypedResults.Ok(Sheet(at)) : Problems.NotFound("zone");

    private static async Task<Results<Ok<Reading>, ProblemHttpResult>> Read(Guid zoneId, DraftIn draft, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfZone(db, zoneId, stop, lately: DraftsLook) is not { } at)
            return Problems.NotFound("zone");
        var faults = new Faults();
        var layers = LayerWords.Read(draft.Layers, at.Graph.Materials, faults);
        faults.Range(draft.Laid, "laid", 0, layers?.Count ?? 0);
        faults.Range((decimal?)draft.MinutesSinceLast, "minutesSinceLast", 0, 10_000_000);
        return faults.Any ? faults.ToProblem() : TypedResults.Ok(new StackReader(at.Graph).Read(at.Design, at.Zone, layers!, new Progress(draft.Laid ?? 0, draft.MinutesSinceLast ?? 0)));
    }

    private static async Task<Results<Ok<ZoneSheet>, ProblemHttpResult>> Store(
        Guid zoneId, StackIn stack, LowfellDb db, SetGraphs graphs, TimeProvider clock, CancellationToken stop)
    {
        if (await graphs.OfZone(db, zoneId, stop) is not { } at)
            return Problems.NotFound("zone");
        var faults = new Faults();
        faults.Require(stack.Version is not null, "version", "Give the version you edited from.");
        var layers = LayerWords.Read(stack.Layers, at.Graph.Materials, faults);
        if (layers is null || faults.Any)
            return faults.ToProblem();
        var ids = layers.Select(l => l.Id).ToList();
        if (await db.Layers.AnyAsync(l => ids.Contains(l.Id) && l.TreatmentId != at.Zone.TreatmentId, stop))
        {
            faults.Add("layers", "A layer id belongs to another treatment. Give copied layers new ids.");
            return faults.ToProblem();
        }

        var notes = stack.Layers!.Select(l => l!.Note ?? "").ToList();
        var stored = await new StackWriter(db, clock).Write(at.Zone.TreatmentId, stack.Version!.Value, layers, notes, stop);
        var now = Sheet((await graphs.OfZone(db, zoneId, stop))!);
        return stored ? TypedResults.Ok(now) : Problems.Changed("stack", now);
    }

    private static async Task<Results<Ok<ZoneSheet>, ProblemHttpResult>> ChangeZone(Guid zoneId, ZoneIn change, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        var row = await db.Zones.FirstOrDefaultAsync(z => z.Id == zoneId, stop);
        if (row is null)
            return Problems.NotFound("zone");
        var faults = ZoneMeasures.Check(change);
        if (faults.Any)
            return faults.ToProblem();
        var changed = row.Version != change.Version;
        if (!changed)
        {
            ZoneMeasures.Fill(row, change);
            await db.SaveChangesAsync(stop);
        }

        db.ChangeTracker.Clear();
        var now = Sheet((await graphs.OfZone(db, zoneId, stop))!);
        return changed ? Problems.Changed("zone", now) : TypedResults.Ok(now);
    }

    private static ZoneSheet Sheet(Place at)
    {
        var treatment = at.Graph.Treatments[at.Zone.TreatmentId];
        var layers = at.Graph.Layers(treatment.Id);
        var shared = at.Graph.Designs.SelectMany(d => d.Zones.Where(z => z.TreatmentId == treatment.Id && z.Id != at.Zone.Id).Select(z => $"{d.Name}, {z.Name}")).ToList();
        return new ZoneSheet(
            Word(at), treatment.Id, treatment.Name, treatment.Version, shared,
            layers.Select((l, i) => LayerWords.ToDto(l) with { Note = treatment.Layers[i].Note }).ToList(),
            new StackReader(at.Graph).Read(at.Design, at.Zone, layers));
    }

    private static ZoneDto Word(Place at)
    {
        var z = at.Zone;
        return new ZoneDto(z.Id, z.Name, at.Design.Id, at.Design.Name, at.Design.Substrate, SetGraph.PieceCount(at.Design), z.AreaCm2, z.Relief,
            z.UpShare, z.SideShare, z.DownShare, z.RaisedShare, z.FieldShare, z.RecessShare, z.EdgeMm, z.JointMm, z.SmallestDetailMm, z.TargetSheen, z.TargetColour, z.TargetPosition, z.CutEdge, z.BeforeAssembly, z.Version);
    }
}
