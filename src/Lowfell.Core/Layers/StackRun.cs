using System.Buffers;
using System.Collections;
using Lowfell.Core.Colour;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Layers;

/// <summary>
/// A predicted stack. Keeps the reflectance and shine of the three positions below every layer and above the last, for each part into
/// which the places of its layers divide the zone; what is shown of a layer is worked out when it is asked for. Not for several threads
/// at once.
/// </summary>
public sealed class StackRun : IReadOnlyList<LayerPrediction>
{
    private const int N = Observer.Bands;

    /// <summary>Values of one part at one level: three positions of N bands, then the first-surface share of each.</summary>
    private const int Slot = 3 * N + 3;

    // Worked out from the bottom as far as anyone has asked.
    private int worked;
    private HandRanges? hands;
    private readonly double[] levels;
    private readonly ZoneParts parts;
    private readonly Laid[] laid;
    private readonly LayerPrediction?[] described;
    private readonly SeenSplit?[] seen;

    internal StackRun(Zone zone, IReadOnlyList<Layer> layers, bool carryOver, StackRun? from)
    {
        (Zone, Layers, CarriesOver) = (zone, layers, carryOver);
        parts = ZoneParts.Of(zone, layers);
        levels = GC.AllocateUninitializedArray<double>((layers.Count + 1) * Level);
        laid = new Laid[layers.Count];
        described = new LayerPrediction?[layers.Count];
        seen = new SeenSplit?[layers.Count + 1];
        var shared = from is not null && ReferenceEquals(from.Zone, zone) && from.CarriesOver == carryOver && from.parts.SameAs(parts) ? from.Take(this) : 0;
        if (shared == 0)
        {
            var ground = SubstrateTraits.Inside(zone.Substrate);
            for (var part = 0; part < parts.Count; part++)
            {
                for (var p = 0; p < 3; p++)
                    ground.Bands.CopyTo(levels.AsSpan(part * Slot + p * N));
                levels.AsSpan(part * Slot + 3 * N, 3).Fill(Surface.UnstatedFirst);
            }
        }

        worked = shared;
    }

    /// <summary>Values of one level: every part of the zone.</summary>
    private int Level => parts.Count * Slot;

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
    public SeenSplit SeenBelow(int level) => seen[level] ??= Mean(level, Region.All);

    /// <summary>The same where a region lies.</summary>
    public SeenSplit SeenWithin(int level, Region region) => parts.Count == 1 ? SeenBelow(level) : Mean(level, region);

    /// <summary>The same where it does not lie; the whole where it lies everywhere.</summary>
    public SeenSplit SeenOutside(int level, Region region) => parts.Places.Contains(region) ? Mean(level, region, outside: true) : SeenBelow(level);

    /// <summary>What is seen below a layer in each part of the zone, the largest first; the whole where all of it is alike.</summary>
    public IReadOnlyList<PartSeen> PartsBelow(int level)
    {
        WorkUpTo(level);
        var wets = level > 0 && Shine.DarkensWet(Layers[level - 1]);
        PartSeen Of(int part)
        {
            var slot = levels.AsSpan(level * Level + part * Slot, Slot);
            var dry = See(slot);
            return new(parts.PlacesOf(part), Zone.Shares.Dot(parts.Weights(part)), dry, wets && parts.Lies(part, Layers[level - 1].Region) ? See(slot, Surface.WetFirst) : dry);
        }

        return Enumerable.Range(0, parts.Count).Select(Of)
            .Where(part => part.Share > 0)
            .OrderByDescending(part => part.Share)
            .Take(MostParts)
            .ToList();
    }

    /// <summary>The places that divide the zone, in the order of <see cref="Region"/>.</summary>
    public IReadOnlyList<Region> Places => parts.Places;

    /// <summary>As many parts as can be told apart in a picture.</summary>
    public const int MostParts = 4;

    /// <summary>
    /// Internal reflectance, 36 bands, below layer <paramref name="level"/>, in the part that takes in most of a position; of those where
    /// a region lies, if one is given.
    /// </summary>
    public ReadOnlySpan<double> Below(int level, Position position, Region region = Region.All)
    {
        WorkUpTo(level);
        return levels.AsSpan(level * Level + parts.Main(region, (int)position) * Slot + (int)position * N, N);
    }

    /// <summary>First-surface share of the surface there, 0..1.</summary>
    public double FirstBelow(int level, Position position, Region region = Region.All)
    {
        WorkUpTo(level);
        return levels[level * Level + parts.Main(region, (int)position) * Slot + 3 * N + (int)position];
    }

