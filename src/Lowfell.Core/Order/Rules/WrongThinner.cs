using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>Every carrier has its own thinner; another curdles it or does nothing.</summary>
internal sealed class WrongThinner : IOrderRule
{
    public RuleFacts Facts { get; } = new("wrong-thinner",
        "Mix or clean-up whose thinner does not belong to the carrier.",
        "The mix curdles or separates, or the clean-up attacks the paint around it.",
        "Swap the thinner; use it neat.", CanStop: true);

    public IEnumerable<Finding> Check(StackView view)
    {
        for (var i = 0; i < view.Count; i++)
        {
            var layer = view.Layers[i];
            if (layer.Dilution is { } dilution && dilution.ThinnerParts.Numerator > 0)
            {
                var paints = layer.Paint.Where(p => !p.Material.IsThinner).Select(p => p.Material).ToList();
                if (paints.FirstOrDefault(p => !p.TakesThinner(dilution.Thinner)) is { } paint)
                    yield return InTheMix(view, i, dilution, paint, paints);
            }

            if (view.CleanedBy(i).Select(j => (int?)j).FirstOrDefault() is { } washed && layer.Main is { } cleaner && view.Layers[washed].Main is { } wash && !wash.TakesThinner(cleaner))
                yield return InTheCleanUp(view, i, washed, cleaner, wash);
        }
    }

    private Finding InTheMix(StackView view, int i, Dilution dilution, Material paint, List<Material> paints)
    {
        var layer = view.Layers[i];
        var remedies = new List<Remedy>();
        if (ShelfPick.Thinner(view.Context.Shelf, paints) is { } thinner)
            remedies.Add(new Remedy("swap-thinner", $"Thin with {thinner.Name}", [new StackEdit.Replace(i, layer with { Dilution = dilution with { Thinner = thinner } })]));
        remedies.Add(new Remedy("neat", "Use it neat", [new StackEdit.Replace(i, layer with { Dilution = null })]));
        return new Finding(Facts.Id, Severity.Stop, [i], "Wrong thinner",
            $"{dilution.Thinner.Name} does not belong to {paint.Name}, which is {EnumWords.Of(paint.Carrier)}. The mix curdles or separates.", remedies);
    }

    private Finding InTheCleanUp(StackView view, int i, int washed, Material cleaner, Material wash)
    {
        var remedies = new List<Remedy>();
        if (ShelfPick.Thinner(view.Context.Shelf, [wash]) is { } thinner)
            remedies.Add(new Remedy("swap-thinner", $"Clean up with {thinner.Name}",
                [new StackEdit.Replace(i, view.Layers[i] with { Paint = [new MixPart(thinner, Parts.One)] })]));
        return new Finding(Facts.Id, Severity.Stop, [i, washed], "Wrong thinner for the clean-up",
            $"{cleaner.Name} does not move {wash.Name}, which is {EnumWords.Of(wash.Carrier)}: it attacks the paint around it or does nothing.", remedies);
    }
}
