using CsCheck;
using Lowfell.Core.Layers;
using Lowfell.Core.Variation;

namespace Lowfell.Core.Tests.Variation;

public sealed class MarksPlanTests
{
    private static readonly Face face = new(84, 46, [new("ring", 20, 10), new("bolt", 60, 12), new("hook", 42, 20)], [6, 12, 18], []);

    private static IEnumerable<(VariationWish Wish, int Seed)> Thousand() =>
        from seed in Enumerable.Range(1, 1000)
        let habit = (Habit)(seed % 6)
        select (new VariationWish(habit, 3 + seed % 7, 1.5 + seed % 2, seed % 11 / 10.0), seed);

    [Fact]
    public void No_neighbours_share_a_place_and_sizes_have_their_mean()
    {
        foreach (var (wish, seed) in Thousand())
        {
            var plan = MarksPlan.For(wish, face, seed, 24);
            for (var i = 1; i < plan.Count; i++)
                Assert.Empty(plan[i].Marks.Select(m => m.Place).Intersect(plan[i - 1].Marks.Select(m => m.Place)));
            var marks = plan.SelectMany(p => p.Marks).ToList();
            Assert.InRange(marks.Average(m => m.SizeMm) / wish.MeanMm, 0.97, 1.03);
            Assert.InRange(marks.Count / 24.0, wish.MarksAPiece - 0.1, wish.MarksAPiece + 0.1);
            Assert.All(marks, m => Assert.True(m.X >= 0 && m.X <= face.WidthMm && m.Y >= 0 && m.Y <= face.HeightMm && m.SizeMm > 0));
            if (wish.Spread >= 0.5)
                Assert.True(marks.Count(m => m.SizeMm < wish.MeanMm) > marks.Count / 2, "few are large, many small");
        }
    }

    [Fact]
    public void Over_twenty_pieces_every_place_is_used_about_equally()
    {
        foreach (var (wish, seed) in Thousand())
        {
            var places = MarksPlan.PlaceCount(wish.Habit, face);
            var plan = MarksPlan.For(wish with { MarksAPiece = places / 3.0 }, face, seed, 20).SelectMany(p => p.Marks).CountBy(m => m.Place).ToDictionary();
            var mean = plan.Values.Sum() / (double)places;
            for (var p = 0; p < places; p++)
                Assert.True(Math.Abs(plan.GetValueOrDefault(p) - mean) <= Math.Max(1, 0.15 * mean) + 1e-9, $"{seed}: place {p} is used {plan.GetValueOrDefault(p)} times of {mean:0.0}");
        }
    }

    [Fact]
    public void Adding_pieces_changes_none_before()
    {
        foreach (var (wish, seed) in Thousand().Take(100))
            Assert.Equal(MarksPlan.For(wish, face, seed, 9).SelectMany(p => p.Marks), MarksPlan.For(wish, face, seed, 30).Take(9).SelectMany(p => p.Marks));
    }

    [Fact]
    public void Shy_ones_are_all_alike_in_size_and_wild_ones_are_not()
    {
        var shy = MarksPlan.For(new(Habit.Anywhere, 5, 2, 0), face, 3, 20).SelectMany(p => p.Marks).ToList();
        var wild = MarksPlan.For(new(Habit.Anywhere, 5, 2, 1), face, 3, 20).SelectMany(p => p.Marks).ToList();
        Assert.Equal(5, shy.Min(m => m.SizeMm), 0.01);
        Assert.True(wild.Max(m => m.SizeMm) > 2 * wild.Min(m => m.SizeMm));
    }

    [Fact]
    public void Marks_lie_on_their_face_and_clear_of_each_other_while_there_is_room()
    {
        var wide = new Face(240, 130, [], [12, 24, 36, 48], []);
        foreach (var seed in Enumerable.Range(1, 1000))
        {
            var plan = MarksPlan.For(new((Habit)(seed % 5), 6, 2, seed % 11 / 10.0), wide, seed, 20);
            Assert.All(plan.SelectMany(p => p.Marks), m => Assert.True(m.X - m.SizeMm / 2 > -0.06 && m.X + m.SizeMm / 2 < 240.06 && m.Y - m.SizeMm / 2 > -0.06 && m.Y + m.SizeMm / 2 < 130.06));
            foreach (var (piece, before) in plan.Zip(plan.Prepend(new PieceMarks([]))))
                Assert.All(piece.Marks, m => Assert.All(piece.Marks.Where(o => o != m).Concat(before.Marks), o => Assert.True(MarksPlan.Overlap(m, o) == 0, $"{seed}: {m} and {o}")));
        }
    }

