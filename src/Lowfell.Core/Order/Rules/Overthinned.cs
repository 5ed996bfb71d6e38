using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using static System.FormattableString;

namespace Lowfell.Core.Order.Rules;

/// <summary>Thinner carries the binder apart; beyond its limit paint rubs off, cracks or beads.</summary>
internal sealed class Overthinned : LayerRule
{
    public override RuleFacts Facts { get; } = new("overthinned",
        "More thinner than the binder can take.",
        "A film with too little binder rubs off and dries in rings.",
        "Thin to the limit; use medium for part of the thinner.")
    { Limits = [new("rounding of typed parts", Slack, "of the mix")] };

    /// <summary>Rounding of parts typed with two decimals.</summary>
    private const double Slack = 0.005;

    protected override Finding? At(StackView view, int i)
    {
        var layer = view.Layers[i].WithThinnerApart();
        if (layer.Dilution is not { } dilution || !view.LeavesFilm(i))
            return null;
        var share = 1 - dilution.PaintShare;
        return ThinnerLimits.Least(layer) is { } least && share > least.Most + Slack ? Describe(view, i, layer, dilution, share, least.Most, least.Material) : null;
    }

    private Finding Describe(StackView view, int i, Layer layer, Dilution dilution, double share, double most, Material material)
    {
        var (paint, thinner) = ThinnerLimits.AsParts(most);
        var remedies = new List<Remedy>
        {
            new("to-limit", $"Thin {paint} : {thinner}", [new StackEdit.Replace(i, layer with { Dilution = dilution with { PaintParts = Parts.Of(paint), ThinnerParts = Parts.Of(thinner) } })]),
        };
        // Medium in a varnish would change how it shines.
        if (material.Kind != MaterialKind.Varnish && ShelfPick.Medium(view.Context.Shelf, material.Carrier) is { } medium && layer.Paint.All(p => p.Material.Id != medium.Id))
            remedies.Add(new Remedy("medium-part", $"Use {medium.Name} for part of the thinner", [new StackEdit.Replace(i, WithMedium(layer, dilution, medium, paint, thinner))]));
        var severity = view.IsWash(i) ? Severity.Hint : Severity.Caution;
        return new Finding(Facts.Id, severity, [i], "Thinned too far",
            Invariant($"{share * 100:0} % of this mix is {dilution.Thinner.Name}; {material.Name} keeps its binder up to about {most * 100:0} % (the label wins). Beyond that it rubs off and dries in rings."), remedies);
    }

    /// <summary>The same pot with clear medium in place of so much thinner that paint and medium together keep the limit.</summary>
    private static Layer WithMedium(Layer layer, Dilution dilution, Material medium, int paint, int thinner)
    {
        // Paint and medium : thinner = paint : thinner of the limit, with as much paint in the pot as before.
        var parts = layer.Paint.Aggregate(Parts.Zero, (sum, p) => sum + p.Parts);
        var total = (dilution.PaintParts + dilution.ThinnerParts) * Parts.Of(paint, paint + thinner);
        var clear = (total - dilution.PaintParts) * parts;
        var mix = layer.Paint.Select(p => p with { Parts = p.Parts * dilution.PaintParts }).Append(new MixPart(medium, clear)).ToList();
        var whole = Parts.Whole(mix.Select(p => p.Parts).ToList());
        return layer with { Paint = mix.Select((p, k) => p with { Parts = whole[k] }).ToList(), Dilution = dilution with { PaintParts = Parts.Of(paint), ThinnerParts = Parts.Of(thinner) } };
    }
}
