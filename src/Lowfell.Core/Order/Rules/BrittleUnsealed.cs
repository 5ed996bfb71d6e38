using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Order.Rules;

/// <summary>What is brittle or loose at the end does not last in the hand. School: house rule "pigments".</summary>
internal sealed class BrittleUnsealed : LayerRule
{
    public override RuleFacts Facts { get; } = new("brittle-unsealed",
        "Brittle layer, or loose pigment on a hard-played piece, on a handled zone at the end.",
        "Crackle and dried paste chip where they are held; powder comes off.",
        "Seal it; fix it.")
    { Schools = [School.Pigments] };

    protected override Finding? At(StackView view, int i)
    {
        var zone = view.Context.Zone;
        if (zone.Handling == Handling.Display)
            return null;
        if (PowderWork.IsLoose(view, i) && zone.Handling == Handling.HardPlay && view.Context.HouseRules.Pigments == PigmentSchool.LeaveLoose && view.NextAbove(i, view.IsVarnish) < 0)
            return new Finding(Facts.Id, Severity.Hint, [i], "Loose pigment, played hard",
                $"{view.Layers[i].MaterialName} stays loose by your house rule; on a piece that is played hard it comes off within evenings.", PowderWork.Fix(view, i));
        if (!IsBrittle(view, i) || view.NextAbove(i, j => IsHeldBy(view, j)) >= 0)
            return null;
        var remedies = new List<Remedy>();
        if (ShelfPick.VarnishOrNear(view.Context.Shelf, view.Context.TargetSheen) is { } varnish)
            remedies.Add(new Remedy("seal", $"Seal with two coats of {varnish.Name}", [new StackEdit.Insert(Top(view), ShelfPick.VarnishLayer(varnish, 2))]));
        return new Finding(Facts.Id, Severity.Caution, [i], "Brittle and unsealed",
            $"{view.Layers[i].MaterialName} is {(view.Layers[i].Main!.Kind == MaterialKind.Aggregate ? "only glued" : "brittle")} and nothing seals it at the end; on a handled zone it chips.", remedies);
    }

    private static bool IsBrittle(StackView view, int i) =>
        view.LeavesFilm(i) && view.Layers[i].Main!.Kind is MaterialKind.CracklePaste or MaterialKind.Filler or MaterialKind.Aggregate;

    /// <summary>Varnish, medium or glue; for all but crackle any whole coat of paint or primer too.</summary>
    private static bool IsHeldBy(StackView view, int j) =>
        view.IsFullFilm(j) && view.Layers[j].Main!.Kind is MaterialKind.Varnish or MaterialKind.Medium or MaterialKind.Glue or MaterialKind.Paint or MaterialKind.Primer
        && view.Layers[j].Technique is not (Technique.Filter or Technique.Glaze);

    /// <summary>Below powder and tufts that end the stack.</summary>
    private static int Top(StackView view)
    {
        var top = view.Count;
        while (top > 0 && view.Layers[top - 1].Main?.Kind is MaterialKind.Pigment or MaterialKind.Tuft)
            top--;
        return top;
    }
}
