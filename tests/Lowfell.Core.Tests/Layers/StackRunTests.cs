using CsCheck;
using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Mixing;
using Lowfell.Core.Tests.Scalar;
using static Lowfell.Core.Tests.Bench;

namespace Lowfell.Core.Tests.Layers;

public class StackRunTests
{
    [Fact]
    public void Any_stack_agrees_with_the_plain_formulas() => RandomStacks.Of(14).Sample(s =>
    {
        var expected = ScalarModel.Forward(s.Zone, s.Stack, s.CarryOver);
        var seen = StackPrediction.Compute(s.Zone, s.Stack, s.CarryOver).SeenBelow(s.Stack.Length);
        foreach (var p in Enum.GetValues<Position>())
            Assert.InRange(ColourDifference.Ciede2000(new Reflectance(expected[(int)p]).ToLab(), seen[p].Lab), 0, 1e-6);
    }, iter: 300);

    [Fact]
    public void Predicting_from_an_earlier_run_gives_the_same() => Gen.Select(RandomStacks.Of(10), Gen.Int[0, 9], Gen.Int[0, 5], Gen.Double[0, 2], Gen.Int[0, 3].Array[10]).Sample((s, at, edit, strength, waits) =>
    {
        var stack = s.Stack.Select((l, i) => l with { WaitMinutes = waits[i] == 0 ? null : waits[i] * waits[i] * 30 }).ToList();
        var before = StackPrediction.Compute(s.Zone, stack, s.CarryOver);
        _ = before.SeenBelow(stack.Count);
        var edited = Edited(stack, at, edit, strength);
        var fresh = StackPrediction.Compute(s.Zone, edited, s.CarryOver);
        var resumed = StackPrediction.Compute(s.Zone, edited, s.CarryOver, before);
        Assert.Equal(fresh.Count, resumed.Count);
        for (var i = 0; i < fresh.Count; i++)
        {
            Assert.Equal(fresh[i], resumed[i]);
            Assert.Equal(fresh.LeftBy(i), resumed.LeftBy(i));
        }
    }, iter: 400);

    private static List<Layer> Edited(IEnumerable<Layer> stack, int at, int edit, double strength)
    {
        var edited = stack.ToList();
        if (at >= edited.Count)
            edited.Add(Lay(Technique.Varnish, Gloss));
        else if (edit == 0)
            edited.RemoveAt(at);
        else if (edit == 1)
            edited.Insert(at, Lay(Technique.DryBrush, White));
        else if (edit == 2)
            (edited[0], edited[at]) = (edited[at], edited[0]);
        else
            edited[at] = edit == 3 ? edited[at] with { Strength = strength } : edited[at] with { WaitMinutes = edited[at].WaitMinutes is null ? strength * 200 : null };
        return edited;
    }

    [Fact]
    public void Carrying_colour_over_softens_the_next_step_only_when_the_house_says_so()
    {
        Layer[] stack = [Lay(Technique.Prime, Primer), Lay(Technique.DryBrush, Brown), Lay(Technique.DryBrush, White)];
        var carried = StackPrediction.Compute(Zone(), stack, carryOver: true)[2];
        var clean = StackPrediction.Compute(Zone(), stack, carryOver: false)[2];
        Assert.True(carried.Raised.Lab.L < clean.Raised.Lab.L - 0.5);
        Layer[] apart = [stack[0], stack[1], Lay(Technique.Varnish, Matt), stack[2]];
        Assert.Equal(StackPrediction.Compute(Zone(), apart, true)[3].Seen, StackPrediction.Compute(Zone(), apart, false)[3].Seen);
    }

    [Fact]
    public void Fixing_pigment_takes_its_chalk_away()
    {
        Layer[] loose = [Lay(Technique.Prime, Primer), Lay(Technique.Pigment, Dust)];
        Layer[] @fixed = [.. loose, Lay(Technique.Pigment, Spirit)];
        var run = StackPrediction.Compute(Zone(), @fixed);
        Assert.True(run[2].Recess.Lab.L < run[1].Recess.Lab.L - 0.5);
    }

    [Fact]
    public void Wet_washes_look_darker_than_dry_ones()
    {
        var wash = StackPrediction.Compute(Zone(), [Lay(Technique.Prime, ChalkPrimer), Lay(Technique.AllOverWash, Wash)])[1];
        foreach (var p in Enum.GetValues<Position>())
            Assert.True(wash.Wet[p].Lab.L < wash.Seen[p].Lab.L);
    }

