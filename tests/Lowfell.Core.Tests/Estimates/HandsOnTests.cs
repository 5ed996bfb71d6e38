using CsCheck;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using static Lowfell.Core.Tests.Bench;

namespace Lowfell.Core.Tests.Estimates;

public class HandsOnTests
{
    /// <summary>100 cm2 brushed on deep relief: 100 × 0.09 × 1.35 = 12.15, and 0.7 to pick it up: 12.85; a second coat adds eight tenths: 22.57.</summary>
    [Fact]
    public void A_brushed_piece_by_hand()
    {
        Assert.Equal(12.85, HandsOn.PerPiece(Lay(Technique.BaseCoat, Brown), Zone()), 1e-9);
        Assert.Equal(22.57, HandsOn.PerPiece(Lay(Technique.BaseCoat, Brown, 2), Zone()), 1e-9);
        Assert.Equal(9.7, HandsOn.PerPiece(Lay(Technique.BaseCoat, Brown), Zone(Relief.Smooth)), 1e-9);
    }

    /// <summary>80 cm of joint cleaned: 0.12 a cm on deep, 0.07 on light, 0.04 on smooth, which has the relief in it, and 0.7.</summary>
    [Theory]
    [InlineData(Relief.Deep, 80 * 0.12 + 0.7)]
    [InlineData(Relief.Light, 80 * 0.07 + 0.7)]
    [InlineData(Relief.Smooth, 80 * 0.04 + 0.7)]
    public void Cleaning_joints_takes_longer_the_rougher_they_are(Relief relief, double minutes) =>
        Assert.Equal(minutes, HandsOn.PerPiece(Lay(Technique.CleanUpExcess, Spirit), Zone(relief)), 1e-9);

    /// <summary>Brush work is set up and cleaned in 2 + 2 minutes; eight pieces are three doublings: 12.85 × 8 × 0.93³ + 4 = 86.69.</summary>
    [Fact]
    public void A_batch_is_set_up_once_and_gets_quicker()
    {
        Assert.Equal(86.69, HandsOn.Batch(Lay(Technique.BaseCoat, Brown), Zone(), 8), 0.01);
        Assert.Equal(0, HandsOn.Batch(Lay(Technique.BaseCoat, Brown), Zone(), 0));
    }

    [Fact]
    public void A_larger_batch_takes_longer_but_less_a_piece() =>
        Gen.Select(Gen.OneOfConst(Technique.BaseCoat, Technique.DryBrush, Technique.PinWash, Technique.Varnish, Technique.EdgeLine), Gen.Int[1, 60], Gen.Int[1, 60], Gen.Double[1, 500]).Sample((technique, few, more, area) =>
        {
            var layer = Lay(technique, Brown);
            var zone = Zone(Relief.Light, area);
            double small = HandsOn.Batch(layer, zone, few), large = HandsOn.Batch(layer, zone, few + more);
            Assert.True(large > small);
            Assert.True(large / (few + more) < small / few);
        });
}
