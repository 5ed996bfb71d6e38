namespace Lowfell.Core.Sessions;

/// <summary>
/// Looks for a good timetable: a list of operations is filled in by the serial scheme, and operations are moved in the list by simulated
/// annealing (Kirkpatrick, Gelatt and Vecchi 1983), one question after the other: can all be done a stretch earlier, can a stretch be
/// done without, can it end sooner with less idling. The answer to the first is proved by <see cref="Bounds"/> where it can be.
/// </summary>
internal sealed partial class Search
{
    private readonly Facts f;
    private readonly Bound bound;
    private readonly Random random;
    private readonly Clock clock;
    private readonly SearchLimit limit;
    private Goal goal;
    private readonly Line line;
    private readonly bool[] all;
    private Best? best;

    /// <summary>A timetable that was found: its list, its wishes, and where everything lies.</summary>
    private sealed record Best(Outcome Outcome, int[] Order, int[] NotBefore, int[] Start, int[] Slot, bool[] Allowed, bool Appends);

    private Search(Facts facts, Bound bound, SearchLimit limit)
    {
        (f, this.bound, this.limit) = (facts, bound, limit);
        random = new Random(limit.Seed);
        clock = new Clock(limit, facts.Count > Large ? 1 : 8);
        line = new Line(f);
        all = f.Begin.Select(_ => true).ToArray();
    }

    /// <summary>The best timetable found, or null where none was.</summary>
    public static Timetable? Run(Facts facts, Bound bound, SearchLimit limit)
    {
        var search = new Search(facts, bound, limit);
        search.Begin();
        if (search.best is null)
            return null;
        search.Improve();
        return search.Answer();
    }

    /// <summary>Any timetable at all: the first that is found.</summary>
    public static bool Finds(Facts facts, Bound bound, SearchLimit limit)
    {
        var search = new Search(facts, bound, limit);
        search.Begin();
        return search.best is not null;
    }

    private void Begin()
    {
        if (limit.Begin is { } known && Lay(known))
            Note();
        foreach (var order in Orders.All(f))
        {
            if (line.Fill(order))
                Note();
            clock.Count();
            if (best is not null && clock.Over)
                return;
        }

        if (best is not null)
            return;

        // Some leave no room for each other in any of these: moved about until all have some.
        line.Lenient = true;
        for (var (tries, steps) = (0, FirstSteps * f.Count); best is null && tries < MostTries && !limit.Stop.IsCancellationRequested && (tries < FewTries || !clock.Over); tries++)
        {
            clock.Count();
            line.Board.Appends = tries % 2 == 1;
            Array.Clear(line.Board.NotBefore);
            line.Fill(Shuffled());
            AllPlaced(steps);
            if (line.Missing == 0)
                Note();
        }

        line.Lenient = false;
    }

    /// <summary>From here on a single filling takes long enough to look at the clock each time.</summary>
    private const int Large = 300;

    private const int MostTries = 12, FewTries = 3;

    /// <summary>So many moves, until nothing is left out.</summary>
    private void AllPlaced(int steps)
    {
        double now = line.Missing;
        for (var step = 0; step < steps && now > 0 && !limit.Stop.IsCancellationRequested; step++)
        {
            var warm = 0.6 * Math.Pow(0.05, step / (double)steps);
            Step(_ => line.Missing is var then && then <= now - warm * Math.Log(1 - random.NextDouble()) && (now = then) >= 0, f.Begin.Length);
        }
    }

    private int[] Shuffled()
    {
        var key = Enumerable.Range(0, f.Count).Select(_ => random.NextDouble()).ToArray();
        return Orders.By(f, o => (key[o], 0, 0));
    }

    private void Note()
    {
        var found = line.Board.Judge();
        if (best is not null && found.CompareTo(best.Outcome, goal) >= 0)
            return;
        best = new Best(found, line.Order.ToArray(), (int[])line.Board.NotBefore.Clone(), (int[])line.Board.Start.Clone(), (int[])line.Board.Slot.Clone(), (bool[])line.Board.Allowed.Clone(), line.Board.Appends);
    }

    private bool Perfect => goal == f.Work.Goal && best!.Outcome is var o && o.Late == 0 && o.LastStretch == bound.LastStretch && o.Sessions == bound.Sessions && o.Finish == bound.Finish && o.Idle == 0;