    [Fact]
    public void A_strip_is_one_row_of_places_and_moss_sits_on_joints()
    {
        var strip = new Face(240, 24, [], [], [30, 60, 90, 120, 150, 180, 210]);
        Assert.Equal(9, MarksPlan.PlaceCount(Habit.Anywhere, strip));

        // Both ends of the strip have no joint of their own.
        Assert.All(MarksPlan.For(new(Habit.AtJoints, 4, 2, 0.5), strip, 1, 20).SelectMany(p => p.Marks).Where(m => m.Place is not (0 or 8)), m => Assert.Contains(m.X, strip.Uprights));
        Assert.All(MarksPlan.For(new(Habit.AtJoints, 3, 2, 0.2), face with { Courses = [8, 23, 38] }, 1, 20).SelectMany(p => p.Marks), m => Assert.Contains(m.Y, new[] { 8.0, 23, 38 }));

        // One joint does not gather the marks of all places.
        Assert.True(MarksPlan.For(new(Habit.AtJoints, 4, 2, 0.5), strip with { Uprights = [150] }, 1, 20).SelectMany(p => p.Marks).Select(m => m.X).Distinct().Count() > 10);
        Assert.All(MarksPlan.For(new(Habit.FromGround, 4, 2, 0.5), strip, 1, 20).SelectMany(p => p.Marks), m => Assert.Equal(24, m.Y + m.SizeMm / 2, 0.06));
    }

    [Fact]
    public void Dealt_materials_come_out_as_they_were_asked_for_and_neighbours_differ() => Gen.Select(Gen.Int[1, 9].Array[2, 5], Gen.Int[1, 1_000_000]).Sample((parts, seed) =>
    {
        var shares = parts.Select(p => (double)p / parts.Sum()).ToList();
        var plan = Dealing.For(shares, seed, 48);
        Assert.All(plan, hand => Assert.InRange(hand.Count, 1, 2));
        Assert.All(plan.Zip(plan.Skip(1)), x => Assert.NotEqual(x.First, x.Second));
        for (var m = 0; m < shares.Count; m++)
        {
            // Where one of two or three is to be nearly everywhere, it cannot be alone on every piece.
            var most = (1 + 0.5) / 2;
            var given = plan.Sum(h => h.Contains(m) ? 1.0 / h.Count : 0) / 48;
            Assert.True(shares[m] > most || Math.Abs(given - Math.Min(shares[m], most)) < 0.08 || shares.Max() > most, $"{given} of {shares[m]}");
        }

        Assert.Equal(plan.Take(10), Dealing.For(shares, seed, 10));
    }, iter: 500);

    [Fact]
    public void What_a_plan_says_is_what_is_reckoned_with()
    {
        var zone = new Zone { Name = "Field", AreaCm2 = 100, Substrate = Substrate.PrintedPlastic };
        var patch = new Layer { Technique = Technique.Patch };
        var asked = new Varied(1, MeanMm: 8, Marks: 3, Spread: 0.6);
        var plan = MarksPlan.For(VariationWish.Of(patch, asked, zone), Face.Of(zone, ZoneSurface.Of(SurfaceKind.Plain, 56), []), 1, 400);
        var covered = plan.Sum(p => p.Marks.Sum(m => Math.PI / 4 * m.SizeMm * m.SizeMm)) / 400 / 10_000;
        Assert.Equal(covered, zone.Shares.Dot(Laying.Of(patch with { Varied = asked }, zone).Covered), covered * 0.05);

        // Where no size is said, as much is covered as without a plan.
        var usual = zone.Shares.Dot(Laying.Of(patch, zone).Covered);
        Assert.Equal(usual, zone.Shares.Dot(Laying.Of(patch with { Varied = new Varied(1) }, zone).Covered), 1e-9);
        var free = MarksPlan.For(VariationWish.Of(patch, new Varied(1), zone), Face.Of(zone, ZoneSurface.Of(SurfaceKind.Plain, 56), []), 1, 400);
        Assert.Equal(usual, free.Sum(p => p.Marks.Sum(m => Math.PI / 4 * m.SizeMm * m.SizeMm)) / 400 / 10_000, usual * 0.05);
    }

    [Fact]
    public void Marks_are_said_as_one_says_them()
    {
        var wish = new VariationWish(Habit.UnderOthers, 4, 2, 0.5);
        Assert.Equal("two: under the bolt, large; under the ring, small, faint", MarkWords.Of(new PieceMarks([new(61, 20, 6, 1, 0), new(20, 20, 2, 0.7, 1)]), wish, face));
        Assert.Equal("none", MarkWords.Of(new PieceMarks([]), wish, face));
        Assert.Equal("low left, middling", MarkWords.Of(new PlacedMark(10, 40, 4, 1, 0), wish with { Habit = Habit.Anywhere }, face));
        Assert.Equal("at the upper edge, right, middling, heavy", MarkWords.Of(new PlacedMark(70, 2, 4, 1.4, 0), wish with { Habit = Habit.AtEdges }, face));
    }

    [Fact]
    public void What_comes_from_under_others_begins_below_one_of_them_where_there_are_any()
    {
        var marks = MarksPlan.For(new VariationWish(Habit.UnderOthers, 3, 2, 0.5), face, 7, 30).SelectMany(p => p.Marks).ToList();
        var near = Math.Min(face.WidthMm, face.HeightMm) * 0.18;
        Assert.All(marks, m => Assert.Contains(face.Anchors, a => Math.Abs(m.X - a.X) <= near && m.Y >= a.Y - 2 && m.Y <= a.Y + 2 * near + 2));
        Assert.Equal(6, MarksPlan.PlaceCount(Habit.UnderOthers, face));
        Assert.Equal(MarksPlan.PlaceCount(Habit.Anywhere, face), MarksPlan.PlaceCount(Habit.UnderOthers, face with { Anchors = [] }));
    }
}
