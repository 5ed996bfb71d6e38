using System.Globalization;
using Lowfell.Core.Colour;
using Lowfell.Core.Layers;

namespace Lowfell.Core.Order.Rules;

/// <summary>Light painted underneath only counts while the coats above let it through.</summary>
internal sealed class LightBuried : IOrderRule
{
    /// <summary>Share of the light's contrast that must be left.</summary>
    private const double LeastLeft = 0.25;

    public string Id => "light-buried";
    public string Summary => "Pre-shade or light from above left with less than a quarter of its contrast under the coats above.";
    public bool CanStop => false;

    public IEnumerable<Finding> Check(StackView view) => Enumerable.Range(0, view.Count).Select(i => At(view, i)).OfType<Finding>();

    public bool SpeaksOf(StackView view, Guid layer) => view.IndexOf(layer) is var i and >= 0 && At(view, i) is not null;

    private Finding? At(StackView view, int i)
    {
        if (view.Layers[i].Technique != Technique.DirectionalLight || !view.LeavesFilm(i) || i == view.Count - 1)
            return null;
        var left = ShareLeft(view, i);
        return left < LeastLeft && Culprit(view, i) is { } culprit ? Describe(view, i, culprit, left) : null;
    }

    /// <summary>Difference the light makes on the finished zone against the difference it made when fresh, 0..1.</summary>
    internal static double ShareLeft(StackView view, int light)
    {
        var without = StackPrediction.Compute(view.Context.Zone, view.Layers.Select((l, k) => k == light ? l with { Strength = 0 } : l).ToList());
        double Difference(int layer) => Enum.GetValues<Position>()
            .Max(p => ColourDifference.Ciede2000(view.Predictions[layer].At(p).Lab, without[layer].At(p).Lab));
        var fresh = Difference(light);
        return fresh < 0.5 ? 1 : Math.Min(1, Difference(view.Count - 1) / fresh);
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
        return new Finding(Id, Severity.Caution, [i, culprit], "The light is buried",
            string.Create(CultureInfo.InvariantCulture, $"{left * 100:0} % of the light's contrast is left under the coats above, less than {LeastLeft * 100:0} %. Layer {culprit + 1}, {coat.MaterialName}, covers most of it."), remedies);
    }
}
