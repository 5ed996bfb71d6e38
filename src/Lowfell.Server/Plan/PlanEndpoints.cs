using System.Runtime.CompilerServices;
using Lowfell.Core.Layers;
using Lowfell.Core.Order;
using Lowfell.Core.Words;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
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
        plan.MapPut("/zones/{zoneId:guid}", ChangeZone).WithName("changeZone").Writes<ZoneTold, ZoneSheet>(Tell);
        plan.MapGet("/zones/{zoneId:guid}/so-far", HowFar.Of).WithName("howFar").WithSummary("How far the pieces of a zone have really come.").ProducesProblem(404);
        plan.MapPost("/zones/{zoneId:guid}/reading", Read).WithName("readDraft").ProducesProblem(400).ProducesProblem(404);
        plan.MapPut("/zones/{zoneId:guid}/stack", Store).WithName("storeStack").Writes<ZoneTold, ZoneSheet>(Tell);
    }

    private static Ok<IReadOnlyList<TechniqueDto>> Techniques() => TypedResults.Ok<IReadOnlyList<TechniqueDto>>(
        Enum.GetValues<Technique>().Select(t => TechniqueTable.For(t)).Select(f => new TechniqueDto(f.Technique, f.Laydown, f.UsualTool, f.Suits, f.OverEverything)).ToList());

    private static async Task<Results<Ok<PlanOverview>, ProblemHttpResult>> Overview(Guid setId, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph)
            return Problems.NotFound("set");
        return TypedResults.Ok(await graph.OfAll(nameof(PlanOverview), () => Listing(graph)));
    }

    /// <summary>Drafts come many a second while a slider moves; those need not look for other changes every time.</summary>
    private static readonly TimeSpan MovingLook = TimeSpan.FromMilliseconds(100);

    private static PlanOverview Listing(SetGraph graph)
    {
        var designs = graph.Designs.AsParallel().AsOrdered().Select(d => Entry(graph, d)).ToList();
        return new PlanOverview(
            graph.Set.Id, graph.Set.Name, graph.Workshop.Id, graph.Workshop.Name, graph.Set.Scale, graph.Set.TableMetres, graph.Set.TargetSheen, graph.Set.Handling,
            graph.Workshop.TemperatureC, graph.Workshop.RelativeHumidity, graph.Workshop.AirMoves, designs.Sum(d => d.Pieces), designs);
    }

    private static DesignEntry Entry(SetGraph graph, DesignRow design) => graph.Once(design, nameof(PlanOverview), () => new DesignEntry(
        design.Id, design.Name, design.Silhouette, design.Substrate, SetGraph.PieceCount(design), design.Zones.Select(z => Entry(graph, design, z)).ToList()), ofShelf: false);

    private static ZoneEntry Entry(SetGraph graph, DesignRow design, ZoneRow row)
    {
        var view = graph.Glance(row, design);
        var open = new ZoneRemarks(graph, row, view).Open(OrderCheck.Glance(view));
        int Count(Severity severity) => open.Count(f => f.Severity == severity);
        return new ZoneEntry(row.Id, row.Name, view.Count > 0 ? view.Predictions[^1].Field.Colour.ToString() : null, view.Count, Count(Severity.Stop), Count(Severity.Caution), Count(Severity.Hint));
    }

    private static async Task<Results<Ok<ZoneSheet>, ProblemHttpResult>> OfZone(Guid zoneId, LowfellDb db, SetGraphs graphs, CancellationToken stop) =>
        await graphs.OfZone(db, zoneId, stop) is { } at ? TypedResults.Ok(Sheet(at)) : Problems.NotFound("zone");

    private static async Task<Results<Ok<Reading>, ProblemHttpResult>> Read(Guid zoneId, DraftIn draft, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfZone(db, zoneId, stop, within: draft.Moving == true ? MovingLook : default) is not { } at)
            return Problems.NotFound("zone");
        var faults = new Faults();
        var layers = LayerWords.Read(draft.Layers, at.Graph.Materials, faults);
        faults.Range(draft.Laid, "laid", 0, layers?.Count ?? 0);
        faults.Range(draft.MinutesSinceLast, "minutesSinceLast", 0, 10_000_000);
        return faults.Any ? faults.ToProblem() : TypedResults.Ok(new StackReader(at.Graph).Read(at.Design, at.Zone, layers!, new Progress(draft.Laid ?? 0, draft.MinutesSinceLast ?? 0)));
    }

    /// <summary>What a change of a zone comes to.</summary>
    private sealed record ZoneTold(Guid ZoneId, uint Version);

    private static async Task<ZoneSheet> Tell(ZoneTold told, Telling telling) => Sheet((await telling.Graphs.OfZone(telling.Db, told.ZoneId, telling.Stop))!);

    private static async Task<Outcome<ZoneTold>> Store(Guid zoneId, StackIn stack, Write write, SetGraphs graphs)
    {
        if (await graphs.OfZone(write.Db, zoneId, write.Stop) is not { } at)
            return Problems.NotFound("zone");
        write.In(at.Graph.Workshop.Id);
        var faults = new Faults();
        faults.Require(stack.Version is not null, "version", "Give the version you edited from.");
        var writer = new StackWriter(write, at.Graph.Materials);
        var stored = await writer.Read(at.Zone, stack, "layers", faults);
        if (faults.Any)
            return faults.ToProblem();
        return await writer.Store([stored!]) is { } versions ? new ZoneTold(zoneId, versions[0]) : Problems.Changed("stack", Sheet((await graphs.OfZone(write.Db, zoneId, write.Stop))!));
    }

    private static async Task<Outcome<ZoneTold>> ChangeZone(Guid zoneId, ZoneIn change, Write write, SetGraphs graphs)
    {
        if (await graphs.OfZone(write.Db, zoneId, write.Stop) is not { } at || await write.Db.Zones.FirstOrDefaultAsync(z => z.Id == zoneId, write.Stop) is not { } row)
            return Problems.NotFound("zone");
        write.In(at.Graph.Workshop.Id);
        var faults = ZoneMeasures.Check(change);
        faults.Require(change.Name is null || at.Design.Zones.All(z => z.Id == zoneId || z.Name != change.Name.Trim()), "name", $"{at.Design.Name} has a zone of this name already. Choose another name.");
        if (faults.Any)
            return faults.ToProblem();
        write.Says($"Changed {at.Name}");
        ZoneMeasures.Fill(row, change);
        if (!await write.Fits(row, change.Version))
            return Problems.Changed("zone", Sheet(at));
        await write.Save();
        return new ZoneTold(zoneId, row.Version);
    }

    private static ZoneSheet Sheet(Place at)
    {
        var treatment = at.Graph.Treatments[at.Zone.TreatmentId];
        var (layers, rows) = (at.Layers, at.Graph.Rows(at.Zone).ToList());
        var shared = at.Graph.Places.Where(p => p.Zone.SurfaceId == at.Zone.SurfaceId && p.Zone.Id != at.Zone.Id).Select(p => $"{p.Design.Name}, {p.Zone.Name}")
            .Concat(at.Graph.Plan.SharedElsewhere[at.Zone.SurfaceId]).ToList();
        return new ZoneSheet(
            Word(at), treatment.Id, treatment.Name, at.Zone.SurfaceId, treatment.Surfaces.Count > 1 ? treatment.Surfaces.First(s => s.SurfaceId == at.Zone.SurfaceId).Name : null,
            treatment.Version, treatment.Revision, shared,
            layers.Select((l, i) => LayerWords.ToDto(l) with { Note = rows[i].Layer.Note }).ToList(),
            new StackReader(at.Graph).Read(at.Design, at.Zone, layers),
            at.Graph.Plan.LeftOut[treatment.Id].Where(l => l.Over.Any(o => o.SurfaceId == at.Zone.SurfaceId)).Select(l => new LeftOutLayer(l.StepId, Words(at.Graph, l))).ToList(),
            treatment.Surfaces.Count > 1 ? treatment.Surfaces.Select(s => new SurfaceWord(s.SurfaceId, s.Name, s.OnId)).ToList() : [],
            treatment.Surfaces.Count > 1 ? rows.Select(r => new LayerOver(r.LineId, r.Layer.StepId, r.Layer.Over.Select(o => o.SurfaceId).ToList())).ToList() : []);
    }

    private static string Words(SetGraph graph, LayerRow layer)
    {
        var paint = layer.MaterialId is { } id && graph.Materials.TryGetValue(id, out var material) ? material.Name : layer.MixId is { } mix && graph.Plan.Mixes.TryGetValue(mix, out var row) ? row.Name : "";
        return paint.Length > 0 ? $"{EnumWords.Of(layer.Technique)}, {paint}" : EnumWords.Of(layer.Technique);
    }

    private static ZoneDto Word(Place at)
    {
        var z = at.Zone;
        return new ZoneDto(z.Id, z.Name, at.Design.Id, at.Design.Name, at.Design.Substrate, SetGraph.PieceCount(at.Design), z.AreaCm2, z.Relief,
            z.UpShare, z.SideShare, z.DownShare, z.RaisedShare, z.FieldShare, z.RecessShare, z.EdgeMm, z.JointMm, z.SmallestDetailMm, z.TargetSheen, z.TargetColour, z.TargetPosition, z.CutEdge, z.BeforeAssembly, z.Version, Surfaces.Word(z, at.Graph.Set.Scale));
    }
}
