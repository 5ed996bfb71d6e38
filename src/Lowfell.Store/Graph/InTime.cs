using Lowfell.Store.Rows;

namespace Lowfell.Store;

/// <summary>The turn of each piece and zone, which nothing that is added, renamed, moved in a list or removed changes: plans over pieces follow it.</summary>
public static class InTime
{
    /// <summary>Pieces that get a design's layers, in their turn.</summary>
    public static IReadOnlyList<PieceRow> Pieces(DesignRow design) => SetGraph.PiecesOf(design).OrderBy(p => p.Number).ToList();

    /// <summary>How many turns a plan has to have for all of them: what was removed keeps its own.</summary>
    public static int Turns(DesignRow design) => design.Pieces.Max(p => p.Number) ?? 0;

    /// <summary>What a plan of so many turns has for a piece.</summary>
    public static T Of<T>(IReadOnlyList<T> turns, PieceRow piece) => turns[piece.Number!.Value - 1];
}
