using Lowfell.Core.Colour;
using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Words;

namespace Lowfell.Server.Calc;

/// <summary>Materials without a pot: what is left out of one gets the usual of its kind, and remedies have something to name.</summary>
internal static class PlainMaterials
{
    /// <summary>What remedies may reach for when no shelf is given, or it lacks it.</summary>
    public static readonly IReadOnlyList<Material> Shelf =
    [
        Make("satin varnish", MaterialKind.Varnish, Carrier.WaterAcrylic, sheen: Sheen.Satin), Make("gloss varnish", MaterialKind.Varnish, Carrier.WaterAcrylic, sheen: Sheen.Gloss),
        Make("matt varnish", MaterialKind.Varnish, Carrier.WaterAcrylic), Make("acrylic primer", MaterialKind.Primer, Carrier.WaterAcrylic), Make("white glue", MaterialKind.Glue, Carrier.PVA),
        Make("acrylic wash", MaterialKind.Wash, Carrier.WaterAcrylic), Make("acrylic filter", MaterialKind.Filter, Carrier.WaterAcrylic), Make("acrylic paint", MaterialKind.Paint, Carrier.WaterAcrylic),
        Make("glaze medium", MaterialKind.GlazeMedium, Carrier.WaterAcrylic), Make("pigment fixer", MaterialKind.Medium, Carrier.Enamel),
        .. Enum.GetValues<ThinnerFamily>().Select(Thinner),
    ];

    public static Material Thinner(ThinnerFamily family) => Make(EnumWords.Of(family), MaterialKind.Thinner, family switch
    {
        ThinnerFamily.WhiteSpirit => Carrier.Enamel,
        ThinnerFamily.LacquerThinner => Carrier.SolventAcrylic,
        ThinnerFamily.Alcohol => Carrier.Alcohol,
        _ => Carrier.WaterAcrylic,
    }) with
    { Thinners = [family] };

    /// <summary>The kind of material a technique is usually done with; null for work without material.</summary>
    public static MaterialKind? KindFor(Technique technique)
    {
        var figures = TechniqueTable.For(technique);
        return figures.Laydown == Laydown.None ? null : figures.Suits.Count > 0 ? figures.Suits[0] : null;
    }

    public static Carrier CarrierFor(MaterialKind kind) => kind switch
    {
        MaterialKind.Primer => Carrier.SolventAcrylic,
        MaterialKind.Pigment or MaterialKind.Pencil => Carrier.Dry,
        MaterialKind.Aggregate or MaterialKind.Tuft or MaterialKind.Decal => Carrier.None,
        MaterialKind.Glue => Carrier.PVA,
        _ => Carrier.WaterAcrylic,
    };

    public static Material Make(string name, MaterialKind kind, Carrier carrier, SrgbColour? colour = null, Sheen sheen = Sheen.Matt) => Make(name, kind, carrier, new ColourEvidence(colour ?? UsualColour(kind)), sheen);

    /// <exception cref="ArgumentException">The contrast card is impossible.</exception>
    public static Material Make(string name, MaterialKind kind, Carrier carrier, ColourEvidence evidence, Sheen sheen)
    {
        var clear = ColourEvidence.IsClear(kind);
        var found = clear ? new ResolvedColour(Optics.Clear, sheen.Surface()) : evidence.Resolve(kind, sheen);
        return new Material
        {
            Id = Guid.NewGuid(),
            Name = name,
            Kind = kind,
            Carrier = carrier,
            Optics = found.Optics,
            Surface = found.Surface,
            OpticsSource = clear ? OpticsSource.Clear : evidence.Source(kind),
            Sheen = sheen,
            Thinners = carrier.UsualThinners(),
            DryTimes = UsualDryTimes.For(kind, carrier),
        };
    }

    /// <summary>A colour nobody would remark on; null for what has none.</summary>
    public static SrgbColour? UsualColour(MaterialKind kind) => ColourEvidence.IsClear(kind) ? null : SrgbColour.Parse(kind switch
    {
        MaterialKind.Wash or MaterialKind.Ink => "#94795a",
        MaterialKind.Filter or MaterialKind.GlazeMedium => "#d2c9a8",
        MaterialKind.Primer => "#6b6c6a",
        MaterialKind.TexturePaste or MaterialKind.Aggregate => "#7a6a52",
        MaterialKind.Pigment => "#a08b6c",
        _ => "#86837a",
    });
}