    private void Improve()
    {
        // What is packed tightly needs the fewest sessions as well: that is looked for first, whatever is wanted.
        for (var turn = 0; !clock.Over && !Perfect; turn++)
        {
            if (clock.Now >= PackedShare || (turn > 0 && goal == Goal.Soonest && best!.Outcome.LastStretch == bound.LastStretch))
                goal = f.Work.Goal;

            var before = best!.Outcome;
            clock.Count();
            if (goal == Goal.Fewest)
                FewerSessions(0.35);
            if (before.Late > 0 && f.Work.Deadlines.Count > 0)
                MeetDeadlines(0.4);
            else if (before.Late > 0)
                Sooner(0.3);
            Earlier(0.35);
            if (goal == Goal.Soonest)
                FewerSessions(0.4);
            Polish(turn == 0 ? 0.4 : 0.6);
            limit.Progress?.Invoke(clock.Share, best!.Outcome);
        }

        goal = f.Work.Goal;
        var (gathered, start, slot) = Gathering.Of(f, best!.Start, best.Slot);
        if (gathered.CompareTo(best.Outcome, goal) < 0)
            best = best with { Outcome = gathered, Start = start, Slot = slot };
    }

    private const double PackedShare = 0.4;

    /// <summary>Can all be done a stretch earlier? What lies too late is to become nothing.</summary>
    private void Earlier(double share)
    {
        var until = clock.Part(share);
        while (best!.Outcome.LastStretch > bound.LastStretch && !clock.PastOr(until))
        {
            clock.Count();
            var last = best.Outcome.LastStretch - 1;
            if (goal == Goal.Fewest && !Keeps(last))
                return;
            if (!Without(goal == Goal.Soonest ? all : best.Allowed, b => Beyond(b, f.End[last]) + PastDue(b), until))
                return;
        }
    }

    private bool Keeps(int last) => best!.Outcome.Sessions <= last + 1;

    /// <summary>Past the due date the end itself counts first.</summary>
    private void Sooner(double share)
    {
        var until = clock.Part(share);
        while (best!.Outcome.Late > 0 && best.Outcome.Finish > bound.Finish && !clock.PastOr(until))
        {
            clock.Count();
            if (!Without(all, b => Beyond(b, best.Outcome.Finish - 1), until))
                return;
        }
    }

    /// <summary>Can a stretch be done without?</summary>
    private void FewerSessions(double share)
    {
        var until = clock.Part(share);
        for (var tries = 0; best!.Outcome.Sessions > bound.Sessions && tries < MostWithout && !clock.PastOr(until); tries++)
        {
            var used = Used();
            var last = best.Outcome.LastStretch;
            var close = Closing(last);
            var bare = used.OrderBy(s => line.Board.LoadOf(s)).ToList();
            var any = false;
            for (var i = 0; i < bare.Count && !clock.PastOr(until); i++)
            {
                var allowed = new bool[f.Begin.Length];
                foreach (var s in used)
                    allowed[s] = s != bare[i];
                var capacity = 0L;
                for (var s = 0; s < allowed.Length; s++)
                    capacity += allowed[s] ? (long)f.Painters * (f.End[s] - f.Begin[s]) : 0;
                if (goal == Goal.Fewest && tries % 2 == 1)
                {
                    // Another one may do the work of two.
                    allowed[used[random.Next(used.Count)]] = false;
                    allowed[random.Next(allowed.Length)] = true;
                }
                else if (capacity < f.Minutes)
                    continue;
                if (Without(allowed, b => Outside(b, allowed) + Beyond(b, close) + PastDue(b), clock.Part(1.0 / (bare.Count + 1), until)))
                {
                    any = true;
                    break;
                }
            }

            if (!any && goal == Goal.Soonest)
                return;
        }
    }

    private const int MostWithout = 12;

    private List<int> Used()
    {
        Take(best!);
        return Enumerable.Range(0, f.Begin.Length).Where(s => line.Board.LoadOf(s) > 0 || Enumerable.Range(0, f.Painters).Any(p => line.Board.In(s, p).Length > 0)).ToList();
    }

    /// <summary>What must not be passed any more: the end of the last stretch, and the due date once it is met.</summary>
    private int Closing(int last) => best!.Outcome.Late == 0 && f.Work.Due is { } due && goal == Goal.Soonest ? Math.Min(f.End[last], due)
        : best!.Outcome.Late == 0 && f.Work.Due is { } at ? at : goal == Goal.Soonest ? f.End[last] : Facts.Never;

    /// <summary>Minutes of work that lie in other stretches.</summary>
    private int Outside(Board board, bool[] allowed)
    {
        var sum = 0;
        for (var o = 0; o < f.Count; o++)
            if (!allowed[board.StretchOf(o)])
                sum += Math.Max(1, f.Length[o]);
        return sum;
    }

    /// <summary>Minutes of work that lie after a minute.</summary>
    private int Beyond(Board board, int close)
    {
        var sum = 0;
        for (var o = 0; o < f.Count; o++)
            if (board.EndOf(o) > close)
                sum += Math.Max(1, Math.Min(f.Length[o], board.EndOf(o) - close));
        return sum;
    }

