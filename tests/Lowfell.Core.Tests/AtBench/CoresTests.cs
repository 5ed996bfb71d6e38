using CsCheck;
using Lowfell.Core.Colour;
using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Order;
using Lowfell.Core.Pieces;
using Lowfell.Core.Sight;

namespace Lowfell.Core.Tests.AtBench;

/// <summary>What is really on the pieces, beside the treatment and each other.</summary>
public sealed class CoresTests
{
    private static readonly DateTimeOffset begin = new(2026, 11, 20, 19, 0, 0, TimeSpan.Zero);
    private static readonly Guid[] pieces = Enumerable.Range(0, 5).Select(_ => Guid.NewGuid()).ToArray();

    private static Layer Lay(Technique technique, Material paint) => new() { Id = Guid.NewGuid(), Technique = technique, Paint = [new MixPart(paint, Parts.One)], Tool = TechniqueTable.For(technique).UsualTool };

    private static readonly Layer[] layers =
    [
        Lay(Technique.Prime, Bench.Primer), Lay(Technique.BaseCoat, Bench.Brown), Lay(Technique.DryBrush, Bench.White), Lay(Technique.Varnish, Bench.Satin), Lay(Technique.AllOverWash, Bench.Wash), Lay(Technique.Varnish, Bench.Matt),
    ];

    private static readonly StackView plan = new(new StackContext(Bench.Zone(), new SetTerms(56, 0.9, Sheen.Matt, Handling.Careful), new HouseRules(), Climate.Standard, []), layers);

    /// <summary>A day between layers: nothing is too young.</summary>
    private static CoreLayer On(int layer, string? pot = null, int day = -1) => new(layers[layer], begin.AddDays(day < 0 ? layer : day)) { Pot = pot };

    private static PieceCore Core(int piece, params CoreLayer[] on) => new(pieces[piece], on);

    private static List<CoreDifference> Differ(params PieceCore[] cores) => Cores.Differences(plan, cores).ToList();

    [Fact]
    public void Pieces_that_are_alike_and_as_planned_differ_in_nothing() =>
        Gen.Int[0, 6].Sample(laid => Assert.Empty(Differ(Enumerable.Range(0, 5).Select(p => Core(p, Enumerable.Range(0, laid).Select(i => On(i, $"pot {i}")).ToArray())).ToArray())));

    [Fact]
    public void What_is_missing_below_later_layers_or_on_few_is_named_and_what_is_left_out_is_not()
    {
        var hole = Differ(Core(0, On(0), On(2)));
        Assert.Equal([(layers[1].Id, CoreFault.Missing)], hole.Select(d => (d.Line, d.Fault)));
        Assert.True(hole[0].Difference > 10 && hole[0].Verdict == Verdict.Seen);
        Assert.Empty(Differ(Core(0, On(0), On(2)) with { Skipped = new HashSet<Guid> { layers[1].Id } }));

        // Two of three have it: the third lags behind. One of three is merely ahead.
        Assert.Equal([pieces[2]], Differ(Core(0, On(0), On(1)), Core(1, On(0), On(1)), Core(2, On(0))).Select(d => d.Piece));
        Assert.Empty(Differ(Core(0, On(0), On(1)), Core(1, On(0)), Core(2, On(0))));
    }

    [Fact]
    public void What_is_extra_or_lies_the_wrong_way_round_is_named()
    {
        var extra = Lay(Technique.BaseCoat, Bench.White);
        Assert.Equal([(extra.Id, CoreFault.Extra)], Differ(Core(0, On(0), On(1), new CoreLayer(extra, begin.AddDays(5)))).Select(d => (d.Line, d.Fault)));
        var swapped = Differ(Core(0, On(0), On(2, day: 1), On(1, day: 2)));
        Assert.Equal([(layers[1].Id, CoreFault.Swapped)], swapped.Select(d => (d.Line, d.Fault)));
        Assert.True(swapped[0].Difference > 1);
    }

    [Fact]
    public void Another_pot_is_told_from_another_dilution_and_its_colour_is_that_of_what_is_in_it()
    {
        CoreLayer From(string pot, Material paint, Dilution? thinned = null) => new(layers[1] with { Paint = [new MixPart(paint, Parts.One)], Dilution = thinned }, begin.AddDays(1)) { Pot = pot };
        var (usual, thinner) = (From("one", Bench.Brown), From("thin", Bench.Brown, new Dilution(Bench.Water, Parts.One, Parts.Of(2))));
        var found = Differ(Core(0, On(0), usual), Core(1, On(0), usual), Core(2, On(0), usual), Core(3, On(0), From("other", Bench.White)), Core(4, On(0), thinner));
        Assert.Equal([(pieces[3], CoreFault.OtherPot), (pieces[4], CoreFault.OtherDilution)], found.Select(d => (d.Piece, d.Fault)));
        Assert.True(found[0].Difference > found[1].Difference && found[0].Verdict == Verdict.Seen);
    }

