namespace Lowfell.Core.Sessions;

/// <summary>A figure of the plan that may come otherwise: how long a technique takes these hands, how long a paint takes to dry here.</summary>
/// <param name="Name">In the painter's words.</param>
/// <param name="Error">How far off it usually is, as a share.</param>
/// <param name="Hands">Operations whose minutes it makes.</param>
/// <param name="Drying">Operations after which it says how long to wait.</param>
public sealed record Figure(string Name, double Error, IReadOnlyList<int> Hands, IReadOnlyList<int> Drying);

/// <summary>How much a figure moves the finish.</summary>
/// <param name="Name">Of the figure.</param>
/// <param name="Minutes">From where it comes out well to where it comes out badly, on average; minutes of the calendar.</param>
public sealed record Influence(string Name, double Minutes);

/// <summary>How a plan may come out.</summary>
/// <param name="OnTime">Share of the trials that meet every due date, 0..1; null where there is none.</param>
/// <param name="Early">One trial in ten ends before it; minutes from zero.</param>
/// <param name="Middle">One in two.</param>
/// <param name="Late">Nine in ten.</param>
/// <param name="Most">The figures that move it most, first.</param>
public sealed record Outlook(double? OnTime, int Early, int Middle, int Late, IReadOnlyList<Influence> Most);

/// <summary>
/// Carries a plan out many times by chance: operations in the order of the plan, each begun when its hands, its wait and the hours
/// allow, what still fits into a session before what does not; minutes and waits as long as their figures happen to come (log-normal,
/// so that half and double are as likely).
/// </summary>
public static class Chance
{
    private const int MostShown = 3;

    /// <summary>How it may come out; the same every time for a seed.</summary>
    public static Outlook Of(Work work, Timetable table, IReadOnlyList<Figure> figures, int trials = 400, int seed = 7)
    {
        var trial = new Trial(work, table);
        var random = new Random(seed);
        var factors = Enumerable.Range(0, trials).Select(_ => figures.Select(f => Math.Exp(Normal(random) * Math.Log(1 + f.Error))).ToArray()).ToArray();
        var ends = new int[trials];
        var met = 0;
        Parallel.For(0, trials, t =>
        {
            double[] hands = Ones(work.Operations.Count), drying = Ones(work.Operations.Count);
            for (var i = 0; i < figures.Count; i++)
            {
                foreach (var o in figures[i].Hands)
                    hands[o] = factors[t][i];
                foreach (var o in figures[i].Drying)
                    drying[o] = factors[t][i];
            }

            (ends[t], var onTime) = trial.Run(hands, drying);
            if (onTime)
                Interlocked.Increment(ref met);
        });

        var influences = figures.Select((f, i) => new Influence(f.Name, Between(factors.Select(x => x[i]).ToArray(), ends))).Where(i => i.Minutes > 0).OrderByDescending(i => i.Minutes).Take(MostShown).ToList();
        Array.Sort(ends);
        return new Outlook(work.Due is null && work.Deadlines.Count == 0 ? null : met / (double)trials, ends[trials / 10], ends[trials / 2], ends[trials * 9 / 10], influences);
    }

    private static double[] Ones(int n) => Enumerable.Repeat(1.0, n).ToArray();

    /// <summary>Mean end of the third in which the figure is highest, less that of the third in which it is lowest.</summary>
    private static double Between(double[] factor, int[] ends)
    {
        var order = Enumerable.Range(0, ends.Length).OrderBy(i => factor[i]).ToList();
        var third = ends.Length / 3;
        return order.TakeLast(third).Average(i => ends[i]) - order.Take(third).Average(i => ends[i]);
    }

    /// <summary>A normal deviate (Box and Muller 1958).</summary>
    private static double Normal(Random random) => Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());

    /// <summary>One plan, carried out again and again.</summary>
    private sealed class Trial(Work work, Timetable table)
    {
        private readonly Dictionary<int, int> at = table.Placements.ToDictionary(p => p.Operation, p => p.Start);
        private readonly int longest = work.Hours.Max(h => h.Minutes);

        public (int End, bool OnTime) Run(double[] hands, double[] drying)
        {
            var came = work with
            {
                Operations = work.Operations.Select((o, i) => o with
                {
                    Minutes = Math.Min((int)Math.Round(o.Minutes * hands[i]), Math.Max(o.Minutes, longest - o.HotAirMinutes - SetUpMinutes(o))),
                    After = o.After.Select(a => a with { MinWait = Wait(a, drying[a.Operation]) }).ToList(),
                    NotBefore = 0,
                    NotAfter = null,
                }).ToList(),
            };
            var facts = new Facts(came);
            var line = new Line(facts);
            if (!line.Fill(Orders.By(facts, o => (at[o], 0, o))))
                return (work.Hours[^1].End, false);
            var outcome = line.Board.Judge();
            return (outcome.Finish, outcome.Late == 0);
        }

        private int SetUpMinutes(Operation o) => o.SetUp >= 0 ? work.SetUps[o.SetUp].Minutes + work.SetUps[o.SetUp].CleanMinutes : 0;

        /// <summary>What dries slower is not waited for past its window.</summary>
        private static int Wait(After a, double factor) => a.MinWait <= 0 ? a.MinWait : Math.Min((int)Math.Round(a.MinWait * factor), a.MaxWait ?? int.MaxValue);
    }
}
