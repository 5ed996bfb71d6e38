using CsCheck;
using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Sight;
using static Lowfell.Core.Tests.Bench;

namespace Lowfell.Core.Tests.Sight;

public class SightTests
{
    private static readonly Gen<SrgbColour> colours = Gen.Select(Gen.Byte, Gen.Byte, Gen.Byte, (r, g, b) => new SrgbColour(r, g, b));

    [Theory]
    [InlineData("#9b2d1f", "#b5a283", 0.3, 0.3, 28.3257, 0.648385, 0.256485, 0.143537)]
    [InlineData("#d8cfc0", "#3c4a2e", 0.5, 1, 25.2287, 0.228057, 0.077408, 0.039751)]
    [InlineData("#6b4f2a", "#8a7f5c", 2, 0.4, 29.7435, 1.081659, 0.647630, 0.623214)]
    public void Spots_agree_with_the_worked_cases(string spot, string field, double mm, double metres, double difference, double luminance, double redGreen, double blueYellow)
    {
        var gains = Eye.Gains(Eye.HalfAngle(mm, metres));
        Assert.Equal(luminance, gains.Luminance, 6);
        Assert.Equal(redGreen, gains.RedGreen, 6);
        Assert.Equal(blueYellow, gains.BlueYellow, 6);
        Assert.Equal(difference, Eye.Difference(Xyz(spot), Xyz(field), mm, metres), 4);
    }

    [Fact]
    public void Beyond_the_lost_distance_nobody_can_tell_and_at_it_one_just_can() =>
        Gen.Select(colours, colours, Gen.Double[0.1, 20], Gen.Enum<MarkShape>()).Sample((spot, field, mm, shape) =>
        {
            Xyz mark = Observer.ToXyz(spot.ToLinear()), around = Observer.ToXyz(field.ToLinear());
            var lost = Eye.LostBeyond(mark, around, around, mm, shape);
            if (lost == 0)
                return;
            Assert.InRange(Eye.Difference(mark, around, mm, lost * 0.999, shape), Eye.LostBelow - 1e-6, 2);
            foreach (var further in new[] { 1.01, 1.3, 2, 5, 50 })
                Assert.InRange(Eye.Difference(mark, around, mm, lost * further, shape), 0, Eye.LostBelow);
        }, iter: 200);

    [Fact]
    public void Twice_the_size_is_seen_from_twice_as_far() =>
        Gen.Select(colours, colours, Gen.Double[0.1, 5]).Sample((spot, field, mm) =>
        {
            Xyz mark = Observer.ToXyz(spot.ToLinear()), around = Observer.ToXyz(field.ToLinear());
            Assert.Equal(2 * Eye.LostBeyond(mark, around, around, mm), Eye.LostBeyond(mark, around, around, 2 * mm), 1e-6);
        }, iter: 50);

    [Fact]
    public void The_same_colour_is_never_seen()
    {
        var grey = Xyz("#808080");
        Assert.Equal(0, Eye.LostBeyond(grey, grey, grey, 10));
        Assert.Equal(Verdict.Lost, Eye.Judge(Eye.Difference(grey, grey, 10, 0.3)));
    }

    [Fact]
    public void A_line_is_seen_from_further_than_a_spot_of_its_width()
    {
        Xyz dark = Xyz("#2a2a2a"), light = Xyz("#c0b8a0");
        Assert.True(Eye.LostBeyond(dark, light, light, 0.4, MarkShape.Line) > Eye.LostBeyond(dark, light, light, 0.4));
    }

    [Fact]
    public void Details_shrink_to_nothing_as_the_eye_steps_back_and_say_what_skipping_saves()
    {
        Layer[] stack = [Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, Brown, 2), Lay(Technique.Speckle, Brown), Lay(Technique.PinWash, EnamelWash), Lay(Technique.CleanUpExcess, Spirit), Lay(Technique.EdgeLine, White), Lay(Technique.Varnish, Matt)];
        var run = StackPrediction.Compute(Zone(), stack);
        var near = Details.Judge(run, 0.3, 8);
        Assert.Equal([2, 3, 5], near.Select(d => d.Layer));
        Assert.Equal(Verdict.Seen, near[2].Verdict);
        Assert.Equal(Verdict.Lost, near[0].Verdict);
        Assert.All(Details.Judge(run, 80, 8), d => Assert.Equal(Verdict.Lost, d.Verdict));
        Assert.All(near, d => Assert.True(d.MinutesSaved > 0));
        Assert.True(near[1].MinutesSaved > Core.Estimates.HandsOn.Batch(stack[3], Zone(), 8));
        Assert.All(Details.Judge(run, near[2].LostBeyondMetres * 1.05, 8).Where(d => d.Layer == 5), d => Assert.Equal(Verdict.Lost, d.Verdict));
    }

    [Fact]
    public void From_afar_relief_runs_together_and_from_near_it_stands()
    {
        var zone = Zone();
        var seen = StackPrediction.Compute(zone, [Lay(Technique.Prime, ChalkPrimer), Lay(Technique.AllOverWash, Wash, 2)]).SeenBelow(2);
        var (raised, _, recess) = FromTheTable.Colours(zone, seen, 0.05);
        Assert.InRange(ColourDifference.Ciede2000(raised.ToLab(), seen.Raised.Lab), 0, 2);
        var far = FromTheTable.Colours(zone, seen, 300);
        Assert.InRange(ColourDifference.Ciede2000(far.Raised.ToLab(), far.Recess.ToLab()), 0, 1.5);
        Assert.True(ColourDifference.Ciede2000(raised.ToLab(), recess.ToLab()) > 8);
    }

    [Fact]
    public void Neighbours_of_one_colour_cannot_be_told_apart()
    {
        Zone wall = Zone(), trim = Zone(areaCm2: 10);
        Seen Painted(Zone zone, Core.Materials.Material paint) => StackPrediction.Compute(zone, [Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, paint, 3)])[1].Average;
        Assert.Equal(Verdict.Lost, FromTheTable.Between(wall, Painted(wall, Brown), trim, Painted(trim, Brown), 0.9).Verdict);
        Assert.Equal(Verdict.Seen, FromTheTable.Between(wall, Painted(wall, Brown), trim, Painted(trim, White), 0.9).Verdict);
    }

    private static Xyz Xyz(string colour) => Observer.ToXyz(SrgbColour.Parse(colour).ToLinear());
}
