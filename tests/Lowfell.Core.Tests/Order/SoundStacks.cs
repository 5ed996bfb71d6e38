using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Order;
using static Lowfell.Core.Tests.Bench;
using static Lowfell.Core.Tests.Order.RuleExamples;

namespace Lowfell.Core.Tests.Order;

/// <summary>Everyday work that holds, from the bottom up, with every wait left open: nobody has a stop or a caution to say.</summary>
internal static class SoundStacks
{
    private static readonly Material oil = Make("Slow Umber", MaterialKind.Paint, Carrier.Oil, "#5b4636");

    private static Layer Prime => Lay(Technique.Prime, Primer);
    private static Layer Pale => Lay(Technique.Prime, ChalkPrimer);
    private static Layer Ground => Lay(Technique.BaseCoat, Brown, 2);
    private static Layer SatinCoat => Lay(Technique.Varnish, Satin, 2);
    private static Layer MattCoat => Lay(Technique.Varnish, Matt);
    private static Layer Shade => Lay(Technique.AllOverWash, Wash);
    private static Layer EnamelShade => Lay(Technique.AllOverWash, EnamelWash);
    private static Layer Pin => Lay(Technique.PinWash, EnamelWash);
    private static Layer Chip => Lay(Technique.ChipThrough);
    private static Layer Wipe => Lay(Technique.CleanUpExcess, Spirit);
    private static Layer Dry => Lay(Technique.DryBrush, White);
    private static Layer Sprayed(Material paint, int coats) => Lay(Technique.BaseCoat, paint, coats) with { Tool = Tool.Airbrush };

    private static StackContext On(Relief relief = Relief.Deep, Substrate substrate = Substrate.PrintedPlastic, double areaCm2 = 100, Handling handling = Handling.Careful, bool rim = false, Sheen? ends = null) =>
        Context(Zone(relief, areaCm2, substrate) with { Handling = handling, AtRim = rim, TargetSheen = ends }) with { Shelf = FullShelf };

