using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Sight;
using static System.FormattableString;

namespace Lowfell.Core.Order.Rules;

/// <summary>Zones that run together from the table might as well be one.</summary>
internal sealed class SameToneNeighbours : IOrderRule
{
    public RuleFacts Facts { get; } = new("same-tone-neighbours",
        "Two touching zones meant to separate cannot be told apart from the table.",
        "The work on the limit between them is lost from the players’ chairs.",
        "Shift one of them with a filter or a wash.")
    {
        OnlyHints = true,
        Schools = [School.DryBrushCleaning],
        Limits = [new("two zones apart from the table", FromTheTable.PlainlyApart / 2, "ΔE00")],
    };

    public IEnumerable<Finding> Check(StackView view)
    {
        if (view.Context.Neighbours.Count == 0 || Finished(view) is not { } mean)
            yield break;
        foreach (var neighbour in view.Context.Neighbours)
        {
            // One treatment on both says that they are meant to be one.
            if (neighbour.Layers.Count == 0 || SameWork(neighbour.Layers, view.Layers) || Apart(view, mean, neighbour) is not { Verdict: Verdict.Lost } apart)
                continue;
            yield return new Finding(Facts.Id, Severity.Hint, [view.Count - 1], "Cannot be told apart",
                Invariant($"From {view.Context.Set.TableMetres:0.##} m {view.Context.Zone.Name} and {neighbour.Name} differ by {apart.Difference:0.0}; below {FromTheTable.PlainlyApart / 2:0} nobody tells them apart."),
                Remedies(view));
            yield break;
        }
    }

    private static bool SameWork(IReadOnlyList<Layer> theirs, IReadOnlyList<Layer> mine) =>
        ReferenceEquals(theirs, mine) || (theirs.Count == mine.Count && theirs.Zip(mine).All(p => p.First.Id == p.Second.Id));

    private static Seen? Finished(StackView view) =>
        Enumerable.Range(0, view.Count).Any(view.LeavesFilm) ? view.Predictions[^1].Average : null;

    private static Apart Apart(StackView view, Seen mean, Neighbour neighbour) =>
        FromTheTable.Between(view.Context.Zone, mean, neighbour.Zone, neighbour.Mean.Value, view.Context.Set.TableMetres);

    /// <summary>The washes and filters on the shelf that set this zone furthest from every neighbour.</summary>
    private static List<Remedy> Remedies(StackView view)
    {
        var at = view.Last(view.IsVarnish) is var top and >= 0 ? top : view.Count;
        return view.Context.Shelf
            .Where(m => m.Kind is MaterialKind.Wash or MaterialKind.Filter && m.Carrier.IsWaterBorne()).Take(MostTried)
            .Select(m => (Material: m, Edit: new StackEdit.Insert(at, ShelfPick.LayerOf(Technique.Filter, m, 2))))
            .Select(x => (x.Material, x.Edit, Nearest: Nearest(view, x.Edit)))
            .OrderByDescending(x => x.Nearest).Take(MostRemedies)
            .Select(x => new Remedy("shift-" + x.Material.Name.ToLowerInvariant().Replace(' ', '-'), $"Shift it with two thin filters of {x.Material.Name}", [x.Edit]))
            .ToList();
    }

    private const int MostRemedies = 2, MostTried = 60;

    private static double Nearest(StackView view, StackEdit edit)
    {
        var mean = Finished(new StackView(view.Context, StackEdit.Apply(view.Layers, [edit]), view))!.Value;
        return view.Context.Neighbours.Min(n => Apart(view, mean, n).Difference);
    }
}
