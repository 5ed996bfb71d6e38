using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;

namespace Lowfell.Core.Order;

/// <summary>Finds on the shelf what a remedy needs; null when the shelf has none.</summary>
internal static class ShelfPick
{
    /// <summary>A varnish that keeps solvents off, of this sheen.</summary>
    public static Material? Varnish(IEnumerable<Material> shelf, Sheen sheen) =>
        shelf.FirstOrDefault(m => m is { Kind: MaterialKind.Varnish, Carrier: Carrier.WaterAcrylic } && m.Sheen == sheen);

    /// <summary>A thinner that every one of these materials accepts.</summary>
    public static Material? Thinner(IEnumerable<Material> shelf, IEnumerable<Material> paints) =>
        shelf.FirstOrDefault(t => t.IsThinner && paints.All(p => p.Thinners.Intersect(t.Thinners).Any()));

    /// <summary>A primer that does no harm to this substrate: water-borne on foam, which solvents dissolve.</summary>
    public static Material? Primer(IEnumerable<Material> shelf, Substrate substrate) =>
        shelf.FirstOrDefault(m => m.Kind == MaterialKind.Primer && (substrate != Substrate.Foam || m.Carrier.IsWaterBorne()));

    /// <summary>The water-borne material of the same kind whose one coat over white is nearest in colour.</summary>
    public static Material? WaterBorneLike(IEnumerable<Material> shelf, Material material)
    {
        var wanted = Look(material);
        return shelf
            .Where(m => m.Kind == material.Kind && m.Carrier == Carrier.WaterAcrylic && m.Sheen == material.Sheen)
            .Concat(shelf.Where(m => m.Kind == material.Kind && m.Carrier == Carrier.WaterAcrylic))
            .MinBy(m => ColourDifference.Ciede2000(wanted, Look(m)));
    }

    /// <summary>A varnish layer ready to insert.</summary>
    public static Layer VarnishLayer(Material varnish, int coats) => new()
    {
        Technique = Technique.Varnish,
        Paint = [new MixPart(varnish, Parts.One)],
        Coats = coats,
        Tool = Tool.Airbrush,
    };

    private static Lab Look(Material m) => m.Optics.Over(Reflectance.Flat(Optics.CardWhite), 1).ToLab();
}
