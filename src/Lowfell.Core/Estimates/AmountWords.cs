using Lowfell.Core.Materials;
using Lowfell.Core.Mixing.Measures;

namespace Lowfell.Core.Estimates;

/// <summary>What is weighed rather than measured.</summary>
public static class AmountWords
{
    /// <summary>Grams of sand and other grains, which nobody measures in ml; null for everything else.</summary>
    public static double? GramsOf(Material material, double ml) =>
        material.Kind == MaterialKind.Aggregate ? Math.Round(ml * (double)UsualMeasures.DensityOf(material), 1) : null;
}
