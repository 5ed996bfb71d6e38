namespace Lowfell.Core.Layers;

/// <summary>
/// How far a hand strays from the usual: film and cover of a layer when it is laid thin, and when it is laid heavy, against the usual.
/// The spread of each technique's film is in its own figures; a partial cover spreads besides. Rules of thumb.
/// </summary>
public static class Hand
{
    /// <summary>Where one figure stands alone, the film; and the share that dry brush, sponge, stipple, chips and the like cover.</summary>
    private static readonly Span3 lone = new(0.7, 1, 1.4), cover = new(0.6, 1, 1.5);

    /// <summary>Film of a layer against its usual film; narrower where its material has been looked at after it was laid.</summary>
    public static Span3 Film(Layer layer)
    {
        var span = ByTechnique(layer);
        var left = SpreadLeft(layer.Main?.Looks ?? 0);
        return new(1 - left * (1 - span.Low), 1, 1 + left * (span.High - 1));
    }

    /// <summary>
    /// What is left of the spread of a film once the material's strength was set right after so many looks. Half of its variance is taken for the hand's own, the
    /// same every time, and half for the day's; looks tell the first as a mean tells it, σ² = ½ + ½ / (1 + looks), and the second never.
    /// </summary>
    public static double SpreadLeft(int looks) => Math.Sqrt(0.5 + 0.5 / (1 + looks));

    private static Span3 ByTechnique(Layer layer)
    {
        var film = TechniqueTable.For(layer.Technique, layer.Tool) is { Laydown: Laydown.Bead } ? Laying.BeadsMm2 : TechniqueTable.For(layer.Technique, layer.Tool).FilmUm;
        return film.Usual > 0 && film.Low < film.High ? new(film.Low / film.Usual, 1, film.High / film.Usual) : lone;
    }

    /// <summary>Share a layer covers, or breaks, against the usual; whole films cover what they cover, and light falls where it falls.</summary>
    public static Span3 Cover(Layer layer) =>
        TechniqueTable.For(layer.Technique, layer.Tool).Laydown is Laydown.Cover or Laydown.Chip && layer.Technique != Technique.DirectionalLight ? cover : new(1, 1, 1);

    /// <summary>What a hand lays that is heavier than so many of all hands, 0..1: half of them lay less than usual, evenly spread.</summary>
    public static double At(Span3 span, double hand) => hand < 0.5
        ? span.Low + 2 * hand * (span.Usual - span.Low)
        : span.Usual + (2 * hand - 1) * (span.High - span.Usual);

    /// <summary>What a layer lays when such a hand lays it.</summary>
    public static Laid Of(Layer layer, Laid usual, double hand) => usual with
    {
        FilmUm = usual.FilmUm * At(Film(layer), hand),
        Cover = (usual.Cover * At(Cover(layer), hand)).AtMost(1),
    };
}
