using System.Globalization;
using System.Text;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Words;

namespace Lowfell.Core.Drying;

/// <summary>The page about drying, written from the model itself.</summary>
public static class DryingPage
{
    private static readonly (string What, MaterialKind Kind, Carrier Carrier, Technique Technique, Tool Tool)[] rows =
    [
        ("water acrylic paint, brushed", MaterialKind.Paint, Carrier.WaterAcrylic, Technique.BaseCoat, Tool.Brush),
        ("water acrylic paint, sprayed", MaterialKind.Paint, Carrier.WaterAcrylic, Technique.BaseCoat, Tool.Airbrush),
        ("water acrylic paint, dry brush or sponge", MaterialKind.Paint, Carrier.WaterAcrylic, Technique.DryBrush, Tool.Brush),
        ("water acrylic paint, thinned to a wash", MaterialKind.Paint, Carrier.WaterAcrylic, Technique.AllOverWash, Tool.Brush),
        ("acrylic wash", MaterialKind.Wash, Carrier.WaterAcrylic, Technique.AllOverWash, Tool.Brush),
        ("water primer, brushed", MaterialKind.Primer, Carrier.WaterAcrylic, Technique.Prime, Tool.Brush),
        ("solvent primer, sprayed", MaterialKind.Primer, Carrier.SolventAcrylic, Technique.Prime, Tool.SprayCan),
        ("lacquer, sprayed", MaterialKind.Paint, Carrier.SolventAcrylic, Technique.BaseCoat, Tool.Airbrush),
        ("lacquer, brushed", MaterialKind.Paint, Carrier.SolventAcrylic, Technique.BaseCoat, Tool.Brush),
        ("water varnish, sprayed", MaterialKind.Varnish, Carrier.WaterAcrylic, Technique.Varnish, Tool.Airbrush),
        ("water varnish, brushed", MaterialKind.Varnish, Carrier.WaterAcrylic, Technique.Varnish, Tool.Brush),
        ("enamel filter", MaterialKind.Filter, Carrier.Enamel, Technique.Filter, Tool.Brush),
        ("enamel wash, pin wash", MaterialKind.Wash, Carrier.Enamel, Technique.PinWash, Tool.Brush),
        ("enamel paint", MaterialKind.Paint, Carrier.Enamel, Technique.BaseCoat, Tool.Brush),
        ("oil", MaterialKind.Paint, Carrier.Oil, Technique.Streak, Tool.Brush),
        ("ink in alcohol", MaterialKind.Paint, Carrier.Alcohol, Technique.BaseCoat, Tool.Brush),
        ("chipping fluid", MaterialKind.ChippingFluid, Carrier.WaterAcrylic, Technique.ChippingFluid, Tool.Brush),
        ("texture paste", MaterialKind.TexturePaste, Carrier.WaterAcrylic, Technique.TexturePaste, Tool.Spatula),
        ("filler render", MaterialKind.Filler, Carrier.WaterAcrylic, Technique.Render, Tool.Spatula),
        ("crackle paste", MaterialKind.CracklePaste, Carrier.WaterAcrylic, Technique.CracklePaste, Tool.Spatula),
        ("crackle medium", MaterialKind.CrackleMedium, Carrier.WaterAcrylic, Technique.CrackleMedium, Tool.Brush),
        ("PVA", MaterialKind.Glue, Carrier.PVA, Technique.SealTexture, Tool.Brush),
        ("instant glue", MaterialKind.Glue, Carrier.Cyanoacrylate, Technique.SealTexture, Tool.Brush),
        ("pigment fixer", MaterialKind.Medium, Carrier.Enamel, Technique.Pigment, Tool.Brush),
    ];

