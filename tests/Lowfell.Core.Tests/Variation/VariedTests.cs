using CsCheck;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Core.Order;
using Lowfell.Core.Sight;
using Lowfell.Core.Variation;
using static Lowfell.Core.Tests.Bench;

namespace Lowfell.Core.Tests.Variation;

/// <summary>What a plan over many pieces means for a layer: where its marks lie, what it takes, and what it is laid with.</summary>
public sealed class VariedTests
{
    private static readonly Layer patch = Lay(Technique.Patch, White);

    private static Layer Browns(Technique technique = Technique.BaseCoat) => Lay(technique, Brown) with
    {
        Paint = [new MixPart(Brown, Parts.Of(3)), new MixPart(White, Parts.Of(1))],
        Dilution = new Dilution(Water, Parts.Of(4), Parts.One),
    };

    [Theory]
    [InlineData(Technique.Patch, Region.All, Habit.Anywhere)]
    [InlineData(Technique.Patch, Region.LowerThird, Habit.FromGround)]
    [InlineData(Technique.Patch, Region.Edges, Habit.AtEdges)]
    [InlineData(Technique.Speckle, Region.Recess, Habit.AtJoints)]
    [InlineData(Technique.PaintedChip, Region.All, Habit.AtEdges)]
    [InlineData(Technique.Streak, Region.All, Habit.UnderOthers)]
    public void Marks_lie_as_such_layers_do(Technique technique, Region region, Habit habit) =>
        Assert.Equal(habit, Varied.HabitOf(Lay(technique, White, region: region) with { Varied = new Varied(1) }));

    [Fact]
    public void A_plan_says_where_unless_the_region_does()
    {
        var asked = patch with { Varied = new Varied(1, Habit.FromAbove) };
        Assert.Equal(Habit.FromAbove, Varied.HabitOf(asked));
        Assert.Equal(Habit.FromGround, Varied.HabitOf(asked with { Region = Region.LowerThird }));
    }

    [Fact]
    public void Only_what_is_laid_in_marks_has_places_and_only_materials_of_one_kind_are_dealt()
    {
        Assert.True(Varied.HasMarks(patch));
        Assert.False(Varied.HasMarks(Lay(Technique.BaseCoat, Brown)));
        Assert.False(Varied.HasMarks(Lay(Technique.PinWash, EnamelWash)));
        Assert.True(Varied.CanBeDealt(Browns()));
        Assert.False(Varied.CanBeDealt(Lay(Technique.BaseCoat, Brown)));
        Assert.False(Varied.CanBeDealt(Browns(Technique.WetBlend)));
        Assert.False(Varied.CanBeDealt(Browns() with { Paint = [new MixPart(Sand, Parts.One), new MixPart(Brown, Parts.One)] }));

        // One material and its thinner are no two.
        Assert.False(Varied.CanBeDealt(Browns() with { Paint = [new MixPart(Brown, Parts.One), new MixPart(Water, Parts.One)] }));
    }

    /// <summary>Three marks of 8 mm, all alike, on 100 cm²: 3 × 50.27 mm² are 150.8 of 10 000.</summary>
    [Fact]
    public void What_marks_cover_is_what_is_laid_by_hand()
    {
        var zone = Zone(Relief.Smooth);
        var layer = patch with { Varied = new Varied(1, MeanMm: 8, Marks: 3, Spread: 0) };
        Assert.Equal(0.01508, zone.Shares.Dot(Laying.Of(layer, zone).Covered), 0.00001);
        var share = 0.01508 / zone.Shares.Dot(Laying.Of(patch, zone).Covered);
        Assert.Equal(share, Quantities.Work(layer, zone, 10).OnSurfaceMl / Quantities.Work(patch, zone, 10).OnSurfaceMl, 0.001);
        Assert.True(HandsOn.PerPiece(layer, zone) < HandsOn.PerPiece(patch, zone));
        Assert.Equal(HandsOn.PerPiece(patch, zone), HandsOn.PerPiece(patch with { Varied = new Varied(5) }, zone), 1e-9);
    }

