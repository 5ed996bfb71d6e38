using CsCheck;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Mixing;
using Lowfell.Core.Mixing.Pots;
using static Lowfell.Core.Tests.Bench;

namespace Lowfell.Core.Tests.Estimates;

public class SetMixesTests
{
    private static readonly Gen<Layer> layers = Gen.Select(
        Gen.OneOfConst(Technique.BaseCoat, Technique.Sponge, Technique.AllOverWash, Technique.PinWash, Technique.DryBrush, Technique.Mask),
        Gen.OneOfConst(Brown, White, Wash), Gen.Int[0, 4], Gen.Int[0, 4], Gen.Int[1, 3]).Select((technique, material, second, thinner, coats) =>
        Lay(technique, technique == Technique.Mask ? null : material, coats) with
        {
            Paint = technique == Technique.Mask ? [] : second == 0 ? [new MixPart(material, Parts.One)] : [new MixPart(material, Parts.Of(second)), new MixPart(Matt, Parts.Of(1))],
            Dilution = thinner == 0 ? null : new Dilution(Water, Parts.Of(3), Parts.Of(thinner)),
        });

    private static readonly Gen<ZonePlan> plans = Gen.Select(layers.List[1, 5], Gen.Double[1, 400], Gen.Int[1, 24]).Select((stack, area, pieces) =>
        new ZonePlan(Guid.NewGuid(), Zone(Relief.Deep, area), stack, pieces));

    private static readonly Dictionary<string, double> noPots = [];

    /// <summary>What the first zone leaves in its last cup goes on the second; a layer further up is another evening.</summary>
    [Fact]
    public void Zones_sprayed_with_one_mix_share_their_cups() =>
        Gen.Select(Gen.Double[1, 400], Gen.Int[1, 24]).List[1, 5].Sample(zones =>
        {
            var varnish = Lay(Technique.Varnish, Matt) with { Tool = Tool.Airbrush };
            var set = zones.Select(z => new ZonePlan(Guid.NewGuid(), Zone(Relief.Light, z.Item1), [varnish, varnish with { Id = Guid.NewGuid() }], z.Item2)).ToList();
            var mix = Assert.Single(SetMixes.Of(set, (_, _) => 0));
            var cups = Math.Ceiling(zones.Sum(z => z.Item1 * z.Item2) / TechniqueTable.For(Technique.Varnish).FillCoversCm2 - 1e-6);
            Assert.All(mix.Layers.GroupBy(l => l.Turn), turn => Assert.Equal(cups, turn.Sum(l => l.Amount.Fills)));
            Assert.All(mix.Layers, l => Assert.InRange(l.Amount.Fills, 0, Quantities.Work(l.Layer, l.Zone, l.Pieces).Fills));
            Assert.Equal(mix.Layers.Sum(l => l.Amount.TotalMl), SetMixes.Needs(set, (_, _) => 0).Sum(n => n.Ml), 1e-6);
        });

    [Fact]
    public void What_is_done_and_what_stands_in_pots_is_not_asked_for_again() =>
        Gen.Select(plans.List[1, 4], Gen.Int[0, 24], Gen.Double[0, 2]).Sample((set, done, filled) =>
        {
            var mixes = SetMixes.Of(set, (_, _) => done);
            Assert.All(mixes.SelectMany(m => m.Layers), l => Assert.Equal(Math.Max(0, set.Single(p => p.ZoneId == l.ZoneId).Pieces - done), l.Pieces));
            Assert.All(mixes, m => Assert.Equal(m.Ml, m.Layers.Sum(l => l.Amount.TotalMl), 1e-9));
            var pots = mixes.ToDictionary(m => m.Recipe.Key, m => m.Ml * filled);
            var open = SetMixes.FromShelf(mixes, noPots).Sum(n => n.Ml);
            Assert.Equal(open * Math.Max(0, 1 - filled), SetMixes.FromShelf(mixes, pots).Sum(n => n.Ml), 1e-6);
        });

