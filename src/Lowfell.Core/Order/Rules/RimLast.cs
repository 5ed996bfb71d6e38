using Lowfell.Core.Layers;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>The rim is painted when nothing soils it any more.</summary>
internal sealed class RimLast : LayerRule
{
    public override RuleFacts Facts { get; } = new("rim-last",
        "Rim before layers that soil it.",
        "Washes, dust and drybrush land on the clean rim and it is painted again.",
        "Paint the rim last.")
    { OnlyHints = true };

    protected override Finding? At(StackView view, int i)
    {
        if (view.Layers[i].Technique != Technique.Rim || !view.LeavesFilm(i) || view.NextAbove(i, j => view.Layers[j].Technique == Technique.Rim) >= 0)
            return null;
        var soils = view.Last(j => j > i && Soils(view, j));
        if (soils < 0)
            return null;
        return new Finding(Facts.Id, Severity.Hint, [i, soils], "Rim gets soiled",
            $"{view.Says(i)}, is clean before layer {soils + 1}, {EnumWords.Of(view.Layers[soils].Technique)}, soils it again.",
            [new Remedy("rim-last", $"Paint it after layer {soils + 1}", [new StackEdit.Move(i, soils)])]);
    }

    private static bool Soils(StackView view, int j) =>
        view.LeavesFilm(j) && view.Layers[j].Technique is Technique.AllOverWash or Technique.DryBrush or Technique.Overbrush or Technique.Dust or Technique.Pigment
            or Technique.Speckle or Technique.Sponge or Technique.TexturePaste or Technique.GlueAndScatter or Technique.CracklePaste or Technique.DirectionalLight;
}
