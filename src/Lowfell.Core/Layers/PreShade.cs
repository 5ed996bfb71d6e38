namespace Lowfell.Core.Layers;

/// <summary>How much of painted light still shows through what lies above it.</summary>
public static class PreShade
{
    /// <summary>A light fainter than this to begin with (CIEDE2000) cannot be buried.</summary>
    private const double Faint = 0.5;

    /// <summary>
    /// Difference the light makes below a level of the stack against the difference it made when fresh, 0..1, at the
    /// position where it is strongest.
    /// </summary>
    /// <param name="run">The stack.</param>
    /// <param name="light">Index of the light's layer.</param>
    /// <param name="level">Above how many layers to look, from <paramref name="light"/> + 1 to the number of layers.</param>
    public static double ShareLeft(StackRun run, int light, int level) => ShareLeft(run, Without(run, light), light, level);

    /// <summary>The share left after every layer above the light, in their order; 1 stands for all of it.</summary>
    public static IReadOnlyList<double> AfterEach(StackRun run, int light)
    {
        var without = Without(run, light);
        return Enumerable.Range(light + 2, run.Count - light - 1).Select(level => ShareLeft(run, without, light, level)).ToList();
    }

    /// <summary>The share left after each coat of one layer above the light, from the first coat to the last.</summary>
    public static IReadOnlyList<double> AfterEachCoat(StackRun run, int light, int layer) =>
        Enumerable.Range(1, run.Layers[layer].Coats).Select(coats =>
        {
            var stack = run.Layers.Take(layer + 1).ToList();
            stack[layer] = stack[layer] with { Coats = coats };
            return ShareLeft(StackPrediction.Compute(run.Zone, stack, run.CarriesOver, run), light, layer + 1);
        }).ToList();

    private static StackRun Without(StackRun run, int light)
    {
        var stack = run.Layers.ToList();
        stack[light] = stack[light] with { Strength = 0 };
        return StackPrediction.Compute(run.Zone, stack, run.CarriesOver, run);
    }

    private static double ShareLeft(StackRun with, StackRun without, int light, int level)
    {
        var place = with.Layers[light].Region;
        double Difference(int at) => with.SeenWithin(at, place).DifferenceTo(without.SeenWithin(at, place)).Largest();
        var fresh = Difference(light + 1);
        return fresh < Faint ? 1 : Math.Min(1, Difference(level) / fresh);
    }
}