    /// <summary>Once a mix, however many zones and layers it goes on, and only of colours that are still to be laid.</summary>
    [Fact]
    public void A_reserve_is_kept_back_of_ground_and_finishing_colours()
    {
        var stack = new List<Layer> { Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, Brown, 2), Lay(Technique.AllOverWash, Wash), Lay(Technique.DryBrush, White), Lay(Technique.Varnish, Matt) };
        ZonePlan[] set = [new(Guid.NewGuid(), Zone(areaCm2: 100), stack, 4, ReserveMl: 3), new(Guid.NewGuid(), Zone(areaCm2: 30), stack, 2, ReserveMl: 3)];
        var plain = SetMixes.Of(set.Select(p => p with { ReserveMl = 0 }), (_, _) => 0).ToDictionary(m => m.Recipe.Key, m => m.Ml);
        var mixes = SetMixes.Of(set, (_, _) => 0);
        Assert.All(mixes, m => Assert.Equal(plain[m.Recipe.Key] + m.ReserveMl, m.Ml, 1e-9));
        Assert.Equal(["Peat Seven", "Salt White"], mixes.Where(m => m.ReserveMl == 3).Select(m => m.Layers[0].Layer.MaterialName).Order());
        Assert.All(mixes, m => Assert.True(m.ReserveMl is 0 or 3));
        Assert.Equal(mixes.Sum(m => m.Ml), SetMixes.FromShelf(mixes, noPots).Sum(n => n.Ml), 1e-9);
        Assert.All(SetMixes.Of(set, (_, _) => 4), m => Assert.Equal(0, m.ReserveMl));
    }

    [Fact]
    public void Layers_of_one_recipe_are_one_mix_wherever_they_lie()
    {
        Layer one = Lay(Technique.BaseCoat, Brown, thin: new Dilution(Water, Parts.Of(4), Parts.One)), other = Lay(Technique.Sponge, Brown, thin: new Dilution(Water, Parts.Of(8), Parts.Of(2)));
        ZonePlan large = new(Guid.NewGuid(), Zone(areaCm2: 300), [one], 8), small = new(Guid.NewGuid(), Zone(areaCm2: 20), [other], 2);
        var mix = Assert.Single(SetMixes.Of([small, large], (_, _) => 0));
        Assert.Equal(2, mix.Layers.Count);
        Assert.Equal(large.ZoneId, mix.Driver.Layer.ZoneId);
        Assert.InRange(mix.Driver.Share, 0.9, 1);
    }

    [Fact]
    public void Each_step_of_an_amount_adds_up() =>
        Gen.Select(layers, Gen.Double[1, 400], Gen.Int[1, 30]).Sample((layer, area, pieces) =>
        {
            var work = Quantities.Work(layer, Zone(Relief.Light, area), pieces);
            Assert.Equal(work.TotalMl, work.OnSurfaceMl + work.TransferLossMl + work.FillLossMl + work.MarginMl, 1e-9);
            Assert.Equal(work.TotalMl, Quantities.PotMl(layer, Zone(Relief.Light, area), pieces));
            Assert.True(work.TransferLossMl >= 0 && work.FillLossMl >= 0);

            // In two sittings it is never less than at once.
            if (pieces > 1)
                Assert.True(Quantities.PotMl(layer, Zone(Relief.Light, area), 1) + Quantities.PotMl(layer, Zone(Relief.Light, area), pieces - 1) >= work.TotalMl - 1e-9);
        });

    [Theory]
    [InlineData(4, 1, "4 : 1")]
    [InlineData(12, 3, "4 : 1")]
    [InlineData(1, 12, "1 : 12")]
    [InlineData(41, 10, "≈ 4.1 : 1")]
    [InlineData(10, 33, "≈ 1 : 3.3")]
    [InlineData(7, 0, "neat")]
    public void A_ratio_is_said_as_people_do(int paint, int thinner, string says) => Assert.Equal(says, RatioWords.Of(Parts.Of(paint), Parts.Of(thinner)));
}
