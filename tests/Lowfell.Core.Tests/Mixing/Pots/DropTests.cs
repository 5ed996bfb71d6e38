using CsCheck;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Mixing.Measures;
using Lowfell.Core.Mixing.Pots;
using static Lowfell.Core.Tests.Bench;

namespace Lowfell.Core.Tests.Mixing.Pots;

public class DropTests
{
    private static readonly Gen<Material> bottles = Gen.Select(Gen.OneOfConst(Brown, White, Wash, Water), Gen.Int[50, 1200]).Select(x => x.Item1 with { DropMl = x.Item2 / 10_000m });
    private static readonly Gen<Recipe> recipes = Gen.Select(bottles, Gen.Int[1, 12]).List[1, 5].Select(list => Recipe.Of(list.DistinctBy(x => x.Item1.Id).Select(x => new MixPart(x.Item1, Parts.Of(x.Item2)))));

    [Fact]
    public void Parts_to_drops_to_parts_and_again_is_stable() =>
        Gen.Select(recipes, Gen.Int[1, 400]).Sample((recipe, tenths) =>
        {
            var once = WholeDrops.Nearest(recipe, tenths / 10m);
            var again = WholeDrops.Nearest(Recipe.Of(once.Contents), once.Contents.Ml);
            Assert.Equal(once.Counts, again.Counts);
            Assert.Equal(Recipe.Of(once.Contents).Key, Recipe.Of(again.Contents).Key);
            Assert.True(again.Difference < 1e-9);
        });

    [Fact]
    public void The_fewest_drops_keep_the_colour() =>
        recipes.Sample(recipe =>
        {
            var few = WholeDrops.Fewest(recipe);
            Assert.True(few.Difference <= WholeDrops.UsualWithin || few.Counts.Sum() > 100, $"{few.Difference} with {string.Join(", ", few.Counts)}");
            Assert.All(few.Counts, n => Assert.True(n >= 1));
        }, iter: 60);

    [Fact]
    public void Simple_parts_are_as_many_drops()
    {
        var recipe = Recipe.Of([new MixPart(Brown, Parts.Of(3)), new MixPart(White, Parts.Of(2))]);
        Assert.Equal([3, 2], WholeDrops.Fewest(recipe, 0.01).Counts);

        // Twice as much from a bottle with drops twice as large is as many drops.
        var large = Recipe.Of([new MixPart(Brown with { DropMl = 0.1m }, Parts.Of(4)), new MixPart(White, Parts.Of(2))]);
        Assert.Equal([1, 1], WholeDrops.Fewest(large, 0.01).Counts);
    }

    [Fact]
    public void Twenty_drops_on_a_scale_or_in_a_syringe_tell_the_drop()
    {
        Assert.Equal(new DropCalibration(0.043m, 0.0025m), DropCalibration.FromMl(20, 0.86m));

        // 1.2 g at 1.25 g/ml is 0.96 ml: 0.048 a drop, and half a tenth of a gram more or less is 0.002.
        Assert.Equal(new DropCalibration(0.048m, 0.002m), DropCalibration.FromGrams(20, 1.2m, 1.25m));
        Assert.Throws<ArgumentOutOfRangeException>(() => DropCalibration.FromMl(20, 40));
        Assert.Throws<ArgumentOutOfRangeException>(() => DropCalibration.FromMl(0, 1));
        Assert.Throws<ArgumentOutOfRangeException>(() => DropCalibration.FromGrams(20, 1, 0));
    }

    [Fact]
    public void Paste_is_counted_in_brush_loads_not_drops() =>
        Assert.Equal(UsualMeasures.BrushLoadMl, WholeDrops.UnitMl(new MixPart(Crackle, Parts.One)));

    [Fact]
    public void Plain_parts_say_the_same_in_the_smallest_numbers() =>
        Gen.Select(recipes, Gen.Double[0.1, 0.9], Gen.Int[5, 400]).Sample((recipe, share, tenths) =>
        {
            // Split however it was, a pot still says its recipe.
            var pot = recipe.Fill(tenths / 10m);
            var taken = pot.Take(decimal.Round(pot.Ml * (decimal)share, 4)).Taken;
            var plain = Recipe.Of(taken).Plain();
            var meant = Recipe.Of(taken).Shares();
            Assert.All(plain.Shares().Select((s, i) => Math.Abs(s - meant[i])), off => Assert.True(off <= 0.002));

            // Rounding each part may make the whole a little larger than the recipe's, never by more than half a part each.
            Assert.True(plain.Parts.Sum(p => p.Parts.Numerator) <= recipe.Parts.Sum(p => p.Parts.Numerator) + recipe.Parts.Count || taken.Ml < 1);
        });

