using CsCheck;
using Lowfell.Core.Colour;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Tests.Materials;

public class CalibrationTests
{
    private static readonly Gen<Optics> paints = Gen.Select(Gen.Int[30, 220], Gen.Int[30, 220], Gen.Int[30, 220], Gen.Double[0.3, 1.5],
        (r, g, b, hiding) => Optics.FromMasstone(new SrgbColour((byte)r, (byte)g, (byte)b), hiding));

    private static readonly Gen<Strength> strengths = Gen.Select(Gen.Double[0.6, 1.7], Gen.Double[0.6, 1.7], (h, t) => new Strength(h, t));

    [Fact]
    public void Every_look_brings_the_prediction_no_further_off_and_many_bring_it_home() =>
        Gen.Select(paints, strengths, Gen.Double[0.4, 1.2]).Sample((paint, truth, coats) =>
        {
            Lab At(Strength s) => s.Of(paint).Over(Reflectance.Flat(0.1), coats).ToLab();
            var observed = At(truth);
            var now = Strength.AsEntered;
            var first = ColourDifference.Ciede2000(At(now), observed);
            var missed = first;
            for (var look = 0; look < 12; look++)
            {
                now = Calibration.Tune(At, now, observed);
                var next = ColourDifference.Ciede2000(At(now), observed);
                Assert.True(next <= missed + 1e-9);
                missed = next;
            }

            Assert.True(missed <= Math.Max(1, first / 3));
        }, iter: 200);

    /// <summary>Strengths at their bounds are found, however far off the entry was.</summary>
    [Fact]
    public void A_paint_twice_or_half_as_strong_is_learned_at_one_look() =>
        Gen.Select(paints, Gen.OneOfConst(0.5, 1, 2), Gen.OneOfConst(0.5, 1, 2), Gen.Double[0.3, 1.2], Gen.Double[0.05, 0.8]).Sample((paint, hiding, tint, coats, ground) =>
        {
            Lab At(Strength s) => s.Of(paint).Over(Reflectance.Flat(ground), coats).ToLab();
            var observed = At(new Strength(hiding, tint));
            var first = ColourDifference.Ciede2000(At(Strength.AsEntered), observed);
            var left = ColourDifference.Ciede2000(At(Calibration.Tune(At, Strength.AsEntered, observed)), observed);
            Assert.True(left <= first && (first < 10 || left < first * 0.7), $"{first:0.0} is left at {left:0.0}");
        }, iter: 300);

    [Fact]
    public void One_look_goes_part_of_the_way_only()
    {
        var paint = Optics.FromMasstone(SrgbColour.Parse("#7a5f3f"), 0.6);
        Lab At(Strength s) => s.Of(paint).Over(Reflectance.Flat(0.5), 1).ToLab();
        var tuned = Calibration.Tune(At, Strength.AsEntered, At(new Strength(1, 1.6)));
        Assert.InRange(tuned.Tint, 1.1, 1.6);
    }

    [Fact]
    public void No_observation_however_wild_leaves_the_bounds() =>
        Gen.Select(paints, Gen.Int[0, 255], Gen.Int[0, 255], Gen.Int[0, 255]).Sample((paint, r, g, b) =>
        {
            Lab At(Strength s) => s.Of(paint).Over(Reflectance.Flat(0.2), 1).ToLab();
            var now = Strength.AsEntered;
            for (var look = 0; look < 5; look++)
                now = Calibration.Tune(At, now, new SrgbColour((byte)r, (byte)g, (byte)b).ToLab());
            Assert.InRange(now.Hiding, Strength.Least, Strength.Most);
            Assert.InRange(now.Tint, Strength.Least, Strength.Most);
        }, iter: 100);

    [Fact]
    public void A_step_taken_back_leads_to_where_it_came_from() => Gen.Select(strengths, strengths).Sample((before, after) =>
    {
        var step = after.Since(before);
        Assert.Equal(after.Hiding, before.Then(step).Hiding, 1e-9);
        Assert.Equal(1, step.Hiding * before.Since(after).Hiding, 1e-9);
    });
}
