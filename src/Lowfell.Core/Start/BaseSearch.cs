using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;

namespace Lowfell.Core.Start;

/// <summary>
/// Tries every material and every two-part mix as the base below fixed layers. A glance at fewer bands passes by what is too
/// far off, with several times its own error to spare; the rest is worked out in full, so that the answer is the one a plain
/// search would give.
/// </summary>
internal sealed class BaseSearch
{
    private const int N = Observer.Bands;

    /// <summary>More than three times what a glance is wrong by at worst over vivid random paints, in CIEDE2000 and in shares of luminance.</summary>
    private const double GlanceError = 1.5, DoubtfulCoat = 2.5e-3;

    private readonly Layer layer;
    private readonly List<Material> shelf;
    private readonly IReadOnlyList<(int First, int Second)> ratios;
    private readonly Lab wanted;
    private readonly Bench bench;
    private readonly double firstBelow;
    private readonly double[] firsts;
    private readonly bool[] thinned;

    /// <summary>No answer is worse than this: the last of as many as are asked for that any worker has found so far.</summary>
    private double bound = double.PositiveInfinity;

    public BaseSearch(StackRun run, int index, Position position, Lab wanted, List<Material> shelf, IReadOnlyList<(int First, int Second)> ratios)
    {
        (layer, this.wanted, this.shelf, this.ratios) = (run.Layers[index], wanted, shelf, ratios);
        firstBelow = run.FirstBelow(index, position, layer.Region);
        firsts = shelf.Select(m => m.Surface.First).ToArray();
        thinned = shelf.Select(m => StartHere.Thinned(layer, m) is not null).ToArray();
        double[] k = new double[shelf.Count * N], s = new double[shelf.Count * N];
        for (var m = 0; m < shelf.Count; m++)
            Laying.PerUm(new Layer { Technique = layer.Technique, Paint = [new MixPart(shelf[m], Parts.One)] }, k.AsSpan(m * N, N), s.AsSpan(m * N, N));
        var left = TakingAway.LeftOf(run.Layers, index, run.Zone, run.Count, run.WhereLies(layer.Region, position))[position];
        var coat = Laying.Of(layer with { Coats = 1 }, run.Zone).FilmUm;
        bench = new Bench(
            k, s, run.Below(index, Position.Field, layer.Region).ToArray(), coat.Field, run.Below(index, position, layer.Region).ToArray(), coat[position] * left,
            position == Position.Field && left == 1, new LayersAbove(run, index, position));
    }

    public IReadOnlyList<Beginning> Best(int count, CancellationToken stop)
    {
        // Single paints come first, alone: the best of them tell how good a mix must be to be worth working out.
        var singles = new Worker(this, count);
        for (var m = 0; m < shelf.Count; m++)
            singles.TryAlone(m);
        var best = singles.Ranking;
        Parallel.For(0, shelf.Count, new ParallelOptions { CancellationToken = stop }, () => new Worker(this, count), (first, _, own) =>
        {
            own.TryMixes(first);
            return own;
        }, own =>
        {
            lock (best)
                best.Take(own.Ranking);
        });
        return best.InOrder.Select(Word).ToList();
    }

    private double Share(Candidate c) => thinned[c.First] && (c.Second < 0 || thinned[c.Second]) ? layer.Dilution?.PaintShare ?? 1 : 1;

    /// <summary>First-surface share of a candidate by itself.</summary>
    private double First(Candidate c) => c.Second < 0 ? firsts[c.First]
        : (c.FirstParts * firsts[c.First] + c.SecondParts * firsts[c.Second]) / (c.FirstParts + c.SecondParts);

    /// <summary>The surface at the top once the layers above lie on a candidate.</summary>
    private Surface Top(Candidate c, int coats)
    {
        var main = shelf[c.SecondParts > c.FirstParts ? c.Second : c.First];
        var hold = Math.Min(1, bench.Um * coats / StandardFilm.Um(main.Kind) * 2);
        var first = firstBelow + hold * (First(c) - firstBelow);
        return Surface.Of(bench.Above.FirstAdded + bench.Above.FirstKept * first);
    }

    private Beginning Word(Scored scored)
    {
        var c = scored.Candidate;
        List<MixPart> paint = c.Second < 0
            ? [new MixPart(shelf[c.First], Parts.One)]
            : [new MixPart(shelf[c.First], Parts.Of(c.FirstParts)), new MixPart(shelf[c.Second], Parts.Of(c.SecondParts))];
        var dilution = c.Second < 0 ? StartHere.Thinned(layer, shelf[c.First]) : StartHere.Thinned(layer, shelf[c.First], shelf[c.Second]);
        return new Beginning(paint, dilution, scored.Coats, scored.Hides, scored.Difference, scored.End);
    }

    /// <summary>One pair of hands with its own scratch, so that nothing is allocated for a candidate.</summary>
    private sealed class Worker(BaseSearch all, int count)
    {
        private readonly Films<float> glance = new(all.bench);
        private readonly Films<double> exact = new(all.bench);
        private double room = double.NaN, darkest, lightest;

        /// <summary>A stale value only lets a few more be worked out.</summary>
        private double Bound => Ranking.IsFull ? Math.Min(Ranking.Worst, Volatile.Read(ref all.bound)) : Volatile.Read(ref all.bound);

        public Ranking Ranking { get; } = new(count);

        public void TryAlone(int material) => Try(new Candidate(material, -1, 1, 0));

        public void TryMixes(int first)
        {
            for (var second = first + 1; second < all.shelf.Count; second++)
            {
                if (!StartHere.Mixes(all.shelf[first], all.shelf[second]))
                    continue;
                foreach (var (a, b) in all.ratios)
                    Try(new Candidate(first, second, a, b));
            }
        }

        private void Try(Candidate candidate)
        {
            var share = all.Share(candidate);
            if (Bound is var worst && double.IsFinite(worst) && PassedBy(candidate, share, worst))
                return;
            exact.Lay(candidate, share, all.First(candidate));
            var end = Lab.FromXyz(Observer.ToXyz(exact.Linear(all.Top(candidate, exact.Coats))));
            Ranking.Offer(new Scored(ColourDifference.Ciede2000(all.wanted, end), candidate, exact.Coats, exact.Hides, end));
            if (Ranking.IsFull && Ranking.Worst < Volatile.Read(ref all.bound))
                Volatile.Write(ref all.bound, Ranking.Worst);
        }

        private bool PassedBy(Candidate candidate, double share, double worst)
        {
            glance.Lay(candidate, share, all.First(candidate));
            if (glance.Doubt < DoubtfulCoat)
                return false;
            if (worst + GlanceError != room)
            {
                room = worst + GlanceError;
                (darkest, lightest) = ColourDifference.LuminancesWithin(room, all.wanted);
            }

            var top = all.Top(candidate, glance.Coats);
            var luminance = glance.Luminance(top);
            if (luminance < darkest || luminance > lightest)
                return true;
            var end = Lab.FromXyz(Observer.ToXyz(glance.Linear(top)));
            return !ColourDifference.MayBeWithin(room, all.wanted, end) || ColourDifference.Ciede2000(all.wanted, end) > room;
        }
    }
}
