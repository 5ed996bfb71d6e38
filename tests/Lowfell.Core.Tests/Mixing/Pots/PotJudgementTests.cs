using CsCheck;
using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Core.Order;
using Lowfell.Core.Sight;
using static Lowfell.Core.Tests.Bench;

namespace Lowfell.Core.Tests.Mixing.Pots;

public class PotJudgementTests
{
    private static PotContents Pot(params (Material Material, decimal Ml)[] portions) => PotContents.Of(portions.Select(p => new Portion(p.Material, p.Ml)));

    private static PotFit Worst(PotContents pot, Technique technique = Technique.BaseCoat, Tool tool = Tool.Brush) => PotCheck.Of(pot, technique, tool)[0].Fit;

    [Fact]
    public void A_mix_is_judged_as_it_stands()
    {
        Assert.Equal(PotFit.Fits, Worst(Pot((Brown, 4), (Water, 1))));
        Assert.Equal(PotFit.Fits, Worst(Pot((Brown, 1), (Water, 1))));
        Assert.Equal(PotFit.TooThin, Worst(Pot((Brown, 1), (Water, 1.1m))));
        Assert.Equal(PotFit.WrongThinner, Worst(Pot((Brown, 4), (Spirit, 1))));
        Assert.Equal(PotFit.DoesNotMix, Worst(Pot((Brown, 4), (EnamelWash, 1))));
        Assert.Equal(PotFit.OnlyThinner, Worst(Pot((Water, 1))));
        Assert.Equal(PotFit.Empty, Worst(PotContents.Empty));
        Assert.Contains("milk", PotCheck.Consistency(Pot((Brown, 3), (Water, 2))));
        Assert.Equal("", PotCheck.Consistency(Pot((Brown, 3))));
    }

    [Fact]
    public void What_is_too_thin_fits_again_once_the_paint_it_asks_for_is_in() =>
        Gen.Select(Gen.Int[1, 50], Gen.Int[1, 300]).Sample((paint, water) =>
        {
            var pot = Pot((Brown, paint), (Water, water));
            if (Worst(pot) == PotFit.TooThin)
                pot = pot.With(Solve.ToRatio(pot, new Dilution(Water, Parts.One, Parts.One)));
            Assert.Equal(PotFit.Fits, Worst(pot));
        });

    [Fact]
    public void An_airbrush_wants_pressure_needle_and_thinning_that_go_together()
    {
        var note = AirbrushNote.For(Pot((Brown, 2), (Water, 2)), Technique.BaseCoat);
        Assert.Equal(new Band(1, 2), note.PressureBar);
        Assert.Equal(new Band(0.3, 0.5), note.NeedleMm);
        Assert.Empty(note.Warnings);
        Assert.True(note.PressureBar.Holds(note.StartBar));
        Assert.Single(AirbrushNote.For(Pot((Brown, 2)), Technique.BaseCoat).Warnings);
        Assert.Equal(2, AirbrushNote.For(Pot((Brown, 2), (Water, 1)), Technique.BaseCoat, needleMm: 0.2, bar: 2.6).Warnings.Count);

        // Matt varnish clogs a fine needle, whatever it is for.
        Assert.Equal(0.3, AirbrushNote.For(Pot((Matt, 2)), Technique.EdgeLine).NeedleMm.Low);
        Assert.Throws<ArgumentException>(() => AirbrushNote.For(Pot((Water, 1)), Technique.BaseCoat));
    }

    [Fact]
    public void Thinner_paint_starts_at_less_pressure_and_always_within_bounds() =>
        Gen.Select(Gen.Int[0, 100], Gen.Int[0, 100], Gen.Double[0.15, 0.6]).Sample((a, b, needle) =>
        {
            double Start(int water) => AirbrushNote.For(Pot((Brown, 100), (Water, water)), Technique.BaseCoat, needle).StartBar;
            Assert.True(a <= b ? Start(a) >= Start(b) : Start(a) <= Start(b));
            Assert.InRange(Start(a), 1.0, 2.0);
        });

