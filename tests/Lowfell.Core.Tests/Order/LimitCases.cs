using Lowfell.Core.Colour;
using Lowfell.Core.Drying;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Order;
using Lowfell.Core.Sight;
using static Lowfell.Core.Tests.Bench;
using static Lowfell.Core.Tests.Order.RuleExamples;

namespace Lowfell.Core.Tests.Order;

/// <summary>A context and a stack in it, bottom first.</summary>
public sealed record Laid(StackContext Context, Layer[] Stack)
{
    internal StackView View => new(Context, Stack);
}

/// <summary>
/// A limit of a rule, as painters know it, and what just misses and just passes it.
/// </summary>
/// <param name="Rule">The rule.</param>
/// <param name="Of">Which of its limits.</param>
/// <param name="Value">The figure, written down here and not read from the rule.</param>
/// <param name="At">What lies at a figure.</param>
public sealed record LimitCase(string Rule, string Of, double Value, Func<double, Laid> At)
{
    /// <summary>It speaks below the limit, and is quiet above.</summary>
    public bool Below { get; init; }

    /// <summary>How far from the limit is just beside it, as a share; counts go by one.</summary>
    public double Beside { get; init; } = 0.03;

    /// <summary>Counts: the figure itself is quiet, or speaks, as <see cref="Below"/> says.</summary>
    public bool Counted { get; init; }

    /// <summary>What counts as speaking.</summary>
    public Func<Finding, bool> Says { get; init; } = _ => true;

    public double Under => Counted ? Value - 1 : Value * (1 - Beside);

    public double Over => Counted ? Value : Value * (1 + Beside);

    public override string ToString() => $"{Rule}: {Of}";
}

internal static class LimitCases
{
    private static readonly Layer prime = Lay(Technique.Prime, Primer), ground = Lay(Technique.BaseCoat, Brown, 2), pale = Lay(Technique.BaseCoat, White, 4), satin = Lay(Technique.Varnish, Satin, 2), matt = Lay(Technique.Varnish, Matt);
    private static readonly Layer wash = Lay(Technique.AllOverWash, Wash), pin = Lay(Technique.PinWash, EnamelWash), clean = Lay(Technique.CleanUpExcess, Spirit), light = Lay(Technique.DirectionalLight, White, 2);

    private static Laid On(StackContext context, params Layer[] stack) => new(context with { Shelf = FullShelf }, stack);

    private static Laid On(params Layer[] stack) => On(Context(), stack);

    /// <summary>Of all that lies at a hand's turn, that at which something measured is at a figure; what is measured grows or falls all the way.</summary>
    private static Laid Where(Func<double, Laid> turned, Func<StackView, double> measured, double figure, double low, double high)
    {
        var grows = measured(turned(high).View) > measured(turned(low).View);
        for (var step = 0; step < 60; step++)
        {
            var middle = (low + high) / 2;
            if (measured(turned(middle).View) < figure == grows)
                low = middle;
            else
                high = middle;
        }

        var found = turned((low + high) / 2);
        var there = measured(found.View);
        Assert.True(Math.Abs(there - figure) < figure * 0.004 + 0.003, $"{there} and not {figure} at {low}");
        return found;
    }

    /// <summary>A paint of two, the second by its share.</summary>
    private static Layer Mixed(Layer layer, Material first, Material second, double share) =>
        layer with { Paint = [new MixPart(first, Parts.Of((long)Math.Round((1 - share) * 100_000), 100_000)), new MixPart(second, Parts.Of((long)Math.Round(share * 100_000), 100_000))] };

    private static double Chroma(Lab lab) => Math.Sqrt(lab.A * lab.A + lab.B * lab.B);

    private static double Apart(StackView view)
    {
        var pots = view.Context.Pots.Select(p => view.Predict(view.Layers.Select(l => l.Id == p.Layer ? l with { Paint = p.Paint } : l).ToList()).SeenWithin(view.Count, Region.All)).ToList();
        return pots[0].DifferenceTo(pots[1]).Largest();
    }

