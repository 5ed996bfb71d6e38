using System.Collections;
using Lowfell.Core.Colour;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Layers;

/// <summary>
/// A predicted stack. Keeps the reflectance and shine of the three positions below every layer and above the last;
/// what is shown of a layer is worked out when it is asked for. Not for several threads at once.
/// </summary>
public sealed class StackRun : IReadOnlyList<LayerPrediction>
{
    private const int N = Observer.Bands;

    /// <summary>Values of one level: three positions of N bands, then how their surfaces show it.</summary>
    private const int Level = 3 * N + 3;

    /// <summary>White haze that a matt or dusty surface adds, and depth that smoother ones give, against ordinary matt paint.</summary>
    private const double MattHaze = 0.012, ChalkHaze = 0.03, SatinDepth = 0.035, GlossDepth = 0.08, WetDepth = 0.12;

    /// <summary>Share of the last dry-brush colour still in a wiped brush: about a seventh.</summary>
    private const double CarriedShare = 0.15;

    // Worked out from the bottom as far as anyone has asked.
    private int worked;
    private readonly double[] levels;
    private readonly Laid[] laid;
    private readonly LayerPrediction?[] described;
    private readonly SeenSplit?[] seen;

    internal StackRun(Zone zone, IReadOnlyList<Layer> layers, bool carryOver, StackRun? from)
    {
        (Zone, Layers, CarriesOver) = (zone, layers, carryOver);
        levels = GC.AllocateUninitializedArray<double>((layers.Count + 1) * Level);
        laid = new Laid[layers.Count];
        described = new LayerPrediction?[layers.Count];
        seen = new SeenSplit?[layers.Count + 1];
        var shared = from is not null && ReferenceEquals(from.Zone, zone) && from.CarriesOver == carryOver ? from.Take(this) : 0;
        if (shared == 0)
        {
            var ground = SubstrateTraits.Surface(zone.Substrate);
            for (var p = 0; p < 3; p++)
                ground.Bands.CopyTo(levels.AsSpan(p * N));
            levels.AsSpan(3 * N, 3).Clear();
        }

        worked = shared;
    }

    public Zone Zone { get; }

    /// <summary>Whether dry-brush steps carry a little of the last colour over.</summary>
    public bool CarriesOver { get; }

    /// <summary>The layers, bottom first.</summary>
    public IReadOnlyList<Layer> Layers { get; }

    public int Count => Layers.Count;

    public LayerPrediction this[int index] => described[index] ??= Describe(index);

    /// <summary>What is seen below layer <paramref name="level"/>; <see cref="Count"/> stands for the finished surface.</summary>
    public SeenSplit SeenBelow(int level) => seen[level] ??= new(See(level, Position.Raised), See(level, Position.Field), See(level, Position.Recess));

    /// <summary>Internal reflectance, 36 bands, below layer <paramref name="level"/>.</summary>
    public ReadOnlySpan<double> Below(int level, Position position)
    {
        WorkUpTo(level);
        return At(level, (int)position);
    }

    /// <summary>How the surface below a layer shows what is in it: above 0 deepens, below 0 adds haze.</summary>
    public double DepthBelow(int level, Position position)
    {
        WorkUpTo(level);
        return levels[level * Level + 3 * N + (int)position];
    }

    /// <summary>Film and cover of a layer; for a clean-up, what it takes away.</summary>
    public Laid LaidBy(int index)
    {
        WorkUpTo(index + 1);
        return laid[index];
    }

    public IEnumerator<LayerPrediction> GetEnumerator()
    {
        for (var i = 0; i < Count; i++)
            yield return this[i];
    }

    IEnumerator IEnumerable.GetEnumerator() => GetEnumerator();

    /// <summary>The bead that a clean-up at this index works on, or -1: only work without colour may lie between.</summary>
    public static int BeadBelow(IReadOnlyList<Layer> layers, int cleanUp)
    {
        for (var i = cleanUp - 1; i >= 0; i--)
        {
            var laydown = TechniqueTable.For(layers[i].Technique).Laydown;
            if (laydown == Laydown.Bead)
                return i;
            if (laydown != Laydown.None)
                return -1;
        }

        return -1;
    }

