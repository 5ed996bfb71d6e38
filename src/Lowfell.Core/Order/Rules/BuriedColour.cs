using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Words;
using static System.FormattableString;

namespace Lowfell.Core.Order.Rules;

/// <summary>A colour of which nothing can be told at the end was paint and minutes for nothing.</summary>
internal sealed class BuriedColour : LayerRule
{
    public override RuleFacts Facts { get; } = new("buried-colour",
        "A colour of which nothing can be told under the later ones at any position, unless it is there to be chipped through.",
        "Paint and minutes for nothing.",
        "Leave it out; leave the layer over it thinner.")
    { OnlyHints = true, Schools = [School.DryBrushCleaning] };

    protected override Finding? At(StackView view, int i)
    {
        if (!IsForColour(view, i) || view.NextAbove(i, j => Hides(view, j, i)) is not (>= 0 and var over) || ShowsLater(view, i, over))
            return null;
        var run = view.Predictions;

        // One that changes nothing where it lies is another remark.
        if (run[i].LargestChange < NoVisibleChange.LeastSeen)
            return null;
        var left = run.SeenWithin(view.Count, view.Layers[i].Region).DifferenceTo(run.FinishedWith(i, view.Layers[i] with { Strength = 0 })).Largest();
        if (left >= NoVisibleChange.LeastSeen)
            return null;
        var minutes = HandsOn.Batch(view.Layers[i], view.Context.Zone, view.Context.Pieces, view.Context.Pace);
        return new Finding(Facts.Id, Severity.Hint, [i, over], "Nothing of this colour is left",
            Invariant($"{view.Layers[i].MaterialName} is buried under layer {over + 1}, {view.Layers[over].MaterialName}: without it the finished zone differs by {left:0.0} at most; about {NoVisibleChange.LeastSeen:0} is the least an eye can tell."),
            [new Remedy("leave-out", $"Leave it out (saves about {Duration.Words(minutes)})", SolventWork.WithCleanUp(view, i))]);
    }

    /// <summary>Primers hold the paint, varnish and texture have other work, and light from above has a rule of its own.</summary>
    private static bool IsForColour(StackView view, int i) =>
        view.LeavesFilm(i) && view.Layers[i].Technique is not (Technique.DirectionalLight or Technique.Rim or Technique.Prime or Technique.SealTexture)
        && view.Layers[i].Main?.Kind is MaterialKind.Paint or MaterialKind.Ink or MaterialKind.Wash or MaterialKind.Filter or MaterialKind.Pigment;

    /// <summary>It is chipped through, a mask keeps part of it, or what lies over it cracks.</summary>
    private static bool ShowsLater(StackView view, int i, int over) =>
        view.NextAbove(i, j => view.Layers[j].Technique is Technique.ChippingFluid || (j < over && view.Layers[j].Technique is Technique.Mask or Technique.CrackleMedium)) >= 0
        || view.NextAbove(i, j => view.LeavesFilm(j) && view.Layers[j].Main!.Kind == MaterialKind.CracklePaste) >= 0;

    private static bool Hides(StackView view, int j, int below) =>
        view.LeavesFilm(j) && view.Figures(j).Laydown == Laydown.Film && view.Layers[j].Main!.IsOpaque && Regions.Covers(view.Layers[j].Region, view.Layers[below].Region);
}
