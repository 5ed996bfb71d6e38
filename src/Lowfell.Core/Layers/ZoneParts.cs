namespace Lowfell.Core.Layers;

/// <summary>
/// The parts into which the places of a stack's layers divide a zone: dust on the lower third makes two of it, light on the upward faces
/// as well makes four. Places are taken to fall independently of each other.
/// </summary>
internal sealed class ZoneParts
{
    private static readonly Region[] places = [Region.Upward, Region.LowerThird, Region.Edges, Region.Spots, Region.WithinRim, Region.AroundFeet, Region.LeadingEdges, Region.OneInFour, Region.RecessedLine];
    private static readonly ZoneParts whole = new([], [1, 1, 1]);

    private readonly Region[] own;
    private readonly double[] weights;

    private ZoneParts(Region[] own, double[] weights) => (this.own, this.weights) = (own, weights);

    public IReadOnlyList<Region> Places => own;

    public int Count => 1 << own.Length;

    public static ZoneParts Of(Zone zone, IReadOnlyList<Layer> layers)
    {
        var used = 0;
        for (var i = 0; i < layers.Count; i++)
            if (layers[i].Region != Region.All && (layers[i].Paint.Count > 0 || TakingAway.Removes(layers[i].Technique)))
                used |= 1 << (int)layers[i].Region;
        if (used == 0)
            return whole;
        var own = Array.FindAll(places, p => (used & 1 << (int)p) != 0 && Regions.PlaceShare(p, zone) < 1);
        if (own.Length == 0)
            return whole;
        var weights = new double[3 << own.Length];
        for (var part = 0; part < 1 << own.Length; part++)
        {
            var weight = Split.Even(1);
            for (var r = 0; r < own.Length; r++)
            {
                var inside = Regions.Within(own[r]) * Regions.PlaceShare(own[r], zone);
                weight *= (part & 1 << r) != 0 ? inside : Split.Even(1) - inside;
            }

            (weights[part * 3], weights[part * 3 + 1], weights[part * 3 + 2]) = (weight.Raised, weight.Field, weight.Recess);
        }

        return new ZoneParts(own, weights);
    }

    /// <summary>Share of a position that is this part, 0..1.</summary>
    public double Weight(int part, int position) => weights[part * 3 + position];

    /// <summary>Share of each position that is this part.</summary>
    public Split Weights(int part) => new(Weight(part, 0), Weight(part, 1), Weight(part, 2));

    /// <summary>What is laid on a region lies in this part.</summary>
    public bool Lies(int part, Region region) => Array.IndexOf(own, region) is var r && (r < 0 || (part & 1 << r) != 0);

    /// <summary>The places that this part is in.</summary>
    public IReadOnlyList<Region> PlacesOf(int part) => own.Where((_, r) => (part & 1 << r) != 0).ToList();

    /// <summary>Of the parts that a region lies in, the one that takes in most of a position.</summary>
    public int Main(Region region, int position)
    {
        var main = 0;
        var most = -1.0;
        for (var part = 0; part < Count; part++)
            if (Lies(part, region) && Weight(part, position) > most)
                (main, most) = (part, Weight(part, position));
        return main;
    }

    public bool SameAs(ZoneParts other) => ReferenceEquals(this, other) || (own.AsSpan().SequenceEqual(other.own) && weights.AsSpan().SequenceEqual(other.weights));
}
