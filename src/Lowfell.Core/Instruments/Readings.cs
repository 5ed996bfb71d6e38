using Lowfell.Core.Drying;

namespace Lowfell.Core.Instruments;

/// <summary>What a room sensor said. <paramref name="TemperatureC"/> in Celsius, <paramref name="RelativeHumidity"/> 0..1.</summary>
public readonly record struct ClimateReading(DateTimeOffset At, double TemperatureC, double RelativeHumidity);

/// <summary>What a scale said, grams.</summary>
public readonly record struct ScaleReading(DateTimeOffset At, double Grams);

/// <summary>Tells readings from nonsense: an instrument that is broken must not dry anybody's paint.</summary>
public static class Plausible
{
    /// <summary>What the room of a bench can be: as it can be typed.</summary>
    public const double ColdestC = -10, WarmestC = 45;

    /// <summary>A scale for pots.</summary>
    public const double MostGrams = 5000;

    /// <summary>What the air of a room can do in a minute, with the window thrown open.</summary>
    private const double MostCAMinute = 3, MostHumidityAMinute = 0.2;

    /// <summary>After a silence this long nothing is known of what went before.</summary>
    private static readonly TimeSpan forgotten = TimeSpan.FromMinutes(5);

    /// <summary>Clocks of instruments are a little off; a reading older than a day is of no use.</summary>
    private static readonly TimeSpan slack = TimeSpan.FromMinutes(1), oldest = TimeSpan.FromDays(1);

    /// <summary>Why a climate cannot be; null when it can.</summary>
    /// <param name="reading">What was said.</param>
    /// <param name="last">What the same instrument said before, and was believed.</param>
    /// <param name="now">The server's clock.</param>
    public static string? Climate(ClimateReading reading, ClimateReading? last, DateTimeOffset now)
    {
        if (Clock(reading.At, now) is { } off)
            return off;
        if (!(reading.TemperatureC >= ColdestC && reading.TemperatureC <= WarmestC))
            return FormattableString.Invariant($"{reading.TemperatureC:0.#} °C is no temperature of a room.");
        if (!(reading.RelativeHumidity >= 0 && reading.RelativeHumidity <= 1))
            return FormattableString.Invariant($"{reading.RelativeHumidity * 100:0} % is no humidity.");
        if (last is not { } before || reading.At - before.At > forgotten || reading.At < before.At)
            return null;
        var minutes = Math.Max(1, (reading.At - before.At).TotalMinutes);
        return Math.Abs(reading.TemperatureC - before.TemperatureC) > MostCAMinute * minutes || Math.Abs(reading.RelativeHumidity - before.RelativeHumidity) > MostHumidityAMinute * minutes
            ? "No room changes that fast." : null;
    }

    /// <summary>Why a weight cannot be; null when it can.</summary>
    public static string? Grams(ScaleReading reading, DateTimeOffset now) =>
        Clock(reading.At, now) ?? (Math.Abs(reading.Grams) <= MostGrams ? null : FormattableString.Invariant($"{reading.Grams:0} g is no weight of a pot."));

    private static string? Clock(DateTimeOffset at, DateTimeOffset now) =>
        at > now + slack ? "Its clock is ahead." : at < now - oldest ? "It is more than a day old." : null;
}

/// <summary>
/// The air at the bench through time: as it was measured while that is fresh, and as somebody typed it otherwise.
/// </summary>
/// <param name="typed">The air as it was typed; whether it moves is always as typed.</param>
/// <param name="readings">What was measured, in any order.</param>
public sealed class Room(Climate typed, IEnumerable<ClimateReading> readings)
{
    /// <summary>A measured climate counts for so long.</summary>
    public static readonly TimeSpan Fresh = TimeSpan.FromMinutes(15);

    /// <summary>One reading trembles; those of so long are taken together.</summary>
    private static readonly TimeSpan together = TimeSpan.FromMinutes(5);

    private readonly ClimateReading[] sorted = readings.OrderBy(r => r.At).ToArray();

    public Climate Typed => typed;

    /// <summary>The first instant something was measured; null without instruments.</summary>
    public DateTimeOffset? Since => sorted.Length == 0 ? null : sorted[0].At;

    /// <summary>What was measured last before an instant, while it is fresh then.</summary>
    public ClimateReading? Newest(DateTimeOffset at) => Last(at) is >= 0 and var i && at - sorted[i].At <= Fresh ? sorted[i] : null;

    /// <summary>The air at an instant.</summary>
    public Climate At(DateTimeOffset at)
    {
        var last = Last(at);
        if (last < 0 || at - sorted[last].At > Fresh)
            return typed;
        double temperature = 0, humidity = 0;
        var count = 0;
        for (var i = last; i >= 0 && sorted[last].At - sorted[i].At <= together; i--, count++)
            (temperature, humidity) = (temperature + sorted[i].TemperatureC, humidity + sorted[i].RelativeHumidity);
        return typed with { TemperatureC = temperature / count, RelativeHumidity = humidity / count };
    }

    /// <summary>The last reading that is not after an instant; −1 where there is none.</summary>
    private int Last(DateTimeOffset at)
    {
        int low = 0, high = sorted.Length;
        while (low < high)
        {
            var middle = (low + high) / 2;
            if (sorted[middle].At <= at)
                low = middle + 1;
            else
                high = middle;
        }

        return low - 1;
    }
}
