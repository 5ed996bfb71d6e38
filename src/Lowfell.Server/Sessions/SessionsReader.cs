using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Core.Order;
using Lowfell.Core.Sessions;
using Lowfell.Core.Words;
using Lowfell.Server.Timetables;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Sessions;

/// <summary>Words a timetable: the one that was kept, or the best of this moment where none was.</summary>
internal sealed class SessionsReader(Planner planner)
{
    private readonly SessionsReading empty = new(
        planner.Workshop.Id, BenchWork.Clock(planner.Workshop).Id, planner.Terms.Hours.ToString(), planner.Guessed, planner.Workshop.Painters, null, null, null, null, 0, 0, 0, 0, "", [], [], [], []);

    public SessionsReading Read(TimetableRow? row)
    {
        if (row is null)
            return Word(planner.Best(planner.Terms), null);
        var kept = KeptPlan.Read(row.Plan);
        var closest = planner.Closest(planner.By(kept));
        var info = new KeptInfo(row.Number, row.MadeAt, row.Why, kept.AtOnce, kept.Careful, kept.Goal);
        var changed = planner.Inputs.Since(PlanInputs.Read(row.Inputs));
        var missed = closest.Table is null ? 0 : closest.Bench.Placed(kept).Count(p => p.Start < 0);
        var holds = closest is { Table: not null, Moved.Count: 0, New: 0 } && missed == 0;
        var reading = Word(closest, kept) with { Kept = info };
        return holds && changed.Count == 0 ? reading : reading with { News = News(changed, missed, closest, kept), Kept = info };
    }

    /// <summary>What has changed, and what taking over the plan of today does.</summary>
    private static PlanNews News(IReadOnlyList<string> changed, int missed, Made closest, KeptPlan kept)
    {
        var why = new List<string>();
        var shorts = changed.Where(c => c.StartsWith("too little", StringComparison.Ordinal)).ToList();
        var others = changed.Except(shorts).ToList();
        if (others.Count > 0)
            why.Add($"Changed since: {Listed(others)}.");
        if (shorts.Count > 0)
            why.Add($"There is {Listed(shorts)}.");
        if (missed > 0)
            why.Add($"{missed} operation{(missed == 1 ? " is" : "s are")} not done that should be by now.");
        if (closest.Table is not { } table)
            return new PlanNews(string.Join(' ', [.. why, "No timetable can be had with it."]), 0, null);
        var (was, will) = (kept.Operations.Count == 0 ? (DateTimeOffset?)null : kept.Operations.Max(o => o.End), table.Placements.Count == 0 ? (DateTimeOffset?)null : closest.Bench.Instant(table.Outcome.Finish));
        var moved = closest.Moved.Count + closest.New;
        why.Add(moved == 0 ? "Nothing has to move." : $"Taking it over moves {closest.Moved.Count} of {table.Placements.Count} operations{(closest.New > 0 ? $" and adds {closest.New}" : "")}.");
        if (was is { } then && will is { } now && then.Date != now.Date)
            why.Add($"Finished {Day(now)} rather than {Day(then)}.");
        return new PlanNews(string.Join(' ', why), moved, will);
    }

    private const int MostListed = 4;

    private static string Listed(IReadOnlyList<string> words) => words.Count <= MostListed ? string.Join(", ", words) : $"{string.Join(", ", words.Take(MostListed))} and {words.Count - MostListed} more";

    public static string Day(DateTimeOffset at) => at.ToString("ddd d MMM", System.Globalization.CultureInfo.InvariantCulture);

    /// <summary>A timetable in words; with the facts that clash where there is none.</summary>
    public SessionsReading Word(Made made, KeptPlan? kept)
    {
        var reading = empty with { LeftOut = made.Bench.LeftOut };
        if (made.Bench.Work.Operations.Count == 0)
            return reading;
        if (made.Table is not { } table)
            return reading with { Clash = planner.Clash(made).Select(f => new PlannedClash(f.Kind, f.Words)).ToList() };
        var (bench, work) = (made.Bench, made.Bench.Work);
        var chain = Binding.Of(work, table);
        var binds = chain.Select((c, i) => (c.Operation, i)).ToDictionary(x => x.Operation, x => x.i);
        var closes = Closing(work, table);
        var at = table.Placements.ToDictionary(p => p.Operation);
        var sessions = work.Hours.Select(h =>
        {
            var mine = table.Placements.Where(p => p.Start >= h.Start && p.Start < h.End).OrderBy(p => p.Start).ToList();
            var evening = bench.EveningOf(h);
            return new PlannedSession(
                mine.Count == 0 ? null : kept?.Sessions.FirstOrDefault(s => s.Start <= bench.Instant(mine[0].Start) && bench.Instant(mine[0].Start) < s.End)?.Id, evening.Start, evening.End, mine.Sum(p => p.End - p.Start),
                mine.Select(p => Word(bench, p, kept, closes, binds)).ToList(), Ready(bench, mine));
        }).Where(s => s.Operations.Count > 0).ToList();
        return reading with
        {
            Finish = bench.Instant(table.Outcome.Finish),
            SoonestFinish = made.Bound is { } bound ? bench.Instant(bound.Finish) : null,
            FewestSessions = made.Bound?.Sessions ?? 0,
            HandsOnMinutes = work.Operations.Sum(o => o.Length),
            IdleMinutes = table.Outcome.Idle,
            SetUps = table.Outcome.SetUps,
            Binding = Binding.Words(work, chain),
            Due = bench.Due.Select(d =>
            {
                var finish = bench.Instant(d.Operations.Max(o => at[o].End));
                return new PlannedDue(d.Set.Id, d.Set.Name, d.Set.DueDate!.Value, finish, DateOnly.FromDateTime(finish.DateTime) <= d.Set.DueDate.Value);
            }).ToList(),
            Sessions = sessions,
        };
    }

