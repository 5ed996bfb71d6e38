namespace Lowfell.Core.Sessions;

/// <summary>A board filled in the order of a list; a change of the list has only what comes after it placed anew.</summary>
internal sealed class Line
{
    private readonly Facts f;
    private readonly int[] order, place, savedStart, savedSlot;
    private int filled;

    public Line(Facts facts)
    {
        f = facts;
        order = Enumerable.Range(0, f.Count).ToArray();
        place = new int[f.Count];
        (savedStart, savedSlot) = (new int[f.Count], new int[f.Count]);
        Board = new Board(facts);
        Number(0, order.Length);
    }

    public Board Board { get; }

    /// <summary>What finds no place is left out, with all that waits for it, and counted; otherwise filling ends there.</summary>
    public bool Lenient { get; set; }

    /// <summary>How many were left out.</summary>
    public int Missing { get; private set; }

    public int Length => order.Length;

    public ReadOnlySpan<int> Order => order;

    public int this[int at] => order[at];

    /// <summary>Fills it from the beginning; false where something finds no place.</summary>
    public bool Fill()
    {
        Empty(0);
        return Go();
    }

    /// <summary>Takes another list and fills it.</summary>
    public bool Fill(int[] with)
    {
        Empty(0);
        with.CopyTo(order, 0);
        Number(0, order.Length);
        return Go();
    }

    /// <summary>Takes a list and where everything lies, as they were once.</summary>
    public void Set(int[] with, int[] start, int[] slot)
    {
        with.CopyTo(order, 0);
        Number(0, order.Length);
        start.CopyTo(savedStart, 0);
        slot.CopyTo(savedSlot, 0);
        Restore();
    }

    /// <summary>Another list, with everything as it lies until it is filled again.</summary>
    public void Take(int[] with)
    {
        with.CopyTo(order, 0);
        Number(0, order.Length);
    }

    /// <summary>Where an operation may stand by what has to come before and after it.</summary>
    public (int First, int Last) Room(int o)
    {
        int first = 0, last = order.Length - 1;
        foreach (var (q, _, _) in f.Before[o])
            first = Math.Max(first, place[q] + 1);
        foreach (var (q, _, _) in f.Later[o])
            last = Math.Min(last, place[q] - 1);
        return (first, last);
    }

    /// <summary>
    /// Moves an operation to another place in the list and fills again from there. False where something finds no room, or
    /// <paramref name="keep"/> does not want what comes out; everything lies as it lay before then.
    /// </summary>
    public bool Try(int from, int to, Func<Board, bool> keep)
    {
        Save();
        Empty(Math.Min(from, to));
        Shift(from, to);
        if (Go() && keep(Board))
            return true;
        Shift(to, from);
        Restore();
        return false;
    }

    /// <summary>Changes the wish of an operation and fills again from it; the same as moving one otherwise.</summary>
    public bool TryWish(int at, int notBefore, Func<Board, bool> keep)
    {
        Save();
        Empty(at);
        var was = Board.NotBefore[order[at]];
        Board.NotBefore[order[at]] = notBefore;
        if (Go() && keep(Board))
            return true;
        Board.NotBefore[order[at]] = was;
        Restore();
        return false;
    }

    private void Save()
    {
        Board.Start.CopyTo(savedStart, 0);
        Board.Slot.CopyTo(savedSlot, 0);
    }

    /// <summary>A window may have moved what comes before in the list as well, so all is looked at.</summary>
    private void Restore()
    {
        for (var o = 0; o < f.Count; o++)
            if (Board.Lies(o) && (Board.Slot[o] != savedSlot[o] || Board.Start[o] != savedStart[o]))
                Board.Take(o);
        for (var o = 0; o < f.Count; o++)
            if (!Board.Lies(o) && savedSlot[o] >= 0)
                Board.Put(o, savedStart[o], savedSlot[o]);
        filled = order.Length;
    }

    private bool Go()
    {
        Board.Forget();
        Missing = 0;
        for (; filled < order.Length; filled++)
        {
            var o = order[filled];
            if (Board.Lies(o) || (Ready(o) && Board.Place(o)))
                continue;
            if (!Lenient)
            {
                filled = order.Length;
                return false;
            }
        }

        // A window may have taken up what lay already and found no place for it.
        if (Lenient)
            for (var o = 0; o < f.Count; o++)
                Missing += Board.Lies(o) ? 0 : 1;
        return true;
    }

    private bool Ready(int o)
    {
        foreach (var (q, _, _) in f.Before[o])
            if (!Board.Lies(q))
                return false;
        return true;
    }

    private void Empty(int from)
    {
        for (var i = filled - 1; i >= from; i--)
            if (Board.Lies(order[i]))
                Board.Take(order[i]);
        filled = Math.Min(filled, from);
    }

    private void Shift(int from, int to)
    {
        var moved = order[from];
        if (from < to)
            Array.Copy(order, from + 1, order, from, to - from);
        else
            Array.Copy(order, to, order, to + 1, from - to);
        order[to] = moved;
        Number(Math.Min(from, to), Math.Max(from, to) + 1);
    }

    private void Number(int from, int to)
    {
        for (var i = from; i < to; i++)
            place[order[i]] = i;
    }
}
