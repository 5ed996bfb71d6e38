using System.Globalization;
using System.Text.RegularExpressions;

namespace Lowfell.Core.Sessions;

/// <summary>A stretch of every week, by the clock on the wall.</summary>
public sealed record WeeklyStretch(DayOfWeek Day, TimeOnly Start, TimeOnly End);

/// <summary>A stretch on one evening.</summary>
public readonly record struct Evening(DateTimeOffset Start, DateTimeOffset End);

/// <summary>Days on which nobody is there, the last one too.</summary>
public readonly record struct Away(DateOnly From, DateOnly To);

/// <summary>A stretch on one day, besides those of its week.</summary>
public readonly record struct Extra(DateOnly Day, TimeOnly Start, TimeOnly End);

/// <summary>When somebody is at the bench, as it is written: "Tue Thu 19:30-22:00, Sat 10-13, spraying until 21:00, away 2026-12-24 to 2027-01-02, extra 2027-01-03 14-18".</summary>
public sealed partial record BenchHours(IReadOnlyList<WeeklyStretch> Weekly, TimeOnly? SprayUntil)
{
    /// <summary>Days off, in their order.</summary>
    public IReadOnlyList<Away> Away { get; init; } = [];

    /// <summary>Stretches out of turn, in their order; they count on days off too.</summary>
    public IReadOnlyList<Extra> Extra { get; init; } = [];

    /// <summary>What is taken where nothing is said: two evenings of 150 minutes and a Saturday morning of 180.</summary>
    public static readonly BenchHours Usual = new(
        [new(DayOfWeek.Tuesday, new(19, 30), new(22, 0)), new(DayOfWeek.Thursday, new(19, 30), new(22, 0)), new(DayOfWeek.Saturday, new(10, 0), new(13, 0))], null);

    private static readonly string[] days = ["sunday", "monday", "tuesday", "wednesday", "thursday", "friday", "saturday"];

