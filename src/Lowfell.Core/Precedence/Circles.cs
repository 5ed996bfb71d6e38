namespace Lowfell.Core.Precedence;

/// <summary>Breaks circles at the cheapest: of edges that can be turned round, those are dropped that close a circle with dearer ones.</summary>
internal sealed class Circles
{
    public Circles(int steps, List<Before> edges, Func<Before, double> minutes)
    {
        var inCircles = InCircles(steps, edges);
        if (inCircles.Count == 0)
        {
            (Kept, Dropped) = (edges, []);
            return;
        }

        // What lies on no circle closes none, and no way from one that does to another leads over it.
        var (kept, dropped) = (new List<Before>(), new List<Before>());
        var place = inCircles.Select((s, i) => (s, i)).ToDictionary(x => x.s, x => x.i);
        var follows = new Follows(inCircles.Count);
        foreach (var edge in edges.Where(e => !e.IsPriced).Concat(edges.Where(e => e.IsPriced).OrderByDescending(minutes).ThenBy(e => e.First).ThenBy(e => e.Second)))
            if (!place.TryGetValue(edge.First, out var first) || !place.TryGetValue(edge.Second, out var second) || follows.Add(first, second))
                kept.Add(edge);
            else if (edge.IsPriced)
                dropped.Add(edge);
        (Kept, Dropped) = (kept, dropped);
    }

    public IReadOnlyList<Before> Kept { get; }
    public IReadOnlyList<Before> Dropped { get; }

    /// <summary>What is left once, again and again, all is taken away that nothing comes before, or that comes before nothing.</summary>
    private static List<int> InCircles(int steps, List<Before> edges)
    {
        var (into, from) = (edges.ToLookup(e => e.Second, e => e.First), edges.ToLookup(e => e.First, e => e.Second));
        var (earlier, later, gone) = (new int[steps], new int[steps], new bool[steps]);
        foreach (var edge in edges)
        {
            earlier[edge.Second]++;
            later[edge.First]++;
        }

        var free = new Stack<int>(Enumerable.Range(0, steps).Where(s => earlier[s] == 0 || later[s] == 0));
        while (free.TryPop(out var step))
        {
            if (gone[step])
                continue;
            gone[step] = true;
            foreach (var next in from[step])
                if (--earlier[next] == 0)
                    free.Push(next);
            foreach (var before in into[step])
                if (--later[before] == 0)
                    free.Push(before);
        }

        return Enumerable.Range(0, steps).Where(s => !gone[s]).ToList();
    }
}
