using Lowfell.Core.Layers;
using Lowfell.Core.Mixing;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Variation;

/// <summary>Plans by which a layer differs from piece to piece: looked at, kept, and set beside what was done.</summary>
public static class VariationEndpoints
{
    private const int MostMarks = 50, LongestNote = 200;

    /// <summary>What is shared out by the shelf, in so many parts.</summary>
    private const int ShelfParts = 20;

    public static void MapVariation(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/variation/{setId:guid}").WithTags("Variation");
        group.MapGet("/", List).WithName("variations").WithSummary("Layers that are laid differently on every piece, and those that could be.").ProducesProblem(404);
        var one = group.MapGroup("/{treatmentId:guid}/{layerId:guid}");
        one.MapGet("/", Of).WithName("variation").WithSummary("The plan of a layer: what goes where on which piece.").ProducesProblem(404);
        one.MapPost("/look", Look).WithName("lookAtVariation").WithSummary("The same of a plan that is not kept.").ProducesProblem(400).ProducesProblem(404);
        one.MapPut("/", Keep).WithName("keepVariation").WithSummary("Keeps a plan with its layer, or takes it away.").Writes<VariationTold, VariationReading>(Tell);
        one.MapPut("/done", Done).WithName("marksDone").WithSummary("What was laid on a piece otherwise than planned.").Writes<VariationTold, VariationReading>(Tell);
    }

    private static async Task<Results<Ok<VariationsReading>, ProblemHttpResult>> List(Guid setId, LowfellDb db, SetGraphs graphs, CancellationToken stop) =>
        await graphs.OfSet(db, setId, stop) is { } graph ? TypedResults.Ok(new VariationsReading(setId, graph.Workshop.Id, VariationReader.List(graph))) : Problems.NotFound("set");

    private static async Task<Results<Ok<VariationReading>, ProblemHttpResult>> Of(Guid setId, Guid treatmentId, Guid layerId, LowfellDb db, SetGraphs graphs, CancellationToken stop) =>
        await Read(setId, treatmentId, layerId, null, db, graphs, stop) is { } reading ? TypedResults.Ok(reading) : Problems.NotFound("layer");

    private static async Task<VariationReading> Tell(VariationTold told, Telling telling) => (await Read(told.SetId, told.TreatmentId, told.LayerId, null, telling.Db, telling.Graphs, telling.Stop))!;

