using Lowfell.Core.Colour;

namespace Lowfell.Core.Layers;

/// <summary>
/// The range of every level of a stack. Each layer in turn is laid by a thin and by a heavy hand, while the others are laid
/// as usual; what that does to the colour goes up through the layers above. Layers vary independently, so their variances add; what they do
/// to each other besides is told by stacks in which every layer is laid by a hand of its own, each against the sum of what its hands do
/// alone. The ends of the range are those of the sum, by its mean, variance and skewness (Cornish and Fisher 1938, Revue de l'Institut
/// International de Statistique 5).
/// </summary>
internal sealed class HandRanges
{
    /// <summary>
    /// Standard deviations from the middle to either end between which nine of ten lie: of a sum of many layers, less where one layer decides
    /// alone, and less again where most hands end at one end.
    /// </summary>
    private const double EndsOfMany = 1.63, LessForOne = 0.09, LessForSkew = 0.03;

    /// <summary>The same for what lies beside the way.</summary>
    private const double AsideEnds = 2.6;

    private readonly StackRun run;
    private readonly HandRangeSplit[] ranges;

    /// <summary>Linear colours at each level: of every layer so far, for each hand and position.</summary>
    private readonly double[][] colours, together;

    /// <summary>Which hand lays a layer in each of the stacks laid by several: every hand by its weight, the layers shuffled apart.</summary>
    private readonly int[][] lots;

    public HandRanges(StackRun run)
    {
        this.run = run;
        ranges = new HandRangeSplit[run.Count + 1];
        colours = new double[run.Count + 1][];
        together = new double[run.Count + 1][];
        for (var level = 0; level <= run.Count; level++)
            (colours[level], together[level]) = (new double[level * HandSample.Nodes * 9], new double[HandSample.Together * 9]);
        lots = HandSample.Lots(run.Count);
        for (var part = 0; part < run.Parts.Count; part++)
            if (run.Parts.Weight(part, 0) + run.Parts.Weight(part, 1) + run.Parts.Weight(part, 2) > 0)
                new HandClimb(run, part, lots, colours, together).Go();
        for (var level = 0; level <= run.Count; level++)
            ranges[level] = new(Range(level, 0), Range(level, 1), Range(level, 2));
    }

    /// <summary>The ranges below a layer; the number of layers stands for the finished surface.</summary>
    public HandRangeSplit Below(int level) => ranges[level];

    private HandRange Range(int level, int position)
    {
        var usual = run.SeenBelow(level)[(Position)position];
        var middle = Observer.ToLinear(Lab.ToXyz(usual.Lab));
        Lab Away(double[] from, int state)
        {
            var at = from.AsSpan((state * 3 + position) * 3, 3);
            return Lab.FromXyz(Observer.ToXyz(new LinearRgb(at[0], at[1], at[2]))) - usual.Lab;
        }

        var alone = new Lab[level * HandSample.Nodes];
        for (var s = 0; s < alone.Length; s++)
            if (Math.Abs(colours[level][(s * 3 + position) * 3 + 1] - middle.G) + Math.Abs(colours[level][(s * 3 + position) * 3] - middle.R) + Math.Abs(colours[level][(s * 3 + position) * 3 + 2] - middle.B) > 1e-7)
                alone[s] = Away(colours[level], s);
        var sum = new HandSpread();
        Lab heavier = default;
        for (var i = 0; i < level; i++)
        {
            if (IsDead(alone.AsSpan(i * HandSample.Nodes, HandSample.Nodes)))
                continue;
            sum.Add(alone.AsSpan(i * HandSample.Nodes, HandSample.Nodes), HandSample.Weight);
            heavier += alone[i * HandSample.Nodes + HandSample.Nodes - 1] - alone[i * HandSample.Nodes];
        }

        if (sum.Total < LeastVariance)
            return new(usual, usual, 0, -1, 0, 0);
        Span<Lab> real = stackalloc Lab[HandSample.Together], added = stackalloc Lab[HandSample.Together];
        for (var n = 0; n < HandSample.Together; n++)
        {
            real[n] = Away(together[level], n);
            for (var i = 0; i < level; i++)
                if (lots[i][n] is var node and not HandSample.AsUsual)
                    added[n] += alone[i * HandSample.Nodes + node];
        }

        sum.Correct(real, added);
        var axis = sum.Axis();
        if (heavier.Dot(axis) < 0)
            axis = new(-axis.L, -axis.A, -axis.B);
        double variance = 0, third = 0, most = 0, squares = 0;
        var decides = -1;
        for (var i = 0; i < level; i++)
        {
            if (IsDead(alone.AsSpan(i * HandSample.Nodes, HandSample.Nodes)))
                continue;
            var (own, cubes) = Moments(alone.AsSpan(i * HandSample.Nodes, HandSample.Nodes), axis, HandSample.Weight);
            third += cubes;
            variance += own;
            squares += own * own;
            if (own > most)
                (most, decides) = (own, i);
        }

        var whole = Math.Max(sum.Along(axis), HandSpread.LeastShare * variance);
        var deviation = Math.Sqrt(whole);
        var skewness = Math.Clamp((third + Moments(real, axis, 1.0 / HandSample.Together).Cubes - Moments(added, axis, 1.0 / HandSample.Together).Cubes) / (deviation * whole), -1.5, 1.5);
        var ends = EndsOfMany - LessForOne * Math.Min(1, squares / (variance * variance)) - LessForSkew * skewness * skewness;
        var shift = skewness * (ends * ends - 1) / 6;
        var thin = At(usual.Lab, sum.Mean, axis, deviation * (shift - ends));
        var heavy = At(usual.Lab, sum.Mean, axis, deviation * (shift + ends));
        var difference = ColourDifference.Ciede2000(thin.Lab, heavy.Lab);
        var aside = Math.Sqrt(AsideEnds * AsideEnds * Math.Max(0, sum.Total - whole) + Math.Pow(AsideOfLength * deviation, 2));
        return new(thin, heavy, difference, decides, difference * Math.Sqrt(most / Math.Max(variance, whole)), aside);
    }

    /// <summary>Less is the rounding of the arithmetic.</summary>
    private const double LeastVariance = 1e-10;

    /// <summary>The way from thin to heavy is bent: so much of its deviation counts as beside it.</summary>
    private const double AsideOfLength = 0.3;

    private static bool IsDead(ReadOnlySpan<Lab> points) => points.IndexOfAnyExcept(default(Lab)) < 0;

    /// <summary>Second and third central moment along an axis of points of one weight; what they lack to 1 lies at the usual.</summary>
    private static (double Squares, double Cubes) Moments(ReadOnlySpan<Lab> points, Lab axis, double weight)
    {
        double mean = 0, squares = 0, cubes = 0;
        foreach (var d in points)
        {
            var x = d.Dot(axis);
            mean += weight * x;
            squares += weight * x * x;
            cubes += weight * x * x * x;
        }

        return (squares - mean * mean, cubes - 3 * mean * squares + 2 * mean * mean * mean);
    }

    private static Seen At(Lab usual, Lab middle, Lab axis, double away)
    {
        var lab = new Lab(Math.Max(0, usual.L + middle.L + axis.L * away), usual.A + middle.A + axis.A * away, usual.B + middle.B + axis.B * away);
        return new Seen(Observer.ToLinear(Lab.ToXyz(lab)).ToSrgb(), lab);
    }
}
