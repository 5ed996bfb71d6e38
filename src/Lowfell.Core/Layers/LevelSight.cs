using Lowfell.Core.Colour;

namespace Lowfell.Core.Layers;

/// <summary>What is shown of one level of a stack: the parts of each position together, seen through their surface.</summary>
internal readonly struct LevelSight(ZoneParts parts)
{
    private const int N = Observer.Bands;

    /// <summary>Each position over the parts in which a region lies.</summary>
    /// <param name="level">All parts, see <see cref="StackLevels"/>.</param>
    /// <param name="region">Where to look.</param>
    /// <param name="wet">First-surface share of a wet surface; as the level itself shines when left out.</param>
    public SeenSplit Mean(ReadOnlySpan<double> level, Region region, double wet = double.NaN)
    {
        if (parts.Count == 1)
            return See(level, wet);
        Span<double> mean = stackalloc double[3 * N];
        for (var p = 0; p < 3; p++)
            Mix(level, p, region, wet, mean.Slice(p * N, N));
        return new(Seen.Of(mean[..N]), Seen.Of(mean.Slice(N, N)), Seen.Of(mean.Slice(2 * N, N)));
    }

    /// <summary>All of a zone as one colour, each position by its share.</summary>
    public Seen Average(ReadOnlySpan<double> level, Split shares)
    {
        Span<double> mean = stackalloc double[N], shown = stackalloc double[N];
        for (var p = 0; p < 3; p++)
        {
            Mix(level, p, Region.All, double.NaN, shown);
            for (var i = 0; i < N; i++)
                mean[i] += shares[(Position)p] * shown[i];
        }

        return Seen.Of(mean);
    }

    /// <summary>One part, dry or as a wet surface shows it.</summary>
    public static SeenSplit See(ReadOnlySpan<double> slot, double wet = double.NaN)
    {
        Span<double> shown = stackalloc double[3 * N];
        for (var p = 0; p < 3; p++)
            Surface.Of(double.IsNaN(wet) ? slot[3 * N + p] : wet).Shown(slot.Slice(p * N, N), shown.Slice(p * N, N));
        return new(Seen.Of(shown[..N]), Seen.Of(shown.Slice(N, N)), Seen.Of(shown.Slice(2 * N, N)));
    }

    /// <summary>What is shown at one position, over the parts in which a region lies.</summary>
    private void Mix(ReadOnlySpan<double> level, int position, Region region, double wet, Span<double> mean)
    {
        Span<double> shown = stackalloc double[N];
        mean.Clear();
        var whole = 0.0;
        for (var part = 0; part < parts.Count; part++)
        {
            if (!parts.Lies(part, region) || parts.Weight(part, position) is not (> 0 and var weight))
                continue;
            var slot = level.Slice(part * StackLevels.Slot, StackLevels.Slot);
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
}
