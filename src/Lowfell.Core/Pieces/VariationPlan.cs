namespace Lowfell.Core.Pieces;

/// <summary>How heavily a patch is laid on one piece.</summary>
public enum Amount
{
    Sparse, Usual, Rich,
}

/// <summary>Where a patch goes on one piece: cells of a face seen as three by three, 0 top left to 8 bottom right, in order of size.</summary>
public sealed record VariedPiece(IReadOnlyList<int> Cells, Amount Amount);

/// <summary>
/// A plan that lays patches differently from piece to piece: no piece has a cell in common with the one before it, and amounts never
/// repeat side by side. The same seed gives the same plan on every machine (linear congruential generator of Knuth, MMIX constants).
/// </summary>
public static class VariationPlan
{
    private const int Faces = 9, MostCells = 3;

    /// <summary>A plan for a row of pieces; longer rows begin alike.</summary>
    /// <param name="seed">Any number; another seed is another plan.</param>
    /// <param name="pieces">How many pieces, at least 0.</param>
    public static IReadOnlyList<VariedPiece> For(int seed, int pieces)
    {
        var state = (ulong)seed * 0x9E3779B97F4A7C15UL + 1;
        int Next(int below)
        {
            state = state * 6364136223846793005UL + 1442695040888963407UL;
            return (int)((state >> 33) % (ulong)below);
        }

        var plan = new List<VariedPiece>(pieces);
        for (var i = 0; i < pieces; i++)
        {
            var before = i > 0 ? plan[i - 1] : null;
            var free = Enumerable.Range(0, Faces).Where(c => before is null || !before.Cells.Contains(c)).ToList();
            var cells = new List<int>();
            for (var n = 1 + Next(MostCells); n > 0; n--)
            {
                var at = Next(free.Count);
                cells.Add(free[at]);
                free.RemoveAt(at);
            }

            var amounts = Enum.GetValues<Amount>().Where(a => a != before?.Amount).ToList();
            plan.Add(new VariedPiece(cells, amounts[Next(amounts.Count)]));
        }

        return plan;
    }
}
