using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Drying;

/// <summary>What dries how: minutes at 20 C, 50 % relative humidity and the usual film, low – usual – high.</summary>
/// <param name="What">In words.</param>
/// <param name="TouchMinutes">Until it can be touched.</param>
/// <param name="RecoatMinutes">Until the next coat may go on.</param>
/// <param name="CureMinutes">Until it is as hard as it gets.</param>
public sealed record DryingRow(string What, Span3 TouchMinutes, Span3 RecoatMinutes, Span3 CureMinutes)
{
    public DryTimes Usual => new(TouchMinutes.Usual, RecoatMinutes.Usual, CureMinutes.Usual);
}

/// <summary>Drying figures by what is laid and how: rules of thumb of the trade, which a material's own label overrides.</summary>
public static class DryingTable
{
    private const double Hour = 60, Day = 24 * Hour;

    public static readonly DryingRow Brushed = new("water acrylic, brushed", new(8, 15, 25), new(20, 35, 60), Hours(12, 24, 48));
    public static readonly DryingRow Sprayed = new("water acrylic, sprayed thin", new(2, 4, 8), new(10, 15, 25), Hours(12, 18, 24));
    public static readonly DryingRow Scant = new("water acrylic, dry brush or sponge", new(1, 2, 4), new(3, 8, 15), Hours(12, 24, 48));
    public static readonly DryingRow Wash = new("acrylic wash or glaze", new(20, 35, 60), new(45, 75, 150), Hours(12, 18, 24));
    public static readonly DryingRow SolventPrimer = new("spray primer, solvent", new(5, 10, 20), new(30, 60, 120), Hours(12, 24, 48));
    public static readonly DryingRow Lacquer = new("lacquer, sprayed", new(3, 8, 15), new(20, 30, 60), Hours(12, 18, 24));
    public static readonly DryingRow WaterVarnish = new("water varnish, sprayed", new(8, 15, 30), new(90, 150, 240), Hours(24, 36, 48));
    public static readonly DryingRow EnamelFilter = new("enamel filter", new(30, 60, 120), Hours(2, 4, 8), Hours(24, 36, 48));
    public static readonly DryingRow Enamel = new("enamel paint, wash or pin wash", new(20, 40, 90), Hours(8, 12, 24), Hours(24, 48, 72));
    public static readonly DryingRow Oil = new("oil, thin", Hours(6, 12, 24), Hours(24, 48, 96), new(5 * Day, 9 * Day, 14 * Day));
    public static readonly DryingRow Fluid = new("chipping fluid", new(15, 25, 40), new(15, 25, 40), Hours(4, 4, 4));
    public static readonly DryingRow Paste = new("texture paste, 1 mm", new(45, 90, 180), Hours(2, 4, 8), Hours(24, 24, 24));
    public static readonly DryingRow Render = new("filler render, a skim", new(60, 150, 240), Hours(2, 5, 8), Hours(24, 24, 24));
    public static readonly DryingRow CracklePaste = new("crackle paste, 1 mm", Hours(6, 12, 24), Hours(24, 48, 72), Hours(72, 72, 72));
    public static readonly DryingRow CrackleMedium = new("crackle medium", Hours(1, 2, 4), Hours(1, 2, 4), Hours(24, 24, 24));
    public static readonly DryingRow Pva = new("PVA under sand", new(30, 40, 90), Hours(1, 1, 4), Hours(24, 24, 24));
    public static readonly DryingRow Instant = new("instant glue", new(0.2, 1, 5), new(5, 5, 5), Hours(24, 24, 24));
    public static readonly DryingRow Fixer = new("pigment fixer", new(20, 40, 60), new(60, 90, 120), Hours(12, 12, 12));
    public static readonly DryingRow Alcohol = new("alcohol-borne", new(5, 10, 15), new(20, 30, 60), Hours(6, 12, 24));
    public static readonly DryingRow Dry = new("dry grains and what is stuck on", default, default, default);

    /// <summary>The row that a material's stated times stand in place of: how it is usually laid.</summary>
    public static DryingRow For(MaterialKind kind, Carrier carrier) => (kind, carrier) switch
    {
        (MaterialKind.CracklePaste, _) => CracklePaste,
        (MaterialKind.CrackleMedium, _) => CrackleMedium,
        (MaterialKind.TexturePaste, _) => Paste,
        (MaterialKind.Filler, _) => Render,
        (MaterialKind.ChippingFluid, _) => Fluid,
        (MaterialKind.Primer, Carrier.SolventAcrylic) => SolventPrimer,
        (MaterialKind.Varnish, Carrier.WaterAcrylic) => WaterVarnish,
        (MaterialKind.Pigment, _) or (_, Carrier.Dry) or (_, Carrier.None) => Dry,
        (MaterialKind.Filter, Carrier.Enamel) => EnamelFilter,
        (MaterialKind.Medium, Carrier.Enamel) => Fixer,
        (_, Carrier.Enamel) => Enamel,
        (_, Carrier.Oil) => Oil,
        (_, Carrier.SolventAcrylic) => Lacquer,
        (_, Carrier.PVA) => Pva,
        (_, Carrier.Cyanoacrylate) => Instant,
        (_, Carrier.Alcohol) => Alcohol,
        (MaterialKind.Wash or MaterialKind.Filter or MaterialKind.GlazeMedium or MaterialKind.Ink, _) => Wash,
        _ => Brushed,
    };

    /// <summary>The row for a material as a layer lays it: sprayed, dragged, thinned to a wash.</summary>
    public static DryingRow Laid(Material material, Layer layer)
    {
        var own = For(material.Kind, material.Carrier);
        var veils = layer.Technique is Technique.AllOverWash or Technique.PinWash or Technique.Filter or Technique.Glaze;
        if (own == Enamel)
            return layer.Technique == Technique.Filter ? EnamelFilter : own;
        if (own != Brushed && !(own == Wash && material.Kind == MaterialKind.Ink))
            return own;
        return veils || layer.PaintShare <= WashShare ? Wash
            : layer.Technique is Technique.DryBrush or Technique.Overbrush or Technique.Sponge || layer.Tool == Tool.Sponge ? Scant
            : layer.Tool is Tool.Airbrush or Tool.SprayCan ? Sprayed
            : own;
    }

    /// <summary>Every row, as the page about drying lists them.</summary>
    public static readonly IReadOnlyList<DryingRow> All =
        [Brushed, Sprayed, Scant, Wash, SolventPrimer, Lacquer, WaterVarnish, EnamelFilter, Enamel, Oil, Alcohol, Fluid, Paste, Render, CracklePaste, CrackleMedium, Pva, Instant, Fixer];

    /// <summary>Paint thinned to less than this share of the mix is a wash, whatever it is called.</summary>
    private const double WashShare = 1.0 / 3;

    private static Span3 Hours(double low, double usual, double high) => new(low * Hour, usual * Hour, high * Hour);
}
