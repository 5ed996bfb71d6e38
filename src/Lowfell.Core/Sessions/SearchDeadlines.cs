namespace Lowfell.Core.Sessions;

/// <summary>Dates of parts of the work, and timetables to begin with.</summary>
internal sealed partial class Search
{
    /// <summary>Puts everything where it lay; false where one thing finds that its place is taken, or not allowed any more.</summary>
    private bool Lay(IReadOnlyList<Placement> known)
    {
        if (known.Count != f.Count || known.Any(p => p.Painter >= f.Painters))
            return false;
        var board = new Board(f);
        var order = known.OrderBy(p => p.Start).ThenBy(p => p.End).ToList();
        foreach (var p in order)
        {
            var stretch = f.StretchAfter(p.Start);
            if (stretch >= f.Begin.Length || p.End - p.Start != f.Length[p.Operation] || !board.Fits(p.Operation, p.Start, stretch * f.Painters + p.Painter))
                return false;
            board.Put(p.Operation, p.Start, stretch * f.Painters + p.Painter);
        }

        var at = known.ToDictionary(p => p.Operation, p => p.Start);
        line.Set(Orders.By(f, o => (at[o], 0, o)), board.Start, board.Slot);
        return true;
    }

    /// <summary>Can what is late end a little sooner, and nothing else later than it has to?</summary>
    private void MeetDeadlines(double share)
    {
        var until = clock.Part(share);
        while (best!.Outcome.Late > 0 && !clock.PastOr(until))
        {
            clock.Count();
            Take(best);
            var close = new int[f.Count];
            Array.Fill(close, f.Work.Due is { } due ? Math.Max(due, best.Outcome.Finish - 1) : Facts.Never);
            foreach (var deadline in f.Work.Deadlines)
                foreach (var o in deadline.Operations)
                    close[o] = Math.Min(close[o], Math.Max(deadline.Minute, line.Board.EndOf(deadline) - 1));
            if (!Without(all, b => Beyond(b, close), until))
                return;
        }
    }

    private int Beyond(Board board, int[] close)
    {
        var sum = 0;
        for (var o = 0; o < f.Count; o++)
            if (board.EndOf(o) > close[o])
                sum += Math.Max(1, Math.Min(f.Length[o], board.EndOf(o) - close[o]));
        return sum;
    }

    /// <summary>What is on time stays so while something else is looked for.</summary>
    private int PastDue(Board board) => best!.Outcome.Late > 0 || f.Work.Deadlines.Count == 0 ? 0 : Beyond(board, f.Due);
}
