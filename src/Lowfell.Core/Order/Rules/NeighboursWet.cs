using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>Wet beside wet bleeds: touching zones dry in turn.</summary>
internal sealed class NeighboursWet : LayerRule
{
    public override RuleFacts Facts { get; } = new("neighbours-wet",
        "Touching zones with different washes, both wet in the same pass by the planned waits.",
        "Two wet washes run into each other along the limit between the zones.",
        "Wait until the neighbour is dry.");

    protected override Finding? At(StackView view, int i)
    {
        if (!view.IsWash(i) || view.PlannedMinutes(0, i) is not { } start)
            return null;
        foreach (var neighbour in view.Context.Neighbours)
        {
            var other = new StackView(view.Context with { Zone = neighbour.Zone, Neighbours = [] }, neighbour.Layers);
            for (var j = 0; j < other.Count; j++)
            {
                if (!other.IsWash(j) || other.Layers[j].Main!.Id == view.Layers[i].Main!.Id || other.PlannedMinutes(0, j) is not { } theirs)
                    continue;
                var dry = theirs + DryingModel.Of(other.Layers[j], view.Context.Climate).TouchMinutes;
                if (start >= theirs && start < dry)
                    return Describe(view, i, neighbour, other.Layers[j], dry - start);
            }
        }

        return null;
    }

    private Finding Describe(StackView view, int i, Neighbour neighbour, Layer theirs, double longer)
    {
        var remedies = new List<Remedy>();
        var more = Duration.RoundUp(longer);
        if (i > 0)
            remedies.Add(new Remedy("wait", $"Wait {Duration.Words(more)} more before it", [new StackEdit.Replace(i - 1, view.Layers[i - 1] with { WaitMinutes = (view.Layers[i - 1].WaitMinutes ?? 0) + more })]));
        return new Finding(Facts.Id, Severity.Caution, [i], "Wet beside wet",
            $"{view.Layers[i].MaterialName} goes on while {theirs.MaterialName} on {neighbour.Name} beside it is still wet: the two bleed into each other. It wants about {Duration.Words(more)} more.", remedies);
    }
}
