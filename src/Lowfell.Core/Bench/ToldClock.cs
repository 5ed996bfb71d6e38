namespace Lowfell.Core.Bench;

/// <summary>
/// What a device says of when something happened.
/// </summary>
/// <param name="Wall">By the clock on its wall, which may be wrong and may be put right at any time.</param>
/// <param name="Epoch">The run of its page that told it; null where the device has no such thing.</param>
/// <param name="TickMs">Milliseconds since that run began, by a clock that nobody can set; it may stand still while the device sleeps.</param>
/// <param name="OffsetMs">By how much the clock on the wall was behind the server's when that was last known, milliseconds; null where it never was.</param>
/// <param name="AheadMs">By how much the wall has run ahead of the ticks since then: it slept, or its clock was put forward.</param>
public readonly record struct ToldInstant(DateTimeOffset Wall, Guid? Epoch = null, double? TickMs = null, double? OffsetMs = null, double? AheadMs = null);

/// <summary>
/// Puts instants right that devices told by clocks of their own. Nothing is refused for its instant: one that cannot be is guessed, and
/// says so.
/// </summary>
/// <param name="now">The server's clock when the sending came.</param>
/// <param name="sent">The same moment by the device.</param>
public sealed class ToldClock(DateTimeOffset now, ToldInstant sent)
{
    /// <summary>Clocks this near to each other are alike, and nothing later than this in the future is: the way takes time.</summary>
    public static readonly TimeSpan Slack = TimeSpan.FromSeconds(5);

    /// <summary>Older than this is no evening that somebody still has to tell of: of a clock that was set by the server, and of one that never was.</summary>
    private static readonly TimeSpan oldestKnown = TimeSpan.FromDays(400), oldest = TimeSpan.FromDays(60);

    /// <summary>
    /// What a device knows of its own clock moves by seconds from answer to answer, the more so where answers are slow. Instants that lie so
    /// near to each other stand in the order in which it told them: what is wiped off was on before.
    /// </summary>
    public static readonly TimeSpan Near = TimeSpan.FromMinutes(1);

    private double SentOffsetMs => (now - sent.Wall).TotalMilliseconds;

    /// <summary>When it happened, by the server's clock, and whether that is only guessed.</summary>
    /// <param name="told">What the device says.</param>
    /// <param name="before">When what it told before this happened; a guess lies there.</param>
    public (DateTimeOffset At, bool Guessed) Of(ToldInstant told, DateTimeOffset? before)
    {
        var (at, guessed) = ByItself(told, before);
        return (before is { } last && last <= now && last > at && last - at < Near ? last : at, guessed);
    }

    private (DateTimeOffset At, bool Guessed) ByItself(ToldInstant told, DateTimeOffset? before)
    {
        var at = Plus(told.Wall, Offset(told));
        if (at <= now + Slack && at >= now - (told.OffsetMs is null ? oldest : oldestKnown))
            return (at > now ? now : at, false);

        // By the clock as it is now, where that could be; else beside what was told before.
        var other = Plus(told.Wall, SentOffsetMs);
        if (told.OffsetMs is not null && other <= now + Slack && other >= now - oldest)
            return (other > now ? now : other, false);
        return (before is { } last && last <= now && last >= now - oldest ? last : now, true);
    }

    /// <summary>By how much the wall was behind when it was told, milliseconds.</summary>
    private double Offset(ToldInstant told)
    {
        if (told.OffsetMs is { } known)
        {
            // It slept, or its clock was put forward: how far off the clock is now tells which.
            var forward = known - (told.AheadMs ?? 0);
            return told.AheadMs > Slack.TotalMilliseconds && Math.Abs(SentOffsetMs - forward) < Math.Abs(SentOffsetMs - known) ? forward : known;
        }

        // Never in touch with a server: where less time went by on the wall than in ticks, the clock was put back since.
        if (told.Epoch is null || told.Epoch != sent.Epoch || told.TickMs is not { } tick || sent.TickMs is not { } sentTick)
            return SentOffsetMs;
        var (wall, ticks) = ((sent.Wall - told.Wall).TotalMilliseconds, sentTick - tick);
        return wall < ticks - Slack.TotalMilliseconds ? SentOffsetMs - (ticks - wall) : SentOffsetMs;
    }

    /// <summary>An instant so much later; the end of time where there is none.</summary>
    private static DateTimeOffset Plus(DateTimeOffset instant, double ms)
    {
        var ticks = instant.UtcTicks + ms * TimeSpan.TicksPerMillisecond;
        return ticks <= DateTimeOffset.MinValue.Ticks ? DateTimeOffset.MinValue : ticks >= DateTimeOffset.MaxValue.Ticks ? DateTimeOffset.MaxValue : new DateTimeOffset((long)ticks, TimeSpan.Zero);
    }
}
