using CsCheck;
using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Order;
using Lowfell.Core.Pieces;
using Lowfell.Core.Sight;

namespace Lowfell.Core.Tests.AtBench;

/// <summary>The treatment as it was really done, so that new pieces come out the same.</summary>
public sealed class AsDoneTests
{
    private static readonly DateTimeOffset begin = new(2026, 11, 20, 19, 0, 0, TimeSpan.Zero);

    private static Layer Lay(Technique technique, Material paint) => new() { Id = Guid.NewGuid(), Technique = technique, Paint = [new MixPart(paint, Parts.One)], Tool = TechniqueTable.For(technique).UsualTool };

    private static readonly Layer[] layers =
        [Lay(Technique.Prime, Bench.Primer), Lay(Technique.BaseCoat, Bench.Brown), Lay(Technique.DryBrush, Bench.White), Lay(Technique.Varnish, Bench.Satin), Lay(Technique.AllOverWash, Bench.Wash), Lay(Technique.Varnish, Bench.Matt)];

    private static readonly Layer stray = Lay(Technique.Speckle, Bench.White);
    private static readonly StackView plan = new(new StackContext(Bench.Zone(), new SetTerms(56, 0.9, Sheen.Matt, Handling.Careful), new HouseRules(), Climate.Standard, []), layers);

    private static Layer Thinned(Layer layer) => layer with { Dilution = new Dilution(Bench.Water, Parts.One, Parts.Of(2)) };

    /// <summary>Which layer (6 is none of the plan), whether from a pot in which it was thinned, and whether by an older version.</summary>
    private static readonly Gen<PieceCore> cores = Gen.Select(Gen.Int[0, 6], Gen.Bool, Gen.Bool).List[0, 7].Select(story => new PieceCore(Guid.NewGuid(), story.DistinctBy(s => s.Item1).Select((s, i) =>
    {
        var layer = s.Item1 == 6 ? stray : layers[s.Item1];
        layer = s.Item3 ? layer with { Strength = 0.5 } : layer;
        return new CoreLayer(s.Item2 ? Thinned(layer) : layer, begin.AddDays(i)) { Pot = s.Item2 ? "jar" : null, IsOlder = s.Item3 };
    }).ToList()));

    private static HashSet<(Deviation, Guid)> Kinds(IEnumerable<Deviated> of) => of.Select(d => (d.Kind, d.Line)).ToHashSet();

    [Fact]
    public void With_everything_kept_it_is_what_was_done_and_with_nothing_the_plan() => cores.Sample(core =>
    {
        Assert.Equal(layers, AsDone.Stack(plan, core, new HashSet<(Deviation, Guid)>()));
        var stack = AsDone.Stack(plan, core, Kinds(AsDone.Of(plan, core)));
        var done = core.Layers.Select(l => l.Layer).ToList();
        Assert.Equal(done.Select(l => l.Id), stack.Where(l => done.Any(d => d.Id == l.Id)).Select(l => l.Id));
        foreach (var layer in done)
        {
            var now = stack.Single(l => l.Id == layer.Id);
            Assert.Equal((layer.Strength, layer.Dilution is null), (now.Strength, now.Dilution is null));
        }

        // What is still to come is planned as it was: nothing below what is done is smuggled in again.
        var highest = layers.Select((l, i) => (l, i)).Where(x => done.Any(d => d.Id == x.l.Id)).Select(x => x.i).DefaultIfEmpty(-1).Max();
        Assert.Equal(layers.Skip(highest + 1).Select(l => l.Id), stack.Where(l => done.All(d => d.Id != l.Id)).Select(l => l.Id));
    }, iter: 200);

    [Fact]
    public void Each_deviation_is_told_by_its_kind_with_what_it_does()
    {
        var core = new PieceCore(Guid.NewGuid(), [new(layers[0], begin), new(Thinned(layers[1]), begin.AddDays(1)) { Pot = "jar" }, new(stray, begin.AddDays(2)), new(layers[3], begin.AddDays(3))]);
        var found = AsDone.Of(plan, core);
        Assert.Equal([(Deviation.OtherMix, layers[1].Id), (Deviation.Extra, stray.Id), (Deviation.LeftOut, layers[2].Id)], found.Select(d => (d.Kind, d.Line)));
        Assert.True(found.Single(d => d.Kind == Deviation.LeftOut).Difference > 1);
        Assert.Contains(AsDone.Of(plan, core with { Layers = [core.Layers[1], core.Layers[0]] }), d => d.Kind == Deviation.OtherOrder);
        Assert.Empty(AsDone.Of(plan, core with { Layers = [core.Layers[0]] }));
        Assert.Equal([(Deviation.LeftOut, layers[5].Id)], AsDone.Of(plan, new PieceCore(Guid.NewGuid(), []) { Skipped = new HashSet<Guid> { layers[5].Id } }).Select(d => (d.Kind, d.Line)));
    }
}
