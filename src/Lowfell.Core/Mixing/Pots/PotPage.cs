using System.Globalization;
using System.Text;
using Lowfell.Core.Drying;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing.Measures;
using Lowfell.Core.Words;
using static System.FormattableString;

namespace Lowfell.Core.Mixing.Pots;

/// <summary>The page about pots, written from the tables themselves.</summary>
public static class PotPage
{
    /// <summary>Kinds that keep or weigh otherwise than others of their carrier.</summary>
    private static readonly (string What, MaterialKind Kind, Carrier Carrier)[] rows =
    [
        ("water acrylic paint", MaterialKind.Paint, Carrier.WaterAcrylic), ("acrylic wash, filter or ink", MaterialKind.Wash, Carrier.WaterAcrylic),
        ("water varnish or medium", MaterialKind.Varnish, Carrier.WaterAcrylic), ("texture or crackle paste, filler", MaterialKind.TexturePaste, Carrier.WaterAcrylic),
        ("primer from a can", MaterialKind.Primer, Carrier.SolventAcrylic), ("lacquer", MaterialKind.Paint, Carrier.SolventAcrylic), ("enamel paint", MaterialKind.Paint, Carrier.Enamel),
        ("enamel wash or filter", MaterialKind.Wash, Carrier.Enamel), ("oil", MaterialKind.Paint, Carrier.Oil), ("ink in alcohol", MaterialKind.Paint, Carrier.Alcohol),
        ("PVA", MaterialKind.Glue, Carrier.PVA), ("instant glue", MaterialKind.Glue, Carrier.Cyanoacrylate), ("pigment", MaterialKind.Pigment, Carrier.Dry),
        ("sand and other grains", MaterialKind.Aggregate, Carrier.None), ("water or acrylic thinner", MaterialKind.Thinner, Carrier.WaterAcrylic), ("spirits", MaterialKind.Thinner, Carrier.Enamel),
    ];

    /// <summary>Markdown: how long a mix keeps, what a millilitre weighs, what a thinning is called, how it is sprayed.</summary>
    public static string Write()
    {
        var page = new StringBuilder("""
            # Pots

            How long a mix keeps at 20 °C and 50 % relative humidity, *low – usual – high*, and what a millilitre weighs: rules of thumb. What a
            label or a scale says takes their place; stir and look before you use what has stood. Written by `./lowfell schema` from
            `src/Lowfell.Core/Mixing`.

            | What | On a palette | On a wet palette | In a closed jar | g a ml |
            |---|---|---|---|---|

            """);
        foreach (var (what, kind, carrier) in rows)
            page.Append(CultureInfo.InvariantCulture, $"| {what} | {Keeps(kind, carrier, Vessel.Palette)} | {Keeps(kind, carrier, Vessel.WetPalette)} | {Keeps(kind, carrier, Vessel.Jar)} | {UsualMeasures.UsualDensity(kind, carrier):0.00} |\n");
        page.Append(CultureInfo.InvariantCulture, $"""

            A dropper gives drops of {UsualMeasures.DropMl} ml until a bottle is calibrated, and drops of one bottle differ by about {UsualMeasures.DropSpread:0 %}. A middling
            brush or spatula lifts {UsualMeasures.BrushLoadMl} ml of a paste.

            ## How thin

            | Called | Thickest | Usual | Thinnest | Also called |
            |---|---|---|---|---|

            """);
        foreach (var c in Reading.Consistency.All)
            page.Append(Invariant($"| {c.Names[0]} | {Say(c.Thickest)} | {Say(c.Usual)} | {Say(c.Thinnest)} | {string.Join(", ", c.Names.Skip(1))} |\n"));
        page.Append("""

            ## From an airbrush

            Where to start, and how much thinner at least. The thinner the mix and the finer the needle, the lower the pressure. The label and the
            maker of the airbrush win.

            | What | bar | Thinner at least |
            |---|---|---|

            """);
        foreach (var (what, kind, carrier) in rows.Where(r => r.Kind is MaterialKind.Paint or MaterialKind.Varnish or MaterialKind.Wash))
            if (AirbrushNote.Bands(kind, carrier, 1) is var (bar, thinner))
                page.Append(Invariant($"| {what} | {bar.Low:0.0##} – {bar.High:0.0##} | {(thinner.Low > 0 ? Invariant($"{thinner.Low:0.0 %}") : "as it comes")} |\n"));
        return page.ToString().ReplaceLineEndings("\n");
    }

    private static string Keeps(MaterialKind kind, Carrier carrier, Vessel vessel)
    {
        var life = PotLife.Usual(kind, carrier, vessel);
        return $"{Duration.Words(life.Low)} – {Duration.Words(life.Usual)} – {Duration.Words(life.High)}";
    }

    private static string Say((int Paint, int Thinner) ratio) => Invariant($"{ratio.Paint} : {ratio.Thinner}");
}
