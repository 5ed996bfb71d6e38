using Lowfell.Core.Colour;

namespace Lowfell.Core.Materials;

/// <summary>
/// What is known of a material's colour. The best evidence wins: contrast card, then masstone with coats to hide,
/// then colour over white for transparent kinds, then the masstone alone, which leaves the hiding an estimate.
/// </summary>
/// <param name="Colour">Masstone of an opaque material, or one film over white of a transparent one; null for clear ones.</param>
/// <param name="OverBlack">One standard coat over the black half of a contrast card.</param>
/// <param name="OverWhite">One standard coat over the white half.</param>
/// <param name="CoatsToHide">Standard coats that hide a black and white card.</param>
public sealed record ColourEvidence(SrgbColour? Colour, SrgbColour? OverBlack = null, SrgbColour? OverWhite = null, double? CoatsToHide = null)
{
    /// <summary>Scattering of one standard film of a wash, filter, glaze or ink: nearly none, but a wash over black is never quite invisible.</summary>
    private const double TransparentScattering = 0.015;

    /// <summary>Hiding (S*X of a coat) assumed when only the masstone is known: two coats of an ordinary paint hide most grounds.</summary>
    private const double UsualHiding = 2.2;

    /// <summary>The optics of one standard coat and where they come from.</summary>
    /// <exception cref="ArgumentException">The contrast card is impossible.</exception>
    public (Optics Optics, OpticsSource Source) Resolve(MaterialKind kind)
    {
        if (OverBlack is { } black && OverWhite is { } white)
            return (ContrastCard.Read(black, white).Optics, OpticsSource.ContrastCard);
        if (Colour is not { } colour)
            return (Optics.Clear, OpticsSource.Clear);
        if (IsTransparent(kind))
            return (Optics.FromOverWhite(colour, TransparentScattering), OpticsSource.OverWhite);
        if (CoatsToHide is { } coats)
            return (Optics.FromMasstone(colour, Hiding.FromCoats(colour, coats)), OpticsSource.CoatsToHide);
        return (Optics.FromMasstone(colour, UsualHiding), OpticsSource.Estimated);
    }

    /// <summary>Where the optics will come from; says so without working them out.</summary>
    public OpticsSource Source(MaterialKind kind) =>
        OverBlack is not null && OverWhite is not null ? OpticsSource.ContrastCard
        : Colour is null ? OpticsSource.Clear
        : IsTransparent(kind) ? OpticsSource.OverWhite
        : CoatsToHide is not null ? OpticsSource.CoatsToHide : OpticsSource.Estimated;

    /// <summary>Kinds that tint what is below instead of hiding it.</summary>
    public static bool IsTransparent(MaterialKind kind) =>
        kind is MaterialKind.Wash or MaterialKind.Filter or MaterialKind.Ink or MaterialKind.GlazeMedium;

    /// <summary>Kinds without a colour of their own.</summary>
    public static bool IsClear(MaterialKind kind) =>
        kind is MaterialKind.Varnish or MaterialKind.Thinner or MaterialKind.Medium or MaterialKind.CrackleMedium
            or MaterialKind.ChippingFluid or MaterialKind.Glue;
}
