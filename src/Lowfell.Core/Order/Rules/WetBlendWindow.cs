using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>Colours run into each other only while all of them are wet.</summary>
internal sealed class WetBlendWindow : LayerRule
{
    public override RuleFacts Facts { get; } = new("wet-blend",
        "Wet blending of a single colour, under hot air, with something that sets at once, or on more face than can be laid before it sets.",
        "Where the first colour has set the next one leaves an edge.",
        "Dry in air; work in parts that can be laid in time; a second colour.")
    { Limits = [new("colours meet for, at 20 °C and 50 %", MeetsMinutes, "min")] };

    /// <summary>Colours meet while they are wet, minutes: usual.</summary>
    public const double MeetsMinutes = 10;

    protected override Finding? At(StackView view, int i)
    {
        var layer = view.Layers[i];
        if (layer.Technique != Technique.WetBlend || !view.LeavesFilm(i))
            return null;
        if (layer.Paint.Count(p => !p.Material.IsThinner) < 2)
            return Say(view, i, Severity.Hint, "One colour has nothing to blend with", "it has a single colour", [new("base-coat", "Lay it as a base coat", [new StackEdit.Replace(i, layer with { Technique = Technique.BaseCoat })])]);
        if (layer.Drying == DryingMode.HotAir)
            return Say(view, i, Severity.Caution, "Hot air sets it before it blends", "it is to dry under hot air", [new("air", "Dry it in air", [new StackEdit.Replace(i, layer with { Drying = DryingMode.Air })])]);
        if (layer.Carrier is Carrier.SolventAcrylic or Carrier.Alcohol)
            return Say(view, i, Severity.Caution, "Sets too quickly to blend", $"{EnumWords.Of(layer.Carrier)} paint sets in the stroke", []);
        var meets = MeetsMinutes * DryingModel.ClimateFactor(layer.Carrier, view.Context.Climate);
        var zone = view.Context.Zone;
        var minutes = zone.AreaCm2 * Regions.Share(layer.Region, zone) * TechniqueTable.For(layer.Technique, layer.Tool).MinutesPerCm2;
        return minutes > meets && layer.Carrier.IsWaterBorne()
            ? Say(view, i, Severity.Hint, "More than can be laid while it is wet", $"a piece takes about {Duration.Words(minutes)} and the colours meet for about {Duration.Words(meets)} (an estimate): work panel by panel", [])
            : null;
    }

    private Finding Say(StackView view, int i, Severity severity, string title, string why, List<Remedy> remedies) =>
        new(Facts.Id, severity, [i], title, $"{view.Says(i)}: {why}.", remedies);
}