    private static double Lost(StackView view, int i) => 1 - Chroma(view.Predictions.SeenWithin(i + 1, Region.All).Raised.Lab) / Chroma(view.Predictions.SeenWithin(i, Region.All).Raised.Lab);

    private static Layer Mark(Technique technique, Material material, double lifeMm) => Lay(technique, material) with { MarkMm = lifeMm / 56 };

    private static double Flooded(StackView view, int i)
    {
        var layer = view.Layers[i];
        var below = new Reflectance(view.Predictions.Below(i, Position.Recess, layer.Region));
        var flood = Shine.Of(layer.Paint).Shown(Laying.PerUm(layer).Over(below, 4 * view.Predictions.LaidBy(i).FilmUm.Recess / layer.Coats)).ToLab();
        return ColourDifference.Ciede2000(view.Predictions.SeenWithin(i, layer.Region).Recess.Lab, flood);
    }

    private static double Change(StackView view, int i) => view.Predictions[i].LargestChange;

    private static LimitCase Size(string of, double lifeMm, Technique technique, Material material) => new("scale-size", of, lifeMm, x => On(prime, satin, Mark(technique, material, x * 1.1)));

    public static IEnumerable<LimitCase> All() => [.. Measured(), .. Predicted(), .. Waits()];

    private static IEnumerable<LimitCase> Measured()
    {
        yield return new("wash-on-flat", "a smooth face", 4, x => On(Context(Zone(Relief.Smooth, x)), prime, ground, wash, matt));
        yield return new("wash-on-flat", "a smooth face, for a caution", 6, x => On(Context(Zone(Relief.Smooth, x)), prime, ground, wash, matt)) { Says = f => f.Severity == Severity.Caution };
        yield return new("matt-frost", "relative humidity, sprayed", 0.65, x => On(Context(climate: new Climate(18, x)), prime, ground, matt with { Tool = Tool.Airbrush }));
        yield return new("matt-frost", "usual coats", 2, x => On(prime, ground, matt with { Tool = Tool.Airbrush, Strength = x }));
        yield return new("matt-frost", "usual coats brushed on deep relief", 1.5, x => On(prime, ground, matt with { Tool = Tool.Brush, Strength = x }));
        yield return new("crackle-film", "a film that cracks", 500, x => On(prime, Lay(Technique.CracklePaste, Crackle, strength: x / 1000))) { Below = true };
        yield return Size("a streak in life", 60, Technique.Streak, EnamelWash);
        yield return Size("a run of rust in life", 30, Technique.Streak, RustRun);
        yield return Size("a chip in life", 80, Technique.PaintedChip, White);
        yield return Size("a speckle in life", 40, Technique.Speckle, White);
        yield return Size("a grain in life", 60, Technique.GlueAndScatter, Sand);
        yield return new("scale-size", "times as wide, for a hint", 1.1, x => On(prime, satin, Mark(Technique.Streak, EnamelWash, 60 * x)));
        yield return new("scale-size", "times as wide, for a caution", 2, x => On(prime, satin, Mark(Technique.Streak, EnamelWash, 60 * x))) { Says = f => f.Severity == Severity.Caution };
        yield return new("same-splodge", "pieces", 4, x => On(Context() with { Pieces = (int)x }, prime, ground, Lay(Technique.Patch, White))) { Counted = true };
        yield return new("solvent-on-foam", "coats of paint that close foam", 2, x => On(Context(Zone(substrate: Substrate.Foam)), Lay(Technique.BaseCoat, Brown, (int)x), prime)) { Counted = true, Below = true };
        yield return new("unsealed-texture", "coats of varnish over crackle", 2, x => On(prime, Lay(Technique.CracklePaste, Crackle), Lay(Technique.SealTexture, Matt, (int)x), wash)) { Counted = true, Below = true };
        yield return new("render-order", "a pass against the one below", 0.9, x => On(Lay(Technique.Render, Filler, strength: 2), Lay(Technique.Render, Filler, strength: 2 * x))) { Below = true };
        yield return new("render-order", "a pass against the one below", 0.9, x => On(Lay(Technique.Render, Filler), Lay(Technique.Render, Filler, thin: new Dilution(Water, Parts.Of((decimal)x), Parts.Of(1 - (decimal)x))))) { Below = true };
        yield return new("overthinned", "rounding of typed parts", 0.005, x => On(prime, ground with { Paint = [new MixPart(Brown with { MostThinnerShare = 0.5 }, Parts.One)], Dilution = new Dilution(Water, Parts.Of(0.5m - (decimal)x), Parts.Of(0.5m + (decimal)x)) }));
        yield return new("no-barrier", "a varnish coat that is a barrier", 0.5, x => On(prime, ground, Lay(Technique.Varnish, Satin, strength: x), pin, clean)) { Below = true };
        yield return new("wet-blend", "colours meet for, at 20 °C and 50 %", 10, x => On(Context(Zone(areaCm2: x / TechniqueTable.For(Technique.WetBlend, Tool.Brush).MinutesPerCm2)), prime, Mixed(Lay(Technique.WetBlend, Brown, 2) with { Tool = Tool.Brush }, Brown, Dark, 0.5)));
        yield return new("cut-in-cost", "cutting in along a centimetre of joint", 0.06, CutIn) { Below = true };
        yield return new("coats-to-hide", "coats that are still offered", 5, x => On(prime, Lay(Technique.BaseCoat, Hiding((int)x)), matt)) { Counted = true, Below = true, Says = f => f.Remedies.Any(r => r.Id == "more-coats") };
    }

