using Lowfell.Core.Materials;

namespace Lowfell.Core.Mixing;

/// <summary>Paint to thinner in parts. "Thinned 40 %" never appears inside: it could mean two things.</summary>
/// <param name="Thinner">What it is thinned with.</param>
/// <param name="PaintParts">Parts of paint, above 0.</param>
/// <param name="ThinnerParts">Parts of thinner, 0 or more.</param>
public sealed record Dilution(Material Thinner, Parts PaintParts, Parts ThinnerParts)
{
    /// <summary>Paint's share of what is in the pot, 0..1.</summary>
    public double PaintShare => PaintParts.ShareOf(PaintParts + ThinnerParts);

    /// <inheritdoc/>
    public override string ToString() => RatioWords.Of(PaintParts, ThinnerParts);
}

/// <summary>One component of a mix.</summary>
public sealed record MixPart(Material Material, Parts Parts);
