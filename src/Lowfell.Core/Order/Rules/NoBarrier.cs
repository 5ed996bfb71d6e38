using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Order.Rules;

/// <summary>Water acrylic survives a solvent that passes, but not one that stands on it or is rubbed.</summary>
internal sealed class NoBarrier : LayerRule
{
    public override RuleFacts Facts { get; } = new("no-barrier",
        "Solvent weathering that floods unvarnished water acrylic or is rubbed there, alcohol on it, or a solvent on an unvarnished decal.",
        "The paint survives a passing solvent, but not one that stands on it, nor the rubbing.",
        "Two coats of varnish below.")
    {
        Schools = [School.PinWashSheen],
        Limits = [new("a varnish coat that is a barrier", StackView.LeastBarrier, "of a coat")],
    };

    protected override Finding? At(StackView view, int i)
    {
        if (!view.LeavesFilm(i) || SameSolvent.FamilyBelow(view, i) is not null)
            return null;
        if (DecalBelow(view, i) is { } decal)
            return Say(view, i, decal, $"{view.Layers[i].MaterialName} goes straight on layer {decal + 1}, {view.Layers[decal].MaterialName}: its {Solvent(view, i)} softens an unvarnished decal.");
        if (Harm(view, i) is { } harm && Unprotected(view, i) is { } paint)
            return Say(view, i, paint, $"{view.Layers[i].MaterialName} {harm} layer {paint + 1}, {view.Layers[paint].MaterialName}. Without varnish {(Rubbed(view, i) ? "the rubbing takes paint with it" : $"its {Solvent(view, i)} bites into the paint")}.");
        return null;
    }

    private Finding Say(StackView view, int i, int below, string why) =>
        new(Facts.Id, Severity.Caution, [i, below], "No barrier before solvent work", why, SolventWork.Barrier(view, i));

    /// <summary>What it does to bare acrylic, or null where it does no harm: a thin veil that nobody rubs passes over it.</summary>
    private static string? Harm(StackView view, int i)
    {
        var layer = view.Layers[i];
        if (layer.Carrier == Carrier.Alcohol)
            return "is carried by alcohol, straight on";
        if (!layer.Carrier.IsSpiritBorne())
            return null;
        return Rubbed(view, i) ? "will be rubbed with thinner straight on"
            : layer.Technique is Technique.AllOverWash or Technique.Pigment ? "floods, straight on," : null;
    }

    private static bool Rubbed(StackView view, int i) =>
        view.Layers[i].Carrier.IsSpiritBorne() && (view.Layers[i].Technique is Technique.PinWash or Technique.Streak || view.CleanUpOf(i) >= 0);

    private static string Solvent(StackView view, int i) => view.Layers[i].Carrier == Carrier.Alcohol ? "alcohol" : "solvent";

    private static int? Unprotected(StackView view, int i)
    {
        var below = view.FilmBelow(i);
        return below >= 0 && view.BarrierBetween(below - 1, i) < 0 && view.Layers[below].Carrier == Carrier.WaterAcrylic ? below : null;
    }

    private static int? DecalBelow(StackView view, int i)
    {
        if (!view.Layers[i].Carrier.IsSolvent() || view.IsVarnish(i))
            return null;
        for (var j = i - 1; j >= 0 && !view.IsBarrier(j, view.Layers[i].Region); j--)
            if (view.LeavesFilm(j) && view.Layers[j].Technique == Technique.Decal && Regions.Meet(view.Layers[j].Region, view.Layers[i].Region))
                return j;
        return null;
    }
}