    /// <summary>Where nine hands of ten end below a layer, each position over the whole zone; see <see cref="HandRange"/>.</summary>
    public HandRangeSplit RangeBelow(int level)
    {
        WorkUpTo(Count);
        return (hands ??= new HandRanges(this)).Below(level);
    }

    internal ZoneParts Parts => parts;

    /// <summary>Reflectance inside the three positions of one part, one after the other.</summary>
    internal ReadOnlySpan<double> Inside(int level, int part) => levels.AsSpan(level * Level + part * Slot, 3 * N);

    /// <summary>First-surface share of one position of one part.</summary>
    internal double First(int level, int part, int position) => levels[level * Level + part * Slot + 3 * N + position];

    /// <summary>A layer lies in the part that takes in most of a position, of those where a region lies.</summary>
    internal bool LiesWith(Layer layer, Position position, Region region) => parts.Lies(parts.Main(region, (int)position), layer.Region);

    /// <summary>Film and cover of a layer as it is laid; for a clean-up, what it takes away (below 0).</summary>
    public Laid LaidBy(int index)
    {
        WorkUpTo(index + 1);
        return laid[index];
    }

    /// <summary>Film and cover of a layer in the finished stack: what its clean-ups leave of it where a region lies.</summary>
    public Laid LeftBy(int index, Region region = Region.All) =>
        LaidBy(index).Times(TakingAway.LeftOf(Layers, index, Zone, Count, cleaned => parts.Lies(parts.Main(region, (int)Position.Field), cleaned)));

    public IEnumerator<LayerPrediction> GetEnumerator()
    {
        for (var i = 0; i < Count; i++)
            yield return this[i];
    }

    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();

    /// <summary>Copies the levels of the layers that both stacks begin with; their number.</summary>
    private int Take(StackRun other)
    {
        var shared = 0;
        while (shared < worked && shared < other.Count && ReferenceEquals(Layers[shared], other.Layers[shared]))
            shared++;
        Array.Copy(levels, other.levels, (shared + 1) * Level);
        Array.Copy(laid, other.laid, shared);
        Array.Copy(described, other.described, shared);
        Array.Copy(seen, other.seen, shared + 1);
        return shared;
    }

    private void WorkUpTo(int level)
    {
        for (; worked < level; worked++)
            laid[worked] = Add(Layers, worked, new Levels(levels, [], Count, Level));
    }

    /// <summary>Works out the level above a layer from those below it; what the layer lays.</summary>
    private Laid Add(IReadOnlyList<Layer> stack, int index, Levels at)
    {
        var layer = stack[index];
        var level = at[index + 1];
        at[index].CopyTo(level);
        switch (TechniqueTable.For(layer.Technique, layer.Tool).Laydown)
        {
            case Laydown.Lift or Laydown.Rub:
                for (var part = 0; part < parts.Count; part++)
                    if (parts.Lies(part, layer.Region))
                        LayAgain(level, stack, index, part, at);
                return Taken(stack, index);
            case Laydown.Chip:
                var broken = Laying.Of(layer, Zone);
                Break(level, at[TakingAway.LowestBroken(stack, index)], layer, broken, _ => true);
                return broken;
            default:
                var film = Laying.Of(layer, Zone);
                if (layer.Paint.Count > 0)
                    Lay(level, stack, index, film, _ => true);
                return film;
        }
    }

    /// <summary>What a wipe or a rub reaches in one part is laid again on what was there before, this time with what it takes taken away.</summary>
    private void LayAgain(Span<double> level, IReadOnlyList<Layer> stack, int index, int part, Levels at)
    {
        bool Lies(Region region) => parts.Lies(part, region);
        var lowest = LowestLaidAgain(stack, index, part);
        at[lowest].Slice(part * Slot, Slot).CopyTo(level.Slice(part * Slot, Slot));
        for (var i = lowest; i < index; i++)
        {
            var layer = stack[i];
            var figures = TechniqueTable.For(layer.Technique, layer.Tool);
            if (figures.Laydown == Laydown.Chip && TakingAway.LowestBroken(stack, i) is var core && core < i)
                Break(level, at[core], layer, Laying.Of(layer, Zone), other => other == part);
            else if (figures.Leaves && layer.Paint.Count > 0)
                Lay(level, stack, i, Laying.Of(layer, Zone).Times(TakingAway.LeftOf(stack, i, Zone, index + 1, parts.Count == 1 ? null : Lies)), other => other == part);
        }
    }

