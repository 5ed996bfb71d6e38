using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Order;
using Lowfell.Core.Trials;

namespace Lowfell.Core.Tests.Trials;

/// <summary>A workshop whose paints are not as their labels say, and trials that find it out.</summary>
public sealed class TrialFitTests
{
    private static readonly Layer[] stack =
    [
        Bench.Lay(Technique.Prime, Bench.Primer), Bench.Lay(Technique.BaseCoat, Bench.Brown), Bench.Lay(Technique.AllOverWash, Bench.Wash), Bench.Lay(Technique.DryBrush, Bench.White),
    ];

    private static readonly TrialFactor[] factors =
    [
        new(stack[1].Id, [stack[1], stack[1] with { Coats = 2 }, stack[1] with { Coats = 3 }]),
        new(stack[2].Id, [stack[2] with { Strength = 0.5 }, stack[2], stack[2] with { Strength = 1.6 }]),
    ];

    private static readonly StackView view = new(Bench.Context(), stack);

    private static (Optics, Strength) Entered(Material m) => (m.Optics, Strength.AsEntered);

    private static double Gauss(Random random) => Math.Sqrt(-2 * Math.Log(1 - random.NextDouble())) * Math.Cos(2 * Math.PI * random.NextDouble());

    /// <summary>How strong each paint really is.</summary>
    private static Dictionary<Guid, Material> Truth(Random random, IReadOnlyList<Layer> of) => TrialMaterials.Of(of, []).ToDictionary(
        m => m.Id, m => m with { Optics = new Strength(Math.Exp(Gauss(random) * 0.3), Math.Exp(Gauss(random) * 0.3)).Of(m.Optics) });

    private static SeenSplit End(IReadOnlyList<Layer> layers, IReadOnlyDictionary<Guid, Material> real)
    {
        var run = view.Predict(layers.Select(l => TrialMaterials.With(l, real)).ToList());
        return run.SeenBelow(run.Count);
    }

    /// <summary>Every field is looked at, at each of its positions, by an eye that is a little off.</summary>
    private static List<TrialLook> Look(IReadOnlyList<TrialFactor> of, IReadOnlyDictionary<Guid, Material> real, Random random, double eye) =>
        (from levels in of.Aggregate(Enumerable.Repeat(Array.Empty<int>(), 1), (all, f) => all.SelectMany(b => Enumerable.Range(0, f.Levels.Count).Select(l => b.Append(l).ToArray())))
         let end = End(TrialStacks.Of(stack, of, levels), real)
         from position in Enum.GetValues<Position>()
         select new TrialLook(levels, position, end[position].Lab + new Lab(Gauss(random) * eye, Gauss(random) * eye, Gauss(random) * eye))).ToList();

    private static Dictionary<Guid, Material> Learned(IReadOnlyList<TrialFactor> of, IReadOnlyList<TrialLook> looks) =>
        TrialMaterials.Learn(view.Predict, stack, of, looks, Entered).Taught.ToDictionary(t => t.Material.Id, t => t.Material with { Optics = t.After.Of(t.Material.Optics) });

    private static double Missed(IReadOnlyDictionary<Guid, Material> thought, IReadOnlyDictionary<Guid, Material> real)
    {
        var apart = End(stack, thought).DifferenceTo(End(stack, real));
        return (apart.Raised + apart.Field + apart.Recess) / 3;
    }

    [Fact]
    public void One_spoiled_field_hardly_moves_what_all_the_others_teach()
    {
        var (with, without) = (0.0, 0.0);
        for (var seed = 0; seed < 20; seed++)
        {
            var random = new Random(seed);
            var real = Truth(random, stack);
            var looks = Look(factors, real, random, 0.8);
            without += Missed(Learned(factors, looks.Where(l => !(l.Levels[0] == 1 && l.Levels[1] == 2)).ToList()), real);
            with += Missed(Learned(factors, looks.Select(l => l.Levels[0] == 1 && l.Levels[1] == 2 ? l with { Seen = l.Seen + new Lab(-18, 9, 12) } : l).ToList()), real);
        }

        Assert.InRange(with / without, 0, 1.2);
    }

