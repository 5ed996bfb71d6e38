using CsCheck;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;

namespace Lowfell.Core.Tests.Estimates;

/// <summary>Figures of a workshop's own, and what logged times make of them.</summary>
public sealed class PaceTests
{
    private static readonly Layer base1 = Bench.Lay(Technique.BaseCoat, Bench.Brown);

    private static Pace Own(PaceFigures figures) => new(new Dictionary<Technique, PaceFigures> { [Technique.BaseCoat] = figures });

    [Fact]
    public void Own_figures_stand_in_for_the_rules_of_thumb_and_the_rest_stays()
    {
        var zone = Bench.Zone();
        var usual = HandsOn.Batch(base1, zone, 8);
        Assert.Equal(usual, HandsOn.Batch(base1, zone, 8, Pace.Usual));
        Assert.Equal(usual, HandsOn.Batch(base1, zone, 8, Own(new())));
        Assert.Equal(usual + 30, HandsOn.Batch(base1, zone, 8, Own(new(SetUpMinutes: TechniqueTable.For(Technique.BaseCoat).SetUpMinutes + 30))), 9);
        var figures = TechniqueTable.For(Technique.BaseCoat);
        Assert.Equal((usual - figures.SetUpMinutes - figures.CleanUpMinutes) * 2, HandsOn.Batch(base1, zone, 8, Own(new(Factor: 2))) - figures.SetUpMinutes - figures.CleanUpMinutes, 9);
        Assert.True(HandsOn.Batch(base1, zone, 8, Own(new(Learning: 0.8))) < usual);
        Assert.Equal(HandsOn.Batch(base1, zone, 1), HandsOn.Batch(base1, zone, 1, Own(new(Learning: 0.8))), 9);
        Assert.Equal((0.1, HandsOn.TypicalError), (Own(new(Error: 0.1)).Error(Technique.BaseCoat), Pace.Usual.Error(Technique.BaseCoat)));
    }

    [Fact]
    public void Without_times_the_rule_of_thumb_stands_and_the_more_there_are_the_nearer_it_comes_to_them()
    {
        Assert.Equal((1, HandsOn.TypicalError), (Learned.Of([]).Factor, Math.Round(Learned.Of([]).Error, 9)));
        Gen.Select(Gen.Double[0.6, 1.6], Gen.Int[1, 60]).Sample((factor, pieces) =>
        {
            var some = Learned.Of([new(100, 100 * factor, pieces)]);
            var more = Learned.Of([new(100, 100 * factor, pieces), new(100, 100 * factor, pieces)]);
            Assert.InRange(some.Factor, Math.Min(1, factor) - 1e-9, Math.Max(1, factor) + 1e-9);
            Assert.True(Math.Abs(Math.Log(more.Factor / factor)) <= Math.Abs(Math.Log(some.Factor / factor)) + 1e-9);
            Assert.True(some.Low <= some.Factor && some.Factor <= some.High && more.High / more.Low <= some.High / some.Low + 1e-9);
        });
    }

    [Fact]
    public void A_timer_left_running_is_doubted_and_moves_little()
    {
        LoggedTime[] sound = [new(20, 24, 4), new(30, 34, 6), new(25, 31, 5), new(40, 47, 8)];
        var clean = Learned.Of(sound);
        var spoiled = Learned.Of([.. sound, new(20, 600, 4)]);
        Assert.InRange(spoiled.Factor / clean.Factor, 1, 1.12);
        Assert.True(new LoggedTime(20, 600, 4).IsDoubtful && !sound.Any(t => t.IsDoubtful));
    }
}
