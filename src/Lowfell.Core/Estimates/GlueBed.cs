using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;

namespace Lowfell.Core.Estimates;

/// <summary>
/// Grains and the glue they are strewn into are not stirred together: the glue lies as a bed of its own over the same area, whatever
/// parts were written.
/// </summary>
internal sealed class GlueBed
{
    /// <summary>A bed of PVA as it is brushed out under sand, and the grains upon it, µm: rules of thumb.</summary>
    private const double BedUm = 150, GrainsUm = 900;

    private readonly double glueParts, grainParts;

    private GlueBed(double glueParts, double grainParts) => (this.glueParts, this.grainParts) = (glueParts, grainParts);

    /// <summary>The bed of a layer; null where none is named.</summary>
    public static GlueBed? Of(Layer layer)
    {
        if (layer.Technique != Technique.GlueAndScatter)
            return null;
        double glue = 0, grains = 0;
        foreach (var part in layer.Paint)
            if (IsGlue(part))
                glue += part.Parts.ToDouble();
            else
                grains += part.Parts.ToDouble();
        return glue > 0 ? new GlueBed(glue, grains) : null;
    }

    /// <summary>All that is laid, for one of grains; where the layer is the bed alone, for one of the grains it would carry.</summary>
    public double OfGrains => (grainParts > 0 ? 1 : 0) + BedUm / GrainsUm;

    /// <summary>A component's share of all that is laid, 0..1.</summary>
    public double ShareOf(MixPart part) => IsGlue(part)
        ? BedUm / GrainsUm / OfGrains * part.Parts.ToDouble() / glueParts
        : part.Parts.ToDouble() / grainParts / OfGrains;

    private static bool IsGlue(MixPart part) => part.Material.Kind == MaterialKind.Glue;
}
