using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>Chipping fluid works through a fresh water-based top coat, for a while.</summary>
internal sealed class ChipWindow : LayerRule
{
    public override RuleFacts Facts { get; } = new("chip-window",
        "Chipping fluid without a water-based top coat, with varnish between, or chipped after its window.",
        "Water must get through the top coat to wake the fluid; sealed or cured it no longer does.",
        "Move the varnish; use a water-based top coat; chip sooner.")
    {
        Schools = [School.HotAirOnWash],
        Limits = [new("top coat over the fluid", Windows.TopCoatClosesMinutes, "min"), new("chipping opens", Windows.ChipOpensMinutes, "min"), new("chipping closes", Windows.ChipClosesMinutes, "min")],
    };

    protected override Finding? At(StackView view, int i) => view.Layers[i].Technique switch
    {
        Technique.ChipThrough => OfChip(view, i),
        Technique.ChippingFluid when view.LeavesFilm(i) => OfFluid(view, i),
        _ => null,
    };

    /// <summary>A chip needs a fluid below it, and water must still get through all that lies between.</summary>
    private Finding? OfChip(StackView view, int i)
    {
        var fluid = TakingAway.FluidOf(view.Layers, i);
        if (fluid < 0)
            return Say(view, i, [i], "Nothing lets it chip", "there is no chipping fluid below it", FluidBelow(view, i));
        var top = view.NextBelow(i, j => j > fluid && view.LeavesFilm(j));
        var seal = view.NextBelow(i, j => j > fluid && view.LeavesFilm(j) && view.Layers[j].Main!.Kind == MaterialKind.Varnish);
        if (seal >= 0 && view.NextBelow(seal, j => j > fluid && view.LeavesFilm(j)) >= 0)
            return Say(view, i, [i, seal], "Varnish over what is to chip", $"layer {seal + 1}, {view.Layers[seal].MaterialName}, seals the top coat: water no longer gets through it", [new("chip-below", $"Chip before layer {seal + 1}", [new StackEdit.Move(i, seal)])]);
        if (top < 0 || view.MinutesAtLeast(top, i) is not { } after)
            return null;
        var chips = Windows.Chipping(view.Context.Climate);
        if (after > chips.ClosesMinutes)
            return Say(view, i, [i, top], "Chipped too late", $"it comes {Duration.Words(after)} after the top coat, which chips from {Duration.Words(chips.OpensMinutes)} to about {Duration.Words(chips.ClosesMinutes)}", Wait(view, i - 1, Math.Floor(chips.ClosesMinutes / 2 / 5) * 5));
        return after < Math.Floor(chips.OpensMinutes)
            ? Say(view, i, [i, top], "Chipped too soon", $"it comes {Duration.Words(after)} after the top coat, which tears before about {Duration.Words(chips.OpensMinutes)}", Wait(view, i - 1, chips.OpensMinutes))
            : null;
    }

    /// <summary>The fluid goes in below the lowest layer that is to break.</summary>
    private static List<Remedy> FluidBelow(StackView view, int i) =>
        view.Context.Shelf.FirstOrDefault(m => m.Kind == MaterialKind.ChippingFluid) is { } fluid && view.NextBelow(i, view.LeavesFilm) is >= 0 and var top
            ? [new("fluid-below", $"Put {fluid.Name} below layer {top + 1}", [new StackEdit.Insert(top, ShelfPick.LayerOf(Technique.ChippingFluid, fluid))])] : [];

    private Finding? OfFluid(StackView view, int i)
    {
        var top = view.NextAbove(i, view.LeavesFilm);
        if (top < 0)
            return Say(view, i, [i], "No top coat to chip", "nothing lies over it; it needs a water-based top coat that chips through it", []);
        var coat = view.Layers[top];
        if (coat.Main!.Kind == MaterialKind.Varnish)
            return Say(view, i, [i, top], "Varnish over the chipping fluid", $"layer {top + 1}, {coat.MaterialName}, seals it in before any top coat: water no longer reaches it", BelowTheVarnish(view, i, top));
        if (coat.Carrier is not (Carrier.WaterAcrylic or Carrier.PVA))
            return Say(view, i, [i, top], "Top coat keeps the water out", $"layer {top + 1}, {coat.MaterialName}, is {EnumWords.Of(coat.Carrier)}: water does not get through it", WaterBorne(view, top));
        var forTop = Windows.TopCoatOverFluid(view.Context.Climate).ClosesMinutes;
        if (view.MinutesAtLeast(i, top) is { } wait && wait > forTop)
            return Say(view, i, [i, top], "Top coat comes too late", $"the top coat follows after {Duration.Words(wait)}; the fluid wakes evenly for about {Duration.Words(forTop)}", Wait(view, top - 1, view.DryingOf(i).RecoatMinutes.Usual));

        // Where the chipping is a layer of its own it answers for itself.
        if (view.NextAbove(i, j => view.Layers[j].Technique == Technique.ChipThrough) >= 0)
            return null;
        var chips = Windows.Chipping(view.Context.Climate);
        if (top + 1 < view.Count && view.MinutesAtLeast(top, top + 1) is { } after && after > chips.ClosesMinutes)
            return Say(view, i, [i, top], "Chipped too late", $"the next step is {Duration.Words(after)} after the top coat; it chips from {Duration.Words(chips.OpensMinutes)} to about {Duration.Words(chips.ClosesMinutes)}", Wait(view, top, Math.Floor(chips.ClosesMinutes / 2 / 5) * 5));
        return null;
    }

    private Finding Say(StackView view, int i, int[] layers, string title, string why, List<Remedy> remedies) =>
        new(Facts.Id, Severity.Caution, layers, title, $"{view.Says(i)}: {why}.", remedies);

    private static List<Remedy> BelowTheVarnish(StackView view, int i, int varnish) =>
        [new("fluid-above", $"Move it above layer {varnish + 1}", [new StackEdit.Move(i, varnish)]), new("no-varnish", $"Leave out layer {varnish + 1}", [new StackEdit.Remove(varnish)])];

    private static List<Remedy> WaterBorne(StackView view, int top) =>
        ShelfPick.WaterBorne(view.Context.Shelf, view.Layers[top]) is not var (instead, other) ? [] :
        [new("water-borne", $"Use {other.Name}, which is water-based", [new StackEdit.Replace(top, instead)])];

    private static List<Remedy> Wait(StackView view, int at, double minutes) =>
        [new("sooner", $"Go on after {Duration.Words(Duration.RoundUp(minutes))}", [new StackEdit.Replace(at, view.Layers[at] with { WaitMinutes = Duration.RoundUp(minutes) })])];
}