    /// <summary>Joints so long that cutting in at so many minutes a centimetre costs just what laying the recess colour first and dragging the other over it does.</summary>
    private static Laid CutIn(double minutes)
    {
        var zone = Zone(areaCm2: 60);
        var (recess, main) = (Lay(Technique.BaseCoat, Dark, region: Region.Recess), ground with { Tool = Tool.Airbrush });
        var dragged = main with { Technique = Technique.Overbrush, Tool = Tool.Brush };
        double By(Layer layer) => HandsOn.PerPiece(layer, zone);
        var more = By(recess with { Region = Region.All }) + By(dragged) - By(main) - By(recess);
        Assert.True(more > 0, $"{more}");
        return On(Context(zone with { JointMm = more / minutes * 10 }) with { Pieces = 10 }, prime, main, recess);
    }

    /// <summary>A pale paint of which it takes so many coats over the usual primer.</summary>
    private static Material Hiding(int coats)
    {
        for (var hides = 1.0; hides < 12; hides += 0.25)
        {
            var paint = Make("Pale", MaterialKind.Paint, Carrier.WaterAcrylic, "#c8c2b4", hides);
            if (Check(Context(), prime, Lay(Technique.BaseCoat, paint), matt).Any(f => f.Rule == "coats-to-hide" && f.Why.Contains($"It takes {coats} coats", StringComparison.Ordinal)))
                return paint;
        }

        throw new InvalidOperationException($"no paint takes {coats} coats");
    }

