using CsCheck;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using static Lowfell.Core.Tests.Bench;
using static Lowfell.Core.Tests.Order.RuleExamples;

namespace Lowfell.Core.Tests.Estimates;

public class QuantityTests
{
    /// <summary>
    /// 318 cm2 brushed twice on 8 walls: 318 × 90 um × 1e-4 × 2 × 8 = 45.792 ml on the surface, ÷ 0.9 transfer = 50.880;
    /// 318 × 2 × 8 ÷ 150 = 33.9, so 34 fills × 0.15 = 5.1 lost; (50.880 + 5.1) × 1.1 spare = 61.578 ml in the pot.
    /// At 4 : 1 that is 49.262 ml paint, of which 3 of 5 parts are 29.557 ml brown and 19.705 ml white, and 12.316 ml water.
    /// </summary>
    [Fact]
    public void Ground_colour_of_eight_walls_by_hand()
    {
        var layer = Lay(Technique.BaseCoat, Brown, 2) with
        {
            Paint = [new MixPart(Brown, Parts.Of(3)), new MixPart(White, Parts.Of(2))],
            Dilution = new Dilution(Water, Parts.Of(4), Parts.One),
        };
        var needs = Quantities.ForLayer(layer, Zone(Relief.Deep, 318), 8).ToDictionary(n => n.Material.Name, n => n.Ml);
        Assert.Equal(29.557, needs["Peat Seven"], 0.001);
        Assert.Equal(19.705, needs["Salt White"], 0.001);
        Assert.Equal(12.316, needs["Tap Water"], 0.001);
    }

    /// <summary>2 600 mm of joint, 0.5 mm2 bead, 8 walls: 10.4 ml; 2 080 cm ÷ 600 = 4 fills × 0.1 = 0.4; × 1.1 = 11.88 ml.</summary>
    [Fact]
    public void Pin_wash_of_eight_walls_by_hand() =>
        Assert.Equal(11.88, Quantities.PotMl(Lay(Technique.PinWash, EnamelWash), Zone() with { JointMm = 2600 }, 8), 0.001);

    /// <summary>
    /// Sand on 100 cm2, 0.9 mm deep on 0.95 of it, a little less on what stands out: 8.54 ml lie there; the glue below is a sixth of that, 1.423 ml, whatever parts were
    /// written. Together 9.965 ÷ 0.8, and a tenth to spare.
    /// </summary>
    [Theory]
    [InlineData(4, 1)]
    [InlineData(1, 3)]
    public void Glue_under_sand_is_a_bed_over_its_area(int sand, int glue)
    {
        var layer = Lay(Technique.GlueAndScatter, Sand) with { Paint = [new MixPart(Sand, Parts.Of(sand)), new MixPart(Pva, Parts.Of(glue))] };
        var zone = Zone(Relief.Smooth, 100);
        var needs = Quantities.ForLayer(layer, zone, 1).ToDictionary(n => n.Material.Name, n => n.Ml);
        var alone = Quantities.ForLayer(Lay(Technique.GlueAndScatter, Sand), zone, 1).Single().Ml;
        var bed = Quantities.ForLayer(Lay(Technique.GlueAndScatter, Pva), zone, 1).Single().Ml;
        Assert.Equal(1.0 / 6, needs[Pva.Name] / needs[Sand.Name], 1e-9);
        Assert.Equal(1.425, Quantities.Work(layer, zone, 1).OnSurfaceMl / 7, 0.005);
        Assert.InRange(needs[Sand.Name], alone * 0.98, alone * 1.02);
        Assert.InRange(needs[Pva.Name], bed * 0.95, bed * 1.05);
    }

    [Fact]
    public void Nothing_needs_nothing()
    {
        Assert.Empty(Quantities.ForLayer(Lay(Technique.BaseCoat, Brown), Zone(), 0));
        Assert.Empty(Quantities.ForLayer(Lay(Technique.BaseCoat, Brown, strength: 0), Zone(), 5));
        Assert.Empty(Quantities.ForLayer(Lay(Technique.Mask), Zone(), 5));
    }

    [Fact]
    public void Components_and_thinner_add_up_to_the_pot() =>
        Gen.Select(Gen.Int[1, 9], Gen.Int[1, 9], Gen.Int[1, 9], Gen.Int[1, 9], Gen.Double[1, 400], Gen.Int[1, 30]).Sample((a, b, paint, thinner, area, pieces) =>
        {
            var layer = Lay(Technique.BaseCoat, Brown) with
            {
                Paint = [new MixPart(Brown, Parts.Of(a)), new MixPart(White, Parts.Of(b))],
                Dilution = new Dilution(Water, Parts.Of(paint), Parts.Of(thinner)),
            };
            var zone = Zone(Relief.Light, area);
            Assert.Equal(Quantities.PotMl(layer, zone, pieces), Quantities.ForLayer(layer, zone, pieces).Sum(n => n.Ml), 1e-9);
        });

