namespace Lowfell.Core.Sessions;

/// <summary>
/// A timetable as it fills up. An operation goes to the earliest place that keeps to its waits, the hours, the set-ups around it, the
/// spray place, the dryer, what may not be wet beside it and the places to dry: the serial schedule generation scheme (Kelley 1963)
/// with insertion, so that what comes later in the list can still use a gap.
/// </summary>
internal sealed class Board
{
    private const int None = -1;
    private readonly Facts f;
    private readonly int stretches, painters;
    private readonly int[][] seq;
    private readonly int[] count, load, free, release, reached;
    private int repairs;
    private readonly Drying? drying;

    public Board(Facts facts)
    {
        f = facts;
        (stretches, painters) = (f.Begin.Length, f.Painters);
        seq = new int[stretches * painters][];
        (count, load, free) = (new int[seq.Length], new int[seq.Length], new int[seq.Length]);
        for (var i = 0; i < seq.Length; i++)
            (seq[i], free[i]) = (new int[4], f.End[i / painters] - f.Begin[i / painters]);
        release = new int[f.Count];
        reached = new int[painters];
        Array.Fill(reached, None);
        (Start, Slot) = (new int[f.Count], new int[f.Count]);
        Array.Fill(Slot, None);
        NotBefore = new int[f.Count];
        Allowed = new bool[stretches];
        Array.Fill(Allowed, true);
        Close = Facts.Never;
        drying = f.Places < Facts.Never ? new Drying(f.Places) : null;
    }

    /// <summary>Start of each operation that lies somewhere.</summary>
    public int[] Start { get; }

    /// <summary>Stretch × painters + painter; -1 where it lies nowhere.</summary>
    public int[] Slot { get; }

    /// <summary>A search's own wish: not before this minute.</summary>
    public int[] NotBefore { get; }

    /// <summary>Stretches that may be used.</summary>
    public bool[] Allowed { get; }

    /// <summary>Whatever comes in the list comes after all before it: the list is the order of work then. Otherwise it may use a gap.</summary>
    public bool Appends { get; set; }

    /// <summary>Nothing ends after it.</summary>
    public int Close { get; set; }

    public bool Lies(int o) => Slot[o] != None;

    public int EndOf(int o) => Start[o] + f.Length[o];

    public int StretchOf(int o) => Slot[o] / painters;

    public int PainterOf(int o) => Slot[o] % painters;

    public ReadOnlySpan<int> In(int stretch, int painter) => seq[stretch * painters + painter].AsSpan(0, count[stretch * painters + painter]);

    public int LoadOf(int stretch)
    {
        var sum = 0;
        for (var p = 0; p < painters; p++)
            sum += load[stretch * painters + p];
        return sum;
    }

    public void Put(int o, int start, int slot)
    {
        var (list, n) = (seq[slot], count[slot]);
        if (n == list.Length)
            Array.Resize(ref seq[slot], n * 2);
        list = seq[slot];
        var at = n;
        while (at > 0 && Start[list[at - 1]] > start)
        {
            list[at] = list[at - 1];
            at--;
        }

        // What takes no time lies before what begins at the same minute.
        while (at > 0 && Start[list[at - 1]] == start && f.Length[o] == 0 && f.Length[list[at - 1]] > 0)
        {
            list[at] = list[at - 1];
            at--;
        }

        list[at] = o;
        count[slot] = n + 1;
        load[slot] += f.Length[o];
        (Start[o], Slot[o]) = (start, slot);
        reached[slot % painters] = Math.Max(reached[slot % painters], slot / painters);
        free[slot] = FreeIn(slot);
        drying?.Add(EndOf(o), EndOf(o) + f.Wet[o]);
    }

    /// <summary>Minutes that neither work nor a change of set-up takes; another operation never needs less.</summary>
    private int FreeIn(int slot)
    {
        int inHand = -1, taken = load[slot];
        var list = seq[slot];
        for (var i = 0; i < count[slot]; i++)
            if (f.SetUp[list[i]] is >= 0 and var mine && mine != inHand)
            {
                taken += f.Change(inHand, mine);
                inHand = mine;
            }

        return f.End[slot / painters] - f.Begin[slot / painters] - taken - (inHand >= 0 ? f.Clean[inHand] : 0);
    }

    public void Take(int o)
    {
        var slot = Slot[o];
        var list = seq[slot];
        var n = count[slot];
        var at = Array.IndexOf(list, o, 0, n);
        Array.Copy(list, at + 1, list, at, n - at - 1);
        count[slot] = n - 1;
        load[slot] -= f.Length[o];
        free[slot] = FreeIn(slot);
        drying?.Remove(EndOf(o), EndOf(o) + f.Wet[o]);
        Slot[o] = None;
        ref var furthest = ref reached[slot % painters];
        while (furthest >= 0 && count[furthest * painters + slot % painters] == 0)
            furthest--;
    }

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

