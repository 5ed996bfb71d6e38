using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Order.Rules;

/// <summary>Moving air pushes a wash about, and heats vapour that can burn. School: house rule "hot air on a wash".</summary>
internal sealed class HotAirWash : LayerRule
{
    public override RuleFacts Facts { get; } = new("hot-air-wash",
        "A wash dried with hot air against the house rule; any solvent wash dried with it.",
        "The wash dries in rings where the air has pushed it; solvent vapour can catch fire.",
        "Dry it in still air.", CanStop: true)
    { Schools = [School.HotAirOnWash] };

    protected override Finding? At(StackView view, int i)
    {
        var layer = view.Layers[i];
        if (layer.Drying != DryingMode.HotAir || !view.IsWash(i))
            return null;
        List<Remedy> remedies = [new("still-air", "Dry it in still air", [new StackEdit.Replace(i, layer with { Drying = DryingMode.Air })])];
        if (layer.Carrier.IsSolvent())
            return new Finding(Facts.Id, Severity.Stop, [i], "Hot air on solvent",
                $"{view.Says(i)}, gives off vapour that burns: no hot air and no flame while it is wet. A hair dryer is for water-based coats only. The label wins.", remedies);
        return view.Context.HouseRules.HotAirOnWash == HotAirSchool.Allowed
            ? null
            : new Finding(Facts.Id, Severity.Caution, [i], "Hot air on a wash",
                $"{view.Says(i)}, would be pushed about and dry in rings. Your house rule is still air for washes.", remedies);
    }
}
