using CsCheck;
using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Start;
using Lowfell.Core.Tests.Layers;
using Lowfell.Core.Tests.Scalar;
using static Lowfell.Core.Tests.Bench;

namespace Lowfell.Core.Tests.Start;

public class StartHereTests
{
    private static readonly (int, int)[] nine = [(1, 1), (1, 2), (2, 1), (1, 3), (3, 1), (1, 4), (4, 1), (2, 3), (3, 2)];

    [Fact]
    public void A_large_shelf_gives_what_trying_everything_gives()
    {
        var stack = SixAbove();
        var run = StackPrediction.Compute(Zone(), stack);
        var wanted = SrgbColour.Parse("#7a6248").ToLab();
        var shelf = Paints(140, 7);
        var fast = Find(run, 1, Position.Field, wanted, shelf, 20, nine);
        Same(ScalarModel.Starts(run, 1, Position.Field, wanted, shelf, nine, 21), fast);
    }

    [Fact]
    public void Any_stack_and_position_gives_what_trying_everything_gives() =>
        Gen.Select(RandomStacks.Of(8), Gen.Enum<Position>(), Gen.Int[0, 999], Gen.Bool).Sample((s, position, seed, thin) =>
        {
            Layer[] stack = [Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, Brown, thin: thin ? new Dilution(Water, Parts.Of(2), Parts.One) : null), .. s.Stack];
            var run = StackPrediction.Compute(s.Zone, stack, s.CarryOver);

            // Where a rub comes down to the base, how much of it is left depends on how much was laid; and a core that shows through a chip
            // is shown as it was before a later wipe or rub.
            if (Enumerable.Range(2, stack.Length - 2).Any(i => stack[i].Technique == Technique.RubBack && TakingAway.LowestRubbed(stack, i, s.Zone, ScalarModel.Largest(s.Zone, stack, position, Region.All)) < 2)
                || (stack.Any(l => l.Technique == Technique.ChipThrough) && stack.Any(l => l.Technique is Technique.RubBack or Technique.CleanUpExcess)))
                return;
            var wanted = Paints(1, seed + 5)[0].Optics.Masstone().ToLab();
            var shelf = Paints(9, seed);
            Same(ScalarModel.Starts(run, 1, position, wanted, shelf, StartHere.AllRatios, 13), Find(run, 1, position, wanted, shelf, 12));
        }, iter: 60);

    [Fact]
    public void Applying_a_start_ends_where_it_says()
    {
        var stack = SixAbove();
        var run = StackPrediction.Compute(Zone(), stack);
        foreach (var start in Find(run, 1, Position.Recess, SrgbColour.Parse("#554433").ToLab(), Paints(12, 3), 8))
        {
            stack[1] = stack[1] with { Paint = start.Paint, Dilution = start.Dilution, Coats = start.Coats };
            var end = StackPrediction.Compute(Zone(), stack, from: run).SeenBelow(stack.Count).Recess.Lab;
            Assert.InRange(ColourDifference.Ciede2000(end, start.End), 0, 1e-6);
        }
    }

    [Fact]
    public void The_very_paint_that_was_there_is_found_again()
    {
        var stack = SixAbove();
        var run = StackPrediction.Compute(Zone(), stack);
        var shelf = Paints(40, 1);
        var secret = stack.ToList();
        secret[1] = secret[1] with { Paint = [new MixPart(shelf[4], Parts.Of(3)), new MixPart(shelf[11], Parts.Of(2))], Dilution = null };
        var coats = Hiding.CoatsOver(Laying.PerUm(secret[1]), 90, new Reflectance(run.Below(1, Position.Field))) ?? StartHere.MostCoats;
        secret[1] = secret[1] with { Coats = Math.Min(coats, StartHere.MostCoats) };
        stack[1] = stack[1] with { Dilution = null };
        var wanted = StackPrediction.Compute(Zone(), secret).SeenBelow(secret.Count).Field.Lab;
        var best = Find(StackPrediction.Compute(Zone(), stack), 1, Position.Field, wanted, shelf, 1)[0];
        Assert.Equal(ScalarModel.Name(secret[1].Paint), ScalarModel.Name(best.Paint));
        Assert.InRange(best.Difference, 0, 1e-6);
    }

    [Fact]
    public void Only_paints_that_suit_and_mix_are_offered()
    {
        var run = StackPrediction.Compute(Zone(), SixAbove());
        var starts = Find(run, 1, Position.Field, SrgbColour.Parse("#8e9092").ToLab(), Shelf, 200);
        Assert.All(starts, s => Assert.Single(s.Paint.Select(p => p.Material.Carrier).Distinct()));
        Assert.All(starts, s => Assert.All(s.Paint, p => Assert.True(p.Material.IsOpaque)));
        Assert.Contains(starts, s => s.Paint is [{ Material.Name: "Bright Chain Lacquer" }] && s.Dilution is null);
    }

    [Fact]
    public void Partial_covers_cannot_be_started_from() =>
        Assert.Throws<ArgumentException>(() => Find(StackPrediction.Compute(Zone(), SixAbove()), 2, Position.Field, default, Shelf));

    /// <summary>Chips down to the primer show the primer, whatever the base will be.</summary>
    [Fact]
    public void What_chips_bare_below_the_base_is_there_whichever_paint_is_chosen()
    {
        var fluid = Make("Flake Fluid", MaterialKind.ChippingFluid, Carrier.WaterAcrylic, null);
        Layer[] stack = [Lay(Technique.Prime, ChalkPrimer), Lay(Technique.ChippingFluid, fluid), Lay(Technique.BaseCoat, Brown, 2), Lay(Technique.ChipThrough, Water, strength: 2), Lay(Technique.AllOverWash, Wash)];
        var run = StackPrediction.Compute(Zone(), stack);
        var wanted = SrgbColour.Parse("#7a6248").ToLab();
        var shelf = Paints(20, 3);
        var found = Find(run, 2, Position.Raised, wanted, shelf, 8, nine);
        Same(ScalarModel.Starts(run, 2, Position.Raised, wanted, shelf, nine, 9), found);
        stack[2] = stack[2] with { Paint = found[0].Paint, Dilution = found[0].Dilution, Coats = found[0].Coats };
        Assert.InRange(ColourDifference.Ciede2000(StackPrediction.Compute(Zone(), stack).SeenBelow(stack.Length).Raised.Lab, found[0].End), 0, 1e-6);
    }

    /// <summary>Prime, base coat, and six layers of all kinds on it.</summary>
    internal static List<Layer> SixAbove() =>
    [
        Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, Brown, 2, thin: new Dilution(Water, Parts.Of(4), Parts.One)),
        Lay(Technique.Overbrush, White, strength: 0.5), Lay(Technique.Varnish, Satin), Lay(Technique.Filter, EnamelFilter),
        Lay(Technique.AllOverWash, Wash, thin: new Dilution(Water, Parts.One, Parts.Of(2))), Lay(Technique.DryBrush, White, strength: 0.5), Lay(Technique.Varnish, Matt),
    ];

    /// <summary>Made-up paints, the same for a seed.</summary>
    internal static List<Material> Paints(int count, int seed)
    {
        var random = new Random(seed);
        return Enumerable.Range(0, count).Select(i => Brown with
        {
            Id = Guid.NewGuid(),
            Name = $"Paint {i}",
            Optics = Optics.FromMasstone(new SrgbColour((byte)random.Next(20, 240), (byte)random.Next(20, 240), (byte)random.Next(20, 240)), 0.5 + random.NextDouble() * 4),
        }).ToList();
    }

    private static IReadOnlyList<Beginning> Find(
        StackRun run, int index, Position position, Lab wanted, IReadOnlyList<Material> shelf, int count = 20, IReadOnlyList<(int First, int Second)>? ratios = null) =>
        StartHere.Find(run, index, position, wanted, shelf, count, ratios, TestContext.Current.CancellationToken);

    /// <summary>Same colours, and the same paints wherever no other candidate ends in just the same place; the slow list has one more to tell.</summary>
    private static void Same(List<(double Difference, string Paint, int Coats)> slow, IReadOnlyList<Beginning> fast)
    {
        bool Tied(int i) => slow.Where((_, k) => k != i).Any(o => Math.Abs(o.Difference - slow[i].Difference) < 1e-7);
        for (var i = 0; i < fast.Count; i++)
        {
            Assert.Equal(slow[i].Difference, fast[i].Difference, 1e-8);
            if (Tied(i))
                continue;
            Assert.Equal(slow[i].Paint, ScalarModel.Name(fast[i].Paint));
            Assert.Equal(slow[i].Coats, fast[i].Coats);
        }
    }

    /// <summary>Chips down to a wash above the base show the base under that wash, whichever it is.</summary>
    [Fact]
    public void What_chips_down_to_a_layer_above_the_base_shows_it_as_it_was_there()
    {
        var fluid = Make("Flake Fluid", MaterialKind.ChippingFluid, Carrier.WaterAcrylic, null);
        Layer[] stack = [Lay(Technique.Prime, ChalkPrimer), Lay(Technique.BaseCoat, Brown, 2), Lay(Technique.AllOverWash, Wash), Lay(Technique.ChippingFluid, fluid), Lay(Technique.BaseCoat, White, 2), Lay(Technique.ChipThrough, Water, strength: 2), Lay(Technique.Varnish, Matt)];
        var run = StackPrediction.Compute(Zone(), stack);
        var wanted = SrgbColour.Parse("#7a6248").ToLab();
        var shelf = Paints(12, 3);
        Same(ScalarModel.Starts(run, 1, Position.Raised, wanted, shelf, nine, 9), Find(run, 1, Position.Raised, wanted, shelf, 8, nine));
    }
}
