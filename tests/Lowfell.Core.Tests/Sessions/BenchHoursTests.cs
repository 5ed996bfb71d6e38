using Lowfell.Core.Sessions;

namespace Lowfell.Core.Tests.Sessions;

/// <summary>Hours as people write them, on the clock of the wall.</summary>
public sealed class BenchHoursTests
{
    [Theory]
    [InlineData("Tue Thu 19:30-22:00, Sat 10:00-13:00", "Tue Thu 19:30-22:00, Sat 10:00-13:00")]
    [InlineData("tuesdays and thursdays 19.30 – 22; sat 10 to 13; spraying until 21", "Tue Thu 19:30-22:00, Sat 10:00-13:00, spraying until 21:00")]
    [InlineData("weekdays 20:00-21:30", "Mon Tue Wed Thu Fri 20:00-21:30")]
    [InlineData("Fri-Sun 9-12", "Fri Sat Sun 09:00-12:00")]
    [InlineData("Sat 10-12, Sat 14-17", "Sat 10:00-12:00, Sat 14:00-17:00")]
    [InlineData("Sat 10-12, away 24 Dec 2026 - 2 Jan 2027, also 2027-01-03 14-18", "Sat 10:00-12:00, away 2026-12-24 to 2027-01-02, extra 2027-01-03 14:00-18:00")]
    [InlineData("Sat 10-12; off 2026-11-28", "Sat 10:00-12:00, away 2026-11-28")]
    public void They_are_read_any_way_they_are_written_and_said_one_way(string text, string said)
    {
        var read = BenchHours.Read(text, out var fault);
        Assert.Equal("", fault);
        Assert.Equal(said, read!.ToString());
        Assert.Equal(said, BenchHours.Read(said, out _)!.ToString());
    }

    [Theory]
    [InlineData("", "No hours are left")]
    [InlineData("someday 10-12", "was not understood")]
    [InlineData("Sat 13-10", "ends before it starts")]
    [InlineData("Sat 10-13, Sat 12-15", "two stretches at the same time")]
    [InlineData("Sat 10:00", "was not understood")]
    [InlineData("Sat 10-12, away 2027-01-02 to 2026-12-24", "is no range of days")]
    [InlineData("Sat 10-12, extra 2027-02-30 10-12", "is no day with times")]
    [InlineData("Sat 10-25", "was not understood")]
    public void What_is_wrong_is_said_with_what_to_write(string text, string says)
    {
        Assert.Null(BenchHours.Read(text, out var fault));
        Assert.Contains(says, fault, StringComparison.Ordinal);
    }

    [Fact]
    public void Days_off_and_stretches_out_of_turn_count_and_what_overlaps_is_one_stretch()
    {
        var hours = BenchHours.Read("Sat 10-12, away 2026-12-05 to 2026-12-12, extra 2026-12-05 18-20, extra 2026-12-19 11-15", out _)!;
        var evenings = hours.From(new DateTimeOffset(2026, 11, 27, 0, 0, 0, TimeSpan.Zero), 4, TimeZoneInfo.Utc);
        Assert.Equal(["28 10-12", "5 18-20", "19 10-15"], evenings.Select(e => $"{e.Start.Day} {e.Start.Hour}-{e.End.Hour}"));
    }

    [Fact]
    public void Across_a_change_of_clocks_an_evening_is_at_the_same_hour_of_the_wall()
    {
        var zone = TimeZoneInfo.FindSystemTimeZoneById("Europe/London");
        var evenings = BenchHours.Usual.From(new DateTimeOffset(2026, 10, 19, 0, 0, 0, TimeSpan.Zero), 2, zone);
        Assert.Equal(6, evenings.Count);
        Assert.Equal([19.5, 19.5, 10, 19.5, 19.5, 10], evenings.Select(e => TimeZoneInfo.ConvertTime(e.Start, zone).TimeOfDay.TotalHours));
        Assert.Equal([18.5, 18.5, 9, 19.5, 19.5, 10], evenings.Select(e => e.Start.UtcDateTime.TimeOfDay.TotalHours));
    }

    [Fact]
    public void An_evening_that_has_begun_is_told_from_its_beginning_one_that_is_over_is_not_and_spraying_ends_before_it()
    {
        var hours = BenchHours.Read("Tue 19:30-22:00, spraying until 21:00", out _)!;
        var evenings = hours.From(new DateTimeOffset(2026, 11, 24, 20, 0, 0, TimeSpan.Zero), 1, TimeZoneInfo.Utc);
        Assert.Empty(hours.From(new DateTimeOffset(2026, 11, 24, 22, 0, 0, TimeSpan.Zero), 1, TimeZoneInfo.Utc));
        Assert.Equal(150, (evenings[0].End - evenings[0].Start).TotalMinutes);
        Assert.Equal(90, (hours.SprayingFrom(evenings, TimeZoneInfo.Utc)![0].End - evenings[0].Start).TotalMinutes);
    }
}
