using Google.OrTools.Sat;
using Lowfell.Core.Sessions;

namespace Lowfell.Core.Tests.Sessions;

/// <summary>What the referee found, and how much of it is proved the best there is.</summary>
public sealed record Verdict(int Late, int LastStretch, int Sessions, int Finish, bool LastProved, bool SessionsProved, bool FinishProved)
{
    /// <summary>Where it has everything.</summary>
    public IReadOnlyList<Placement> Placements { get; init; } = [];
}

/// <summary>
/// The same question put to a general constraint solver, one goal after the other: it only ever judges what our own search finds.
/// A circuit for each painter, with getting ready and cleaning as stretches of their own.
/// </summary>
public static class Referee
{
    /// <summary>The verdict, begun from a timetable where one is given and so never worse, or null where it found nothing in time; its seconds are shared between the goals.</summary>
    public static Verdict? Judge(Work work, double seconds, Timetable? begin = null)
    {
        var m = new CpModel();
        var n = work.Operations.Count;
        var horizon = work.Hours[^1].End;
        var start = new IntVar[n];
        var stretch = new IntVar[n];
        var inStretch = new BoolVar[n, work.Hours.Count];
        var by = new BoolVar[n, work.Painters];
        for (var o = 0; o < n; o++)
        {
            start[o] = m.NewIntVar(0, horizon, $"s{o}");
            stretch[o] = m.NewIntVar(0, work.Hours.Count - 1, $"k{o}");
            var (here, length) = (new List<ILiteral>(), work.Operations[o].Length);
            for (var k = 0; k < work.Hours.Count; k++)
            {
                inStretch[o, k] = m.NewBoolVar($"x{o},{k}");
                here.Add(inStretch[o, k]);
                m.Add(start[o] >= work.Hours[k].Start).OnlyEnforceIf(inStretch[o, k]);
                m.Add(start[o] + length <= work.Hours[k].End).OnlyEnforceIf(inStretch[o, k]);
                m.Add(stretch[o] == k).OnlyEnforceIf(inStretch[o, k]);
            }

            m.AddExactlyOne(here);
            m.AddExactlyOne(Enumerable.Range(0, work.Painters).Select(p => (ILiteral)(by[o, p] = m.NewBoolVar($"p{o},{p}"))));
            if (Sprays(work, o) && work.Spraying is { } spraying)
            {
                var when = spraying.Select((h, i) =>
                {
                    var lies = m.NewBoolVar($"y{o},{i}");
                    m.Add(start[o] >= h.Start).OnlyEnforceIf(lies);
                    m.Add(start[o] + length <= h.End).OnlyEnforceIf(lies);
                    return (ILiteral)lies;
                }).ToList();
                m.AddExactlyOne(when);
            }
        }

        for (var o = 0; o < n; o++)
            foreach (var a in work.Operations[o].After)
            {
                var end = start[a.Operation] + work.Operations[a.Operation].Length;
                m.Add(start[o] >= end + a.MinWait);
                if (a.MaxWait is { } most)
                    m.Add(start[o] <= end + most);
            }

        foreach (var (a, b) in work.NotWetTogether)
        {
            var first = m.NewBoolVar($"w{a},{b}");
            m.Add(start[b] >= start[a] + work.Operations[a].Length + work.Operations[a].WetMinutes).OnlyEnforceIf(first);
            m.Add(start[a] >= start[b] + work.Operations[b].Length + work.Operations[b].WetMinutes).OnlyEnforceIf(first.Not());
        }

        if (work.Painters > 1)
        {
            m.AddNoOverlap(Enumerable.Range(0, n).Where(o => Sprays(work, o)).Select(o => m.NewFixedSizeIntervalVar(start[o], work.Operations[o].Length, $"spray{o}")));
            m.AddNoOverlap(Enumerable.Range(0, n).Where(o => work.Operations[o].HotAirMinutes > 0)
                .Select(o => m.NewFixedSizeIntervalVar(start[o] + work.Operations[o].Minutes, work.Operations[o].HotAirMinutes, $"hot{o}")));
        }

        if (work.DryingPlaces is { } places)
        {
            var lying = m.AddCumulative(places);
            for (var o = 0; o < n; o++)
                if (work.Operations[o].WetMinutes > 0)
                    lying.AddDemand(m.NewFixedSizeIntervalVar(start[o] + work.Operations[o].Length, work.Operations[o].WetMinutes, $"dry{o}"), 1);
        }

        for (var p = 0; p < work.Painters; p++)
            Hands(m, work, p, start, stretch, inStretch, by);

        IntVar last = m.NewIntVar(0, work.Hours.Count - 1, "last"), finish = m.NewIntVar(0, horizon, "finish"), late = m.NewIntVar(0, horizon, "late");
        m.AddMaxEquality(last, stretch);
        m.AddMaxEquality(finish, start.Select((s, o) => s + work.Operations[o].Length));
        m.Add(late >= finish - (work.Due ?? horizon));
        var used = Enumerable.Range(0, work.Hours.Count).Select(k =>
        {
            var any = m.NewBoolVar($"u{k}");
            for (var o = 0; o < n; o++)
                m.AddImplication(inStretch[o, k], any);
            return any;
        }).ToList();
        var sessions = LinearExpr.Sum(used);

        var solver = new CpSolver();
        foreach (var place in begin?.Placements ?? [])
        {
            m.AddHint(start[place.Operation], place.Start);
            for (var k = 0; k < work.Hours.Count; k++)
                m.AddHint(inStretch[place.Operation, k], place.Start >= work.Hours[k].Start && place.End <= work.Hours[k].End ? 1 : 0);
            for (var p = 0; p < work.Painters; p++)
                m.AddHint(by[place.Operation, p], place.Painter == p ? 1 : 0);
        }

        IReadOnlyList<Placement> lies = [];
        var found = new Dictionary<string, (long Value, bool Proved)>();
        (string, LinearExpr, double)[] goals = work.Goal == Goal.Soonest
            ? [("late", late, 0.1), ("last", last, 0.4), ("sessions", sessions, 0.25), ("finish", finish, 0.25)]
            : [("late", late, 0.1), ("sessions", sessions, 0.4), ("last", last, 0.25), ("finish", finish, 0.25)];
        foreach (var (name, goal, share) in goals)
        {
            if (name == "late" && work.Due is null)
            {
                found[name] = (0, true);
                continue;
            }

            solver.StringParameters = $"max_time_in_seconds:{seconds * share:0.###} num_workers:{Environment.ProcessorCount} random_seed:1";
            m.Minimize(goal);
            var status = solver.Solve(m);
            if (status is not (CpSolverStatus.Optimal or CpSolverStatus.Feasible))
            {
                if (found.Count <= 1)
                    return null;
                found[name] = (found.GetValueOrDefault("finish").Value, false);
                break;
            }

            lies = Enumerable.Range(0, n).Select(o => new Placement(o, (int)solver.Value(start[o]), (int)solver.Value(start[o]) + work.Operations[o].Length, Enumerable.Range(0, work.Painters).First(x => solver.Value(by[o, x]) == 1))).ToList();
            var value = (long)Math.Round(solver.ObjectiveValue);
            found[name] = (value, status == CpSolverStatus.Optimal && found.Values.All(f => f.Proved));
            m.Add(goal <= value);
            m.Model.SolutionHint = new PartialVariableAssignment();
            for (var o = 0; o < n; o++)
                m.AddHint(start[o], solver.Value(start[o]));
            foreach (var (other, expression) in new (string, LinearExpr)[] { ("last", last), ("sessions", sessions), ("finish", finish), ("late", late) })
                if (!found.ContainsKey(other) || !found[other].Proved)
                    found[other] = (solver.Value(expression), found.GetValueOrDefault(other).Proved);
        }

        return new Verdict((int)found["late"].Value, (int)found["last"].Value, (int)found["sessions"].Value, (int)found["finish"].Value, found["last"].Proved, found["sessions"].Proved, found["finish"].Proved) { Placements = lies };
    }

