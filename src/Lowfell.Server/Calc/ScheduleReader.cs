using Lowfell.Core.Sessions;
using Lowfell.Server.Http;

namespace Lowfell.Server.Calc;

/// <summary>Turns a request into work, every fault named by its field.</summary>
internal static class ScheduleReader
{
    public const int MostOperations = 5000;
    private const int MostMinutes = 10_000_000, MostStretches = 20_000, MostPainters = 20, MostSetUps = 500, MostPairs = 20_000, MostAfter = 200;

    public static Work? Read(ScheduleIn ask, Faults faults)
    {
        var hours = Stretches(ask.Hours, "hours", faults);
        faults.Require(hours.Count > 0, "hours", "Give at least one stretch, [start, end].");
        var spraying = ask.Spraying is null ? null : Stretches(ask.Spraying, "spraying", faults);
        faults.Range(ask.Painters ?? 1, "painters", 1, MostPainters);
        if (ask.DryingPlaces is { } places)
            faults.Range(places, "dryingPlaces", 1, MostOperations);
        if (ask.Due is { } due)
            faults.Range(due, "due", 0, MostMinutes);
        var (setUps, setUpIds) = SetUps(ask.Setups ?? [], faults);
        var entries = ask.Operations ?? [];
        faults.Require(entries.Count <= MostOperations, "operations", $"At most {MostOperations} operations; this has {entries.Count}.");
        if (entries.Count > MostOperations)
            return null;
        var ids = new Dictionary<string, int>();
        for (var i = 0; i < entries.Count; i++)
        {
            var id = entries[i]?.Id;
            faults.Require(!string.IsNullOrEmpty(id) && id.Length <= 200, $"operations[{i}].id", "Give an id of up to 200 characters.");
            faults.Require(string.IsNullOrEmpty(id) || ids.TryAdd(id, i), $"operations[{i}].id", $"There is an operation {id} already.");
        }

        var operations = entries.Select((o, i) => Operation(o, $"operations[{i}]", i, ids, setUpIds, faults)).ToList();
        var pairs = Pairs(ask.NotWetTogether ?? [], ids, faults);
        if (!faults.Any && Circle(operations) is { } circle)
            faults.Add($"operations[{circle}].after", "Operations wait for each other in a circle. Take one of the waits out.");
        return faults.Any ? null : new Work
        {
            Hours = hours,
            Spraying = spraying,
            Painters = ask.Painters ?? 1,
            SetUps = setUps,
            Operations = operations,
            NotWetTogether = pairs,
            DryingPlaces = ask.DryingPlaces,
            Due = ask.Due,
            Goal = ask.Goal ?? Goal.Soonest,
        };
    }

    private static List<Stretch> Stretches(IReadOnlyList<int[]?>? entries, string field, Faults faults)
    {
        var read = new List<Stretch>();
        entries ??= [];
        faults.Require(entries.Count <= MostStretches, field, $"At most {MostStretches} stretches.");
        for (var i = 0; i < Math.Min(entries.Count, MostStretches); i++)
        {
            if (entries[i] is not [>= 0 and var start, <= MostMinutes and var end])
                faults.Add($"{field}[{i}]", $"Give a stretch as [start, end], minutes from 0 to {MostMinutes}.");
            else if (end <= start)
                faults.Add($"{field}[{i}]", "It ends before it starts. Give the start first.");
            else if (read.Count > 0 && start < read[^1].End)
                faults.Add($"{field}[{i}]", "Stretches are given in order and do not overlap.");
            else
                read.Add(new Stretch(start, end));
        }

        return read;
    }

    private static (List<SetUp> SetUps, Dictionary<string, int> Ids) SetUps(IReadOnlyList<SetUpIn?> entries, Faults faults)
    {
        var (read, ids) = (new List<SetUp>(), new Dictionary<string, int>());
        faults.Require(entries.Count <= MostSetUps, "setups", $"At most {MostSetUps} set-ups.");
        for (var i = 0; i < Math.Min(entries.Count, MostSetUps); i++)
        {
            var (s, at) = (entries[i], $"setups[{i}]");
            faults.Require(!string.IsNullOrEmpty(s?.Id), $"{at}.id", "Give an id.");
            faults.Require(string.IsNullOrEmpty(s?.Id) || ids.TryAdd(s.Id, read.Count), $"{at}.id", $"There is a set-up {s?.Id} already.");
            faults.Range(s?.Minutes ?? 0, $"{at}.minutes", 0, MostMinutes);
            faults.Range(s?.CleanMinutes ?? 0, $"{at}.cleanMinutes", 0, MostMinutes);
            read.Add(new SetUp(s?.Id ?? "", s?.Minutes ?? 0, s?.CleanMinutes ?? 0, s?.Spray ?? false));
        }

        return (read, ids);
    }

