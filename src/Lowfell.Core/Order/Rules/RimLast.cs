using Lowfell.Core.Layers;
using Lowfell.Core.Precedence;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>The rim is painted when nothing soils it any more.</summary>
internal sealed class RimLast : LayerRule
{
    public override RuleFacts Facts { get; } = new("rim-last",
        "Rim before layers that soil it.",
        "Washes, dust and drybrush land on the clean rim and it is painted again.",
        "Paint the rim last.")
    { OnlyHints = true };

    protected override Finding? At(StackView view, int i)
    {
        if (view.Layers[i].Technique != Technique.Rim || !view.LeavesFilm(i) || view.NextAbove(i, j => view.Layers[j].Technique == Technique.Rim) >= 0)
            return null;
        var soils = view.Last(j => j > i && Soils(view, j));
        if (soils < 0)
            return Beside(view, i);
        return new Finding(Facts.Id, Severity.Hint, [i, soils], "Rim gets soiled",
            $"{view.Says(i)}, is clean before layer {soils + 1}, {EnumWords.Of(view.Layers[soils].Technique)}, soils it again.",
            [new Remedy("rim-last", $"Paint it after layer {soils + 1}", [new StackEdit.Move(i, soils)])]);
    }

    /// <summary>What soils it lies on another zone of the piece, and is planned after it.</summary>
    private Finding? Beside(StackView view, int i)
    {
        if (view.SoiledBy(i, Why.Rim).FirstOrDefault() is not { } soil)
            return null;
        var (zone, layer) = (view.Piece!.Zones[soil.FirstOn], view.Piece.LayerOf(soil.First, soil.FirstOn));
        return new Finding(Facts.Id, Severity.Hint, [i], "Rim gets soiled",
            $"{view.Says(i)}, is clean before {EnumWords.Of(zone.Layers[layer].Technique)} on {zone.Zone.Name} soils it again: painting it anew takes about {Duration.Words(view.Piece.PriceOf(soil).RepairMinutes)} over the pieces (an estimate).", []);
    }

    private static bool Soils(StackView view, int j) => Reach.IsMessy(view.Layers[j]);
}
