namespace Lowfell.Core.Mixing.Measures;

/// <summary>The drop of one bottle, found by counting drops onto a scale or into a syringe.</summary>
/// <param name="DropMl">Volume of one drop, ml, to a ten-thousandth.</param>
/// <param name="DoubtMl">How far the reading of scale or syringe leaves it open, ± ml.</param>
public readonly record struct DropCalibration(decimal DropMl, decimal DoubtMl)
{
    /// <summary>Twenty drops average out the one that fell badly.</summary>
    public const int UsualCount = 20;

    /// <summary>Half a step of an ordinary syringe (0.1 ml) and of a kitchen scale (0.1 g).</summary>
    private const decimal HalfStep = 0.05m;

    public const decimal SmallestMl = 0.005m, LargestMl = 0.5m;

    /// <summary>From drops counted into something with a scale of millilitres.</summary>
    /// <exception cref="ArgumentOutOfRangeException">No drops, or a drop that no bottle gives.</exception>
    public static DropCalibration FromMl(int drops, decimal ml)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(drops, 1);
        var drop = decimal.Round(ml / drops, 4);
        if (drop is < SmallestMl or > LargestMl)
            throw new ArgumentOutOfRangeException(nameof(ml), $"A drop of {drop:0.####} ml is none that a bottle gives; from {SmallestMl} to {LargestMl} ml is possible. Count again.");
        return new DropCalibration(drop, decimal.Round(HalfStep / drops, 4));
    }

    /// <summary>From drops counted onto a scale.</summary>
    /// <param name="drops">How many.</param>
    /// <param name="grams">What they weigh together.</param>
    /// <param name="densityGPerMl">Grams per millilitre, above 0.</param>
    /// <exception cref="ArgumentOutOfRangeException">No drops, no density, or a drop that no bottle gives.</exception>
    public static DropCalibration FromGrams(int drops, decimal grams, decimal densityGPerMl)
    {
        ArgumentOutOfRangeException.ThrowIfNegativeOrZero(densityGPerMl);
        var found = FromMl(drops, grams / densityGPerMl);
        return found with { DoubtMl = decimal.Round(HalfStep / densityGPerMl / drops, 4) };
    }
}
