using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using static System.FormattableString;

namespace Lowfell.Core.Order.Rules;

/// <summary>A wash can only darken what is lighter than itself.</summary>
internal sealed class TooDarkToShade : LayerRule
{
    public override RuleFacts Facts { get; } = new("too-dark-to-shade",
        "Wash or glaze over a base already near its colour.",
        "On a base as dark as itself a wash does next to nothing.",
        "A lighter base; leave the wash out.")
    {
        OnlyHints = true,
        Schools = [School.DryBrushCleaning],
        Limits = [new("lightness of the base", Dark, "L*"), new("change that no-visible-change tells of", Nothing, "ΔE00"), new("change that is shading enough", Enough, "ΔE00"), new("change by a flood of it", Hardly, "ΔE00")],
    };

    /// <summary>What even a flood of the shade changes (CIEDE2000) on a base that is as dark as itself, and from which "no-visible-change" no longer speaks.</summary>
    private const double Hardly = 8, Nothing = 1;

    /// <summary>A change that is clearly seen is shading enough.</summary>
    private const double Enough = 4;

    /// <summary>A flood against one ordinary wash.</summary>
    private const double Flood = 4;

    /// <summary>Lightness above which a base always leaves a shade something to do.</summary>
    private const double Dark = 32;

    protected override Finding? At(StackView view, int i)
    {
        var layer = view.Layers[i];
        if (layer.Technique is not (Technique.AllOverWash or Technique.PinWash or Technique.Glaze) || !view.LeavesFilm(i))
            return null;
        var below = view.Predictions.SeenWithin(i, layer.Region).Recess.Lab;
        var change = view.Predictions[i].LargestChange;
        if (change is < Nothing or >= Enough || below.L > Dark)
            return null;
        var um = view.Predictions.LaidBy(i).FilmUm.Recess;
        var flooded = Shine.Of(layer.Paint).Shown(Laying.PerUm(layer).Over(new Reflectance(view.Predictions.Below(i, Position.Recess, layer.Region)), Flood * um / layer.Coats)).ToLab();
        if (ColourDifference.Ciede2000(below, flooded) >= Hardly)
            return null;
        var remedies = new List<Remedy> { new("leave-out", "Leave it out", SolventWork.WithCleanUp(view, i)) };
        var ground = view.NextBelow(i, j => view.Layers[j].Technique == Technique.BaseCoat && view.IsFullFilm(j) && view.Layers[j].Main!.IsOpaque);
        if (ground >= 0 && ShelfPick.Lighter(view.Context.Shelf, view.Layers[ground].Main!) is { } lighter)
            remedies.Insert(0, new Remedy("lighter-base", $"Start lighter, with {lighter.Name}", [new StackEdit.Replace(ground, view.Layers[ground] with { Paint = [new MixPart(lighter, Parts.One)] })]));
        return new Finding(Facts.Id, Severity.Hint, [i], "Too dark to shade",
            Invariant($"What is below {layer.MaterialName} is as dark as the shade itself: it changes by {change:0.0} at most, and a flood of it would hardly do more. Start one or two steps lighter on purpose."), remedies);
    }
}
