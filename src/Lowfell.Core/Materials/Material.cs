using Lowfell.Core.Colour;
using Lowfell.Core.Drying;

namespace Lowfell.Core.Materials;

/// <summary>A product on the shelf, with the optics that follow from how its colour was measured.</summary>
public sealed record Material
{
    public required Guid Id { get; init; }
    public required string Name { get; init; }
    public required MaterialKind Kind { get; init; }
    public required Carrier Carrier { get; init; }

    /// <summary>Absorption and scattering of one standard coat; worked out at the first question when it was given by <see cref="Resolve"/>.</summary>
    public Optics Optics
    {
        get => optics ?? Resolved.Optics;
        init => optics = value;
    }

    /// <summary>The surface it dries with: that of its sheen, less where its colour is darker than that allows.</summary>
    public Surface Surface
    {
        get => surface ?? (Resolve is null ? Sheen.Surface() : Resolved.Surface);
        init => surface = value;
    }

    /// <summary>Works optics and surface out. A shelf has thousands of materials, and a plan asks about a few dozen of them.</summary>
    public Func<ResolvedColour>? Resolve { get; init; }

    private ResolvedColour Resolved => (resolved ??= new Kept(Resolve!())).Colour;

    /// <summary>The colour it was entered with: near enough to pick the likely ones of thousands before the exact question. Null where it has none.</summary>
    public Lab? Entered { get; init; }

    private readonly Optics? optics;
    private readonly Surface? surface;
    private Kept? resolved;

    /// <summary>Set in one go, whoever asks first.</summary>
    private sealed record Kept(ResolvedColour Colour);

    /// <summary>Where the optics come from.</summary>
    public OpticsSource OpticsSource { get; init; } = OpticsSource.Estimated;

    /// <summary>How often its strength was set right by what was seen of it in this workshop.</summary>
    public int Looks { get; init; }

    /// <summary>Shine when dry.</summary>
    public Sheen Sheen { get; init; } = Sheen.Matt;

    /// <summary>Metal, glass or glow: what a matt coat over it takes away.</summary>
    public Lustre Lustre { get; init; }

    /// <summary>The most thinner its label allows, as a share of the mix, 0..1; null takes the usual limit of its kind.</summary>
    public double? MostThinnerShare { get; init; }

    /// <summary>Share of the liquid that stays when dry, 0..1.</summary>
    public double SolidsFraction { get; init; } = 0.4;

    /// <summary>Thinners the label allows.</summary>
    public IReadOnlyList<ThinnerFamily> Thinners { get; init; } = [];

    /// <summary>Volume of one drop of its bottle, ml; null when it has not been calibrated.</summary>
    public decimal? DropMl { get; init; }

    /// <summary>What it weighs, g per ml; null takes the usual of its kind.</summary>
    public decimal? DensityGPerMl { get; init; }

    /// <summary>Its label says that hot air does it no harm.</summary>
    public bool HeatSafe { get; init; }

    /// <summary>Touch, recoat and cure at 20 C, 50 % relative humidity and the usual film.</summary>
    public required DryTimes DryTimes { get; init; }

    /// <summary>A coat of it hides rather than tints, so that it can be judged by coats to hide.</summary>
    public bool IsOpaque => Kind is MaterialKind.Paint or MaterialKind.Primer or MaterialKind.TexturePaste
        or MaterialKind.Filler or MaterialKind.CracklePaste or MaterialKind.Aggregate;

    /// <summary>Seen of it where nothing shows through.</summary>
    public Reflectance Masstone() => Surface.Shown(Optics.Masstone());

    /// <summary>Seen of some standard coats on the black and the white half of a card.</summary>
    public (Reflectance OverBlack, Reflectance OverWhite) OnCard(double coats) => Optics.OnCard(coats, Surface);

    /// <summary>Only makes other things thinner; leaves nothing behind.</summary>
    public bool IsThinner => Kind == MaterialKind.Thinner;

    /// <summary>Whether a thinner belongs to it.</summary>
    public bool TakesThinner(Material thinner) => Thinners.Intersect(thinner.Thinners).Any();
}
