using CsCheck;
using Lowfell.Core.Sessions;

namespace Lowfell.Core.Tests.Sessions;

/// <summary>Operations moved by hand, dates of parts of the work, and plans that begin with one that is known.</summary>
public sealed class MovingTests
{
    private static readonly SearchLimit quick = new(20, null);

    [Fact]
    public void A_move_is_sound_and_where_it_wants_to_be_or_says_why_not_and_where_it_can()
    {
        int moved = 0, refused = 0;
        Gen.Select(Gen.Int[0, 100_000], Gen.Int[3, 20], Gen.Int[0, 19], Gen.Int[0, 8]).Sample((seed, n, which, to) =>
        {
            var work = WorkSamples.Some(seed, n);
            if (Scheduler.Make(work, quick).Timetable is not { } table)
                return;
            var o = which % work.Operations.Count;
            var move = Moving.To(work, table.Placements, o, to);
            var at = move.Plan is null ? move.Nearest : to;
            if (at is not { } stretch)
                return;
            var plan = move.Plan ?? Moving.To(work, table.Placements, o, stretch).Plan!;
            Assert.Empty(TimetableCheck.Faults(work, plan.Timetable));
            var placed = plan.Timetable.Placements.Single(p => p.Operation == o);
            Assert.True(placed.Start >= work.Hours[stretch].Start && placed.End <= work.Hours[stretch].End);
            Assert.Equal(move.Plan is null, move.Reason.Length > 0);
            Interlocked.Increment(ref move.Plan is null ? ref refused : ref moved);
        }, iter: 300);
        Assert.True(moved > 40 && refused > 20, $"{moved} moved, {refused} refused");
    }

    [Fact]
    public void A_timetable_begun_from_one_that_is_known_is_never_worse_so_more_of_anything_never_ends_later()
    {
        Gen.Select(Gen.Int[0, 100_000], Gen.Int[3, 30]).Sample((seed, n) =>
        {
            var work = WorkSamples.Some(seed, n);
            if (Scheduler.Make(work, quick).Timetable is not { } table)
                return;
            var begun = quick with { Begin = table.Placements, Rounds = 5 };
            void Better(string what, Work other)
            {
                var found = Scheduler.Make(other, begun).Timetable!;
                Assert.Empty(TimetableCheck.Faults(other, found));
                Assert.True(found.Outcome.Late <= table.Outcome.Late && found.Outcome.LastStretch <= table.Outcome.LastStretch, $"{what}: {seed} {n}");
            }

            Better("longer hours", work with { Hours = work.Hours.Select(h => h with { End = h.End + 30 }).ToList() });
            Better("another painter", work with { Painters = work.Painters + 1 });
            Better("spraying at all hours", work with { Spraying = null });
            Better("room to dry", work with { DryingPlaces = null });
            Better("a warmer room", work with { Operations = work.Operations.Select(o => o with { WetMinutes = o.WetMinutes / 2, After = o.After.Select(a => a with { MinWait = a.MinWait / 2 }).ToList() }).ToList() });
        }, iter: 120);
    }

    [Fact]
    public void Dates_of_parts_of_the_work_are_met_where_they_can_be_and_added_up_where_not()
    {
        // The first half as they are given would take all the hours there are before its date: what is wanted first is done first.
        var work = WorkSamples.Line(12, 4, weeks: 20);
        var second = Enumerable.Range(0, work.Operations.Count).Where(o => o % 12 >= 6).ToList();
        var alone = Scheduler.Make(work with { Operations = work.Operations.Select((o, i) => second.Contains(i) ? o : o with { Minutes = 0, SetUp = -1, After = [] }).ToList() }, new(40, null)).Timetable!;
        var end = second.Max(o => alone.Placements[o].End);
        var dated = work with { Deadlines = [new(end + 1500, second)] };
        var table = Scheduler.Make(dated, new(60, null)).Timetable!;
        Assert.Empty(TimetableCheck.Faults(work, table with { Outcome = table.Outcome with { Late = 0 } }));
        Assert.Equal(0, table.Outcome.Late);
        Assert.True(second.Max(o => table.Placements[o].End) <= end + 1500);

        var hopeless = Scheduler.Make(work with { Deadlines = [new(10, second), new(20, Enumerable.Range(0, work.Operations.Count).Except(second).ToList())] }, new(20, null)).Timetable!;
        Assert.Equal(second.Max(o => hopeless.Placements[o].End) - 10 + Enumerable.Range(0, work.Operations.Count).Except(second).Max(o => hopeless.Placements[o].End) - 20, hopeless.Outcome.Late);
    }
}
