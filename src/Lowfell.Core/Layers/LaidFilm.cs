using Lowfell.Core.Colour;

namespace Lowfell.Core.Layers;

/// <summary>
/// The film of one layer, ready to be laid on whatever lies below. All that takes an exponential is worked out once, so that the layer
/// costs next to nothing in the many variations of a stack that leave it as it is.
/// </summary>
internal sealed class LaidFilm
{
    private const int N = Observer.Bands;

    private readonly double[] lets = new double[3 * N], through = new double[3 * N];
    private readonly double first;
    private readonly Layer layer;

    private LaidFilm(IReadOnlyList<Layer> layers, int index, Laid laid, bool carryOver)
    {
        (layer, Laid) = (layers[index], laid);
        first = Shine.First(layer);
        Span<double> k = stackalloc double[N], s = stackalloc double[N], beta = stackalloc double[N];
        Carried.Optics(layers, index, carryOver, k, s);
        KubelkaMunk.Beta(k, s, beta);
        for (var p = 0; p < 3; p++)
            if (LiesAt(p))
                KubelkaMunk.Film(k, s, beta, laid.FilmUm[(Position)p], lets.AsSpan(p * N, N), through.AsSpan(p * N, N));
    }

    public Laid Laid { get; }

    /// <summary>The film of a layer of a stack on a zone; null for work that lays none.</summary>
    public static LaidFilm? Of(IReadOnlyList<Layer> layers, int index, Zone zone, bool carryOver) => Of(layers, index, Laying.Of(layers[index], zone), carryOver);

    /// <summary>The same with so much of it left.</summary>
    public static LaidFilm? Of(IReadOnlyList<Layer> layers, int index, Laid laid, bool carryOver) => layers[index].Paint.Count > 0 ? new(layers, index, laid, carryOver) : null;

    /// <summary>It is the same whatever lies below its layer: a run-off takes the colour of its source, and a wiped brush some of its last one.</summary>
    public static bool StandsAlone(Layer layer, bool carryOver) => layer.Technique != Technique.RunOff && !(carryOver && layer.Technique == Technique.DryBrush);

    private bool LiesAt(int position) => Laid.FilmUm[(Position)position] > 0 && Laid.Cover[(Position)position] > 0;

    /// <summary>Lays it on one position.</summary>
    /// <param name="position">Which.</param>
    /// <param name="ground">Reflectance inside, 36 bands, changed in place.</param>
    /// <param name="shine">First-surface share, changed in place.</param>
    public void Lay(int position, Span<double> ground, ref double shine)
    {
        if (!LiesAt(position))
            return;
        double um = Laid.FilmUm[(Position)position], cover = Laid.Cover[(Position)position];
        KubelkaMunk.Lay(lets.AsSpan(position * N, N), through.AsSpan(position * N, N), cover, Laid.Passes, ground);
        var hold = Shine.Hold(layer, um, cover);
        for (var pass = 0; pass < Laid.Passes; pass++)
            shine += hold * (first - shine);
    }
}
