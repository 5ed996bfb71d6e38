namespace Lowfell.Core.Estimates;

/// <summary>Whether what is on the shelf lasts for what is planned.</summary>
public enum StockState
{
    /// <summary>Planned work takes more than there is.</summary>
    Short,

    /// <summary>It lasts, but hardly anything is left.</summary>
    Low,

    Enough,
}

/// <summary>What to buy of one material, in whole packs. Volumes ml, cost in the shelf's own money.</summary>
/// <param name="State">Whether what is there lasts.</param>
/// <param name="ShortMl">What is missing; 0 when nothing is.</param>
/// <param name="Packs">Whole packs to buy; 0 when nothing is missing or the pack size is not known.</param>
/// <param name="Cost">Price of the packs, 0 when nothing is to be bought; null when the price or the pack size is not known.</param>
/// <param name="LeftMl">Left over once the work is done with what was bought.</param>
public readonly record struct Purchase(StockState State, double ShortMl, int Packs, double? Cost, double LeftMl);

/// <summary>Turns a need into a purchase.</summary>
public static class Shopping
{
    /// <summary>Less than this share of a pack left over counts as low.</summary>
    public const double LowShare = 0.15;

    /// <summary>What is left of a sum by rounding alone, ml or shares of a pack: nobody buys a pack for it.</summary>
    private const double Nothing = 1e-7, NothingOfAPack = 1e-9;

    /// <summary>What to buy.</summary>
    /// <param name="needMl">What all planned work takes, losses and spare included, at least 0.</param>
    /// <param name="stockMl">What is there, at least 0.</param>
    /// <param name="packMl">Size of a pack; 0 when it is not known.</param>
    /// <param name="price">Price of a pack; null when it is not known.</param>
    public static Purchase For(double needMl, double stockMl, double packMl, double? price)
    {
        var missing = needMl - stockMl <= Nothing ? 0 : needMl - stockMl;
        if (missing == 0)
            return new Purchase(needMl > 0 && stockMl - needMl < LowShare * packMl ? StockState.Low : StockState.Enough, 0, 0, 0, stockMl - needMl);
        var packs = packMl > 0 ? Math.Max(1, (int)Math.Ceiling(missing / packMl - NothingOfAPack)) : 0;
        return new Purchase(StockState.Short, missing, packs, packs > 0 ? packs * price : null, Math.Max(0, stockMl + packs * packMl - needMl));
    }
}