    [Fact]
    public void A_pot_lives_minutes_on_a_palette_days_on_wet_paper_months_in_a_jar()
    {
        var pot = Pot((Brown, 4), (Water, 1));
        double Life(Vessel vessel) => PotLife.Of(pot, vessel, Climate.Standard).Usual;
        Assert.InRange(Life(Vessel.Palette), 10, 60);
        Assert.InRange(Life(Vessel.WetPalette), 24 * 60, 7 * 24 * 60);
        Assert.InRange(Life(Vessel.Jar), 60 * 24 * 60, 400 * 24 * 60);
        Assert.True(PotLife.Of(pot, Vessel.Palette, new Climate(28, 0.3)).Usual < Life(Vessel.Palette));
        Assert.Equal(Life(Vessel.Jar), PotLife.Of(pot, Vessel.Jar, new Climate(28, 0.3)).Usual);
    }

    [Fact]
    public void Moving_a_pot_never_gives_back_life_it_has_spent()
    {
        var made = new DateTimeOffset(2026, 11, 25, 18, 0, 0, TimeSpan.Zero);
        Assert.Equal(made.AddMinutes(10 + 500), PotLife.Moved(made, made.AddMinutes(20), made.AddMinutes(10), 1000));
        Assert.Equal(made.AddMinutes(30), PotLife.Moved(made, made.AddMinutes(20), made.AddMinutes(30), 1000));
    }

    [Fact]
    public void One_pot_while_it_fits_and_lasts()
    {
        var jar = new Span3(50_000, 100_000, 200_000);
        Assert.Equal(1, PotAdvice.For(41, Vessel.Jar, null, jar, 300, 2).Pots);
        var two = PotAdvice.For(70, Vessel.Jar, null, jar, 300, 2.4);
        Assert.Equal((2, 35m), (two.Pots, two.EachMl));

        // The step that is left after carrying over is not seen.
        Assert.True(2.4 * (1 - two.CarryShare) < PotAdvice.Visible);
        Assert.Equal(0, PotAdvice.For(70, Vessel.Jar, null, jar, 300, 0.8).CarryShare);
        Assert.True(PotAdvice.For(3, Vessel.Palette, null, new Span3(10, 20, 40), 95, 0.5).Pots >= 4);
    }

    private static StackView View(params Layer[] layers) => new(Context(), layers);

    [Fact]
    public void Measuring_anew_matters_less_under_later_layers_and_not_for_a_neat_paint()
    {
        var layer = Lay(Technique.BaseCoat, Brown, 2) with { Paint = [new MixPart(Brown, Parts.One), new MixPart(White, Parts.One)] };
        var bare = PotAdvice.Remeasured(View(Lay(Technique.Prime, Primer), layer), 1, Recipe.Of(layer)!);
        var covered = PotAdvice.Remeasured(View(Lay(Technique.Prime, Primer), layer, Lay(Technique.BaseCoat, Brown, 2)), 1, Recipe.Of(layer)!);
        Assert.True(bare > 0.3, $"{bare}");
        Assert.True(covered < bare / 3);
        Assert.Equal(0, PotAdvice.Remeasured(View(Lay(Technique.BaseCoat, Brown)), 0, Recipe.Of(Lay(Technique.BaseCoat, Brown))!));
    }

    [Fact]
    public void A_remix_prefers_the_same_recipe_while_there_is_stock()
    {
        var layer = Lay(Technique.BaseCoat, Brown, 2) with { Paint = [new MixPart(Brown, Parts.Of(3)), new MixPart(White, Parts.Of(2))], Dilution = new Dilution(Water, Parts.Of(4), Parts.One) };
        var view = View(Lay(Technique.Prime, Primer), layer, Lay(Technique.AllOverWash, Wash));
        var first = Recipe.Of(layer)!.Fill(20);
        var best = Remix.Find(view, 1, first, Shelf, new Dictionary<Guid, decimal> { [Brown.Id] = 50, [White.Id] = 50 }, 12, stop: TestContext.Current.CancellationToken)[0];
        Assert.True(best.IsSame);
        Assert.True(best.Largest < 0.01);
        Assert.Equal(12, best.Contents.Ml);
    }

