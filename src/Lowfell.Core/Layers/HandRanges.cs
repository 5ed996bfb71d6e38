using System.Numerics;
using System.Runtime.InteropServices;
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
    private const int N = Observer.Bands, Nodes = 2, Together = 54;

    /// <summary>
    /// Hands that stand for all of them: the outer points of Gauss's rule of three, and what each weighs. The middle one lays the usual, which is
    /// known already.
    /// </summary>
    private static readonly double[] hands = [0.5 - Math.Sqrt(0.15), 0.5 + Math.Sqrt(0.15)];

    private const double Weight = 5.0 / 18;

    /// <summary>The lot of a layer that is laid as usual.</summary>
    private const int AsUsual = Nodes;

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

    /// <summary>Which hand lays a layer in each of the stacks laid by several: every hand as often as any other, the layers shuffled apart.</summary>
    private readonly int[][] lots;

    public HandRanges(StackRun run)
    {
        this.run = run;
        ranges = new HandRangeSplit[run.Count + 1];
        colours = new double[run.Count + 1][];
        together = new double[run.Count + 1][];
        for (var level = 0; level <= run.Count; level++)
            (colours[level], together[level]) = (new double[level * Nodes * 9], new double[Together * 9]);
        var random = new Random(1);
        lots = Enumerable.Range(0, run.Count).Select(_ =>
        {
            var lot = Enumerable.Range(0, Together).Select(i => i < Together * Weight ? 0 : i < 2 * Together * Weight ? 1 : AsUsual).ToArray();
            random.Shuffle(lot);
            return lot;
        }).ToArray();
        for (var part = 0; part < run.Parts.Count; part++)
            if (run.Parts.Weight(part, 0) + run.Parts.Weight(part, 1) + run.Parts.Weight(part, 2) > 0)
                new Climb(this, part).Go();
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
            return Minus(Lab.FromXyz(Observer.ToXyz(new LinearRgb(at[0], at[1], at[2]))), usual.Lab);
        }

        var alone = new Lab[level * Nodes];
        for (var s = 0; s < alone.Length; s++)
            if (Math.Abs(colours[level][(s * 3 + position) * 3 + 1] - middle.G) + Math.Abs(colours[level][(s * 3 + position) * 3] - middle.R) + Math.Abs(colours[level][(s * 3 + position) * 3 + 2] - middle.B) > 1e-7)
                alone[s] = Away(colours[level], s);
        var sum = new Spread();
        Lab heavier = default;
        for (var i = 0; i < level; i++)
        {
            if (IsDead(alone.AsSpan(i * Nodes, Nodes)))
                continue;
            sum.Add(alone.AsSpan(i * Nodes, Nodes), Weight);
            heavier = Plus(heavier, Minus(alone[i * Nodes + Nodes - 1], alone[i * Nodes]));
        }

        if (sum.Total < LeastVariance)
            return new(usual, usual, 0, -1, 0, 0);
        Span<Lab> real = stackalloc Lab[Together], added = stackalloc Lab[Together];
        for (var n = 0; n < Together; n++)
        {
            real[n] = Away(together[level], n);
            for (var i = 0; i < level; i++)
                if (lots[i][n] is var node and not AsUsual)
                    added[n] = Plus(added[n], alone[i * Nodes + node]);
        }

        sum.Correct(real, added);
        var axis = sum.Axis();
        if (Dot(heavier, axis) < 0)
            axis = new(-axis.L, -axis.A, -axis.B);
        double variance = 0, third = 0, most = 0, squares = 0;
        var decides = -1;
        for (var i = 0; i < level; i++)
        {
            if (IsDead(alone.AsSpan(i * Nodes, Nodes)))
                continue;
            var (own, cubes) = Moments(alone.AsSpan(i * Nodes, Nodes), axis, Weight);
            third += cubes;
            variance += own;
            squares += own * own;
            if (own > most)
                (most, decides) = (own, i);
        }

        var whole = Math.Max(sum.Along(axis), LeastShare * variance);
        var deviation = Math.Sqrt(whole);
        var skewness = Math.Clamp((third + Moments(real, axis, 1.0 / Together).Cubes - Moments(added, axis, 1.0 / Together).Cubes) / (deviation * whole), -1.5, 1.5);
        var ends = EndsOfMany - LessForOne * Math.Min(1, squares / (variance * variance)) - LessForSkew * skewness * skewness;
        var shift = skewness * (ends * ends - 1) / 6;
        var thin = At(usual.Lab, sum.Mean, axis, deviation * (shift - ends));
        var heavy = At(usual.Lab, sum.Mean, axis, deviation * (shift + ends));
        var difference = ColourDifference.Ciede2000(thin.Lab, heavy.Lab);
        var aside = Math.Sqrt(AsideEnds * AsideEnds * Math.Max(0, sum.Total - whole) + Math.Pow(AsideOfLength * deviation, 2));
        return new(thin, heavy, difference, decides, difference * Math.Sqrt(most / Math.Max(variance, whole)), aside);
    }

    /// <summary>Less is the rounding of the arithmetic; and what layers do to each other never takes more than this off what they do alone.</summary>
    private const double LeastVariance = 1e-10, LeastShare = 0.1;

    /// <summary>The way from thin to heavy is bent: so much of its deviation counts as beside it.</summary>
    private const double AsideOfLength = 0.3;

    private static bool IsDead(ReadOnlySpan<Lab> points) => points.IndexOfAnyExcept(default(Lab)) < 0;

    /// <summary>Second and third central moment along an axis of points of one weight; what they lack to 1 lies at the usual.</summary>
    private static (double Squares, double Cubes) Moments(ReadOnlySpan<Lab> points, Lab axis, double weight)
    {
        double mean = 0, squares = 0, cubes = 0;
        foreach (var d in points)
        {
            var x = Dot(d, axis);
            mean += weight * x;
            squares += weight * x * x;
            cubes += weight * x * x * x;
        }

        return (squares - mean * mean, cubes - 3 * mean * squares + 2 * mean * mean * mean);
    }

    /// <summary>Mean and covariance of a sum of independent parts, in CIELAB.</summary>
    private struct Spread
    {
        private double ll, la, lb, aa, ab, bb;

        public Lab Mean { get; private set; }

        public readonly double Total => ll + aa + bb;

        /// <summary>Adds one part, given by values of it that weigh the same, the rest at the usual; or takes it away again.</summary>
        public void Add(ReadOnlySpan<Lab> points, double weight, double sign = 1)
        {
            double l = 0, a = 0, b = 0;
            var w = sign * weight;
            foreach (var d in points)
            {
                (l, a, b) = (l + weight * d.L, a + weight * d.A, b + weight * d.B);
                ll += w * d.L * d.L;
                la += w * d.L * d.A;
                lb += w * d.L * d.B;
                aa += w * d.A * d.A;
                ab += w * d.A * d.B;
                bb += w * d.B * d.B;
            }

            ll -= sign * l * l;
            la -= sign * l * a;
            lb -= sign * l * b;
            aa -= sign * a * a;
            ab -= sign * a * b;
            bb -= sign * b * b;
            Mean = new(Mean.L + sign * l, Mean.A + sign * a, Mean.B + sign * b);
        }

        /// <summary>Puts the sum right by what was really seen of stacks against what was added up for them.</summary>
        public void Correct(ReadOnlySpan<Lab> real, ReadOnlySpan<Lab> added)
        {
            var (l, a, b) = (ll, aa, bb);
            Add(real, 1.0 / Together);
            Add(added, 1.0 / Together, -1);
            (ll, aa, bb) = (Math.Max(ll, LeastShare * l), Math.Max(aa, LeastShare * a), Math.Max(bb, LeastShare * b));
        }

        public readonly double Along(Lab v) => v.L * (ll * v.L + 2 * la * v.A + 2 * lb * v.B) + v.A * (aa * v.A + 2 * ab * v.B) + v.B * bb * v.B;

        /// <summary>The direction of most variance, by repeated multiplication.</summary>
        public readonly Lab Axis()
        {
            var v = ll >= aa && ll >= bb ? new Lab(1, 0.1, 0.1) : aa >= bb ? new Lab(0.1, 1, 0.1) : new Lab(0.1, 0.1, 1);
            for (var round = 0; round < 24; round++)
            {
                var w = new Lab(ll * v.L + la * v.A + lb * v.B, la * v.L + aa * v.A + ab * v.B, lb * v.L + ab * v.A + bb * v.B);
                var length = Math.Sqrt(Dot(w, w));
                if (length == 0)
                    break;
                v = new(w.L / length, w.A / length, w.B / length);
            }

            return v;
        }
    }

    private static Seen At(Lab usual, Lab middle, Lab axis, double away)
    {
        var lab = new Lab(Math.Max(0, usual.L + middle.L + axis.L * away), usual.A + middle.A + axis.A * away, usual.B + middle.B + axis.B * away);
        return new Seen(Observer.ToLinear(Lab.ToXyz(lab)).ToSrgb(), lab);
    }

    private static Lab Plus(Lab a, Lab b) => new(a.L + b.L, a.A + b.A, a.B + b.B);

    private static Lab Minus(Lab a, Lab b) => new(a.L - b.L, a.A - b.A, a.B - b.B);

    private static double Dot(Lab a, Lab b) => a.L * b.L + a.A * b.A + a.B * b.B;

    /// <summary>One part of the zone, from the bare ground up: the usual surface, and that of every layer laid by every hand.</summary>
    private sealed class Climb(HandRanges all, int part)
    {
        private const int Size = 3 * N;
        private readonly StackRun run = all.run;
        private readonly List<double[]> states = [];
        private double[][] tracks = [];
        private readonly Dictionary<int, (double[][] States, double[][] Tracks)> kept = [];
        private readonly double[] t = new double[N], ts = new double[N], tks = new double[N];

        private bool Lies(Region region) => run.Parts.Lies(part, region);

        public void Go()
        {
            var needed = Needed();
            var usual = new double[Size];
            tracks = Enumerable.Range(0, Together).Select(_ => run.Inside(0, part).ToArray()).ToArray();
            for (var i = 0; i < run.Count; i++)
            {
                if (needed.Contains(i))
                    kept[i] = (Copies(states), Copies(tracks));
                run.Inside(i, part).CopyTo(usual);
                var layer = run.Layers[i];
                var laydown = TechniqueTable.For(layer.Technique, layer.Tool).Laydown;
                if (Lies(layer.Region))
                {
                    if (laydown is Laydown.Lift or Laydown.Rub)
                        Again(i);
                    else if (laydown == Laydown.Chip)
                        Chip(i, i, usual, Laying.Of(layer, run.Zone));
                    else
                        Lay(i, usual, Laying.Of(layer, run.Zone));
                }

                Fill(i + 1);
                Tell(i + 1);
            }
        }

        /// <summary>Stands for a state that is the usual one.</summary>
        private static readonly double[] Dead = [];

        /// <summary>Reflectance by which a state may miss the usual one and count as it: nothing to any eye, and it only fades.</summary>
        private const double AsGoodAsUsual = 2e-5;

        private static double[][] Copies(IEnumerable<double[]> of) => of.Select(s => s == Dead ? Dead : (double[])s.Clone()).ToArray();

        private HashSet<int> Needed()
        {
            var needed = new HashSet<int>();
            for (var i = 0; i < run.Count; i++)
                if (Lies(run.Layers[i].Region) && TechniqueTable.For(run.Layers[i].Technique).Laydown is var laydown and (Laydown.Lift or Laydown.Rub or Laydown.Chip))
                    needed.Add(laydown == Laydown.Chip ? TakingAway.LowestBroken(run.Layers, i) : run.LowestLaidAgain(run.Layers, i, part));
            return needed;
        }

        /// <summary>What a wipe or rub reaches is laid again on what was there, with what it takes taken away.</summary>
        private void Again(int index)
        {
            var lowest = run.LowestLaidAgain(run.Layers, index, part);
            if (lowest >= index)
                return;
            states.Clear();
            states.AddRange(Copies(kept[lowest].States));
            tracks = Copies(kept[lowest].Tracks);
            var usual = run.Inside(lowest, part).ToArray();
            for (var i = lowest; i < index; i++)
            {
                var layer = run.Layers[i];
                var figures = TechniqueTable.For(layer.Technique, layer.Tool);
                if (figures.Laydown == Laydown.Chip && Lies(layer.Region))
                    Chip(i, i, usual, Laying.Of(layer, run.Zone), moves: true);
                else if (figures.Leaves && Lies(layer.Region))
                    Lay(i, usual, Laying.Of(layer, run.Zone).Times(TakingAway.LeftOf(run.Layers, i, run.Zone, index + 1, Lies)), moves: true);
                Fill(i + 1);
            }
        }

        /// <summary>Layers that do not lie here, or lay nothing, leave every hand the usual surface.</summary>
        private void Fill(int level)
        {
            while (states.Count < level * Nodes)
                states.Add(Dead);
        }

        private void Lay(int index, double[] usual, Laid film, bool moves = false)
        {
            var layer = run.Layers[index];
            if (layer.Paint.Count == 0)
                return;
            Span<double> k = stackalloc double[N], s = stackalloc double[N], beta = stackalloc double[N];
            Carried.Optics(run.Layers, index, run.CarriesOver, k, s);
            KubelkaMunk.Beta(k, s, beta);
            for (var node = 0; node < Nodes; node++)
            {
                var own = (double[])usual.Clone();
                var laid = Hand.Of(layer, film, hands[node]);
                for (var p = 0; p < 3; p++)
                {
                    if (!Prepare(k, s, beta, laid, p))
                        continue;
                    Put(own.AsSpan(p * N, N), laid.Cover[(Position)p], laid.Passes);
                    for (var n = 0; n < Together; n++)
                        if (all.lots[index][n] == node)
                            Put(tracks[n].AsSpan(p * N, N), laid.Cover[(Position)p], laid.Passes);
                }

                states.Add(own);
            }

            for (var p = 0; p < 3; p++)
            {
                if (!Prepare(k, s, beta, film, p))
                    continue;
                for (var i = 0; i < states.Count - Nodes; i++)
                    if (states[i] != Dead)
                        Put(states[i].AsSpan(p * N, N), film.Cover[(Position)p], film.Passes);
                for (var n = 0; n < Together; n++)
                    if (all.lots[index][n] == AsUsual)
                        Put(tracks[n].AsSpan(p * N, N), film.Cover[(Position)p], film.Passes);
                if (moves)
                    Put(usual.AsSpan(p * N, N), film.Cover[(Position)p], film.Passes);
            }
        }

        private void Chip(int index, int level, double[] usual, Laid broken, bool moves = false)
        {
            var core = TakingAway.LowestBroken(run.Layers, index);
            if (core >= level)
                return;
            var below = run.Inside(core, part);
            var was = kept[core];
            for (var node = 0; node < Nodes; node++)
            {
                var own = (double[])usual.Clone();
                var share = Hand.Of(run.Layers[index], broken, hands[node]).Covered;
                Show(own, below, share);
                for (var n = 0; n < Together; n++)
                    if (all.lots[index][n] == node)
                        Show(tracks[n], was.Tracks[n], share);
                states.Add(own);
            }

            for (var n = 0; n < Together; n++)
                if (all.lots[index][n] == AsUsual)
                    Show(tracks[n], was.Tracks[n], broken.Covered);
            for (var i = 0; i < states.Count - Nodes; i++)
                if (states[i] == Dead && i < was.States.Length && was.States[i] != Dead)
                    states[i] = (double[])usual.Clone();
            for (var i = 0; i < states.Count - Nodes; i++)
                if (states[i] != Dead)
                    Show(states[i], i < was.States.Length && was.States[i] != Dead ? was.States[i] : below, broken.Covered);
            if (moves)
                Show(usual, below, broken.Covered);
        }

        private static void Show(double[] state, ReadOnlySpan<double> core, Split share)
        {
            for (var p = 0; p < 3; p++)
                for (var i = p * N; i < (p + 1) * N; i++)
                    state[i] += share[(Position)p] * (core[i] - state[i]);
        }

        /// <summary>A film as R → (ts + (1 - t(k + s)) R) / (1 + t(k + s) - ts R), t = tanh(beta x) / beta.</summary>
        private bool Prepare(ReadOnlySpan<double> k, ReadOnlySpan<double> s, ReadOnlySpan<double> beta, Laid laid, int p)
        {
            double um = laid.FilmUm[(Position)p], cover = laid.Cover[(Position)p];
            if (um <= 0 || cover <= 0 || run.Parts.Weight(part, p) <= 0)
                return false;
            var depths = MemoryMarshal.Cast<double, Vector<double>>(beta);
            var times = MemoryMarshal.Cast<double, Vector<double>>(t.AsSpan());
            for (var i = 0; i < times.Length; i++)
            {
                var depth = depths[i] * um;
                var e = Vector.Exp(Vector.Max(depth * -2, new Vector<double>(-40)));
                times[i] = Vector.ConditionalSelect(Vector.LessThan(depth, new Vector<double>(1e-3)), um * (Vector<double>.One - depth * depth * (1.0 / 3)), (Vector<double>.One - e) / ((Vector<double>.One + e) * depths[i]));
            }

            for (var i = times.Length * Vector<double>.Count; i < N; i++)
                t[i] = beta[i] * um < 1e-3 ? um : Math.Tanh(beta[i] * um) / beta[i];
            for (var i = 0; i < N; i++)
            {
                ts[i] = t[i] * s[i];
                tks[i] = t[i] * (k[i] + s[i]);
            }

            return true;
        }

        private void Put(Span<double> ground, double cover, int passes)
        {
            Span<Vector<double>> grounds = MemoryMarshal.Cast<double, Vector<double>>(ground), a = MemoryMarshal.Cast<double, Vector<double>>(ts.AsSpan()), b = MemoryMarshal.Cast<double, Vector<double>>(tks.AsSpan());
            for (var pass = 0; pass < passes; pass++)
            {
                for (var i = 0; i < grounds.Length; i++)
                {
                    var over = (a[i] + (Vector<double>.One - b[i]) * grounds[i]) / (Vector<double>.One + b[i] - a[i] * grounds[i]);
                    grounds[i] += cover * (over - grounds[i]);
                }

                for (var i = grounds.Length * Vector<double>.Count; i < N; i++)
                    ground[i] += cover * ((ts[i] + (1 - tks[i]) * ground[i]) / (1 + tks[i] - ts[i] * ground[i]) - ground[i]);
            }
        }

        /// <summary>Adds what is shown of every state at a level, by this part's share of each position.</summary>
        private void Tell(int level)
        {
            var usual = run.Inside(level, part);
            Span<double> asUsual = stackalloc double[9];
            Tell(usual, level, asUsual);
            for (var s = 0; s < level * Nodes; s++)
            {
                if (states[s] != Dead && Missed(states[s], usual) < AsGoodAsUsual)
                    states[s] = Dead;
                if (states[s] != Dead)
                    Tell(states[s], level, all.colours[level].AsSpan(s * 9, 9));
                else
                    for (var i = 0; i < 9; i++)
                        all.colours[level][s * 9 + i] += asUsual[i];
            }

            for (var n = 0; n < Together; n++)
                Tell(tracks[n], level, all.together[level].AsSpan(n * 9, 9));
        }

        private static double Missed(double[] state, ReadOnlySpan<double> usual)
        {
            var most = 0.0;
            for (var i = 0; i < Size; i += 5)
                most = Math.Max(most, Math.Abs(state[i] - usual[i]));
            return most;
        }

        private void Tell(ReadOnlySpan<double> state, int level, Span<double> told)
        {
            for (var p = 0; p < 3; p++)
            {
                var weight = run.Parts.Weight(part, p);
                if (weight <= 0)
                    continue;
                var linear = Surface.Of(run.First(level, part, p)).Linear(state.Slice(p * N, N));
                told[p * 3] += weight * linear.R;
                told[p * 3 + 1] += weight * linear.G;
                told[p * 3 + 2] += weight * linear.B;
            }
        }
    }
}
