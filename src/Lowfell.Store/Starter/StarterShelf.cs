using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Order;
using Lowfell.Store.Rows;

namespace Lowfell.Store.Starter;

/// <summary>A dozen plain materials for a workshop with an empty shelf, to be replaced by the real pots.</summary>
public static class StarterShelf
{
    private const string Dark = "Plain near-black";

    public static IEnumerable<MaterialRow> Materials(Guid workshop)
    {
        MaterialRow M(string name, MaterialKind kind, string? colour = null, double? hides = null, Sheen sheen = Sheen.Matt, double solids = 0.42) => Row(workshop, name, kind, Carrier.WaterAcrylic, colour, hides, sheen, solids);
        yield return M("Plain grey primer", MaterialKind.Primer, "#7c7d7b", 1.5);
        yield return M("Plain stone grey", MaterialKind.Paint, "#86837a", 2);
        yield return M("Plain earth brown", MaterialKind.Paint, "#5a4331", 1.6);
        yield return M("Plain dull green", MaterialKind.Paint, "#55604a", 2);
        yield return M("Plain off-white", MaterialKind.Paint, "#ded8c9", 3);
        yield return M("Plain near-black", MaterialKind.Paint, "#262728", 1);
        yield return M("Plain brown wash", MaterialKind.Wash, "#94795a", solids: 0.12);
        yield return M("Plain black wash", MaterialKind.Wash, "#8b8987", solids: 0.12);
        yield return M("Plain matt varnish", MaterialKind.Varnish, solids: 0.35);
        yield return M("Plain satin varnish", MaterialKind.Varnish, sheen: Sheen.Satin, solids: 0.35);
        yield return M("Plain gloss varnish", MaterialKind.Varnish, sheen: Sheen.Gloss, solids: 0.38);
        var water = M("Water", MaterialKind.Thinner, solids: 0);
        water.Thinners = [ThinnerFamily.Water];
        yield return water;
    }

    /// <summary>
    /// A stack to start from on any zone: prime, ground colour, wash, dry brush, seal. Where the house gives recesses their colour first,
    /// deep relief gets it all over and the ground colour is dragged over it.
    /// </summary>
    public static IEnumerable<(Technique Technique, string Material, int Coats)> Stack(Relief relief, string ground, HouseRules rules) =>
        relief == Relief.Deep && rules.RecessColour == RecessSchool.Before && ground != Dark
            ?
            [
                (Technique.Prime, "Plain grey primer", 2), (Technique.BaseCoat, Dark, 1), (Technique.Overbrush, ground, 2),
                (Technique.DryBrush, "Plain off-white", 1), (Technique.Varnish, "Plain matt varnish", 1),
            ]
        : relief == Relief.Smooth
            ? [(Technique.Prime, "Plain grey primer", 2), (Technique.BaseCoat, ground, 2), (Technique.Filter, "Plain brown wash", 1), (Technique.Varnish, "Plain matt varnish", 1)]
            :
            [
                (Technique.Prime, "Plain grey primer", 2), (Technique.BaseCoat, ground, 2), (Technique.AllOverWash, "Plain black wash", 1),
                (Technique.DryBrush, "Plain off-white", 1), (Technique.Varnish, "Plain matt varnish", 1),
            ];

    private static MaterialRow Row(Guid workshop, string name, MaterialKind kind, Carrier carrier, string? colour, double? hides, Sheen sheen, double solids)
    {
        var dry = UsualDryTimes.For(kind, carrier);
        return new MaterialRow
        {
            WorkshopId = workshop,
            Name = name,
            Maker = "",
            Kind = kind,
            Carrier = carrier,
            Colour = colour,
            CoatsToHide = (decimal?)hides,
            Sheen = sheen,
            SolidsFraction = (decimal)solids,
            Thinners = [.. carrier.UsualThinners()],
            StockMl = 20,
            PackMl = 20,
            HeatSafe = true,
            TouchMinutes = (decimal)dry.TouchMinutes,
            RecoatMinutes = (decimal)dry.RecoatMinutes,
            CureMinutes = (decimal)dry.CureMinutes,
            Notes = "A stand-in. Change it to the pot you really have.",
        };
    }
}
