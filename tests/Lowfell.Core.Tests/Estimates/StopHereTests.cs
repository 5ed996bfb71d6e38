using CsCheck;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Mixing;

namespace Lowfell.Core.Tests.Estimates;

/// <summary>Getting off after any layer.</summary>
public sealed class StopHereTests
{
    private static readonly Layer[] stack =
    [
        new() { Technique = Technique.Prime, Paint = [new MixPart(Bench.Primer, Parts.One)], Tool = Tool.SprayCan },
        new() { Technique = Technique.BaseCoat, Paint = [new MixPart(Bench.Brown, Parts.One)], Coats = 2 },
        new() { Technique = Technique.DryBrush, Paint = [new MixPart(Bench.White, Parts.One)], Region = Region.Raised },
        new() { Technique = Technique.Varnish, Paint = [new MixPart(Bench.Matt, Parts.One)] },
        new() { Technique = Technique.Assemble },
    ];

    private static IReadOnlyList<Stop> Of(int pieces, double metres = 0.9) => StopHere.Of(StackPrediction.Compute(Bench.Zone(), stack), _ => pieces, metres);

    [Fact]
    public void What_is_spent_and_what_is_to_go_are_all_of_it_after_every_layer()
    {
        Gen.Int[1, 40].Sample(pieces =>
        {
            var stops = Of(pieces);
            var all = stack.Sum(l => HandsOn.Batch(l, Bench.Zone(), pieces));
            Assert.All(stops, s => Assert.Equal(all, s.Spent + s.ToGo, 6));
            Assert.Equal(0, stops[^1].ToGo, 6);
            Assert.Equal(0, stops[^1].Left, 6);
        }, iter: 30);
    }

    [Fact]
    public void What_is_there_to_be_seen_is_told_from_what_holds_and_what_makes()
    {
        Assert.Equal([Purpose.Hold, Purpose.Look, Purpose.Look, Purpose.Hold, Purpose.Make], Of(4).Select(s => s.Purpose));
    }

    [Fact]
    public void A_base_coat_changes_more_than_a_varnish_and_the_last_layer_leaves_nothing_to_miss()
    {
        foreach (var metres in new[] { 0.3, 0.9, 3 })
        {
            var stops = Of(4, metres);
            Assert.True(stops[1].Adds > stops[3].Adds);
            Assert.All(stops, s => Assert.True(s.Adds >= 0 && s.Left >= 0));

            // What the layer below the last leaves out is what the last adds.
            Assert.Equal(stops[^1].Adds, stops[^2].Left, 9);
        }
    }

    [Fact]
    public void What_is_done_costs_nothing_more()
    {
        var stops = StopHere.Of(StackPrediction.Compute(Bench.Zone(), stack), i => i < 2 ? 0 : 4, 0.9);
        Assert.Equal([0, 0], stops.Take(2).Select(s => s.Minutes));
        Assert.True(stops[2].Minutes > 0);
    }
}
