namespace Lowfell.Core.Precedence;

/// <summary>The layers of the zones of a piece, those that are one application once.</summary>
internal sealed class PieceSteps
{
    public PieceSteps(IReadOnlyList<PieceZone> zones)
    {
        var known = new Dictionary<(Guid Treatment, Guid Step, Guid Surface, int Layer), int>();
        var on = new List<List<(int, int)>>();
        var names = new List<(Guid Treatment, Guid Step)>();
        (Of, At) = (new int[zones.Count][], new double[zones.Count][]);
        for (var z = 0; z < zones.Count; z++)
        {
            var zone = zones[z];
            (Of[z], At[z]) = (new int[zone.Layers.Count], new double[zone.Layers.Count]);
            for (var i = 0; i < zone.Layers.Count; i++)
            {
                // One that was just put in has no step yet, and perhaps no line: it lies a little above the one below it.
                var line = zone.Layers[i].Id;
                var stored = zone.Steps.TryGetValue(line, out var found);
                At[z][i] = stored ? found.At : (i > 0 ? At[z][i - 1] : -1) + 1.0 / (zone.Layers.Count + 1);
                var key = stored ? (zone.Treatment, found.Step, default, 0) : line != default ? (zone.Treatment, line, default, 0) : (zone.Treatment, default(Guid), zone.Surface, i);
                if (!known.TryGetValue(key, out var step))
                {
                    known[key] = step = on.Count;
                    on.Add([]);
                    names.Add((key.Item1, key.Item2));
                }

                Of[z][i] = step;
                on[step].Add((z, i));
            }
        }

        All = names.Select((n, s) => new PieceStep(n.Treatment, n.Step, on[s])).ToList();
    }

    public IReadOnlyList<PieceStep> All { get; }

    /// <summary>The step of every layer of every zone.</summary>
    public int[][] Of { get; }

    private double[][] At { get; }

    /// <summary>The place of a step in the order of its treatment, as one of its zones has it.</summary>
    public double PlaceOf(int step, int zone) => At[zone][All[step].On.First(o => o.Zone == zone).Layer];

    /// <summary>Whether a step goes over a zone.</summary>
    public bool GoesOver(int step, int zone)
    {
        foreach (var (z, _) in All[step].On)
            if (z == zone)
                return true;
        return false;
    }
}
