using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;

namespace Lowfell.Core.Precedence;

/// <summary>What soils what on a piece, and what it costs to mend that or to keep it off.</summary>
internal sealed class Soiling(IReadOnlyList<PieceZone> zones, PieceSteps steps, int pieces, Pace pace)
{
    /// <summary>Spray drifts about this far past an edge, mm.</summary>
    internal const double DriftMm = 8;

    private readonly Dictionary<(Why, int, int, int), Price> prices = [];

    public IEnumerable<Before> Edges()
    {
        for (var on = 0; on < zones.Count; on++)
            if (zones[on].Finish is >= 0 and var finish)
                for (var from = 0; from < zones.Count; from++)
                    for (var i = 0; from != on && i < zones[from].Layers.Count; i++)
                        if (Soils(zones[from], i, zones[on], finish) is { } why && !steps.GoesOver(steps.Of[from][i], on))
                            yield return new Before(steps.Of[from][i], steps.Of[on][finish], why, from, on);
    }

    private static Why? Soils(PieceZone from, int i, PieceZone on, int finish)
    {
        var (layer, last) = (from.Layers[i], on.Layers[finish]);
        if (Reach.Sprays(layer, from, on))
            return Reach.IsMasked(from.Layers, i) || Reach.IsAlike(layer, last) ? null : Why.Spray;
        if (!from.Touching.Contains(on.Id))
            return null;
        if (last.Technique == Technique.Rim)
            return Reach.IsMessy(layer) ? Why.Rim : null;
        return Reach.IsLoose(last) && Reach.Disturbs(layer) ? Why.Loose : null;
    }

    /// <summary>What it costs, over all pieces, to do it the other way round.</summary>
    public Price PriceOf(Before edge)
    {
        var (from, on) = (zones[edge.FirstOn].Zone, zones[edge.SecondOn]);
        var key = (edge.Why, edge.FirstOn, edge.SecondOn, edge.Second);
        if (!prices.TryGetValue(key, out var price))
            prices[key] = price = edge.Why switch
            {
                Why.Spray => Sprayed(from, on),
                Why.Rim => new Price(HandsOn.Batch(on.Layers[on.Finish], on.Zone, pieces, pace)),
                Why.Loose => new Price(HandsOn.Batch(on.Layers[on.Finish], Strip(from, on.Zone), pieces, pace)),
                _ => new Price(double.PositiveInfinity),
            };
        return price;
    }

    /// <summary>What drifts over is repaired along the whole limit, with every paint that lies there; or the limit is masked.</summary>
    private Price Sprayed(Zone sprayed, PieceZone on)
    {
        var strip = Strip(sprayed, on.Zone);
        var repair = on.Layers.Where(l => l.Paint.Count > 0).Sum(l => HandsOn.Batch(l, strip, pieces, pace));
        var along = sprayed with { EdgeMm = strip.EdgeMm };
        return new Price(repair, new[] { Technique.Mask, Technique.Unmask }.Sum(t => HandsOn.Batch(new Layer { Technique = t }, along, pieces, pace)));
    }

    private static Zone Strip(Zone from, Zone on)
    {
        var edgeMm = Math.Min(from.EdgeMm, on.EdgeMm) / 2;
        return on with { AreaCm2 = edgeMm * DriftMm / 100, EdgeMm = edgeMm, JointMm = 0 };
    }
}
