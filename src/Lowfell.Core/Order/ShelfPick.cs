using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;

namespace Lowfell.Core.Order;

/// <summary>Finds on the shelf what a remedy needs; null when the shelf has none.</summary>
public static class ShelfPick
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

    /// <summary>
    /// A layer done with something water-borne that keeps its purpose, and what that is: a wash stays a wash, a thinned coat is thinned as
    /// far as the new binder lets it.
    /// </summary>
    public static (Layer Layer, Material Material)? WaterBorne(IReadOnlyList<Material> shelf, Layer layer)
    {
        var main = layer.Main!;
        var thin = layer.Technique is Technique.AllOverWash or Technique.PinWash or Technique.Filter or Technique.Glaze or Technique.Streak or Technique.Speckle;
        var other = !thin || main.Kind is MaterialKind.Wash or MaterialKind.Filter or MaterialKind.Ink ? Like(shelf, main, Carrier.WaterAcrylic)
            : Like(shelf, main with { Kind = MaterialKind.Wash }, Carrier.WaterAcrylic) ?? Like(shelf, main with { Kind = MaterialKind.Filter }, Carrier.WaterAcrylic);
        if (other is null)
            return null;
        var instead = layer with { Paint = [new MixPart(other, Parts.One)], Dilution = null };
        if (thin || layer.PaintShare >= 1 || Thinner(shelf, [other]) is not { } thinner)
            return (instead, other);
        var planned = layer.WithThinnerApart().Dilution!;
        var kept = planned with { Thinner = thinner };
        var most = ThinnerLimits.Most(other, instead with { Dilution = kept });
        var (p, t) = ThinnerLimits.AsParts(most);
        return (instead with { Dilution = 1 - kept.PaintShare <= most ? kept : new Dilution(thinner, Parts.Of(p), Parts.Of(t)) }, other);
    }

    /// <summary>The material of another carrier, but the same kind and lustre, whose one coat over white is nearest in colour.</summary>
    public static Material? Like(IEnumerable<Material> shelf, Material material, Carrier carrier)
    {
        var wanted = Look(material);
        var like = shelf.Where(m => m.Kind == material.Kind && m.Lustre == material.Lustre && m.Carrier == carrier).ToList();
        return Likely(like.Where(m => m.Sheen == material.Sheen), wanted).Concat(Likely(like, wanted)).MinBy(m => ColourDifference.Ciede2000(wanted, Look(m)));
    }

    /// <summary>A paint of about the same hue, two steps lighter.</summary>
    public static Material? Lighter(IEnumerable<Material> shelf, Material paint)
    {
        const double twoSteps = 16;
        var from = paint.Masstone().ToLab();
        var wanted = new Lab(from.L + twoSteps, from.A, from.B);
        return Likely(shelf.Where(m => m.Kind == MaterialKind.Paint && m.Carrier == paint.Carrier), wanted).Where(m => m.Masstone().ToLab().L > from.L + twoSteps / 2)
            .MinBy(m => ColourDifference.Ciede2000(wanted, m.Masstone().ToLab()));
    }

    /// <summary>A varnish of this sheen, else the nearest there is.</summary>
    public static Material? VarnishOrNear(IEnumerable<Material> shelf, Sheen sheen) =>
        Varnish(shelf, sheen) ?? Varnish(shelf, Sheen.Satin) ?? Varnish(shelf, Sheen.Gloss) ?? Varnish(shelf, Sheen.Matt);

    /// <summary>Something water-borne that closes a thirsty or soft ground: PVA first, then varnish, then primer.</summary>
    public static Material? Sealer(IReadOnlyList<Material> shelf) =>
        shelf.FirstOrDefault(m => m is { Kind: MaterialKind.Glue, Carrier: Carrier.PVA }) ?? VarnishOrNear(shelf, Sheen.Matt)
        ?? shelf.FirstOrDefault(m => m.Kind == MaterialKind.Primer && m.Carrier.IsWaterBorne());

    /// <summary>A clear medium that goes with a carrier.</summary>
    public static Material? Medium(IEnumerable<Material> shelf, Carrier carrier) =>
        shelf.FirstOrDefault(m => m.Kind is MaterialKind.Medium or MaterialKind.GlazeMedium && m.Carrier == carrier);

    /// <summary>What fixes pigments: a medium, else a thinner that pigments take; water last, since it beads.</summary>
    public static Material? Fixer(IReadOnlyList<Material> shelf) =>
        shelf.FirstOrDefault(m => m.Kind == MaterialKind.Medium)
        ?? shelf.FirstOrDefault(m => m.IsThinner && m.Thinners.Contains(ThinnerFamily.WhiteSpirit))
        ?? shelf.FirstOrDefault(m => m.IsThinner && m.Thinners.Contains(ThinnerFamily.Water));

    /// <summary>A layer of one material, laid as it usually is.</summary>
    public static Layer LayerOf(Technique technique, Material material, int coats = 1) => new()
    {
        Technique = technique,
        Paint = [new MixPart(material, Parts.One)],
        Coats = coats,
        Tool = TechniqueTable.For(technique).UsualTool,
    };

    /// <summary>A varnish layer ready to insert.</summary>
    public static Layer VarnishLayer(Material varnish, int coats) => new()
    {
        Technique = Technique.Varnish,
        Paint = [new MixPart(varnish, Parts.One)],
        Coats = coats,
        Tool = Tool.Airbrush,
    };

    /// <summary>
    /// Of a large shelf the materials entered nearest to a colour, and all those entered without one: working out the optics of
    /// thousands to compare them exactly would take seconds, and none further off could win.
    /// </summary>
    public static IEnumerable<Material> Likely(IEnumerable<Material> materials, Lab wanted)
    {
        const int few = 120;
        var all = materials.ToList();
        return all.Count <= few ? all : all.OrderBy(m => m.Entered is { } entered ? wanted.DistanceTo(entered) : 0).Take(few);
    }

    private static Lab Look(Material m) => m.OnCard(1).OverWhite.ToLab();
}
