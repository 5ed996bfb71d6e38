using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Order.Rules;

/// <summary>Gates cut after painting leave bare spots that varnish seals in. School: house rule "paint on the frame".</summary>
internal sealed class GatesLeft : LayerRule
{
    public override RuleFacts Facts { get; } = new("gates-left",
        "Painted on the frame, with no trim-and-touch-up before the final varnish.",
        "Where a part is cut from its frame a bare spot is left, and varnish seals it in.",
        "Trim and touch up before the final varnish.")
    { OnlyHints = true, Schools = [School.PaintOnFrame] };

    protected override Finding? At(StackView view, int i)
    {
        var context = view.Context;
        if (context.HouseRules.PaintOnFrame != FrameSchool.OnFrame || !context.LooksForGates || context.Zone.Substrate is not (Substrate.MouldedPlastic or Substrate.Resin)
            || !view.IsVarnish(i) || i != view.Last(view.IsVarnish) || view.NextBelow(i, j => view.Layers[j].Technique == Technique.TrimAndTouchUp) >= 0)
            return null;
        var colour = view.NextBelow(i, j => view.IsFullFilm(j) && view.Layers[j].Main!.Kind == MaterialKind.Paint);
        if (colour < 0)
            return null;
        var touchUp = ShelfPick.LayerOf(Technique.TrimAndTouchUp, view.Layers[colour].Main!) with { Paint = view.Layers[colour].Paint, Dilution = view.Layers[colour].Dilution };
        return new Finding(Facts.Id, Severity.Hint, [i], "Gates are left bare",
            $"Your house rule is to paint on the frame, and layer {i + 1}, {view.Layers[i].MaterialName}, goes on before the gates are trimmed and touched up.",
            [new Remedy("touch-up", $"Trim and touch up with {touchUp.MaterialName} before it", [new StackEdit.Insert(i, touchUp)])]);
    }
}
