using CsCheck;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Mixing;
using static Lowfell.Core.Tests.Bench;

namespace Lowfell.Core.Tests.Layers;

/// <summary>A layer colours, takes and costs what its region says, and nothing elsewhere.</summary>
public class RegionTests
{
    private static readonly Layer prime = Lay(Technique.Prime, Primer), ground = Lay(Technique.BaseCoat, Brown, 2);

    private static readonly Gen<Zone> zones = Gen.Select(Gen.Enum<Relief>(), Gen.Double[5, 300], Gen.Double[0, 1], Gen.Double[0.05, 0.4], Gen.Double[0.05, 0.4],
        (relief, area, up, raised, recess) => Zone(relief, area) with { Orientation = new(up, 1 - up, 0), Shares = new Split(raised, 1 - raised - recess, recess) });

    /// <summary>
    /// What is counted, against the figures of the technique written out by hand: usual film × coats × strength over the region's area for
    /// what lies evenly or conserves what is laid, and for partial covers over the share of each position that one pass covers.
    /// </summary>
    [Fact]
    public void Film_counted_is_the_usual_film_over_the_region() =>
        Gen.Select(Gen.Enum<Technique>(), Gen.Enum<Region>(), Gen.Enum<Tool>(), zones, Gen.Int[1, 3], Gen.Double[0.2, 1.2]).Sample((technique, region, tool, zone, coats, strength) =>
        {
            var layer = Lay(technique, White, coats, strength: strength, region: region) with { Tool = tool };
            var figures = TechniqueTable.For(technique, tool);
            double Covered(double shares, double within, double split) => shares * within * Math.Min(1, split * strength * (technique == Technique.DirectionalLight ? zone.Orientation.Up + zone.Orientation.Side / 2 + zone.Orientation.Down * 0.05 : 1));
            var (at, split) = (Regions.Within(region), figures.SplitFor(zone.Relief));
            double? expected = figures.Laydown switch
            {
                Laydown.Film or Laydown.Wash or Laydown.Powder => Regions.Share(region, zone) * strength,
                Laydown.Cover => Regions.PlaceShare(region, zone) * (Covered(zone.Shares.Raised, at.Raised, split.Raised) + Covered(zone.Shares.Field, at.Field, split.Field) + Covered(zone.Shares.Recess, at.Recess, split.Recess)),
                _ => null,
            };
            if (expected is { } share)
                Assert.Equal(zone.AreaCm2 * share * figures.FilmUm.Usual * coats * 1e-4, Quantities.Work(layer, zone, 1).OnSurfaceMl, 0.001 * zone.AreaCm2 * share * figures.FilmUm.Usual * coats * 1e-4 + 1e-12);
        });

    /// <summary>How much of a zone a region takes in, from what painters go by: a line 2 mm wide along an edge, 2 mm left free along a rim, a tenth for spots.</summary>
    private static double Taken(Region region, Zone zone)
    {
        var mm2 = zone.AreaCm2 * 100;
        return region switch
        {
            Region.Upward => Math.Max(0.05, zone.Orientation.Up),
            Region.LowerThird => 0.33333333333333333,
            Region.Spots => 0.1,
            Region.AroundFeet => 0.15,
            Region.OneInFour => 0.25,
            Region.RecessedLine => 0.3 * zone.Shares.Recess,
            Region.Edges => Math.Min(zone.Shares.Raised, 2 * zone.EdgeMm / mm2),
            Region.LeadingEdges => 0.4 * Math.Min(zone.Shares.Raised, 2 * zone.EdgeMm / mm2),
            Region.WithinRim => Math.Max(0.05, 1 - 2 * zone.EdgeMm / mm2),
            Region.Raised => zone.Shares.Raised,
            Region.Recess => zone.Shares.Recess,
            _ => 1,
        };
    }

    [Fact]
    public void A_region_takes_in_what_painters_go_by() =>
        Gen.Select(Gen.Enum<Region>(), zones, Gen.Double[0, 3000]).Sample((region, zone, edge) =>
            Assert.Equal(Taken(region, zone with { EdgeMm = edge }), Regions.Share(region, zone with { EdgeMm = edge }), 1e-9));

    /// <summary>The parts in which a layer is predicted take in as much of the zone as lies in its region.</summary>
    [Fact]
    public void Area_coloured_is_area_counted() =>
        Gen.Select(Gen.OneOfConst(Region.Upward, Region.LowerThird, Region.Spots, Region.Edges, Region.WithinRim), zones).Sample((region, zone) =>
        {
            var parts = StackPrediction.Compute(zone, [ground, Lay(Technique.BaseCoat, White, 4, region: region)]).PartsBelow(2);
            var inside = parts.Count == 1 ? 1 : parts.Where(p => p.Places.Contains(region)).Sum(p => p.Share);
            Assert.Equal(1, parts.Sum(p => p.Share), 1e-9);
            Assert.Equal(parts.Count == 1 ? 1 : Taken(region, zone), inside, 1e-9);
        });

    [Fact]
    public void Nothing_changes_where_a_layer_does_not_lie() =>
        Gen.Select(Gen.Enum<Technique>(), Gen.OneOfConst(Region.Upward, Region.LowerThird, Region.Spots, Region.Edges, Region.WithinRim), zones).Sample((technique, region, zone) =>
        {
            var run = StackPrediction.Compute(zone, [prime, ground, Lay(technique, White, region: region)]);
            if (Regions.PlaceShare(region, zone) >= 1)
                return;
            foreach (var part in run.PartsBelow(3).Where(p => !p.Places.Contains(region)))
                Assert.Equal(run.PartsBelow(2).First(p => !p.Places.Contains(region)).Seen, part.Seen);
        }, iter: 200);