    [Fact]
    public void Without_one_paint_the_nearest_is_told_with_its_true_difference()
    {
        var near = Make("Peat Eight", MaterialKind.Paint, Carrier.WaterAcrylic, "#4d3829", 1.4);
        var far = Make("Faded Signal", MaterialKind.Paint, Carrier.WaterAcrylic, "#c46f38", 3.2);
        var layer = Lay(Technique.BaseCoat, Brown, 2) with { Paint = [new MixPart(Brown, Parts.Of(3)), new MixPart(White, Parts.Of(2))], Dilution = new Dilution(Water, Parts.Of(4), Parts.One) };
        var view = View(Lay(Technique.Prime, Primer), layer, Lay(Technique.AllOverWash, Wash));
        var first = Recipe.Of(layer)!.Fill(20);
        var stock = new Dictionary<Guid, decimal> { [Brown.Id] = 0.5m, [White.Id] = 50, [near.Id] = 30, [far.Id] = 30 };
        var found = Remix.Find(view, 1, first, [.. Shelf, near, far], stock, 12, stop: TestContext.Current.CancellationToken);
        Assert.NotEmpty(found);
        Assert.Equal(found.OrderBy(o => o.Largest).Select(o => o.Largest), found.Select(o => o.Largest));
        Assert.Contains(near.Id, found[0].Recipe.Parts.Select(p => p.Material.Id));
        Assert.True(found[0].Largest < 2);
        Assert.All(found, o => Assert.All(o.Contents.Portions, p => Assert.True(p.Ml <= stock.GetValueOrDefault(p.Material.Id, 1000))));
        Assert.All(found, o => Assert.Equal(PotAdvice.End(view, 1, first).DifferenceTo(PotAdvice.End(view, 1, o.Contents)).Largest(), o.Largest, 1e-9));
    }

    [Fact]
    public void A_wash_is_replaced_by_washes_only()
    {
        var layer = Lay(Technique.AllOverWash, Wash);
        var other = Make("Ochre Silt Wash", MaterialKind.Wash, Carrier.WaterAcrylic, "#c0a36a");
        var found = Remix.Find(View(Lay(Technique.BaseCoat, Brown), layer), 1, Recipe.Of(layer)!.Fill(5), [.. Shelf, other], new Dictionary<Guid, decimal> { [Wash.Id] = 0 }, 5, stop: TestContext.Current.CancellationToken);
        Assert.NotEmpty(found);
        Assert.All(found, o => Assert.All(o.Recipe.Parts, p => Assert.Equal(MaterialKind.Wash, p.Material.Kind)));
    }

    [Fact]
    public void Pieces_of_two_pots_are_kept_apart_only_when_it_shows()
    {
        Assert.Contains("any order", Seam.Says(0.6, Verdict.Lost, ["W1"], ["W2"], []));
        var said = Seam.Says(3, Verdict.Seen, ["W1", "W2"], ["W3"], ["C1"]);
        Assert.All(new[] { "W1, W2", "W3", "C1" }, label => Assert.Contains(label, said));
        Assert.DoesNotContain("C1", Seam.Says(3, Verdict.Lost, ["W1"], ["W2"], ["C1"]));
    }

    [Fact]
    public void Paints_that_do_not_mix_are_told_of_once_and_not_as_thinners_of_each_other()
    {
        var remarks = PotCheck.Of(PotContents.Of([new Portion(Brown, 5), new Portion(EnamelWash, 3), new Portion(Spirit, 1)]), Core.Layers.Technique.BaseCoat, Core.Layers.Tool.Brush);
        Assert.Single(remarks, r => r.Fit == PotFit.DoesNotMix);
        Assert.All(remarks.Where(r => r.Fit == PotFit.WrongThinner), r => Assert.StartsWith("Chandlery Thinner", r.Says, StringComparison.Ordinal));
    }

    [Theory]
    [InlineData(150, 1)]
    [InlineData(160, 3)]
    [InlineData(310, 6)]
    public void What_does_not_fit_an_evening_stands_over_night(double workMinutes, int pots) =>
        Assert.Equal(pots, PotAdvice.For(3, Vessel.WetPalette, null, new Span3(300, 500, 900), workMinutes, 0.5).Pots);

    [Theory]
    [InlineData(2, 2, 1.1)]
    [InlineData(4, 3, 1.3)]
    [InlineData(3, 1, 1.7)]
    public void The_thinner_the_mix_the_lower_the_pressure_to_begin_with(int paint, int water, double bar)
    {
        var note = AirbrushNote.For(Pot((Brown, paint), (Water, water)), Technique.BaseCoat);
        Assert.Equal(bar, note.StartBar);
        Assert.InRange(note.StartBar, note.PressureBar.Low, note.PressureBar.High);
    }
}
