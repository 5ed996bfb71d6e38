using CsCheck;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Mixing.Pots;
using static Lowfell.Core.Tests.Bench;

namespace Lowfell.Core.Tests.Mixing.Pots;

public class PotContentsTests
{
    private static readonly Material[] liquids = [Brown, White, Wash, Matt, Water];
    private static readonly Gen<decimal> ml = Gen.Int[1, 400_000].Select(n => n / 10_000m);
    private static readonly Gen<PotContents> pots = Gen.Select(Gen.Int[0, liquids.Length - 1], ml).List[1, 7].Select(list => PotContents.Of(list.Select(p => new Portion(liquids[p.Item1], p.Item2))));

    private static decimal Of(PotContents pot, Material material) => pot.Portions.Where(p => p.Material.Id == material.Id).Sum(p => p.Ml);

    [Fact]
    public void Every_operation_conserves_every_material_exactly() =>
        Gen.Select(pots, pots, Gen.Double[0, 1], Gen.Int[0, 4], ml).Sample((a, b, share, more, add) =>
        {
            var taken = decimal.Round(a.Ml * (decimal)share, PotContents.Decimals);
            var (part, left) = a.Take(taken);
            var topped = left.With([new Portion(liquids[more], add)]);
            var joined = topped.Join(b);
            Assert.Equal(taken, part.Ml);
            foreach (var material in liquids)
            {
                Assert.Equal(Of(a, material), Of(part, material) + Of(left, material));
                Assert.Equal(Of(left, material) + (material == liquids[more] ? add : 0), Of(topped, material));
                Assert.Equal(Of(topped, material) + Of(b, material), Of(joined, material));
            }
        });

    [Fact]
    public void A_split_keeps_the_ratio_to_a_ten_thousandth_of_a_millilitre() =>
        Gen.Select(pots, Gen.Double[0, 1]).Sample((pot, share) =>
        {
            var taken = decimal.Round(pot.Ml * (decimal)share, PotContents.Decimals);
            foreach (var portion in pot.Take(taken).Taken.Portions)
                Assert.True(Math.Abs(portion.Ml - Of(pot, portion.Material) * taken / pot.Ml) < 0.0001m);
        });

    [Fact]
    public void Thinning_then_topping_up_equals_mixing_at_once() =>
        Gen.Select(Gen.Int[1, 9], Gen.Int[1, 9], Gen.Int[1, 9], Gen.Int[1, 9], Gen.Int[5, 40], Gen.Int[5, 40]).Sample((a, b, paint, thinner, first, more) =>
        {
            // Whole steps of the ratio, so that nothing is rounded: the same parts must come out whichever way it was done.
            var neat = Recipe.Of([new MixPart(Brown, Parts.Of(a)), new MixPart(White, Parts.Of(b))]);
            var unit = neat.Parts.Sum(p => p.Parts.ToDecimal()) * paint / 10;
            var pot = neat.Fill(unit * first);
            pot = pot.With(Solve.ToRatio(pot, new Dilution(Water, Parts.Of(paint), Parts.Of(thinner))));
            var whole = pot.Ml * (first + more) / first;
            var stepwise = pot.With(Solve.ToVolume(pot, whole));
            var atOnce = Recipe.Of([
                new MixPart(Brown, Parts.Of(a) * Parts.Of(paint)), new MixPart(White, Parts.Of(b) * Parts.Of(paint)), new MixPart(Water, Parts.Of(a + b) * Parts.Of(thinner))]).Fill(whole);
            foreach (var material in new[] { Brown, White, Water })
                Assert.Equal(Of(atOnce, material), Of(stepwise, material), 3);
            Assert.Equal(atOnce.Ml, stepwise.Ml);
        });

    [Theory]
    [InlineData(2, 1, 1, 2)]
    [InlineData(4, 1, 1, 1)]
    [InlineData(1, 2, 2, 1)]
    [InlineData(3, 2, 3, 2)]
    public void Redilution_lands_on_the_ratio_from_either_side(int paint, int thinner, int toPaint, int toThinner)
    {
        var pot = Recipe.Of([new MixPart(Brown, Parts.Of(paint)), new MixPart(Water, Parts.Of(thinner))]).Fill(12);
        var added = Solve.ToRatio(pot, new Dilution(Water, Parts.Of(toPaint), Parts.Of(toThinner)));
        var end = pot.With(added);
        Assert.Equal((double)toThinner / (toPaint + toThinner), end.ThinnerShare, 4);
        Assert.True(added.Count <= 1);
        Assert.Equal(toThinner * paint == thinner * toPaint, added.Count == 0);
    }

