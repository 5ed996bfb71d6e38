using Lowfell.Core.Sight;
using static System.FormattableString;

namespace Lowfell.Core.Mixing.Pots;

/// <summary>Which pieces may stand side by side once a layer came from two pots.</summary>
public static class Seam
{
    private const int MostNamed = 8;

    /// <summary>What to put together and what apart.</summary>
    /// <param name="difference">CIEDE2000 between finished pieces of both pots, the largest of the three positions.</param>
    /// <param name="fromTheTable">What is left of it at the distance of the set.</param>
    /// <param name="first">Labels of pieces from the first pot.</param>
    /// <param name="second">Labels of pieces from the second.</param>
    /// <param name="between">Labels of pieces without this mix, which may stand between them.</param>
    public static string Says(double difference, Verdict fromTheTable, IReadOnlyList<string> first, IReadOnlyList<string> second, IReadOnlyList<string> between)
    {
        if (difference < PotAdvice.Visible)
            return Invariant($"{difference:0.0} apart: nobody sees it. All pieces may stand in any order.");
        var groups = $"Keep {Names(first)} from standing against {Names(second)}";
        var apart = between.Count > 0 ? $"Between them stand {Names(between)}, or a gap" : "Leave a gap or a corner between them";
        return fromTheTable switch
        {
            Verdict.Lost => Invariant($"{difference:0.0} apart: seen in the hand, lost from the table. {groups} where there is a choice."),
            Verdict.Just => Invariant($"{difference:0.0} apart: just seen from the table where they touch. {groups}. {apart}."),
            _ => Invariant($"{difference:0.0} apart: seen from the table. {groups}. {apart}; or go over the first group once more from the new pot."),
        };
    }

    private static string Names(IReadOnlyList<string> labels) => labels.Count switch
    {
        0 => "none",
        <= MostNamed => string.Join(", ", labels),
        _ => string.Join(", ", labels.Take(MostNamed)) + $" and {labels.Count - MostNamed} more",
    };
}
