using System.Globalization;
using Lowfell.Core.Layers;

namespace Lowfell.Core.Order.Rules;

/// <summary>Light painted underneath only counts while the coats above let it through.</summary>
internal sealed class LightBuried : LayerRule
{
    /// <summary>Share of the light's contrast that must be left.</summary>
    private const double LeastLeft = 0.25;

    public override RuleFacts Facts { get; } = new("light-buried",
        "Pre-shade or light from above left with less than a quarter of its contrast under the coats above.",
        "Painted light only counts while the coats above let it through.",
        "A thin airbrushed coat; leave the light out; lay it later.")
    {
        Schools = [School.DryBrushCleaning],
        Limits = [new("contrast of the light left", LeastLeft, "times")],
    };

    protected override Finding? At(StackView view, int i)
    {
        if (view.Layers[i].Technique != Technique.DirectionalLight || !view.LeavesFilm(i) || i == view.Count - 1)
            return null;
        var left = PreShade.ShareLeft(view.Predictions, i, view.Count);
        return left < LeastLeft && Culprit(view, i) is { } culprit ? Describe(view, i, culprit, left) : null;
    }

    /// <summary>The first whole coat of something that hides.</summary>
    private static int? Culprit(StackView view, int light)
    {
        for (var j = light + 1; j < view.Count; j++)
            if (view.IsFullFilm(j) && view.Layers[j].Main!.IsOpaque)
                return j;
        return null;
    }

    private Finding Describe(StackView view, int i, int culprit, double left)
    {
        var coat = view.Layers[culprit];
        var remedies = new List<Remedy>
        {
            new("thin-coat", $"Lay layer {culprit + 1} as one thin airbrushed coat",
                [new StackEdit.Replace(culprit, coat with { Coats = 1, Tool = Tool.Airbrush, Strength = 0.6 })]),
            new("leave-out", "Leave the light out", [new StackEdit.Remove(i)]),
            new("light-after", $"Lay the light after layer {culprit + 1}", [new StackEdit.Move(i, culprit)]),
        };
        return new Finding(Facts.Id, Severity.Caution, [i, culprit], "The light is buried",
            string.Create(CultureInfo.InvariantCulture, $"{left * 100:0} % of the light's contrast is left under the coats above, less than {LeastLeft * 100:0} %. Layer {culprit + 1}, {coat.MaterialName}, covers most of it."), remedies);
    }
}