    /// <summary>2 : 1 in 9 ml is 6 paint and 3 water; at 1 : 2 six of paint want twelve of water: nine more.</summary>
    [Fact]
    public void Two_to_one_becomes_one_to_two_by_nine_of_water() =>
        Assert.Equal(9, Solve.ToRatio(Recipe.Of([new MixPart(Brown, Parts.Of(2)), new MixPart(Water, Parts.One)]).Fill(9), new Dilution(Water, Parts.One, Parts.Of(2)))[0].Ml);

    [Fact]
    public void What_there_is_of_one_limits_the_mix()
    {
        var recipe = Recipe.Of([new MixPart(Brown, Parts.Of(3)), new MixPart(White, Parts.Of(2))]);
        var most = Solve.Most(recipe, new Dictionary<Guid, decimal> { [Brown.Id] = 9, [White.Id] = 2 });
        Assert.Equal((5m, "Salt White"), (most.Ml, most.Limit.Material.Name));
        Assert.Throws<ArgumentOutOfRangeException>(() => recipe.Fill(5).Take(5.0001m));
        Assert.Throws<ArgumentException>(() => Solve.ToRatio(PotContents.Of([new Portion(Water, 3)]), new Dilution(Water, Parts.One, Parts.One)));
    }

    [Fact]
    public void A_pot_poured_apart_is_still_near_its_recipe_and_a_drop_too_many_is_not() =>
        Gen.Select(Gen.Int[1, 30], Gen.Int[1, 30], Gen.Int[1, 30], Gen.Double[0.2, 0.8]).Sample((a, b, water, share) =>
        {
            var recipe = Recipe.Of([new MixPart(Brown, Parts.Of(a)), new MixPart(White, Parts.Of(b)), new MixPart(Water, Parts.Of(water))]);
            var taken = recipe.Fill(20).Take(decimal.Round(20 * (decimal)share, 4)).Taken;
            Assert.True(recipe.IsNear(Recipe.Of(taken)));
            Assert.False(recipe.IsNear(Recipe.Of(recipe.Fill(2).With([new Portion(Wash, 0.05m)]))));
            Assert.False(recipe.IsNear(Recipe.Of(recipe.Fill(2).With([new Portion(Brown, 1)]))));
        });

    [Fact]
    public void A_layers_pot_is_its_mix_and_thinner_in_whole_parts()
    {
        var layer = Lay(Core.Layers.Technique.BaseCoat, Brown) with { Paint = [new MixPart(Brown, Parts.Of(3)), new MixPart(White, Parts.Of(2))], Dilution = new Dilution(Water, Parts.Of(4), Parts.One) };
        var recipe = Recipe.Of(layer)!;
        Assert.Equal(["12", "8", "5"], recipe.Parts.Select(p => p.Parts.ToString()));
        var pot = recipe.Fill(25);
        Assert.Equal([12m, 8m, 5m], pot.Portions.Select(p => p.Ml));
        Assert.Equal(recipe.Key, Recipe.Of(pot).Key);
        var (paint, dilution) = pot.AsPaint();
        Assert.Equal(("3", "2", "4 : 1"), (paint[0].Parts.ToString(), paint[1].Parts.ToString(), dilution!.ToString()));
    }

    [Theory]
    [InlineData(1, 0, "")]
    [InlineData(5, 3, "about like milk (2 : 1 to 1 : 1)")]
    [InlineData(8, 1, "about like yoghurt (12 : 1 to 6 : 1)")]
    [InlineData(1, 3, "about like ink (1 : 2 to 1 : 4)")]
    [InlineData(1, 40, "")]
    public void A_thinned_pot_has_the_name_that_painters_give_it_or_none(int paint, int thinner, string name) =>
        Assert.Equal(name, PotCheck.Consistency(PotContents.Of([new Portion(Brown, paint), new Portion(Water, thinner)])));
}
