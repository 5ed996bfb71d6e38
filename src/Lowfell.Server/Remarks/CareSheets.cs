using Lowfell.Core.Order;
using Lowfell.Core.Words;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Lowfell.Server.Remarks;

/// <summary>The usual cautions for a stretch of work, gathered by what can hurt.</summary>
internal static class CareSheets
{
    public static async Task<Results<Ok<CareSheet>, ProblemHttpResult>> Of(Guid setId, Guid? designId, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph)
            return Problems.NotFound("set");
        var designs = graph.Designs.Where(d => designId is null || d.Id == designId).ToList();
        if (designId is not null && designs.Count == 0)
            return Problems.NotFound("design");
        var layers = designs.SelectMany(d => d.Zones.SelectMany(z => graph.Layers(z).Select((l, i) => (Design: d, Zone: z, Layer: l, Number: i + 1)))).ToList();
        var groups = layers
            .SelectMany(x => Care.For(x.Layer, x.Design.Substrate).Select(c => (Care: c, At: new CareLayer(x.Zone.Name, x.Design.Name, x.Number, $"{EnumWords.Of(x.Layer.Technique)}, {x.Layer.MaterialName}"))))
            .GroupBy(x => x.Care).OrderBy(g => g.Key.Care)
            .Select(g => new CareGroup(g.Key.Care, g.Key.Text, g.Select(x => x.At).ToList())).ToList();
        var used = layers.SelectMany(x => x.Layer.Paint.Select(p => p.Material.Id).Append(x.Layer.Dilution?.Thinner.Id ?? Guid.Empty)).ToHashSet();
        var labels = graph.Hazards.Where(h => used.Contains(h.Id)).Select(h => new CareLabel(h.Id, h.Name, h.Hazards)).ToList();
        return TypedResults.Ok(new CareSheet(designId is null ? graph.Set.Name : designs[0].Name, Care.Deference, groups, labels));
    }
}