    /// <summary>Markdown: every kind, once and twice as thick, at 15 and 20 C, in still and under hot air.</summary>
    public static string Write()
    {
        var page = new StringBuilder("""
            # Drying

            Minutes, hours or days until the next coat may go on, *low – usual – high*, at 50 % relative humidity. What a label says takes the
            place of the usual figure; the label wins. Written by `./lowfell schema` from `src/Lowfell.Core/Drying`.

            | What | 15 °C | 20 °C | 20 °C, twice as thick | 20 °C, hot air | Touch, 20 °C | Cure, 20 °C |
            |---|---|---|---|---|---|---|

            """);
        foreach (var row in rows)
        {
            var once = LayerOf(row.Kind, row.Carrier, row.Technique, row.Tool, 1);
            var twice = LayerOf(row.Kind, row.Carrier, row.Technique, row.Tool, 2);
            var at20 = DryingModel.Of(once, new DryingConditions(Climate.Standard));
            var hot = DryingModel.TakesHotAir(once.Main!) && DryingTable.Laid(once.Main!, once) != DryingTable.Wash
                ? Say(DryingModel.Of(once with { Drying = DryingMode.HotAir }, new DryingConditions(Climate.Standard)).RecoatMinutes) : "no";
            page.Append(CultureInfo.InvariantCulture,
                $"| {row.What} | {Say(DryingModel.Of(once, new DryingConditions(new Climate(15, 0.5))).RecoatMinutes)} | {Say(at20.RecoatMinutes)} | {Say(DryingModel.Of(twice, new DryingConditions(Climate.Standard)).RecoatMinutes)} | {hot} | {Say(at20.TouchMinutes)} | {Say(at20.CureMinutes)} |\n");
        }

        page.Append("""

            ## Where the figures come from

            - Times and their spread at 20 °C: rules of thumb of the trade, one row each in `DryingTable`. A material's stated times stand for how
              it is usually laid and are turned to how it is laid here by the same rows.
            - Water-borne: × 2 for every 10 °C colder and × 0.5 / (1 − humidity), humidity at most 0.9. Solvent-borne: × 2 for every 15 °C, humidity none.
            - Thickness against the usual film, coats, heaviness and a stiffer paste counted: to the power 1.3, pastes and render squared;
              to the touch the last coat alone counts.
            - Sprayed thin paint, dry brush and sponge have rows of their own; what is usually sprayed takes 2.3 times as long by brush (as
              35 to 15 minutes of water acrylic).
            - On a thirsty ground × 0.7, to the touch and to the next coat. In moving air × 0.75, an estimate.
            - Hot air: water-borne only, ÷ 5 thin and ÷ 3 thick (pastes, or from one and a half usual films on), never below touch; washes only where
              the house rule allows it, crackle paste only where its label says it is heat-safe, nothing that is wet with solvent.

            ## Windows, at 20 °C

            | What | From | Until |
            |---|---|---|

            """);
        foreach (var (what, window) in Named())
            page.Append(CultureInfo.InvariantCulture, $"| {what} | {Duration.Words(window.OpensMinutes)} | {Duration.Words(window.ClosesMinutes)} |\n");
        return page.ToString().ReplaceLineEndings("\n");
    }

    private static IEnumerable<(string What, Window Window)> Named()
    {
        Layer Wet(Technique technique, Carrier carrier) => LayerOf(technique == Technique.Filter ? MaterialKind.Filter : MaterialKind.Wash, carrier, technique, Tool.Brush, 1);
        yield return ("clean up an enamel wash, smooth", Windows.CleanUp(Wet(Technique.PinWash, Carrier.Enamel), Relief.Smooth, Climate.Standard));
        yield return ("the same on light relief", Windows.CleanUp(Wet(Technique.PinWash, Carrier.Enamel), Relief.Light, Climate.Standard));
        yield return ("the same on deep relief", Windows.CleanUp(Wet(Technique.PinWash, Carrier.Enamel), Relief.Deep, Climate.Standard));
        yield return ("lift the excess of an enamel filter", Windows.CleanUp(Wet(Technique.Filter, Carrier.Enamel), Relief.Light, Climate.Standard));
        yield return ("work oil", Windows.CleanUp(Wet(Technique.PinWash, Carrier.Oil), Relief.Light, Climate.Standard));
        yield return ("move an acrylic wash", Windows.CleanUp(Wet(Technique.AllOverWash, Carrier.WaterAcrylic), Relief.Light, Climate.Standard));
        yield return ("top coat over chipping fluid", Windows.TopCoatOverFluid(Climate.Standard));
        yield return ("chip the top coat", Windows.Chipping(Climate.Standard));
        yield return ("press tufts into paste", Windows.TuftsInPaste(Climate.Standard));
        yield return ("blend colours wet", new Window(0, Order.Rules.WetBlendWindow.MeetsMinutes));
        yield return ("second coat of solvent primer, or again after 24 h", Windows.SecondPrimerCoat(Climate.Standard) with { OpensMinutes = 0 });
    }

    private static Layer LayerOf(MaterialKind kind, Carrier carrier, Technique technique, Tool tool, int coats) => new()
    {
        Technique = technique,
        Tool = tool,
        Coats = coats,
        Paint = [new(new Material { Id = Guid.Empty, Name = "", Kind = kind, Carrier = carrier, Optics = Colour.Optics.Clear, DryTimes = UsualDryTimes.For(kind, carrier) }, Mixing.Parts.One)],
    };

    private static string Say(Span3 minutes) => $"{Duration.Words(minutes.Low)} – {Duration.Words(minutes.Usual)} – {Duration.Words(minutes.High)}";
}
