namespace Lowfell.Core.Sessions;

/// <summary>Moves what need not be so early towards what follows it, so that nobody sits about in between; everything ends when it did.</summary>
internal static class Gathering
{
    private const int Passes = 2;

    /// <summary>What it comes to, with start and slot of every operation: never worse than it was.</summary>
    public static (Outcome Outcome, int[] Start, int[] Slot) Of(Facts f, int[] start, int[] slot)
    {
        var board = new Board(f);
        for (var o = 0; o < f.Count; o++)
            board.Put(o, start[o], slot[o]);
        var best = (Outcome: board.Judge(), Start: (int[])board.Start.Clone(), Slot: (int[])board.Slot.Clone());
        for (var pass = 0; pass < Passes; pass++)
        {
            foreach (var o in Enumerable.Range(0, f.Count).OrderByDescending(o => board.Start[o]).ToArray())
                Later(f, board, o);
            var found = board.Judge();
            if (found.CompareTo(best.Outcome, f.Work.Goal) >= 0)
                break;
            best = (found, (int[])board.Start.Clone(), (int[])board.Slot.Clone());
        }

        return best;
    }

    private static void Later(Facts f, Board board, int o)
    {
        var (slot, start) = (board.Slot[o], board.Start[o]);
        var here = board.In(slot / f.Painters, slot % f.Painters);
        var at = here.IndexOf(o);
        if (at == here.Length - 1)
            return;
        var next = here[at + 1];
        var latest = board.Start[next] - f.Length[o] - (f.SetUp[o] >= 0 && f.SetUp[next] >= 0 ? f.Change(f.SetUp[o], f.SetUp[next]) : 0);
        foreach (var (q, min, _) in f.Later[o])
            latest = Math.Min(latest, board.Start[q] - min - f.Length[o]);
        foreach (var (q, _, max) in f.Before[o])
            if (max < Facts.Never)
                latest = Math.Min(latest, board.EndOf(q) + max);
        if (latest <= start)
            return;
        board.Take(o);
        board.Put(o, board.Fits(o, latest, slot) ? latest : start, slot);
    }
}
