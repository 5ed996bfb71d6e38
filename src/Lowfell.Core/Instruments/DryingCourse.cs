using Lowfell.Core.Drying;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Instruments;

/// <summary>
/// When something is dry in a room that warms and cools. Drying goes on minute by minute at the pace of the air of that minute
/// (<see cref="DryingModel.ClimateFactor"/>); what is still to come goes on in the air of now.
/// </summary>
/// <remarks>A film that dries at 1/f of the usual pace for t minutes has t/f of its drying behind it: additive, as with any rate that depends on the air alone.</remarks>
/// <param name="room">The air through time.</param>
/// <param name="now">Until when it is known.</param>
public sealed class DryingCourse(Room room, DateTimeOffset now)
{
    private const int LongestMinutes = 4 * 24 * 60;

    private readonly DateTimeOffset begins = Later(room.Since ?? now, now.AddMinutes(-LongestMinutes));
    private readonly Dictionary<bool, double[]> behind = [];

    /// <summary>How much faster than in the air that was typed things dry now.</summary>
    public double PaceNow(Carrier carrier) => Pace(carrier, room.At(now));

    /// <summary>When something that was laid at an instant has come as far as <paramref name="minutes"/> would bring it in the air that was typed.</summary>
    /// <param name="laid">When it was laid.</param>
    /// <param name="minutes">Minutes it takes in the air that was typed.</param>
    /// <param name="carrier">What it dries out of.</param>
    public DateTimeOffset After(DateTimeOffset laid, double minutes, Carrier carrier)
    {
        // Before anything was measured, the air was as typed.
        var unmeasured = Math.Max(0, (begins - laid).TotalMinutes);
        if (minutes <= unmeasured || room.Since is null)
            return laid.AddMinutes(minutes);
        var course = Course(carrier);
        var from = Math.Max(0, (laid - begins).TotalMinutes);
        var wanted = Upto(course, from) + minutes - unmeasured;
        if (wanted > course[^1])
            return Later(laid, now).AddMinutes((wanted - Math.Max(course[^1], Upto(course, from))) / PaceNow(carrier));
        int low = 0, high = course.Length - 1;
        while (high - low > 1)
        {
            var middle = (low + high) / 2;
            if (course[middle] < wanted)
                low = middle;
            else
                high = middle;
        }

        return Later(laid, begins.AddMinutes(low + (course[high] > course[low] ? (wanted - course[low]) / (course[high] - course[low]) : 0)));
    }

    /// <summary>Minutes as typed that are behind at each minute since the first reading; the last stands for now.</summary>
    private double[] Course(Carrier carrier)
    {
        if (behind.TryGetValue(carrier.IsWaterBorne(), out var known))
            return known;
        var minutes = Math.Max(1, (int)Math.Ceiling((now - begins).TotalMinutes));
        var course = new double[minutes + 1];
        for (var m = 0; m < minutes; m++)
        {
            var share = Math.Min(1, (now - begins).TotalMinutes - m);
            course[m + 1] = course[m] + Math.Max(0, share) * Pace(carrier, room.At(begins.AddMinutes(m + share / 2)));
        }

        return behind[carrier.IsWaterBorne()] = course;
    }

    private static double Upto(double[] course, double minute)
    {
        var whole = (int)Math.Min(minute, course.Length - 1);
        return whole == course.Length - 1 ? course[^1] : course[whole] + (minute - whole) * (course[whole + 1] - course[whole]);
    }

    private double Pace(Carrier carrier, Climate air) => DryingModel.ClimateFactor(carrier, room.Typed) / DryingModel.ClimateFactor(carrier, air);

    private static DateTimeOffset Later(DateTimeOffset a, DateTimeOffset b) => a > b ? a : b;
}
