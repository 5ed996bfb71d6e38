using System.Diagnostics;
using Lowfell.Core.Sessions;
using Lowfell.Core.Tests.Sessions;

namespace Lowfell.Benchmarks;

/// <summary>Our own timetables beside those of a general constraint solver, and how they grow.</summary>
internal static class Timetables
{
    private const int Instances = 30;

    public static void SideBySide(double seconds)
    {
        Console.WriteLine($"timetables beside the referee's, {seconds:0.#} s each for it, begun from ours, and 1 s for ours; * proved");
        Console.WriteLine($"{"work",-8}{"hands",6}{"last",8}{"referee",9}{"bound",7}{"sessions",10}{"referee",9}{"bound",7}{"finish",9}{"referee",10}{"bound",8}{"ms",7}");
        int sameLast = 0, oneLater = 0, sameSessions = 0, judged = 0, boundHolds = 0, proved = 0;
        var gaps = new List<double>();
        for (var i = 0; i < Instances; i++)
        {
            var work = Instance(i);
            var clock = Stopwatch.StartNew();
            var made = Scheduler.Make(work, new(null, TimeSpan.FromMilliseconds(900)) { Side = 2 });
            var ms = clock.ElapsedMilliseconds;
            if (made.Timetable is not { } table || Referee.Judge(work with { Hours = work.Hours.Take(table.Outcome.LastStretch + 1).ToList() }, seconds, table) is not { } verdict)
            {
                Console.WriteLine($"{work.Operations.Count,-8}{work.Painters,6} nothing found: {(made.Timetable is null ? "ours" : "the referee")}");
                continue;
            }

            if (TimetableCheck.Faults(work, table) is [_, ..] faults)
                throw new InvalidOperationException(string.Join("; ", faults));
            var theirs = new Timetable(verdict.Placements, new Outcome(0, verdict.LastStretch, verdict.Sessions, verdict.Placements.Max(p => p.End), 0, 0));
            if (TimetableCheck.Faults(work, theirs).Where(f => !f.StartsWith("it comes", StringComparison.Ordinal)).ToList() is [_, ..] wrong)
                throw new InvalidOperationException($"the referee: {string.Join("; ", wrong)}");
            judged++;
            sameLast += table.Outcome.LastStretch <= verdict.LastStretch ? 1 : 0;
            oneLater += table.Outcome.LastStretch <= verdict.LastStretch + 1 ? 1 : 0;
            sameSessions += table.Outcome.LastStretch < verdict.LastStretch || table.Outcome.Sessions <= verdict.Sessions ? 1 : 0;
            gaps.Add(table.Outcome.Finish / (double)Math.Max(1, verdict.Finish) - 1);
            if (verdict.LastProved)
            {
                proved++;
                boundHolds += made.Bound!.LastStretch <= verdict.LastStretch ? 1 : 0;
            }

            string Star(bool p) => p ? "*" : "";
            Console.WriteLine($"{work.Operations.Count,-8}{work.Painters,6}{table.Outcome.LastStretch,8}{verdict.LastStretch + Star(verdict.LastProved),9}{made.Bound!.LastStretch,7}{table.Outcome.Sessions,10}{verdict.Sessions + Star(verdict.SessionsProved),9}{made.Bound.Sessions,7}{table.Outcome.Finish,9}{verdict.Finish + Star(verdict.FinishProved),10}{made.Bound.Finish,8}{ms,7}");
        }

        Console.WriteLine($"the same last evening {sameLast} of {judged} (28), never more than one later: {oneLater == judged}; sessions no more {sameSessions} (27); finish {gaps.Average():+0.0%;-0.0%} on average (3 %); bound below what is proved {boundHolds} of {proved}");
    }

    /// <summary>From 12 to 40 operations, one to three painters.</summary>
    public static Work Instance(int i) => WorkSamples.Some(1000 + i, 12 + i * 28 / 29, painters: 1 + i % 3 / 2 + (i % 7 == 6 ? 1 : 0));

    public static void Growth()
    {
        Scheduler.Make(WorkSamples.Line(25, 20), new(4, null));
        foreach (var pieces in new[] { 25, 50, 100, 200, 400 })
        {
            var work = WorkSamples.Line(pieces, 20, weeks: Math.Max(12, pieces));
            var before = GC.GetTotalMemory(true);
            var clock = Stopwatch.StartNew();
            var first = Scheduler.Make(work, new(4, null));
            Console.WriteLine($"{pieces,5} pieces x 20 layers: first plan {clock.ElapsedMilliseconds,6} ms (1000 at 200), {(GC.GetTotalMemory(false) - before) / 1e6:0} MB, finish {first.Timetable?.Outcome.Finish / 1440.0:0.0} days, {first.Timetable?.Outcome.Sessions} sessions (bound {first.Bound?.Sessions})");
            if (first.Timetable is { } plan)
                Replans(work, plan, pieces);
        }
    }

    /// <summary>One operation after the other slips into the next session.</summary>
    private static void Replans(Work work, Timetable plan, int pieces)
    {
        const int Tries = 20;
        var random = new Random(1);
        var (ms, moved) = (new List<double>(), new List<int>());
        for (var i = 0; i < Tries; i++)
        {
            var late = random.Next(work.Operations.Count);
            var end = work.Hours.First(h => plan.Placements[late].Start < h.End).End;
            var slipped = work with { Operations = work.Operations.Select((o, n) => n == late ? o with { NotBefore = end } : o).ToList() };
            var clock = Stopwatch.StartNew();
            var again = Replanning.Of(slipped, plan.Placements)!;
            ms.Add(clock.Elapsed.TotalMilliseconds);
            moved.Add(again.Moved.Count);
        }

        Console.WriteLine($"{pieces,5} pieces x 20 layers: replan after one late operation {ms.Average(),6:0} ms, at most {ms.Max():0} (200 at 200), moves {moved.Average():0} of {work.Operations.Count}, at most {moved.Max() * 100.0 / work.Operations.Count:0.0} % (5)");
    }
}
