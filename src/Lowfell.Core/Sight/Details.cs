using Lowfell.Core.Colour;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;

namespace Lowfell.Core.Sight;

/// <summary>What becomes of one layer's marks at the table.</summary>
/// <param name="Layer">Index into the stack, bottom first.</param>
/// <param name="Position">Where the marks show most.</param>
/// <param name="Millimetres">Their width on the model.</param>
/// <param name="Shape">Spots or lines.</param>
/// <param name="Difference">CIEDE2000 that leaving them out would make from the table.</param>
/// <param name="Verdict">Seen, just, or lost.</param>
/// <param name="LostBeyondMetres">From where on nobody can tell; 0 when not even from near.</param>
/// <param name="MinutesSaved">Hands-on minutes that leaving them out would save over all pieces; an estimate.</param>
public sealed record Detail(
    int Layer, Position Position, double Millimetres, MarkShape Shape, double Difference, Verdict Verdict, double LostBeyondMetres, double MinutesSaved);

/// <summary>Judges the marks of a zone: those nobody sees are work to save.</summary>
public static class Details
{
    /// <summary>Every layer that makes marks, from the bottom up, as it shows on the finished surface.</summary>
    /// <param name="run">The predicted stack.</param>
    /// <param name="metres">From the eye to the table.</param>
    /// <param name="pieces">Pieces the zone is painted on.</param>
    public static IReadOnlyList<Detail> Judge(StackRun run, double metres, int pieces) =>
        Enumerable.Range(0, run.Count).Select(i => Judge(run, i, metres, pieces)).OfType<Detail>().ToList();

    /// <summary>One layer's marks; null when it makes none or leaves nothing.</summary>
    public static Detail? Judge(StackRun run, int index, double metres, int pieces) => Word(run, index, pieces, Plainest(run, index, metres));

    /// <summary>One layer's marks when none of them can be told from this distance, else null; far quicker than to say from where they could.</summary>
    public static Detail? IfLost(StackRun run, int index, double metres, int pieces) =>
        Plainest(run, index, metres) is { } plain && Eye.Judge(plain.Difference) == Verdict.Lost ? Word(run, index, pieces, plain) : null;

    /// <summary>The finished colours of the open face inside a mark of a layer, and beside it.</summary>
    public static (SrgbColour Marked, SrgbColour Bare) Colours(StackRun run, int index)
    {
        var layer = run.Layers[index];
        return (run.FinishedWith(index, layer with { Whole = true }).Field.Colour, run.FinishedWith(index, layer with { Strength = 0 }).Field.Colour);
    }

    private static Detail? Word(StackRun run, int index, int pieces, (Stand Mark, double Difference)? plainest) => plainest is not var (m, difference) ? null
        : new Detail(index, m.Position, m.Millimetres, m.Shape, difference, Eye.Judge(difference), Eye.LostBeyond(m.Marked, m.Bare, m.Surround, m.Millimetres, m.Shape), Minutes(run, index, pieces));

    /// <summary>A mark as it stands on the finished surface.</summary>
    private readonly record struct Stand(Position Position, double Millimetres, MarkShape Shape, Xyz Marked, Xyz Bare, Xyz Surround);

    /// <summary>The position where a layer's marks show most from a distance.</summary>
    private static (Stand Mark, double Difference)? Plainest(StackRun run, int index, double metres)
    {
        var layer = run.Layers[index];
        var figures = TechniqueTable.For(layer.Technique, layer.Tool);
        if (figures.Mark is not { } mark || layer.Paint.Count == 0 || layer.Strength <= 0)
            return null;
        var with = run.FinishedWith(index, layer with { Whole = true });
        var without = run.FinishedWith(index, layer with { Strength = 0 });
        var around = Xyz(run.SeenWithin(run.Count, layer.Region).Field);
        var size = layer.MarkMm ?? (mark.Mm > 0 ? mark.Mm : run.Zone.SmallestDetailMm);
        (Stand, double Difference)? best = null;
        foreach (var position in positions)
        {
            if (run.LaidBy(index).Cover[position] <= 0 || run.LaidBy(index).FilmUm[position] <= 0)
                continue;
            Xyz marked = Xyz(with[position]), bare = Xyz(without[position]);
            var surround = position == Position.Field ? bare : around;
            var (mm, shape) = Fitted(run.Zone, position, size, mark.Shape);
            var difference = Eye.Missed(marked, bare, surround, Eye.HalfAngle(mm, metres), shape);
            if (best is null || difference > best.Value.Difference)
                best = (new Stand(position, mm, shape, marked, bare, surround), difference);
        }

        return best;
    }

    private static readonly Position[] positions = Enum.GetValues<Position>();

    /// <summary>A mark in a joint or on a rim is no wider than these.</summary>
    private static (double Millimetres, MarkShape Shape) Fitted(Zone zone, Position position, double mm, MarkShape shape)
    {
        var room = position switch
        {
            Position.Recess => FromTheTable.JointWidthMm(zone),
            Position.Raised => FromTheTable.RimWidthMm(zone),
            _ => double.MaxValue,
        };
        return mm > room ? (room, MarkShape.Line) : (mm, shape);
    }

    /// <summary>A wash left out takes a clean-up of its own with it.</summary>
    private static double Minutes(StackRun run, int index, int pieces)
    {
        var minutes = HandsOn.Batch(run.Layers[index], run.Zone, pieces);
        for (var i = index + 1; i < run.Count; i++)
            if (Lifting.CleansOnly(run.Layers, i, index, run.Zone.Relief))
                minutes += HandsOn.Batch(run.Layers[i], run.Zone, pieces);
        return minutes;
    }

    private static Xyz Xyz(Seen seen) => Observer.ToXyz(seen.Colour.ToLinear());
}
