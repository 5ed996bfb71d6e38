namespace Lowfell.Core.Bases;

/// <summary>Numbers by chance that are the same for the same seed on every machine (SplitMix64: Steele, Lea and Flood 2014, OOPSLA).</summary>
internal sealed class Chance(ulong seed)
{
    private ulong state = seed;

    /// <summary>From a whole number of another one.</summary>
    public static Chance From(ulong whole) => new(whole * 0x9E3779B97F4A7C15UL + 1);

    public static Chance Of(int seed, int index) => new(unchecked((ulong)seed * 0x9E3779B97F4A7C15UL ^ ((ulong)index + 1) * 0xD1B54A32D192ED03UL));

    /// <summary>From 0 to below 1.</summary>
    public double Next()
    {
        unchecked
        {
            state += 0x9E3779B97F4A7C15UL;
            var z = state;
            z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9UL;
            z = (z ^ (z >> 27)) * 0x94D049BB133111EBUL;
            return ((z ^ (z >> 31)) >> 11) * (1.0 / (1UL << 53));
        }
    }

    public int Below(int count) => (int)(Next() * count);

    /// <summary>A whole number to begin other chances with.</summary>
    public ulong Whole() => (ulong)(Next() * (1UL << 53));
}
