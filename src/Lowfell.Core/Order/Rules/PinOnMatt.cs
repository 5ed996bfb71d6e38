using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>Matt paint drinks a pin wash sideways. School: house rule "sheen under a pin wash".</summary>
internal sealed class PinOnMatt : LayerRule
{
    public override RuleFacts Facts { get; } = new("pin-on-matt",
        "Pin wash on matt.",
        "Matt paint drinks it sideways and the field is stained.",
        "The house sheen below it.")
    { Schools = [School.PinWashSheen] };

    protected override Finding? At(StackView view, int i)
    {
        if (view.Layers[i].Technique != Technique.PinWash || !view.LeavesFilm(i) || view.SheenBelow(i) != Sheen.Matt)
            return null;
        var house = view.Context.HouseRules.PinWashSheen;
        var remedies = new List<Remedy>();
        if (ShelfPick.Varnish(view.Context.Shelf, house) is { } varnish)
            remedies.Add(new Remedy("house-sheen", $"Put {varnish.Name} below it", [new StackEdit.Insert(i, ShelfPick.VarnishLayer(varnish, 1))]));
        var run = house == Sheen.Gloss ? "runs furthest and cleans up fastest" : "runs well and leaves a little tint";
        return new Finding(Facts.Id, Severity.Caution, [i], "Pin wash on matt",
            $"{view.Layers[i].MaterialName} soaks into a matt surface and stains the field beside the joints. Your house rule is {EnumWords.Of(house)} below a pin wash: it {run}.", remedies);
    }
}
