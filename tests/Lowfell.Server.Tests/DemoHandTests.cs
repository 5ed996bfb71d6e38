using Lowfell.Core.Colour;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Tests.Scalar;

namespace Lowfell.Server.Tests;

/// <summary>The range between thin and heavy hands on the demo's own zones, held against a thousand hands drawn by chance on each.</summary>
public sealed class DemoHandTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    [Fact]
    public async Task Nine_of_ten_hands_end_in_the_range_on_every_zone()
    {
        await using var db = server.Db();
        var graph = (await server.Graphs().OfSet(db, await server.SetId(), TestContext.Current.CancellationToken))!;
        var held = graph.Plans().AsParallel().Select(plan => (Name: graph.Find(plan.ZoneId)!.Name, Share: Held(plan))).ToList();
        Assert.True(held.Count > 20);
        Assert.All(held, zone => Assert.True(zone.Share is null or (>= 0.85 and <= 0.95), $"{zone.Name}: {zone.Share:0.000}"));
    }

    /// <summary>Share of a thousand hands that end in the range, over the positions where an eye could tell one from the other; null where it is nowhere.</summary>
    private static double? Held(ZonePlan plan)
    {
        var random = new Random(7);
        var range = StackPrediction.Compute(plan.Zone, plan.Layers).RangeBelow(plan.Layers.Count);
        var held = new int[3];
        for (var n = 0; n < Hands; n++)
        {
            var ends = ScalarModel.Forward(plan.Zone, plan.Layers, hands: plan.Layers.Select(_ => random.NextDouble()).ToArray());
            for (var p = 0; p < 3; p++)
                held[p] += range[(Position)p].Holds(new Reflectance(ends[p]).ToLab()) ? 1 : 0;
        }

        var seen = Enumerable.Range(0, 3).Where(p => range[(Position)p].Difference > Telling).ToList();
        return seen.Count == 0 ? null : seen.Average(p => held[p]) / Hands;
    }

    private const int Hands = 1000;
    private const double Telling = 1.5;
}
