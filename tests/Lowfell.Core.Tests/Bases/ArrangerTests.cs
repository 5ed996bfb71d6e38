using Lowfell.Core.Bases;

namespace Lowfell.Core.Tests.Bases;

public sealed class ArrangerTests
{
    private static readonly BaseShape[] shapes = [new(Outline.Round, 32, 32), new(Outline.Oval, 60, 35), new(Outline.Square, 25, 25), new(Outline.Rectangle, 75, 42), new(Outline.Round, 120, 120)];

    private static BaseWish Wish(BaseShape shape) => new(shape, 1.5, [new(0, 0, shape.ReachMm * 0.3)], 2.2, 3.4, 1.5);

    [Fact]
    public void A_thousand_seeds_break_no_rule_and_neighbours_differ()
    {
        for (var seed = 1; seed <= 1000; seed++)
        {
            var wish = Wish(shapes[seed % shapes.Length]);
            var tray = Arranger.Tray(wish, seed, 3);
            Assert.All(tray, p => Assert.True(Rules.Broken(p, wish).Count == 0, $"{seed}: {string.Join(' ', Rules.Broken(p, wish))}"));
            for (var i = 1; i < tray.Count; i++)
                Assert.True(Arranger.Difference(tray[i - 1], tray[i], wish.Shape) >= Arranger.LeastDifference, $"{seed}: {i} is like the one before");
        }
    }

    [Fact]
    public void Adding_bases_changes_none_and_the_same_seed_is_the_same_tray()
    {
        var wish = Wish(shapes[0]);
        foreach (var seed in new[] { 1, 7, 4711 })
        {
            var (few, many) = (Arranger.Tray(wish, seed, 8), Arranger.Tray(wish, seed, 24));
            Assert.Equal(few.SelectMany(p => p.Elements), many.Take(8).SelectMany(p => p.Elements));
        }

        Assert.NotEqual(Arranger.Tray(wish, 1, 1)[0].Elements, Arranger.Tray(wish, 2, 1)[0].Elements);
    }

    [Fact]
    public void Over_a_tray_there_is_as_much_as_was_wished_for()
    {
        var wish = Wish(shapes[4]);
        var tray = Enumerable.Range(1, 20).SelectMany(seed => Arranger.Tray(wish, seed, 24)).ToList();
        double Mean(ElementKind kind) => tray.Average(p => p.Elements.Count(e => e.Kind == kind));
        Assert.InRange(Mean(ElementKind.Rock), 2.0, 2.3);
        Assert.InRange(Mean(ElementKind.Tuft), 3.0, 3.5);
        Assert.True(tray.SelectMany(p => p.Elements).Where(e => e.Kind == ElementKind.Tuft).Select(e => e.RadiusMm).Distinct().Count() > 1);
    }

    [Fact]
    public void The_difference_of_bases_is_none_of_the_same_and_grows_with_what_moves()
    {
        var (shape, plan) = (shapes[0], new BasePlan([new(ElementKind.Rock, 6, 0, 3), new(ElementKind.Tuft, -6, 4, 2)]));
        BasePlan Moved(double by) => new([plan.Elements[0] with { X = 6 - by }, plan.Elements[1]]);
        Assert.Equal(0, Arranger.Difference(plan, plan, shape), 1e-12);
        Assert.True(Arranger.Difference(plan, Moved(2), shape) < Arranger.Difference(plan, Moved(6), shape));
        Assert.Equal(1, Arranger.Difference(plan, new BasePlan([new(ElementKind.Reed, 0, 0, 1)]), shape), 0.05);
    }

    [Fact]
    public void What_a_hand_does_wrong_is_said()
    {
        var wish = Wish(shapes[0]);
        var broken = Rules.Broken(new BasePlan([new(ElementKind.Rock, 14, 0, 3), new(ElementKind.Tuft, 0, 2, 2), new(ElementKind.Tuft, 0, 3, 2)]), wish);
        Assert.Contains("A rock lies over the rim.", broken);
        Assert.Contains("A tuft lies where something is to stand.", broken);
        Assert.Contains("A tuft and a tuft are too close.", broken);
    }

    [Fact]
    public void Areas_are_those_of_the_outline()
    {
        Assert.Equal(Math.PI * 16 * 16, shapes[0].AreaMm2, 1e-9);
        Assert.Equal(25 * 25, shapes[2].AreaMm2, 1e-9);
        Assert.Equal(22 * 22, shapes[2].AreaWithin(1.5), 1e-9);
    }
}
