namespace Lowfell.Core.Layers;

/// <summary>Predicts the three positions of a zone after every layer, bottom first.</summary>
public static class StackPrediction
{
    /// <summary>A prediction of every layer, in the order given (bottom first).</summary>
    /// <param name="zone">Relief, shares and joints.</param>
    /// <param name="layers">Bottom first.</param>
    /// <param name="carryOver">House rule: a brush keeps a little of its last colour from one dry-brush step to the next.</param>
    /// <param name="from">
    /// An earlier prediction of the same zone. Layers that both stacks share from the bottom up are not computed again,
    /// so that trying an edit near the top costs next to nothing.
    /// </param>
    public static StackRun Compute(Zone zone, IReadOnlyList<Layer> layers, bool carryOver = true, StackRun? from = null) =>
        new(zone, layers, carryOver, from);
}