    [Fact]
    public void A_spray_does_not_reach_the_bottom_of_deep_joints()
    {
        var coat = Lay(Technique.BaseCoat, White);
        var brushed = Laying.Of(coat, Zone()).FilmUm;
        var sprayed = Laying.Of(coat with { Tool = Tool.Airbrush }, Zone()).FilmUm;
        Assert.True(brushed.Recess > brushed.Field);
        Assert.True(sprayed.Recess < sprayed.Field);
    }

    [Fact]
    public void Every_technique_says_why_its_film_lies_as_it_does() =>
        Assert.All(Enum.GetValues<Technique>(), t => Assert.NotEmpty(TechniqueTable.For(t).Why));

    [Fact]
    public void Preshade_left_falls_with_every_coat_and_ends_at_the_stack_s_own_share()
    {
        Layer[] stack = [Lay(Technique.Prime, Primer), Lay(Technique.DirectionalLight, White, 2), Lay(Technique.BaseCoat, Brown, 3, thin: new Dilution(Water, Parts.One, Parts.Of(2))), Lay(Technique.AllOverWash, Wash)];
        var run = StackPrediction.Compute(Zone() with { Orientation = new(1, 0, 0) }, stack);
        var coats = PreShade.AfterEachCoat(run, 1, 2);
        Assert.Equal(3, coats.Count);
        Assert.True(coats[0] > coats[1] && coats[1] > coats[2] && coats[0] < 1);
        var after = PreShade.AfterEach(run, 1);
        Assert.Equal(coats[2], after[0], 1e-9);
        Assert.Equal(PreShade.ShareLeft(run, 1, 4), after[1], 1e-9);
    }

    /// <summary>Thinner is thinner, whether it was written as a dilution or into the mix.</summary>
    [Fact]
    public void A_thinner_among_the_components_thins()
    {
        var thinned = Lay(Technique.BaseCoat, White, thin: new Dilution(Water, Parts.Of(2), Parts.One));
        var mixed = Lay(Technique.BaseCoat) with { Paint = [new MixPart(White, Parts.Of(2)), new MixPart(Water, Parts.One)] };
        Layer[] below = [Lay(Technique.Prime, Primer)];
        Assert.InRange(StackPrediction.Compute(Zone(), [.. below, thinned]).SeenBelow(2).DifferenceTo(StackPrediction.Compute(Zone(), [.. below, mixed]).SeenBelow(2)).Largest(), 0, 1e-9);
        Assert.Equal(thinned.Dilution, mixed.WithThinnerApart().Dilution);
        var twice = mixed with { Dilution = new Dilution(Water, Parts.One, Parts.One) };
        Assert.Equal(twice.PaintShare, twice.WithThinnerApart().PaintShare, 1e-12);
        Assert.Equal(1.0 / 3, twice.PaintShare, 1e-12);
    }

    [Theory]
    [InlineData(1, "")]
    [InlineData(3, "")]
    [InlineData(4, " and 1 more")]
    [InlineData(5, " and 2 more")]
    public void A_difference_in_a_line_tells_three_and_counts_the_rest(int changed, string rest)
    {
        var before = new[] { Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, Brown), Lay(Technique.AllOverWash, Wash), Lay(Technique.DryBrush, White), Lay(Technique.Varnish, Matt) };
        var after = before.Select((l, i) => i < changed ? l with { Coats = 3 } : l).ToList();
        Assert.Equal(string.Join(", ", StackDifference.Phrases(before, after).Take(3)) + rest, StackDifference.Line(before, after));
    }

    [Fact]
    public void What_is_new_what_is_gone_and_another_order_are_told()
    {
        Layer prime = Lay(Technique.Prime, Primer), brown = Lay(Technique.BaseCoat, Brown), wash = Lay(Technique.AllOverWash, Wash), dry = Lay(Technique.DryBrush, White);
        Assert.Equal(["dry brush added", "all-over wash removed"], StackDifference.Phrases([prime, brown, wash], [prime, brown, dry]));
        Assert.Equal(["another order"], StackDifference.Phrases([prime, brown, wash], [prime, wash, brown]));
        Assert.Equal("notes", StackDifference.Line([prime], [prime]));
    }

    [Fact]
    public void Under_a_mask_lies_what_was_there_before_it_and_what_came_after_it_was_off()
    {
        Layer prime = Lay(Technique.Prime, Primer), brown = Lay(Technique.BaseCoat, Brown), white = Lay(Technique.BaseCoat, White), mask = Lay(Technique.Mask), off = Lay(Technique.Unmask), matt = Lay(Technique.Varnish, Matt);
        Assert.Equal([prime, brown, mask, off, matt], Masking.Under([prime, brown, mask, white, off, matt]));
        Assert.Null(Masking.Under([prime, brown, mask, white]));
        Assert.Null(Masking.Under([prime, brown, off]));
    }
}
