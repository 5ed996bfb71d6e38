using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Order.Rules;

/// <summary>A transparent bright colour takes its light from what lies beneath it.</summary>
internal sealed class WhiteBeneath : LayerRule
{
    public override RuleFacts Facts { get; } = new("white-beneath",
        "A transparent or glowing colour laid as a coat over something dark.",
        "It hides nothing: its brightness is that of the ground.",
        "Put white beneath it.")
    {
        OnlyHints = true,
        Schools = [School.DryBrushCleaning],
        Limits = [new("lightness of what lies below", Dark, "L*"), new("chroma over white", Bright, "C*")],
    };

    /// <summary>Lightness below which little of a transparent colour is left, and chroma over white from which it is meant to be bright.</summary>
    private const double Dark = 60, Bright = 40;

    protected override Finding? At(StackView view, int i)
    {
        var layer = view.Layers[i];
        if (layer.Technique is not (Technique.BaseCoat or Technique.Patch or Technique.Stencil or Technique.Marking or Technique.WetBlend) || !view.LeavesFilm(i)
            || layer.Main is not { } main || !(main.Kind == MaterialKind.Ink || main.Lustre == Lustre.Glow))
            return null;
        var below = view.Predictions.SeenWithin(i, layer.Region).Field.Lab;
        if (below.L >= Dark || main.OnCard(1).OverWhite.ToLab().Chroma < Bright)
            return null;
        var white = view.Context.Shelf.Where(m => m.Kind == MaterialKind.Paint && m.Carrier == main.Carrier && m.Lustre == Lustre.Plain && m.Masstone().ToLab() is { L: > 85, Chroma: < 15 }).MaxBy(m => m.Masstone().ToLab().L);
        return new Finding(Facts.Id, Severity.Hint, [i], "Wants white beneath",
            $"{main.Name} is transparent, and what lies below is dark: little of its brightness will show.",
            white is null ? [] : [new("white", $"Lay {white.Name} beneath it", [new StackEdit.Insert(i, layer with { Id = Guid.Empty, Paint = [new(white, Mixing.Parts.One)], Dilution = null, Coats = 2 })])]);
    }
}
