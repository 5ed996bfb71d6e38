using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>All zones of a set should end with the same shine unless they ask for their own.</summary>
internal sealed class SheenTarget : IOrderRule
{
    public RuleFacts Facts { get; } = new("sheen-target",
        "Last sheen differs from the set’s target, or a shiny wash is left without a final coat.",
        "One zone that shines differently gives a set away.",
        "A final coat in the target sheen.");

    public IEnumerable<Finding> Check(StackView view)
    {
        var last = view.LastSheen();
        var target = view.Context.TargetSheen;
        if (last < 0 || view.Layers[last].Main!.Sheen == target)
            yield break;

        // Loose powder stays on top: varnish over it would wash it out.
        var top = view.Count;
        while (top > last + 1 && view.Layers[top - 1].Main?.Kind is MaterialKind.Pigment or MaterialKind.Tuft)
            top--;
        var remedies = new List<Remedy>();
        if (ShelfPick.Varnish(view.Context.Shelf, target) is { } varnish)
            remedies.Add(new Remedy("final-coat", $"Finish with {varnish.Name}", [new StackEdit.Insert(top, ShelfPick.VarnishLayer(varnish, 1))]));
        yield return new Finding(Facts.Id, Severity.Caution, [last], "Ends with another sheen",
            $"{view.Layers[last].MaterialName} leaves this zone {EnumWords.Of(view.Layers[last].Main!.Sheen)}; it should end {EnumWords.Of(target)}.", remedies);
    }
}