    /// <summary>The earliest start from a minute on, its windows left aside: they say then by how much it is missed.</summary>
    public bool Earliest(int o, int from, out int start, out int slot)
    {
        for (var s = f.StretchAfter(from); s < stretches && f.Begin[s] < Close; s++)
        {
            if (!Allowed[s] || f.End[s] - f.Begin[s] < f.Length[o])
                continue;
            (start, slot) = (Facts.Never, None);
            var emptySeen = false;
            for (var p = 0; p < painters; p++)
            {
                var here = s * painters + p;
                if (Appends && s < reached[p])
                    continue;
                if (count[here] == 0)
                {
                    // One painter who has done nothing is as good as the next.
                    if (emptySeen)
                        continue;
                    emptySeen = true;
                }

                var t = EarliestIn(here, s, o, Math.Max(from, f.Begin[s]), start);
                if (t < start)
                    (start, slot) = (t, here);
            }

            if (slot != None)
                return true;
        }

        (start, slot) = (Facts.Never, None);
        return false;
    }

    private int EarliestIn(int slot, int stretch, int o, int from, int limit)
    {
        int length = f.Length[o], n = count[slot], end = Math.Min(f.End[stretch], Close);
        if (free[slot] < length)
            return Facts.Never;
        var list = seq[slot];
        var previous = Appends && n > 0 ? EndOf(list[n - 1]) : f.Begin[stretch];
        for (var g = Appends ? n : 0; g <= n; g++)
        {
            var gapEnd = g < n ? Start[list[g]] : end;
            var t = Math.Max(previous, from);
            while (gapEnd - t >= length)
            {
                t = InGap(slot, stretch, g, o, previous, gapEnd, t);
                if (t < 0)
                    break;
                if (t >= limit)
                    return Facts.Never;
                var clear = Clear(o, t, stretch, slot);
                if (clear == t)
                    return t;
                t = clear;
            }

            if (g < n)
                previous = EndOf(list[g]);
            if (previous >= limit)
                break;
        }

        return Facts.Never;
    }

    /// <summary>
    /// The earliest start from a minute on in one gap of one painter's stretch, such that every change of set-up still fits into one
    /// gap between the operations that need it; -1 when there is none.
    /// </summary>
    private int InGap(int slot, int stretch, int g, int o, int previous, int gapEnd, int t)
    {
        var list = seq[slot];
        int n = count[slot], length = f.Length[o], mine = f.SetUp[o];

        // What is in hand before, and the widest pause since it was taken up.
        int a = g - 1, widestBefore = 0;
        while (a >= 0 && f.SetUp[list[a]] < 0)
        {
            widestBefore = Math.Max(widestBefore, Start[list[a]] - (a > 0 ? EndOf(list[a - 1]) : f.Begin[stretch]));
            a--;
        }

        // What is needed next, and the widest pause before it.
        int c = g, widestAfter = 0;
        while (c < n && f.SetUp[list[c]] < 0)
        {
            widestAfter = Math.Max(widestAfter, (c + 1 < n ? Start[list[c + 1]] : f.End[stretch]) - EndOf(list[c]));
            c++;
        }

        int inHand = a >= 0 ? f.SetUp[list[a]] : -1, next = c < n ? f.SetUp[list[c]] : -1;
        if (mine >= 0)
        {
            var before = f.Change(inHand, mine);
            if (widestBefore < before)
                t = Math.Max(t, previous + before);
            var after = f.Change(mine, next);
            var room = (g == n ? f.End[stretch] : gapEnd) - (t + length);
            return t + length > gapEnd || room < 0 || (widestAfter < after && room < after) ? -1 : t;
        }

        var between = f.Change(inHand, next);
        if (t + length > gapEnd)
            return -1;
        if (between == 0 || Math.Max(widestBefore, widestAfter) >= between || t - previous >= between || (g == n ? f.End[stretch] : gapEnd) - (t + length) >= between)
            return t;
        t = Math.Max(t, previous + between);
        return t + length <= gapEnd ? t : -1;
    }

    /// <summary>The same minute when nothing shared is in the way, or the first at which it might not be.</summary>
    private int Clear(int o, int t, int stretch, int slot)
    {
        var length = f.Length[o];
        if (f.Sprays[o] && f.SprayFrom(t, length) is var sprayed && sprayed != t)
            return sprayed;
        if (painters > 1 && (f.Sprays[o] || f.Hot[o] > 0))
            for (var p = 0; p < painters; p++)
            {
                var other = stretch * painters + p;
                if (other == slot)
                    continue;
                for (var i = 0; i < count[other]; i++)
                {
                    var q = seq[other][i];
                    if (f.Sprays[o] && f.Sprays[q] && Start[q] < t + length && t < EndOf(q))
                        return EndOf(q);
                    if (f.Hot[o] > 0 && f.Hot[q] > 0 && EndOf(q) - f.Hot[q] < t + length && t + length - f.Hot[o] < EndOf(q))
                        return EndOf(q) - length + f.Hot[o];
                }
            }

        foreach (var q in f.Apart[o])
            if (Lies(q) && t < EndOf(q) + f.Wet[q] && Start[q] < t + length + f.Wet[o])
                return EndOf(q) + f.Wet[q];
        return drying is null ? t : drying.Free(t + length, f.Wet[o]) - length;
    }

