using Lowfell.Core.Bases;

namespace Lowfell.Core.Tests.Bases;

public sealed class ArrangerTests
{
    private static readonly BaseShape[] shapes = [new(Outline.Round, 32, 32), new(Outline.Oval, 60, 35), new(Outline.Square, 25, 25), new(Outline.Rectangle, 75, 42), new(Outline.Round, 120, 120), new(Outline.Tile, 100, 60)];

    private static BaseWish Wish(BaseShape shape, params Texture[] textures) => new(
        shape, shape.Outline == Outline.Tile ? 0 : 1.5, [new(FlatKind.Foot, -shape.ReachMm * 0.2, 0, shape.ReachMm * 0.5, shape.ReachMm * 0.22, 70), new(FlatKind.Foot, shape.ReachMm * 0.2, 0, shape.ReachMm * 0.5, shape.ReachMm * 0.22, 110)],
        textures.Length > 0 ? textures : [new(TexturePlace.Anywhere, 0.5), new(TexturePlace.ByReeds, 0.1), new(TexturePlace.Anywhere, 1)], 2.2, 3.4, 1.5);

    private static IEnumerable<(BaseWish Wish, int Seed)> Thousand() => Enumerable.Range(1, 1000).Select(seed => (Wish(shapes[seed % shapes.Length], (seed % 4) switch
    {
        0 => [new(TexturePlace.Path, 0.2), new(TexturePlace.Anywhere, 0.4), new(TexturePlace.Anywhere, 1)],
        1 => [new(TexturePlace.Puddle, 0.12), new(TexturePlace.ByFeet, 0.15), new(TexturePlace.Anywhere, 1)],
        _ => [],
    }) with
    { Planks = seed % 4 == 0 ? 1.5 : 0, Spread = seed % 11 / 10.0 }, seed));

    [Fact]
    public void A_thousand_seeds_break_no_rule_and_neighbours_differ()
    {
        foreach (var (wish, seed) in Thousand())
        {
            var tray = Arranger.Tray(wish, seed, 8);
            Assert.All(tray, p => Assert.True(Rules.Broken(p, wish).Count == 0, $"{seed}: {string.Join(' ', Rules.Broken(p, wish).Select(b => b.Words))}"));
            for (var i = 1; i < tray.Count; i++)
                foreach (var n in Arranger.Neighbours(i, wish.Columns).Where(n => n < i))
                    Assert.True(Arranger.Difference(tray[n], tray[i], wish.Shape) >= Arranger.LeastDifference, $"{seed}: {i} is like {n}");
        }
    }

    [Fact]
    public void Areas_drawn_are_areas_reckoned_with_and_as_large_as_they_were_asked_for()
    {
        foreach (var (wish, seed) in Thousand().Take(48))
        {
            var plan = Arranger.Tray(wish, seed, 1)[0];
            var areas = new Ground(wish).Of(plan);
            Assert.Equal(wish.Shape.AreaMm2, areas.Sum(a => a.AreaMm2), 1e-6);

            // What is seen of each, point by point as it is drawn.
            var (seen, all) = (new double[areas.Count], 0);
            const int Fine = 220;
            for (var i = 0; i < Fine; i++)
                for (var j = 0; j < Fine; j++)
                {
                    double x = ((i + 0.5) / Fine * 2 - 1) * wish.Shape.Half.X, y = ((j + 0.5) / Fine * 2 - 1) * wish.Shape.Half.Y;
                    if (wish.Shape.Room(x, y) < 0)
                        continue;
                    all++;
                    var top = 0;
                    while (top < areas.Count - 1 && !IsIn(areas[top], x, y))
                        top++;
                    seen[top]++;
                }

            for (var t = 0; t < areas.Count; t++)
            {
                Assert.True(Math.Abs(seen[t] / all * wish.Shape.AreaMm2 - areas[t].AreaMm2) < 0.01 * wish.Shape.AreaMm2, $"{seed}: texture {t} is drawn with {seen[t] / all:0.000}, and reckoned with {areas[t].AreaMm2 / wish.Shape.AreaMm2:0.000}");
                if (t < areas.Count - 1)
                    Assert.Equal(wish.Textures[t].Share, areas[t].AreaMm2 / wish.Shape.AreaMm2, 0.005);
            }
        }
    }

