using CsCheck;
using Lowfell.Core.Sessions;

namespace Lowfell.Core.Tests.Sessions;

/// <summary>Plans carried out by chance.</summary>
public sealed class ChanceTests
{
    private static Timetable Made(Work work) => Scheduler.Make(work, new(60, null)).Timetable!;

    [Fact]
    public void Where_everything_comes_as_planned_it_ends_when_it_was_planned_to()
    {
        int same = 0, all = 0;
        Gen.Select(Gen.Int[0, 100_000], Gen.Int[4, 40]).Sample((seed, n) =>
        {
            var work = WorkSamples.Some(seed, n);
            if (Scheduler.Make(work, new(30, null)).Timetable is not { } table)
                return;
            var end = Chance.Of(work, table, [], trials: 10).Late;
            Interlocked.Increment(ref all);
            if (end <= work.Hours[table.Outcome.LastStretch].End)
                Interlocked.Increment(ref same);
        }, iter: 300);
        Assert.True(same > 0.9 * all, $"{same} of {all}");
    }

    [Fact]
    public void Slower_hands_and_slower_drying_end_later_and_the_figure_that_decides_is_named()
    {
        var work = WorkSamples.Line(6, 6, weeks: 20) with { Due = 20_000 };
        var table = Made(work);
        Figure Of(string name, double error, int from) => new(name, error, Enumerable.Range(0, 36).Where(o => o % 2 == from).ToList(), []);
        var wide = Chance.Of(work, table, [Of("all but certain", 0.02, 0), Of("anybody's guess", 1.5, 1)]);
        Assert.Equal("anybody's guess", wide.Most[0].Name);
        Assert.True(wide.Early <= wide.Middle && wide.Middle <= wide.Late);
        Assert.Equal(wide, Chance.Of(work, table, [Of("all but certain", 0.02, 0), Of("anybody's guess", 1.5, 1)]) with { Most = wide.Most });
        var sure = Chance.Of(work, table, [Of("all but certain", 0.02, 0)]);
        Assert.True(sure.Late - sure.Early <= wide.Late - wide.Early);

        // A due date far off is met, one before the plan's end is not.
        Assert.Equal(1, Chance.Of(work with { Due = 1_000_000 }, table, [Of("some", 0.3, 0)]).OnTime);
        Assert.Equal(0, Chance.Of(work with { Due = 10 }, table, [Of("some", 0.3, 0)]).OnTime);
        Assert.Null(Chance.Of(work with { Due = null }, table, []).OnTime);
    }
}
