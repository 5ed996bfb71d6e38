using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Order;
using static Lowfell.Core.Tests.Bench;

namespace Lowfell.Core.Tests.Order;

/// <summary>A stack in which a rule speaks, and the nearest harmless one, bottom first.</summary>
public sealed record RuleExample(string Rule, StackContext Context, Layer[] Fires, Layer[] Harmless)
{
    /// <summary>Where the harmless stack lies elsewhere, or the house rule is another.</summary>
    public StackContext? HarmlessContext { get; init; }

    public override string ToString() => Rule;
}

/// <summary>At least one example for every rule.</summary>
internal static class RuleExamples
{
    public static readonly Material Fluid = Made("Scuff Fluid", MaterialKind.ChippingFluid, Carrier.WaterAcrylic);
    public static readonly Material BrightInk = Made("Lamp Ink", MaterialKind.Ink, Carrier.WaterAcrylic, "#f0632c");
    public static readonly Material Pva = Made("White Glue", MaterialKind.Glue, Carrier.PVA);
    public static readonly Material Instant = Made("Instant Glue", MaterialKind.Glue, Carrier.Cyanoacrylate);
    public static readonly Material Filler = Made("Wall Filler", MaterialKind.Filler, Carrier.WaterAcrylic, "#d8d4ca");
    public static readonly Material Paste = Made("Fen Mud Paste", MaterialKind.TexturePaste, Carrier.WaterAcrylic, "#4b3d2e");
    public static readonly Material Tufts = Made("Short Reed Tufts", MaterialKind.Tuft, Carrier.None, "#9a8b52");
    public static readonly Material Decal = Made("Lock Numbers", MaterialKind.Decal, Carrier.None, "#ffffff");
    public static readonly Material CrackleCoat = Made("Crackle Coat", MaterialKind.CrackleMedium, Carrier.WaterAcrylic);
    public static readonly Material Metal = Made("Bright Wear", MaterialKind.Paint, Carrier.WaterAcrylic, "#a5a7a6") with { Lustre = Lustre.Metal };
    public static readonly Material Fixer = Made("Dust Binder", MaterialKind.Medium, Carrier.Enamel);
    public static readonly Material Medium = Made("Slow Glaze", MaterialKind.GlazeMedium, Carrier.WaterAcrylic, "#f4f1ea");
    public static readonly Material Red = Made("Rust Bloom", MaterialKind.Paint, Carrier.WaterAcrylic, "#b0381e", 2.6);
    public static readonly Material Dark = Made("Fen Black", MaterialKind.Paint, Carrier.WaterAcrylic, "#232426", 1);
    public static readonly Material RustRun = Made("Rust Run", MaterialKind.Wash, Carrier.Enamel, "#a9602c");

    public static readonly Material Ink = Made("Bright Spirit Line", MaterialKind.Paint, Carrier.Alcohol, "#a5a7a6");

    public static readonly IReadOnlyList<Material> FullShelf =
        [.. Shelf, Fluid, BrightInk, Pva, Instant, Filler, Paste, Tufts, Decal, CrackleCoat, Metal, Fixer, Medium, Red, Dark, RustRun];

    private static readonly Layer prime = Lay(Technique.Prime, Primer);
    private static readonly Layer ground = Lay(Technique.BaseCoat, Brown, 2);
    private static readonly Layer pale = Lay(Technique.BaseCoat, White, 4);
    private static readonly Layer satin = Lay(Technique.Varnish, Satin, 2);
    private static readonly Layer matt = Lay(Technique.Varnish, Matt);
    private static readonly Layer wash = Lay(Technique.AllOverWash, Wash);
    private static readonly Layer pin = Lay(Technique.PinWash, EnamelWash);
    private static readonly Layer clean = Lay(Technique.CleanUpExcess, Spirit);
    private static readonly Layer filter = Lay(Technique.Filter, EnamelFilter);

    private static StackContext At(Zone? zone = null, HouseRules? rules = null, Climate? climate = null) => Context(zone, rules, climate) with { Shelf = FullShelf };

    private static Layer Again(Layer layer) => layer with { Id = Guid.NewGuid() };

    private static PotUse Pot(Layer layer, string label, params Material[] paint) => new(layer.Id, label, paint.Select(m => new MixPart(m, Parts.One)).ToList(), null, [label + "1"]);

