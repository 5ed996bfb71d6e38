using System.Buffers;
using Lowfell.Core.Colour;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Layers;

/// <summary>
/// The surface below every layer of a stack and above the last: reflectance inside and first-surface share of the three positions, for
/// each part into which the places of its layers divide the zone. Worked out from the bottom as far as anyone asks.
/// </summary>
internal sealed class StackLevels
{
    private const int N = Observer.Bands;

    /// <summary>Values of one part at one level: three positions of N bands, then the first-surface share of each.</summary>
    public const int Slot = 3 * N + 3;

    private readonly Zone zone;
    private readonly IReadOnlyList<Layer> layers;
    private readonly bool carryOver;
    private readonly double[] values;
    private readonly Laid[] laid;
    private readonly LaidFilm?[] films;
    private int worked;

    public StackLevels(Zone zone, IReadOnlyList<Layer> layers, bool carryOver, StackLevels? from)
    {
        (this.zone, this.layers, this.carryOver) = (zone, layers, carryOver);
        Parts = ZoneParts.Of(zone, layers);
        values = GC.AllocateUninitializedArray<double>((layers.Count + 1) * Size);
        laid = new Laid[layers.Count];
        films = new LaidFilm?[layers.Count];
        if (from is not null && ReferenceEquals(from.zone, zone) && from.carryOver == carryOver)
            worked = Shared = Take(from);
        if (worked == 0)
            FillGround();
    }

    public ZoneParts Parts { get; }

    /// <summary>Layers at the bottom that were taken over from the stack this one came from.</summary>
    public int Shared { get; }

    /// <summary>Values of one level: every part of the zone.</summary>
    private int Size => Parts.Count * Slot;

    /// <summary>All parts below a layer.</summary>
    public Span<double> Level(int level)
    {
        for (; worked < level; worked++)
            laid[worked] = Add(layers, worked, new Levels(values, [], layers.Count, Size));
        return values.AsSpan(level * Size, Size);
    }

    /// <summary>One part below a layer.</summary>
    public Span<double> Below(int level, int part) => Level(level).Slice(part * Slot, Slot);

    /// <summary>Film and cover of a layer as it is laid; for what takes away, what it takes (below 0).</summary>
    public Laid LaidBy(int index)
    {
        _ = Level(index + 1);
        return laid[index];
    }

    /// <summary>The finished surface with one layer changed, shown to someone; nothing in between is kept.</summary>
    public T FinishedWith<T>(int index, Layer changed, Func<ReadOnlySpan<double>, T> see)
    {
        _ = Level(index);
        var stack = new List<Layer>(layers) { [index] = changed };
        var above = ArrayPool<double>.Shared.Rent((layers.Count - index) * Size);
        var at = new Levels(values, above, index, Size);
        for (var i = index; i < layers.Count; i++)
            Add(stack, i, at);
        var finished = see(at[layers.Count]);
        ArrayPool<double>.Shared.Return(above);
        return finished;
    }

    /// <summary>From where on a wipe or rub has a part laid again; what an earlier one has taken from further down must not come back.</summary>
    public int LowestLaidAgain(IReadOnlyList<Layer> stack, int index, int part)
    {
        bool Lies(Region region) => Parts.Lies(part, region);
        var lowest = Lowest(stack, index, Lies);
        for (var i = index - 1; i > lowest; i--)
            if (TechniqueTable.For(stack[i].Technique).Laydown is Laydown.Lift or Laydown.Rub && Lies(stack[i].Region))
                lowest = Math.Min(lowest, Lowest(stack, i, Lies));
        return lowest;
    }

    private void FillGround()
    {
        var ground = SubstrateTraits.Inside(zone.Substrate);
        for (var part = 0; part < Parts.Count; part++)
        {
            for (var p = 0; p < 3; p++)
                ground.Bands.CopyTo(values.AsSpan(part * Slot + p * N));
            values.AsSpan(part * Slot + 3 * N, 3).Fill(Surface.UnstatedFirst);
        }
    }

    /// <summary>Takes over the levels of the layers that both stacks begin with, and the films of all layers they have in common; the number of the former.</summary>
    private int Take(StackLevels other)
    {
        for (int mine = layers.Count - 1, theirs = other.layers.Count - 1; mine >= 0 && theirs >= 0 && ReferenceEquals(layers[mine], other.layers[theirs]); mine--, theirs--)
            if (LaidFilm.StandsAlone(layers[mine], carryOver))
                films[mine] = other.films[theirs];
        if (!Parts.SameAs(other.Parts))
            return 0;
        var shared = InCommon(other);
        Array.Copy(other.values, values, (shared + 1) * Size);
        Array.Copy(other.laid, laid, shared);
        Array.Copy(other.films, films, shared);
        return shared;
    }