    /// <summary>Whether an operation can lie here as things stand; it lies nowhere itself.</summary>
    public bool Fits(int o, int t, int slot)
    {
        var stretch = slot / painters;
        if (t < f.Begin[stretch] || t + f.Length[o] > Math.Min(f.End[stretch], Close))
            return false;
        var (earliest, latest, _) = Bounds(o);
        if (t < earliest || t > latest)
            return false;
        var list = seq[slot];
        var g = 0;
        while (g < count[slot] && Start[list[g]] < t)
            g++;
        var previous = g > 0 ? EndOf(list[g - 1]) : f.Begin[stretch];
        var gapEnd = g < count[slot] ? Start[list[g]] : Math.Min(f.End[stretch], Close);
        return t >= previous && gapEnd - t >= f.Length[o] && InGap(slot, stretch, g, o, previous, gapEnd, t) == t && Clear(o, t, stretch, slot) == t;
    }

    /// <summary>Minutes that getting ready and cleaning take in all.</summary>
    public int ChangeMinutes()
    {
        var sum = 0;
        for (var slot = 0; slot < count.Length; slot++)
            if (count[slot] > 0)
                sum += f.End[slot / painters] - f.Begin[slot / painters] - load[slot] - free[slot];
        return sum;
    }

    /// <summary>What it comes to.</summary>
    public Outcome Judge()
    {
        int finish = 0, last = -1, sessions = 0, idle = 0, setUps = 0;
        for (var s = 0; s < stretches; s++)
        {
            var used = false;
            for (var p = 0; p < painters; p++)
            {
                var slot = s * painters + p;
                if (count[slot] == 0)
                    continue;
                used = true;
                idle += IdleIn(slot, s, out var ready);
                setUps += ready;
                finish = Math.Max(finish, EndOf(seq[slot][count[slot] - 1]));
            }

            if (used)
                (sessions, last) = (sessions + 1, s);
        }

        return new Outcome(f.Work.Due is { } due ? Math.Max(0, finish - due) : 0, last, sessions, finish, idle, setUps);
    }

    /// <summary>Idle minutes of one painter in one stretch: first activity to last, set-up and clean-up among them, less what is done.</summary>
    private int IdleIn(int slot, int stretch, out int ready)
    {
        var list = seq[slot];
        int n = count[slot], inHand = -1, done = 0;
        ready = 0;
        int from = Start[list[0]], to = EndOf(list[n - 1]), lastSetUp = -1;
        for (var i = 0; i < n; i++)
        {
            done += f.Length[list[i]];
            var mine = f.SetUp[list[i]];
            if (mine < 0)
                continue;
            if (mine != inHand)
            {
                var change = f.Change(inHand, mine);
                done += change;
                ready++;

                // The first is got ready within the stretch: before everything else, unless there is a pause for it.
                if (inHand < 0 && !Pause(list, 0, i, change))
                    from = Math.Min(from, Start[list[0]] - change);
            }

            (inHand, lastSetUp) = (mine, i);
        }

        if (lastSetUp >= 0)
        {
            done += f.Clean[inHand];
            if (!Pause(list, lastSetUp, n - 1, f.Clean[inHand]))
                to = Math.Max(to, EndOf(list[n - 1]) + f.Clean[inHand]);
        }

        return Math.Max(0, to - from - done);
    }

    private bool Pause(int[] list, int from, int to, int minutes)
    {
        for (var i = from + 1; i <= to; i++)
            if (Start[list[i]] - EndOf(list[i - 1]) >= minutes)
                return true;
        return minutes == 0;
    }
}

/// <summary>How many batches lie and dry at every minute, as steps.</summary>
internal sealed class Drying(int places)
{
    private readonly List<(int At, int Count)> steps = [(int.MinValue, 0)];

    public void Add(int from, int to) => Change(from, to, 1);

    public void Remove(int from, int to) => Change(from, to, -1);

    private void Change(int from, int to, int by)
    {
        if (to <= from)
            return;
        int first = Split(from), last = Split(to);
        for (var i = first; i < last; i++)
            steps[i] = steps[i] with { Count = steps[i].Count + by };
        Join(last);
        Join(first);
    }

    private int Split(int at)
    {
        var i = Find(at);
        if (steps[i].At == at)
            return i;
        steps.Insert(i + 1, (at, steps[i].Count));
        return i + 1;
    }

    private void Join(int i)
    {
        if (i > 0 && i < steps.Count && steps[i].Count == steps[i - 1].Count)
            steps.RemoveAt(i);
    }

    private int Find(int at)
    {
        int low = 0, high = steps.Count - 1;
        while (low < high)
        {
            var middle = (low + high + 1) / 2;
            if (steps[middle].At <= at)
                low = middle;
            else
                high = middle - 1;
        }

        return low;
    }

    /// <summary>The first minute from one on at which there is room for so long.</summary>
    public int Free(int from, int minutes)
    {
        if (minutes <= 0)
            return from;
        for (var i = Find(from); i < steps.Count && steps[i].At < from + minutes; i++)
            if (steps[i].Count >= places && i + 1 < steps.Count)
                from = steps[i + 1].At;
        return from;
    }
}
