using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Order.Rules;

/// <summary>A thin wet second pass softens and lifts a thick first one.</summary>
internal sealed class RenderOrder : LayerRule
{
    public override RuleFacts Facts { get; } = new("render-order",
        "Thin wet render over thick render, or a second pass thinner than the first.",
        "The water of the second pass lifts the first; the first should key, the second should be thick.",
        "Swap the passes; lay the second as thick and as dry as the first.")
    { Limits = [new("a pass against the one below", Even, "times")] };

    /// <summary>Thinner than this share of the first pass counts as thin; less is nobody's intent.</summary>
    private const double Even = 0.9;

    protected override Finding? At(StackView view, int i)
    {
        if (!IsRender(view, i) || view.FilmBelow(i) is not (>= 0 and var first) || !IsRender(view, first))
            return null;
        Layer below = view.Layers[first], layer = view.Layers[i];
        var thinner = Film(layer) < Film(below) * Even;
        var wetter = layer.PaintShare < below.PaintShare * Even;
        if (!thinner && !wetter)
            return null;
        var alike = layer with { Strength = Math.Max(layer.Strength, below.Strength), Coats = Math.Max(layer.Coats, below.Coats), Dilution = wetter ? below.Dilution : layer.Dilution };
        return new Finding(Facts.Id, Severity.Caution, [i, first], wetter ? "Wet render over the first pass" : "Second render thinner than the first",
            $"{view.Says(i)}, is {(wetter ? "wetter" : "thinner")} than layer {first + 1} below it. Its water lifts the first pass: a thin pass to key first, then a thick one.",
            [
                new Remedy("swap-passes", $"Swap layers {first + 1} and {i + 1}", [new StackEdit.Move(i, first)]),
                new Remedy("as-thick", $"Lay it as thick as layer {first + 1}", [new StackEdit.Replace(i, alike)]),
            ]);
    }

    private static double Film(Layer layer) => layer.Coats * layer.Strength;

    private static bool IsRender(StackView view, int i) =>
        view.LeavesFilm(i) && (view.Layers[i].Technique == Technique.Render || (view.Layers[i].Main!.Kind == MaterialKind.Filler && view.Layers[i].Technique == Technique.TexturePaste));
}
