using Lowfell.Core.Layers;

namespace Lowfell.Core.Order.Rules;

/// <summary>What is glued shut is not painted any more.</summary>
internal sealed class OutOfReach : LayerRule
{
    public override RuleFacts Facts { get; } = new("out-of-reach",
        "Layer on a zone already closed off by an assembly step.",
        "A brush no longer reaches it.",
        "Assemble after the last layer.");

    protected override Finding? At(StackView view, int i)
    {
        if (!view.Context.Zone.BeforeAssembly || view.Layers[i].Technique != Technique.Assemble)
            return null;
        var last = view.Last(j => j > i && (view.LeavesFilm(j) || TakingAway.Removes(view.Layers[j].Technique)));
        if (last < 0)
            return null;
        return new Finding(Facts.Id, Severity.Caution, [i, last], "Closed off too early",
            $"Once layer {i + 1} has assembled the piece, a brush no longer reaches {view.Context.Zone.Name}; {view.Name(last)}, still comes after it.",
            [new Remedy("assemble-last", $"Assemble after layer {last + 1}", [new StackEdit.Move(i, last)])]);
    }
}
