using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Trials;

/// <summary>What is wanted to be known: the finished colour at one position, or at all three; and what it should come near, where something is wished for.</summary>
public sealed record Wish(Position? Position = null, Lab? Target = null);

/// <summary>
/// A trial that could be made. How far off the prediction of the finished treatment is to be expected, in CIELAB units, now and once the
/// trial was looked at: estimates. Nearest is the field that comes nearest to the wish, CIEDE2000; null where nothing is wished for.
/// </summary>
public sealed record Proposed(IReadOnlyList<TrialFactor> Factors, double ErrorNow, double ErrorThen, double? Nearest);

/// <summary>
/// Proposes the trial that tells most. Around what is predicted colours follow the strengths of the materials nearly in proportion; what is
/// thought of those is a normal distribution, and so is the error of an eye: then what is thought after the trial is known before it is made
/// (Lindley 1956, Annals of Mathematical Statistics 27; Chaloner and Verdinelli 1995, Statistical Science 10, linear design for prediction).
/// </summary>
public static class Proposal
{
    private const double Nudge = 0.02;
    private const int BestSingles = 4, MostProposed = 6;
    private static readonly double[] heavier = [0.5, 1, 1.6];

    /// <summary>Trials of one factor and of two, the most telling first.</summary>
    /// <param name="predict">Predicts a stack.</param>
    /// <param name="stack">The treatment, bottom first.</param>
    /// <param name="wish">What is to be known.</param>
    /// <param name="looks">How often each material was looked at before.</param>
    /// <param name="stop">Gives up.</param>
    public static IReadOnlyList<Proposed> Rank(Func<IReadOnlyList<Layer>, StackRun> predict, IReadOnlyList<Layer> stack, Wish wish, Func<Material, int> looks, CancellationToken stop)
    {
        var singles = Factors(stack).ToList();
        var materials = TrialMaterials.Of(stack, []);
        if (materials.Count == 0 || singles.Count == 0)
            return [];
        var prior = materials.SelectMany(m => Enumerable.Repeat(Math.Pow(TrialFit.Prior, 2) / (1 + looks(m)), 2)).ToArray();
        var memo = new Dictionary<string, double[][]>();
        double[][] Slopes(IReadOnlyList<TrialFactor> factors, IReadOnlyList<int> levels)
        {
            var key = string.Join(' ', factors.Zip(levels, (f, l) => $"{f.Layer}.{l}.{f.Levels.Count}.{f.Levels[l]?.Coats}.{f.Levels[l]?.Strength}"));
            return memo.TryGetValue(key, out var known) ? known : memo[key] = SlopesOf(predict, TrialStacks.Of(stack, factors, levels), materials);
        }

        var target = Rows(SlopesOf(predict, stack, materials), wish.Position);
        var now = Expected(target, prior.Select((v, i) => (v, i)).ToArray());
        Proposed Judge(IReadOnlyList<TrialFactor> factors)
        {
            stop.ThrowIfCancellationRequested();
            var cells = Fields(factors).ToList();
            var seen = cells.SelectMany(levels => Slopes(factors, levels)).ToList();
            var then = Posterior(prior, seen, target);
            double? nearest = wish.Target is { } t
                ? cells.Min(levels => Ends(predict(TrialStacks.Of(stack, factors, levels)), wish.Position).Min(lab => ColourDifference.Ciede2000(lab, t))) : null;
            return new(factors, now, then, nearest);
        }

        double Order(Proposed p) => p.ErrorThen + (p.Nearest ?? 0) / 2;
        var one = singles.Select(f => Judge([f])).OrderBy(Order).ToList();
        var best = one.DistinctBy(p => p.Factors[0].Layer).Take(BestSingles).Select(p => p.Factors[0]).ToList();
        var two = best.SelectMany((a, i) => best.Skip(i + 1).Select(b => Judge([a, b])));
        var three = best.Count < 3 ? [] : new[] { Judge(best.Take(3).ToList()) };
        return one.Concat(two).Concat(three).OrderBy(Order).Take(MostProposed).ToList();
    }

