using System.Globalization;

namespace Lowfell.Core.Words;

/// <summary>Minutes as a painter says them.</summary>
public static class Duration
{
    /// <summary>"40 min", "2 h 30", "3 days"; sensible precision, never false digits.</summary>
    public static string Words(double minutes) => minutes switch
    {
        < 90 => string.Create(CultureInfo.InvariantCulture, $"{Math.Ceiling(minutes):0} min"),
        < 8 * 60 => Hours(Math.Ceiling(minutes / 10) * 10),
        < 48 * 60 => string.Create(CultureInfo.InvariantCulture, $"{Math.Ceiling(minutes / 60):0} h"),
        _ => string.Create(CultureInfo.InvariantCulture, $"{Math.Ceiling(minutes / 1440 * 2) / 2:0.#} days"),
    };

    /// <summary>Up to the next 5 minutes, or the next half hour from two hours on.</summary>
    public static double RoundUp(double minutes) =>
        minutes < 120 ? Math.Ceiling(minutes / 5) * 5 : Math.Ceiling(minutes / 30) * 30;

    private static string Hours(double minutes)
    {
        var rest = minutes % 60;
        return string.Create(CultureInfo.InvariantCulture, $"{Math.Floor(minutes / 60):0} h{(rest > 0 ? $" {rest:0}" : "")}");
    }
}