    [Fact]
    public void A_spoiled_field_is_not_believed_and_the_others_are()
    {
        var random = new Random(5);
        var looks = Look(factors, Truth(random, stack), random, 0.8);
        looks[7] = looks[7] with { Seen = looks[7].Seen + new Lab(-20, 8, 10) };
        var believed = TrialMaterials.Learn(view.Predict, stack, factors, looks, Entered).Believed;
        Assert.True(believed[7] < 0.1);
        Assert.True(believed.Where((_, i) => i != 7).Average() > 0.6);
    }

    [Fact]
    public void What_is_proposed_halves_the_error_of_the_prediction_and_beats_what_is_chosen_by_chance()
    {
        var proposed = Proposal.Rank(view.Predict, stack, new Wish(), _ => 0, CancellationToken.None);
        Assert.NotEmpty(proposed);
        Assert.All(proposed, p => Assert.True(p.ErrorThen < p.ErrorNow));
        Assert.Equal(proposed.Min(p => p.ErrorThen), proposed[0].ErrorThen);
        var halved = 0;
        for (var seed = 0; seed < 100; seed++)
        {
            var random = new Random(seed);
            var real = Truth(random, stack);
            var before = Missed(new Dictionary<Guid, Material>(), real);
            var after = Missed(Learned(proposed[0].Factors, Look(proposed[0].Factors, real, random, 0.8)), real);
            if (after <= before / 2)
                halved++;
        }

        Assert.True(halved >= 80, $"halved in {halved} of 100");
    }

    [Fact]
    public void What_is_proposed_beats_a_trial_that_chance_puts_together()
    {
        var proposed = Proposal.Rank(view.Predict, stack, new Wish(), _ => 0, CancellationToken.None)[0].Factors;
        var all = Proposal.Factors(stack).ToList();
        var won = 0;
        for (var seed = 0; seed < 100; seed++)
        {
            var random = new Random(seed);
            var real = Truth(random, stack);

            // One layer or two of the treatment, whichever they are.
            var chance = new List<TrialFactor> { all[random.Next(all.Count)] };
            if (random.Next(2) == 0 && all[random.Next(all.Count)] is var other && other.Layer != chance[0].Layer)
                chance.Add(other);
            double After(IReadOnlyList<TrialFactor> of) => Missed(Learned(of, Look(of, real, random, 0.8)), real);
            if (After(proposed) < After(chance))
                won++;
        }

        Assert.True(won >= 90, $"nearer the truth in {won} of 100");
    }

    [Fact]
    public void Levels_that_nobody_could_tell_apart_are_found_before_they_are_painted()
    {
        var thick = new TrialFactor(stack[2].Id, [stack[2], stack[2] with { Strength = 1.02 }, stack[2] with { Strength = 2 }]);
        var cells = Enumerable.Range(0, 3).Select(l => ((IReadOnlyList<int>)[l], End(TrialStacks.Of(stack, [thick], [l]), new Dictionary<Guid, Material>()))).ToList();
        var alike = Assert.Single(Merging.Of([3], cells));
        Assert.Equal((0, 0, 1), (alike.Factor, alike.First, alike.Second));
        Assert.True(alike.Difference < Merging.Visible);
    }

    [Fact]
    public void The_treatment_as_it_is_is_one_of_the_fields()
    {
        Assert.Equal([0, 1], TrialStacks.Held(stack, factors));
        Assert.Equal(stack, TrialStacks.Of(stack, factors, [0, 1]));
        Assert.Equal(3, TrialStacks.Of(stack, [new(stack[2].Id, [null, stack[2]])], [0]).Count);
    }

    [Fact]
    public void A_film_is_tried_a_coat_thinner_and_thicker_a_veil_lighter_and_heavier_and_what_is_optional_left_out()
    {
        var film = Bench.Lay(Technique.BaseCoat, Bench.Brown, 2);
        var first = Bench.Lay(Technique.BaseCoat, Bench.White);
        var veil = Bench.Lay(Technique.DryBrush, Bench.White) with { Optional = true };
        var factors = Proposal.Factors([film, first, veil, Bench.Lay(Technique.CleanUpExcess, Bench.Spirit)]).ToList();
        Assert.Equal([film.Id, first.Id, veil.Id, veil.Id], factors.Select(f => f.Layer));
        Assert.Equal([1, 2, 3], factors[0].Levels.Select(l => l!.Coats));
        Assert.Equal([1, 2, 3], factors[1].Levels.Select(l => l!.Coats));
        Assert.Equal([null, veil], factors[3].Levels);
    }
}