    [Fact]
    public void What_went_on_too_soon_says_how_long_it_had_and_what_it_wanted()
    {
        var soon = Differ(Core(0, On(0), On(1), new CoreLayer(layers[2], begin.AddDays(1).AddMinutes(4))));
        var found = Assert.Single(soon);
        Assert.Equal((layers[1].Id, CoreFault.TooYoung), (found.Line, found.Fault));
        Assert.Equal(4, found.Minutes!.Value.Had, 1e-6);
        Assert.Equal(plan.Needed(1, 2).Minutes.Low, found.Minutes.Value.Wanted, 1e-6);
    }

    [Fact]
    public void An_older_version_is_named_where_it_was_another_and_what_may_stay_is_said_to()
    {
        CoreLayer Older(Layer as_) => new(as_, begin.AddDays(1)) { IsOlder = true };
        Assert.Empty(Differ(Core(0, On(0), Older(layers[1]))));
        var found = Assert.Single(Differ(Core(0, On(0), Older(layers[1] with { Paint = [new MixPart(Bench.White, Parts.One)] })) with { Accepted = new HashSet<Guid> { layers[1].Id } }));
        Assert.Equal((CoreFault.OlderVersion, true), (found.Fault, found.Accepted));
        Assert.True(found.Difference > 10);
    }

    /// <summary>Whatever was done to whichever piece: missing, extra and swapped are told just as a plain look tells them.</summary>
    [Fact]
    public void Missing_and_swapped_are_what_a_plain_look_finds() => Gen.Select(Gen.Int[0, 5].List[0, 6].Array[3], Gen.Int).Sample((stories, _) =>
    {
        var cores = stories.Select((s, p) => Core(p, s.Distinct().Select((layer, i) => new CoreLayer(layers[layer], begin.AddDays(i * 3))).ToArray())).ToArray();
        var found = Differ(cores).Select(d => (d.Piece, d.Line, d.Fault)).ToHashSet();
        foreach (var core in cores)
        {
            var mine = core.Layers.Select(l => Array.IndexOf(layers, l.Layer)).ToList();
            for (var i = 0; i < layers.Length; i++)
            {
                var most = cores.Count(c => c.Layers.Any(l => l.Layer == layers[i])) >= 2;
                Assert.Equal(!mine.Contains(i) && (mine.Any(m => m > i) || most), found.Contains((core.Piece, layers[i].Id, CoreFault.Missing)));
                Assert.Equal(mine.Contains(i) && mine.Take(mine.IndexOf(i)).Any(m => m > i), found.Contains((core.Piece, layers[i].Id, CoreFault.Swapped)));
            }
        }
    }, iter: 200);

    private static readonly Layer stray = Lay(Technique.BaseCoat, Bench.White);

    /// <summary>What can lie somewhere: a layer of the plan or a stray one, from one of three fillings, by the version in force or an older one, soon or late.</summary>
    private static readonly Gen<(int Layer, int Pot, bool Older, bool Soon)> laying = Gen.Select(Gen.Int[0, 6], Gen.Int[0, 3], Gen.Bool, Gen.Bool);

    /// <summary>The paint of the second filling is the first in another dilution, that of the third another paint.</summary>
    private static Layer Filled(Layer layer, int pot) => pot switch
    {
        2 => layer with { Dilution = new Dilution(Bench.Water, Parts.One, Parts.Of(2)) },
        3 => layer with { Paint = [new MixPart(Bench.White, Parts.One)] },
        _ => layer,
    };

