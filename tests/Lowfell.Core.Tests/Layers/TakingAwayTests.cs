using CsCheck;
using Lowfell.Core.Colour;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using static Lowfell.Core.Tests.Bench;
using static Lowfell.Core.Tests.Order.RuleExamples;

namespace Lowfell.Core.Tests.Layers;

/// <summary>Chipping through and rubbing back: they remove instead of add.</summary>
public sealed class TakingAwayTests
{
    private static readonly Layer prime = Lay(Technique.Prime, Primer), rust = Lay(Technique.BaseCoat, Red, 3), fluid = Lay(Technique.ChippingFluid, Fluid);
    private static readonly Layer pale = Lay(Technique.BaseCoat, White, 5), dark = Lay(Technique.BaseCoat, Dark, 2);

    [Fact]
    public void Through_a_chip_the_core_below_shows_and_the_recess_keeps_its_colour()
    {
        var run = StackPrediction.Compute(Zone(), [prime, rust, fluid, pale, Lay(Technique.ChipThrough)]);
        var covered = run.LaidBy(4).Covered;
        Assert.Equal(run[3].Recess, run[4].Recess);

        // Each share of the face shows what lay there.
        var bare = StackPrediction.Compute(Zone(), [prime, rust, fluid, pale, Lay(Technique.ChipThrough, strength: 3)]);
        Assert.InRange(ColourDifference.Ciede2000(bare[4].Raised.Lab, run[2].Raised.Lab), 0, 0.01);
        Assert.InRange(run[4].Raised.Lab.L, run[2].Raised.Lab.L, run[3].Raised.Lab.L);
        Assert.True(covered.Raised > covered.Field && covered.Field > 0 && covered.Recess == 0);
    }

    [Fact]
    public void It_breaks_down_to_the_layer_it_names_and_never_the_fluid()
    {
        Layer[] stack = [prime, rust, fluid, dark, pale, Lay(Technique.ChipThrough)];
        Assert.Equal(3, TakingAway.LowestBroken(stack, 5));
        stack[5] = stack[5] with { DownTo = pale.Id };
        Assert.Equal(4, TakingAway.LowestBroken(stack, 5));
        stack[5] = stack[5] with { DownTo = rust.Id };
        Assert.Equal(3, TakingAway.LowestBroken(stack, 5));
        Assert.Equal(1, TakingAway.LowestBroken([prime, rust, Lay(Technique.ChipThrough) with { DownTo = rust.Id }], 2));
        Assert.Equal(2, TakingAway.LowestBroken([prime, rust, Lay(Technique.ChipThrough)], 2));
    }

    [Fact]
    public void Rubbing_back_takes_the_raised_down_by_its_film_and_no_further_than_it_may()
    {
        Layer top = Lay(Technique.BaseCoat, White, 1) with { Tool = Tool.Airbrush }, rub = Lay(Technique.RubBack);
        var run = StackPrediction.Compute(Zone(), [prime, rust, top, rub]);
        var dry = run[2].DryFilmUm.Raised;
        Assert.InRange(dry, 5, 20);
        Assert.Equal(0, run.LeftBy(2).FilmUm.Raised);
        Assert.True(run.LeftBy(1).FilmUm.Raised < run.LaidBy(1).FilmUm.Raised);
        Assert.Equal(run.LaidBy(2).FilmUm.Recess, run.LeftBy(2).FilmUm.Recess);
        Assert.InRange(ColourDifference.Ciede2000(run[3].Raised.Lab, run[1].Raised.Lab), 0, 1);
        var kept = StackPrediction.Compute(Zone(), [prime, rust, top, rub with { DownTo = top.Id }]);
        Assert.Equal(kept.LaidBy(1).FilmUm.Raised, kept.LeftBy(1).FilmUm.Raised);
    }

    /// <summary>What a rub takes, in dry um, is what the layers lose.</summary>
    [Fact]
    public void A_rub_takes_as_much_as_it_says() => Gen.Select(Gen.Double[0.1, 2], Gen.Enum<Relief>(), Gen.Int[1, 3]).Sample((strength, relief, coats) =>
    {
        var zone = Zone(relief);
        var rub = Lay(Technique.RubBack, coats: coats, strength: strength);
        Layer[] stack = [prime, Lay(Technique.BaseCoat, Red, 12), Lay(Technique.BaseCoat, White, 2), rub];
        var run = StackPrediction.Compute(zone, stack);
        var figures = TechniqueTable.For(Technique.RubBack);
        foreach (var p in Enum.GetValues<Position>())
        {
            var lost = Enumerable.Range(0, 3).Sum(i => (run.LaidBy(i).MeanUm[p] - run.LeftBy(i).MeanUm[p]) * TakingAway.DryShare(stack[i]));
            Assert.Equal(figures.SplitFor(relief)[p] * figures.FilmUm.Usual * strength * coats, lost, 1e-6);
        }
    });

    [Fact]
    public void The_fluid_is_counted_as_the_film_it_is()
    {
        var um = Zone().Shares.Dot(Laying.Of(fluid, Zone()).MeanUm);
        Assert.Equal(TechniqueTable.For(Technique.ChippingFluid).FilmUm.Usual, um, 1e-9);
        Assert.Equal(um * Zone().AreaCm2 * 1e-4, Laying.SurfaceMl(fluid, Zone()), 1e-9);
        Assert.True(Quantities.PotMl(fluid, Zone(), 1) > Laying.SurfaceMl(fluid, Zone()));
    }

    [Fact]
    public void A_run_off_has_the_colour_of_what_it_is_drawn_from()
    {
        Layer[] stack = [prime, pale, Lay(Technique.Pigment, Dust), Lay(Technique.RunOff, Water)];
        var run = StackPrediction.Compute(Zone(), stack);
        Assert.Equal(2, RunOff.SourceOf(stack, 3));
        Assert.True(run[3].Field.Lab.L < run[1].Field.Lab.L);
        Assert.Equal(-1, RunOff.SourceOf([prime, Lay(Technique.Pigment, Dust), pale, Lay(Technique.RunOff, Water)], 3));
    }

    [Fact]
    public void What_fades_lays_half_of_it_and_is_counted_so()
    {
        foreach (var technique in Enum.GetValues<Technique>().Where(t => TechniqueTable.For(t).Leaves))
        {
            Layer full = Lay(technique, Brown), faded = full with { Fades = true };
            Assert.Equal(Laying.SurfaceMl(full, Zone()) / 2, Laying.SurfaceMl(faded, Zone()), 1e-12);
        }
    }

    [Fact]
    public void Stiff_paste_stands_thicker_and_paint_does_not()
    {
        double Um(Technique technique, Core.Materials.Material material, Preparation preparation) => Laying.Of(Lay(technique, material) with { Preparation = preparation }, Zone()).FilmUm.Field;
        Assert.Equal(1.5 * Um(Technique.TexturePaste, Paste, Preparation.None), Um(Technique.TexturePaste, Paste, Preparation.LeftOpen), 1e-9);
        Assert.Equal(Um(Technique.BaseCoat, Brown, Preparation.None), Um(Technique.BaseCoat, Brown, Preparation.LeftOpen), 1e-9);
    }

    [Fact]
    public void Details_are_counted_one_by_one()
    {
        var letters = Lay(Technique.Marking, White) with { Details = 12 };
        Assert.Equal(12 * 0.6 + 0.7, HandsOn.PerPiece(letters, Zone()), 1e-9);
        Assert.True(HandsOn.Details(letters with { Details = null }, Zone()) >= 1);
        Assert.Equal(0, HandsOn.Details(pale, Zone()));
    }
}