    [Theory]
    [InlineData(Region.Raised)]
    [InlineData(Region.Recess)]
    public void A_position_alone_makes_no_parts(Region region)
    {
        var run = StackPrediction.Compute(Zone(), [prime, ground, Lay(Technique.BaseCoat, White, region: region)]);
        Assert.Empty(Assert.Single(run.PartsBelow(3)).Places);
        Assert.Equal(0, run[2].Change.Field);
        Assert.True(run[2].Change[region == Region.Raised ? Position.Raised : Position.Recess] > 20);
    }

    [Fact]
    public void Dust_on_less_of_a_zone_changes_less_of_it()
    {
        var zone = Zone() with { Orientation = new(0.2, 0.8, 0) };
        double Change(Region region)
        {
            var run = StackPrediction.Compute(zone, [prime, ground, Lay(Technique.Dust, Dust, region: region)]);
            return run[2].Average.Lab.DistanceTo(run[1].Average.Lab);
        }

        double all = Change(Region.All), third = Change(Region.LowerThird), up = Change(Region.Upward), spots = Change(Region.Spots);
        Assert.True(all > 2 * third && third > up && up > spots && spots > 0, $"{all:0.00} {third:0.00} {up:0.00} {spots:0.00}");
    }

    [Fact]
    public void Within_its_region_a_layer_looks_as_it_would_all_over() =>
        Gen.Select(Gen.OneOfConst(Technique.Dust, Technique.BaseCoat, Technique.AllOverWash, Technique.Filter, Technique.Speckle), Gen.OneOfConst(Region.Upward, Region.LowerThird, Region.Spots), zones).Sample((technique, region, zone) =>
        {
            StackRun Run(Region at) => StackPrediction.Compute(zone, [prime, ground, Lay(technique, Wash, region: at)]);
            Assert.Equal(Run(Region.All)[2].LargestChange, Run(region)[2].LargestChange, 1e-6);
        });

    [Fact]
    public void Two_places_make_four_parts_and_five_are_shown_as_the_four_largest()
    {
        var run = StackPrediction.Compute(Zone() with { Orientation = new(0.25, 0.75, 0) }, [prime, ground, Lay(Technique.Dust, Dust, region: Region.LowerThird), Lay(Technique.DirectionalLight, White, region: Region.Upward), Lay(Technique.Speckle, White, region: Region.Spots)]);
        var parts = run.PartsBelow(5);
        Assert.Equal(StackRun.MostParts, parts.Count);
        Assert.Empty(parts[0].Places);
        Assert.Equal(2.0 / 3 * 0.75 * 0.9, parts[0].Share, 1e-9);
    }

    /// <summary>Coats of what lands by chance are passes, one after the other.</summary>
    [Fact]
    public void Coats_of_a_partial_cover_are_as_many_layers() =>
        Gen.Select(Gen.OneOfConst(Technique.Overbrush, Technique.Sponge, Technique.Stipple, Technique.Speckle, Technique.Patch, Technique.PaintedChip, Technique.Dust), Gen.Int[2, 6], zones, Gen.Double[0.3, 1.4])
            .Sample((technique, coats, zone, strength) =>
            {
                var one = Lay(technique, White, strength: strength);
                StackRun together = StackPrediction.Compute(zone, [prime, ground, one with { Coats = coats }]), apart = StackPrediction.Compute(zone, [prime, ground, .. Enumerable.Repeat(one, coats)]);
                Assert.InRange(together.SeenBelow(3).DifferenceTo(apart.SeenBelow(2 + coats)).Largest(), 0, 1e-6);
                Assert.Equal(Quantities.Work(one, zone, 1).OnSurfaceMl * coats, Quantities.Work(one with { Coats = coats }, zone, 1).OnSurfaceMl, 1e-9);
            });

    [Fact]
    public void Dry_brush_on_the_raised_takes_what_dry_brush_takes_there()
    {
        double Ml(Region region) => Quantities.Work(Lay(Technique.DryBrush, White, region: region), Zone(), 8).OnSurfaceMl;
        var split = TechniqueTable.For(Technique.DryBrush).SplitFor(Relief.Deep);
        var shares = Zone().Shares;
        Assert.Equal(Ml(Region.All) * shares.Raised * split.Raised / shares.Dot(split), Ml(Region.Raised), 1e-9);
    }

    [Fact]
    public void Inside_and_outside_of_a_region_make_up_the_whole()
    {
        var run = StackPrediction.Compute(Zone(), [prime, ground, Lay(Technique.Dust, Dust, region: Region.LowerThird)]);
        Assert.InRange(run.SeenBelow(2).DifferenceTo(run.SeenBeside(3)).Largest(), 0, 1e-9);
        double inside = run.SeenWithin(3, Region.LowerThird).Field.Lab.L, outside = run.SeenBeside(3).Field.Lab.L, whole = run.SeenBelow(3).Field.Lab.L;
        Assert.InRange(whole, Math.Min(inside, outside), Math.Max(inside, outside));
    }
}
