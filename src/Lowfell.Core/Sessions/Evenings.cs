namespace Lowfell.Core.Sessions;

/// <summary>Which evening something belongs to.</summary>
public static class Evenings
{
    /// <summary>An evening that goes on past midnight is still that evening.</summary>
    private static readonly TimeSpan dayBreaks = TimeSpan.FromHours(5);

    /// <summary>The evening of an instant, by a workshop's calendar.</summary>
    public static DateOnly Of(DateTimeOffset at, TimeZoneInfo zone) => DateOnly.FromDateTime((TimeZoneInfo.ConvertTime(at, zone) - dayBreaks).DateTime);
}