    private static bool IsIn(GroundArea area, double x, double y)
    {
        var inside = false;
        foreach (var outline in area.Outlines)
            for (int i = 0, j = outline.Count - 1; i < outline.Count; j = i++)
                if (outline[i].Y > y != outline[j].Y > y && x < (outline[j].X - outline[i].X) * (y - outline[i].Y) / (outline[j].Y - outline[i].Y) + outline[i].X)
                    inside = !inside;
        return inside;
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
        Assert.InRange(Mean(ElementKind.Rock), 2.0, 2.4);
        Assert.InRange(Mean(ElementKind.Tuft), 3.0, 3.6);
        Assert.True(tray.SelectMany(p => p.Elements).Where(e => e.Kind == ElementKind.Tuft).Select(e => e.RadiusMm).Distinct().Count() > 1);
        Assert.Contains(tray.SelectMany(p => p.Elements), e => e.Half);
    }

    [Fact]
    public void The_difference_of_bases_is_none_of_the_same_and_grows_with_what_moves()
    {
        var lean = new Lean(0.4, 0, 1);
        var (shape, plan) = (shapes[0], new BasePlan([new(ElementKind.Rock, 6, 0, 3), new(ElementKind.Tuft, -6, 4, 2)], lean));
        BasePlan Moved(double by) => plan with { Elements = [plan.Elements[0] with { X = 6 - by }, plan.Elements[1]] };
        Assert.Equal(0, Arranger.Difference(plan, plan, shape), 1e-12);
        Assert.True(Arranger.Difference(plan, Moved(2), shape) < Arranger.Difference(plan, Moved(6), shape));
        Assert.Equal(1, Arranger.Difference(plan, new BasePlan([new(ElementKind.Reed, 0, 0, 1)], lean), shape), 0.05);

        // Bare grounds differ by how they lean.
        Assert.Equal(0.8, Arranger.Difference(new([], lean), new([], lean with { X = -0.4 }), shape), 1e-9);
    }

    [Fact]
    public void What_a_hand_does_wrong_is_said_and_there_is_a_place_near_by()
    {
        var wish = Wish(shapes[0]) with { Flats = [new(FlatKind.Hull, 0, 0, 12, 6)] };
        var lean = new Lean(0.4, 0, 1, null, new Body(-8, 6, 3));
        var plan = new BasePlan([new(ElementKind.Rock, 14, 0, 3), new(ElementKind.Tuft, 0, 2, 2), new(ElementKind.Tuft, 0, 3, 2), new(ElementKind.Reed, -8, 6, 1)], lean);
        var broken = Rules.Broken(plan, wish);
        Assert.Equal([BaseFault.OverRim, BaseFault.OnFlat, BaseFault.OnFlat, BaseFault.TooClose, BaseFault.InTheOpen], broken.Select(b => b.Fault));
        Assert.Contains("hull", broken[1].Words);
        foreach (var b in broken)
        {
            var others = plan.Elements.Where((_, i) => i != b.Elements[^1]).ToList();
            var (x, y) = Rules.Nearest(plan.Elements[b.Elements[^1]], others, wish, lean)!.Value;
            Assert.True(Rules.Fits(plan.Elements[b.Elements[^1]] with { X = x, Y = y }, others, wish, lean));
        }

        Assert.Equal(BaseFault.Centred, Rules.Broken(new([new(ElementKind.Tuft, 8, 0, 1), new(ElementKind.Tuft, -8, 0, 1)], lean), wish).Single().Fault);
    }

    [Fact]
    public void Rooms_and_areas_are_those_of_the_outline()
    {
        Assert.Equal(Math.PI * 16 * 16, shapes[0].AreaMm2, 1e-9);
        Assert.Equal(25 * 25, shapes[2].AreaMm2, 1e-9);
        Assert.Equal(6, shapes[0].Room(10, 0), 1e-9);
        Assert.Equal(2.5, shapes[2].Room(10, 4), 1e-9);

        // An ellipse: against the nearest of many points of it, inside and out.
        var oval = shapes[1];
        for (var i = 0; i < 200; i++)
        {
            double x = i % 20 * 3.3 - 31, y = i / 20 * 3.9 - 17;
            var near = Enumerable.Range(0, 20_000).Min(k => Math.Sqrt(Math.Pow(30 * Math.Cos(k * Math.PI / 10_000) - x, 2) + Math.Pow(17.5 * Math.Sin(k * Math.PI / 10_000) - y, 2)));
            var inside = x * x / 900 + y * y / 306.25 <= 1;
            Assert.Equal(inside ? near : -near, oval.Room(x, y), 0.005);
        }
    }

