using CsCheck;
using Lowfell.Core.Pieces;

namespace Lowfell.Core.Tests;

public class VariationPlanTests
{
    [Fact]
    public void Neighbours_never_repeat_and_the_plan_does_not_change() => Gen.Select(Gen.Int[1, 1_000_000], Gen.Int[0, 60]).Sample((seed, pieces) =>
    {
        var plan = VariationPlan.For(seed, pieces);
        Assert.Equal(pieces, plan.Count);
        Assert.All(plan, p => Assert.InRange(p.Cells.Count, 1, 3));
        Assert.All(plan, p => Assert.Equal(p.Cells.Count, p.Cells.Distinct().Count()));
        foreach (var (a, b) in plan.Zip(plan.Skip(1)))
        {
            Assert.Empty(a.Cells.Intersect(b.Cells));
            Assert.NotEqual(a.Amount, b.Amount);
        }

        var longer = VariationPlan.For(seed, pieces + 3);
        Assert.All(plan.Zip(longer), p => Assert.Equal(p.First.Cells, p.Second.Cells));
    });

    [Fact]
    public void Patches_wander_over_the_whole_face()
    {
        var counts = VariationPlan.For(1, 900).SelectMany(p => p.Cells).GroupBy(c => c).ToDictionary(g => g.Key, g => g.Count());
        Assert.Equal(9, counts.Count);
        Assert.True(counts.Values.Max() < 1.5 * counts.Values.Min());
    }
}
