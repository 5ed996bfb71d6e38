using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Order.Rules;

/// <summary>A decal wants gloss below it and a coat over it.</summary>
internal sealed class DecalBed : LayerRule
{
    public override RuleFacts Facts { get; } = new("decal-bed",
        "Decal on matt, or not sealed.",
        "Air caught on a matt surface shows as silver; an unsealed edge lifts.",
        "Gloss varnish below it; a coat over it.");

    protected override Finding? At(StackView view, int i)
    {
        if (view.Layers[i].Technique != Technique.Decal || view.Layers[i].Paint.Count == 0)
            return null;
        var matt = view.SheenBelow(i) == Sheen.Matt;
        var open = view.NextAbove(i, view.IsVarnish) < 0;
        if (!matt && !open)
            return null;
        var edits = new List<StackEdit>();
        var todo = new List<string>();
        if (open && ShelfPick.VarnishOrNear(view.Context.Shelf, view.Context.TargetSheen) is { } over)
        {
            edits.Add(new StackEdit.Insert(i + 1, ShelfPick.VarnishLayer(over, 1)));
            todo.Add($"{over.Name} over it");
        }

        if (matt && ShelfPick.Varnish(view.Context.Shelf, Sheen.Gloss) is { } below)
        {
            edits.Add(new StackEdit.Insert(i, ShelfPick.VarnishLayer(below, 1)));
            todo.Insert(0, $"{below.Name} below it");
        }

        var why = matt ? "sits on a matt surface: air caught below the film shows as silver" : "has nothing over it: its edges lift and shine";
        return new Finding(Facts.Id, Severity.Caution, [i], matt ? "Decal on matt" : "Decal is not sealed",
            $"{view.Says(i)}, {why}{(matt && open ? ", and nothing seals it" : "")}.",
            edits.Count == 0 ? [] : [new Remedy("bed", $"Put {string.Join(" and ", todo)}", edits)]);
    }
}
