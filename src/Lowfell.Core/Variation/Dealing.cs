namespace Lowfell.Core.Variation;

/// <summary>
/// Deals several materials to a row of pieces: each gets one alone or two that are run together, no two neighbours the same, and over any
/// number of pieces the shares come as near as can be to those that were asked for. What a piece gets depends on those before it alone.
/// </summary>
public static class Dealing
{
    /// <summary>A step to the side of the best that chance may take, so that the row is no pattern.</summary>
    private const double Loose = 0.15;

    /// <summary>What each piece gets, as indices of the materials: one, or two together in equal parts.</summary>
    /// <param name="shares">How much of each is wanted; they add to 1. At least two.</param>
    /// <param name="seed">Any number.</param>
    /// <param name="pieces">How many.</param>
    public static IReadOnlyList<IReadOnlyList<int>> For(IReadOnlyList<double> shares, int seed, int pieces)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(shares.Count, 2);
        var chance = new Chance(seed);
        var hands = Enumerable.Range(0, shares.Count).Select(m => (IReadOnlyList<int>)[m])
            .Concat(Enumerable.Range(0, shares.Count).SelectMany(a => Enumerable.Range(a + 1, shares.Count - a - 1).Select(b => (IReadOnlyList<int>)[a, b]))).ToList();
        var given = new double[shares.Count];
        var plan = new List<IReadOnlyList<int>>(pieces);
        for (var i = 0; i < pieces; i++)
        {
            double Off(IReadOnlyList<int> hand) => Enumerable.Range(0, shares.Count).Sum(m =>
            {
                var owed = shares[m] * (i + 1) - given[m] - (hand.Contains(m) ? 1.0 / hand.Count : 0);
                return owed * owed;
            });
            var free = hands.Where(h => i == 0 || h != plan[^1]).Select(h => (Hand: h, Off: Off(h))).ToList();
            var least = free.Min(f => f.Off);
            var among = free.Where(f => f.Off <= least + Loose).ToList();
            var hand = among[chance.Below(among.Count)].Hand;
            foreach (var m in hand)
                given[m] += 1.0 / hand.Count;
            plan.Add(hand);
        }

        return plan;
    }
}
