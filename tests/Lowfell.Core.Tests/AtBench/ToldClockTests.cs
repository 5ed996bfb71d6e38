using CsCheck;
using Lowfell.Core.Bench;

namespace Lowfell.Core.Tests.AtBench;

/// <summary>Clocks of devices: ahead, behind, put right in between, asleep, or of another century.</summary>
public sealed class ToldClockTests
{
    private static readonly DateTimeOffset evening = new(2026, 11, 20, 19, 0, 0, TimeSpan.Zero);
    private static readonly Guid epoch = Guid.NewGuid();

    /// <summary>A device whose wall is off by so much, and that tells at some minutes past the hour.</summary>
    private static ToldInstant Told(double minute, double offMinutes, double? knownMinutes = null, bool ticks = true) => new(
        evening.AddMinutes(minute + offMinutes), ticks ? epoch : null, ticks ? minute * 60_000 : null, knownMinutes * 60_000);

    private static void Happened(double minute, (DateTimeOffset At, bool Guessed) at)
    {
        Assert.False(at.Guessed);
        Assert.Equal(minute, (at.At - evening).TotalMinutes, 0.1);
    }

    [Fact]
    public void A_clock_that_stays_as_wrong_as_it_is_is_put_right() => Gen.Select(Gen.Double[0, 200], Gen.Double[-600, 600], Gen.Double[0, 300], Gen.Bool, Gen.Bool).Sample((minute, off, later, known, ticks) =>
        Happened(minute, new ToldClock(evening.AddMinutes(minute + later), Told(minute + later, off)).Of(Told(minute, off, known ? -off : null, ticks), null)));

    /// <summary>One hour ahead while it told, right when it sent: with the page open all the time, or with the offset known from before.</summary>
    [Theory]
    [InlineData(60, true, false)]
    [InlineData(60, false, true)]
    [InlineData(60, true, true)]
    [InlineData(-60, false, true)]
    [InlineData(7, true, false)]
    public void A_clock_that_is_put_right_before_it_sends_moves_what_was_told(double off, bool samePage, bool known)
    {
        var sending = new ToldClock(evening.AddMinutes(90), Told(90, 0, ticks: samePage));
        for (var minute = 0.0; minute <= 80; minute += 20)
            Happened(minute, sending.Of(Told(minute, off, known ? -off : null, samePage), null));
    }

    [Fact]
    public void One_that_slept_is_told_from_one_that_was_put_forward()
    {
        // Six hours asleep: the wall went on, the ticks did not; the clock is as right as it was.
        var slept = new ToldInstant(evening.AddHours(7), epoch, 60 * 60_000, 0, 6 * 3_600_000);
        Happened(420, new ToldClock(evening.AddHours(8), new(evening.AddHours(8), epoch, 120 * 60_000)).Of(slept, null));

        // An hour slow when it was last known, and put forward by that hour before it told.
        var forward = new ToldInstant(evening.AddMinutes(30), epoch, 30 * 60_000, 3_600_000, 3_600_000);
        Happened(30, new ToldClock(evening.AddMinutes(50), new(evening.AddMinutes(50), epoch, 50 * 60_000)).Of(forward, null));
    }

    [Fact]
    public void What_cannot_be_is_guessed_beside_what_was_told_before_and_never_lies_ahead()
    {
        var sending = new ToldClock(evening.AddHours(1), new(evening.AddHours(1)));
        foreach (var wall in new[] { DateTimeOffset.MinValue, DateTimeOffset.MaxValue, new DateTimeOffset(2020, 1, 1, 0, 0, 0, TimeSpan.Zero), evening.AddDays(3), evening.AddDays(-60) })
            foreach (var before in new DateTimeOffset?[] { null, evening, evening.AddDays(-1) })
                Assert.Equal((before ?? evening.AddHours(1), true), sending.Of(new(wall), before));
        Assert.Equal((evening.AddHours(1), true), sending.Of(new(evening.AddDays(3)), evening.AddHours(2)));

        // As old as can be, and just older.
        var now = evening.AddHours(1);
        Assert.False(sending.Of(new(now.AddDays(-59.9)), null).Guessed);
        Assert.True(sending.Of(new(now.AddDays(-60.1)), null).Guessed);
        Assert.False(sending.Of(new(now.AddDays(-399), OffsetMs: 0), null).Guessed);
        Assert.True(sending.Of(new(now.AddDays(-401), OffsetMs: 0), null).Guessed);
        Assert.Equal((now, false), sending.Of(new(now.AddSeconds(4)), null));
        Assert.True(sending.Of(new(now.AddSeconds(6)), null).Guessed);
    }

    /// <summary>Without anything known of its clock, but with that clock wrong all along, 2020 is no trouble.</summary>
    [Fact]
    public void A_tablet_that_thinks_it_is_2020_is_put_right_by_what_it_says_when_it_sends() =>
        Happened(10, new ToldClock(evening.AddMinutes(40), new(new DateTimeOffset(2020, 1, 1, 0, 40, 0, TimeSpan.Zero))).Of(new(new DateTimeOffset(2020, 1, 1, 0, 10, 0, TimeSpan.Zero)), null));

    /// <summary>The clock is thought to be a few seconds more behind, then less: nothing is turned round by that; what lies farther back is.</summary>
    [Fact]
    public void What_one_device_tells_within_a_minute_keeps_its_order() => Gen.Select(Gen.Double[-59, 59], Gen.Double[0, 5]).Sample((seconds, later) =>
    {
        var sending = new ToldClock(evening.AddHours(1), new(evening.AddHours(1)));
        var laid = sending.Of(new(evening, OffsetMs: 0), null).At;
        var wiped = sending.Of(new(evening.AddSeconds(later), OffsetMs: seconds * 1000), laid).At;
        Assert.Equal(Math.Max(0, later + seconds), (wiped - evening).TotalSeconds, 0.001);
        Assert.Equal(evening.AddSeconds(-61), sending.Of(new(evening, OffsetMs: -61_000), laid).At);
    });

    [Fact]
    public void No_instant_makes_it_fail_or_lie_ahead() => Gen.Select(Gen.DateTimeOffset, Gen.DateTimeOffset, Gen.Double, Gen.Double, Gen.Double, Gen.Bool).Sample((wall, sent, tick, offset, ahead, same) =>
        Assert.True(new ToldClock(evening, new(sent, epoch, 0)).Of(new(wall, same ? epoch : Guid.Empty, tick, offset, ahead), null).At <= evening));
}