    [Fact]
    public void A_jar_follows_whatever_is_typed()
    {
        var jar = new Jar(Recipe.Of([new MixPart(Brown, Parts.Of(12)), new MixPart(White, Parts.Of(8)), new MixPart(Water, Parts.Of(5))]), 25);
        string Says(Jar j) => string.Join(" ", j.Recipe.Parts.Select(p => p.Parts)) + $" in {j.Ml:0.####}";
        Assert.Equal("12 8 5 in 12.5", Says(jar.With(Brown.Id, JarMeasure.Ml, 6)));
        Assert.Equal("12 8 5 in 12.5", Says(jar.With(Brown.Id, JarMeasure.Drops, 120)));
        Assert.Equal("12 8 5 in 12.5", Says(jar.With(Water.Id, JarMeasure.Grams, 2.5m)));
        Assert.Equal("3 2 2 in 25", Says(jar.With(Water.Id, JarMeasure.Parts, 40m / 3).With(Water.Id, JarMeasure.Percent, 28.57m)));
        Assert.Equal("3 2 5 in 25", Says(jar.With(Water.Id, JarMeasure.Percent, 50)));
        Assert.Throws<ArgumentOutOfRangeException>(() => jar.With(Water.Id, JarMeasure.Percent, 100));
        Assert.Throws<ArgumentOutOfRangeException>(() => jar.With(Water.Id, JarMeasure.Ml, 0));
        Assert.Throws<ArgumentException>(() => jar.With(Guid.NewGuid(), JarMeasure.Ml, 1));
    }

    [Fact]
    public void However_often_shares_are_typed_parts_stay_countable() =>
        Gen.Select(Gen.Int[0, 2], Gen.Int[1, 9999]).List[1, 12].Sample(typed =>
        {
            Material[] all = [Brown, White, Water];
            var jar = new Jar(Recipe.Of(all.Select(m => new MixPart(m, Parts.One))), 10);
            foreach (var (which, hundredths) in typed)
            {
                jar = jar.With(all[which].Id, JarMeasure.Percent, hundredths / 100m);
                var at = jar.Recipe.Parts.ToList().FindIndex(p => p.Material.Id == all[which].Id);
                Assert.Equal(hundredths / 10_000.0, jar.Recipe.Shares()[at], 0.0006 + 1.0 / 5000);
                Assert.All(jar.Recipe.Parts, p => Assert.True(p.Parts.Numerator <= 20_000));
            }
        });

    /// <summary>What kinds weigh, as a kitchen scale shows it: spirits float on water, chalk and oil sink.</summary>
    [Theory]
    [InlineData(MaterialKind.Thinner, Carrier.WaterAcrylic, 1.00)]
    [InlineData(MaterialKind.Thinner, Carrier.Enamel, 0.79)]
    [InlineData(MaterialKind.TexturePaste, Carrier.WaterAcrylic, 1.60)]
    [InlineData(MaterialKind.Filler, Carrier.None, 1.60)]
    [InlineData(MaterialKind.CracklePaste, Carrier.WaterAcrylic, 1.60)]
    [InlineData(MaterialKind.Aggregate, Carrier.None, 1.55)]
    [InlineData(MaterialKind.Pigment, Carrier.Dry, 0.80)]
    [InlineData(MaterialKind.Primer, Carrier.SolventAcrylic, 1.25)]
    [InlineData(MaterialKind.Varnish, Carrier.WaterAcrylic, 1.03)]
    [InlineData(MaterialKind.ChippingFluid, Carrier.WaterAcrylic, 1.03)]
    [InlineData(MaterialKind.Wash, Carrier.WaterAcrylic, 1.02)]
    [InlineData(MaterialKind.Ink, Carrier.WaterAcrylic, 1.02)]
    [InlineData(MaterialKind.Wash, Carrier.Enamel, 0.88)]
    [InlineData(MaterialKind.Filter, Carrier.Enamel, 0.88)]
    [InlineData(MaterialKind.Glue, Carrier.PVA, 1.08)]
    [InlineData(MaterialKind.Paint, Carrier.SolventAcrylic, 0.95)]
    [InlineData(MaterialKind.Paint, Carrier.Enamel, 1.10)]
    [InlineData(MaterialKind.Paint, Carrier.Oil, 1.50)]
    [InlineData(MaterialKind.Paint, Carrier.WaterAcrylic, 1.20)]
    public void What_was_never_weighed_weighs_what_its_kind_does(MaterialKind kind, Carrier carrier, double grams)
    {
        var material = Make("Any", kind, carrier, null);
        Assert.Equal((decimal)grams, UsualMeasures.DensityOf(material));
        Assert.Equal(1.31m, UsualMeasures.DensityOf(material with { DensityGPerMl = 1.31m }));
    }
}