    /// <summary>Absorption and scattering per um of what a layer's tool really carries, last colours included.</summary>
    internal static void Optics(IReadOnlyList<Layer> layers, int index, bool carryOver, Span<double> k, Span<double> s)
    {
        Laying.PerUm(layers[index], k, s);
        if (!carryOver || layers[index].Technique != Technique.DryBrush || StepBefore(layers, index) is not (>= 0 and var before))
            return;
        Span<double> lastK = stackalloc double[N], lastS = stackalloc double[N];
        Optics(layers, before, carryOver, lastK, lastS);
        for (var i = 0; i < N; i++)
        {
            k[i] += CarriedShare * (lastK[i] - k[i]);
            s[i] += CarriedShare * (lastS[i] - s[i]);
        }
    }

    /// <summary>How a layer's own dried surface shows what is in it: positive deepens, negative adds haze.</summary>
    internal static double Depth(Layer layer) => layer.Main switch
    {
        { Kind: MaterialKind.Pigment } => -ChalkHaze,
        { Kind: MaterialKind.Varnish, Sheen: Sheen.Matt } => -MattHaze,
        { Kind: MaterialKind.Varnish, Sheen: Sheen.Satin } => SatinDepth,
        { Kind: MaterialKind.Varnish } => GlossDepth,
        _ => 0,
    };

    /// <summary>How far a film takes over the way the surface shines: half a standard coat is enough, a trace does nothing.</summary>
    internal static double Hold(Layer layer, double um, double cover) =>
        layer.Main is { } main ? cover * Math.Min(1, um / StandardFilm.Um(main.Kind) * 2) : 0;

