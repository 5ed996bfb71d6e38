using Lowfell.Core.Colour;
using Lowfell.Core.Layers;

namespace Lowfell.Core.Start;

/// <summary>
/// What the layers above one make of any reflectance under them, at one position: worked out once, asked for many candidates.
/// A whole film turns the ground R into (a + bR) / (1 + cR), band by band, and several whole films in a row are one such step;
/// a partial cover keeps a share of what was there, and a chip shows a share of what was there earlier.
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
        var firsts = new (double Kept, double Added)[run.Count + 1];
        firsts[index + 1] = (1, 0);
        var cores = Enumerable.Range(index + 1, run.Count - index - 1).Where(i => Chips(run.Layers[i])).Select(i => TakingAway.LowestBroken(run.Layers, i)).ToHashSet();
        var kept = new Dictionary<int, int>();
        for (var i = index + 1; i < run.Count; i++)
        {
            if (cores.Contains(i))
            {
                kept[i] = steps.Count;
                steps.Add(Step.Keep);
            }

            firsts[i + 1] = firsts[i];
            var layer = run.Layers[i];
            if (!run.LiesWith(layer, position, place))
                continue;
            var laid = run.LeftBy(i, place);
            double um = laid.FilmUm[position], cover = laid.Cover[position];
            if (Chips(layer))
            {
                var core = TakingAway.LowestBroken(run.Layers, i);
                var share = laid.Covered[position];
                if (share <= 0 || core >= i)
                    continue;

                // Below the base itself nothing depends on it.
                steps.Add(core <= index ? Step.Shown(run.Below(core, position, place), share) : Step.Recall(kept[core], share));
                var (wasKept, wasAdded) = core <= index ? (0, run.FirstBelow(core, position, place)) : firsts[core];
                firsts[i + 1] = (firsts[i].Kept + share * (wasKept - firsts[i].Kept), firsts[i].Added + share * (wasAdded - firsts[i].Added));
                continue;
            }

            if (layer.Paint.Count == 0 || um <= 0 || cover <= 0 || !TechniqueTable.For(layer.Technique, layer.Tool).Leaves)
                continue;
            Carried.Optics(run.Layers, i, run.CarriesOver, k, s);
            var colours = k.ContainsAnyExcept(0) || s.ContainsAnyExcept(0);
            var hold = Shine.Hold(layer, um, cover);
            for (var pass = 0; pass < laid.Passes; pass++)
            {
                if (colours)
                    Add(new Step(k, s, um, cover));
                var (f, added) = firsts[i + 1];
                firsts[i + 1] = (f * (1 - hold), added + hold * (Shine.First(layer) - added));
            }
        }

        (FirstKept, FirstAdded) = firsts[run.Count];
    }

    /// <summary>How much of the base's own first-surface share is left at the top, and what the layers above add to it.</summary>
    public double FirstKept { get; }

    /// <inheritdoc cref="FirstKept"/>
    public double FirstAdded { get; }

    /// <summary>What is done to a base, in order.</summary>
    public IReadOnlyList<Step> Steps => steps;

    private static bool Chips(Layer layer) => TechniqueTable.For(layer.Technique).Laydown == Laydown.Chip;

    private void Add(Step step)
    {
        if (step.IsWhole && steps is [.., { IsWhole: true } last])
            steps[^1] = last.Under(step);
        else
            steps.Add(step);
    }

    /// <summary>R becomes R + cover ((a + bR) / (1 + cR) - R), band by band; or it is kept aside, or shows a share of what was.</summary>
    public sealed class Step
    {
        /// <summary>Keeps what is there aside, for a later <see cref="Recall"/>.</summary>
        public static readonly Step Keep = new(0);

        private readonly double[] a = new double[N], b = new double[N], c = new double[N];

        public Step(ReadOnlySpan<double> k, ReadOnlySpan<double> s, double um, double cover)
            : this(cover)
        {
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

        private Step(double cover) => Cover = cover;

        private Step(Step lower, Step upper)
            : this(1)
        {
            for (var i = 0; i < N; i++)
            {
                var whole = 1 + upper.c[i] * lower.a[i];
                a[i] = (upper.a[i] + upper.b[i] * lower.a[i]) / whole;
                b[i] = (upper.a[i] * lower.c[i] + upper.b[i] * lower.b[i]) / whole;
                c[i] = (lower.c[i] + upper.c[i] * lower.b[i]) / whole;
            }
        }

        public double Cover { get; }

        /// <summary>The step at which what it shows a share of was kept, or -1.</summary>
        public int From { get; private init; } = -1;

        /// <summary>A film all over.</summary>
        public bool IsWhole => Cover == 1 && From < 0;

        public ReadOnlySpan<double> A => a;

        public ReadOnlySpan<double> B => b;

        public ReadOnlySpan<double> C => c;

        public static Step Recall(int from, double share) => new(share) { From = from };

        /// <summary>Shows a share of a fixed reflectance.</summary>
        public static Step Shown(ReadOnlySpan<double> reflectance, double share)
        {
            var step = new Step(share);
            reflectance.CopyTo(step.a);
            return step;
        }

        public Step Under(Step upper) => new(this, upper);
    }
}