    [Fact]
    public void However_much_is_asked_for_a_face_is_never_full() => Gen.Select(Gen.Double[0.3, 200], Gen.Double[0.2, 5], Gen.Double[0, 1]).Sample((mm, marks, spread) =>
    {
        var zone = Zone(Relief.Light, 40);
        foreach (var technique in new[] { Technique.Patch, Technique.Sponge, Technique.PaintedChip, Technique.ChipThrough })
        {
            var covered = Laying.Of(Lay(technique, White) with { Varied = new Varied(1, MeanMm: mm, Marks: marks, Spread: spread) }, zone).Covered;
            Assert.InRange(zone.Shares.Dot(covered), 0, 0.61);
            Assert.InRange(covered.Largest(), 0, 1);
        }
    }, iter: 300);

    [Fact]
    public void Chips_of_a_plan_break_as_much_as_they_cover()
    {
        var zone = Zone();
        var chips = Lay(Technique.ChipThrough);
        double Broken(Varied? plan) => zone.Shares.Dot(Laying.Of(chips with { Varied = plan }, zone).Covered);
        Assert.Equal(Broken(null), Broken(new Varied(1)), 1e-9);
        Assert.True(Broken(new Varied(1, MeanMm: 2, Marks: 2)) < Broken(null));
        Assert.Equal(4, Broken(new Varied(1, MeanMm: 4, Marks: 2)) / Broken(new Varied(1, MeanMm: 2, Marks: 2)), 0.01);
    }

    [Fact]
    public void Sizes_have_their_mean_and_spread_the_wider_the_wilder()
    {
        var last = 0.0;
        for (var spread = 0.0; spread <= 1; spread += 0.1)
        {
            Assert.Equal(1, MarkSizes.OfParts(spread).Average(), 1e-9);
            var square = MarkSizes.MeanSquare(spread);
            Assert.True(square >= last, "wilder sizes differ more");
            last = square;
        }

        Assert.Equal(1, MarkSizes.MeanSquare(0), 1e-9);
        Assert.All(MarkSizes.OfParts(1), s => Assert.True(s >= 0.19));
    }

    [Fact]
    public void Dealt_materials_are_pots_of_their_own_and_take_as_much_as_their_mix()
    {
        var (mixed, dealt) = (Browns(), Browns() with { Varied = new Varied(3, Dealt: true) });
        Assert.True(dealt.IsDealt);
        Assert.Null(Recipe.Of(dealt));
        Assert.Equal(["Peat Seven", "Salt White"], Recipe.Each(dealt).Select(p => p.Recipe.Parts[0].Material.Name));
        Assert.Equal([0.75, 0.25], Recipe.Each(dealt).Select(p => p.Share));
        Assert.Equal((1, 1.0), (Recipe.Each(mixed).Count, Recipe.Each(mixed)[0].Share));
        Assert.Empty(Recipe.Each(Lay(Technique.Inspect)));
        Dictionary<string, double> Needs(Layer layer) => SetMixes.Needs([new ZonePlan(Guid.NewGuid(), Zone(), [layer], 8)], (_, _) => 0).ToDictionary(n => n.Material.Name, n => n.Ml);
        var (one, two) = (Needs(mixed), Needs(dealt));
        Assert.Equal(one.Keys.Order(), two.Keys.Order());

        // Two pots are emptied and rinsed where one was: a little more, and never less.
        Assert.All(one, n => Assert.InRange(two[n.Key], n.Value - 1e-6, n.Value * 1.1 + 0.3));
        Assert.Equal(2, SetMixes.Of([new ZonePlan(Guid.NewGuid(), Zone(), [dealt], 8)], (_, _) => 0).Count);
    }