    private static bool Sprays(Work work, int o) => work.Operations[o].SetUp is >= 0 and var s && work.SetUps[s].Spray;

    /// <summary>One after the other, with what each change of set-up takes.</summary>
    private static void Hands(CpModel m, Work work, int p, IntVar[] start, IntVar[] stretch, BoolVar[,] inStretch, BoolVar[,] by)
    {
        var n = work.Operations.Count;
        var busy = new List<IntervalVar>();
        for (var o = 0; o < n; o++)
            busy.Add(m.NewOptionalFixedSizeIntervalVar(start[o], work.Operations[o].Length, by[o, p], $"b{o},{p}"));
        var with = Enumerable.Range(0, n).Where(o => work.Operations[o].SetUp >= 0).ToList();
        if (with.Count == 0)
        {
            m.AddNoOverlap(busy);
            return;
        }

        var horizon = work.Hours[^1].End;
        var circuit = m.AddCircuit();
        IntVar[] change = new IntVar[n], clean = new IntVar[n], changeAt = new IntVar[n], cleanAt = new IntVar[n];
        circuit.AddArc(0, 0, m.NewBoolVar($"none{p}"));
        var most = work.SetUps.Max(s => s.Minutes) + work.SetUps.Max(s => s.CleanMinutes);
        foreach (var o in with)
        {
            (change[o], clean[o]) = (m.NewIntVar(0, most, $"c{o},{p}"), m.NewIntVar(0, most, $"e{o},{p}"));
            (changeAt[o], cleanAt[o]) = (m.NewIntVar(0, horizon, $"ca{o},{p}"), m.NewIntVar(0, horizon, $"ea{o},{p}"));
            IntVar changed = m.NewIntVar(0, horizon, $"cd{o},{p}"), cleaned = m.NewIntVar(0, horizon, $"ed{o},{p}");
            busy.Add(m.NewOptionalIntervalVar(changeAt[o], change[o], changed, by[o, p], $"ci{o},{p}"));
            busy.Add(m.NewOptionalIntervalVar(cleanAt[o], clean[o], cleaned, by[o, p], $"ei{o},{p}"));
            m.Add(changeAt[o] + change[o] <= start[o]).OnlyEnforceIf(by[o, p]);
            m.Add(cleanAt[o] >= start[o] + work.Operations[o].Length).OnlyEnforceIf(by[o, p]);
            for (var k = 0; k < work.Hours.Count; k++)
            {
                m.Add(changeAt[o] >= work.Hours[k].Start).OnlyEnforceIf([inStretch[o, k], by[o, p]]);
                m.Add(cleanAt[o] + clean[o] <= work.Hours[k].End).OnlyEnforceIf([inStretch[o, k], by[o, p]]);
            }
        }

        var node = with.Select((o, i) => (o, i)).ToDictionary(x => x.o, x => x.i + 1);
        foreach (var o in with)
        {
            var set = work.SetUps[work.Operations[o].SetUp];
            circuit.AddArc(node[o], node[o], by[o, p].Not());
            BoolVar first = m.NewBoolVar($"f{o},{p}"), final = m.NewBoolVar($"l{o},{p}");
            circuit.AddArc(0, node[o], first);
            circuit.AddArc(node[o], 0, final);
            m.Add(change[o] >= set.Minutes).OnlyEnforceIf(first);
            m.Add(clean[o] >= set.CleanMinutes).OnlyEnforceIf(final);
            foreach (var q in with.Where(q => q != o))
            {
                BoolVar same = m.NewBoolVar($"a{o},{q},{p}"), other = m.NewBoolVar($"d{o},{q},{p}");
                circuit.AddArc(node[o], node[q], same);
                circuit.AddArc(node[o], node[q], other);
                var next = work.SetUps[work.Operations[q].SetUp];
                var needs = work.Operations[o].SetUp == work.Operations[q].SetUp ? 0 : set.CleanMinutes + next.Minutes;
                m.Add(stretch[o] == stretch[q]).OnlyEnforceIf(same);
                m.Add(start[q] >= start[o] + work.Operations[o].Length + needs).OnlyEnforceIf(same);
                m.Add(change[q] >= needs).OnlyEnforceIf(same);
                m.Add(changeAt[q] >= start[o] + work.Operations[o].Length).OnlyEnforceIf(same);
                m.Add(stretch[o] < stretch[q]).OnlyEnforceIf(other);
                m.Add(clean[o] >= set.CleanMinutes).OnlyEnforceIf(other);
                m.Add(change[q] >= next.Minutes).OnlyEnforceIf(other);
            }
        }

        m.AddNoOverlap(busy);
    }
}
