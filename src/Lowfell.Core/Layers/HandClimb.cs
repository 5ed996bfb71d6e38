using Lowfell.Core.Colour;

namespace Lowfell.Core.Layers;

/// <summary>One part of the zone, from the bare ground up: the usual surface, and that of every layer laid by every hand.</summary>
internal sealed class HandClimb(StackRun run, int part, int[][] lots, double[][] alone, double[][] together)
{
    private const int N = Observer.Bands, Size = 3 * N;
    private readonly List<double[]> states = [];
    private double[][] tracks = [];
    private readonly Dictionary<int, (double[][] States, double[][] Tracks)> kept = [];
    private readonly double[] lets = new double[N], through = new double[N];

    private bool Lies(Region region) => run.Parts.Lies(part, region);

    public void Go()
    {
        var needed = Needed();
        var usual = new double[Size];
        tracks = Enumerable.Range(0, HandSample.Together).Select(_ => run.Inside(0, part).ToArray()).ToArray();
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
                needed.Add(laydown == Laydown.Chip ? TakingAway.LowestBroken(run.Layers, i) : run.LowestLaidAgain(i, part));
        return needed;
    }

    /// <summary>What a wipe or rub reaches is laid again on what was there, with what it takes taken away.</summary>
    private void Again(int index)
    {
        var lowest = run.LowestLaidAgain(index, part);
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
        while (states.Count < level * HandSample.Nodes)
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
        for (var node = 0; node < HandSample.Nodes; node++)
        {
            var own = (double[])usual.Clone();
            var laid = Hand.Of(layer, film, HandSample.Hands[node]);
            for (var p = 0; p < 3; p++)
            {
                if (!Prepare(k, s, beta, laid, p))
                    continue;
                Put(own.AsSpan(p * N, N), laid.Cover[(Position)p], laid.Passes);
                for (var n = 0; n < HandSample.Together; n++)
                    if (lots[index][n] == node)
                        Put(tracks[n].AsSpan(p * N, N), laid.Cover[(Position)p], laid.Passes);
            }

            states.Add(own);
        }

        for (var p = 0; p < 3; p++)
        {
            if (!Prepare(k, s, beta, film, p))
                continue;
            for (var i = 0; i < states.Count - HandSample.Nodes; i++)
                if (states[i] != Dead)
                    Put(states[i].AsSpan(p * N, N), film.Cover[(Position)p], film.Passes);
            for (var n = 0; n < HandSample.Together; n++)
                if (lots[index][n] == HandSample.AsUsual)
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
        for (var node = 0; node < HandSample.Nodes; node++)
        {
            var own = (double[])usual.Clone();
            var share = Hand.Of(run.Layers[index], broken, HandSample.Hands[node]).Covered;
            Show(own, below, share);
            for (var n = 0; n < HandSample.Together; n++)
                if (lots[index][n] == node)
                    Show(tracks[n], was.Tracks[n], share);
            states.Add(own);
        }

        for (var n = 0; n < HandSample.Together; n++)
            if (lots[index][n] == HandSample.AsUsual)
                Show(tracks[n], was.Tracks[n], broken.Covered);
        for (var i = 0; i < states.Count - HandSample.Nodes; i++)
            if (states[i] == Dead && i < was.States.Length && was.States[i] != Dead)
                states[i] = (double[])usual.Clone();
        for (var i = 0; i < states.Count - HandSample.Nodes; i++)
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

    /// <summary>Works out what a film does at one position; false where it does nothing.</summary>
    private bool Prepare(ReadOnlySpan<double> k, ReadOnlySpan<double> s, ReadOnlySpan<double> beta, Laid laid, int p)
    {
        if (laid.FilmUm[(Position)p] is not (> 0 and var um) || laid.Cover[(Position)p] <= 0 || run.Parts.Weight(part, p) <= 0)
            return false;
        KubelkaMunk.Film(k, s, beta, um, lets, through);
        return true;
    }

    private void Put(Span<double> ground, double cover, int passes) => KubelkaMunk.Lay(lets, through, cover, passes, ground);

    /// <summary>Adds what is shown of every state at a level, by this part's share of each position.</summary>
    private void Tell(int level)
    {
        var usual = run.Inside(level, part);
        Span<double> asUsual = stackalloc double[9];
        Tell(usual, level, asUsual);
        for (var s = 0; s < level * HandSample.Nodes; s++)
        {
            if (states[s] != Dead && Missed(states[s], usual) < AsGoodAsUsual)
                states[s] = Dead;
            if (states[s] != Dead)
                Tell(states[s], level, alone[level].AsSpan(s * 9, 9));
            else
                for (var i = 0; i < 9; i++)
                    alone[level][s * 9 + i] += asUsual[i];
        }

        for (var n = 0; n < HandSample.Together; n++)
            Tell(tracks[n], level, together[level].AsSpan(n * 9, 9));
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
