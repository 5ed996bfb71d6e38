using Lowfell.Core.Layers;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>A barrier only keeps solvents off while it is whole.</summary>
internal sealed class BuriedBarrier : LayerRule
{
    public override RuleFacts Facts { get; } = new("buried-barrier",
        "A barrier rubbed, chipped or sanded through before the layer that relies on it.",
        "The solvent gets through the holes and lifts what is below.",
        "Two fresh coats of varnish below the layer.")
    {
        Schools = [School.PinWashSheen],
        Limits = [new("a barrier left on raised parts", HoledBelow, "times")],
    };

    protected override Finding? At(StackView view, int i)
    {
        if (!SolventWork.Applies(view, i) || view.CleanedBy(i).Any())
            return null;
        var barrier = view.NextBelow(i, j => view.IsBarrier(j, view.Layers[i].Region));
        var hole = barrier < 0 ? -1 : view.NextBelow(i, j => j > barrier && CutsThrough(view, j, barrier));
        if (hole < 0)
            return null;
        return new Finding(Facts.Id, Severity.Caution, [i, hole, barrier], "The barrier has holes",
            $"{view.Layers[i].MaterialName} relies on layer {barrier + 1}, {view.Layers[barrier].MaterialName}, but layer {hole + 1}, {EnumWords.Of(view.Layers[hole].Technique)}, goes through it first.",
            SolventWork.Barrier(view, i));
    }

    /// <summary>Chipping and rubbing as deep as the barrier, scratching down without paint, and trimming with a blade or file.</summary>
    private static bool CutsThrough(StackView view, int j, int barrier) => view.Layers[j].Technique switch
    {
        Technique.ChipThrough => TakingAway.LowestBroken(view.Layers, j) <= barrier,
        Technique.RubBack => TakingAway.LeftOf(view.Layers, barrier, view.Context.Zone, j + 1).Raised < HoledBelow,
        Technique.TrimAndTouchUp => true,
        Technique.Scratch => view.Layers[j].Paint.Count == 0,
        _ => false,
    };

    /// <summary>A film rubbed down to less than this of itself has holes somewhere.</summary>
    private const double HoledBelow = 0.5;
}