    /// <summary>Reads hours; null with what is wrong, and what to write instead.</summary>
    public static BenchHours? Read(string text, out string fault)
    {
        var weekly = new List<WeeklyStretch>();
        var (away, extra) = (new List<Away>(), new List<Extra>());
        TimeOnly? spray = null;
        fault = "";
        foreach (var part in text.Split([',', ';', '\n'], StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
        {
            if (SprayPattern().Match(part) is { Success: true } s)
            {
                if (Time(s.Groups[1].Value, s.Groups[2].Value) is not { } until)
                    fault = $"“{part}” has no time that a clock knows. Write it as spraying until 21:00.";
                spray = Time(s.Groups[1].Value, s.Groups[2].Value);
                continue;
            }

            if (AwayPattern().Match(part) is { Success: true } a)
            {
                var (from, to) = (Date(a.Groups[1].Value), Date(a.Groups[2].Success ? a.Groups[2].Value : a.Groups[1].Value));
                if (from is null || to is null || to < from)
                    fault = $"“{part}” is no range of days. Write it as away 2026-12-24 to 2027-01-02.";
                else
                    away.Add(new Away(from.Value, to.Value));
                continue;
            }

            if (ExtraPattern().Match(part) is { Success: true } x)
            {
                if (Date(x.Groups[1].Value) is { } on1 && Time(x.Groups[2].Value, x.Groups[3].Value) is { } begins && Time(x.Groups[4].Value, x.Groups[5].Value) is { } ends && begins < ends)
                    extra.Add(new Extra(on1, begins, ends));
                else
                    fault = $"“{part}” is no day with times. Write it as extra 2027-01-03 14:00-18:00.";
                continue;
            }

            var m = StretchPattern().Match(part);
            var on = m.Success ? Days(m.Groups[1].Value) : [];
            if (on.Count == 0 || Time(m.Groups[2].Value, m.Groups[3].Value) is not { } start || Time(m.Groups[4].Value, m.Groups[5].Value) is not { } end)
                fault = $"“{part}” was not understood. Write days and times, for example Tue Thu 19:30-22:00.";
            else if (end <= start)
                fault = $"“{part}” ends before it starts. Split it at midnight.";
            else
                weekly.AddRange(on.Select(d => new WeeklyStretch(d, start, end)));
            if (fault.Length > 0)
                return null;
        }

        if (fault.Length > 0)
            return null;
        weekly = weekly.OrderBy(w => ((int)w.Day + 6) % 7).ThenBy(w => w.Start).ToList();
        for (var i = 1; i < weekly.Count; i++)
            if (weekly[i].Day == weekly[i - 1].Day && weekly[i].Start < weekly[i - 1].End)
                fault = $"{weekly[i].Day} has two stretches at the same time. Write it as one.";
        if (weekly.Count == 0)
            fault = "No hours are left. Give at least one stretch, for example Sat 10:00-13:00.";
        return fault.Length > 0 ? null : new BenchHours(weekly, spray) { Away = away.Distinct().OrderBy(a => a.From).ToList(), Extra = extra.Distinct().OrderBy(x => x.Day).ThenBy(x => x.Start).ToList() };
    }

    /// <summary>As it would be written: days with the same times together.</summary>
    public override string ToString()
    {
        var parts = Weekly.GroupBy(w => (w.Start, w.End)).OrderBy(g => ((int)g.First().Day + 6) % 7)
            .Select(g => $"{string.Join(' ', g.Select(w => w.Day.ToString()[..3]))} {Clock(g.Key.Start)}-{Clock(g.Key.End)}");
        if (SprayUntil is { } until)
            parts = parts.Append($"spraying until {Clock(until)}");
        parts = parts.Concat(Away.Select(a => a.From == a.To ? $"away {Day(a.From)}" : $"away {Day(a.From)} to {Day(a.To)}")).Concat(Extra.Select(x => $"extra {Day(x.Day)} {Clock(x.Start)}-{Clock(x.End)}"));
        return string.Join(", ", parts);
    }

    /// <summary>The stretches that end after a moment, for some weeks, by the clock of a time zone: an hour that the clocks skip is not worked.</summary>
    public IReadOnlyList<Evening> From(DateTimeOffset moment, int weeks, TimeZoneInfo zone)
    {
        var today = DateOnly.FromDateTime(TimeZoneInfo.ConvertTime(moment, zone).DateTime);
        var found = new List<Evening>();
        for (var day = today; day < today.AddDays(7 * weeks); day = day.AddDays(1))
        {
            var usual = Away.Any(a => day >= a.From && day <= a.To) ? [] : Weekly.Where(w => w.Day == day.DayOfWeek).Select(w => (w.Start, w.End));
            foreach (var (from, to) in Joined(usual.Concat(Extra.Where(x => x.Day == day).Select(x => (x.Start, x.End)))))
            {
                DateTimeOffset start = At(day, from, zone), end = At(day, to, zone);
                if (end > start && end > moment)
                    found.Add(new Evening(start, end));
            }
        }

        return found;
    }

    /// <summary>Stretches that meet or overlap are one.</summary>
    private static List<(TimeOnly Start, TimeOnly End)> Joined(IEnumerable<(TimeOnly Start, TimeOnly End)> stretches)
    {
        var joined = new List<(TimeOnly Start, TimeOnly End)>();
        foreach (var (start, end) in stretches.OrderBy(s => s.Start))
            if (joined.Count > 0 && start <= joined[^1].End)
                joined[^1] = (joined[^1].Start, end > joined[^1].End ? end : joined[^1].End);
            else
                joined.Add((start, end));
        return joined;
    }

    /// <summary>The same, cut off where spraying has to end; null where it may go on.</summary>
    public IReadOnlyList<Evening>? SprayingFrom(IReadOnlyList<Evening> evenings, TimeZoneInfo zone) => SprayUntil is not { } until ? null
        : evenings.Select(e => e with { End = Earlier(e.End, At(DateOnly.FromDateTime(TimeZoneInfo.ConvertTime(e.Start, zone).DateTime), until, zone)) }).Where(e => e.End > e.Start).ToList();

    private static DateTimeOffset Earlier(DateTimeOffset a, DateTimeOffset b) => a < b ? a : b;

    private static DateTimeOffset At(DateOnly day, TimeOnly time, TimeZoneInfo zone)
    {
        var wall = day.ToDateTime(time);
        while (zone.IsInvalidTime(wall))
            wall = wall.AddMinutes(1);
        return new DateTimeOffset(wall, zone.GetUtcOffset(wall));
    }

    private static string Day(DateOnly day) => day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture);

    private static DateOnly? Date(string text) => DateOnly.TryParseExact(text.Trim(), ["yyyy-MM-dd", "d MMM yyyy", "d MMMM yyyy"], CultureInfo.InvariantCulture, DateTimeStyles.None, out var day) ? day : null;

    private static string Clock(TimeOnly t) => t.ToString("HH:mm", CultureInfo.InvariantCulture);

    private static TimeOnly? Time(string hour, string minute) =>
        int.TryParse(hour, out var h) && h < 24 && (minute.Length == 0 || (int.TryParse(minute, out var m) && m < 60)) ? new TimeOnly(h, minute.Length == 0 ? 0 : int.Parse(minute, CultureInfo.InvariantCulture)) : null;

    private static List<DayOfWeek> Days(string text)
    {
        var found = new List<DayOfWeek>();
        foreach (var word in text.ToLowerInvariant().Replace("every day", "sun-sat", StringComparison.Ordinal).Replace("weekdays", "mon-fri", StringComparison.Ordinal).Split([' ', '+', '&', '/'], StringSplitOptions.RemoveEmptyEntries))
        {
            if (word is "and")
                continue;
            var ends = word.Split('-', '–');
            int from = Day(ends[0]), to = ends.Length == 2 ? Day(ends[1]) : from;
            if (from < 0 || to < 0 || ends.Length > 2)
                return [];
            for (var d = from; ; d = (d + 1) % 7)
            {
                found.Add((DayOfWeek)d);
                if (d == to)
                    break;
            }
        }

        return found.Distinct().ToList();
    }

    private static int Day(string word) => word.Length < 2 ? -1 : Array.FindIndex(days, d => d.StartsWith(word.TrimEnd('.', 's') is { Length: >= 2 } w ? w : word, StringComparison.Ordinal));

    [GeneratedRegex(@"^(.+?)\s+(\d{1,2})(?:[:.](\d{2}))?\s*(?:-|–|to|until)\s*(\d{1,2})(?:[:.](\d{2}))?$", RegexOptions.IgnoreCase)]
    private static partial Regex StretchPattern();

    [GeneratedRegex(@"^(?:away|off)\s+(\d{4}-\d\d-\d\d|\d{1,2} \w+ \d{4})(?:\s*(?:-|–|to|until)\s*(\d{4}-\d\d-\d\d|\d{1,2} \w+ \d{4}))?$", RegexOptions.IgnoreCase)]
    private static partial Regex AwayPattern();

    [GeneratedRegex(@"^(?:extra|also)\s+(\d{4}-\d\d-\d\d|\d{1,2} \w+ \d{4})\s+(\d{1,2})(?:[:.](\d{2}))?\s*(?:-|–|to|until)\s*(\d{1,2})(?:[:.](\d{2}))?$", RegexOptions.IgnoreCase)]
    private static partial Regex ExtraPattern();

    [GeneratedRegex(@"^spray(?:ing)?\s+(?:until|to|till)\s+(\d{1,2})(?:[:.](\d{2}))?$", RegexOptions.IgnoreCase)]
    private static partial Regex SprayPattern();
}
