using CsCheck;
using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using static Lowfell.Core.Tests.Bench;

namespace Lowfell.Core.Tests.Layers;

/// <summary>What the surface between film and air must lead to.</summary>
public sealed class SurfaceTests
{
    private static readonly Gen<SrgbColour> anyColour =
        Gen.Select(Gen.Int[0, 255], Gen.Int[0, 255], Gen.Int[0, 255], (r, g, b) => new SrgbColour((byte)r, (byte)g, (byte)b));

    private static readonly Gen<Sheen> anySheen = Gen.Enum<Sheen>();

    [Fact]
    public void Taken_off_and_put_on_again_leaves_what_was_seen() =>
        Gen.Select(Gen.Double[0.001, 0.999], Gen.Double[0, 0.03]).Sample((seen, first) =>
        {
            var surface = Surface.Of(first);
            Assert.Equal(Math.Max(seen, first), surface.Shown(Math.Max(0, surface.Inside(seen))), 1e-12);
        });

    [Fact]
    public void A_hiding_coat_shows_its_own_typed_colour_at_its_own_sheen() =>
        Gen.Select(anyColour, anySheen).Sample((colour, sheen) =>
        {
            var paint = Make("Any", MaterialKind.Paint, Carrier.WaterAcrylic, colour.ToString(), 1, sheen);
            var run = StackPrediction.Compute(Zone(Relief.Smooth), [Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, paint, 12)]);

            // What a colour loses when a smooth reflectance is found for it is not the surface's doing.
            var typed = Reflectance.Of(colour).ToLab();
            Assert.InRange(ColourDifference.Ciede2000(typed, run[1].Field.Lab), 0, 0.3);
        }, iter: 1000);

    [Fact]
    public void Nothing_is_darker_than_the_surface_on_top_allows() =>
        RandomStacks.Of(8).Sample(random =>
        {
            var run = StackPrediction.Compute(random.Zone, random.Stack.Select(l => l with { Region = Region.All }).ToList(), random.CarryOver);
            foreach (var p in Enum.GetValues<Position>())
                Assert.True(Luminance(run.SeenBelow(run.Count)[p].Lab) >= run.FirstBelow(run.Count, p) - 1e-9);
        });

    [Theory]
    [InlineData("#1d1b1a", 3)]
    [InlineData("#4a3527", 1.5)]
    [InlineData("#d8cfc0", 0.1)]
    public void Matt_over_gloss_pales_and_gloss_over_matt_deepens_most_on_dark_colours(string colour, double least)
    {
        double L(params Layer[] above) => Ending(colour, above).L;
        Layer gloss = Lay(Technique.Varnish, Gloss, 2), matt = Lay(Technique.Varnish, Matt, 2);
        Assert.True(L(gloss, matt) > L(gloss) + least);
        Assert.True(L(matt, gloss) < L(matt) - least);
        Assert.InRange(ColourDifference.Ciede2000(Ending(colour, matt), Ending(colour, gloss, matt)), 0, 0.5);
    }

    [Fact]
    public void What_is_wet_is_seen_through_a_gloss_surface()
    {
        var wash = Make("Tideline Wash", MaterialKind.Wash, Carrier.WaterAcrylic, "#6b5a45");
        var wet = StackPrediction.Compute(Zone(), [Lay(Technique.Prime, ChalkPrimer), Lay(Technique.AllOverWash, wash)])[1];
        var glossy = StackPrediction.Compute(Zone(), [Lay(Technique.Prime, ChalkPrimer), Lay(Technique.AllOverWash, wash), Lay(Technique.Varnish, Gloss, 2)])[2];
        foreach (var p in Enum.GetValues<Position>())
            Assert.InRange(ColourDifference.Ciede2000(wet.Wet[p].Lab, glossy.Seen[p].Lab), 0, 0.05);
    }

    [Theory]
    [InlineData("#6b5a45", "#7a5f3f")]
    [InlineData("#4a4038", "#8a7a5a")]
    public void A_wash_loses_less_to_near_black_than_without_a_surface(string overWhite, string ground)
    {
        var wash = Make("Any wash", MaterialKind.Wash, Carrier.WaterAcrylic, overWhite);
        var plain = Optics.FromOverWhite(Reflectance.Of(SrgbColour.Parse(overWhite)), 0.015);
        Reflectance seen = Reflectance.Of(SrgbColour.Parse(ground)), inside = Sheen.Matt.Surface().Inside(seen);
        double Real(double films) => wash.Surface.Shown(wash.Optics.Over(inside, films)).ToLab().L;
        double Plain(double films) => plain.Over(seen, films).ToLab().L;
        foreach (var films in new[] { 1, 2, 3.0 })
            Assert.True(Real(films) > Plain(films) + 0.5, $"{films} films: {Real(films):0.0} against {Plain(films):0.0}");
    }

    [Fact]
    public void A_colour_darker_than_its_sheen_allows_keeps_itself_and_lowers_its_surface()
    {
        var black = Make("Pitch", MaterialKind.Paint, Carrier.WaterAcrylic, "#0a0a0b", 1);
        Assert.True(black.Surface.First < Surface.MattFirst);
        Assert.Equal(Surface.MattFirst, Make("Slate", MaterialKind.Paint, Carrier.WaterAcrylic, "#55595a", 1).Surface.First);
    }

    private static Lab Ending(string colour, params Layer[] above)
    {
        var paint = Make("Any", MaterialKind.Paint, Carrier.WaterAcrylic, colour, 1);
        return StackPrediction.Compute(Zone(Relief.Smooth), [Lay(Technique.Prime, Primer), Lay(Technique.BaseCoat, paint, 3), .. above]) is var run ? run[run.Count - 1].Field.Lab : default;
    }

    private static double Luminance(Lab lab) => lab.L > 8 ? Math.Pow((lab.L + 16) / 116, 3) : lab.L / 903.3;

    [Fact]
    public void A_colour_darker_than_its_surface_allows_lowers_the_surface_to_four_fifths_of_it()
    {
        Assert.Equal(0.004, Surface.Of(0.015).LoweredFor(Reflectance.Flat(0.005)).First, 1e-12);
        Assert.Equal(0.015, Surface.Of(0.015).LoweredFor(Reflectance.Flat(0.2)).First, 1e-12);
    }
}
