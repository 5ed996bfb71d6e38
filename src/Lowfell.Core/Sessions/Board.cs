namespace Lowfell.Core.Sessions;

/// <summary>
/// A timetable as it fills up. An operation goes to the earliest place that keeps to its waits, the hours, the set-ups around it, the
/// spray place, the dryer, what may not be wet beside it and the places to dry: the serial schedule generation scheme (Kelley 1963)
/// with insertion, so that what comes later in the list can still use a gap.
/// </summary>
internal sealed partial class Board
{
    private const int None = -1;
    private readonly Facts f;
    private readonly int stretches, painters;
    private readonly int[][] seq;
    private readonly int[] count, load, free, release, reached;
    private int repairs;
    private readonly DryingPlaces? drying;

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
        drying = f.Places < Facts.Never ? new DryingPlaces(f.Places) : null;
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
}
