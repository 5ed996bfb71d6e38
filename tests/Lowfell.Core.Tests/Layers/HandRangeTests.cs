using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Tests.Order;
using Lowfell.Core.Tests.Scalar;
using static Lowfell.Core.Tests.Bench;
using static Lowfell.Core.Tests.Order.RuleExamples;

namespace Lowfell.Core.Tests.Layers;

/// <summary>The range between thin and heavy hands, held against hands that are drawn by chance.</summary>
public sealed class HandRangeTests
{
    public static TheoryData<string> Sound { get; } = [.. SoundStacks.All().Select(s => s.Name)];

    [Theory]
    [MemberData(nameof(Sound))]
    public void Of_a_thousand_hands_nine_of_ten_end_in_the_range(string name)
    {
        var (_, context, stack) = SoundStacks.All().First(s => s.Name == name);
        Check(context.Zone, stack);
    }

    public static TheoryData<int> Seeds { get; } = [.. Enumerable.Range(0, 40)];

    [Theory]
    [MemberData(nameof(Seeds))]
    public void It_holds_for_random_stacks_as_well(int seed)
    {
        var random = new Random(seed);
        Layer Any(params Layer[] of) => of[random.Next(of.Length)] with { Id = Guid.NewGuid(), Strength = 0.5 + random.NextDouble(), Coats = random.Next(1, 4) };
        List<Layer> stack = [Lay(Technique.Prime, random.Next(2) == 0 ? Primer : ChalkPrimer), Any(Lay(Technique.BaseCoat, Brown), Lay(Technique.BaseCoat, White), Lay(Technique.BaseCoat, Red))];
        for (var n = random.Next(1, 9); n > 0; n--)
            stack.Add(Any(
                Lay(Technique.DryBrush, White), Lay(Technique.Overbrush, Brown), Lay(Technique.Sponge, Red), Lay(Technique.AllOverWash, Wash), Lay(Technique.Filter, WaterFilter), Lay(Technique.PinWash, EnamelWash),
                Lay(Technique.CleanUpExcess, Spirit), Lay(Technique.Varnish, Satin), Lay(Technique.Pigment, Dust), Lay(Technique.Speckle, Dark), Lay(Technique.Dust, Dust, region: Region.LowerThird), Lay(Technique.Stipple, Red),
                Lay(Technique.ChippingFluid, Fluid), Lay(Technique.ChipThrough), Lay(Technique.RubBack), Lay(Technique.Streak, EnamelWash), Lay(Technique.BaseCoat, White, strength: 0.4)));
        Check(Zone((Relief)random.Next(3)), stack);
    }

    [Fact]
    public void It_names_the_layer_that_decides_and_no_range_where_nothing_was_laid()
    {
        var run = StackPrediction.Compute(Zone(), [Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, Brown, 4), Lay(Technique.DryBrush, White), Lay(Technique.Varnish, Matt)]);
        var range = run.RangeBelow(4);
        Assert.Equal(2, range.Raised.Decides);
        Assert.InRange(range.Raised.Share, 0.9 * range.Raised.Difference, range.Raised.Difference);
        Assert.True(range.Raised.Heavy.Lab.L > range.Raised.Thin.Lab.L);
        Assert.True(range.Raised.Holds(run.SeenBelow(4).Raised.Lab));
        Assert.False(range.Raised.Holds(run.SeenBelow(2).Raised.Lab));
        Assert.Equal((-1, 0.0), (run.RangeBelow(0).Field.Decides, run.RangeBelow(0).Field.Difference));
    }

    [Fact]
    public void What_was_looked_at_strays_less_but_never_less_than_the_day_does()
    {
        Layer Looked(int times) => Lay(Technique.BaseCoat, Brown with { Looks = times });
        var spans = Enumerable.Range(0, 30).Select(n => Hand.Film(Looked(n))).ToList();
        Assert.All(spans.Zip(spans.Skip(1)), s => Assert.True(s.First.Low < s.Second.Low && s.First.High > s.Second.High));
        Assert.Equal(Math.Sqrt(0.75) * (1 - spans[0].Low), 1 - spans[1].Low, 1e-9);
        Assert.True(1 - spans[^1].Low > Math.Sqrt(0.5) * (1 - spans[0].Low));
        var (once, often) = (Looked(0), Looked(9));
        Assert.True(StackPrediction.Compute(Zone(), [often]).RangeBelow(1).Field.Difference < StackPrediction.Compute(Zone(), [once]).RangeBelow(1).Field.Difference);
    }

    [Theory]
    [InlineData(0, 0.7)]
    [InlineData(0.25, 0.85)]
    [InlineData(0.5, 1)]
    [InlineData(0.75, 1.2)]
    [InlineData(1, 1.4)]
    public void Half_of_all_hands_lay_less_than_usual(double hand, double film) => Assert.Equal(film, Hand.At(new(0.7, 1, 1.4), hand), 1e-12);

    private static void Check(Zone zone, IReadOnlyList<Layer> stack)
    {
        var random = new Random(7);
        var run = StackPrediction.Compute(zone, stack);
        var range = run.RangeBelow(stack.Count);
        var held = new int[3];
        for (var n = 0; n < 1000; n++)
        {
            var ends = ScalarModel.Forward(zone, stack, hands: stack.Select(_ => random.NextDouble()).ToArray());
            for (var p = 0; p < 3; p++)
                held[p] += range[(Position)p].Holds(new Reflectance(ends[p]).ToLab()) ? 1 : 0;
        }

        // A range that no eye can tell from none has nothing to hold. Single positions may be a little out; the stack may not.
        var seen = Enumerable.Range(0, 3).Where(p => range[(Position)p].Difference > 1.5).ToList();
        Assert.All(seen, p => Assert.InRange(held[p], 830, 980));
        if (seen.Count > 0)
            Assert.InRange(seen.Average(p => held[p]), 850, 950);
    }
}
