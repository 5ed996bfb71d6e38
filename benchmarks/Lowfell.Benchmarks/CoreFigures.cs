using Lowfell.Core.Colour;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Mixing;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Core.Order;
using Lowfell.Core.Start;
using Lowfell.Core.Tests.Scalar;
using static Lowfell.Benchmarks.Measured;

namespace Lowfell.Benchmarks;

/// <summary>What is worked out without a server: predictions, order, mixes.</summary>
internal static class CoreFigures
{
    public static void Run()
    {
        var zone = Workload.Zone(1);
        var stack = Workload.Stack(40, sound: true);
        Report("prediction, 40 layers at three positions, all described", Time(() => Described(zone, stack), 400), 0.3);
        Report("prediction, 40 layers, with the range of hands at every layer", Time(() => StackPrediction.Compute(zone, stack).RangeBelow(40), 200), 3);
        var vectorised = Time(() => StackPrediction.Compute(zone, stack).SeenBelow(40), 400);
        var scalar = Time(() => ScalarModel.Forward(zone, stack), 100);
        Console.WriteLine($"    forward pass alone: vectorised {vectorised:0.000} ms, one band at a time {scalar:0.000} ms, {scalar / vectorised:0.0} times as long");
        var run = StackPrediction.Compute(zone, Workload.BaseUnderSix());
        var paints = Workload.Paints(300);
        var wanted = SrgbColour.Parse("#7a6248").ToLab();
        var nine = StartHere.AllRatios.Where(r => r.First + r.Second < 7).ToList();
        Report($"start here, 300 paints, all pairs at {nine.Count} ratios, six layers above", Time(() => StartHere.Find(run, 1, Position.Field, wanted, paints, 20, nine), 20), 150);
        var buried = StackPrediction.Compute(zone, Workload.BaseUnderSix().Select((l, i) => i > 1 ? l with { Strength = 2 } : l).ToList());
        Report("start here, the same where six heavy layers leave little to tell", Time(() => StartHere.Find(buried, 1, Position.Field, wanted, paints, 20, nine), 20), 150);
        Report($"start here, the same at all {StartHere.AllRatios.Count} ratios", Time(() => StartHere.Find(run, 1, Position.Field, wanted, paints), 20), 150);
        var ordinary = Workload.Ordinary(40);
        Report($"order check, 40 layers, ordinary, {OrderCheck.Run(Workload.Context(zone), ordinary).Count} findings, remedies tried", Time(() => OrderCheck.Run(Workload.Context(zone), ordinary), 200), 5);
        foreach (var together in new[] { true, false })
        {
            var (around, on) = Workload.Piece(40, 8, together);
            var edited = on.Select((l, i) => i == 12 ? l with { Strength = 0.8 } : l).ToList();
            Report($"order check after an edit, 40 layers over 8 surfaces, {(together ? "one treatment" : "a treatment each")}, {OrderCheck.Run(around, edited).Count} findings", Time(() => OrderCheck.Run(around, edited), 200), together ? 8 : 20);
        }

        var slips = Workload.WithSlips(40);
        Report($"order check, 40 layers, {OrderCheck.Run(Workload.Context(zone), slips).Count} findings, remedies tried", Time(() => OrderCheck.Run(Workload.Context(zone), slips), 200), 40);
        var unsound = Workload.Stack(40, sound: false);
        Report($"stress: 40 layers, nearly all wrong, {OrderCheck.Run(Workload.Context(zone), unsound).Count} findings", Time(() => OrderCheck.Run(Workload.Context(zone), unsound), 60), 40);
        var zones = Enumerable.Range(0, 500).Select(n => Workload.Context(Workload.Zone(n))).ToList();
        var twenty = Workload.WithSlips(40).Take(20).ToList();
        Report("order check, 500 zones x 20 layers, remedies tried, on both cores", Time(() => zones.AsParallel().Sum(c => OrderCheck.Run(c, twenty).Count), 5), 1000);
        var set = Workload.Set(200, 5, 20);
        Report("whole-set quantities, 200 pieces x 5 zones x 20 layers", Time(() => SetMixes.Needs(set, (_, _) => 0), 60), 50);
        Report("the same by mixes, less what is done", Time(() => SetMixes.FromShelf(SetMixes.Of(set, (_, _) => 3), new Dictionary<string, double>()), 60), 50);
        var fourPart = Recipe.Of(paints.Take(4).Select((p, i) => new MixPart(p, Parts.Of(7 + i))));
        Report("fewest whole drops of four paints within 0.5", Time(() => WholeDrops.Fewest(fourPart), 60), 20);
        var ranOut = new StackView(Workload.Context(zone) with { Shelf = paints }, Workload.BaseUnderSix());
        var oneLess = paints.ToDictionary(p => p.Id, _ => 20m);
        oneLess[ranOut.Layers[1].Main!.Id] = 0;
        Report("a pot ran out: what lands closest of 300 paints under six layers", Time(() => Remix.Find(ranOut, 1, Recipe.Of(ranOut.Layers[1])!.Fill(10), paints, oneLess, 8), 20), 300);
    }

    private static double Described(Zone zone, IReadOnlyList<Layer> stack)
    {
        var sum = 0.0;
        foreach (var layer in StackPrediction.Compute(zone, stack))
            sum += layer.LargestChange;
        return sum;
    }
}
