using Lowfell.Core.Colour;
using Lowfell.Core.Layers;

namespace Lowfell.Core.Start;

/// <summary>
/// What the layers above one make of any reflectance under them, at one position: worked out once, asked for many candidates.
/// A whole film turns the ground R into (a + bR) / (1 + cR), band by band, and several whole films in a row are one such step;
/// a partial cover keeps a share of what was there.
/// </summary>
internal sealed class LayersAbove
{
    private const int N = Observer.Bands;
    private readonly List<Step> steps = [];

    /// <summary>The layers above <paramref name="index"/>, in the largest part of the zone in which that layer lies.</summary>
    public LayersAbove(StackRun run, int index, Position position)
    {
        Span<double> k = stackalloc double[N], s = stackalloc double[N];
        var place = run.Layers[index].Region;
        for (var i = index + 1; i < run.Count; i++)
        {
            var layer = run.Layers[i];
            if (layer.Paint.Count == 0 || !run.LiesWith(layer, position, place) || TechniqueTable.For(layer.Technique, layer.Tool).Laydown == Laydown.Lift)
                continue;
            var laid = run.LeftBy(i, place);
            double um = laid.FilmUm[position], cover = laid.Cover[position];
            if (um <= 0 || cover <= 0)
                continue;
            Carried.Optics(run.Layers, i, run.CarriesOver, k, s);
            var colours = k.ContainsAnyExcept(0) || s.ContainsAnyExcept(0);
            var hold = Shine.Hold(layer, um, cover);
            for (var pass = 0; pass < laid.Passes; pass++)
            {
                if (colours)
                    Add(new Step(k, s, um, cover));
                DepthKept *= 1 - hold;
                DepthAdded += hold * (Shine.Depth(layer) - DepthAdded);
            }
        }
    }

    /// <summary>Share of the base's own shine that is left at the top, and what the layers above add to it.</summary>
    public double DepthKept { get; private set; } = 1;

    /// <inheritdoc cref="DepthKept"/>
    public double DepthAdded { get; private set; }

    /// <summary>What is done to a base, in order.</summary>
    public IReadOnlyList<Step> Steps => steps;

    private void Add(Step step)
    {
        if (step.Cover == 1 && steps is [.., { Cover: 1 } last])
            steps[^1] = last.Under(step);
        else
            steps.Add(step);
    }

    /// <summary>R becomes R + cover ((a + bR) / (1 + cR) - R), band by band.</summary>
    public sealed class Step
    {
        private readonly double[] a = new double[N], b = new double[N], c = new double[N];

        public Step(ReadOnlySpan<double> k, ReadOnlySpan<double> s, double um, double cover)
        {
            Cover = cover;
            for (var i = 0; i < N; i++)
            {
                var beta = Math.Sqrt(k[i] * (k[i] + 2 * s[i]));
                var t = beta == 0 ? um : Math.Tanh(beta * um) / beta;
                var whole = 1 + t * (k[i] + s[i]);
                a[i] = t * s[i] / whole;
                b[i] = (1 - t * (k[i] + s[i])) / whole;
                c[i] = -t * s[i] / whole;
            }
        }

        private Step(Step lower, Step upper)
        {
            Cover = 1;
            for (var i = 0; i < N; i++)
            {
                var whole = 1 + upper.c[i] * lower.a[i];
                a[i] = (upper.a[i] + upper.b[i] * lower.a[i]) / whole;
                b[i] = (upper.a[i] * lower.c[i] + upper.b[i] * lower.b[i]) / whole;
                c[i] = (lower.c[i] + upper.c[i] * lower.b[i]) / whole;
            }
        }

        public double Cover { get; }

        public ReadOnlySpan<double> A => a;

        public ReadOnlySpan<double> B => b;

        public ReadOnlySpan<double> C => c;

        public Step Under(Step upper) => new(this, upper);
    }
}