    public static IEnumerable<RuleExample> All()
    {
        var board = At(Zone(substrate: Substrate.Board));
        var handled = At(Zone() with { Handling = Handling.HardPlay });
        var shut = At(Zone() with { BeforeAssembly = true });
        var airbrushed = Lay(Technique.BaseCoat, Brown, 3) with { Tool = Tool.Airbrush };
        var brushed = Lay(Technique.Prime, WaterPrimer) with { Tool = Tool.Brush };
        var fresh = Lay(Technique.Render, Filler, strength: 1.5);
        var light = Lay(Technique.DirectionalLight, White, 2);
        var red = Lay(Technique.BaseCoat, Red, 3);

        yield return new("bare-ground", At(), [ground, matt], [prime, ground, matt]);
        yield return new("bare-ground", At(), [prime, Lay(Technique.GlueAndScatter, Sand), ground, matt], [Lay(Technique.GlueAndScatter, Sand), prime, ground, matt]);
        yield return new("solvent-on-foam", At(Zone(substrate: Substrate.Foam)), [prime, ground], [Lay(Technique.SealTexture, Pva, 2), prime, ground]);
        yield return new("thirsty-edge", board, [Lay(Technique.Prime, WaterPrimer), ground], [Lay(Technique.SealTexture, Pva), Lay(Technique.Prime, WaterPrimer), ground, Lay(Technique.BaseCoat, Brown, region: Region.Edges)]);
        yield return new("thirsty-edge", board with { Zone = board.Zone with { CutEdge = true } }, [ground], [Lay(Technique.SealTexture, Pva), ground]);
        yield return new("gates-left", At(Zone(substrate: Substrate.MouldedPlastic)), [prime, ground, matt], [prime, ground, Lay(Technique.TrimAndTouchUp, Brown), matt]);
        yield return new("hot-over-soft", At(), [prime, filter, satin, Lay(Technique.BaseCoat, Lacquer)], [prime, Lay(Technique.BaseCoat, Lacquer), satin, filter]);
        yield return new("same-solvent", At(), [prime, ground, satin, filter, pin, clean, matt], [prime, ground, satin, filter, Again(satin), pin, clean, matt]);
        yield return new("no-barrier", At(), [prime, ground, pin, clean], [prime, ground, satin, pin, clean]);
        yield return new("no-barrier", At(), [prime, ground, Lay(Technique.AllOverWash, EnamelWash)], [prime, ground, filter]);
        yield return new("no-barrier", At(), [prime, ground, filter with { WaitMinutes = 20 }, clean], [prime, ground, satin, filter with { WaitMinutes = 20 }, clean]);
        yield return new("no-barrier", At(), [prime, ground, Lay(Technique.EdgeLine, Ink)], [prime, ground, satin, Lay(Technique.EdgeLine, Ink)]);
        yield return new("no-barrier", At(), [prime, ground, satin, Lay(Technique.Decal, Decal), pin, clean], [prime, ground, satin, Lay(Technique.Decal, Decal), Again(satin), pin, clean]);
        var mask = Lay(Technique.Mask);
        var off = Lay(Technique.Unmask);
        yield return new("no-protection", handled, [prime, ground, matt, Lay(Technique.PaintedChip, White)], [prime, ground, Lay(Technique.PaintedChip, White), matt]);
        yield return new("no-protection", At(), [prime, ground], [prime, ground, matt, Lay(Technique.EdgeLine, Metal), Lay(Technique.Pigment, Dust), Lay(Technique.Rim, Brown)]);
        yield return new("mask-left", At(), [prime, ground, mask, airbrushed, matt], [prime, ground, mask, airbrushed, off, matt]);
        yield return new("mask-left", At(), [prime, ground, mask, airbrushed with { WaitMinutes = 1 }, off, matt], [prime, ground, mask, airbrushed with { WaitMinutes = 30 }, off, matt]);
        yield return new("mask-left", At(), [prime, ground, mask, airbrushed with { WaitMinutes = 8 * 24 * 60 }, off, matt], [prime, ground, mask, airbrushed, off, matt]);
        yield return new("buried-colour", At(), [prime, Lay(Technique.BaseCoat, Red), Lay(Technique.BaseCoat, Dark, 4), matt], [prime, Lay(Technique.BaseCoat, Red), Lay(Technique.ChippingFluid, Fluid), Lay(Technique.BaseCoat, Dark, 4), matt]);
        yield return new("buried-colour", At(), [prime, Lay(Technique.BaseCoat, Red), Lay(Technique.BaseCoat, Dark, 4), matt], [prime, Lay(Technique.BaseCoat, Red), Lay(Technique.Overbrush, Dark), matt]);
        yield return new("buried-colour", At(), [prime, pale, Lay(Technique.BaseCoat, Dark, 4), matt], [prime, pale, mask, Lay(Technique.BaseCoat, Dark, 4), off, matt]);
        yield return new("buried-colour", At(), [prime, Lay(Technique.BaseCoat, Red), Lay(Technique.TexturePaste, Paste), matt], [prime, Lay(Technique.BaseCoat, Red), Lay(Technique.CracklePaste, Crackle), matt]);
        yield return new("mixed-carriers", At(), [prime, ground with { Paint = [new MixPart(Brown, Parts.Of(2)), new MixPart(Lacquer, Parts.One)] }], [prime, ground with { Paint = [new MixPart(Brown, Parts.Of(2)), new MixPart(White, Parts.One)] }]);
        yield return new("wrong-thinner", At(), [prime, ground with { Dilution = new Dilution(Spirit, Parts.Of(2), Parts.One) }], [prime, ground with { Dilution = new Dilution(Water, Parts.Of(2), Parts.One) }]);
        yield return new("overthinned", At(), [prime, ground with { Dilution = new Dilution(Water, Parts.One, Parts.Of(3)) }], [prime, ground with { Dilution = new Dilution(Water, Parts.One, Parts.One) }]);
        yield return new("soft-below", At(), [prime, ground with { WaitMinutes = 5 }, wash], [prime, ground with { WaitMinutes = 140 }, wash]);
        yield return new("buried-barrier", At(), [prime, ground, satin, Lay(Technique.Scratch), Lay(Technique.Streak, EnamelWash)], [prime, ground, Lay(Technique.Scratch), satin, Lay(Technique.Streak, EnamelWash)]);
        yield return new("unsealed-texture", At(), [prime, Lay(Technique.GlueAndScatter, Sand), wash], [prime, Lay(Technique.GlueAndScatter, Sand), wash]) { HarmlessContext = At(rules: new() { NaturalSand = SandColourSchool.Natural }) };
        yield return new("unsealed-texture", At(), [prime, Lay(Technique.CracklePaste, Crackle), wash], [prime, Lay(Technique.CracklePaste, Crackle), Lay(Technique.SealTexture, Matt, 2), wash]);
        yield return new("render-order", board, [fresh, Lay(Technique.Render, Filler, strength: 0.5)], [Lay(Technique.Render, Filler, strength: 0.5), fresh]);
        yield return new("crackle-film", At(), [prime, Lay(Technique.CracklePaste, Crackle, strength: 0.3)], [prime, Lay(Technique.CracklePaste, Crackle)]);
        yield return new("crackle-film", At(), [prime, Lay(Technique.CracklePaste, Crackle) with { Drying = DryingMode.HotAir }], [prime, Lay(Technique.CracklePaste, Crackle), ground with { Drying = DryingMode.HotAir }]);
        yield return new("crackle-film", At(), [prime, ground, Lay(Technique.CrackleMedium, CrackleCoat), Lay(Technique.BaseCoat, White, 2)], [prime, ground, Lay(Technique.CrackleMedium, CrackleCoat), Lay(Technique.BaseCoat, White)]);
        yield return new("crackle-film", At(), [prime, ground, Lay(Technique.CrackleMedium, CrackleCoat, wait: 20), Lay(Technique.BaseCoat, White)], [prime, ground, Lay(Technique.CrackleMedium, CrackleCoat, wait: 180), Lay(Technique.BaseCoat, White)]);
        yield return new("rim-margin", At(Zone() with { AtRim = true }), [Lay(Technique.TexturePaste, Paste), prime], [Lay(Technique.TexturePaste, Paste, region: Region.WithinRim), prime]);
        yield return new("paste-then-tuft", At(), [Lay(Technique.TexturePaste, Paste, wait: 120), Lay(Technique.Tuft, Tufts)], [Lay(Technique.TexturePaste, Paste, wait: 10), Lay(Technique.Tuft, Tufts)]);
        yield return new("paste-then-tuft", At(), [prime, ground, Lay(Technique.Tuft, Tufts), Lay(Technique.DryBrush, White)], [prime, ground, Lay(Technique.DryBrush, White), Lay(Technique.Tuft, Tufts)]);
        yield return new("loose-grains", At(), [Lay(Technique.GlueAndScatter, Sand), ground], [Lay(Technique.GlueAndScatter, Sand), Lay(Technique.SealTexture, Pva), ground]);
        yield return new("loose-grains", At(), [Lay(Technique.GlueAndScatter, Sand, wait: 20), prime], [Lay(Technique.GlueAndScatter, Sand, wait: 300), prime]);
        yield return new("wash-on-flat", At(Zone(Relief.Smooth, 60)), [prime, ground, wash, matt], [prime, ground, Lay(Technique.Filter, WaterFilter), matt]);
        yield return new("pin-on-matt", At(), [prime, ground, matt, pin, clean], [prime, ground, satin, pin, clean]);
        yield return new("filter-order", At(), [prime, ground, satin, pin, clean, Again(satin), filter, matt], [prime, ground, satin, filter, Again(satin), pin, clean, matt]);
        yield return new("clean-up-missed", At(), [prime, ground, satin, pin, matt], [prime, ground, satin, pin, clean, matt]);
        yield return new("clean-up-missed", At(), [prime, ground, satin, pin with { WaitMinutes = 600 }, clean, matt], [prime, ground, satin, pin with { WaitMinutes = 45 }, clean, matt]);
        yield return new("neighbours-wet", Beside(At(), prime with { WaitMinutes = 60 }, Lay(Technique.AllOverWash, EnamelWash)), [prime with { WaitMinutes = 75 }, wash], [prime with { WaitMinutes = 300 }, wash]);
        yield return new("one-heavy-wash", At(), [prime, pale, Lay(Technique.AllOverWash, Wash, strength: 2)], [prime, pale, Lay(Technique.AllOverWash, Wash, 2)]);
        yield return new("hot-air-wash", At(), [prime, ground, wash with { Drying = DryingMode.HotAir }], [prime, ground with { Drying = DryingMode.HotAir }, wash]);
        yield return new("hot-air-wash", At(rules: new HouseRules { HotAirOnWash = HotAirSchool.Allowed }), [prime, satin, Lay(Technique.AllOverWash, EnamelWash) with { Drying = DryingMode.HotAir }], [prime, ground, wash with { Drying = DryingMode.HotAir }]);
        yield return new("no-visible-change", At(), [prime, ground, Lay(Technique.Speckle, Brown), matt], [prime, ground, Lay(Technique.Speckle, White), matt]);
        yield return new("too-dark-to-shade", At(), [prime, Lay(Technique.BaseCoat, Dark, 2), wash, matt], [prime, ground, wash, matt]);
        yield return new("light-buried", At(), [prime, light, ground, matt], [prime, light, Lay(Technique.Filter, WaterFilter), matt]);
        yield return new("modulation-over-light", At(), [prime, light, red, Lay(Technique.DryBrush, White, 2), matt], [prime, light, red, Lay(Technique.DryBrush, White, 2), Lay(Technique.Glaze, Red), matt]);
        yield return new("coats-to-hide", At(), [prime, Lay(Technique.BaseCoat, White), matt], [prime, pale, matt]);
        yield return new("same-tone-neighbours", Beside(At(), prime, ground, matt), [prime, Again(ground), Again(matt)], [prime, pale, Again(matt)]);
        yield return new("cut-in-cost", At(Zone(areaCm2: 60)) with { Pieces = 10 }, [prime, ground, Lay(Technique.BaseCoat, Dark, region: Region.Recess)], [prime, Lay(Technique.BaseCoat, Dark), Lay(Technique.Overbrush, Brown)]);
        yield return new("out-of-reach", shut, [prime, Lay(Technique.Assemble, Instant), ground], [prime, ground, Lay(Technique.Assemble, Instant)]);
        yield return new("overspray", Beside(At(), prime, pale), [brushed, airbrushed], [brushed, Lay(Technique.Mask), airbrushed, Lay(Technique.Unmask)]);
        yield return new("chip-window", At(), [prime, ground, Lay(Technique.ChippingFluid, Fluid), satin, pale], [prime, ground, Lay(Technique.ChippingFluid, Fluid), pale, satin]);
        yield return new("chip-window", At(), [prime, ground, Lay(Technique.ChippingFluid, Fluid), Lay(Technique.BaseCoat, White, wait: 600), matt], [prime, ground, Lay(Technique.ChippingFluid, Fluid), Lay(Technique.BaseCoat, White, wait: 60), matt]);
        yield return new("chip-window", At(), [prime, ground, Lay(Technique.ChippingFluid, Fluid), Lay(Technique.BaseCoat, Lacquer)], [prime, ground, Lay(Technique.ChippingFluid, Fluid), pale]);
        yield return new("chip-window", At(), [prime, ground, Lay(Technique.ChippingFluid, Fluid), Lay(Technique.BaseCoat, White, 4, wait: 600), Lay(Technique.ChipThrough), matt], [prime, ground, Lay(Technique.ChippingFluid, Fluid), Lay(Technique.BaseCoat, White, 4, wait: 60), Lay(Technique.ChipThrough), matt]);
        yield return new("chip-window", At(), [prime, ground, pale, Lay(Technique.ChipThrough)], [prime, ground, Lay(Technique.ChippingFluid, Fluid), pale, Lay(Technique.ChipThrough)]);
        yield return new("chip-window", At(), [prime, ground, Lay(Technique.ChippingFluid, Fluid), pale, satin, Lay(Technique.ChipThrough)], [prime, ground, Lay(Technique.ChippingFluid, Fluid), pale, Lay(Technique.ChipThrough), satin]);
        yield return new("run-off-source", At(), [prime, ground, Lay(Technique.Pigment, Dust), matt, Lay(Technique.RunOff, Water)], [prime, ground, matt, Lay(Technique.Pigment, Dust), Lay(Technique.RunOff, Water)]);
        yield return new("wet-blend", At(Zone(areaCm2: 40)), [prime, Lay(Technique.WetBlend, Brown, 2) with { Drying = DryingMode.HotAir, Paint = [new(Brown, Parts.One), new(Dark, Parts.One)] }], [prime, Lay(Technique.WetBlend, Brown, 2) with { Paint = [new(Brown, Parts.One), new(Dark, Parts.One)] }]);
        yield return new("white-beneath", At(), [prime, Lay(Technique.Patch, BrightInk)], [prime, pale, Lay(Technique.Patch, BrightInk)]);
        yield return new("scale-size", At(), [prime, satin, Lay(Technique.Streak, RustRun) with { MarkMm = 3 }], [prime, satin, Lay(Technique.Streak, RustRun) with { MarkMm = 0.5 }]);

        // The same brown as a streak of mud may be twice as wide as a run of rust.
        yield return new("scale-size", At(), [prime, satin, Lay(Technique.Streak, RustRun) with { MarkMm = 0.9 }], [prime, satin, Lay(Technique.Streak, RustRun with { Name = "Mud Run" }) with { MarkMm = 0.9 }]);
        yield return new("sheen-target", At(), [prime, ground, satin], [prime, ground, matt]);
        yield return new("matt-over-metal", At(), [prime, ground, Lay(Technique.EdgeLine, Metal), matt], [prime, ground, matt, Lay(Technique.EdgeLine, Metal)]);
        yield return new("matt-frost", At(), [prime, ground, Lay(Technique.Varnish, Matt, 4)], [prime, ground, matt]);
        yield return new("matt-frost", At(climate: new Climate(18, 0.8)), [prime, ground, matt], [prime, ground, satin]);
        yield return new("pigment-sealed", handled, [prime, ground, matt, Lay(Technique.Pigment, Dust)], [prime, ground, matt, Lay(Technique.Pigment, Dust), Lay(Technique.Pigment, Fixer)]);
        yield return new("pigment-sealed", handled, [prime, ground, Lay(Technique.Pigment, Dust), matt], [prime, ground, matt, Lay(Technique.Pigment, Dust)]) { HarmlessContext = At(Zone() with { Handling = Handling.Display }) };
        yield return new("decal-bed", At(), [prime, ground, Lay(Technique.Decal, Decal), matt], [prime, ground, Lay(Technique.Varnish, Gloss), Lay(Technique.Decal, Decal), matt]);
        yield return new("decal-bed", At(), [prime, satin, Lay(Technique.Decal, Decal)], [prime, satin, Lay(Technique.Decal, Decal), matt]);
        yield return new("brittle-unsealed", handled, [prime, Lay(Technique.CracklePaste, Crackle)], [prime, Lay(Technique.CracklePaste, Crackle), Lay(Technique.Varnish, Matt, 2)]);
        yield return new("rim-last", At(), [prime, ground, Lay(Technique.Rim, Brown), wash], [prime, ground, wash, Lay(Technique.Rim, Brown)]);
        yield return new("mixed-pots", At() with { Pots = [Pot(ground, "A", Brown), Pot(ground, "B", Brown, White)] }, [prime, ground], [prime, ground]) { HarmlessContext = At() with { Pots = [Pot(ground, "A", Brown), Pot(ground, "B", Brown)] } };
        yield return new("same-splodge", At() with { Pieces = 8 }, [prime, ground, Lay(Technique.Patch, White)], [prime, ground, Lay(Technique.Patch, White) with { Varied = new Varied(7) }]);
        yield return new("caution-notes", At(), [prime with { Drying = DryingMode.HotAir }, ground], [Lay(Technique.Prime, WaterPrimer) with { Tool = Tool.Brush }, ground]);
        yield return new("caution-notes", At(rules: new HouseRules { SolventProducts = SolventSchool.WaterOnly }), [prime, ground], [Lay(Technique.Prime, WaterPrimer) with { Tool = Tool.Brush }, ground]);
    }

    private static Material Made(string name, MaterialKind kind, Carrier carrier, string? colour = null, double? hides = null) => Make(name, kind, carrier, colour, hides);
}
