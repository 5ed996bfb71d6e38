using Lowfell.Core.Layers;
using static System.FormattableString;

namespace Lowfell.Core.Order.Rules;

/// <summary>Thin rims of texture at the edge of a base chip off in the hand.</summary>
internal sealed class RimMargin : LayerRule
{
    public override RuleFacts Facts { get; } = new("rim-margin",
        "Texture planned up to the rim of a handled base.",
        "Thin texture at the edge chips where fingers take hold.",
        "Keep a margin free.");

    protected override Finding? At(StackView view, int i)
    {
        var zone = view.Context.Zone;
        var layer = view.Layers[i];
        if (zone.Handling == Handling.Display || !view.IsTexture(i) || layer.Region is not (Region.All or Region.Edges or Region.Upward)
            || !(zone.AtRim || view.Last(j => view.Layers[j].Technique == Technique.Rim) >= 0))
            return null;
        return new Finding(Facts.Id, zone.Handling == Handling.HardPlay ? Severity.Caution : Severity.Hint, [i], "Texture up to the rim",
            Invariant($"{layer.MaterialName} runs out to the rim of a base that is handled; thin edges of it chip off. About {Regions.RimMarginMm:0} mm left free is enough."),
            [new Remedy("margin", Invariant($"Leave {Regions.RimMarginMm:0} mm free along the rim"), [new StackEdit.Replace(i, layer with { Region = Region.WithinRim })])]);
    }
}