    private static async Task<VariationReading?> Read(Guid set, Guid treatment, Guid line, Varied? draft, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await Find(set, treatment, line, db, graphs, stop) is not var (graph, zone, index))
            return null;
        var reader = await VariationReader.For(graph, zone.SurfaceId, line, db, stop);
        return await Task.Run(() => reader.Read(zone, index, draft ?? graph.Layers(zone)[index].Varied ?? new Varied(1)), stop);
    }

    /// <summary>The first zone of a set that has a layer, and which of its layers that is.</summary>
    private static async Task<(SetGraph Graph, ZoneRow Zone, int Index)?> Find(Guid set, Guid treatment, Guid line, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfSet(db, set, stop) is not { } graph)
            return null;
        foreach (var place in graph.Places.Where(p => p.Zone.TreatmentId == treatment))
            if (place.Layers.ToList().FindIndex(l => l.Id == line) is >= 0 and var index)
                return (graph, place.Zone, index);
        return null;
    }

    private static async Task<Results<Ok<VariationReading>, ProblemHttpResult>> Look(Guid setId, Guid treatmentId, Guid layerId, VariationDraft entry, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        var faults = new Faults();
        var varied = LayerWords.ReadVaried(entry.Varied, "varied", faults);
        faults.Require(varied is not null, "varied", "Say how it is to differ.");
        if (faults.Any)
            return faults.ToProblem();
        return await Read(setId, treatmentId, layerId, varied, db, graphs, stop) is { } reading ? TypedResults.Ok(reading) : Problems.NotFound("layer");
    }

    private static async Task<Outcome<VariationTold>> Keep(Guid setId, Guid treatmentId, Guid layerId, VariationIn entry, Write write, SetGraphs graphs)
    {
        if (await Find(setId, treatmentId, layerId, write.Db, graphs, write.Stop) is not var (graph, on, index))
            return Problems.NotFound("layer");
        write.In(graph.Workshop.Id);
        var (faults, layers) = (new Faults(), graph.Layers(on));
        var layer = layers[index];
        var varied = LayerWords.ReadVaried(entry.Varied, "varied", faults);
        faults.Require(entry.TreatmentVersion is not null, "treatmentVersion", "Give the version of the treatment that was seen.");
        faults.Require(varied is not { Dealt: true } || Varied.CanBeDealt(layer), "varied.dealt", "It takes several materials of one kind to deal them. Give the layer others first.");
        faults.Require(varied is null || Varied.HasMarks(layer) || varied.Dealt, "varied", "This layer lies everywhere alike: it can only differ by what it is laid with.");
        if (faults.Any)
            return faults.ToProblem();
        var paint = entry.ByShelf == true ? ByShelf(layer, graph) : layer.Paint;
        var stack = layers.Select((l, i) => i == index ? l with { Varied = varied, Paint = paint } : l).ToList();
        if (await new StackWriter(write, graph.Materials).Store([TreatmentEdit.Of(graph, on, entry.TreatmentVersion!.Value, stack)]) is null)
            return Problems.Of(StatusCodes.Status409Conflict, "changed-elsewhere", "This treatment was changed in another window. Look at the plan again; nothing was overwritten.");
        write.Says($"{graph.Treatments[treatmentId].Name}: {(varied is null ? "alike on every piece" : "laid otherwise on every piece")}, layer {index + 1}");
        return new VariationTold(setId, treatmentId, layerId);
    }

    /// <summary>The same materials in parts as they are on the shelf; one that has run out gets the least there is.</summary>
    private static IReadOnlyList<MixPart> ByShelf(Layer layer, SetGraph graph)
    {
        var all = layer.Paint.Where(p => !p.Material.IsThinner).Sum(p => graph.StockMl.GetValueOrDefault(p.Material.Id));
        return all <= 0 ? layer.Paint : layer.Paint.Select(p => p.Material.IsThinner ? p : p with { Parts = Parts.Of((decimal)Math.Max(1, Math.Round(graph.StockMl.GetValueOrDefault(p.Material.Id) / all * ShelfParts))) }).ToList();
    }

    private static async Task<Outcome<VariationTold>> Done(Guid setId, Guid treatmentId, Guid layerId, MarksDoneIn entry, Write write, SetGraphs graphs)
    {
        if (await Find(setId, treatmentId, layerId, write.Db, graphs, write.Stop) is not var (graph, on, index))
            return Problems.NotFound("layer");
        write.In(graph.Workshop.Id);
        var faults = new Faults();
        var at = entry.ZoneId is { } zone ? graph.Find(zone) : null;
        faults.Require(at?.Zone.SurfaceId == on.SurfaceId, "zoneId", "Choose a zone that has this layer.");
        var piece = at?.Design.Pieces.FirstOrDefault(p => p.Id == entry.PieceId);
        faults.Require(piece is not null, "pieceId", "Choose a piece of this design.");
        faults.Range(entry.Marks, "marks", 0, MostMarks);
        faults.Range(entry.MeanMm, "meanMm", 0.1m, 200);
        faults.Text(entry.Note, "note", LongestNote, needed: false);
        if (faults.Any)
            return faults.ToProblem();
        await write.Db.Database.ExecuteSqlAsync($"select 1 from pieces where id = {piece!.Id} for no key update", write.Stop);
        var row = await write.Db.MarksDone.FirstOrDefaultAsync(m => m.ZoneId == at!.Zone.Id && m.LineId == layerId && m.PieceId == piece.Id, write.Stop);
        write.Says(entry.Marks is null ? $"{piece.Label}, {at!.Zone.Name}: as planned after all" : $"{piece.Label}, {at!.Zone.Name}: {entry.Marks} {(entry.Marks == 1 ? "mark" : "marks")} instead of the plan's");
        if (entry.Marks is null && row is not null)
            write.Db.Remove(row);
        else if (entry.Marks is { } marks)
        {
            if (row is null)
                write.Db.Add(row = new MarksDoneRow { ZoneId = at.Zone.Id, LineId = layerId, PieceId = piece.Id });
            (row.Marks, row.MeanMm, row.Note, row.At) = (marks, entry.MeanMm, entry.Note?.Trim() ?? "", write.Now);
        }

        await write.Save();
        return new VariationTold(setId, treatmentId, layerId);
    }
}