    private static IEnumerable<LimitCase> Predicted()
    {
        var rubbed = (double x) => On(prime, ground, satin, Lay(Technique.RubBack, strength: x), Lay(Technique.Streak, EnamelWash));
        yield return new("buried-barrier", "a barrier left on raised parts", 0.5, x => Where(rubbed, v => TakingAway.LeftOf(v.Layers, 2, v.Context.Zone, 4).Raised, x, 0.01, 3)) { Below = true };
        yield return new("light-buried", "contrast of the light left", 0.25, x => Where(s => On(prime, light, Lay(Technique.BaseCoat, Brown, strength: s), matt), v => PreShade.ShareLeft(v.Predictions, 1, v.Count), x, 0.02, 2)) { Below = true };
        yield return new("one-heavy-wash", "lightness taken out of the recesses", 40, x => Where(s => On(prime, pale, Lay(Technique.AllOverWash, Wash, strength: s)), v => v.Predictions.SeenWithin(2, Region.All).Recess.Lab.L - v.Predictions.SeenWithin(3, Region.All).Recess.Lab.L, x, 0.1, 3));
        yield return new("no-visible-change", "change of colour", 1, x => Where(s => On(prime, ground, Lay(Technique.Filter, WaterFilter, strength: s), matt), v => Change(v, 2), x, 0.001, 3)) { Below = true };
        yield return new("no-visible-change", "nearer nobody looks", 0.1, x => Where(mm => On(prime, ground, Lay(Technique.Speckle, White) with { MarkMm = mm }, matt), v => Details.Judge(v.Predictions, 2, 0.9, 1)!.LostBeyondMetres, x, 0.002, 0.2)) { Below = true, Beside = 0.08, Says = f => f.Why.Contains("any distance", StringComparison.Ordinal) };
        var pots = (double x) => On(Context() with { Pots = [new PotUse(ground.Id, "A", [new MixPart(Brown, Parts.One)], null, ["A1"]), new PotUse(ground.Id, "B", Mixed(ground, Brown, White, x).Paint, null, ["B1"])] }, prime, ground);
        yield return new("mixed-pots", "two pots apart", 1, x => Where(pots, Apart, x, 0.0001, 0.5));
        var lit = (double strength, double grey) => On(prime, light, Mixed(Lay(Technique.BaseCoat, Red, 3), Red, Dark, grey), Lay(Technique.DryBrush, White, strength: strength), matt);
        yield return new("modulation-over-light", "chroma lost, for a hint", 0.2, x => Where(s => lit(s, 0), v => Lost(v, 3), x, 0.01, 2));
        yield return new("modulation-over-light", "chroma lost, for a caution", 0.4, x => Where(s => lit(s, 0), v => Lost(v, 3), x, 0.01, 4)) { Says = f => f.Severity == Severity.Caution };
        yield return new("modulation-over-light", "chroma worth keeping", 15, x => Where(g => lit(1.5, g), v => Chroma(v.Predictions.SeenWithin(3, Region.All).Raised.Lab), x, 0, 0.99));
        yield return new("white-beneath", "lightness of what lies below", 60, x => Where(w => On(prime, Mixed(Lay(Technique.BaseCoat, White, 6), Dark, White, w), Lay(Technique.Patch, BrightInk)), v => v.Predictions.SeenWithin(2, Region.All).Field.Lab.L, x, 0.05, 0.999)) { Below = true };
        yield return new("white-beneath", "chroma over white", 40, x => Where(s => On(prime, Lay(Technique.BaseCoat, Dark, 4), Lay(Technique.Patch, Ink(s))), v => v.Layers[2].Main!.OnCard(1).OverWhite.ToLab().Chroma, x, 0, 1));
        var shade = (double s) => On(prime, Lay(Technique.BaseCoat, Dark, 4), Lay(Technique.AllOverWash, Shade, strength: s), matt);
        var grey = (double light, double s) => On(prime, Lay(Technique.BaseCoat, Dark, 4), Lay(Technique.AllOverWash, Grey(light), strength: s), matt);
        yield return new("too-dark-to-shade", "change that no-visible-change tells of", 1, x => Where(shade, v => Change(v, 2), x, 0.001, 2));
        yield return new("too-dark-to-shade", "change that is shading enough", 4, x => Where(s => grey(0.8, s), v => Change(v, 2), x, 0.3, 2)) { Below = true };
        yield return new("too-dark-to-shade", "change by a flood of it", 8, x => Where(s => grey(0.9, s), v => Flooded(v, 2), x, 0.1, 1)) { Below = true };
        yield return new("too-dark-to-shade", "lightness of the base", 32, x => Where(w => On(prime, Mixed(Lay(Technique.BaseCoat, Dark, 6), Dark, White, w), Lay(Technique.AllOverWash, Grey(0.9), strength: 2), matt), v => v.Predictions.SeenWithin(2, Region.All).Recess.Lab.L, x, 0.0001, 0.5)) { Below = true };
        yield return new("coats-to-hide", "its own lightness over the ground", 0.98, x => Where(s => On(prime, Lay(Technique.BaseCoat, White, 1, strength: s), matt), Own, x, 0.05, 12)) { Below = true, Beside = 0.004 };
        yield return new("same-tone-neighbours", "two zones apart from the table", 2, x => Where(Neighbouring, v => FromTheTable.Between(v.Context.Zone, v.Predictions[^1].Average, v.Context.Neighbours[0].Zone, v.Context.Neighbours[0].Mean.Value, v.Context.Set.TableMetres).Difference, x, 3, 500)) { Below = true };
    }

