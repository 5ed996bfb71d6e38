using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>Spray goes where the air goes.</summary>
internal sealed class Overspray : LayerRule
{
    public override RuleFacts Facts { get; } = new("overspray",
        "Sprayed colour next to a finished zone with no mask: minutes to repair against minutes to mask, over all pieces.",
        "A neighbour that was finished has to be repaired along the whole limit.",
        "Mask it; brush it on.");

    /// <summary>Spray drifts about this far past an edge, mm.</summary>
    private const double DriftMm = 8;

    protected override Finding? At(StackView view, int i)
    {
        var context = view.Context;
        var layer = view.Layers[i];
        if (!view.IsSprayed(i) || layer.Technique is Technique.Prime or Technique.Varnish || context.Zone.BeforeAssembly || Masked(view, i)
            || context.Neighbours.FirstOrDefault(n => n.FinishedFirst && !n.Zone.BeforeAssembly && n.Layers.Count > 0) is not { } neighbour)
            return null;
        var edgeMm = Math.Min(context.Zone.EdgeMm, neighbour.Zone.EdgeMm) / 2;
        var strip = neighbour.Zone with { AreaCm2 = edgeMm * DriftMm / 100, EdgeMm = edgeMm, JointMm = 0 };
        var repair = neighbour.Layers.Where(l => l.Paint.Count > 0).Sum(l => HandsOn.Batch(l, strip, context.Pieces, context.Pace));
        var masking = new[] { Technique.Mask, Technique.Unmask }.Sum(t => HandsOn.Batch(new Layer { Technique = t }, context.Zone with { EdgeMm = edgeMm }, context.Pieces, context.Pace));
        return new Finding(Facts.Id, Severity.Caution, [i], "Overspray on a finished neighbour",
            $"{view.Says(i)}, is sprayed beside {neighbour.Name}, which is finished by then. Repairing the strip costs about {Duration.Words(repair)} over the pieces, masking it about {Duration.Words(masking)} (estimates).",
            [
                new Remedy("mask", "Mask it, unmask after", [new StackEdit.Insert(i, new Layer { Technique = Technique.Mask }), new StackEdit.Insert(i + 2, new Layer { Technique = Technique.Unmask })]),
                new Remedy("brush", "Brush it on", [new StackEdit.Replace(i, layer with { Tool = Tool.Brush })]),
            ]);
    }

    private static bool Masked(StackView view, int i)
    {
        var mask = view.NextBelow(i, j => view.Layers[j].Technique is Technique.Mask or Technique.Unmask);
        return mask >= 0 && view.Layers[mask].Technique == Technique.Mask;
    }
}
