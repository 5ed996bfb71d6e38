using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Mixing;

/// <summary>How much thinner a binder takes, as a share of the mix: rules of thumb; a material's own limit and its label win.</summary>
public static class ThinnerLimits
{
    private const double AcrylicWithWater = 1.0 / 2, AcrylicSprayed = 2.0 / 3, Lacquer = 2.0 / 3, Enamel = 2.0 / 3, Varnish = 1.0 / 3, SpiritWash = 0.95;

    /// <summary>Washes, inks and filters are mostly medium to begin with.</summary>
    private const double AlreadyThin = 3.0 / 4;

    /// <summary>The most thinner this material takes in this layer, 0..1.</summary>
    public static double Most(Material material, Layer layer)
    {
        if (material.MostThinnerShare is { } own)
            return own;
        var sprayed = layer.Tool is Tool.Airbrush or Tool.SprayCan;
        var water = layer.Dilution is { } d && !d.Thinner.Thinners.Contains(ThinnerFamily.AcrylicThinner);
        return (material.Kind, material.Carrier) switch
        {
            // Oils and enamels are washed on with hardly any paint in the thinner: the varnish over them holds them.
            (_, Carrier.Enamel or Carrier.Oil) when layer.Technique is Technique.AllOverWash or Technique.PinWash or Technique.Filter or Technique.Glaze or Technique.Streak or Technique.Speckle => SpiritWash,
            (MaterialKind.Wash or MaterialKind.Filter or MaterialKind.Ink or MaterialKind.GlazeMedium or MaterialKind.Medium, _) => AlreadyThin,
            (MaterialKind.Glue or MaterialKind.Pigment or MaterialKind.TexturePaste or MaterialKind.Filler, _) => AlreadyThin,
            (MaterialKind.Varnish, Carrier.WaterAcrylic) => Varnish,
            (_, Carrier.SolventAcrylic) => Lacquer,
            (_, Carrier.Enamel or Carrier.Oil) => Enamel,
            (_, Carrier.WaterAcrylic) => sprayed && !water ? AcrylicSprayed : AcrylicWithWater,
            _ => AlreadyThin,
        };
    }

    /// <summary>The component of a layer's mix that takes the least thinner, and how much that is; null when there is only thinner.</summary>
    public static (double Most, Material Material)? Least(Layer layer)
    {
        (double Most, Material Material)? least = null;
        foreach (var part in layer.Paint)
            if (!part.Material.IsThinner && Most(part.Material, layer) is var most && (least is null || most < least.Value.Most))
                least = (most, part.Material);
        return least;
    }

    /// <summary>The largest share of thinner in small whole parts that keeps a limit: 1/2 is 1 : 1.</summary>
    public static (int Paint, int Thinner) AsParts(double most)
    {
        var (bestPaint, bestThinner) = (10, 0);
        for (var paint = 1; paint <= 10; paint++)
        {
            for (var thinner = 1; thinner <= 10; thinner++)
            {
                var share = (double)thinner / (paint + thinner);
                if (share <= most + 1e-9 && share > (double)bestThinner / (bestPaint + bestThinner) + 1e-9)
                    (bestPaint, bestThinner) = (paint, thinner);
            }
        }

        return bestThinner == 0 ? (10, 1) : (bestPaint, bestThinner);
    }
}
