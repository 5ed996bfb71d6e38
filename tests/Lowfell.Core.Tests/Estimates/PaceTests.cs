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
        Assert.InRange(spoiled.Factor / clean.Factor, 0.97, 1.12);
        Assert.True(new LoggedTime(20, 600, 4).IsDoubtful && !sound.Any(t => t.IsDoubtful));
    }

    /// <summary>
    /// Twelve pieces logged one by one by hands whose pace nobody knows: they spread by a tenth, one piece took half or twice as long, and one
    /// timer was forgotten. After the twelfth the estimate is within a tenth of the truth in 95 logs of 100, and along the way it hardly
    /// ever leads more than a tenth away from it.
    /// </summary>
    [Fact]
    public void Twelve_pieces_with_an_outlier_and_a_forgotten_timer_come_within_a_tenth_of_the_truth()
    {
        const int logs = 1000;
        var (random, near, astray) = (new Random(7), 0, 0);
        double Bell() => Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());
        for (var log = 0; log < logs; log++)
        {
            var truth = Math.Log(0.6) + random.NextDouble() * Math.Log(1.8 / 0.6);
            var order = Enumerable.Range(0, 12).OrderBy(_ => random.Next()).ToList();
            var (times, wrong, learned) = (new List<LoggedTime>(), false, 0.0);
            for (var piece = 0; piece < 12; piece++)
            {
                var at = truth + 0.1 * Bell() + (piece == order[0] ? (random.Next(2) * 2 - 1) * Math.Log(2) : 0);
                if (piece == order[1])
                    at = truth + Math.Log(2.5 + 17 * random.NextDouble());
                times.Add(new LoggedTime(10, 10 * Math.Exp(at), 1));
                learned = Math.Log(Learned.Of(times).Factor);
                wrong |= truth >= 0 ? learned < Math.Log(0.9) : learned > Math.Log(1.1);
            }

            near += Math.Abs(learned - truth) <= Math.Log(1.1) ? 1 : 0;
            astray += wrong ? 1 : 0;
        }

        Assert.True(near >= 0.95 * logs, $"{near} of {logs} within a tenth");
        Assert.True(astray <= 1, $"{astray} of {logs} led astray");
    }
}
