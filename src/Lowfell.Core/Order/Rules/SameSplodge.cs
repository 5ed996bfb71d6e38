using Lowfell.Core.Layers;

namespace Lowfell.Core.Order.Rules;

/// <summary>The same patch in the same corner of every piece gives a set away.</summary>
internal sealed class SameSplodge : LayerRule
{
    public override RuleFacts Facts { get; } = new("same-splodge",
        "Patch layer repeated with no variation plan over many pieces.",
        "Neighbours with the same splodge read as copies.",
        "A plan that varies place and amount from piece to piece.")
    {
        OnlyHints = true,
        Limits = [new("pieces", Many, "pieces")],
    };

    /// <summary>From this many pieces on the eye finds what repeats.</summary>
    private const int Many = 4;

    protected override Finding? At(StackView view, int i)
    {
        var layer = view.Layers[i];
        if (layer.Technique != Technique.Patch || !view.LeavesFilm(i) || layer.Varied is not null || view.Context.Pieces < Many)
            return null;
        return new Finding(Facts.Id, Severity.Hint, [i], "The same patch on every piece",
            $"{view.Says(i)}, goes on {view.Context.Pieces} pieces with no plan where. Hands fall into a pattern: the same corner, the same size.",
            [new Remedy("vary", "Plan it differently on every piece", [new StackEdit.Replace(i, layer with { Varied = new Varied(1) })])]);
    }
}
