using Lowfell.Core.Colour;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Mixing.Pots;

namespace Lowfell.Server.Stacks;

/// <summary>Predicted colours of some standard coats over the black and the white half of a card.</summary>
public sealed record Drawdown(int Coats, string OverBlack, string OverWhite);

/// <summary>Draws paint down on a card, once to three times.</summary>
internal static class Drawdowns
{
    private static readonly int[] coats = [1, 2, 3];

    public static IReadOnlyList<Drawdown> Of(Material material) => coats.Select(n =>
    {
        var (black, white) = material.OnCard(n);
        return new Drawdown(n, black.ToSrgb().ToString(), white.ToSrgb().ToString());
    }).ToList();

    public static IReadOnlyList<Drawdown> Of(IReadOnlyList<MixPart> paint, Dilution? dilution) => coats.Select(n =>
    {
        var drawn = PotColour.Draw(paint, dilution, n);
        return new Drawdown(n, drawn.OverBlack.ToSrgb().ToString(), drawn.OverWhite.ToSrgb().ToString());
    }).ToList();
}
