namespace Lowfell.Core.Sessions;

/// <summary>Where there is room: between what lies already, with its set-ups, and beside what is shared.</summary>
internal sealed partial class Board
{
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
}
