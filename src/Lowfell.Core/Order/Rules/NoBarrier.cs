using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Order.Rules;

/// <summary>Water acrylic survives a solvent wash, but not the rubbing that cleans it up.</summary>
internal sealed class NoBarrier : IOrderRule
{
    public RuleFacts Facts { get; } = new("no-barrier",
        "Solvent weathering straight on unvarnished water acrylic where clean-up will rub it.",
        "The paint survives the wash, but not the rubbing.",
        "Two coats of varnish below.")
    { Schools = [School.PinWashSheen] };

    public IEnumerable<Finding> Check(StackView view)
    {
        for (var i = 0; i < view.Count; i++)
        {
            if (!SolventWork.Applies(view, i) || view.Layers[i].Technique is not (Technique.PinWash or Technique.Streak))
                continue;
            if (SameSolvent.FamilyBelow(view, i) is not null || Unprotected(view, i) is not { } paint)
                continue;
            yield return new Finding(Facts.Id, Severity.Caution, [i, paint], "No barrier before solvent work",
                $"{view.Layers[i].MaterialName} will be rubbed with thinner straight on layer {paint + 1}, {view.Layers[paint].MaterialName}. Without varnish the rubbing takes paint with it.",
                SolventWork.Barrier(view, i));
        }
    }

    private static int? Unprotected(StackView view, int i)
    {
        var below = view.FilmBelow(i);
        return below >= 0 && view.BarrierBetween(below - 1, i) < 0 && view.Layers[below].Carrier == Carrier.WaterAcrylic ? below : null;
    }
}