    /// <summary>What an eye makes of an internal reflectance below a surface of some depth.</summary>
    internal static void Show(ReadOnlySpan<double> inside, double depth, Span<double> shown)
    {
        for (var i = 0; i < shown.Length; i++)
            shown[i] = depth >= 0 ? inside[i] * (1 - depth) : inside[i] - depth * (1 - inside[i]);
    }

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
            Add(worked);
    }

    private static int StepBefore(IReadOnlyList<Layer> layers, int index)
    {
        for (var i = index - 1; i >= 0; i--)
        {
            if (layers[i].Technique == Technique.DryBrush)
                return i;
            if (TechniqueTable.For(layers[i].Technique).Laydown != Laydown.None)
                return -1;
        }

        return -1;
    }

    private void Add(int index)
    {
        var layer = Layers[index];
        var from = index;
        if (TechniqueTable.For(layer.Technique, layer.Tool).Laydown == Laydown.Lift)
        {
            // The wash is laid again on what was there before it, this time with its excess taken away.
            var bead = BeadBelow(Layers, index);
            if (bead >= 0)
            {
                var cleaned = Laying.Of(Layers[bead], Zone, cleaned: true);
                laid[index] = new Laid(cleaned.FilmUm - laid[bead].FilmUm, Split.Even(1));
                Lay(bead, cleaned, bead, index + 1);
                return;
            }
        }
        else
        {
            laid[index] = Laying.Of(layer, Zone, cleaned: false);
        }

        Lay(index, laid[index], from, index + 1);
    }

    /// <summary>Copies one level and lays a film on the copy.</summary>
    private void Lay(int index, Laid film, int from, int to)
    {
        var level = levels.AsSpan(to * Level, Level);
        levels.AsSpan(from * Level, Level).CopyTo(level);
        Lay(level, Layers, index, CarriesOver, film);
    }

    /// <summary>Lays a film on a level.</summary>
    private static void Lay(Span<double> level, IReadOnlyList<Layer> layers, int index, bool carryOver, Laid film)
    {
        var layer = layers[index];
        if (layer.Paint.Count == 0)
            return;
        Span<double> k = stackalloc double[N], s = stackalloc double[N], beta = stackalloc double[N], over = stackalloc double[N];
        Optics(layers, index, carryOver, k, s);
        KubelkaMunk.Beta(k, s, beta);
        var depth = Depth(layer);
        for (var p = 0; p < 3; p++)
        {
            double um = film.FilmUm[(Position)p], cover = film.Cover[(Position)p];
            if (um <= 0 || cover <= 0)
                continue;
            var ground = level.Slice(p * N, N);
            KubelkaMunk.Film(k, s, beta, um, ground, over);
            Cover(ground, over, cover);
            ref var shine = ref level[3 * N + p];
            shine += Hold(layer, um, cover) * (depth - shine);
        }
    }

    /// <summary>The finished surface with one layer changed; quicker than another run, since nothing in between is kept.</summary>
    public SeenSplit FinishedWith(int index, Layer changed)
    {
        WorkUpTo(index);
        var stack = Layers.ToArray();
        stack[index] = changed;
        Span<double> now = stackalloc double[Level], beforeBead = stackalloc double[Level];
        levels.AsSpan(index * Level, Level).CopyTo(now);
        for (var i = index; i < stack.Length; i++)
        {
            switch (TechniqueTable.For(stack[i].Technique, stack[i].Tool).Laydown)
            {
                case Laydown.Lift when BeadBelow(stack, i) is var bead and >= 0:
                    (bead >= index ? beforeBead : levels.AsSpan(bead * Level, Level)).CopyTo(now);
                    Lay(now, stack, bead, CarriesOver, Laying.Of(stack[bead], Zone, cleaned: true));
                    continue;
                case Laydown.Lift or Laydown.None:
                    continue;
                case Laydown.Bead:
                    now.CopyTo(beforeBead);
                    break;
            }

            Lay(now, stack, i, CarriesOver, Laying.Of(stack[i], Zone, cleaned: false));
        }

        return new(See(now[..N], now[3 * N]), See(now.Slice(N, N), now[3 * N + 1]), See(now.Slice(2 * N, N), now[3 * N + 2]));
    }

    private static void Cover(Span<double> ground, ReadOnlySpan<double> over, double share)
    {
        for (var i = 0; i < ground.Length; i++)
            ground[i] += share * (over[i] - ground[i]);
    }

    private Span<double> At(int level, int position) => levels.AsSpan(level * Level + position * N, N);

    private Seen See(int level, Position position) => See(Below(level, position), DepthBelow(level, position));

    private static Seen See(ReadOnlySpan<double> inside, double depth)
    {
        Span<double> shown = stackalloc double[N];
        Show(inside, depth, shown);
        return Seen.Of(shown);
    }

    private LayerPrediction Describe(int index)
    {
        var layer = Layers[index];
        var level = index + 1;
        WorkUpTo(level);
        var now = SeenBelow(level);
        var wets = TechniqueTable.For(layer.Technique, layer.Tool).Laydown is Laydown.Wash or Laydown.Bead || layer.Technique is Technique.Filter or Technique.Glaze;
        var dryShare = (layer.Main?.SolidsFraction ?? 0) * layer.PaintShare;
        return new LayerPrediction
        {
            Seen = now,
            Average = Average(level),
            Wet = wets ? new(See(Below(level, Position.Raised), WetDepth), See(Below(level, Position.Field), WetDepth), See(Below(level, Position.Recess), WetDepth)) : now,
            Change = SeenBelow(index).DifferenceTo(now),
            DryFilmUm = laid[index].FilmUm * laid[index].Cover * dryShare,
            Cover = laid[index].Cover,
        };
    }

    private Seen Average(int level)
    {
        Span<double> mean = stackalloc double[N];
        Span<double> shown = stackalloc double[N];
        for (var p = 0; p < 3; p++)
        {
            Show(At(level, p), DepthBelow(level, (Position)p), shown);
            var share = Zone.Shares[(Position)p];
            for (var i = 0; i < N; i++)
                mean[i] += share * shown[i];
        }

        return Seen.Of(mean);
    }
}
