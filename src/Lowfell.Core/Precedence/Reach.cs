using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Precedence;

/// <summary>What a layer does to what lies beside it.</summary>
internal static class Reach
{
    /// <summary>It comes out of an airbrush or a can.</summary>
    public static bool IsSprayed(Layer layer) => layer.LeavesFilm && layer.Tool is Tool.Airbrush or Tool.SprayCan;

    /// <summary>A can dusts the whole piece, an airbrush what touches the zone; what is painted before the piece is put together stands apart.</summary>
    public static bool Sprays(Layer layer, PieceZone from, PieceZone on) =>
        IsSprayed(layer) && !from.Zone.BeforeAssembly && !on.Zone.BeforeAssembly && (layer.Tool == Tool.SprayCan || from.Touching.Contains(on.Id));

    /// <summary>A mask lies on what is beside a layer.</summary>
    public static bool IsMasked(IReadOnlyList<Layer> layers, int i)
    {
        for (var j = i - 1; j >= 0; j--)
            if (layers[j].Technique is Technique.Mask or Technique.Unmask)
                return layers[j].Technique == Technique.Mask;
        return false;
    }

    /// <summary>Splashes, grains, powder and what a wide brush carries over the limit of its zone.</summary>
    public static bool IsMessy(Layer layer) => layer.LeavesFilm
        && layer.Technique is Technique.AllOverWash or Technique.DryBrush or Technique.Overbrush or Technique.Dust or Technique.Pigment or Technique.Speckle
            or Technique.Sponge or Technique.TexturePaste or Technique.GlueAndScatter or Technique.CracklePaste or Technique.DirectionalLight;

    /// <summary>It is wet, or rubs, along the limit of its zone.</summary>
    public static bool Disturbs(Layer layer) => layer.LeavesFilm
        && layer.Technique is Technique.AllOverWash or Technique.Filter or Technique.Glaze or Technique.DryBrush or Technique.Overbrush or Technique.Varnish;

    /// <summary>Powder that nothing holds: what is over it at the end would wash or wipe it off.</summary>
    public static bool IsLoose(Layer layer) => layer.LeavesFilm && layer.Technique is Technique.Pigment or Technique.Dust && layer.Dilution is null
        && layer.Paint.All(p => p.Material.Kind == MaterialKind.Pigment);

    /// <summary>Nobody sees it on what lies there: the same paint, or a clear coat that shines alike.</summary>
    public static bool IsAlike(Layer sprayed, Layer finish) =>
        sprayed.Paint.Select(p => p.Material.Id).SequenceEqual(finish.Paint.Select(p => p.Material.Id))
        || (sprayed.Main is { Kind: MaterialKind.Varnish } varnish && finish.Main is { Kind: MaterialKind.Varnish } below && varnish.Sheen == below.Sheen);
}
