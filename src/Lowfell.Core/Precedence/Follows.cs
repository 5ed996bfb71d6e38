namespace Lowfell.Core.Precedence;

/// <summary>What comes before what, and never in a circle: of every pair in one question, however long the way between them.</summary>
internal sealed class Follows(int count)
{
    private readonly int words = (count + 63) / 64;

    /// <summary>For each, all that come after it and all that come before it, a bit each.</summary>
    private readonly ulong[] after = new ulong[count * ((count + 63) / 64)], before = new ulong[count * ((count + 63) / 64)];

    /// <summary>Whether one comes before another.</summary>
    public bool Comes(int first, int second) => Has(after, first, second);

    /// <summary>Has one come before another; false, and nothing changes, where that would close a circle.</summary>
    public bool Add(int first, int second)
    {
        if (first == second || Comes(second, first))
            return false;
        if (Comes(first, second))
            return true;
        for (var i = 0; i < count; i++)
            if (i == first || Has(before, first, i))
                Join(after, i, second);
        for (var i = 0; i < count; i++)
            if (i == second || Has(after, second, i))
                Join(before, i, first);
        return true;
    }

    /// <summary>How many come before one.</summary>
    public int Earlier(int of)
    {
        var sum = 0;
        for (var w = 0; w < words; w++)
            sum += System.Numerics.BitOperations.PopCount(before[of * words + w]);
        return sum;
    }

    private bool Has(ulong[] of, int row, int bit) => (of[row * words + bit / 64] >> bit % 64 & 1) != 0;

    /// <summary>What one has gets another and all that it has.</summary>
    private void Join(ulong[] of, int row, int with)
    {
        of[row * words + with / 64] |= 1ul << with % 64;
        for (var w = 0; w < words; w++)
            of[row * words + w] |= of[with * words + w];
    }
}