    private static readonly Material Shade = Made("Fen Shade", "#2c2d30");

    /// <summary>A grey wash, from black to white.</summary>
    private static Material Grey(double light) => Made("Sluice Shade", $"#{(int)(light * 255):x2}{(int)(light * 255 + 1.0 / 3):x2}{(int)(light * 255 + 2.0 / 3):x2}");

    private static Material Made(string name, string colour) => Make(name, MaterialKind.Wash, Carrier.WaterAcrylic, colour);

    private static Material Ink(double bright)
    {
        static int Between(int grey, int full, double t) => (int)Math.Round(grey + (full - grey) * t);
        return Make("Lamp Ink", MaterialKind.Ink, Carrier.WaterAcrylic, $"#{Between(0x90, 0xf0, bright):x2}{Between(0x90, 0x63, bright):x2}{Between(0x90, 0x2c, bright):x2}");
    }

    private static double Own(StackView view)
    {
        var (layer, zone) = (view.Layers[1], view.Context.Zone);
        return Core.Colour.Hiding.GroundRatio(Laying.PerUm(layer), Laying.Of(layer, zone).FilmUm.Field, new Reflectance(view.Predictions.Below(1, Position.Field, layer.Region)), Shine.Of(layer.Paint));
    }

    private static Laid Neighbouring(double metres)
    {
        Layer[] theirs = [prime, ground with { Id = Guid.NewGuid() }, matt with { Id = Guid.NewGuid() }];
        var context = Context();
        return On(Beside(context with { Set = context.Set with { TableMetres = metres } }, theirs), prime, Mixed(ground, Brown, White, 0.03), matt);
    }

    private static IEnumerable<LimitCase> Waits()
    {
        yield return new LimitCase("loose-grains", "PVA under sand, at 20 °C and 50 %", 240, x => On(Lay(Technique.GlueAndScatter, Sand, wait: x), prime)) with { Below = true };
        yield return new LimitCase("loose-grains", "instant glue under sand", 5, x => On(Lay(Technique.GlueAndScatter, Sand, wait: x) with { Paint = [new MixPart(Sand, Parts.Of(4)), new MixPart(Instant, Parts.One)] }, prime)) with { Below = true };
        yield return new LimitCase("chip-window", "top coat over the fluid", 240, x => On(prime, ground, Lay(Technique.ChippingFluid, Fluid, wait: x), Lay(Technique.BaseCoat, White, 4, wait: 60), Lay(Technique.ChipThrough)));
        yield return new LimitCase("chip-window", "chipping opens", 20, x => On(prime, ground, Lay(Technique.ChippingFluid, Fluid), Lay(Technique.BaseCoat, White, 4, wait: x), Lay(Technique.ChipThrough))) with { Below = true, Beside = 0.06 };
        yield return new LimitCase("chip-window", "chipping closes", 240, x => On(prime, ground, Lay(Technique.ChippingFluid, Fluid), Lay(Technique.BaseCoat, White, 4, wait: x), Lay(Technique.ChipThrough)));
        yield return new LimitCase("paste-then-tuft", "paste takes tufts for", 20, x => On(Lay(Technique.TexturePaste, Paste, wait: x), Lay(Technique.Tuft, Tufts)));
        yield return new LimitCase("hot-over-soft", "second coat of solvent primer, until", 60, x => On(prime with { WaitMinutes = x }, Lay(Technique.Prime, ChalkPrimer)));
        yield return new LimitCase("hot-over-soft", "second coat of solvent primer, again from", 24 * 60, x => On(prime with { WaitMinutes = x }, Lay(Technique.Prime, ChalkPrimer))) with { Below = true };
    }
}
