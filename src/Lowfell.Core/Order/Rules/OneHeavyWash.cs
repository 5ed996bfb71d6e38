using Lowfell.Core.Layers;
using static System.FormattableString;

namespace Lowfell.Core.Order.Rules;

/// <summary>Two thin washes can be steered where one heavy wash cannot.</summary>
internal sealed class OneHeavyWash : LayerRule
{
    public override RuleFacts Facts { get; } = new("one-heavy-wash",
        "Predicted recess so dark after one wash that two thin passes give more control.",
        "A heavy wash decides everything at once; the second of two thin ones can still be left out.",
        "Two passes at half the strength.")
    {
        OnlyHints = true,
        Schools = [School.DryBrushCleaning],
        Limits = [new("lightness taken out of the recesses", Heavy, "L*")],
    };

    /// <summary>Lightness lost in the recess at one go, CIELAB L.</summary>
    private const double Heavy = 40;

    protected override Finding? At(StackView view, int i)
    {
        var layer = view.Layers[i];
        if (layer.Technique != Technique.AllOverWash || !view.LeavesFilm(i) || layer.Coats > 1)
            return null;
        var drop = view.Predictions.SeenWithin(i, view.Layers[i].Region).Recess.Lab.L - view.Predictions.SeenWithin(i + 1, view.Layers[i].Region).Recess.Lab.L;
        if (drop < Heavy)
            return null;
        return new Finding(Facts.Id, Severity.Hint, [i], "One heavy wash",
            Invariant($"{layer.MaterialName} takes {drop:0} of lightness out of the recesses at one go. Two thin passes end in the same place, and you can stop after the first."),
            [new Remedy("two-passes", "Two passes at half the strength", [new StackEdit.Replace(i, layer with { Coats = 2, Strength = layer.Strength / 2 })])]);
    }
}