    public static IEnumerable<(string Name, StackContext Context, Layer[] Layers)> All()
    {
        var wall = On();
        var hull = On(Relief.Smooth, areaCm2: 60);
        var ground = On(handling: Handling.HardPlay, rim: true, areaCm2: 8);

        yield return ("a wall in acrylics", wall, [Prime, Ground, Dry, MattCoat]);
        yield return ("a wall shaded with an acrylic wash", wall, [Prime, Ground, Shade, Dry, MattCoat]);
        yield return ("a wall shaded twice, thinly", wall, [Pale, Lay(Technique.BaseCoat, White, 3), Lay(Technique.AllOverWash, Wash, strength: 0.6), Lay(Technique.AllOverWash, Wash, strength: 0.6), MattCoat]);
        yield return ("a wall with an enamel pin wash, cleaned", wall, [Prime, Ground, SatinCoat, Pin, Wipe, MattCoat]);
        yield return ("a wall flooded with enamel and wiped", wall, [Prime, Ground, SatinCoat, EnamelShade with { WaitMinutes = 60 }, Wipe, MattCoat]);
        yield return ("a filter, then a pin wash", wall, [Prime, Ground, SatinCoat, Lay(Technique.Filter, EnamelFilter), SatinCoat, Pin, Wipe, MattCoat]);
        yield return ("rain streaks in enamel", wall, [Prime, Ground, SatinCoat, Lay(Technique.Streak, RustRun) with { WaitMinutes = 30 }, Wipe, MattCoat]);
        yield return ("oil dots blended", wall, [Prime, Ground, SatinCoat, Lay(Technique.Stipple, oil) with { WaitMinutes = 8 * 60 }, Wipe, MattCoat]);
        yield return ("pigments left loose in a cabinet", On(handling: Handling.Display), [Prime, Ground, MattCoat, Lay(Technique.Pigment, Dust)]);
        yield return ("pigments fixed on a handled piece", wall, [Prime, Ground, MattCoat, Lay(Technique.Pigment) with { Paint = [new MixPart(Dust, Parts.Of(2)), new MixPart(Fixer, Parts.One)] }]);
        yield return ("dust from the tip on the lower third", wall, [Prime, Ground, Shade, MattCoat, Lay(Technique.Dust, White, strength: 0.6, region: Region.LowerThird), MattCoat]);
        yield return ("mud speckled low down", wall, [Prime, Ground, Lay(Technique.Speckle, Brown, region: Region.LowerThird), MattCoat]);
        yield return ("crackle medium and one pass over it", wall, [Pale, Lay(Technique.BaseCoat, Dark, 2), Lay(Technique.CrackleMedium, CrackleCoat), Lay(Technique.BaseCoat, White), MattCoat, MattCoat]);
        yield return ("a crackled salt base", ground, [Lay(Technique.Prime, WaterPrimer), Lay(Technique.CracklePaste, Crackle, region: Region.WithinRim), SatinCoat, Shade, Dry, MattCoat, Lay(Technique.Rim, Dark, 2)]);
        yield return ("sand on PVA, sealed", ground, [Lay(Technique.GlueAndScatter) with { Paint = [new MixPart(Sand, Parts.Of(4)), new MixPart(Pva, Parts.One)], Region = Region.WithinRim, Tool = Tool.Spatula }, Lay(Technique.SealTexture, Pva), Prime, Ground, Shade, Dry, MattCoat, Lay(Technique.Tuft, Tufts), Lay(Technique.Rim, Dark, 2)]);
        yield return ("mud paste with tufts at the end", ground, [Lay(Technique.Prime, WaterPrimer), Lay(Technique.TexturePaste, Paste, region: Region.WithinRim), Lay(Technique.SealTexture, Pva), Ground, Shade, Dry, MattCoat, Lay(Technique.Tuft, Tufts), Lay(Technique.Rim, Dark, 2)]);
        yield return ("a hull with decals and a pin wash", hull, [Prime, Sprayed(Brown, 3), Lay(Technique.Varnish, Gloss), Lay(Technique.Decal, Decal), SatinCoat, Pin, Wipe, MattCoat]);
        yield return ("a hull sprayed and veiled", hull, [Prime, Sprayed(Brown, 3), SatinCoat, Lay(Technique.Filter, EnamelFilter), MattCoat]);
        yield return ("a hull chipped with a sponge", hull, [Prime, Sprayed(Brown, 3), Lay(Technique.PaintedChip, Dark), MattCoat]);
        yield return ("stripes masked and sprayed", hull, [Pale, Sprayed(White, 6), Lay(Technique.Mask), Sprayed(Dark, 3), Lay(Technique.Unmask), MattCoat]);
        yield return ("tracks with bright wear after the matt", wall, [Prime, Lay(Technique.BaseCoat, Dark, 2), Shade, MattCoat, Lay(Technique.DryBrush, Metal)]);
        yield return ("timber", On(Relief.Light), [Pale, Lay(Technique.BaseCoat, White, 3), Shade, Dry, MattCoat]);
        yield return ("a roof overbrushed in two tones", wall, [Prime, Lay(Technique.BaseCoat, Dark, 2), Lay(Technique.Overbrush, Brown), Lay(Technique.DryBrush, White), MattCoat]);
        yield return ("a card wall, sealed and rendered", On(substrate: Substrate.Board), [Lay(Technique.SealTexture, Pva, 2), Lay(Technique.Render, Filler, strength: 0.5), Lay(Technique.Render, Filler), Lay(Technique.SealTexture, Pva), Ground, Lay(Technique.BaseCoat, Brown, region: Region.Edges), Shade, Dry, MattCoat]);
        yield return ("rocks of foam", On(substrate: Substrate.Foam), [Lay(Technique.SealTexture, Pva, 2), Lay(Technique.Prime, WaterPrimer), Ground, Shade, Dry, MattCoat]);
        yield return ("window glass in gloss", On(Relief.Smooth, areaCm2: 2, ends: Sheen.Gloss), [Prime, Lay(Technique.BaseCoat, Dark, 2), Lay(Technique.Varnish, Gloss)]);
        yield return ("light from above under a thin coat", wall, [Prime, Lay(Technique.DirectionalLight, White, 2), Lay(Technique.Glaze, Brown, thin: new Dilution(Water, Parts.One, Parts.One)), MattCoat]);
        yield return ("edges lined", hull, [Prime, Sprayed(Brown, 3), Lay(Technique.EdgeLine, White), MattCoat]);
        yield return ("a coat of lacquer, cured, then weathered", hull, [Prime, Lay(Technique.BaseCoat, Lacquer, 3) with { Tool = Tool.Airbrush }, SatinCoat, Pin, Wipe, MattCoat]);
        yield return ("a rust coat chipped with fluid", hull, [Prime, Lay(Technique.BaseCoat, Red, 3), SatinCoat, Lay(Technique.ChippingFluid, Fluid), Sprayed(Brown, 4), Chip, MattCoat]);
        yield return ("a hull rubbed back along its edges", hull, [Prime, Lay(Technique.BaseCoat, Red, 3), Lay(Technique.BaseCoat, Brown, 2), Lay(Technique.RubBack), MattCoat]);
        yield return ("numbers run down with water, sealed", hull, [Prime, Lay(Technique.BaseCoat, Brown, 2), MattCoat, Lay(Technique.Marking, White), Lay(Technique.RunOff, Water), MattCoat]);
    }
}
