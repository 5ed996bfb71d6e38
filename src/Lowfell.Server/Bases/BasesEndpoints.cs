using Lowfell.Core.Bases;
using Lowfell.Core.Layers;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Bases;

/// <summary>Bases laid out over a tray: drawn, kept, moved by hand, and put into the plan.</summary>
public static class BasesEndpoints
{
    private static readonly IReadOnlyDictionary<Guid, IReadOnlyList<ElementDto>> untouched = new Dictionary<Guid, IReadOnlyList<ElementDto>>();

    public static void MapBases(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/bases/{setId:guid}").WithTags("Bases");
        group.MapGet("/", List).WithName("bases").WithSummary("Designs that are bases, or that have a plan for their tops.").ProducesProblem(404);
        group.MapGet("/{designId:guid}", Of).WithName("tray").WithSummary("The bases of a design, laid out.").ProducesProblem(404);
        group.MapPost("/{designId:guid}/look", Look).WithName("lookAtTray").WithSummary("The same of bases that are not kept.").ProducesProblem(400).ProducesProblem(404);
        group.MapPut("/{designId:guid}", Keep).WithName("keepTray").WithSummary("Keeps how bases are laid out; those that a hand changed stay as they are.").Writes<TrayTold, TrayReading>(Tell);
        group.MapPut("/{designId:guid}/hand", ByHand).WithName("changeBase").WithSummary("What lies on one base, as a hand has it.").Writes<TrayTold, TrayReading>(Tell);
        group.MapPost("/{designId:guid}/plan", IntoPlan).WithName("trayIntoPlan").WithSummary("Areas as drawn become those of the zones, and counts those of the layers that set tufts and rocks.").Writes<TrayTold, TrayReading>(Tell);
    }

