using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Order;

/// <summary>How much more (or less) of a material an edited stack takes over all pieces, ml.</summary>
public readonly record struct AmountChange(Material Material, double Ml);

/// <summary>What an edit to a stack does before anyone makes it.</summary>
/// <param name="Before">Finished colours before.</param>
/// <param name="After">Finished colours after.</param>
/// <param name="Difference">CIEDE2000 between the two at each position.</param>
/// <param name="Minutes">Hands-on minutes more over all pieces; below 0 they are saved. An estimate.</param>
/// <param name="Amounts">Materials of which more or less is needed, most first.</param>
/// <param name="Gone">Findings that go.</param>
/// <param name="Come">Findings that come.</param>
public sealed record StackChange(
    SeenSplit Before, SeenSplit After, Split Difference, double Minutes, IReadOnlyList<AmountChange> Amounts, IReadOnlyList<Finding> Gone, IReadOnlyList<Finding> Come)
{
    private const double LeastMl = 0.005;

    /// <summary>Compares two stacks on one zone.</summary>
    public static StackChange Between(StackView before, StackView after)
    {
        SeenSplit first = before.Predictions.SeenBelow(before.Count), second = after.Predictions.SeenBelow(after.Count);
        IReadOnlyList<Finding> was = OrderCheck.Glance(before), now = OrderCheck.Glance(after);
        var wasKeys = was.Select(f => OrderCheck.Key(before, f)).ToHashSet();
        var nowKeys = now.Select(f => OrderCheck.Key(after, f)).ToHashSet();
        return new StackChange(
            first, second, first.DifferenceTo(second), HandsOnMinutes(after) - HandsOnMinutes(before), AmountsBetween(before, after),
            was.Where(f => !nowKeys.Contains(OrderCheck.Key(before, f))).ToList(),
            now.Where(f => !wasKeys.Contains(OrderCheck.Key(after, f))).ToList());
    }

    private static double HandsOnMinutes(StackView view) => view.Layers.Sum(l => HandsOn.Batch(l, view.Context.Zone, view.Context.Pieces, view.Context.Pace));

    private static List<AmountChange> AmountsBetween(StackView before, StackView after)
    {
        var sums = new Dictionary<Guid, AmountChange>();
        void Add(StackView view, double sign)
        {
            foreach (var need in view.Layers.SelectMany(l => Quantities.ForLayer(l, view.Context.Zone, view.Context.Pieces)))
                sums[need.Material.Id] = new(need.Material, sums.GetValueOrDefault(need.Material.Id).Ml + sign * need.Ml);
        }

        Add(after, 1);
        Add(before, -1);
        return sums.Values.Where(a => Math.Abs(a.Ml) >= LeastMl).OrderByDescending(a => Math.Abs(a.Ml)).ToList();
    }
}
