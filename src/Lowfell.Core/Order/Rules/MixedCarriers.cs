using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>Water and spirit do not flow into one another.</summary>
internal sealed class MixedCarriers : LayerRule
{
    public override RuleFacts Facts { get; } = new("mixed-carriers",
        "A mix whose carriers do not go together: water acrylic with enamel, oil or lacquer.",
        "It curdles or separates in the pot.",
        "Take the nearest of one carrier; leave the odd one out.", CanStop: true);

    protected override Finding? At(StackView view, int i)
    {
        var layer = view.Layers[i];
        if (layer.Paint.Count < 2 || PotCheck.Apart(layer.Paint.Where(p => !p.Material.IsThinner).Select(p => p.Material).ToList()) is not var (first, second))
            return null;
        return new Finding(Facts.Id, Severity.Stop, [i], "Carriers that do not mix",
            $"{view.Says(i)}: {first.Name} is {EnumWords.Of(first.Carrier)}, {second.Name} is {EnumWords.Of(second.Carrier)}. In one pot they curdle or separate.", Remedies(view, i));
    }

    private static List<Remedy> Remedies(StackView view, int i)
    {
        var layer = view.Layers[i];
        var lead = layer.Main!;
        var odd = layer.Paint.Where(p => !p.Material.IsThinner && !p.Material.Carrier.MixesWith(lead.Carrier)).ToList();
        var remedies = new List<Remedy>();
        var near = odd.ToDictionary(p => p, p => ShelfPick.Like(view.Context.Shelf, p.Material, lead.Carrier));
        if (near.Values.All(m => m is not null))
            remedies.Add(new("same-carrier", $"Use {string.Join(" and ", near.Values.Select(m => m!.Name))}, which mix{(near.Count == 1 ? "es" : "")} with {lead.Name}",
                [new StackEdit.Replace(i, layer with { Paint = layer.Paint.Select(p => near.GetValueOrDefault(p) is { } other ? p with { Material = other } : p).ToList() })]));
        remedies.Add(new("leave-odd-out", $"Leave {string.Join(" and ", odd.Select(p => p.Material.Name))} out of the mix",
            [new StackEdit.Replace(i, layer with { Paint = layer.Paint.Where(p => !odd.Contains(p)).ToList() })]));
        return remedies;
    }
}
