using Lowfell.Core.Layers;
using Lowfell.Core.Variation;
using Lowfell.Store;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Stacks;

/// <summary>What the plan of a varied layer has for one piece; Hand is which of its materials, where they are dealt.</summary>
internal sealed record PlannedPiece(PieceRow Piece, PieceMarks Marks, string Words, IReadOnlyList<int> Hand);

/// <summary>The plan of a varied layer over all pieces of one zone.</summary>
internal sealed record PlanOfPieces(VariationWish? Wish, Face Face, IReadOnlyList<PlannedPiece> Pieces)
{
    /// <summary>Seeds of the zones of a treatment lie this far apart.</summary>
    private const int Apart = 7919;

    /// <summary>What is fixed to a face is no larger than this share of it.</summary>
    private const double Fixed = 0.15;

    public static PlanOfPieces Of(Place at, Layer layer, Varied varied)
    {
        var (graph, zone) = (at.Graph, at.Context.Zone);
        var others = at.Design.Zones.Where(z => graph.Touching[at.Zone.Id].Contains(z.Id) && z.AreaCm2 < at.Zone.AreaCm2 * (decimal)Fixed).Select(z => z.Name).ToList();
        var face = Face.Of(zone, Surfaces.Of(at.Zone, graph.Set.Scale), others, (double?)at.Zone.FaceWidthMm);
        var (pieces, turns) = (InTime.Pieces(at.Design), InTime.Turns(at.Design));
        var seed = varied.Seed + Apart * (at.Zone.Number ?? 0);
        VariationWish? wish = null;
        IReadOnlyList<PieceMarks> marks = Enumerable.Repeat(new PieceMarks([]), turns).ToList();
        if (Varied.HasMarks(layer))
        {
            var asked = VariationWish.Of(layer, varied, zone);
            wish = asked with { MarksAPiece = Math.Min(asked.MarksAPiece, MarksPlan.MostMarks(asked.Habit, face)) };
            marks = MarksPlan.For(wish, face, seed, turns);
        }

        var dealt = (layer with { Varied = varied }).IsDealt ? layer.Paint.Where(p => !p.Material.IsThinner).ToList() : [];
        var all = dealt.Sum(p => p.Parts.ToDouble());
        var hands = dealt.Count > 0 ? Dealing.For(dealt.Select(p => p.Parts.ToDouble() / all).ToList(), seed, turns) : Enumerable.Repeat((IReadOnlyList<int>)[], turns).ToList();
        return new(wish, face, pieces.Select(p =>
        {
            var (mine, hand) = (InTime.Of(marks, p), InTime.Of(hands, p));
            return new PlannedPiece(p, mine, Say(wish, face, mine, hand.Select(h => dealt[h].Material.Name).ToList()), hand);
        }).ToList());
    }

    private static string Say(VariationWish? wish, Face face, PieceMarks marks, IReadOnlyList<string> materials)
    {
        var where = wish is null ? "" : MarkWords.Of(marks, wish, face);
        var what = materials.Count == 2 ? $"{materials[0]} and {materials[1]}, run together" : materials.FirstOrDefault() ?? "";
        return what.Length == 0 ? where : where.Length == 0 ? what : $"{what}; {where}";
    }
}
