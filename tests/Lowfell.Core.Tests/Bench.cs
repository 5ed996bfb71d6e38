using Lowfell.Core.Colour;
using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Order;
using Lowfell.Core.Precedence;

namespace Lowfell.Core.Tests;

/// <summary>A small invented shelf and short ways to write stacks.</summary>
internal static class Bench
{
    public static readonly Material Primer = Make("Slate Undercoat", MaterialKind.Primer, Carrier.SolventAcrylic, "#45494c");
    public static readonly Material ChalkPrimer = Make("Chalk Undercoat", MaterialKind.Primer, Carrier.SolventAcrylic, "#dcdad2");
    public static readonly Material WaterPrimer = Make("Brush-on Ground", MaterialKind.Primer, Carrier.WaterAcrylic, "#8b8b86");
    public static readonly Material Brown = Make("Peat Seven", MaterialKind.Paint, Carrier.WaterAcrylic, "#4a3527", 1.4);
    public static readonly Material White = Make("Salt White", MaterialKind.Paint, Carrier.WaterAcrylic, "#e6e1d3", 3);
    public static readonly Material Lacquer = Make("Bright Chain Lacquer", MaterialKind.Paint, Carrier.SolventAcrylic, "#8e9092", 1.2);
    public static readonly Material Wash = Make("Peat Wash", MaterialKind.Wash, Carrier.WaterAcrylic, "#94764f");
    public static readonly Material EnamelWash = Make("Bog Umber", MaterialKind.Wash, Carrier.Enamel, "#7a5f3f", sheen: Sheen.Satin);
    public static readonly Material EnamelFilter = Make("Sedge Filter", MaterialKind.Filter, Carrier.Enamel, "#d2c9a0");
    public static readonly Material WaterFilter = Make("Fen Filter", MaterialKind.Filter, Carrier.WaterAcrylic, "#d2c9a0");
    public static readonly Material Matt = Make("Tarnside Matt", MaterialKind.Varnish, Carrier.WaterAcrylic, null);
    public static readonly Material Satin = Make("Tarnside Satin", MaterialKind.Varnish, Carrier.WaterAcrylic, null, sheen: Sheen.Satin);
    public static readonly Material Gloss = Make("Tarnside Gloss", MaterialKind.Varnish, Carrier.WaterAcrylic, null, sheen: Sheen.Gloss);
    public static readonly Material Crackle = Make("Salt Crust", MaterialKind.CracklePaste, Carrier.WaterAcrylic, "#d6cfbd", 1);
    public static readonly Material Sand = Make("Fine Fen Sand", MaterialKind.Aggregate, Carrier.None, "#a08f70", 1);
    public static readonly Material Dust = Make("Silt Pigment", MaterialKind.Pigment, Carrier.Dry, "#a08b6c", 2.5);
    public static readonly Material Water = Thinner("Tap Water", Carrier.WaterAcrylic, ThinnerFamily.Water);
    public static readonly Material Spirit = Thinner("Chandlery Thinner", Carrier.Enamel, ThinnerFamily.WhiteSpirit);

    public static readonly IReadOnlyList<Material> Shelf =
        [Primer, ChalkPrimer, WaterPrimer, Brown, White, Lacquer, Wash, EnamelWash, EnamelFilter, WaterFilter, Matt, Satin, Gloss, Crackle, Sand, Dust, Water, Spirit];

    public static Zone Zone(Relief relief = Relief.Deep, double areaCm2 = 100, Substrate substrate = Substrate.PrintedPlastic) => new()
    {
        Name = "Face",
        AreaCm2 = areaCm2,
        Substrate = substrate,
        Relief = relief,
        Shares = Core.Layers.Zone.UsualShares(relief),
        JointMm = areaCm2 * 8,
        EdgeMm = areaCm2 * 3,
    };

    public static StackContext Context(Zone? zone = null, HouseRules? rules = null, Climate? climate = null) =>
        new(zone ?? Zone(), new SetTerms(56, 0.9, Sheen.Matt, Handling.Careful), rules ?? new HouseRules(), climate ?? Climate.Standard, Shelf);

    /// <summary>A zone that touches another of the same measures, with layers of its own on which nothing else is to be laid.</summary>
    public static StackContext Beside(StackContext context, params Layer[] layers) => Beside(context, true, layers);

    /// <summary>The same, where the other may come first or last.</summary>
    public static StackContext Beside(StackContext context, bool finished, params Layer[] layers)
    {
        var (here, there) = (Guid.NewGuid(), Guid.NewGuid());
        return context with
        {
            Neighbours = [new Neighbour("Coping", context.Zone, layers, new Lazy<Seen>(() => StackPrediction.Compute(context.Zone, layers)[^1].Average))],
            Piece = new PieceAround(
            [
                new PieceZone(here, context.Zone, here, here, []) { Touching = new HashSet<Guid> { there } },
                new PieceZone(there, context.Zone with { Name = "Coping" }, there, there, layers) { Touching = new HashSet<Guid> { here }, StandsFinished = finished },
            ], 0),
        };
    }

    public static Layer Lay(Technique technique, Material? material = null, int coats = 1, double? wait = null, double strength = 1, Dilution? thin = null, Region region = Region.All) => new()
    {
        Id = Guid.NewGuid(),
        Technique = technique,
        Paint = material is null ? [] : [new MixPart(material, Parts.One)],
        Coats = coats,
        WaitMinutes = wait,
        Strength = strength,
        Dilution = thin,
        Region = region,
        Tool = TechniqueTable.For(technique).UsualTool,
    };

    public static IReadOnlyList<Finding> Check(StackContext context, params Layer[] stack) => OrderCheck.Run(context, stack);

    internal static Material Make(string name, MaterialKind kind, Carrier carrier, string? colour, double? hides = null, Sheen sheen = Sheen.Matt)
    {
        var evidence = new ColourEvidence(colour is null ? null : SrgbColour.Parse(colour), CoatsToHide: hides);
        var found = evidence.Resolve(kind, sheen);
        return new Material
        {
            Id = Guid.NewGuid(),
            Name = name,
            Kind = kind,
            Carrier = carrier,
            Optics = found.Optics,
            Surface = found.Surface,
            OpticsSource = evidence.Source(kind),
            Sheen = sheen,
            Thinners = carrier.UsualThinners(),
            DryTimes = UsualDryTimes.For(kind, carrier),
        };
    }

    private static Material Thinner(string name, Carrier carrier, ThinnerFamily family) =>
        Make(name, MaterialKind.Thinner, carrier, null) with { Thinners = [family] };
}
