namespace Lowfell.Core.Sessions;

/// <summary>What no timetable can be better than.</summary>
/// <param name="LastStretch">Index of the earliest last stretch.</param>
/// <param name="Sessions">Fewest stretches.</param>
/// <param name="Finish">Earliest end of the last operation.</param>
public sealed record Bound(int LastStretch, int Sessions, int Finish);

/// <summary>
/// Lower bounds: the longest chain of work and waits walked through the hours, and for every run of stretches the work that can lie
/// nowhere else against the hands there are (energetic reasoning, Baptiste, Le Pape and Nuijten 1999).
/// </summary>
internal static class Bounds
{
    /// <summary>Null where the chains alone show that there is no timetable.</summary>
    public static Bound? Of(Facts f)
    {
        if (f.Count == 0)
            return new Bound(-1, 0, 0);
        if (Heads(f) is not { } head)
            return null;
        var finish = Enumerable.Range(0, f.Count).Max(o => head[o] + f.Length[o]);
        var last = head.Max(f.StretchAfter);
        for (; last < f.End.Length && !CanEndIn(f, head, last); last++)
        {
        }

        if (last >= f.End.Length)
            return null;
        finish = Math.Max(finish, ByHands(f, last));
        return new Bound(last, Sessions(f), finish);
    }

    /// <summary>The earliest start of each operation by its chain and the hours; null where one finds none.</summary>
    public static int[]? Heads(Facts f)
    {
        var head = new int[f.Count];
        for (var round = 0; ; round++)
        {
            var moved = false;
            foreach (var unit in f.Units.All)
                foreach (var o in unit)
                {
                    var from = Math.Max(head[o], f.NotBefore[o]);
                    foreach (var (q, min, _) in f.Before[o])
                        from = Math.Max(from, head[q] + f.Length[q] + min);

                    // A window pulls what comes before it along.
                    foreach (var (q, _, max) in f.Later[o])
                        if (max < Facts.Never)
                            from = Math.Max(from, head[q] - max - f.Length[o]);
                    from = InHours(f, o, from);
                    if (from >= Facts.Never || from > f.NotAfter[o])
                        return null;
                    if (from == head[o])
                        continue;
                    head[o] = from;
                    moved = true;
                }

            // However far it has come, no start is earlier than what is found by then.
            if (!moved || round > MostRounds)
                return head;
        }
    }

    private const int MostRounds = 200;

    /// <summary>The first start from a minute on at which an operation alone could lie in the hours, its set-up and clean-up among them.</summary>
    private static int InHours(Facts f, int o, int from)
    {
        var (length, set) = (f.Length[o], f.SetUp[o]);
        int ready = set >= 0 ? f.Ready[set] : 0, clean = set >= 0 ? f.Clean[set] : 0;
        for (var s = f.StretchAfter(from); s < f.Begin.Length; s++)
        {
            var t = Math.Max(from, f.Begin[s] + ready);
            if (f.Sprays[o])
                t = f.SprayFrom(t, length);
            if (t + length + clean <= f.End[s])
                return t;
        }

        return Facts.Never;
    }

    private static int InHoursBack(Facts f, int o, int latest)
    {
        var (length, set) = (f.Length[o], f.SetUp[o]);
        int ready = set >= 0 ? f.Ready[set] : 0, clean = set >= 0 ? f.Clean[set] : 0;
        for (var s = Math.Min(f.StretchAfter(latest), f.Begin.Length - 1); s >= 0; s--)
        {
            var t = Math.Min(latest, f.End[s] - clean - length);
            if (f.Sprays[o])
                t = f.SprayUpTo(t, length);
            if (t >= f.Begin[s] + ready)
                return t;
        }

        return -1;
    }

    private static bool CanEndIn(Facts f, int[] head, int last)
    {
        var tail = new int[f.Count];
        Array.Fill(tail, f.End[last]);
        for (var u = f.Units.All.Length - 1; u >= 0; u--)
            for (var i = f.Units.All[u].Length - 1; i >= 0; i--)
            {
                var o = f.Units.All[u][i];
                var latest = Math.Min(f.End[last] - f.Length[o], f.NotAfter[o]);
                foreach (var (q, min, _) in f.Later[o])
                    latest = Math.Min(latest, tail[q] - min - f.Length[o]);
                tail[o] = InHoursBack(f, o, latest);
                if (tail[o] < head[o])
                    return false;
            }

        // Work that lies wholly within a run of stretches, against the hands there.
        var first = head.Select(h => f.StretchAfter(h)).ToArray();
        var final = tail.Select(t => f.StretchAfter(t)).ToArray();
        var byFirst = Enumerable.Range(0, f.Count).OrderByDescending(o => first[o]).ToArray();
        for (var j = last; j >= 0; j--)
        {
            long room = 0, need = 0;
            var at = 0;
            for (var i = j; i >= 0; i--)
            {
                room += (long)f.Painters * (f.End[i] - f.Begin[i]);
                for (; at < byFirst.Length && first[byFirst[at]] >= i; at++)
                    if (final[byFirst[at]] <= j)
                        need += f.Length[byFirst[at]];
                if (need > room)
                    return false;
            }

            // Deep runs of a long plan are alike: a few ends say what there is to say.
            if (last - j > MostEnds)
                break;
        }

        return SetUpsOf(f) + f.Minutes <= Enumerable.Range(0, last + 1).Sum(s => (long)f.Painters * (f.End[s] - f.Begin[s]));
    }

    private const int MostEnds = 40;

    /// <summary>Whatever the order, each set-up is got ready and cleaned at least once.</summary>
    private static long SetUpsOf(Facts f) => f.SetUp.Where(s => s >= 0).Distinct().Sum(s => (long)f.Ready[s] + f.Clean[s]);

    private static int ByHands(Facts f, int last)
    {
        var need = f.Minutes + f.SetUp.Where(s => s >= 0).Distinct().Sum(s => (long)f.Ready[s]);
        for (var s = 0; s <= last; s++)
        {
            var room = (long)f.Painters * (f.End[s] - f.Begin[s]);
            if (need <= room)
                return Math.Max(f.Begin[last], (int)(f.Begin[s] + (need + f.Painters - 1) / f.Painters));
            need -= room;
        }

        return f.Begin[last];
    }

    private static int Sessions(Facts f)
    {
        var need = f.Minutes + SetUpsOf(f);
        var byLength = Enumerable.Range(0, f.Begin.Length).Select(s => f.End[s] - f.Begin[s]).OrderDescending().ToList();
        var byHands = 0;
        for (long room = 0; room < need && byHands < byLength.Count; byHands++)
            room += (long)f.Painters * byLength[byHands];

        // Two that no stretch holds together lie in two.
        var longest = byLength[0];
        var chain = new int[f.Count];
        foreach (var unit in f.Units.All)
            foreach (var o in unit)
            {
                chain[o] = 1;
                foreach (var (q, min, _) in f.Before[o].Where(l => l.Min >= -f.Length[l.To]))
                    chain[o] = Math.Max(chain[o], chain[q] + (min + f.Length[q] + f.Length[o] > longest ? 1 : 0));
            }

        return Math.Max(byHands, chain.Max());
    }
}
