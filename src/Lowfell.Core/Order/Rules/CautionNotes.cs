using System.Collections.Frozen;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>The usual cautions, at the layer that needs them. They never stand in for the label, local rules or trained advice.</summary>
internal sealed class CautionNotes : IOrderRule
{
    public RuleFacts Facts { get; } = new("caution-notes",
        "Hazardous layers with their usual cautions; hot air on anything solvent-wet; solvent products in a water-based house.",
        "Vapour, flame, heat, dust and glue hurt people.",
        "Dry it in still air; use a water-borne product.", CanStop: true)
    { Schools = [School.SolventProducts] };

    public IEnumerable<Finding> Check(StackView view)
    {
        foreach (var finding in Check(view, FrozenSet<Guid>.Empty))
            yield return finding;
        var notes = view.Layers.Select((l, i) => (Index: i, Notes: Care.For(l, view.Context.Zone.Substrate))).Where(x => x.Notes.Count > 0).ToList();
        var texts = notes.SelectMany(n => n.Notes).Distinct().OrderBy(n => n.Care).Select(n => n.Text).ToList();
        if (texts.Count > 0)
            yield return new Finding(Facts.Id, Severity.Hint, notes.Select(n => n.Index).ToList(), CareTitle, $"{string.Join(" ", texts)} {Care.Deference}", []);
    }

    /// <summary>Without the gathered notes, which always stand.</summary>
    public IEnumerable<Finding> Check(StackView view, IReadOnlySet<Guid> known)
    {
        for (var i = 0; i < view.Count; i++)
            if (!known.Contains(view.Layers[i].Id) && (HotAir(view, i) ?? AgainstTheHouse(view, i)) is { } finding)
                yield return finding;
    }

    /// <summary>The remark that only gathers notes; the page shows those at their layers instead.</summary>
    internal const string CareTitle = "Care";

    /// <summary>The gathered notes hang on many layers and always stand; what can be mended is what remedies are tried on.</summary>
    public bool SpeaksOf(StackView view, Guid layer) =>
        view.IndexOf(layer) is var i and >= 0 && (HotAir(view, i) ?? AgainstTheHouse(view, i)) is not null;

    private Finding? HotAir(StackView view, int i)
    {
        var layer = view.Layers[i];
        if (layer.Drying != DryingMode.HotAir || layer.Paint.Count == 0 || !layer.Carrier.IsSolvent() || view.IsWash(i))
            return null;
        return new Finding(Facts.Id, Severity.Stop, [i], "Hot air on solvent",
            $"{view.Says(i)}, gives off vapour that burns: no hot air and no flame while it is wet. A hair dryer is for water-based coats only. The label wins.",
            [new Remedy("still-air", "Dry it in still air", [new StackEdit.Replace(i, layer with { Drying = DryingMode.Air })])]);
    }

    private Finding? AgainstTheHouse(StackView view, int i)
    {
        var layer = view.Layers[i];
        if (view.Context.HouseRules.SolventProducts != SolventSchool.WaterOnly || layer.Paint.Count == 0 || !layer.Carrier.IsSolvent() || layer.Technique == Technique.CleanUpExcess)
            return null;
        var remedies = new List<Remedy>();
        if (ShelfPick.WaterBorne(view.Context.Shelf, layer) is var (instead, other))
            remedies.Add(new Remedy("water-borne", $"Use {other.Name}, which is water-based",
                [new StackEdit.Replace(i, instead with { Tool = layer.Tool == Tool.SprayCan ? Tool.Airbrush : layer.Tool }), .. SolventWork.WithoutCleanUp(view, i)]));
        return new Finding(Facts.Id, Severity.Caution, [i], "Solvent in a water-based house",
            $"{view.Says(i)}, is {EnumWords.Of(layer.Carrier)}. Your house rule is water-based products only.", remedies);
    }
}
