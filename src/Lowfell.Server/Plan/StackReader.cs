using Lowfell.Core.Drying;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Order;
using Lowfell.Store;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Plan;

/// <summary>Asks the core everything about a stack and words the answer for the page.</summary>
internal sealed class StackReader(SetGraph graph)
{
    /// <summary>Colours, findings and amounts of <paramref name="layers"/> on a zone, as if they were stored.</summary>
    public Reading Read(DesignRow design, ZoneRow zoneRow, IReadOnlyList<Layer> layers)
    {
        var zone = graph.ToCore(zoneRow, design);
        var context = graph.Context(zone);
        var predictions = StackPrediction.Compute(zone, layers);
        var pieces = SetGraph.PieceCount(design);
        var readings = layers.Select((layer, i) => ReadLayer(layer, predictions[i], zone, pieces, i + 1 < layers.Count ? layers[i + 1] : null, context.Climate)).ToList();
        var findings = OrderCheck.Run(context, layers).Select(f => Word(f, layers)).ToList();
        return new Reading(SubstrateTraits.Colour(zone.Substrate).ToString(), readings, findings, SetNeeds(zoneRow.TreatmentId, layers));
    }

    private static LayerReading ReadLayer(Layer layer, LayerPrediction p, Zone zone, int pieces, Layer? above, Climate climate)
    {
        var needed = above is null ? DryingModel.Of(layer, climate).TouchMinutes : DryingModel.Needed(layer, above, climate).Minutes;
        var hands = HandsOn.Batch(layer, zone, pieces);
        return new LayerReading(
            layer.Id, p.Raised.Colour.ToString(), p.Field.Colour.ToString(), p.Recess.Colour.ToString(), p.Average.Colour.ToString(), p.WetField.Colour.ToString(),
            Positions(p.Change), Positions(p.DryFilmUm), Positions(p.Cover),
            Duration(needed), Math.Round(hands * (1 - HandsOn.TypicalError)), Math.Round(hands * (1 + HandsOn.TypicalError)),
            Quantities.ForLayer(layer, zone, pieces).Select(n => new NeedDto(n.Material.Id, Math.Round(n.Ml, 2))).ToList(),
            layer.Paint.Any(x => x.Material.OpticsSource == OpticsSource.Estimated));
    }

    private static double Duration(double minutes) => minutes <= 0 ? 0 : Core.Words.Duration.RoundUp(minutes);

    private static PositionsDto Positions(Split s) => new(Math.Round(s.Raised, 3), Math.Round(s.Field, 3), Math.Round(s.Recess, 3));

    private static FindingDto Word(Finding f, IReadOnlyList<Layer> layers) => new(
        f.Rule, f.Severity, f.Layers.Select(i => layers[i].Id).ToList(), f.Title, f.Why,
        f.Remedies.Select(r => new RemedyDto(r.Id, r.Text, r.Edits.Select(Word).ToList())).ToList());

    private static EditDto Word(StackEdit edit) => edit switch
    {
        StackEdit.Insert insert => new(EditKind.Insert, insert.At, null, LayerWords.ToDto(insert.Layer)),
        StackEdit.Remove remove => new(EditKind.Remove, remove.At, null, null),
        StackEdit.Move move => new(EditKind.Move, move.From, move.To, null),
        StackEdit.Replace replace => new(EditKind.Replace, replace.At, null, LayerWords.ToDto(replace.Layer)),
        _ => throw new InvalidOperationException($"Unknown edit {edit.GetType().Name}."),
    };

    /// <summary>What the whole set takes of the materials in this stack, with the stack as drafted wherever its treatment is used.</summary>
    private List<SetNeedDto> SetNeeds(Guid draftTreatment, IReadOnlyList<Layer> draft)
    {
        var here = draft.SelectMany(l => l.Paint.Select(p => p.Material.Id).Append(l.Dilution?.Thinner.Id ?? Guid.Empty)).ToHashSet();
        var names = graph.Designs.SelectMany(d => d.Zones.Select(z => (z.Id, Name: $"{z.Name} on {d.Name}"))).ToDictionary(x => x.Id, x => x.Name);
        return Quantities.ForSet(Plans(draftTreatment, draft))
            .Where(n => here.Contains(n.Material.Id))
            .Select(n => new SetNeedDto(n.Material.Id, Math.Round(n.Ml, 2), graph.StockMl.GetValueOrDefault(n.Material.Id), names[n.DrivingZone], Math.Round(n.DrivingShare, 3)))
            .ToList();
    }

    private IEnumerable<ZonePlan> Plans(Guid draftTreatment, IReadOnlyList<Layer> draft)
    {
        var stored = new Dictionary<Guid, List<Layer>>();
        foreach (var design in graph.Designs)
        {
            foreach (var zone in design.Zones)
            {
                if (!stored.TryGetValue(zone.TreatmentId, out var layers))
                    stored[zone.TreatmentId] = layers = graph.Treatments[zone.TreatmentId].Layers.Select(graph.ToCore).ToList();
                yield return new ZonePlan(zone.Id, graph.ToCore(zone, design), zone.TreatmentId == draftTreatment ? draft : layers, SetGraph.PieceCount(design));
            }
        }
    }
}
