namespace Lowfell.Core.Sessions;

/// <summary>A plan after something came otherwise.</summary>
/// <param name="Timetable">The plan from now on.</param>
/// <param name="Moved">Operations that have left their stretch.</param>
public sealed record Replan(Timetable Timetable, IReadOnlyList<int> Moved);

/// <summary>Moves as little as can be: what can stay where it was stays, and only what cannot is placed anew.</summary>
public static class Replanning
{
    /// <summary>
    /// The plan that comes of an old one. What is done is left out of the work, what it leaves to wait for is in
    /// <see cref="Operation.NotBefore"/> and <see cref="Operation.NotAfter"/>; null where something finds no place any more.
    /// </summary>
    /// <param name="work">What is still to do.</param>
    /// <param name="was">Where its operations lay; those that are new have no place yet.</param>
    /// <param name="patienceMinutes">
    /// It may end so much later than it did; past that everything slides on in its order where that saves a session. Null stays whatever it costs.
    /// </param>
    public static Replan? Of(Work work, IReadOnlyList<Placement> was, int? patienceMinutes = null)
    {
        if (work.Operations.Count == 0)
            return new Replan(new Timetable([], new Outcome(0, -1, 0, 0, 0, 0)), []);
        var facts = new Facts(work);
        var old = new Placement?[work.Operations.Count];
        foreach (var p in was)
            old[p.Operation] = p;
        var (staying, sliding) = (Staying(work, facts, old), (Replan?)null);
        if (staying is null || (patienceMinutes is { } patience && was.Count > 0 && staying.Timetable.Outcome.Finish > was.Max(p => p.End) + patience))
            sliding = Sliding(facts, old);
        return sliding is not null && (staying is null || Better(sliding.Timetable.Outcome, staying.Timetable.Outcome)) ? sliding : staying;
    }

    private static bool Better(Outcome a, Outcome b) => (a.Late, a.LastStretch, a.Sessions).CompareTo((b.Late, b.LastStretch, b.Sessions)) < 0;

    /// <summary>Everything in its old order, none sooner than in its old session.</summary>
    private static Replan? Sliding(Facts facts, Placement?[] old)
    {
        var board = new Board(facts);
        for (var o = 0; o < facts.Count; o++)
            if (old[o] is { } p && facts.StretchAfter(p.Start) is var s && s < facts.Begin.Length)
                board.NotBefore[o] = facts.Begin[s];
        foreach (var o in Orders.By(facts, o => (old[o]?.Start ?? int.MaxValue, 0, o)))
            if (!board.Lies(o) && !board.Place(o))
                return null;
        return Read(facts, board, old);
    }

    private static Replan Read(Facts facts, Board board, Placement?[] old)
    {
        var moved = Enumerable.Range(0, facts.Count).Where(o => old[o] is { } p && facts.StretchAfter(p.Start) != board.StretchOf(o)).ToList();
        var placements = Enumerable.Range(0, facts.Count).Select(o => new Placement(o, board.Start[o], board.EndOf(o), board.PainterOf(o))).ToList();
        return new Replan(new Timetable(placements, board.Judge()), moved);
    }

    private static Replan? Staying(Work work, Facts facts, Placement?[] old)
    {
        var board = new Board(facts);

        // Everything lies where it lay, but for what cannot any more; that is placed around it.
        var order = Orders.By(facts, o => (old[o]?.Start ?? int.MaxValue, 0, o));
        foreach (var o in order)
            _ = Stays(o);
        var homeless = new PriorityQueue<int, int>(order.Select((o, i) => (o, i)).Where(x => !board.Lies(x.o)));
        var place = new int[order.Length];
        for (var i = 0; i < order.Length; i++)
            place[order[i]] = i;
        while (homeless.TryDequeue(out var o, out _))
        {
            if (board.Lies(o) || Stays(o) || board.Place(o))
                continue;
            foreach (var later in board.TakeAfter(o))
                homeless.Enqueue(later, place[later]);
            if (!board.Place(o))
                return null;
        }

        // A window may have taken up what lay before it.
        foreach (var o in order)
            if (!board.Lies(o) && !board.Place(o))
                return null;

        return Read(facts, board, old);

        bool Stays(int o)
        {
            if (old[o] is not { } p || p.Painter >= work.Painters)
                return false;
            var stretch = facts.StretchAfter(p.Start);
            var slot = stretch * work.Painters + p.Painter;
            if (stretch >= facts.Begin.Length || !board.Fits(o, p.Start, slot))
                return false;
            board.Put(o, p.Start, slot);
            return true;
        }
    }
}
