using CsCheck;
using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using static Lowfell.Core.Tests.Bench;

namespace Lowfell.Core.Tests.Drying;

public class DryingTests
{
    /// <summary>Water-borne × 2^((20−T)/10) and × 0.5/(1−RH) with RH at most 0.9; solvent-borne × 2^((20−T)/15), humidity none.</summary>
    [Theory]
    [InlineData(Carrier.WaterAcrylic, 20, 0.5, 1)]
    [InlineData(Carrier.WaterAcrylic, 10, 0.5, 2)]
    [InlineData(Carrier.WaterAcrylic, 30, 0.5, 0.5)]
    [InlineData(Carrier.WaterAcrylic, 20, 0.75, 2)]
    [InlineData(Carrier.WaterAcrylic, 20, 0, 0.5)]
    [InlineData(Carrier.WaterAcrylic, 20, 0.95, 5)]
    [InlineData(Carrier.WaterAcrylic, 20, 1, 5)]
    [InlineData(Carrier.PVA, 10, 0.75, 4)]
    [InlineData(Carrier.Enamel, 5, 0.5, 2)]
    [InlineData(Carrier.Enamel, 20, 0.95, 1)]
    [InlineData(Carrier.SolventAcrylic, 35, 0.2, 0.5)]
    public void Climate_lengthens_or_shortens(Carrier carrier, double celsius, double humidity, double factor) =>
        Assert.Equal(factor, DryingModel.ClimateFactor(carrier, new Climate(celsius, humidity)), 1e-9);

    [Fact]
    public void Cold_and_damp_never_dry_sooner() =>
        Gen.Select(Gen.Double[-5, 40], Gen.Double[0, 15], Gen.Double[0, 1], Gen.Double[0, 1], Gen.Enum<Carrier>()).Sample((celsius, colder, humidity, damper, carrier) =>
        {
            Climate warm = new(celsius, humidity), cold = new(celsius - colder, Math.Min(1, humidity + damper));
            Assert.True(DryingModel.ClimateFactor(carrier, cold) >= DryingModel.ClimateFactor(carrier, warm) - 1e-12);
        });

    [Fact]
    public void Hot_air_shortens_water_paint_five_times_and_nothing_else()
    {
        DryTimes Of(Material material, DryingMode mode) => DryingModel.Of(Lay(Technique.BaseCoat, material) with { Drying = mode }, Climate.Standard);

        // 35 minutes to recoat become 7, but a coat is never ready before it can be touched, at 15.
        Assert.Equal(15, Of(Brown, DryingMode.HotAir).RecoatMinutes);
        Assert.Equal(20, Of(Brown with { DryTimes = new DryTimes(15, 100, 600) }, DryingMode.HotAir).RecoatMinutes);
        Assert.Equal(Of(Brown, DryingMode.Air).CureMinutes, Of(Brown, DryingMode.HotAir).CureMinutes);
        foreach (var material in new[] { EnamelWash, Lacquer, Crackle })
            Assert.Equal(Of(material, DryingMode.Air), Of(material, DryingMode.HotAir));
    }

    [Fact]
    public void The_slowest_of_a_mix_sets_the_pace_and_thinner_does_not_count()
    {
        var slow = Brown with { Id = Guid.NewGuid(), DryTimes = new DryTimes(40, 90, 2000) };
        var layer = Lay(Technique.BaseCoat, Brown) with { Paint = [new(Brown, Core.Mixing.Parts.Of(9)), new(slow, Core.Mixing.Parts.One), new(Water with { DryTimes = new DryTimes(999, 999, 9999) }, Core.Mixing.Parts.One)] };
        Assert.Equal(new DryTimes(40, 90, 2000), DryingModel.Of(layer, Climate.Standard));
    }

