using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;

namespace Lowfell.Core.Start;

/// <summary>A way to start: what goes into the pot, in how many coats, and where it ends.</summary>
/// <param name="Paint">One material, or two in whole parts.</param>
/// <param name="Dilution">The layer's own dilution where its thinner suits; null for neat.</param>
/// <param name="Coats">The least that hide the ground, at most <see cref="StartHere.MostCoats"/>.</param>
/// <param name="Hides">Whether those coats do hide it.</param>
/// <param name="Difference">CIEDE2000 between the wanted colour and the end.</param>
/// <param name="End">Predicted colour of the finished surface at the position asked for.</param>
public sealed record Beginning(IReadOnlyList<MixPart> Paint, Dilution? Dilution, int Coats, bool Hides, double Difference, Lab End);

/// <summary>
/// Turns the prediction round: given the layers that follow and the colour wanted at the end, what should this layer be?
/// </summary>
public static class StartHere
{
    /// <summary>More coats than this and another paint is the better advice.</summary>
    public const int MostCoats = 4;

    /// <summary>Two-part mixes tried, in whole parts: all that can be told apart by counting drops up to four a side.</summary>
    public static readonly IReadOnlyList<(int First, int Second)> AllRatios =
        [(1, 1), (1, 2), (2, 1), (1, 3), (3, 1), (1, 4), (4, 1), (2, 3), (3, 2), (3, 4), (4, 3)];

    /// <summary>The best ways to start, nearest first; ties go to fewer materials, then to the order of the shelf.</summary>
    /// <param name="run">The stack as it is; the layer in question leaves a whole film.</param>
    /// <param name="index">The layer to choose a paint for.</param>
    /// <param name="position">Where the colour is wanted.</param>
    /// <param name="wanted">The colour wanted there once every later layer is on.</param>
    /// <param name="shelf">Materials to choose from; those that do not suit the layer's technique are passed by.</param>
    /// <param name="count">How many to return.</param>
    /// <param name="ratios">Parts of two-part mixes; all of them when left out.</param>
    /// <param name="stop">Gives up.</param>
    /// <exception cref="ArgumentException">The layer leaves no whole film at this position.</exception>
    public static IReadOnlyList<Beginning> Find(
        StackRun run, int index, Position position, Lab wanted, IReadOnlyList<Material> shelf, int count = 20,
        IReadOnlyList<(int First, int Second)>? ratios = null, CancellationToken stop = default)
    {
        if (!CanAsk(run, index, position))
            throw new ArgumentException("Start here needs a layer that leaves a whole film at the position asked for.", nameof(index));
        var search = new BaseSearch(run, index, position, wanted, Likely(Fitting(run.Layers[index], shelf), wanted), ratios ?? AllRatios);
        return search.Best(count, stop);
    }

    /// <summary>Whether a layer lays a whole film at a position, so that it can be started from.</summary>
    public static bool CanAsk(StackRun run, int index, Position position) =>
        TechniqueTable.For(run.Layers[index].Technique, run.Layers[index].Tool).Laydown == Laydown.Film
        && Laying.Of(run.Layers[index] with { Coats = 1 }, run.Zone) is var laid
        && laid.FilmUm[position] > 0 && laid.Cover[position] > 0 && laid.FilmUm.Field > 0;

    /// <summary>
    /// Opaque materials that the layer's technique takes and that can stand for what is planned: a metal for a metal, a primer for a
    /// primer, a paste for a paste, never one for another.
    /// </summary>
    internal static List<Material> Fitting(Layer layer, IReadOnlyList<Material> shelf) =>
        shelf.Where(m => m.IsOpaque && TechniqueTable.For(layer.Technique, layer.Tool).Suits.Contains(m.Kind)
            && (layer.Main is not { IsOpaque: true } planned || (m.Kind == planned.Kind && m.Lustre == planned.Lustre))).ToList();

    /// <summary>Pairs of this many are tried in a quarter of a second; of a larger shelf those entered nearest to the colour are taken.</summary>
    private const int MostTried = 500;

    private static List<Material> Likely(List<Material> shelf, Lab wanted) =>
        shelf.Count <= MostTried ? shelf : shelf.OrderBy(m => m.Entered is { } entered ? wanted.DistanceTo(entered) : 0).Take(MostTried).ToList();

    /// <summary>Paints mix when the same thing carries them.</summary>
    internal static bool Mixes(Material a, Material b) => a.Carrier == b.Carrier;

    /// <summary>The layer's dilution where its thinner suits every component.</summary>
    internal static Dilution? Thinned(Layer layer, params ReadOnlySpan<Material> paints)
    {
        if (layer.Dilution is not { } dilution)
            return null;
        foreach (var paint in paints)
            if (!paint.Thinners.Any(dilution.Thinner.Thinners.Contains))
                return null;
        return dilution;
    }
}
