using System.Globalization;

namespace Lowfell.Browser.Tests;

/// <summary>
/// The clock of servers and pages in these tests: it goes on as clocks do, from four in the morning of the day on which they are run. What a
/// bench offers hangs on how much of the evening is left, and at that hour there is none.
/// </summary>
internal sealed class Morning : TimeProvider
{
    private const int Hour = 4;

    public static readonly Morning Clock = new();

    /// <summary>By how much it is behind; never before, so that what was just made is not of the future to those who go by the real one.</summary>
    private readonly TimeSpan behind = Since(System.GetUtcNow());

    private static TimeSpan Since(DateTimeOffset now) => now.TimeOfDay - TimeSpan.FromHours(Hour) is var since && since < TimeSpan.Zero ? since + TimeSpan.FromDays(1) : since;

    public override DateTimeOffset GetUtcNow() => System.GetUtcNow() - behind;

    /// <summary>Puts the clock of a page so far back before it begins.</summary>
    public string Script => Behind(behind.TotalMilliseconds.ToString("0", CultureInfo.InvariantCulture));

    /// <summary>A page's clock behind what it was by so many milliseconds, or by what says how many.</summary>
    public static string Behind(string ms) =>
        $"{{ const Before = Date; globalThis.Date = class extends Before {{ constructor(...a) {{ super(...(a.length ? a : [Before.now() - ({ms})])) }} static now() {{ return Before.now() - ({ms}) }} }} }}";
}
