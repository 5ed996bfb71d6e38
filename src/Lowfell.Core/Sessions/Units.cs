namespace Lowfell.Core.Sessions;

/// <summary>
/// Operations that are placed together: those tied by a window, with all that lies between them. Found as the strongly connected
/// components of the waits, with every window walked both ways (Tarjan 1972); the units are left in an order that the waits allow.
/// </summary>
internal sealed class Units
{
    private readonly Facts facts;
    private readonly int[] index, low;
    private readonly bool[] open;
    private readonly Stack<int> stack = new();
    private readonly List<int[]> found = [];
    private int next = 1;

    public Units(Facts facts)
    {
        this.facts = facts;
        (index, low, open) = (new int[facts.Count], new int[facts.Count], new bool[facts.Count]);
        for (var i = 0; i < facts.Count; i++)
            if (index[i] == 0)
                Visit(i);

        // Components come out with those that others wait for first, since edges are walked towards what comes before.
        All = [.. found];
        Of = new int[facts.Count];
        for (var u = 0; u < All.Length; u++)
            foreach (var o in All[u])
                Of[o] = u;
        Before = All.Select((unit, u) => unit.SelectMany(o => facts.Before[o]).Select(l => Of[l.To]).Where(b => b != u).Distinct().ToArray()).ToArray();
        var later = All.Select(_ => new List<int>()).ToArray();
        for (var u = 0; u < All.Length; u++)
            foreach (var b in Before[u])
                later[b].Add(u);
        Later = later.Select(l => l.ToArray()).ToArray();
        for (var u = 0; u < All.Length; u++)
            if (All[u].Length > 1)
                All[u] = InOrder(All[u]);
    }

    /// <summary>Operations of each unit, each after those it waits for.</summary>
    public int[][] All { get; }

    /// <summary>The unit of an operation.</summary>
    public int[] Of { get; }

    public int[][] Before { get; }
    public int[][] Later { get; }

    /// <summary>Walks without recursion: a chain may be thousands long.</summary>
    private void Visit(int root)
    {
        var walk = new Stack<(int Node, int Edge)>();
        Open(root);
        walk.Push((root, 0));
        while (walk.TryPop(out var at))
        {
            var (node, edge) = at;
            var (before, later) = (facts.Before[node], facts.Later[node]);
            var pushed = false;
            for (; edge < before.Length + later.Length && !pushed; edge++)
            {
                var back = edge >= before.Length;
                var link = back ? later[edge - before.Length] : before[edge];
                if (back && link.Max >= Facts.Never)
                    continue;
                if (index[link.To] == 0)
                {
                    walk.Push((node, edge + 1));
                    Open(link.To);
                    walk.Push((link.To, 0));
                    pushed = true;
                }
                else if (open[link.To])
                    low[node] = Math.Min(low[node], index[link.To]);
            }

            if (pushed)
                continue;
            if (low[node] == index[node])
                Close(node);
            if (walk.TryPeek(out var parent))
                low[parent.Node] = Math.Min(low[parent.Node], low[node]);
        }
    }

    private void Open(int node)
    {
        index[node] = low[node] = next++;
        stack.Push(node);
        open[node] = true;
    }

    private void Close(int node)
    {
        var unit = new List<int>();
        int o;
        do
        {
            o = stack.Pop();
            open[o] = false;
            unit.Add(o);
        }
        while (o != node);
        unit.Sort();
        found.Add([.. unit]);
    }

    private int[] InOrder(int[] unit)
    {
        var mine = unit.ToHashSet();
        var waits = unit.ToDictionary(o => o, o => facts.Before[o].Select(l => l.To).Where(mine.Contains).Distinct().Count());
        var ready = new PriorityQueue<int, int>(unit.Where(o => waits[o] == 0).Select(o => (o, o)));
        var order = new List<int>();
        while (ready.TryDequeue(out var o, out _))
        {
            order.Add(o);
            foreach (var later in facts.Later[o].Select(l => l.To).Where(mine.Contains).Distinct())
                if (--waits[later] == 0)
                    ready.Enqueue(later, later);
        }

        return order.Count == unit.Length ? [.. order] : throw new ArgumentException("Operations wait for each other in a circle.");
    }
}
