using Lowfell.Core.Variation;

namespace Lowfell.Core.Tests.Variation;

public sealed class MarksPlanTests
{
    private static readonly Face face = new(84, 46, [(20, 10), (60, 12), (42, 20)]);

    private static IEnumerable<(VariationWish Wish, int Seed)> Thousand() =>
        from seed in Enumerable.Range(1, 1000)
        let habit = (Habit)(seed % 5)
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
}
