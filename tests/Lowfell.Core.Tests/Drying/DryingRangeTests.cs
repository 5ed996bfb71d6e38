using CsCheck;
using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Tests.Order;
using static Lowfell.Core.Tests.Bench;

namespace Lowfell.Core.Tests.Drying;

/// <summary>What film, tool, ground and air do to drying, low – usual – high.</summary>
public sealed class DryingRangeTests
{
    private static readonly DryingConditions room = new(Climate.Standard);
    private static readonly Layer brushed = Lay(Technique.BaseCoat, Brown);

    private static DryTimes Usual(Layer layer, DryingConditions? conditions = null) => DryingModel.Of(layer, conditions ?? room).Usual;

    [Fact]
    public void Coats_count_to_the_power_of_1_3_and_pastes_squared()
    {
        Assert.Equal(35 * Math.Pow(2, 1.3), Usual(brushed with { Coats = 2 }).RecoatMinutes, 1e-9);
        Assert.Equal(35 * Math.Pow(1.5, 1.3), Usual(brushed with { Strength = 1.5 }).RecoatMinutes, 1e-9);
        var paste = Lay(Technique.TexturePaste, RuleExamples.Paste);
        Assert.Equal(4 * Usual(paste).RecoatMinutes, Usual(paste with { Strength = 2 }).RecoatMinutes, 1e-9);
        Assert.Equal(1.5 * 1.5 * Usual(paste).RecoatMinutes, Usual(paste with { Preparation = Preparation.LeftOpen }).RecoatMinutes, 1e-9);
    }

    [Fact]
    public void Patches_dry_one_beside_the_other()
    {
        var sponge = Lay(Technique.Sponge, Brown);
        Assert.Equal(Usual(sponge), Usual(sponge with { Coats = 3 }));
    }

    [Fact]
    public void The_tool_decides_and_so_does_a_wash()
    {
        Assert.Equal((4.0, 15.0), (Usual(brushed with { Tool = Tool.Airbrush }).TouchMinutes, Usual(brushed with { Tool = Tool.Airbrush }).RecoatMinutes));
        Assert.Equal(8, Usual(Lay(Technique.DryBrush, Brown)).RecoatMinutes, 1e-9);
        Assert.Equal(75, Usual(Lay(Technique.AllOverWash, Brown)).RecoatMinutes, 1e-9);
        Assert.Equal(75, Usual(brushed with { Dilution = new Dilution(Water, Parts.One, Parts.Of(3)) }).RecoatMinutes, 1e-9);
        Assert.Equal(35, Usual(brushed with { Dilution = new Dilution(Water, Parts.Of(2), Parts.One) }).RecoatMinutes, 1e-9);
        Assert.True(Usual(Lay(Technique.Varnish, Matt) with { Tool = Tool.Brush }).RecoatMinutes > 2 * Usual(Lay(Technique.Varnish, Matt)).RecoatMinutes);
    }

    [Fact]
    public void A_label_counts_for_how_it_is_usually_laid()
    {
        var slow = Brown with { DryTimes = new DryTimes(30, 70, 2880) };
        Assert.Equal(70, Usual(Lay(Technique.BaseCoat, slow)).RecoatMinutes);
        Assert.Equal(30, Usual(Lay(Technique.BaseCoat, slow) with { Tool = Tool.Airbrush }).RecoatMinutes, 1e-9);
    }

    [Fact]
    public void Thirsty_ground_and_moving_air_shorten_all_but_the_cure()
    {
        var thirsty = Usual(brushed, room with { Thirsty = true });
        Assert.Equal((35 * 0.7, 1440), (thirsty.RecoatMinutes, thirsty.CureMinutes));
        var moving = Usual(brushed, new DryingConditions(new Climate(20, 0.5, AirMoves: true)));
        Assert.True(moving.RecoatMinutes < 35 && moving.CureMinutes == 1440);
    }

    [Fact]
    public void Hot_air_is_five_times_thin_three_times_thick_and_has_its_exceptions()
    {
        Layer Hot(Layer layer) => layer with { Drying = DryingMode.HotAir };
        var thick = Brown with { DryTimes = new DryTimes(1, 300, 3000) };
        Assert.Equal(60, Usual(Hot(Lay(Technique.BaseCoat, thick))).RecoatMinutes, 1e-9);
        Assert.Equal(300 * Math.Pow(2, 1.3) / 3, Usual(Hot(Lay(Technique.BaseCoat, thick, 2))).RecoatMinutes, 1e-9);
        var wash = Lay(Technique.AllOverWash, Wash);
        Assert.Equal(Usual(wash), Usual(Hot(wash)));
        Assert.True(Usual(Hot(wash), room with { HotAirOnWashes = true }).RecoatMinutes < 75);
        var crust = Lay(Technique.CracklePaste, Crackle);
        Assert.Equal(Usual(crust), Usual(Hot(crust)));
        Assert.True(Usual(Hot(Lay(Technique.CracklePaste, Crackle with { HeatSafe = true }))).RecoatMinutes < Usual(crust).RecoatMinutes);
    }

    [Fact]
    public void Every_range_is_in_order_and_thicker_or_colder_never_dries_sooner() =>
        Gen.Select(Gen.Enum<MaterialKind>(), Gen.Enum<Carrier>(), Gen.Enum<Technique>(), Gen.Enum<Tool>(), Gen.Int[1, 4], Gen.Enum<DryingMode>()).Sample((kind, carrier, technique, tool, coats, mode) =>
        {
            var material = Make("Any", kind, carrier, null);
            var layer = Lay(technique, material, coats) with { Tool = tool, Drying = mode };
            var range = DryingModel.Of(layer, room);
            foreach (var span in new[] { range.TouchMinutes, range.RecoatMinutes, range.CureMinutes })
                Assert.True(span.Low <= span.Usual && span.Usual <= span.High);
            Assert.True(range.TouchMinutes.Usual <= range.RecoatMinutes.Usual + 1e-9);
            Assert.True(DryingModel.Of(layer with { Coats = coats + 1 }, room).CureMinutes.Usual >= range.CureMinutes.Usual - 1e-9);
            Assert.True(DryingModel.Of(layer, new DryingConditions(new Climate(12, 0.5))).RecoatMinutes.Usual >= range.RecoatMinutes.Usual - 1e-9);
        });

    [Theory]
    [InlineData(30, 0)]
    [InlineData(200, 1)]
    [InlineData(1500, 0)]
    public void A_second_coat_of_solvent_primer_has_its_hours(int wait, int said)
    {
        Layer[] stack = [Lay(Technique.Prime, Primer, wait: wait), Lay(Technique.Prime, ChalkPrimer)];
        Assert.Equal(said, Check(Context(), stack).Count(f => f.Title == "Second coat in the hours between"));
    }
}
