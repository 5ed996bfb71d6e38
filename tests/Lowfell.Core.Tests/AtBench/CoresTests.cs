using CsCheck;
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
}
