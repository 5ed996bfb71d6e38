using Lowfell.Core.Materials;

namespace Lowfell.Core.Mixing.Measures;

/// <summary>Sizes of what paint is measured with at the bench, before a bottle has been calibrated: rules of thumb.</summary>
public static class UsualMeasures
{
    /// <summary>A dropper bottle gives about twenty drops to the millilitre.</summary>
    public const decimal DropMl = 0.05m;

    /// <summary>What a middling brush or spatula lifts of a paste.</summary>
    public const decimal BrushLoadMl = 0.25m;

    /// <summary>Drops of one bottle differ by about this share with its angle and how full it is.</summary>
    public const double DropSpread = 0.05;

    /// <summary>The drop of a material's own bottle, ml.</summary>
    public static decimal DropOf(Material material) => material.DropMl ?? DropMl;

    /// <summary>Grams per millilitre of a material, its own or the usual of its kind.</summary>
    public static decimal DensityOf(Material material) => material.DensityGPerMl ?? UsualDensity(material.Kind, material.Carrier);

    /// <summary>Pastes and fillers are counted in brush-loads: they do not drip.</summary>
    public static bool DoesNotDrip(MaterialKind kind) => kind is MaterialKind.TexturePaste or MaterialKind.Filler or MaterialKind.CracklePaste
        or MaterialKind.Pigment or MaterialKind.Aggregate or MaterialKind.Tuft or MaterialKind.Decal or MaterialKind.Pencil;

    /// <summary>What kinds usually weigh, g per ml: pigments and chalk are heavy, spirits light.</summary>
    public static decimal UsualDensity(MaterialKind kind, Carrier carrier) => (kind, carrier) switch
    {
        (MaterialKind.Thinner, Carrier.WaterAcrylic) => 1.00m,
        (MaterialKind.Thinner, _) => 0.79m,
        (MaterialKind.TexturePaste or MaterialKind.Filler or MaterialKind.CracklePaste, _) => 1.60m,
        (MaterialKind.Aggregate, _) => 1.55m,
        (MaterialKind.Pigment, _) => 0.80m,
        (MaterialKind.Primer, _) => 1.25m,
        (MaterialKind.Varnish or MaterialKind.Medium or MaterialKind.GlazeMedium or MaterialKind.CrackleMedium or MaterialKind.ChippingFluid, Carrier.WaterAcrylic) => 1.03m,
        (MaterialKind.Wash or MaterialKind.Filter or MaterialKind.Ink, Carrier.WaterAcrylic) => 1.02m,
        (MaterialKind.Wash or MaterialKind.Filter or MaterialKind.Medium, _) => 0.88m,
        (MaterialKind.Glue, _) => 1.08m,
        (_, Carrier.SolventAcrylic) => 0.95m,
        (_, Carrier.Enamel) => 1.10m,
        (_, Carrier.Oil) => 1.50m,
        _ => 1.20m,
    };
}