    [Fact]
    public void A_plan_puts_right_that_every_piece_gets_the_same_patch()
    {
        var context = Context() with { Pieces = 8 };
        var stack = new[] { Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, Brown), patch };
        var finding = OrderCheck.Run(context, stack).Single(f => f.Rule == "same-splodge");
        var after = ((StackEdit.Replace)finding.Remedies[0].Edits[0]).Layer;
        Assert.NotNull(after.Varied);
        Assert.DoesNotContain(OrderCheck.Run(context, [stack[0], stack[1], after]), f => f.Rule == "same-splodge");
        Assert.Contains("laid otherwise on each piece", Assert.Single(StackDifference.Phrases([patch], [after])));
    }

    [Fact]
    public void A_mark_is_seen_in_its_own_colour_and_the_face_beside_it_in_its()
    {
        var stack = new[] { Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, Brown, 2), patch with { Varied = new Varied(1) } };
        var (marked, bare) = Details.Colours(new StackView(Context(), stack).Predictions, 2);
        Assert.True(marked.ToLab().L > bare.ToLab().L + 10, $"{marked} on {bare}");
    }

    [Fact]
    public void A_face_is_as_large_as_its_zone_and_as_long_as_it_was_measured_or_its_edges_say()
    {
        var plain = ZoneSurface.Of(SurfaceKind.Plain, 56);
        var zone = Zone(areaCm2: 64) with { EdgeMm = 420 };

        // 173 × 37 mm have these edges.
        var strip = Face.Of(zone, plain, []);
        Assert.Equal((173.0, 37.0), (strip.WidthMm, strip.HeightMm));
        Assert.Equal(6400, strip.WidthMm * strip.HeightMm, 20.0);
        Assert.Equal((240.0, 26.7), (Face.Of(zone, plain, [], 240).WidthMm, Face.Of(zone, plain, [], 240).HeightMm));

        // Edges that no oblong has, or only a thread: half as wide again as high.
        var usual = Face.Of(zone with { EdgeMm = 100 }, plain, []);
        Assert.Equal(1.5, usual.WidthMm / usual.HeightMm, 0.01);
        Assert.Equal(usual.WidthMm, Face.Of(zone with { EdgeMm = 4000 }, plain, []).WidthMm);
    }

    [Fact]
    public void Joints_of_a_face_are_those_of_its_surface_and_the_upper_ones_where_it_stands_upright()
    {
        var courses = ZoneSurface.Of(SurfaceKind.Courses, 56, 20, 10);
        var upright = Face.Of(Zone() with { Orientation = new Orientation(0, 1, 0), EdgeMm = 0 }, courses, [], 200);
        Assert.Equal([10, 20], upright.Courses);
        var flat = Face.Of(Zone() with { Orientation = new Orientation(1, 0, 0), EdgeMm = 0 }, courses, [], 200);
        Assert.Equal([10, 20, 30, 40], flat.Courses);

        // Blocks that are higher than the face leave the joints across it.
        Assert.Equal([60, 120, 180], Face.Of(Zone(), ZoneSurface.Of(SurfaceKind.Courses, 56, 60, 80), [], 200).Uprights);
        var anchors = Face.Of(Zone(), courses, ["Mooring ring", "Hook"], 210).Anchors;
        Assert.Equal([("Mooring ring", 70.0), ("Hook", 140.0)], anchors.Select(a => (a.Name, a.X)));
    }

    [Fact]
    public void There_are_no_more_marks_than_leave_the_neighbour_its_places()
    {
        var face = new Face(200, 100, [new("ring", 50, 20)], [], []);
        foreach (var habit in Enum.GetValues<Habit>())
        {
            var most = MarksPlan.MostMarks(habit, face);
            Assert.InRange(most, 1, Varied.MostMarks);
            var plan = MarksPlan.For(new(habit, 3, most, 0.5), face, 1, 20);
            Assert.Equal(most, plan.Average(p => p.Marks.Count), 0.35);
            var (least, used) = MarksPlan.Uses(plan, MarksPlan.PlaceCount(habit, face));
            Assert.True(used - least <= 3, $"{habit}: {least} to {used}");
        }
    }
}