    /// <summary>What could be varied about a treatment: coats, and how heavily; of what can be left out whether it is laid at all.</summary>
    public static IEnumerable<TrialFactor> Factors(IReadOnlyList<Layer> stack)
    {
        foreach (var layer in stack.Where(l => l.Main is { IsThinner: false } m && m.OpticsSource != OpticsSource.Clear && l.Strength > 0))
        {
            if (TechniqueTable.For(layer.Technique, layer.Tool).Laydown == Laydown.Film)
                yield return new(layer.Id, Enumerable.Range(Math.Max(1, layer.Coats - 1), 3).Select(c => (Layer?)(layer with { Coats = c })).ToList());
            else
                yield return new(layer.Id, heavier.Select(h => (Layer?)(layer with { Strength = Math.Round(layer.Strength * h, 2) })).ToList());
            if (layer.Optional)
                yield return new(layer.Id, [null, layer]);
        }
    }

    private static IEnumerable<int[]> Fields(IReadOnlyList<TrialFactor> factors) =>
        factors.Aggregate(Enumerable.Repeat(Array.Empty<int>(), 1), (all, f) => all.SelectMany(before => Enumerable.Range(0, f.Levels.Count).Select(l => before.Append(l).ToArray())));

    private static Lab[] Ends(StackRun run, Position? position)
    {
        var end = run.SeenBelow(run.Count);
        return position is { } p ? [end[p].Lab] : [end.Raised.Lab, end.Field.Lab, end.Recess.Lab];
    }

    /// <summary>How each channel at each position follows each parameter: nine rows.</summary>
    private static double[][] SlopesOf(Func<IReadOnlyList<Layer>, StackRun> predict, IReadOnlyList<Layer> stack, IReadOnlyList<Material> materials)
    {
        var here = Ends(predict(stack), null);
        var rows = Enumerable.Range(0, 9).Select(_ => new double[materials.Count * 2]).ToArray();
        for (var p = 0; p < materials.Count * 2; p++)
        {
            var m = materials[p / 2];
            var by = Math.Exp(Nudge);
            var other = m with { Optics = (p % 2 == 0 ? new Strength(by, 1) : new Strength(1, by)).Of(m.Optics) };
            var there = Ends(predict(stack.Select(l => TrialMaterials.With(l, new Dictionary<Guid, Material> { [m.Id] = other })).ToList()), null);
            for (var i = 0; i < 3; i++)
            {
                var d = there[i] - here[i];
                (rows[i * 3][p], rows[i * 3 + 1][p], rows[i * 3 + 2][p]) = (d.L / Nudge, d.A / Nudge, d.B / Nudge);
            }
        }

        return rows;
    }

    /// <summary>The rows of the position that is asked for.</summary>
    private static double[][] Rows(double[][] all, Position? position) => position switch
    {
        Position.Raised => all[..3],
        Position.Field => all[3..6],
        Position.Recess => all[6..],
        _ => all,
    };

    private static double Expected(double[][] target, (double Variance, int At)[] prior) =>
        Math.Sqrt(target.Sum(row => prior.Sum(p => row[p.At] * row[p.At] * p.Variance)) / (target.Length / 3.0));

    /// <summary>The same once rows of the trial were seen: one after the other, as Kalman (1960, Journal of Basic Engineering 82) takes them in.</summary>
    private static double Posterior(double[] prior, List<double[]> seen, double[][] target)
    {
        var n = prior.Length;
        var covariance = new double[n, n];
        for (var i = 0; i < n; i++)
            covariance[i, i] = prior[i];
        var reading = Calibration.ReadingError * Calibration.ReadingError;
        var gain = new double[n];
        foreach (var row in seen)
        {
            var variance = reading;
            for (var i = 0; i < n; i++)
            {
                gain[i] = 0;
                for (var j = 0; j < n; j++)
                    gain[i] += covariance[i, j] * row[j];
            }

            for (var i = 0; i < n; i++)
                variance += row[i] * gain[i];
            for (var i = 0; i < n; i++)
                for (var j = 0; j < n; j++)
                    covariance[i, j] -= gain[i] * gain[j] / variance;
        }

        var sum = 0.0;
        foreach (var row in target)
            for (var i = 0; i < n; i++)
                for (var j = 0; j < n; j++)
                    sum += row[i] * covariance[i, j] * row[j];
        return Math.Sqrt(Math.Max(0, sum) / (target.Length / 3.0));
    }
}
