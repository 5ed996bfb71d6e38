using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Order.Rules;

/// <summary>A run-off is drawn from something that still moves.</summary>
internal sealed class RunOffSource : LayerRule
{
    public override RuleFacts Facts { get; } = new("run-off-source",
        "A run-off with nothing below it that its water or thinner still moves, or only under a coat that holds it fast.",
        "Water over dry paint leaves a clean streak, or none.",
        "Leave it out; put it right above the marking or pigment it is drawn from.");

    protected override Finding? At(StackView view, int i)
    {
        var layer = view.Layers[i];
        if (layer.Technique != Technique.RunOff || layer.Strength <= 0 || RunOff.SourceOf(view.Layers, i) >= 0)
            return null;
        List<Remedy> remedies = [new("leave-out", "Leave it out", [new StackEdit.Remove(i)])];
        if (view.NextBelow(i, j => Gives(view, j)) is >= 0 and var source && source + 1 < i)
            remedies.Insert(0, new("above-source", $"Do it right after layer {source + 1}", [new StackEdit.Move(i, source + 1)]));
        return new Finding(Facts.Id, Severity.Caution, [i], "Nothing there that runs",
            $"{view.Says(i)}: nothing right below it still moves with {layer.MaterialName}.", remedies);
    }

    private static bool Gives(StackView view, int j) =>
        view.LeavesFilm(j) && (view.Layers[j].Technique is Technique.Marking or Technique.Speckle or Technique.Dust or Technique.Streak || view.Layers[j].Main!.Kind is MaterialKind.Pigment or MaterialKind.Pencil);
}