    /// <summary>Anneals with these stretches until nothing is left of what must go, longer each time; what is found is noted. False when it does not come to that.</summary>
    private bool Without(bool[] allowed, Func<Board, int> left, double until)
    {
        for (var steps = FirstSteps * f.Count; !clock.PastOr(until); steps *= 2)
        {
            Take(best!);
            allowed.CopyTo(line.Board.Allowed, 0);

            // Stretches after the last used one are there for what does not fit yet.
            for (var s = best!.Outcome.LastStretch + 1; s < allowed.Length; s++)
                line.Board.Allowed[s] = true;
            Turn();
            clock.Count();
            if (line.Fill() && Anneal(steps, until, Left, () => left(line.Board) == 0))
            {
                Note();
                Take(best!);
                return true;
            }
        }

        Take(best!);
        return false;

        // Fewer changes of set-up make room, even where they do not show yet.
        double Left(Board board) => left(board) + ChangesCount * board.ChangeMinutes();
    }

    private const int FirstSteps = 120;

    /// <summary>So many moves from hot to cold; true as soon as it is done.</summary>
    private bool Anneal(int steps, double until, Func<Board, double> cost, Func<bool> done)
    {
        if (done())
            return true;
        var now = cost(line.Board);
        var hot = HotShare * f.Minutes / f.Count;
        for (var step = 0; step < steps && !clock.PastOr(until); step++)
        {
            var warm = hot * Math.Pow(ColdShare, step / (double)steps);
            clock.Count();
            if (Step(board => cost(board) is var then && then <= now - warm * Math.Log(1 - random.NextDouble()) && Accept(then)) && done())
                return true;
        }

        return false;

        bool Accept(double then)
        {
            now = then;
            return true;
        }
    }

    private const double HotShare = 0.8, ColdShare = 0.03;

    private const double ChangesCount = 0.15;

    /// <summary>Every other time the list is the order of work itself, put in the order of what is best by now.</summary>
    private void Turn()
    {
        line.Board.Appends = random.Next(2) == 0;
        if (line.Board.Appends || random.Next(2) == 0)
        {
            Array.Clear(line.Board.NotBefore);
            line.Take(Orders.By(f, o => (best!.Start[o], 0, o)));
        }
    }

    private const int Patience = 60;

    /// <summary>An operation moved in the list, or its wish to come later changed.</summary>
    private bool Step(Func<Board, bool> keep) => Step(keep, best!.Outcome.LastStretch + 1);

    private bool Step(Func<Board, bool> keep, int stretches)
    {
        var n = line.Length;
        var at = random.Next(n);
        if (random.Next(12) == 0)
        {
            var used = random.Next(stretches);
            var other = random.Next(n);
            var wish = line.Board.NotBefore[line[at]] > 0 ? 0 : random.Next(2) == 0 || !line.Board.Lies(other) ? f.Begin[used] : line.Board.Start[other];
            return line.TryWish(at, wish, keep);
        }

        var (low, high) = line.Room(line[at]);
        if (low >= high)
            return false;

        // Near places more often than far ones.
        var to = random.Next(3) == 0 ? random.Next(low, high + 1) : Math.Clamp(at + random.Next(-Near, Near + 1), low, high);
        return to != at && line.Try(at, to, keep);
    }

    private const int Near = 6;

    /// <summary>Ends sooner, idles less, with the stretches there are.</summary>
    private void Polish(double share)
    {
        var until = clock.Part(share);
        Take(best!);
        var last = best!.Outcome.LastStretch;
        var used = Used();
        for (var steps = FirstSteps * f.Count; !clock.PastOr(until) && !Perfect; steps *= 2)
        {
            Take(best!);
            for (var s = 0; s < f.Begin.Length; s++)
                line.Board.Allowed[s] = used.Contains(s);
            clock.Count();
            if (random.Next(2) == 0)
            {
                Turn();
                if (!line.Fill())
                    continue;
            }

            var before = best!.Outcome;
            Anneal(steps, until, board => Cost(board.Judge()), () =>
            {
                Note();
                return false;
            });
            if (best!.Outcome.CompareTo(before, goal) < 0)
                steps = FirstSteps * f.Count;
        }

        Take(best!);

        double Cost(Outcome o) => o.LastStretch > last ? 1e9 : o.Late * 100.0 + o.Finish + 0.05 * o.Idle + 0.5 * o.SetUps;
    }

    private void Take(Best from)
    {
        from.Allowed.CopyTo(line.Board.Allowed, 0);
        from.NotBefore.CopyTo(line.Board.NotBefore, 0);
        line.Board.Appends = from.Appends;
        line.Set(from.Order, from.Start, from.Slot);
    }

    private Timetable Answer() => new(
        Enumerable.Range(0, f.Count).Select(o => new Placement(o, best!.Start[o], best.Start[o] + f.Length[o], best.Slot[o] % f.Painters)).ToList(), best!.Outcome);
}