    [Fact]
    public void What_goes_on_top_decides_how_dry_it_must_be()
    {
        var ground = Lay(Technique.BaseCoat, Brown);
        (double Minutes, Dryness Dryness) Over(Layer above, Layer? below = null) => DryingModel.Needed(below ?? ground, above, Climate.Standard);
        Assert.Equal((35, Dryness.Recoat), Over(Lay(Technique.DryBrush, White)));
        Assert.Equal((52.5, Dryness.Recoat), Over(Lay(Technique.AllOverWash, Wash)));
        Assert.Equal((120, Dryness.Recoat), Over(Lay(Technique.PinWash, EnamelWash)));
        Assert.Equal((150, Dryness.Recoat), Over(Lay(Technique.PinWash, EnamelWash), Lay(Technique.Varnish, Satin)));
        Assert.Equal((1440, Dryness.Cure), Over(Lay(Technique.BaseCoat, Lacquer)));
        Assert.Equal((105, Dryness.Recoat), Over(Lay(Technique.Mask)));
        Assert.Equal((1440, Dryness.Cure), Over(Lay(Technique.Assemble)));
        Assert.Equal((15, Dryness.Touch), Over(Lay(Technique.Inspect)));
        Assert.Equal((0, Dryness.Touch), Over(Lay(Technique.CleanUpExcess, Spirit), Lay(Technique.PinWash, EnamelWash)));
    }

    [Fact]
    public void Windows_close_sooner_on_rough_ground_and_in_a_warm_room()
    {
        Assert.Equal(new Window(15, 240), Windows.CleanUp(Carrier.Enamel, Relief.Smooth, Climate.Standard));
        Assert.Equal(new Window(15, 120), Windows.CleanUp(Carrier.Enamel, Relief.Light, Climate.Standard));
        Assert.Equal(new Window(15, 90), Windows.CleanUp(Carrier.Enamel, Relief.Deep, Climate.Standard));
        Assert.Equal(new Window(15, 24 * 60), Windows.CleanUp(Carrier.Oil, Relief.Deep, Climate.Standard));
        Assert.Equal(0, Windows.CleanUp(Carrier.WaterAcrylic, Relief.Deep, Climate.Standard).OpensMinutes);
        var warm = new Climate(30, 0.5);
        Assert.True(Windows.CleanUp(Carrier.Enamel, Relief.Deep, warm).ClosesMinutes < 90);
        Assert.Equal(Windows.Chipping(Climate.Standard).ClosesMinutes / 2, Windows.Chipping(warm).ClosesMinutes, 1e-9);
        Assert.Equal((240, 20), (Windows.TopCoatOverFluid(Climate.Standard).ClosesMinutes, Windows.TuftsInPaste(Climate.Standard).ClosesMinutes));
    }

    [Fact]
    public void Every_kind_of_every_carrier_has_times_in_order() =>
        Gen.Select(Gen.Enum<MaterialKind>(), Gen.Enum<Carrier>()).Sample((kind, carrier) =>
        {
            var times = UsualDryTimes.For(kind, carrier);
            Assert.True(0 <= times.TouchMinutes && times.TouchMinutes <= times.RecoatMinutes && times.RecoatMinutes <= times.CureMinutes);
        });

    [Fact]
    public void One_figure_for_a_range_may_open_two_fifths_later_and_close_three_tenths_sooner()
    {
        var safe = new Window(15, 90).OnTheSafeSide();
        Assert.Equal((21, 63), (Math.Round(safe.OpensMinutes, 6), Math.Round(safe.ClosesMinutes, 6)));
        safe = new Window(30, 50).OnTheSafeSide();
        Assert.Equal((35, 35), (Math.Round(safe.OpensMinutes, 6), Math.Round(safe.ClosesMinutes, 6)));
    }

    [Fact]
    public void Ink_from_an_airbrush_dries_as_sprayed_paint_and_a_wash_always_as_a_wash()
    {
        var ink = Brown with { Kind = MaterialKind.Ink };
        DryingRow Laid(Material material, Technique technique, Tool tool = Tool.Brush) => DryingTable.Laid(material, Lay(technique, material) with { Tool = tool });
        Assert.Equal(DryingTable.Sprayed, Laid(ink, Technique.BaseCoat, Tool.Airbrush));
        Assert.Equal(DryingTable.Scant, Laid(ink, Technique.DryBrush));
        Assert.Equal(DryingTable.Wash, Laid(ink, Technique.AllOverWash));
        Assert.Equal(DryingTable.Wash, Laid(Wash, Technique.BaseCoat, Tool.Airbrush));
    }
}
