using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>Nobody cuts in when the recess colour comes first. School: house rule "recess colour".</summary>
internal sealed class CutInCost : LayerRule
{
    public override RuleFacts Facts { get; } = new("cut-in-cost",
        "A recess colour planned after the main colour: minutes saved by moving it before.",
        "Cutting in along every joint costs hours that dragging the main colour over it does not.",
        "Lay it first and drag the main colour over it.")
    { OnlyHints = true, Schools = [School.RecessColour], Limits = [new("cutting in along a centimetre of joint", CutInMinutesPerCm, "min")] };

    /// <summary>Minutes to cut in along a centimetre of joint, as for an edge line.</summary>
    private const double CutInMinutesPerCm = 0.06;

    protected override Finding? At(StackView view, int i)
    {
        var context = view.Context;
        var layer = view.Layers[i];
        if (context.HouseRules.RecessColour != RecessSchool.Before || !view.LeavesFilm(i) || layer.Region != Region.Recess
            || !layer.Main!.IsOpaque || layer.Technique is not (Technique.BaseCoat or Technique.Stipple or Technique.Patch))
            return null;
        var main = view.NextBelow(i, j => view.IsFullFilm(j) && view.Layers[j].Technique == Technique.BaseCoat && view.Layers[j].Main!.IsOpaque);
        if (main < 0)
            return null;
        var cutIn = (context.Zone.JointMm / 10 * CutInMinutesPerCm + HandsOn.PerPiece(layer, context.Zone, context.Pace)) * context.Pieces;
        var first = layer with { Region = Region.All, Technique = Technique.BaseCoat };
        var dragged = view.Layers[main] with { Technique = Technique.Overbrush, Tool = Tool.Brush };
        var instead = HandsOn.PerPiece(first, context.Zone, context.Pace) * context.Pieces + (HandsOn.PerPiece(dragged, context.Zone, context.Pace) - HandsOn.PerPiece(view.Layers[main], context.Zone, context.Pace)) * context.Pieces;
        var saved = cutIn - instead;
        if (saved <= 0)
            return null;
        return new Finding(Facts.Id, Severity.Hint, [i, main], "Cutting in costs more",
            $"{view.Says(i)}, is cut in along {context.Zone.JointMm / 10:0} cm of joints on each piece. Laid before layer {main + 1}, with that dragged over it, it saves about {Duration.Words(saved)} over {(context.Pieces == 1 ? "the piece" : $"{context.Pieces} pieces")} (an estimate).",
            [new Remedy("recess-first", $"Lay it first, drag {view.Layers[main].MaterialName} over it",
                [new StackEdit.Replace(i, first), new StackEdit.Replace(main, dragged), new StackEdit.Move(i, main)])]);
    }
}
