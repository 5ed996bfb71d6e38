namespace Lowfell.Core.Sessions;

/// <summary>Lists of operations to begin with. Each is one that the waits allow.</summary>
internal static class Orders
{
    /// <summary>Layer by layer, as a batch is worked through; a few pieces at a time through each window; the longest way to go first; as they were given.</summary>
    public static IEnumerable<int[]> All(Facts f)
    {
        var (depth, tail) = (Depth(f), Tail(f));
        var groups = Groups(f, depth);
        yield return By(f, o => (depth[o], f.SetUp[o], o));
        if (f.Work.Deadlines.Count > 0)
            yield return By(f, o => (f.Due[o], depth[o], o));
        yield return By(f, o => (groups[o], depth[o], o));
        yield return By(f, o => (-tail[o], f.SetUp[o], o));
        yield return By(f, o => (o, 0, 0));
    }

    /// <summary>Always the one of those that may come next with the smallest key.</summary>
    public static int[] By(Facts f, Func<int, (double, double, double)> key)
    {
        var waits = f.Before.Select(b => b.Length).ToArray();
        var ready = new PriorityQueue<int, (double, double, double)>();
        for (var o = 0; o < waits.Length; o++)
            if (waits[o] == 0)
                ready.Enqueue(o, key(o));
        var order = new int[waits.Length];
        for (var i = 0; i < order.Length; i++)
        {
            var o = order[i] = ready.Dequeue();
            foreach (var (later, _, _) in f.Later[o])
                if (--waits[later] == 0)
                    ready.Enqueue(later, key(later));
        }

        return order;
    }

    /// <summary>Units of the same depth in groups: what a window ties is done for a few pieces before it begins for the next.</summary>
    private static double[] Groups(Facts f, int[] depth)
    {
        var units = f.Units.All;
        var key = new double[f.Count];
        foreach (var level in Enumerable.Range(0, units.Length).GroupBy(u => units[u].Max(o => depth[o])))
        {
            var at = 0;
            foreach (var u in level.OrderBy(u => units[u][0]))
            {
                foreach (var o in units[u])
                    key[o] = level.Key + (units[u].Length > 1 ? at / AtOnce * 1e-4 : 0);
                at++;
            }
        }

        return key;
    }

    private const int AtOnce = 6;

    private static int[] Depth(Facts f)
    {
        var depth = new int[f.Count];
        foreach (var unit in f.Units.All)
            foreach (var o in unit)
                foreach (var (q, _, _) in f.Before[o])
                    depth[o] = Math.Max(depth[o], depth[q] + 1);
        return depth;
    }

    /// <summary>Minutes of work and waiting from the start of each to the end of what follows it at the longest.</summary>
    private static double[] Tail(Facts f)
    {
        var tail = new double[f.Count];
        for (var u = f.Units.All.Length - 1; u >= 0; u--)
            foreach (var o in f.Units.All[u].Reverse())
            {
                tail[o] = f.Length[o];
                foreach (var (q, min, _) in f.Later[o])
                    tail[o] = Math.Max(tail[o], f.Length[o] + Math.Max(0, min) + tail[q]);
            }

        return tail;
    }
}
