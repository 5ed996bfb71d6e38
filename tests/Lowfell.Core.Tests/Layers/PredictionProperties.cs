using CsCheck;
using Lowfell.Core.Layers;
using static Lowfell.Core.Tests.Bench;

namespace Lowfell.Core.Tests.Layers;

public class PredictionProperties
{
    private static readonly Gen<Zone> zones = Gen.Select(Gen.Enum<Relief>(), Gen.Double[0.05, 0.4], Gen.Double[0.05, 0.4], Gen.Double[5, 300],
        (relief, raised, recess, area) => Zone(relief, area) with { Shares = new Split(raised, 1 - raised - recess, recess) });

    [Fact]
    public void A_wash_leaves_as_much_as_was_laid() => Gen.Select(zones, Gen.Int[1, 3], Gen.Double[0.2, 2]).Sample((zone, coats, strength) =>
    {
        var laid = Laying.Of(Lay(Technique.AllOverWash, Wash, coats, strength: strength), zone);
        var expected = TechniqueTable.For(Technique.AllOverWash).FilmUm.Usual * coats * strength;
        Assert.Equal(expected, zone.Shares.Dot(laid.FilmUm), 1e-9);
    });

    [Fact]
    public void A_pin_wash_keeps_its_bead_and_clean_up_leaves_a_third() => zones.Sample(zone =>
    {
        var pin = Lay(Technique.PinWash, EnamelWash);
        var volumeMm3 = Laying.BeadMm2 * zone.JointMm;
        var areaMm2 = zone.AreaCm2 * 100;
        var run = StackPrediction.Compute(zone, [pin, Lay(Technique.CleanUpExcess, Spirit)]);
        Assert.Equal(volumeMm3 / areaMm2 * 1000, zone.Shares.Dot(run.LaidBy(0).FilmUm), 1e-6);
        Assert.Equal(volumeMm3 / areaMm2 * 1000 / 3, zone.Shares.Dot(run.LeftBy(0).FilmUm), 1e-6);
        Assert.Equal(0, zone.Shares.Dot(run.LaidBy(0).FilmUm + run.LaidBy(1).FilmUm - run.LeftBy(0).FilmUm), 1e-9);
    });

    [Fact]
    public void A_layer_of_no_strength_changes_nothing() => Gen.Select(zones, Gen.Enum<Technique>()).Sample((zone, technique) =>
    {
        var stack = new[] { Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, Brown, 2), Lay(technique, Wash, strength: 0) };
        var colours = StackPrediction.Compute(zone, stack);
        Assert.Equal(0, colours[2].LargestChange);
        Assert.Equal(colours[1].Average, colours[2].Average);
    });

    [Fact]
    public void Clean_up_brings_the_field_back_towards_what_it_was()
    {
        var stack = new[] { Lay(Technique.Prime, ChalkPrimer), Lay(Technique.BaseCoat, White, 3), Lay(Technique.PinWash, EnamelWash), Lay(Technique.CleanUpExcess, Spirit) };
        var colours = StackPrediction.Compute(Zone(), stack);
        double Lightness(int i, Position p) => colours[i].At(p).Lab.L;
        Assert.True(Lightness(2, Position.Field) < Lightness(3, Position.Field));
        Assert.True(Lightness(3, Position.Field) < Lightness(1, Position.Field));
        Assert.True(Lightness(3, Position.Recess) < Lightness(3, Position.Field) - 10);
    }

    [Fact]
    public void Dry_brush_lightens_edges_and_spares_recesses()
    {
        var stack = new[] { Lay(Technique.Prime, Primer), Lay(Technique.DryBrush, White) };
        var last = StackPrediction.Compute(Zone(), stack)[1];
        Assert.True(last.Change.Raised > last.Change.Field);
        Assert.Equal(0, last.Change.Recess);
    }

    [Fact]
    public void Light_from_above_reaches_upward_faces_most()
    {
        Layer[] stack = [Lay(Technique.Prime, Primer), Lay(Technique.DirectionalLight, White, 3)];
        double Lit(Orientation o) => StackPrediction.Compute(Zone() with { Orientation = o }, stack)[1].Change.Raised;
        Assert.True(Lit(new(1, 0, 0)) > Lit(new(0, 1, 0)));
        Assert.True(Lit(new(0, 1, 0)) > Lit(new(0, 0, 1)));
    }

    [Fact]
    public void Varnish_shows_what_it_does_to_the_surface()
    {
        var below = new[] { Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, Brown, 2) };
        double After(Core.Materials.Material varnish) => StackPrediction.Compute(Zone(), [.. below, Lay(Technique.Varnish, varnish, 2)])[2].Field.Lab.L;
        var bare = StackPrediction.Compute(Zone(), below)[1].Field.Lab.L;
        Assert.True(After(Gloss) < After(Satin));
        Assert.True(After(Satin) < bare);
        Assert.Equal(bare, After(Matt), 0.1);
    }
}
