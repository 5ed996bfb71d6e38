using Lowfell.Core.Bases;
using Lowfell.Core.Layers;

namespace Lowfell.Core.Tests.Bases;

/// <summary>Where the textures of a base lie: each where it belongs.</summary>
public sealed class GroundTests
{
    private static readonly BaseShape round = new(Outline.Round, 40, 40);

    private static BaseWish Wish(params Texture[] textures) => new(round, 1, [new(FlatKind.Foot, 0, 6, 8, 4)], textures, 2, 2, 3);

    private static readonly BasePlan plan = new([new(ElementKind.Rock, -10, 0, 4), new(ElementKind.Reed, 10, 0, 1.5), new(ElementKind.Tuft, 0, -12, 2)], new Lean(-0.5, 0, 7, new Body(0, 0, 3, 60, 90), new Body(8, -8, 4)));

    /// <summary>Whether a point is within what is drawn of a texture.</summary>
    private static bool At(GroundArea area, double x, double y) => area.Outlines.Count(o =>
    {
        var inside = false;
        for (int i = 0, j = o.Count - 1; i < o.Count; j = i++)
            if (o[i].Y > y != o[j].Y > y && x < (o[j].X - o[i].X) * (y - o[i].Y) / (o[j].Y - o[i].Y) + o[i].X)
                inside = !inside;
        return inside;
    }) % 2 == 1;

    [Theory]
    [InlineData(TexturePlace.ByReeds, 10, 0, -10, 0)]
    [InlineData(TexturePlace.ByRocks, -10, 0, 12, 0)]
    [InlineData(TexturePlace.ByFeet, 0, 6, 0, -15)]
    [InlineData(TexturePlace.Path, 0, 10, 14, 0)]
    [InlineData(TexturePlace.Puddle, 8, -8, -10, 8)]
    public void A_texture_lies_where_it_belongs(TexturePlace place, double x, double y, double notX, double notY)
    {
        var area = new Ground(Wish(new(place, 0.12), new(TexturePlace.Anywhere, 1))).Of(plan)[0];
        Assert.Equal(0.12 * round.AreaMm2, area.AreaMm2, 0.01 * round.AreaMm2);
        Assert.True(At(area, x, y), $"{place} is not at {x}, {y}");
        Assert.False(At(area, notX, notY), $"{place} is at {notX}, {notY}");
    }

    [Fact]
    public void Reeds_that_are_not_there_leave_their_texture_to_the_tufts()
    {
        var bare = plan with { Elements = [plan.Elements[2]] };
        Assert.True(At(new Ground(Wish(new(TexturePlace.ByReeds, 0.1), new(TexturePlace.Anywhere, 1))).Of(bare)[0], 0, -12));

        // Nothing stands there at all: where the composition leans to.
        Assert.True(At(new Ground(Wish(new(TexturePlace.ByReeds, 0.1), new(TexturePlace.Anywhere, 1))).Of(plan with { Elements = [] })[0], -10, 0));
    }

    [Fact]
    public void Shares_are_kept_however_many_textures_there_are()
    {
        Texture[] many = [new(TexturePlace.Path, 0.1), new(TexturePlace.Puddle, 0.1), new(TexturePlace.ByFeet, 0.1), new(TexturePlace.ByRocks, 0.15), new(TexturePlace.Anywhere, 0.3), new(TexturePlace.Anywhere, 1)];
        var areas = new Ground(Wish(many)).Of(plan);
        Assert.Equal([0.1, 0.1, 0.1, 0.15, 0.3, 0.25], areas.Select(a => Math.Round(a.AreaMm2 / round.AreaMm2, 2)));
        Assert.Empty(areas[^1].Outlines);
        Assert.Equal(round.AreaMm2, areas.Sum(a => a.AreaMm2), 1e-6);
    }

    [Fact]
    public void A_texture_without_a_share_is_not_drawn_and_one_alone_is_the_ground()
    {
        var areas = new Ground(Wish(new(TexturePlace.Anywhere, 0), new(TexturePlace.Anywhere, 1))).Of(plan);
        Assert.Equal(0, areas[0].AreaMm2);
        Assert.Empty(areas[0].Outlines);
        Assert.Equal(round.AreaMm2, new Ground(Wish(new Texture(TexturePlace.Anywhere, 1))).Of(plan).Single().AreaMm2, 1e-6);
    }

    [Fact]
    public void The_same_base_has_the_same_ground_and_another_has_another()
    {
        var ground = new Ground(Wish(new(TexturePlace.Anywhere, 0.5), new(TexturePlace.Anywhere, 1)));
        Assert.Equal(ground.Of(plan)[0].Outlines.SelectMany(o => o), ground.Of(plan)[0].Outlines.SelectMany(o => o));
        Assert.NotEqual(ground.Of(plan)[0].Outlines.SelectMany(o => o), ground.Of(plan with { Lean = plan.Lean with { Seed = 8 } })[0].Outlines.SelectMany(o => o));
    }

    [Fact]
    public void Nothing_stands_in_a_path_or_a_puddle_and_planks_lie_along_the_path()
    {
        var wish = Wish(new(TexturePlace.Path, 0.2), new(TexturePlace.Anywhere, 1)) with { Planks = 2, Shape = new(Outline.Round, 60, 60) };
        foreach (var seed in Enumerable.Range(1, 60))
        {
            var laid = Arranger.Tray(wish, seed, 1)[0];
            var path = laid.Lean.Path!.Value;
            foreach (var e in laid.Elements)
                if (e.Kind == ElementKind.Plank)
                    Assert.InRange(Math.Abs((e.Turn - path.Turn) % 180), 0, 13);
                else
                    Assert.True(e.Body.GapTo(path) > -0.03, $"{seed}: {e.Kind} on the path");
        }
    }

    [Theory]
    [InlineData(Handling.Display, 0.5)]
    [InlineData(Handling.Careful, 1)]
    [InlineData(Handling.HardPlay, 2)]
    public void The_harder_a_base_is_handled_the_wider_its_rim(Handling handling, double mm) => Assert.Equal(mm, BaseWish.MarginFor(handling));

    [Fact]
    public void Neighbours_in_a_tray_are_beside_and_in_the_rows_set_off_by_half()
    {
        Assert.Equal([1, 6], Arranger.Neighbours(0, 6).Order());
        Assert.Equal([1, 3, 7, 8], Arranger.Neighbours(2, 6).Order());
        Assert.Equal([1, 2, 6, 8, 13, 14], Arranger.Neighbours(7, 6).Order());
        foreach (var a in Enumerable.Range(0, 24))
            Assert.All(Arranger.Neighbours(a, 6), b => Assert.Contains(a, Arranger.Neighbours(b, 6)));
    }

    [Fact]
    public void From_the_rim_the_way_in_leads_inwards()
    {
        foreach (var shape in new BaseShape[] { round, new(Outline.Oval, 60, 30), new(Outline.Rectangle, 50, 30) })
            foreach (var turn in Enumerable.Range(0, 12))
            {
                var (x, y) = (Math.Cos(turn * Math.PI / 6) * shape.Half.X * 0.95, Math.Sin(turn * Math.PI / 6) * shape.Half.Y * 0.95);
                var (ix, iy) = shape.Inward(x, y);
                Assert.Equal(1, Math.Sqrt(ix * ix + iy * iy), 1e-6);
                Assert.True(shape.Room(x + ix * 0.1, y + iy * 0.1) > shape.Room(x, y));
            }
    }
}