    /// <summary>From where on a wipe or rub has a part laid again; what an earlier one has taken from further down must not come back.</summary>
    internal int LowestLaidAgain(IReadOnlyList<Layer> stack, int index, int part)
    {
        bool Lies(Region region) => parts.Lies(part, region);
        var lowest = Lowest(stack, index, Lies);
        for (var i = index - 1; i > lowest; i--)
            if (TechniqueTable.For(stack[i].Technique).Laydown is Laydown.Lift or Laydown.Rub && Lies(stack[i].Region))
                lowest = Math.Min(lowest, Lowest(stack, i, Lies));
        return lowest;
    }

    /// <summary>What a wipe or a rub takes off each position, um; below 0.</summary>
    private Laid Taken(IReadOnlyList<Layer> stack, int index)
    {
        var taken = Laid.Nothing with { Cover = Split.Even(1) };
        for (var i = Lowest(stack, index, null); i < index; i++)
        {
            if (!TechniqueTable.For(stack[i].Technique, stack[i].Tool).Leaves)
                continue;
            var film = Laying.Of(stack[i], Zone).MeanUm;
            taken = taken with { FilmUm = taken.FilmUm + film * TakingAway.LeftOf(stack, i, Zone, index + 1) - film * TakingAway.LeftOf(stack, i, Zone, index) };
        }

        return taken;
    }

    private int Lowest(IReadOnlyList<Layer> stack, int index, Func<Region, bool>? lies) =>
        TechniqueTable.For(stack[index].Technique).Laydown == Laydown.Lift ? Lifting.LowestReached(stack, index, Zone.Relief) : TakingAway.LowestRubbed(stack, index, Zone, lies);

    /// <summary>Shows the core below through what is broken of a level.</summary>
    private void Break(Span<double> level, ReadOnlySpan<double> core, Layer layer, Laid broken, Func<int, bool> on)
    {
        var share = broken.Covered;
        for (var part = 0; part < parts.Count; part++)
        {
            if (!on(part) || !parts.Lies(part, layer.Region))
                continue;
            Span<double> slot = level.Slice(part * Slot, Slot);
            var below = core.Slice(part * Slot, Slot);
            for (var p = 0; p < 3; p++)
            {
                Cover(slot.Slice(p * N, N), below.Slice(p * N, N), share[(Position)p]);
                slot[3 * N + p] += share[(Position)p] * (below[3 * N + p] - slot[3 * N + p]);
            }
        }
    }

    /// <summary>Lays a film on those parts of a level where its layer lies.</summary>
    private void Lay(Span<double> level, IReadOnlyList<Layer> layers, int index, Laid film, Func<int, bool> on)
    {
        var layer = layers[index];
        Span<double> k = stackalloc double[N], s = stackalloc double[N], beta = stackalloc double[N], over = stackalloc double[N];
        Carried.Optics(layers, index, CarriesOver, k, s);
        KubelkaMunk.Beta(k, s, beta);
        var first = Shine.First(layer);
        for (var part = 0; part < parts.Count; part++)
        {
            if (!on(part) || !parts.Lies(part, layer.Region))
                continue;
            var slot = level.Slice(part * Slot, Slot);
            for (var p = 0; p < 3; p++)
            {
                double um = film.FilmUm[(Position)p], cover = film.Cover[(Position)p];
                if (um <= 0 || cover <= 0 || parts.Weight(part, p) <= 0)
                    continue;
                var ground = slot.Slice(p * N, N);
                ref var shine = ref slot[3 * N + p];
                for (var pass = 0; pass < film.Passes; pass++)
                {
                    KubelkaMunk.Film(k, s, beta, um, ground, over);
                    Cover(ground, over, cover);
                    shine += Shine.Hold(layer, um, cover) * (first - shine);
                }
            }
        }
    }

    /// <summary>The finished surface with one layer changed, where that layer lies; quicker than another run, since nothing in between is kept.</summary>
    public SeenSplit FinishedWith(int index, Layer changed)
    {
        WorkUpTo(index);
        var stack = Layers.ToArray();
        stack[index] = changed;
        var above = ArrayPool<double>.Shared.Rent((Count - index) * Level);
        var at = new Levels(levels, above, index, Level);
        for (var i = index; i < Count; i++)
            Add(stack, i, at);
        var finished = Mean(at[Count], changed.Region);
        ArrayPool<double>.Shared.Return(above);
        return finished;
    }

