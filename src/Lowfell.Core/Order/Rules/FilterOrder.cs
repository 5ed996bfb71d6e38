using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Order.Rules;

/// <summary>A filter belongs below the pin wash: it would dull the joints it comes after.</summary>
internal sealed class FilterOrder : LayerRule
{
    public override RuleFacts Facts { get; } = new("filter-order",
        "Filter after the pin wash over the same zone, or with no barrier between them.",
        "It veils the lines the pin wash has just drawn, and its thinner may move them.",
        "Move the filter below the pin wash.")
    { Schools = [School.PinWashSheen] };

    protected override Finding? At(StackView view, int i)
    {
        if (!view.LeavesFilm(i) || view.Layers[i].Technique is not (Technique.Filter or Technique.Glaze) || view.Layers[i].Region != Region.All)
            return null;
        var pin = view.NextBelow(i, j => view.LeavesFilm(j) && view.Layers[j].Technique == Technique.PinWash);

        // Colour laid in between makes it another round of work.
        if (pin < 0 || view.NextBelow(i, j => j > pin && view.LeavesFilm(j) && !view.IsVarnish(j)) >= 0)
            return null;
        var bare = view.BarrierBetween(pin, i) < 0;
        return new Finding(Facts.Id, bare ? Severity.Caution : Severity.Hint, [i, pin], "Filter after the pin wash",
            $"{view.Says(i)}, veils the joints that layer {pin + 1} has drawn{(bare ? ", and nothing between them keeps its thinner off the wash" : "")}. The filter comes first.",
            Remedies(view, i, pin));
    }

    private static List<Remedy> Remedies(StackView view, int i, int pin)
    {
        var remedies = new List<Remedy> { new("filter-first", $"Move it below layer {pin + 1}", [new StackEdit.Move(i, pin)]) };
        if (view.Layers[i].Carrier.IsSpiritBorne() && ShelfPick.VarnishOrNear(view.Context.Shelf, view.Context.HouseRules.PinWashSheen) is { } varnish)
            remedies.Add(new Remedy("filter-first-sealed", $"Move it below layer {pin + 1}, with two coats of {varnish.Name} between",
                [new StackEdit.Move(i, pin), new StackEdit.Insert(pin + 1, ShelfPick.VarnishLayer(varnish, 2))]));
        return remedies;
    }
}
