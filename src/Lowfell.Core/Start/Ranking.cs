using Lowfell.Core.Colour;

namespace Lowfell.Core.Start;

/// <summary>One material (second is -1) or two with their parts, as places on a shelf.</summary>
internal readonly record struct Candidate(int First, int Second, int FirstParts, int SecondParts);

/// <summary>A candidate with how near it ends.</summary>
internal readonly record struct Scored(double Difference, Candidate Candidate, int Coats, bool Hides, Lab End) : IComparable<Scored>
{
    /// <summary>Nearest first; then fewer materials, then the order of the shelf, then smaller parts: the same whoever ran first.</summary>
    public int CompareTo(Scored other) =>
        (Difference, Candidate.Second >= 0, Candidate.First, Candidate.Second, Candidate.FirstParts, Candidate.SecondParts).CompareTo(
        (other.Difference, other.Candidate.Second >= 0, other.Candidate.First, other.Candidate.Second, other.Candidate.FirstParts, other.Candidate.SecondParts));
}

/// <summary>Keeps the best few of many.</summary>
internal sealed class Ranking(int count)
{
    private readonly List<Scored> kept = new(count + 1);

    public bool IsFull => kept.Count == count;

    /// <summary>The difference of the last that is kept.</summary>
    public double Worst => kept[^1].Difference;

    public IReadOnlyList<Scored> InOrder => kept;

    public void Offer(Scored scored)
    {
        if (IsFull && scored.CompareTo(kept[^1]) >= 0)
            return;
        var at = kept.BinarySearch(scored);
        kept.Insert(at < 0 ? ~at : at, scored);
        if (kept.Count > count)
            kept.RemoveAt(count);
    }

    public void Take(Ranking other)
    {
        foreach (var scored in other.kept)
            Offer(scored);
    }
}
