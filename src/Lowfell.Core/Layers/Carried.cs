using Lowfell.Core.Colour;

namespace Lowfell.Core.Layers;

/// <summary>What a tool really carries: a brush that is only wiped keeps a little of its last colour.</summary>
internal static class Carried
{
    private const int N = Observer.Bands;

    /// <summary>Share of the last dry-brush colour still in a wiped brush: about a seventh.</summary>
    private const double CarriedShare = 0.15;

    /// <summary>Absorption and scattering per um of what a layer's tool really carries, last colours included.</summary>
    public static void Optics(IReadOnlyList<Layer> layers, int index, bool carryOver, Span<double> k, Span<double> s)
    {
        Laying.PerUm(layers[RunsFrom(layers, index)], k, s);
        if (!carryOver || layers[index].Technique != Technique.DryBrush || StepBefore(layers, index) is not (>= 0 and var before))
            return;
        Span<double> lastK = stackalloc double[N], lastS = stackalloc double[N];
        Optics(layers, before, carryOver, lastK, lastS);
        for (var i = 0; i < N; i++)
        {
            k[i] += CarriedShare * (lastK[i] - k[i]);
            s[i] += CarriedShare * (lastS[i] - s[i]);
        }
    }

    /// <summary>A run-off has the colour of what it is drawn from; any other layer its own.</summary>
    private static int RunsFrom(IReadOnlyList<Layer> layers, int index) => layers[index].Technique == Technique.RunOff && RunOff.SourceOf(layers, index) is >= 0 and var source ? source : index;

    private static int StepBefore(IReadOnlyList<Layer> layers, int index)
    {
        for (var i = index - 1; i >= 0; i--)
        {
            if (layers[i].Technique == Technique.DryBrush)
                return i;
            if (TechniqueTable.For(layers[i].Technique).Laydown != Laydown.None)
                return -1;
        }

        return -1;
    }
}
