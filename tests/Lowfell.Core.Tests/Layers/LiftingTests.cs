using CsCheck;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using static Lowfell.Core.Tests.Bench;

namespace Lowfell.Core.Tests.Layers;

/// <summary>What a swab takes back, of which layers, and for how long it can.</summary>
public class LiftingTests
{
    private static readonly Layer prime = Lay(Technique.Prime, ChalkPrimer), pale = Lay(Technique.BaseCoat, White, 3), satin = Lay(Technique.Varnish, Satin, 2);

    private static Layer Wipe(Region region = Region.All, double strength = 1) => Lay(Technique.CleanUpExcess, Spirit, region: region, strength: strength);

    [Fact]
    public void A_wipe_takes_a_wash_back_from_edges_and_faces_and_leaves_it_in_joints()
    {
        var run = StackPrediction.Compute(Zone(), [prime, pale, satin, Lay(Technique.AllOverWash, EnamelWash, wait: 60), Wipe()]);
        double Gone(Position p) => (run[4].At(p).Lab.L - run[3].At(p).Lab.L) / (run[2].At(p).Lab.L - run[3].At(p).Lab.L);
        Assert.InRange(Gone(Position.Raised), 0.6, 1);
        Assert.InRange(Gone(Position.Field), 0.5, 1);
        Assert.InRange(Gone(Position.Recess), 0.01, 0.3);
    }

    [Fact]
    public void What_is_left_and_what_is_taken_are_what_was_laid() =>
        Gen.Select(Gen.OneOfConst(Technique.AllOverWash, Technique.PinWash, Technique.Filter, Technique.Glaze, Technique.Streak, Technique.Speckle), Gen.Enum<Relief>(), Gen.Double[0, 1.5], Gen.Double[0, 3000])
            .Sample((technique, relief, strength, wait) =>
            {
                var zone = Zone(relief);
                var run = StackPrediction.Compute(zone, [prime, Lay(technique, EnamelWash, 2, wait), Wipe(strength: strength)]);
                double laid = zone.Shares.Dot(run.LaidBy(1).MeanUm), left = zone.Shares.Dot(run.LeftBy(1).MeanUm), taken = -zone.Shares.Dot(run.LaidBy(2).MeanUm);
                Assert.Equal(laid, left + taken, laid * 1e-9);
                Assert.InRange(taken, -laid * 1e-9, laid);
            });

    [Theory]
    [InlineData(5, 10, 1)]
    [InlineData(20, 30, 2)]
    [InlineData(24 * 60, 30, 2)]
    [InlineData(null, 30, 2)]
    [InlineData(20, 5000, 2)]
    [InlineData(5, null, 1)]
    public void It_reaches_what_still_moves(int? afterFilter, int? afterPin, int lowest)
    {
        Layer[] stack = [satin, Lay(Technique.Filter, EnamelFilter, wait: afterFilter), Lay(Technique.PinWash, EnamelWash, wait: afterPin), Lay(Technique.Inspect), Wipe()];
        Assert.Equal(lowest, Lifting.LowestReached(stack, 4, Relief.Light));
    }

    [Fact]
    public void Varnish_and_paint_keep_it_from_what_lies_below()
    {
        var wash = Lay(Technique.AllOverWash, EnamelWash, wait: 10);
        Assert.Equal(2, Lifting.LowestReached([wash, satin, Wipe()], 2, Relief.Deep));
        Assert.Equal(2, Lifting.LowestReached([wash, Lay(Technique.DryBrush, White), Wipe()], 2, Relief.Deep));
        Assert.Equal(1, Lifting.LowestReached([Lay(Technique.AllOverWash, Wash, wait: 10), Lay(Technique.PinWash, EnamelWash, wait: 10), Wipe()], 2, Relief.Deep));
    }

    [Fact]
    public void It_takes_less_once_the_wash_has_set()
    {
        double Left(double wait) => StackPrediction.Compute(Zone(), [prime, Lay(Technique.AllOverWash, EnamelWash, wait: wait), Wipe()]).LeftBy(1).FilmUm.Field;
        Assert.Equal(Left(30), Left(90));
        Assert.True(Left(90) < Left(8 * 60) && Left(8 * 60) < Left(24 * 60));
        Assert.Equal(Left(24 * 60), Left(9 * 24 * 60));
    }

    [Fact]
    public void Two_wipes_take_more_than_one_and_half_a_wipe_takes_less()
    {
        var wash = Lay(Technique.AllOverWash, EnamelWash, wait: 10);
        double Left(params Layer[] wipes) => StackPrediction.Compute(Zone(), [prime, wash, .. wipes]).LeftBy(1).FilmUm.Field;
        Assert.True(Left(Wipe(), Wipe()) < Left(Wipe()) && Left(Wipe()) < Left(Wipe(strength: 0.5)) && Left(Wipe(strength: 0.5)) < Left());
    }

    [Fact]
    public void A_wipe_of_the_lower_third_leaves_the_rest_as_it_was()
    {
        var run = StackPrediction.Compute(Zone(), [prime, pale, Lay(Technique.AllOverWash, EnamelWash, wait: 10), Wipe(Region.LowerThird)]);
        var parts = run.PartsBelow(4);
        Assert.Equal(2, parts.Count);
        Assert.Equal(run.PartsBelow(3)[0].Seen, parts[0].Seen);
        Assert.Empty(parts[0].Places);
        Assert.True(parts[1].Seen.Field.Lab.L > parts[0].Seen.Field.Lab.L + 3);
    }

    [Fact]
    public void Any_layer_of_oil_can_be_worked_for_a_day()
    {
        var oil = Make("Slow Umber", MaterialKind.Paint, Carrier.Oil, "#5b4636");
        Layer[] stack = [satin, Lay(Technique.Patch, oil, wait: 600), Lay(Technique.Stipple, oil, wait: 600), Wipe()];
        Assert.Equal(1, Lifting.LowestReached(stack, 3, Relief.Deep));
    }
}