    [Fact]
    public void Bodies_are_as_far_apart_as_they_look()
    {
        Assert.Equal(2, new Body(0, 0, 1).GapTo(new Body(5, 0, 2)), 1e-9);
        Assert.Equal(2, new Body(0, 0, 1, 10, 90).GapTo(new Body(4, 4, 1)), 1e-9);
        Assert.Equal(-2, new Body(0, 0, 1, 10).GapTo(new Body(0, 0, 1, 10, 90)), 1e-9);
        Assert.Equal(5, new Body(0, 0, 1, 4).GapTo(new Body(10, 0, 1, 2)), 1e-9);
        Assert.Equal(Math.PI * 4 + 4 * 6, new Element(ElementKind.Plank, 0, 0, 2, 6).AreaMm2, 1e-9);
        Assert.True(new Element(ElementKind.Rock, 0, -15, 3, 0, 90, true).IsWithin(shapes[0], 0.5));
        Assert.False(new Element(ElementKind.Rock, 0, -15, 3, 0, -90, true).IsWithin(shapes[0], 0.5));
    }

    [Fact]
    public void Tufts_lean_against_stones_and_never_against_each_other()
    {
        int tufts = 0, leaning = 0, clinging = 0;
        for (var seed = 1; seed <= 60; seed++)
        {
            var wish = Wish(shapes[4]) with { Rocks = 3, Tufts = 5 };
            var all = Arranger.Tray(wish, seed, 1)[0].Elements;
            bool Touches(Element tuft, Func<Element, bool> what) => all.Any(e => e != tuft && what(e) && Math.Abs(tuft.Body.GapTo(e.Body) - wish.GapMm) < 0.02);
            foreach (var tuft in all.Where(e => e.Kind == ElementKind.Tuft))
            {
                tufts++;
                leaning += Touches(tuft, e => e.Kind == ElementKind.Rock && !e.Half) ? 1 : 0;
                clinging += Touches(tuft, e => e.Kind == ElementKind.Tuft) ? 1 : 0;
            }
        }

        Assert.True(leaning > tufts / 3 && clinging < tufts / 20, $"{leaning} of {tufts} lean, {clinging} cling");
    }

    [Fact]
    public void Planks_lie_along_the_path_but_not_like_a_fence()
    {
        var off = new List<double>();
        for (var seed = 1; seed <= 60; seed++)
        {
            var plan = Arranger.Tray(Wish(shapes[4], new Texture(TexturePlace.Path, 0.2), new Texture(TexturePlace.Anywhere, 1)) with { Planks = 3 }, seed, 1)[0];
            off.AddRange(plan.Elements.Where(e => e.Kind == ElementKind.Plank).Select(e => e.Turn - plan.Lean.Path!.Value.Turn));
        }

        Assert.All(off, o => Assert.InRange(o, -13, 13));
        Assert.True(off.Count(o => Math.Abs(o) > 4) > off.Count / 2 && off.Any(o => o > 0) && off.Any(o => o < 0));
    }

    [Fact]
    public void A_base_has_a_path_or_a_puddle_only_where_one_is_wanted()
    {
        Lean Of(params Texture[] textures) => Arranger.Tray(Wish(shapes[4], textures), 5, 1)[0].Lean;
        Assert.Equal((null, null), (Of(new Texture(TexturePlace.Anywhere, 1)).Path, Of(new Texture(TexturePlace.Anywhere, 1)).Puddle));
        Assert.Null(Of(new Texture(TexturePlace.Path, 0), new Texture(TexturePlace.Puddle, 0), new Texture(TexturePlace.Anywhere, 1)).Path);
        Assert.Null(Of(new Texture(TexturePlace.Path, 0), new Texture(TexturePlace.Puddle, 0), new Texture(TexturePlace.Anywhere, 1)).Puddle);
        Assert.NotNull(Of(new Texture(TexturePlace.Path, 0.2), new Texture(TexturePlace.Anywhere, 1)).Path);
        Assert.NotNull(Of(new Texture(TexturePlace.Puddle, 0.1), new Texture(TexturePlace.Anywhere, 1)).Puddle);
    }
}
