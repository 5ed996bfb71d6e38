namespace Lowfell.Core.Sessions;

/// <summary>Placing an operation so that every window is kept.</summary>
internal sealed partial class Board
{
    /// <summary>
    /// Places an operation. Where it would miss a window, what it waits for is taken up again with all that follows it, and comes later
    /// itself. False, with it placed nowhere, where there is no room at all.
    /// </summary>
    public bool Place(int o)
    {
        for (var tries = 0; tries < MostTries; tries++)
        {
            var (earliest, latest, tight) = Bounds(o);
            if (!Earliest(o, Math.Max(earliest, release[o]), out var start, out var slot))
                return false;
            if (start <= latest)
            {
                Put(o, start, slot);
                return true;
            }

            if (tight < 0 || repairs >= 50 + f.Count)
                return false;
            var needed = start - (latest - EndOf(tight)) - f.Length[tight];
            if (!Again(tight, Math.Max(needed, Start[tight] + 1)))
                return false;
        }

        return false;
    }

    private const int MostTries = 40;

    /// <summary>Begins a filling anew: what windows have asked for so far is forgotten.</summary>
    public void Forget()
    {
        Array.Clear(release);
        repairs = 0;
    }

    /// <summary>Takes an operation and all that lies after it up again, and places it later.</summary>
    private bool Again(int q, int notBefore)
    {
        repairs++;
        release[q] = Math.Max(release[q], notBefore);
        var after = new List<int>();
        Collect(q, after);
        after.Sort((a, b) => (Start[a], a).CompareTo((Start[b], b)));
        foreach (var o in after)
            Take(o);
        foreach (var o in after)
            if (!Lies(o) && !Place(o))
                return false;
        return true;
    }

    /// <summary>Takes up all that waits for an operation, and what waits for that.</summary>
    public List<int> TakeAfter(int o)
    {
        var after = new List<int>();
        Collect(o, after);
        after.Remove(o);
        foreach (var later in after)
            Take(later);
        return after;
    }

    private void Collect(int o, List<int> into)
    {
        if (into.Contains(o))
            return;
        into.Add(o);
        foreach (var (q, _, _) in f.Later[o])
            if (Lies(q))
                Collect(q, into);
    }

    /// <summary>When an operation may start by what lies already, and whose window says so.</summary>
    private (int Earliest, int Latest, int Tight) Bounds(int o)
    {
        int earliest = Math.Max(f.NotBefore[o], NotBefore[o]), latest = f.NotAfter[o], tight = -1;
        foreach (var (q, min, max) in f.Before[o])
        {
            if (!Lies(q))
                continue;
            var end = EndOf(q);
            earliest = Math.Max(earliest, end + min);
            if (max < Facts.Never && end + max < latest)
                (latest, tight) = (end + max, q);
        }

        foreach (var (q, min, max) in f.Later[o])
        {
            if (!Lies(q))
                continue;
            if (Start[q] - min - f.Length[o] < latest)
                (latest, tight) = (Start[q] - min - f.Length[o], -1);
            if (max < Facts.Never)
                earliest = Math.Max(earliest, Start[q] - max - f.Length[o]);
        }

        return (earliest, latest, tight);
    }
}
