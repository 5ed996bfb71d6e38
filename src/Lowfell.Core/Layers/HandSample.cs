namespace Lowfell.Core.Layers;

/// <summary>The few hands that stand for all of them.</summary>
internal static class HandSample
{
    /// <summary>Hands besides the usual one, and stacks in which every layer is laid by a hand of its own.</summary>
    public const int Nodes = 2, Together = 54;

    /// <summary>The outer points of Gauss's rule of three, and what each weighs. The middle one lays the usual, which is known already.</summary>
    public static readonly double[] Hands = [0.5 - Math.Sqrt(0.15), 0.5 + Math.Sqrt(0.15)];

    /// <inheritdoc cref="Hands"/>
    public const double Weight = 5.0 / 18;

    /// <summary>The lot of a layer that is laid as usual.</summary>
    public const int AsUsual = Nodes;

    /// <summary>Which hand lays each layer in each of the stacks laid by several: every hand by its weight, the layers shuffled apart.</summary>
    public static int[][] Lots(int layers)
    {
        var random = new Random(1);
        return Enumerable.Range(0, layers).Select(_ =>
        {
            var lot = Enumerable.Range(0, Together).Select(i => i < Together * Weight ? 0 : i < 2 * Together * Weight ? 1 : AsUsual).ToArray();
            random.Shuffle(lot);
            return lot;
        }).ToArray();
    }
}
