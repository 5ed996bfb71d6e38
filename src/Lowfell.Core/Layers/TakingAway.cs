using Lowfell.Core.Materials;

namespace Lowfell.Core.Layers;

/// <summary>
/// Layers that remove instead of add. A chip breaks through what lies above the chipping fluid, in places, and shows the core below; a rub
/// takes a film off the raised positions. What they may not go below is the layer they name.
/// </summary>
public static class TakingAway
{
    /// <summary>Whether a technique removes: wiping, chipping through, rubbing back.</summary>
    public static bool Removes(Technique technique) => TechniqueTable.For(technique).Laydown is Laydown.Lift or Laydown.Chip or Laydown.Rub;

    /// <summary>
    /// The lowest layer that a chip breaks: the one it names, but never the fluid or what is below it; all above the fluid where it names
    /// none. Its own index where there is nothing to break.
    /// </summary>
    public static int LowestBroken(IReadOnlyList<Layer> layers, int chip)
    {
        var lowest = chip;
        var named = layers[chip].DownTo;
        for (var i = chip - 1; i >= 0; i--)
        {
            if (layers[i].Technique == Technique.ChippingFluid && layers[i].Strength > 0)
                return lowest;
            if (Lies(layers[i]))
                lowest = i;
            if (named is { } id && layers[i].Id == id)
                return lowest;
        }

        // Without a fluid only what is named comes off, and that by force.
        return chip;
    }

    /// <summary>The chipping fluid that a chip relies on, or -1.</summary>
    public static int FluidOf(IReadOnlyList<Layer> layers, int chip)
    {
        for (var i = chip - 1; i >= 0; i--)
            if (layers[i].Technique == Technique.ChippingFluid && layers[i].Strength > 0)
                return i;
        return -1;
    }

    /// <summary>The lowest layer that a rub comes to at any position; its own index where it takes nothing.</summary>
    public static int LowestRubbed(IReadOnlyList<Layer> layers, int rub, Zone zone, Func<Region, bool>? lies = null)
    {
        var lowest = rub;
        Walk(layers, rub, zone, lies, (i, _) => lowest = i);
        return lowest;
    }

    /// <summary>Share of a layer's film that the rubs and wipes in a stack leave at each position.</summary>
    /// <param name="layers">The stack, bottom first.</param>
    /// <param name="index">The layer.</param>
    /// <param name="zone">What it lies on.</param>
    /// <param name="upTo">Only what is done below this index counts.</param>
    /// <param name="lies">Whether what is done to a region is done where one looks; everywhere when left out.</param>
    public static Split LeftOf(IReadOnlyList<Layer> layers, int index, Zone zone, int upTo, Func<Region, bool>? lies = null)
    {
        var left = Lifting.LeftOf(layers, index, zone, upTo, lies);
        for (var rub = index + 1; rub < upTo; rub++)
            if (TechniqueTable.For(layers[rub].Technique).Laydown == Laydown.Rub && lies?.Invoke(layers[rub].Region) != false)
                Walk(layers, rub, zone, lies, (i, kept) =>
                {
                    if (i == index)
                        left *= kept;
                });
        return left;
    }

    /// <summary>Goes down through the films that a rub takes, the highest first, with the share it leaves of each.</summary>
    private static void Walk(IReadOnlyList<Layer> layers, int rub, Zone zone, Func<Region, bool>? lies, Action<int, Split> takes)
    {
        var layer = layers[rub];
        var figures = TechniqueTable.For(layer.Technique, layer.Tool);
        var um = figures.SplitFor(zone.Relief) * (figures.FilmUm.Usual * layer.Strength * layer.Coats) * Regions.Within(layer.Region);
        for (var i = rub - 1; i >= 0 && um.Largest() > 1e-9; i--)
        {
            if (Lies(layers[i]) && lies?.Invoke(layers[i].Region) != false)
            {
                var dry = Laying.Of(layers[i], zone).MeanUm * LeftOf(layers, i, zone, rub, lies) * DryShare(layers[i]);
                var kept = new Split(Kept(dry.Raised, um.Raised), Kept(dry.Field, um.Field), Kept(dry.Recess, um.Recess));
                if (kept != Split.Even(1))
                    takes(i, kept);
                um = new(Math.Max(0, um.Raised - dry.Raised), Math.Max(0, um.Field - dry.Field), Math.Max(0, um.Recess - dry.Recess));
            }

            if (layer.DownTo == layers[i].Id)
                return;
        }
    }

    private static double Kept(double dry, double taken) => dry > 0 && taken > 0 ? Math.Max(0, 1 - taken / dry) : 1;

    /// <summary>Dry film for wet film: solids of the main material in what is not thinner.</summary>
    public static double DryShare(Layer layer) => (layer.Main?.SolidsFraction ?? 0) * layer.PaintShare;

    private static bool Lies(Layer layer) => layer.Paint.Count > 0 && TechniqueTable.For(layer.Technique, layer.Tool).Leaves;
}
