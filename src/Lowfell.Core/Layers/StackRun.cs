using System.Collections;
using Lowfell.Core.Colour;

namespace Lowfell.Core.Layers;

/// <summary>
/// A predicted stack: what is seen below every layer and above the last. What is shown of a layer is worked out when it is asked for. Not
/// for several threads at once.
/// </summary>
public sealed class StackRun : IReadOnlyList<LayerPrediction>
{
    private const int N = Observer.Bands;

    private readonly StackLevels levels;
    private readonly LayerPrediction?[] described;
    private readonly SeenSplit?[] seen;
    private HandRanges? hands;

    internal StackRun(Zone zone, IReadOnlyList<Layer> layers, bool carryOver, StackRun? from)
    {
        (Zone, Layers, CarriesOver) = (zone, layers, carryOver);
        levels = new StackLevels(zone, layers, carryOver, from?.levels);
        described = new LayerPrediction?[layers.Count];
        seen = new SeenSplit?[layers.Count + 1];
        if (levels.Shared is not (> 0 and var shared))
            return;
        Array.Copy(from!.described, described, shared);
        Array.Copy(from.seen, seen, shared + 1);
    }

    public Zone Zone { get; }

    /// <summary>Whether dry-brush steps carry a little of the last colour over.</summary>
    public bool CarriesOver { get; }

    /// <summary>The layers, bottom first.</summary>
    public IReadOnlyList<Layer> Layers { get; }

    public int Count => Layers.Count;

    public LayerPrediction this[int index] => described[index] ??= Describe(index);

    /// <summary>
    /// What is seen below layer <paramref name="level"/>, each position over the whole zone; <see cref="Count"/> stands for the finished surface.
    /// </summary>
    public SeenSplit SeenBelow(int level) => seen[level] ??= Sight.Mean(levels.Level(level), Region.All);

    /// <summary>The same where a region lies.</summary>
    public SeenSplit SeenWithin(int level, Region region) => Parts.Count == 1 ? SeenBelow(level) : Sight.Mean(levels.Level(level), region);

    /// <summary>What is seen below a layer where none of the zone's places lies; the whole where it has none.</summary>
    public SeenSplit SeenBeside(int level) => Parts.Count == 1 ? SeenBelow(level) : LevelSight.See(levels.Below(level, 0));

    /// <summary>What is seen below a layer in each part of the zone, the largest first; the whole where all of it is alike.</summary>
    public IReadOnlyList<PartSeen> PartsBelow(int level)
    {
        var wets = level > 0 && Shine.DarkensWet(Layers[level - 1]);
        PartSeen Of(int part)
        {
            var slot = levels.Below(level, part);
            var dry = LevelSight.See(slot);
            return new(Parts.PlacesOf(part), Zone.Shares.Dot(Parts.Weights(part)), dry, wets && Parts.Lies(part, Layers[level - 1].Region) ? LevelSight.See(slot, Surface.WetFirst) : dry);
        }

        return Enumerable.Range(0, Parts.Count).Select(Of)
            .Where(part => part.Share > 0)
            .OrderByDescending(part => part.Share)
            .Take(MostParts)
            .ToList();
    }

    /// <summary>The places that divide the zone, in the order of <see cref="Region"/>.</summary>
    public IReadOnlyList<Region> Places => Parts.Places;

    /// <summary>As many parts as can be told apart in a picture.</summary>
    public const int MostParts = 4;

    /// <summary>
    /// Internal reflectance, 36 bands, below layer <paramref name="level"/>, in the part that takes in most of a position; of those where
    /// a region lies, if one is given.
    /// </summary>
    public ReadOnlySpan<double> Below(int level, Position position, Region region = Region.All) =>
        levels.Below(level, Parts.Main(region, (int)position)).Slice((int)position * N, N);

    /// <summary>First-surface share of the surface there, 0..1.</summary>
    public double FirstBelow(int level, Position position, Region region = Region.All) => First(level, Parts.Main(region, (int)position), (int)position);

    /// <summary>Where nine hands of ten end below a layer, each position over the whole zone; see <see cref="HandRange"/>.</summary>
    public HandRangeSplit RangeBelow(int level) => (hands ??= new HandRanges(this)).Below(level);

    /// <summary>Film and cover of a layer as it is laid; for what takes away, what it takes (below 0).</summary>
    public Laid LaidBy(int index) => levels.LaidBy(index);

    /// <summary>Film and cover of a layer in the finished stack: what its clean-ups leave of it where a region lies.</summary>
    public Laid LeftBy(int index, Region region = Region.All) =>
        LaidBy(index).Times(TakingAway.LeftOf(Layers, index, Zone, Count, cleaned => Parts.Lies(Parts.Main(region, (int)Position.Field), cleaned)));

    /// <summary>The finished surface with one layer changed, where that layer lies; quicker than another run, since nothing in between is kept.</summary>
    public SeenSplit FinishedWith(int index, Layer changed) => levels.FinishedWith(index, changed, finished => Sight.Mean(finished, changed.Region));

    public IEnumerator<LayerPrediction> GetEnumerator()
    {
        for (var i = 0; i < Count; i++)
            yield return this[i];
    }

    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();

    internal ZoneParts Parts => levels.Parts;

    /// <summary>Reflectance inside the three positions of one part, one after the other.</summary>
    internal ReadOnlySpan<double> Inside(int level, int part) => levels.Below(level, part)[..(3 * N)];

    /// <summary>First-surface share of one position of one part.</summary>
    internal double First(int level, int part, int position) => levels.Below(level, part)[3 * N + position];

    /// <summary>A layer lies in the part that takes in most of a position, of those where a region lies.</summary>
    internal bool LiesWith(Layer layer, Position position, Region region) => Parts.Lies(Parts.Main(region, (int)position), layer.Region);

    /// <summary>The same for any region.</summary>
    internal Func<Region, bool> WhereLies(Region place, Position position)
    {
        var part = Parts.Main(place, (int)position);
        return region => Parts.Lies(part, region);
    }

    /// <inheritdoc cref="StackLevels.LowestLaidAgain"/>
    internal int LowestLaidAgain(int index, int part) => levels.LowestLaidAgain(Layers, index, part);

    private LevelSight Sight => new(Parts);

    private LayerPrediction Describe(int index)
    {
        var layer = Layers[index];
        var level = index + 1;
        var now = SeenBelow(level);
        var laid = LaidBy(index);
        return new LayerPrediction
        {
            Seen = now,
            Average = Sight.Average(levels.Level(level), Zone.Shares),
            Wet = Shine.DarkensWet(layer) ? Sight.Mean(levels.Level(level), Region.All, Surface.WetFirst) : now,
            Change = SeenWithin(index, layer.Region).DifferenceTo(SeenWithin(level, layer.Region)),
            DryFilmUm = laid.MeanUm * ((layer.Main?.SolidsFraction ?? 0) * layer.PaintShare),
            Cover = laid.Covered,
        };
    }
}