    private static Operation Operation(OperationIn? entry, string at, int index, Dictionary<string, int> ids, Dictionary<string, int> setUps, Faults faults)
    {
        var o = entry ?? new OperationIn(null, null);
        faults.Require(o.Minutes is not null, $"{at}.minutes", "Give its minutes.");
        faults.Range(o.Minutes ?? 0, $"{at}.minutes", 0, MostMinutes);
        faults.Range(o.HotAirMinutes ?? 0, $"{at}.hotAirMinutes", 0, MostMinutes);
        faults.Range(o.WetMinutes ?? 0, $"{at}.wetMinutes", 0, MostMinutes);
        var setUp = -1;
        if (o.Setup is not null && !setUps.TryGetValue(o.Setup, out setUp))
            faults.Add($"{at}.setup", $"There is no set-up {o.Setup}. Give one of setups.");
        var after = new List<After>();
        var entries = o.After ?? [];
        faults.Require(entries.Count <= MostAfter, $"{at}.after", $"At most {MostAfter} operations before one.");
        for (var k = 0; k < Math.Min(entries.Count, MostAfter); k++)
        {
            var (a, where) = (entries[k], $"{at}.after[{k}]");
            faults.Range(a?.MinWait ?? 0, $"{where}.minWait", 0, MostMinutes);
            faults.Range(a?.MaxWait ?? 0, $"{where}.maxWait", 0, MostMinutes);
            if (a?.Operation is not { } id || !ids.TryGetValue(id, out var before))
                faults.Add($"{where}.operation", $"There is no operation {a?.Operation}. Give the id of one.");
            else if (before == index)
                faults.Add($"{where}.operation", "An operation cannot wait for itself.");
            else
                after.Add(new After(before, a.MinWait ?? 0, a.MaxWait));
        }

        return new Operation(o.Id ?? "", o.Minutes ?? 0, o.Setup is null ? -1 : setUp, o.HotAirMinutes ?? 0, o.WetMinutes ?? Core.Sessions.Operation.UsualWetMinutes) { After = after };
    }

    private static List<(int, int)> Pairs(IReadOnlyList<string?[]?> entries, Dictionary<string, int> ids, Faults faults)
    {
        var read = new List<(int, int)>();
        faults.Require(entries.Count <= MostPairs, "notWetTogether", $"At most {MostPairs} pairs.");
        for (var i = 0; i < Math.Min(entries.Count, MostPairs); i++)
        {
            var at = $"notWetTogether[{i}]";
            if (entries[i] is not [{ } first, { } second])
                faults.Add(at, "Give a pair of operations.");
            else if (!ids.TryGetValue(first, out var a) || !ids.TryGetValue(second, out var b))
                faults.Add(at, $"There is no operation {(ids.ContainsKey(first) ? second : first)}. Give the ids of two.");
            else if (a == b)
                faults.Add(at, "Give two different operations.");
            else
                read.Add((a, b));
        }

        return read;
    }

    /// <summary>One of a circle of waits; null when there is none.</summary>
    private static int? Circle(List<Operation> operations)
    {
        var waits = operations.Select(o => o.After.Count).ToArray();
        var later = operations.SelectMany((o, i) => o.After.Select(a => (a.Operation, Later: i))).ToLookup(x => x.Operation, x => x.Later);
        var ready = new Queue<int>(Enumerable.Range(0, waits.Length).Where(i => waits[i] == 0));
        var through = 0;
        while (ready.TryDequeue(out var o))
        {
            through++;
            foreach (var l in later[o])
                if (--waits[l] == 0)
                    ready.Enqueue(l);
        }

        return through == waits.Length ? null : Array.FindIndex(waits, w => w > 0);
    }
}
