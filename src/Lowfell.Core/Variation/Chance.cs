namespace Lowfell.Core.Variation;

/// <summary>The generator of Knuth with the constants of MMIX: the same on every machine.</summary>
internal sealed class Chance(int seed)
{
    private ulong state = unchecked((ulong)seed * 0x9E3779B97F4A7C15UL + 1);

    public double Next()
    {
        state = unchecked(state * 6364136223846793005UL + 1442695040888963407UL);
        return (state >> 11) * (1.0 / (1UL << 53));
    }

    public int Below(int count) => (int)(Next() * count);
}