    private int InCommon(StackLevels other)
    {
        var shared = 0;
        for (var alike = true; shared < other.worked && shared < layers.Count; shared++)
        {
            Layer mine = layers[shared], theirs = other.layers[shared];
            if (ReferenceEquals(mine, theirs))
            {
                // How long a layer waited decides what a wipe still moves, and nothing else.
                if (!alike && TechniqueTable.For(mine.Technique).Laydown is Laydown.Lift or Laydown.Rub)
                    break;
                continue;
            }

            alike = false;
            if (mine with { WaitMinutes = theirs.WaitMinutes } != theirs)
                break;
        }

        return shared;
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
                for (var part = 0; part < Parts.Count; part++)
                    if (Parts.Lies(part, layer.Region))
                        LayAgain(level, stack, index, part, at);
                return Taken(stack, index);
            case Laydown.Chip:
                var broken = Laying.Of(layer, zone);
                Break(level, at[TakingAway.LowestBroken(stack, index)], layer, broken, _ => true);
                return broken;
            default:
                var film = FilmOf(stack, index);
                if (film is null)
                    return Laying.Of(layer, zone);
                Lay(level, layer, film, _ => true);
                return film.Laid;
        }
    }

    /// <summary>The film of a layer, kept for the next time where it is that of the stack itself.</summary>
    private LaidFilm? FilmOf(IReadOnlyList<Layer> stack, int index) =>
        ReferenceEquals(stack, layers) || (ReferenceEquals(stack[index], layers[index]) && LaidFilm.StandsAlone(layers[index], carryOver))
            ? films[index] ??= LaidFilm.Of(layers, index, zone, carryOver)
            : LaidFilm.Of(stack, index, zone, carryOver);

    /// <summary>What a wipe or a rub reaches in one part is laid again on what was there before, this time with what it takes taken away.</summary>
    private void LayAgain(Span<double> level, IReadOnlyList<Layer> stack, int index, int part, Levels at)
    {
        bool Lies(Region region) => Parts.Lies(part, region);
        var lowest = LowestLaidAgain(stack, index, part);
        at[lowest].Slice(part * Slot, Slot).CopyTo(level.Slice(part * Slot, Slot));
        for (var i = lowest; i < index; i++)
        {
            var layer = stack[i];
            var figures = TechniqueTable.For(layer.Technique, layer.Tool);
            if (figures.Laydown == Laydown.Chip && TakingAway.LowestBroken(stack, i) is var core && core < i)
                Break(level, at[core], layer, Laying.Of(layer, zone), other => other == part);
            else if (figures.Leaves && LaidFilm.Of(stack, i, Laying.Of(layer, zone).Times(TakingAway.LeftOf(stack, i, zone, index + 1, Parts.Count == 1 ? null : Lies)), carryOver) is { } left)
                Lay(level, layer, left, other => other == part);
        }
    }

    /// <summary>What a wipe or a rub takes off each position, um; below 0.</summary>
    private Laid Taken(IReadOnlyList<Layer> stack, int index)
    {
        var taken = Laid.Nothing with { Cover = Split.Even(1) };
        for (var i = Lowest(stack, index, null); i < index; i++)
        {
            if (!TechniqueTable.For(stack[i].Technique, stack[i].Tool).Leaves)
                continue;
            var film = Laying.Of(stack[i], zone).MeanUm;
            taken = taken with { FilmUm = taken.FilmUm + film * TakingAway.LeftOf(stack, i, zone, index + 1) - film * TakingAway.LeftOf(stack, i, zone, index) };
        }

        return taken;
    }

    private int Lowest(IReadOnlyList<Layer> stack, int index, Func<Region, bool>? lies) =>
        TechniqueTable.For(stack[index].Technique).Laydown == Laydown.Lift ? Lifting.LowestReached(stack, index, zone.Relief) : TakingAway.LowestRubbed(stack, index, zone, lies);

    /// <summary>Shows the core below through what is broken of a level.</summary>
    private void Break(Span<double> level, ReadOnlySpan<double> core, Layer layer, Laid broken, Func<int, bool> on)
    {
        var share = broken.Covered;
        for (var part = 0; part < Parts.Count; part++)
        {
            if (!on(part) || !Parts.Lies(part, layer.Region))
                continue;
            var slot = level.Slice(part * Slot, Slot);
            var below = core.Slice(part * Slot, Slot);
            for (var p = 0; p < 3; p++)
            {
                for (var i = p * N; i < (p + 1) * N; i++)
                    slot[i] += share[(Position)p] * (below[i] - slot[i]);
                slot[3 * N + p] += share[(Position)p] * (below[3 * N + p] - slot[3 * N + p]);
            }
        }
    }

    /// <summary>Lays a film on those parts of a level where its layer lies.</summary>
    private void Lay(Span<double> level, Layer layer, LaidFilm film, Func<int, bool> on)
    {
        for (var part = 0; part < Parts.Count; part++)
        {
            if (!on(part) || !Parts.Lies(part, layer.Region))
                continue;
            var slot = level.Slice(part * Slot, Slot);
            for (var p = 0; p < 3; p++)
                if (Parts.Weight(part, p) > 0)
                    film.Lay(p, slot.Slice(p * N, N), ref slot[3 * N + p]);
        }
    }

    /// <summary>Levels of a stack by what lies below them: some kept by a run, those above <paramref name="kept"/> in a place of their own.</summary>
    private readonly ref struct Levels(Span<double> below, Span<double> above, int kept, int size)
    {
        private readonly Span<double> below = below, above = above;

        public Span<double> this[int level] =>
            level <= kept ? below.Slice(level * size, size) : above.Slice((level - kept - 1) * size, size);
    }
}