    /// <summary>All seven kinds at once, with the colour that each makes: just as a plain look, layer by layer, tells them.</summary>
    [Fact]
    public void Whatever_was_done_differs_as_a_plain_look_finds() => Gen.Select(laying.List[0, 7].Array[3], Gen.Int[0, 5].List[0, 2], Gen.Int[0, 5].List[0, 2]).Sample((stories, skipped, accepted) =>
    {
        var cores = stories.Select((story, p) =>
        {
            var at = begin;
            return Core(p, story.DistinctBy(s => s.Layer).Select(s =>
            {
                at += s.Soon ? TimeSpan.FromMinutes(3) : TimeSpan.FromDays(3);
                var layer = s.Layer == 6 ? stray : layers[s.Layer];
                return new CoreLayer(Filled(s.Older ? layer with { Strength = 0.5 } : layer, s.Pot), at) { Pot = s.Pot == 0 ? null : $"filling {s.Pot}", IsOlder = s.Older };
            }).ToArray()) with
            { Skipped = skipped.Select(i => layers[i].Id).ToHashSet(), Accepted = accepted.Select(i => layers[i].Id).ToHashSet() };
        }).ToArray();
        var expected = cores.SelectMany(core => PlainLook(core, cores)).OrderBy(d => d.Piece).ThenBy(d => d.Line).ThenBy(d => d.Fault).ToList();
        var found = Differ(cores).OrderBy(d => d.Piece).ThenBy(d => d.Line).ThenBy(d => d.Fault).ToList();
        Assert.Equal(expected.Select(d => (d.Piece, d.Line, d.Fault, accepted.Any(a => layers[a].Id == d.Line))), found.Select(d => (d.Piece, d.Line, d.Fault, d.Accepted)));
        foreach (var (e, f) in expected.Zip(found))
            Assert.Equal(e.Difference, f.Difference, 1e-9);
    }, iter: 300);

    private static IEnumerable<(Guid Piece, Guid Line, CoreFault Fault, double Difference)> PlainLook(PieceCore core, PieceCore[] all)
    {
        var mine = core.Layers.Select(l => l.Layer).ToList();
        int Turn(Layer l) => Array.FindIndex(layers, x => x.Id == l.Id);
        double Apart(List<Layer> instead) => ColourDifference.Ciede2000(Mean(mine), Mean(instead));
        List<Layer> Where(List<Layer> on, Layer layer)
        {
            var put = on.ToList();
            var above = put.FindIndex(l => Turn(l) > Turn(layer));
            put.Insert(above < 0 ? put.Count : above, layer);
            return put;
        }

        for (var i = 0; i < layers.Length; i++)
        {
            var have = all.Count(c => c.Layers.Any(l => l.Layer.Id == layers[i].Id));
            if (mine.All(l => l.Id != layers[i].Id) && !core.Skipped.Contains(layers[i].Id) && (mine.Any(l => Turn(l) > i) || have >= 2))
                yield return (core.Piece, layers[i].Id, CoreFault.Missing, Apart(Where(mine, layers[i])));
        }

        for (var i = 0; i < mine.Count; i++)
        {
            var others = mine.Where((_, k) => k != i).ToList();
            List<Layer> With(Layer other) => mine.Select((l, k) => k == i ? other : l).ToList();
            var (layer, laid) = (mine[i], core.Layers[i]);
            if (Turn(layer) < 0)
            {
                yield return (core.Piece, layer.Id, CoreFault.Extra, Apart(others));
                continue;
            }

            if (mine.Take(i).Any(l => Turn(l) > Turn(layer)))
                yield return (core.Piece, layer.Id, CoreFault.Swapped, Apart(Where(others, layer)));
            if (laid.IsOlder)
                yield return (core.Piece, layer.Id, CoreFault.OlderVersion, Apart(With(layers[Turn(layer)])));
            if (laid.Pot is not null)
            {
                // The filling that most pieces have, the oldest where two are level.
                CoreLayer? usual = null;
                var most = 0;
                foreach (var one in all.SelectMany(c => c.Layers).Where(l => l.Layer.Id == layer.Id && l.Pot is not null).OrderBy(l => l.At))
                    if (all.SelectMany(c => c.Layers).Count(l => l.Layer.Id == layer.Id && l.Pot == one.Pot) is var count && count > most)
                        (usual, most) = (one, count);
                usual = all.SelectMany(c => c.Layers).First(l => l.Layer.Id == layer.Id && l.Pot == usual!.Pot);
                if (usual.Pot != laid.Pot)
                    yield return (core.Piece, layer.Id, layer.Paint[0].Material == usual.Layer.Paint[0].Material && (layer.Dilution is null) != (usual.Layer.Dilution is null) ? CoreFault.OtherDilution : CoreFault.OtherPot, Apart(With(usual.Layer)));
            }

            if (i + 1 < mine.Count && (core.Layers[i + 1].At - laid.At).TotalMinutes < new StackView(plan.Context, mine).Needed(i, i + 1).Minutes.Low)
                yield return (core.Piece, layer.Id, CoreFault.TooYoung, 0);
        }
    }

    private static Lab Mean(List<Layer> on)
    {
        var run = new StackView(plan.Context, on).Predictions;
        return on.Count > 0 ? run[^1].Average.Lab : run.SeenBelow(0).Field.Lab;
    }
}
