using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Words;

namespace Lowfell.Core.Order.Rules;

/// <summary>Cut edges of board and plaster drink paint and show as pale or dark lines.</summary>
internal sealed class ThirstyEdge : IOrderRule
{
    public RuleFacts Facts { get; } = new("thirsty-edge",
        "Board or plaster cut edges without their own seal and their own pass of each ground colour.",
        "Cut edges drink the paint that covers a face.",
        "Seal the edges; lay the ground colour once more along them.");

    public IEnumerable<Finding> Check(StackView view)
    {
        var zone = view.Context.Zone;
        var first = view.NextAbove(-1, i => IsColour(view, i));
        if (zone.Substrate is not (Substrate.Board or Substrate.Plaster) || first < 0 || !(zone.CutEdge || (zone.EdgeMm > 0 && !view.Context.EdgesApart)))
            yield break;
        var region = zone.CutEdge ? Region.All : Region.Edges;
        var isSealed = view.NextBelow(first, j => Seals(view, j)) >= 0;
        for (var i = first; i < view.Count; i++)
        {
            var passes = zone.CutEdge || !IsGroundColour(view, i) || HasEdgePass(view, i);
            var seal = i == first && !isSealed;
            if (seal || !passes)
                yield return Describe(view, i, seal, !passes, region);
        }
    }

    private static bool IsColour(StackView view, int i) =>
        view.LeavesFilm(i) && view.Layers[i].Main!.Kind is MaterialKind.Primer or MaterialKind.Paint or MaterialKind.Ink or MaterialKind.Wash or MaterialKind.Filter;

    private static bool IsGroundColour(StackView view, int i) =>
        view.IsFullFilm(i) && view.Layers[i].Technique == Technique.BaseCoat && view.Layers[i].Main!.IsOpaque;

    /// <summary>Anything that closes the pores, on the edges at least.</summary>
    private static bool Seals(StackView view, int j) =>
        view.LeavesFilm(j) && view.Layers[j].Region is Region.All or Region.Edges
        && (view.Layers[j].Technique == Technique.SealTexture || view.Layers[j].Main!.Kind is MaterialKind.Varnish or MaterialKind.Glue or MaterialKind.Medium or MaterialKind.Filler);

    private static bool HasEdgePass(StackView view, int ground) =>
        Enumerable.Range(0, view.Count).Any(j =>
            j != ground && view.LeavesFilm(j) && view.Layers[j].Region == Region.Edges && view.Layers[j].Main!.Id == view.Layers[ground].Main!.Id);

    private Finding Describe(StackView view, int i, bool seal, bool pass, Region region)
    {
        var edits = new List<StackEdit>();
        var todo = new List<string>();
        var sealer = seal ? ShelfPick.Sealer(view.Context.Shelf) : null;
        if (pass)
        {
            edits.Add(new StackEdit.Insert(i + 1, view.Layers[i] with { Id = Guid.Empty, Region = Region.Edges, Coats = 1, Tool = Tool.Brush }));
            todo.Add($"lay {view.Layers[i].MaterialName} once more along the edges");
        }

        if (sealer is not null)
        {
            edits.Add(new StackEdit.Insert(0, ShelfPick.LayerOf(Technique.SealTexture, sealer) with { Region = region }));
            todo.Insert(0, $"seal the edges with {sealer.Name}");
        }

        List<Remedy> remedies = seal && sealer is null ? [] : [new Remedy(seal ? "seal-edges" : "edge-pass", Sentence(todo), edits)];
        var what = seal ? "nothing seals them before the first colour" : "they get no pass of their own";
        return new Finding(Facts.Id, Severity.Caution, [i], "Thirsty cut edges",
            $"The cut edges of this {EnumWords.Of(view.Context.Zone.Substrate)} drink what covers the faces, and {what}: {view.Layers[i].MaterialName} dries pale and patchy there.", remedies);
    }

    private static string Sentence(List<string> todo)
    {
        var text = string.Join(", ", todo);
        return char.ToUpperInvariant(text[0]) + text[1..];
    }
}
