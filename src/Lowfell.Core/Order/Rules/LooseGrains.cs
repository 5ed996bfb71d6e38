using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>Grains that are not held yet come off in the brush. School: house rule "sand on a base".</summary>
internal sealed class LooseGrains : LayerRule
{
    public override RuleFacts Facts { get; } = new("loose-grains",
        "Scattered grains get paint with no brushing-off, sealing or dry wait.",
        "Loose grains come off in the brush and end up in the paint.",
        "Seal the grains thinly; wait for the glue.")
    {
        Schools = [School.SandGlue],
        Limits = [new("PVA under sand, at 20 °C and 50 %", PvaMinutes, "min"), new("instant glue under sand", InstantMinutes, "min")],
    };

    /// <summary>Minutes at 20 C and 50 % until sand may be painted: a generous bed of PVA, and instant glue.</summary>
    private const double PvaMinutes = 240, InstantMinutes = 5;

    protected override Finding? At(StackView view, int i)
    {
        var layer = view.Layers[i];
        if (layer.Technique != Technique.GlueAndScatter || !view.LeavesFilm(i) || view.NextAbove(i, view.LeavesFilm) is not (>= 0 and var next))
            return null;
        var pva = layer.Paint.Any(p => p.Material.Carrier == Carrier.PVA)
            || (layer.Paint.All(p => p.Material.Carrier != Carrier.Cyanoacrylate) && view.Context.HouseRules.SandGlue == SandSchool.PVA);
        var wait = Duration.RoundUp(pva ? PvaMinutes * DryingModel.ClimateFactor(Carrier.PVA, view.Context.Climate) : InstantMinutes);
        double? soon = view.PlannedMinutes(i, next) is { } planned && planned < wait ? planned : null;
        var dragged = pva && Drags(view, next);
        return soon is null && !dragged ? null : Describe(view, i, next, pva ? "PVA under sand" : "Instant glue", soon, wait, dragged);
    }

    private Finding Describe(StackView view, int i, int next, string glue, double? soon, double wait, bool dragged)
    {
        var layer = view.Layers[i];
        var edits = new List<StackEdit>();
        var todo = new List<string>();
        if (soon is not null)
        {
            edits.Add(new StackEdit.Replace(i, layer with { WaitMinutes = wait }));
            todo.Add($"wait {Duration.Words(wait)}");
        }

        if (dragged && ShelfPick.Sealer(view.Context.Shelf) is { } sealer)
        {
            edits.Add(new StackEdit.Insert(i + 1, ShelfPick.LayerOf(Technique.SealTexture, sealer)));
            todo.Add($"seal thinly with {sealer.Name}");
        }

        var why = soon is { } minutes
            ? $"Layer {next + 1} goes on {Duration.Words(minutes)} after {layer.MaterialName}. {glue} wants about {Duration.Words(wait)} in this room, then brush off what is loose."
            : $"{view.Says(next)}, is brushed straight over {layer.MaterialName}. PVA alone lets grains go under a brush: brush off what is loose and seal thinly first.";
        var text = string.Join(", ", todo);
        return new Finding(Facts.Id, Severity.Caution, [i, next], soon is null ? "Grains are only glued" : "The glue is still soft", why,
            todo.Count == 0 ? [] : [new Remedy(dragged ? "seal-grains" : "wait", char.ToUpperInvariant(text[0]) + text[1..], edits)]);
    }

    /// <summary>Anything brushed on; what is sprayed or trickled on holds the grains instead of dragging them.</summary>
    private static bool Drags(StackView view, int i) =>
        view.Layers[i].Tool == Tool.Brush && view.Layers[i].Technique is Technique.Prime or Technique.BaseCoat or Technique.Overbrush or Technique.DryBrush or Technique.Stipple;
}