    private static async Task<Results<Ok<BasesReading>, ProblemHttpResult>> List(Guid setId, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph)
            return Problems.NotFound("set");
        var planned = await db.BasePlans.Where(b => db.Designs.Any(d => d.Id == b.DesignId && d.SetId == setId)).Select(b => b.DesignId).ToListAsync(stop);
        return TypedResults.Ok(new BasesReading(setId, graph.Workshop.Id, graph.Designs.Where(d => d.Silhouette == Silhouette.Base || planned.Contains(d.Id))
            .Select(d => new BasesEntry(d.Id, d.Name, SetGraph.PieceCount(d), planned.Contains(d.Id))).ToList()));
    }

    private static async Task<Results<Ok<TrayReading>, ProblemHttpResult>> Of(Guid setId, Guid designId, LowfellDb db, SetGraphs graphs, CancellationToken stop) =>
        await Read(setId, designId, db, graphs, stop) is { } reading ? TypedResults.Ok(reading) : Problems.NotFound("design");

    private static async Task<TrayReading> Tell(TrayTold told, Telling telling) => (await Read(told.SetId, told.DesignId, telling.Db, telling.Graphs, telling.Stop))!;

    private static async Task<TrayReading?> Read(Guid set, Guid design, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await Find(set, design, db, graphs, stop) is not var (graph, found))
            return null;
        var row = await db.BasePlans.AsNoTracking().FirstOrDefaultAsync(b => b.DesignId == design, stop);
        var (tray, hand) = Kept(graph, found, row);
        return await Task.Run(() => TrayReader.Word(tray, hand, row?.Version), stop);
    }

    /// <summary>What is kept of a design, or what one would begin with. A zone that has gone leaves its texture bare.</summary>
    private static (Tray Tray, IReadOnlyDictionary<Guid, IReadOnlyList<ElementDto>> Hand) Kept(SetGraph graph, DesignRow design, BasePlanRow? row)
    {
        var zones = design.Zones.Select(z => (Guid?)z.Id).ToHashSet();
        if (TrayWords.Body(row) is { } body)
        {
            var wish = body.Wish with { Textures = body.Wish.Textures!.Select(t => t is null || zones.Contains(t.ZoneId) ? t : t with { ZoneId = null }).ToList() };
            if (TrayWords.Read(graph, design, wish, new Faults()) is { } kept)
                return (kept, body.Hand);
        }

        return (TrayWords.Read(graph, design, UsualTray.Of(graph, design), new Faults())!, untouched);
    }

    private static async Task<(SetGraph Graph, DesignRow Design)?> Find(Guid set, Guid design, LowfellDb db, SetGraphs graphs, CancellationToken stop) =>
        await graphs.OfSet(db, set, stop) is { } graph && graph.Designs.FirstOrDefault(d => d.Id == design) is { } found ? (graph, found) : null;

    private static async Task<Results<Ok<TrayReading>, ProblemHttpResult>> Look(Guid setId, Guid designId, TrayDraft entry, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await Find(setId, designId, db, graphs, stop) is not var (graph, design))
            return Problems.NotFound("design");
        var faults = new Faults();
        if (TrayWords.Read(graph, design, entry.Wish, faults) is not { } tray)
            return faults.ToProblem();
        var row = await db.BasePlans.AsNoTracking().FirstOrDefaultAsync(b => b.DesignId == designId, stop);
        return TypedResults.Ok(await Task.Run(() => TrayReader.Word(tray, TrayWords.Body(row)?.Hand ?? untouched, row?.Version), stop));
    }

    private static async Task<Outcome<TrayTold>> Keep(Guid setId, Guid designId, TrayIn entry, Write write, SetGraphs graphs)
    {
        if (await Find(setId, designId, write.Db, graphs, write.Stop) is not var (graph, design))
            return Problems.NotFound("design");
        write.In(graph.Workshop.Id);
        var faults = new Faults();
        if (TrayWords.Read(graph, design, entry.Wish, faults) is null)
            return faults.ToProblem();
        await write.Hold<DesignRow>(designId);
        var row = await write.Db.BasePlans.FirstOrDefaultAsync(b => b.DesignId == designId, write.Stop);
        write.Says(row is null ? $"Laid out the bases of {design.Name}" : $"Laid out the bases of {design.Name} otherwise");
        if (row is null)
            write.Db.Add(new BasePlanRow { WorkshopId = graph.Workshop.Id, DesignId = designId, CreatedAt = write.Now, Body = TrayWords.Write(new TrayBody(entry.Wish!, untouched)) });
        else if (row.Version != entry.Version)
            return Problems.Changed("bases", (await Read(setId, designId, write.Db, graphs, write.Stop))!);
        else
            row.Body = TrayWords.Write(new TrayBody(entry.Wish!, TrayWords.Body(row)?.Hand ?? untouched));
        await write.Save();
        return new TrayTold(setId, designId);
    }

    private static async Task<Outcome<TrayTold>> ByHand(Guid setId, Guid designId, HandIn entry, Write write, SetGraphs graphs)
    {
        if (await Find(setId, designId, write.Db, graphs, write.Stop) is not var (graph, design))
            return Problems.NotFound("design");
        write.In(graph.Workshop.Id);
        await write.Hold<DesignRow>(designId);
        var row = await write.Db.BasePlans.FirstOrDefaultAsync(b => b.DesignId == designId, write.Stop);
        var faults = new Faults();
        var kept = TrayWords.Body(row);
        faults.Require(kept?.Wish.Shape is not null, "designId", "Keep the bases first, as they are drawn.");
        var piece = design.Pieces.FirstOrDefault(p => p.Id == entry.PieceId);
        faults.Require(piece is not null, "pieceId", "Choose a base of this design.");
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        if (faults.Any)
            return faults.ToProblem();
        var body = kept!;
        var shape = body.Wish.Shape!;
        var elements = entry.Elements is { } given ? TrayWords.Read(given, new BaseShape(shape.Outline, (double)shape.WidthMm, (double)shape.HeightMm), faults) : null;
        if (faults.Any)
            return faults.ToProblem();
        if (row!.Version != entry.Version)
            return Problems.Changed("bases", (await Read(setId, designId, write.Db, graphs, write.Stop))!);
        var hand = body.Hand.Where(h => h.Key != piece!.Id).ToDictionary();
        if (elements is not null)
            hand[piece!.Id] = elements;
        row.Body = TrayWords.Write(body with { Hand = hand });
        write.Says(elements is null ? $"{piece!.Label} as it was drawn" : $"{piece!.Label} by hand");
        await write.Save();
        return new TrayTold(setId, designId);
    }

    private static async Task<Outcome<TrayTold>> IntoPlan(Guid setId, Guid designId, Write write, SetGraphs graphs)
    {
        if (await Find(setId, designId, write.Db, graphs, write.Stop) is not var (graph, design))
            return Problems.NotFound("design");
        write.In(graph.Workshop.Id);
        if (await write.Db.BasePlans.AsNoTracking().FirstOrDefaultAsync(b => b.DesignId == designId, write.Stop) is not { } row)
            return Faults.One("designId", "Keep the bases first, as they are drawn.");
        var (tray, hand) = Kept(graph, design, row);
        var laid = TrayReader.Lay(tray, hand);
        var ids = tray.Asked.Textures!.Select(t => t!.ZoneId).OfType<Guid>().ToList();
        var zones = await write.Db.Zones.Where(z => ids.Contains(z.Id)).ToDictionaryAsync(z => z.Id, write.Stop);

        // One zone may be two textures: a path of the same mud.
        foreach (var area in tray.Asked.Textures!.Select((t, i) => (t!.ZoneId, Cm2: TrayReader.DrawnCm2(laid, i))).Where(a => a.ZoneId is not null).GroupBy(a => a.ZoneId!.Value))
            zones[area.Key].AreaCm2 = Math.Max(0.01m, Math.Round((decimal)area.Sum(a => a.Cm2), 2));
        if (await Counts(graph, design, laid, write) is { } refusal)
            return refusal;
        write.Says($"{design.Name}: areas and counts as its bases are laid out");
        await write.Save();
        return new TrayTold(setId, designId);
    }

    /// <summary>Layers that set tufts and rocks get the mean number of a base; those of treatments that other designs have are left alone.</summary>
    private static async Task<ProblemHttpResult?> Counts(SetGraph graph, DesignRow design, IReadOnlyList<TrayReader.Laid> laid, Write write)
    {
        var stacks = Enum.GetValues<ElementKind>().Select(k => (Kind: k, Setter: TrayReader.Setter(graph, design, k))).Where(x => x.Setter is not null)
            .GroupBy(x => (x.Setter!.Value.Zone.SurfaceId, Line: x.Setter.Value.Layer.Id))
            .Select(g => (g.First().Setter!.Value.Zone, g.Key.Line, Count: laid.Count == 0 ? 0 : laid.Sum(l => l.Plan.Elements.Count(e => g.Any(x => x.Kind == e.Kind))) / (double)laid.Count))
            .Where(x => x.Count > 0 && graph.Places.Where(p => p.Zone.SurfaceId == x.Zone.SurfaceId).All(p => p.Design.Id == design.Id)).GroupBy(x => x.Zone.SurfaceId).Select(t =>
            {
                var (zone, before) = (t.First().Zone, graph.Layers(t.First().Zone));
                var layers = before.Select(l => t.FirstOrDefault(x => x.Line == l.Id) is { Count: > 0 } found ? l with { Details = Math.Round(found.Count, 2) } : l).ToList();
                return (Zone: zone, Before: before, Layers: layers);
            }).Where(s => !s.Layers.Select(l => l.Details).SequenceEqual(s.Before.Select(l => l.Details)))
            .Select(s => TreatmentEdit.Of(graph, s.Zone, graph.Treatments[s.Zone.TreatmentId].Version, s.Layers)).ToList();
        return stacks.Count > 0 && await new StackWriter(write, graph.Materials).Store(stacks) is null
            ? Problems.Of(StatusCodes.Status409Conflict, "changed-elsewhere", "A treatment of these bases was changed in another window. Try again; nothing was overwritten.") : null;
    }
}