    /// <summary>Levels of a stack by what lies below them: some kept by a run, those above <paramref name="kept"/> in a place of their own.</summary>
    private readonly ref struct Levels(Span<double> below, Span<double> above, int kept, int size)
    {
        private readonly Span<double> below = below, above = above;

        public Span<double> this[int level] =>
            level <= kept ? below.Slice(level * size, size) : above.Slice((level - kept - 1) * size, size);
    }

    private static void Cover(Span<double> ground, ReadOnlySpan<double> over, double share)
    {
        for (var i = 0; i < ground.Length; i++)
            ground[i] += share * (over[i] - ground[i]);
    }

    private SeenSplit Mean(int level, Region region, bool outside = false)
    {
        WorkUpTo(level);
        return Mean(levels.AsSpan(level * Level, Level), region, outside: outside);
    }

    /// <summary>Each position over the parts in which a region lies, or those in which it does not.</summary>
    private SeenSplit Mean(ReadOnlySpan<double> level, Region region, double wet = double.NaN, bool outside = false)
    {
        if (parts.Count == 1)
            return See(level, wet);
        Span<double> mean = stackalloc double[3 * N];
        for (var p = 0; p < 3; p++)
            Mix(level, p, region, wet, mean.Slice(p * N, N), outside);
        return new(Seen.Of(mean[..N]), Seen.Of(mean.Slice(N, N)), Seen.Of(mean.Slice(2 * N, N)));
    }

    /// <summary>What is shown at one position, over the parts in which a region lies.</summary>
    private void Mix(ReadOnlySpan<double> level, int position, Region region, double wet, Span<double> mean, bool outside = false)
    {
        Span<double> shown = stackalloc double[N];
        mean.Clear();
        var whole = 0.0;
        for (var part = 0; part < parts.Count; part++)
        {
            if (parts.Lies(part, region) == outside || parts.Weight(part, position) is not (> 0 and var weight))
                continue;
            var slot = level.Slice(part * Slot, Slot);
            Surface.Of(double.IsNaN(wet) ? slot[3 * N + position] : wet).Shown(slot.Slice(position * N, N), shown);
            whole += weight;
            for (var i = 0; i < N; i++)
                mean[i] += weight * shown[i];
        }

        // A place that takes in nothing of a position looks like the rest of it.
        if (whole == 0)
            Mix(level, position, Region.All, wet, mean);
        else
            for (var i = 0; i < N; i++)
                mean[i] /= whole;
    }

    /// <summary>One part at one level, dry or as a wet surface shows it.</summary>
    private static SeenSplit See(ReadOnlySpan<double> slot, double wet = double.NaN)
    {
        Span<double> shown = stackalloc double[3 * N];
        for (var p = 0; p < 3; p++)
            Surface.Of(double.IsNaN(wet) ? slot[3 * N + p] : wet).Shown(slot.Slice(p * N, N), shown.Slice(p * N, N));
        return new(Seen.Of(shown[..N]), Seen.Of(shown.Slice(N, N)), Seen.Of(shown.Slice(2 * N, N)));
    }

    private LayerPrediction Describe(int index)
    {
        var layer = Layers[index];
        var level = index + 1;
        WorkUpTo(level);
        var now = SeenBelow(level);
        var wets = Shine.DarkensWet(layer);
        var dryShare = (layer.Main?.SolidsFraction ?? 0) * layer.PaintShare;
        return new LayerPrediction
        {
            Seen = now,
            Average = Average(level),
            Wet = wets ? Mean(levels.AsSpan(level * Level, Level), Region.All, Surface.WetFirst) : now,
            Change = SeenWithin(index, layer.Region).DifferenceTo(SeenWithin(level, layer.Region)),
            DryFilmUm = laid[index].MeanUm * dryShare,
            Cover = laid[index].Covered,
        };
    }

    private Seen Average(int level)
    {
        Span<double> mean = stackalloc double[N], shown = stackalloc double[N];
        for (var p = 0; p < 3; p++)
        {
            Mix(levels.AsSpan(level * Level, Level), p, Region.All, double.NaN, shown);
            var share = Zone.Shares[(Position)p];
            for (var i = 0; i < N; i++)
                mean[i] += share * shown[i];
        }

        return Seen.Of(mean);
    }
}
