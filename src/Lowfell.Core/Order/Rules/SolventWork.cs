using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Order.Rules;

/// <summary>What the rules about solvent weathering share.</summary>
internal static class SolventWork
{
    /// <summary>Thin or rubbed work with an enamel or oil product: the kind that reaches what lies below.</summary>
    public static bool Applies(StackView view, int i)
    {
        var layer = view.Layers[i];
        return layer.Carrier.IsSpiritBorne()
            && (view.LeavesFilm(i) || layer.Technique == Technique.CleanUpExcess)
            && layer.Technique is Technique.AllOverWash or Technique.PinWash or Technique.Filter or Technique.Glaze
                or Technique.Streak or Technique.CleanUpExcess;
    }

    /// <summary>Two coats of varnish below this layer, in the sheen the house likes under a pin wash, else whatever is on the shelf.</summary>
    public static List<Remedy> Barrier(StackView view, int i)
    {
        var house = view.Context.HouseRules.PinWashSheen;
        var varnish = ShelfPick.Varnish(view.Context.Shelf, house)
            ?? ShelfPick.Varnish(view.Context.Shelf, Sheen.Satin)
            ?? ShelfPick.Varnish(view.Context.Shelf, Sheen.Gloss)
            ?? ShelfPick.Varnish(view.Context.Shelf, Sheen.Matt);
        if (varnish is null)
            return [];
        var at = view.CleanedBy(i).Append(i).Min();
        return [new Remedy("varnish-below", $"Put two coats of {varnish.Name} below layer {at + 1}", [new StackEdit.Insert(at, ShelfPick.VarnishLayer(varnish, 2))])];
    }

    /// <summary>Edits that take a layer out, and with a pin wash its clean-up.</summary>
    public static List<StackEdit> WithCleanUp(StackView view, int i) => [.. WithoutCleanUp(view, i), new StackEdit.Remove(i)];

    /// <summary>Edits that drop the clean-up of a wash that no longer needs its solvent.</summary>
    public static IEnumerable<StackEdit> WithoutCleanUp(StackView view, int wash)
    {
        if (wash + 1 < view.Count && view.CleanedBy(wash + 1).SequenceEqual([wash]))
            yield return new StackEdit.Remove(wash + 1);
    }
}
