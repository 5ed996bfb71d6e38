using CsCheck;
using Lowfell.Core.Drying;
using Lowfell.Core.Instruments;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Tests.Instruments;

public sealed class RoomTests
{
    private static readonly DateTimeOffset evening = new(2026, 11, 20, 19, 0, 0, TimeSpan.Zero);
    private static readonly Climate typed = new(20, 0.5);

    private static IEnumerable<ClimateReading> Every(int minutes, int count, Func<int, ClimateReading> say) => Enumerable.Range(0, count).Select(i => say(i * minutes));

    [Fact]
    public void A_measured_climate_counts_for_a_quarter_of_an_hour()
    {
        var room = new Room(typed with { AirMoves = true }, [new(evening, 16, 0.7)]);
        Assert.Equal(new Climate(20, 0.5, true), room.At(evening.AddSeconds(-1)));
        Assert.Equal(new Climate(16, 0.7, true), room.At(evening.AddMinutes(15)));
        Assert.Equal(new Climate(20, 0.5, true), room.At(evening.AddMinutes(15.1)));
        Assert.Null(room.Newest(evening.AddMinutes(16)));
    }

    [Fact]
    public void One_reading_that_trembles_moves_little()
    {
        var room = new Room(typed, Every(1, 5, m => new(evening.AddMinutes(m), m == 4 ? 19 : 18, 0.5)));
        Assert.Equal(18.2, room.At(evening.AddMinutes(4)).TemperatureC, 0.001);
    }

    /// <summary>T falls by k an hour, so the pace falls by half every 10/k hours: the integral of 2^(−kt/10) is in closed form.</summary>
    [Theory]
    [InlineData(1.5, 30)]
    [InlineData(2, 90)]
    [InlineData(3, 120)]
    public void A_cooling_evening_lengthens_what_dries_as_a_hand_calculation_says(double cAnHour, double minutes)
    {
        var play = new StandInClimate(7);
        var room = new Room(typed, Enumerable.Range(0, 8 * 60).Select(m => play.Cooling(evening.AddMinutes(m), evening, 20, cAnHour, 0.5)));
        var dry = new DryingCourse(room, evening.AddHours(7.9)).After(evening, minutes, Carrier.WaterAcrylic);
        var (k, need) = (cAnHour / 10 * Math.Log(2), minutes / 60);
        var byHand = -Math.Log(1 - need * k) / k * 60;
        Assert.True(byHand > minutes * 1.02);
        Assert.InRange((dry - evening).TotalMinutes / byHand, 0.98, 1.02);
    }

    [Fact]
    public void What_is_still_to_come_goes_on_in_the_air_of_now()
    {
        var room = new Room(typed, Every(1, 61, m => new(evening.AddMinutes(m), 10, 0.5)));
        var now = evening.AddMinutes(60);

        // At 10 °C half of the pace: after an hour half an hour is behind it, and the other half takes another hour.
        Assert.Equal(120, (new DryingCourse(room, now).After(evening, 60, Carrier.WaterAcrylic) - evening).TotalMinutes, 0.5);
    }

    [Fact]
    public void Without_instruments_everything_dries_as_before() =>
        Gen.Select(Gen.Double[0, 5000], Gen.Double[0, 3000]).Sample((ago, minutes) =>
            new DryingCourse(new Room(typed, []), evening).After(evening.AddMinutes(-ago), minutes, Carrier.Enamel) == evening.AddMinutes(-ago).AddMinutes(minutes));

    [Fact]
    public void More_to_dry_is_never_dry_sooner_and_laid_later_never_dry_sooner() =>
        Gen.Select(Gen.Int[0, 10_000], Gen.Double[0, 400], Gen.Double[0, 400], Gen.Double[0, 600], Gen.Double[0, 600]).Sample((seed, some, more, early, late) =>
        {
            var play = new StandInClimate(seed);
            var course = new DryingCourse(new Room(typed, Every(10, 40, m => play.At(evening.AddMinutes(m)))), evening.AddMinutes(400));
            var (less, most) = (Math.Min(some, more), Math.Max(some, more));
            var (first, then) = (evening.AddMinutes(Math.Min(early, late) - 100), evening.AddMinutes(Math.Max(early, late) - 100));
            DateTimeOffset After(DateTimeOffset at, double minutes) => course.After(at, minutes, Carrier.WaterAcrylic);
            return After(first, less) >= first && After(first, most) >= After(first, less) && After(then, less) >= After(first, less).AddSeconds(-1);
        });

    [Theory]
    [InlineData(60, 0.5, "°C")]
    [InlineData(double.NaN, 0.5, "°C")]
    [InlineData(20, 1.2, "%")]
    [InlineData(27, 0.5, "fast")]
    [InlineData(20, 0.95, "fast")]
    public void Nonsense_is_told(double c, double humidity, string says) =>
        Assert.Contains(says, Plausible.Climate(new(evening, c, humidity), new(evening.AddMinutes(-1), 20, 0.5), evening));

    [Fact]
    public void A_room_may_change_while_nobody_measures()
    {
        Assert.Null(Plausible.Climate(new(evening, 27, 0.5), new(evening.AddMinutes(-10), 20, 0.5), evening));
        Assert.Null(Plausible.Climate(new(evening, 20, 0.5), null, evening));
        Assert.NotNull(Plausible.Climate(new(evening.AddMinutes(2), 20, 0.5), null, evening));
        Assert.NotNull(Plausible.Climate(new(evening.AddDays(-2), 20, 0.5), null, evening));
        Assert.NotNull(Plausible.Grams(new(evening, 6000), evening));
    }

    [Fact]
    public void A_seeded_day_is_a_room_and_the_same_every_time() => Gen.Select(Gen.Int[0, 100_000], Gen.Int[0, 100_000]).Sample((seed, minute) =>
    {
        var at = evening.AddMinutes(minute);
        var said = new StandInClimate(seed).At(at);
        return said == new StandInClimate(seed).At(at) && Plausible.Climate(said, new StandInClimate(seed).At(at.AddMinutes(-1)), at) is null;
    });

    [Fact]
    public void A_seeded_day_is_warmest_at_four_in_the_afternoon_and_coldest_at_four_at_night()
    {
        double At(int hour) => Enumerable.Range(0, 300).Average(s => new StandInClimate(s % 7).At(evening.Date.AddHours(hour).AddSeconds(s * 10)).TemperatureC);
        var day = Enumerable.Range(0, 24).Select(At).ToList();
        Assert.Equal((16, 4), (day.IndexOf(day.Max()), day.IndexOf(day.Min())));
        Assert.InRange(day.Max() - day.Min(), 4, 5);
        Assert.InRange(day[10] - day[4], (day.Max() - day.Min()) / 2 - 0.3, (day.Max() - day.Min()) / 2 + 0.3);
    }
}
