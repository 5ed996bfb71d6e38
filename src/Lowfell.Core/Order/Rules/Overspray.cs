using Lowfell.Core.Layers;
using Lowfell.Core.Precedence;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>Spray goes where the air goes.</summary>
internal sealed class Overspray : LayerRule
{
    public override RuleFacts Facts { get; } = new("overspray",
        "Sprayed within reach of what stands finished on the piece by then, with no mask: minutes to repair against minutes to mask, over all pieces.",
        "What was finished has to be repaired along the whole limit.",
        "Mask it; brush it on.");

    protected override Finding? At(StackView view, int i)
    {
        var layer = view.Layers[i];
        if (!view.IsSprayed(i) || Reach.IsMasked(view.Layers, i) || view.Piece is not { } order)
            return null;
        var (here, step) = (view.Context.Piece!.Here, order.StepOf(view.Context.Piece.Here, i));
        var late = order.Dropped.Where(IsMine).ToList();
        var soiled = late.Concat(order.Kept.Where(e => IsMine(e) && order.TurnedOn(e) > 0)).ToList();
        if (soiled.Count == 0)
            return null;
        var beside = string.Join(" and ", soiled.Select(e => order.Zones[e.SecondOn].Zone.Name).Distinct());
        double repair = soiled.Sum(e => order.PriceOf(e).RepairMinutes), masking = soiled.Sum(e => order.PriceOf(e).MaskMinutes ?? 0);
        return new Finding(Facts.Id, Severity.Caution, [i], "Overspray on what is finished",
            $"{view.Says(i)}, is sprayed beside {beside}, {Finished(order, late, soiled)}. Repairing the strip costs about {Duration.Words(repair)} over the pieces, masking it about {Duration.Words(masking)} (estimates).",
            [
                new Remedy("mask", "Mask it, unmask after", [new StackEdit.Insert(i, new Layer { Technique = Technique.Mask }), new StackEdit.Insert(i + 2, new Layer { Technique = Technique.Unmask })]),
                new Remedy("brush", "Brush it on", [new StackEdit.Replace(i, layer with { Tool = Tool.Brush })]),
            ]);

        bool IsMine(Before edge) => edge.Why == Why.Spray && edge.First == step && edge.FirstOn == here;
    }

    private static string Finished(PieceOrder order, List<Before> late, List<Before> soiled)
    {
        if (late.Count == 0)
            return $"which stands finished already on {(soiled.Max(order.TurnedOn) is > 1 and var pieces ? $"{pieces} pieces" : "a piece")}";

        // Each ends with a spray that the other must not get: one of the two has to be first.
        return late.TrueForAll(e => order.Kept.Any(k => k.Why == Why.Spray && k.First == e.Second && order.Steps[e.First].On.Any(o => o.Zone == k.SecondOn)))
            ? "which is finished by then, since its own last layer is sprayed too and mending that would cost more"
            : "which is finished by then";
    }
}