    [Fact]
    public void A_set_sums_its_zones_and_names_the_driver()
    {
        var layer = Lay(Technique.BaseCoat, Brown, 2);
        ZonePlan large = new(Guid.NewGuid(), Zone(areaCm2: 300), [layer], 8), small = new(Guid.NewGuid(), Zone(areaCm2: 20), [layer], 2);
        var need = Assert.Single(SetMixes.Needs([small, large], (_, _) => 0));
        var parts = new[] { large, small }.Select(p => Quantities.PotMl(layer, p.Zone, p.Pieces)).ToList();
        Assert.Equal(parts.Sum(), need.Ml, 1e-9);
        Assert.Equal(large.ZoneId, need.DrivingZone);
        Assert.Equal(parts[0] / parts.Sum(), need.DrivingShare, 1e-9);
    }

    [Fact]
    public void A_larger_batch_is_quicker_by_the_piece()
    {
        var layer = Lay(Technique.AllOverWash, Wash);
        Assert.True(HandsOn.Batch(layer, Zone(), 16) / 16 < HandsOn.Batch(layer, Zone(), 2) / 2);
        Assert.Equal(0, HandsOn.Batch(layer, Zone(), 0));
    }

    [Fact]
    public void Hands_vary_what_a_layer_takes_and_a_sum_varies_less_than_its_parts() =>
        Gen.Select(Gen.OneOfConst(Technique.BaseCoat, Technique.DryBrush, Technique.AllOverWash, Technique.PinWash, Technique.Patch, Technique.Assemble), Gen.Double[1, 400], Gen.Int[1, 30], Gen.Int[1, 3]).Sample((technique, area, pieces, coats) =>
        {
            var (layer, zone) = (Lay(technique, technique == Technique.Assemble ? Brown with { Kind = MaterialKind.Glue } : Brown, coats), Zone(Relief.Light, area));
            var usual = Quantities.PotMl(layer, zone, pieces);
            var range = Quantities.Range(layer, zone, pieces);
            Assert.InRange(range.LowMl, usual * 0.3, usual * 0.999);
            Assert.InRange(range.HighMl, usual * 1.001, usual * 2.5);
            var twice = Quantities.Sum([(usual, range), (usual, range)]);
            Assert.InRange(twice.LowMl, 2 * range.LowMl, 2 * usual);
            Assert.InRange(twice.HighMl, 2 * usual, 2 * range.HighMl);
        });

    [Fact]
    public void What_is_set_one_by_one_is_counted_and_glue_follows_the_joint()
    {
        var zone = Zone(areaCm2: 40) with { EdgeMm = 200 };
        Assert.Equal(5 * 12, Quantities.Things(Lay(Technique.Tuft, Brown with { Kind = MaterialKind.Tuft }) with { Details = 12 }, zone, 5));
        Assert.Equal(0, Quantities.PotMl(Lay(Technique.Tuft, Brown with { Kind = MaterialKind.Tuft }), zone, 5));
        Assert.Equal(0, Quantities.Things(Lay(Technique.BaseCoat, Brown), zone, 5));
        Assert.Equal(20 * 0.005 * 3 * (1 + Quantities.Margin), Quantities.PotMl(Lay(Technique.Assemble, Brown with { Kind = MaterialKind.Glue }), zone, 3), 1e-9);
        Assert.Equal(0, Quantities.PotMl(Lay(Technique.Inspect, null), zone, 3));
        Assert.Equal(15, AmountWords.GramsOf(Brown with { Kind = MaterialKind.Aggregate, DensityGPerMl = 1.5m }, 10));
        Assert.Null(AmountWords.GramsOf(Brown, 10));
    }

    [Fact]
    public void Patches_and_light_take_the_film_of_their_tool()
    {
        double Um(Technique technique, Tool tool) => TechniqueTable.For(technique, tool).FilmUm.Usual;
        Assert.Equal((70, 30, 40, 40), (Um(Technique.Patch, Tool.Brush), Um(Technique.Patch, Tool.Airbrush), Um(Technique.Patch, Tool.SprayCan), Um(Technique.Patch, Tool.Sponge)));
        Assert.Equal((30, 40, 70), (Um(Technique.DirectionalLight, Tool.Airbrush), Um(Technique.DirectionalLight, Tool.SprayCan), Um(Technique.DirectionalLight, Tool.Brush)));
        Assert.Equal(TechniqueTable.For(Technique.Patch).SplitFor(Relief.Deep), TechniqueTable.For(Technique.Patch, Tool.Airbrush).SplitFor(Relief.Deep));
    }

    /// <summary>A twentieth of all hands lay less than the low figure, a twentieth more than the high one; nine in ten lie between.</summary>
    [Fact]
    public void A_range_goes_from_the_twentieth_hand_to_the_nineteenth_of_twenty()
    {
        var (layer, zone) = (Lay(Technique.BaseCoat, Brown), Zone(Relief.Light, 100));
        var range = Quantities.Range(layer, zone, 4);
        double By(double hand) => Quantities.Work(layer, zone, 4) is var usual && Laying.Of(layer, zone) is var laid
            ? (usual with { OnSurfaceMl = usual.OnSurfaceMl * zone.Shares.Dot(Hand.Of(layer, laid, hand).MeanUm) / zone.Shares.Dot(laid.MeanUm) }).TotalMl : 0;
        Assert.Equal(By(0.05), range.LowMl, 1e-9);
        Assert.Equal(By(0.95), range.HighMl, 1e-9);
        Assert.True(By(0.05) < By(0.06) && By(0.94) < By(0.95));
    }
}
