using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>Enamel and oil products dissolve each other until a varnish lies between.</summary>
internal sealed class SameSolvent : LayerRule
{
    public override RuleFacts Facts { get; } = new("same-solvent",
        "Enamel or oil wash, filter or clean-up over paint of its own family with no sound varnish between.",
        "The same solvent lifts and smears what is there.",
        "Two coats of varnish below; a water-borne product.", CanStop: true)
    { Schools = [School.PinWashSheen] };

    protected override Finding? At(StackView view, int i) => FamilyBelow(view, i) is { } below ? Describe(view, i, below) : null;

    /// <summary>The nearest layer of the same solvent family that this one would reach, or null.</summary>
    internal static int? FamilyBelow(StackView view, int i)
    {
        if (!SolventWork.Applies(view, i))
            return null;
        // A clean-up is judged with what it cleans: the remark belongs on the wash, where the varnish is missing.
        var cleaned = view.CleanedBy(i).ToList();
        if (cleaned.Any(j => FamilyBelow(view, j) is not null))
            return null;
        for (var j = cleaned.Append(i).Min() - 1; j >= 0; j--)
        {
            if (view.IsBarrier(j, view.Layers[i].Region))
                return null;
            if (view.LeavesFilm(j) && view.Layers[j].Carrier.IsSpiritBorne() && Regions.Meet(view.Layers[j].Region, view.Layers[i].Region))
                return j;
        }

        return null;
    }

    private Finding Describe(StackView view, int i, int below)
    {
        var layer = view.Layers[i];
        var remedies = SolventWork.Barrier(view, i);
        if (layer.Technique != Technique.CleanUpExcess && ShelfPick.WaterBorne(view.Context.Shelf, layer) is var (instead, other))
            remedies.Add(new Remedy("water-borne", $"Use {other.Name}, which is water-borne",
                [new StackEdit.Replace(i, instead), .. SolventWork.WithoutCleanUp(view, i)]));
        return new Finding(Facts.Id, Severity.Stop, [i, below], "No barrier from its own solvent",
            $"{layer.MaterialName} carries the same solvent as layer {below + 1}, {view.Layers[below].MaterialName}, and no sound varnish lies between. The {EnumWords.Of(layer.Technique)} lifts and smears what is there.",
            remedies);
    }
}
