using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using static System.FormattableString;

namespace Lowfell.Core.Order.Rules;

/// <summary>Opaque pale highlights over a lit colour take its chroma: red turns pink.</summary>
internal sealed class ModulationOverLight : LayerRule
{
    public override RuleFacts Facts { get; } = new("modulation-over-light",
        "Opaque highlights over a pre-shaded zone: predicted loss of chroma.",
        "Pale opaque paint greys the hue that light underneath had made lively.",
        "A transparent coat of the base hue over it.")
    {
        Schools = [School.DryBrushCleaning],
        Limits = [new("chroma worth keeping", Lively, "C*"), new("chroma lost, for a hint", Hint, "times"), new("chroma lost, for a caution", Caution, "times")],
    };

    /// <summary>Chroma of a base worth keeping; what may be lost of it before a hint, and before a caution, as shares.</summary>
    private const double Lively = 15, Hint = 0.2, Caution = 0.4;

    protected override Finding? At(StackView view, int i)
    {
        if (!view.LeavesFilm(i) || !IsHighlight(view.Layers[i]))
            return null;
        var light = view.NextBelow(i, j => view.LeavesFilm(j) && view.Layers[j].Technique == Technique.DirectionalLight);
        var hue = light < 0 ? -1 : view.NextBelow(i, j => j > light && view.IsFullFilm(j) && view.Layers[j].Main!.Kind is MaterialKind.Paint or MaterialKind.Ink);
        if (hue < 0 || view.NextAbove(i, j => view.LeavesFilm(j) && view.Layers[j].Technique is Technique.Filter or Technique.Glaze) >= 0)
            return null;
        var before = view.Predictions.SeenWithin(i, view.Layers[i].Region).Raised.Lab;
        var after = view.Predictions.SeenWithin(i + 1, view.Layers[i].Region).Raised.Lab;
        var lost = 1 - Chroma(after) / Chroma(before);
        return Chroma(before) < Lively || lost < Hint || after.L <= before.L ? null : Describe(view, i, light, hue, lost);
    }

    private static bool IsHighlight(Layer layer) =>
        layer.Main!.IsOpaque && layer.Technique is Technique.DryBrush or Technique.Overbrush or Technique.Sponge or Technique.Stipple or Technique.DirectionalLight;

    private static double Chroma(Lab lab) => Math.Sqrt(lab.A * lab.A + lab.B * lab.B);

    private Finding Describe(StackView view, int i, int light, int hue, double lost)
    {
        var ground = view.Layers[hue];
        var glaze = ground with { Id = Guid.Empty, Technique = Technique.Glaze, Coats = 1, Strength = 1, Tool = Tool.Brush, WaitMinutes = null };
        return new Finding(Facts.Id, lost >= Caution ? Severity.Caution : Severity.Hint, [i, light], "Highlights grey the hue",
            Invariant($"{view.Layers[i].MaterialName} over the lit {ground.MaterialName} costs {lost * 100:0} % of its chroma on the raised parts: it turns chalky instead of bright."),
            [new Remedy("glaze", $"Glaze with {ground.MaterialName} over it", [new StackEdit.Insert(i + 1, glaze)])]);
    }
}