    /// <summary>By when what a window ties to an operation has to begin.</summary>
    private static Dictionary<int, int> Closing(Work work, Timetable table)
    {
        var closes = new Dictionary<int, int>();
        var at = table.Placements.ToDictionary(p => p.Operation);
        foreach (var after in work.Operations.SelectMany(o => o.After).Where(a => a.MaxWait is not null))
        {
            var until = at[after.Operation].End + after.MaxWait!.Value;
            closes[after.Operation] = closes.TryGetValue(after.Operation, out var known) ? Math.Min(known, until) : until;
        }

        return closes;
    }

    private static PlannedOperation Word(BenchWork bench, Placement p, KeptPlan? kept, Dictionary<int, int> closes, Dictionary<int, int> binds)
    {
        var batch = bench.Set.Batches[p.Operation];
        var at = bench.At(batch);
        var (place, layer, view, pieces, all, beforehand) = at;
        return new PlannedOperation(
            p.Operation, place.Graph.Set.Id, place.Zone.Id, layer.Id, pieces[0].Id, place.Graph.Set.Name, place.Design.Name, place.Zone.Name, batch.Layer + 1, beforehand ? EnumWords.Of(layer.Preparation) : EnumWords.Of(layer.Technique),
            string.Join(" + ", layer.Paint.Select(x => x.Material.Name)), view.Predictions[batch.Layer].Average.Colour.ToString(), pieces.Select(x => x.Label).ToList(), all.Count,
            bench.Instant(p.Start), bench.Instant(p.End), bench.Work.Operations[p.Operation].WetMinutes, closes.TryGetValue(p.Operation, out var until) ? bench.Instant(until) : null,
            binds.TryGetValue(p.Operation, out var link) ? link : null, p.Painter, kept?.Find(at)?.Pinned ?? false, beforehand);
    }

    private static GetReady Ready(BenchWork bench, IReadOnlyList<Placement> mine)
    {
        var at = mine.Select(p => bench.At(bench.Set.Batches[p.Operation])).ToList();
        var prepare = at.Where(a => a.Beforehand).GroupBy(a => (a.Layer.Preparation, a.Layer.Main?.Name)).Select(g =>
            $"{g.Key.Name}, {EnumWords.Of(g.Key.Preparation)}: {Duration.Words(Preparations.LeadMinutes(g.Key.Preparation).Usual)} before it is laid").ToList();
        at.RemoveAll(a => a.Beforehand);
        var pots = at.SelectMany(a => Recipe.Each(a.Layer).Select(pot => (pot.Recipe, pot.Share, At: a))).GroupBy(x => x.Recipe.Key).Select(g =>
        {
            var (recipe, layer) = (g.First().Recipe, g.First().At.Layer);
            var paints = layer.Paint.Where(p => recipe.Parts.Any(r => r.Material.Id == p.Material.Id)).ToList();
            var ml = g.Sum(x => Quantities.PotMl(x.At.Layer, x.At.View.Context.Zone, x.At.Pieces.Count) * x.Share);
            return new PotReady(string.Join(" + ", paints.Select(p => p.Material.Name)), layer.Dilution is { } d ? $"{d} {d.Thinner.Name}" : "", Math.Round(ml, 1), PotColour.InTheJar(paints).ToString());
        }).OrderByDescending(p => p.Ml).ToList();
        var tools = at.Select(a => Tool(a.Layer)).OfType<string>().Distinct().Order().ToList();
        var care = at.SelectMany(a => Care.For(a.Layer, a.Place.Design.Substrate)).Distinct().OrderBy(c => c.Care).Select(c => c.Text).Distinct().ToList();
        return new GetReady(prepare, pots, tools, care);
    }

    /// <summary>What to lay out, with what not to spoil by it.</summary>
    private static string? Tool(Layer layer) => layer.Tool switch
    {
        Core.Layers.Tool.Brush when layer.Technique is Technique.Stipple or Technique.DryBrush or Technique.Overbrush => "an old brush, for stippling and dragging",
        Core.Layers.Tool.Brush when layer.Carrier is { } c && c.IsSolvent() => "a synthetic brush for spirit, apart from those for water",
        _ when TechniqueTable.For(layer.Technique, layer.Tool).SetUpMinutes <= 0 => null,
        _ => EnumWords.Of(layer.Tool),
    };
}
