using Lowfell.Core.Colour;

namespace Lowfell.Core.Materials;

/// <summary>What a material's colour says of its film and of the surface it dries with.</summary>
public readonly record struct ResolvedColour(Optics Optics, Surface Surface);

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

    /// <summary>Hiding (S*X of a coat) assumed when only the masstone is known: one coat of a middle tone and three of a pale one hide most grounds.</summary>
    private const double UsualHiding = 3.2;

    /// <summary>
    /// The optics of one standard coat and the surface it dries with. Colours are seen through that surface: it is taken off before the film
    /// is worked out. A colour darker than the sheen allows is kept, and the surface's share lowered for it.
    /// </summary>
    /// <exception cref="ArgumentException">The contrast card is impossible.</exception>
    public ResolvedColour Resolve(MaterialKind kind, Sheen sheen)
    {
        var surface = kind == MaterialKind.Pigment ? Surface.Of(Surface.ChalkFirst) : sheen.Surface();
        if (OverBlack is { } black && OverWhite is { } white)
        {
            surface = surface.LoweredFor(Reflectance.Of(black)).LoweredFor(Reflectance.Of(white));
            return new(ContrastCard.Read(black, white, surface).Optics, surface);
        }

        if (Colour is not { } colour)
            return new(Optics.Clear, surface);
        var seen = Reflectance.Of(colour);
        surface = surface.LoweredFor(seen);
        var inside = surface.Inside(seen);
        return new(
            IsTransparent(kind) ? Optics.FromOverWhite(inside, TransparentScattering)
            : Optics.FromMasstone(inside, CoatsToHide is { } coats ? Hiding.FromCoats(inside, coats, surface) : UsualHiding), surface);
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
