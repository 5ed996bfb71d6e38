using System.Globalization;
using Lowfell.Core.Layers;

namespace Lowfell.Core.Order.Rules;

/// <summary>A wash needs relief to run into; on large smooth faces it pools and dries in rings.</summary>
internal sealed class WashOnFlat : LayerRule
{
    /// <summary>Smooth area, cm2, up to which a wash is fine, and from which it is asking for trouble.</summary>
    private const double FineCm2 = 4, CautionCm2 = 6;

    public override RuleFacts Facts { get; } = new("wash-on-flat",
        "All-over wash on a smooth zone larger than a limit.",
        "It pools, drips to the bottom edge and leaves tide marks.",
        "A filter; a pin wash along the joints; a stippled wash.")
    { Limits = [new("a smooth face", FineCm2, "cm²"), new("a smooth face, for a caution", CautionCm2, "cm²")] };

    protected override Finding? At(StackView view, int i)
    {
        var (zone, layer) = (view.Context.Zone, view.Layers[i]);
        if (zone.Relief != Relief.Smooth || layer.Technique != Technique.AllOverWash || !view.LeavesFilm(i))
            return null;
        var area = zone.AreaCm2 * Regions.Share(layer.Region, zone);
        if (area < FineCm2)
            return null;
        var remedies = new List<Remedy>
        {
            new("as-filter", "Lay it as a thin filter instead", [new StackEdit.Replace(i, layer with { Technique = Technique.Filter, Strength = 1 })]),
        };
        if (zone.JointMm > 0)
            remedies.Add(new Remedy("as-pin-wash", "Run it along the joints only", [new StackEdit.Replace(i, layer with { Technique = Technique.PinWash })]));
        remedies.Add(new Remedy("stippled", "Stipple it on in broken patches", [new StackEdit.Replace(i, layer with { Technique = Technique.Stipple })]));
        return new Finding(Facts.Id, area >= CautionCm2 ? Severity.Caution : Severity.Hint, [i], "Wash on a smooth face",
            string.Create(CultureInfo.InvariantCulture, $"{area:0} cm² without relief: {layer.MaterialName} pools, drips to the bottom edge and leaves tide marks. About {FineCm2:0} cm² is as much as holds."), remedies);
    }
}
