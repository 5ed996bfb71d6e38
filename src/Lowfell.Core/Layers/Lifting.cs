using Lowfell.Core.Materials;

namespace Lowfell.Core.Layers;

/// <summary>
/// What a clean-up takes back: part of the layers just below it that a damp swab still moves (washes, pin washes, filters, streaks,
/// speckles, oil), most from edges and faces and least from joints.
/// </summary>
public static class Lifting
{
    /// <summary>
    /// Minutes at 20 C and 50 % for which an enamel or oil wash still moves: it keeps best on smooth ground. Rules of thumb; the label wins.
    /// </summary>
    public const double MovesOnSmoothMinutes = 240, MovesOnLightMinutes = 120, MovesOnDeepMinutes = 90;

    /// <summary>Water-borne washes can be moved for so long only, minutes.</summary>
    public const double WaterMovesMinutes = 5;

    /// <summary>Thin oil stays workable for a day, minutes.</summary>
    public const double OilMovesMinutes = 24 * 60;

    /// <summary>After this it comes off with hard rubbing only, minutes; and hard rubbing takes so much of what a wipe in time would take.</summary>
    public const double SetMinutes = 24 * 60, RubbedShare = 0.2;

    // Share that one wipe leaves of a flood or a veil: a swab reaches faces and edges, a joint keeps what it holds.
    private static readonly Split smooth = new(0.10, 0.15, 0.6), light = new(0.10, 0.20, 0.75), deep = new(0.15, 0.25, 0.85);

    /// <summary>A layer that can be moved again for a while after it is laid.</summary>
    public static bool IsWorkable(Layer layer) =>
        Lies(layer)
        && (layer.Technique is Technique.AllOverWash or Technique.PinWash or Technique.Filter or Technique.Glaze or Technique.Streak or Technique.Speckle
            || layer.Main is { Carrier: Carrier.Oil });

    /// <summary>
    /// The lowest layer that a clean-up still reaches; its own index where it finds nothing to clean. The nearest workable layer is always
    /// reached; one below that only while, by the waits that are planned, it moves as well.
    /// </summary>
    public static int LowestReached(IReadOnlyList<Layer> layers, int cleanUp, Relief relief)
    {
        var lowest = cleanUp;
        double? minutes = 0;
        Carrier? family = null;
        for (var i = cleanUp - 1; i >= 0; i--)
        {
            var layer = layers[i];

            // Before the clean-up, and after work that leaves nothing, an open wait is next to none; between two washes it is until the lower is dry.
            minutes += layer.WaitMinutes ?? (family is null || !Lies(layer) ? 0 : null);
            if (!Lies(layer))
                continue;
            if (!IsWorkable(layer))
                break;
            if (family is { } nearest && (!SameFamily(nearest, layer.Carrier) || minutes is not { } since || since > MovesMinutes(layer, relief)))
                break;
            (lowest, family) = (i, layer.Carrier);
        }

        return lowest;
    }

    /// <summary>The work is a clean-up that one layer alone has made necessary.</summary>
    public static bool CleansOnly(IReadOnlyList<Layer> layers, int cleanUp, int layer, Relief relief)
    {
        if (TechniqueTable.For(layers[cleanUp].Technique).Laydown != Laydown.Lift || LowestReached(layers, cleanUp, relief) != layer)
            return false;
        for (var i = layer + 1; i < cleanUp; i++)
            if (Lies(layers[i]))
                return false;
        return true;
    }

    /// <summary>Share of a layer's film that clean-ups in a stack leave at each position.</summary>
    /// <param name="layers">The stack, bottom first.</param>
    /// <param name="index">The layer.</param>
    /// <param name="zone">What it lies on.</param>
    /// <param name="upTo">Only clean-ups below this index count.</param>
    /// <param name="lies">Whether what is done to a region is done where one looks; everywhere when left out.</param>
    public static Split LeftOf(IReadOnlyList<Layer> layers, int index, Zone zone, int upTo, Func<Region, bool>? lies = null)
    {
        var left = Split.Even(1);
        if (!IsWorkable(layers[index]))
            return left;
        for (var i = index + 1; i < upTo; i++)
        {
            if (TechniqueTable.For(layers[i].Technique).Laydown == Laydown.Lift)
            {
                if (LowestReached(layers, i, zone.Relief) <= index && lies?.Invoke(layers[i].Region) != false)
                    left *= After(layers, index, i, zone);
            }
            else if (Lies(layers[i]) && !IsWorkable(layers[i]))
            {
                break;
            }
        }

        return left;
    }

    /// <summary>The excess of an enamel filter lifts so long, minutes.</summary>
    public const double FilterMovesMinutes = 20;

    /// <summary>Minutes for which a layer moves at 20 C and 50 %.</summary>
    public static double MovesMinutes(Layer layer, Relief relief) =>
        layer.Technique == Technique.Filter && layer.Carrier == Carrier.Enamel ? FilterMovesMinutes : MovesMinutes(layer.Carrier, relief);

    /// <summary>Minutes for which a wash of a carrier moves at 20 C and 50 %.</summary>
    public static double MovesMinutes(Carrier carrier, Relief relief) => carrier switch
    {
        Carrier.Oil => OilMovesMinutes,
        Carrier.Enamel => relief switch { Relief.Smooth => MovesOnSmoothMinutes, Relief.Light => MovesOnLightMinutes, _ => MovesOnDeepMinutes },
        _ => WaterMovesMinutes,
    };

    /// <summary>What one clean-up leaves of one layer that it reaches.</summary>
    private static Split After(IReadOnlyList<Layer> layers, int index, int cleanUp, Zone zone)
    {
        var layer = layers[index];
        var once = TechniqueTable.For(layer.Technique, layer.Tool).Laydown == Laydown.Bead
            ? Laying.BeadKept(zone)
            : zone.Relief switch { Relief.Smooth => smooth, Relief.Light => light, _ => deep };
        var wipe = layers[cleanUp];
        var force = Math.Min(1, wipe.Strength) * StillMoves(layers, index, cleanUp, zone.Relief);
        var within = Regions.Within(wipe.Region);
        double Kept(double kept, double reached) => Math.Pow(1 - force * reached * (1 - kept), wipe.Coats);
        return new(Kept(once.Raised, within.Raised), Kept(once.Field, within.Field), Kept(once.Recess, within.Recess));
    }

    /// <summary>All of it inside its window, then less and less; a wait left open is as short as it must be.</summary>
    private static double StillMoves(IReadOnlyList<Layer> layers, int index, int cleanUp, Relief relief)
    {
        var minutes = 0.0;
        for (var i = index; i < cleanUp; i++)
            minutes += layers[i].WaitMinutes ?? 0;
        var moves = MovesMinutes(layers[index], relief);
        if (minutes <= moves || !layers[index].Carrier.IsSpiritBorne())
            return 1;
        var gone = moves >= SetMinutes ? 1 : Math.Min(1, (minutes - moves) / (SetMinutes - moves));
        return 1 - gone * (1 - RubbedShare);
    }

    /// <summary>It has its place in the stack, even where it is asked what the stack would be with nothing of it.</summary>
    private static bool Lies(Layer layer) =>
        layer.Paint.Count > 0 && TechniqueTable.For(layer.Technique, layer.Tool).Leaves;

    private static bool SameFamily(Carrier a, Carrier b) => a.IsSpiritBorne() ? b.IsSpiritBorne() : a == b;
}
