using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;

namespace Lowfell.Core.Precedence;

/// <summary>The whole piece that a zone is part of.</summary>
/// <param name="Zones">All its zones as they are planned.</param>
/// <param name="Here">Which of them is looked at.</param>
public sealed record PieceAround(IReadOnlyList<PieceZone> Zones, int Here)
{
    /// <summary>The order of the piece with other layers here, and wherever else it has the same surface.</summary>
    public PieceOrder With(IReadOnlyList<Layer> layers, int pieces, Pace pace)
    {
        var here = Zones[Here];
        return PieceOrder.Of(ReferenceEquals(layers, here.Layers) ? Zones : Zones.Select(z => z.Surface == here.Surface ? z with { Layers = layers } : z).ToList(), pieces, pace);
    }
}
