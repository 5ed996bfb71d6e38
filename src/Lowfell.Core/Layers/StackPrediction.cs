using Lowfell.Core.Colour;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Layers;

/// <summary>A colour at one position, as seen and as measured by difference formulas.</summary>
public readonly record struct Seen(SrgbColour Colour, Lab Lab)
{
    internal static Seen Of(ReadOnlySpan<double> reflectance)
    {
        var linear = Observer.ToLinear(reflectance);
        return new Seen(linear.ToSrgb(), Lab.FromXyz(Observer.ToXyz(linear)));
    }
}

/// <summary>What a surface looks like after one layer.</summary>
public sealed record LayerPrediction
{
    public required Seen Raised { get; init; }
    public required Seen Field { get; init; }
    public required Seen Recess { get; init; }

    /// <summary>Mean over the zone's area shares: what the eye makes of it from the table.</summary>
    public required Seen Average { get; init; }

    /// <summary>Darker, deeper colours while the layer is wet; the same as dry for layers that do not change on drying.</summary>
    public required Seen WetField { get; init; }

    /// <summary>Internal reflectance of the field, the ground of whatever comes next.</summary>
    public required Reflectance FieldReflectance { get; init; }

    /// <summary>CIEDE2000 to the layer below at each position.</summary>
    public required Split Change { get; init; }

    /// <summary>Dry film left, um, averaged over each position.</summary>
    public required Split DryFilmUm { get; init; }

    /// <summary>Share of each position covered, 0..1.</summary>
    public required Split Cover { get; init; }

    public double LargestChange => Math.Max(Change.Raised, Math.Max(Change.Field, Change.Recess));

    public Seen At(Position position) => position switch
    {
        Position.Raised => Raised,
        Position.Field => Field,
        _ => Recess,
    };
}

/// <summary>Predicts the three positions of a zone after every layer, bottom first.</summary>
public static class StackPrediction
{
    private const int N = Observer.Bands;

    /// <summary>White haze that a matt surface adds, and depth that smoother ones give, against ordinary matt paint.</summary>
    private const double MattHaze = 0.012, SatinDepth = 0.035, GlossDepth = 0.08, WetDepth = 0.12;

    /// <summary>One prediction a layer, in the order given (bottom first).</summary>
    public static IReadOnlyList<LayerPrediction> Compute(Zone zone, IReadOnlyList<Layer> layers) =>
        Compute(zone, layers, Reflectance.Of(SubstrateTraits.Colour(zone.Substrate)));

    /// <inheritdoc cref="Compute(Zone, IReadOnlyList{Layer})"/>
    /// <param name="zone">Relief, shares and joints.</param>
    /// <param name="layers">Bottom first.</param>
    /// <param name="ground">The bare surface.</param>
    public static IReadOnlyList<LayerPrediction> Compute(Zone zone, IReadOnlyList<Layer> layers, Reflectance ground)
    {
        var state = new Surface(ground);
        var before = new Surface(ground);
        Split? beadOf = null;
        var predictions = new LayerPrediction[layers.Count];
        var shown = ShownAll(state);
        for (var i = 0; i < layers.Count; i++)
        {
            var layer = layers[i];
            var figures = TechniqueTable.For(layer.Technique, layer.Tool);
            var laid = Laid.Nothing;
            if (figures.Laydown == Laydown.Lift)
            {
                // The wash is laid again on what was there before it, this time with its excess taken away.
                var bead = LastBead(layers, i);
                if (bead >= 0 && beadOf is { } wet)
                {
                    state.CopyFrom(before);
                    var cleaned = Laying.Of(layers[bead], zone, cleaned: true);
                    Apply(state, layers[bead], cleaned);
                    laid = new Laid(new(cleaned.FilmUm.Raised - wet.Raised, cleaned.FilmUm.Field - wet.Field, cleaned.FilmUm.Recess - wet.Recess), Split.Even(1));
                    beadOf = null;
                }
            }
            else
            {
                if (figures.Laydown == Laydown.Bead)
                    before.CopyFrom(state);
                laid = Laying.Of(layer, zone, cleaned: false);
                if (figures.Laydown == Laydown.Bead)
                    beadOf = laid.FilmUm;
                Apply(state, layer, laid);
            }

            var now = ShownAll(state);
            predictions[i] = Describe(zone, state, layer, figures, laid, shown, now);
            shown = now;
        }

        return predictions;
    }

    private static int LastBead(IReadOnlyList<Layer> layers, int above)
    {
        for (var i = above - 1; i >= 0; i--)
        {
            var laydown = TechniqueTable.For(layers[i].Technique).Laydown;
            if (laydown == Laydown.Bead)
                return i;
            if (laydown != Laydown.None)
                return -1;
        }

        return -1;
    }

    private static void Apply(Surface state, Layer layer, Laid laid)
    {
        if (layer.Paint.Count == 0)
            return;
        var optics = Laying.PerUm(layer);
        var depth = Depth(layer);
        Span<double> film = stackalloc double[N];
        for (var p = 0; p < 3; p++)
        {
            var position = (Position)p;
            double um = laid.FilmUm[position], cover = laid.Cover[position];
            if (um <= 0 || cover <= 0)
                continue;
            var ground = state.At(position);
            KubelkaMunk.Film(optics.K, optics.S, um, ground, film);
            for (var i = 0; i < N; i++)
                ground[i] += cover * (film[i] - ground[i]);

            // A film thinner than a tenth of a coat does not change how the surface shines.
            var standard = layer.Main is { } main ? um / StandardFilm.Um(main.Kind) : 0;
            var hold = cover * Math.Min(1, standard * 2);
            state.Depth[p] += hold * (depth - state.Depth[p]);
        }
    }

    /// <summary>How a layer's own dried surface shows what is in it: positive deepens, negative adds haze.</summary>
    private static double Depth(Layer layer) => layer.Main switch
    {
        null => 0,
        { Kind: MaterialKind.Varnish, Sheen: Sheen.Matt } => -MattHaze,
        { Kind: MaterialKind.Varnish, Sheen: Sheen.Satin } => SatinDepth,
        { Kind: MaterialKind.Varnish } => GlossDepth,
        _ => 0,
    };

    private static Shown ShownAll(Surface state) => new(
        See(state, Position.Raised), See(state, Position.Field), See(state, Position.Recess));

    private static Seen See(Surface state, Position position) => See(state.At(position), state.Depth[(int)position]);

    private static Seen See(ReadOnlySpan<double> internalReflectance, double depth)
    {
        Span<double> seen = stackalloc double[N];
        for (var i = 0; i < N; i++)
        {
            var r = internalReflectance[i];
            seen[i] = depth >= 0 ? r * (1 - depth) : r - depth * (1 - r);
        }

        return Seen.Of(seen);
    }

    private static LayerPrediction Describe(Zone zone, Surface state, Layer layer, TechniqueFigures figures, Laid laid, Shown below, Shown now)
    {
        Span<double> mean = stackalloc double[N];
        var shares = zone.Shares;
        for (var i = 0; i < N; i++)
            mean[i] = shares.Raised * state.At(Position.Raised)[i] + shares.Field * state.At(Position.Field)[i] + shares.Recess * state.At(Position.Recess)[i];
        var meanDepth = shares.Dot(new Split(state.Depth[0], state.Depth[1], state.Depth[2]));
        var wets = figures.Laydown is Laydown.Wash or Laydown.Bead || layer.Technique is Technique.Filter or Technique.Glaze;
        var dryShare = (layer.Main?.SolidsFraction ?? 0) * layer.PaintShare;
        return new LayerPrediction
        {
            Raised = now.Raised,
            Field = now.Field,
            Recess = now.Recess,
            Average = See(mean, meanDepth),
            WetField = wets ? See(state.At(Position.Field), WetDepth) : now.Field,
            FieldReflectance = new Reflectance(state.At(Position.Field)),
            Change = new Split(
                ColourDifference.Ciede2000(below.Raised.Lab, now.Raised.Lab),
                ColourDifference.Ciede2000(below.Field.Lab, now.Field.Lab),
                ColourDifference.Ciede2000(below.Recess.Lab, now.Recess.Lab)),
            DryFilmUm = laid.FilmUm * laid.Cover * dryShare,
            Cover = laid.Cover,
        };
    }

    private readonly record struct Shown(Seen Raised, Seen Field, Seen Recess);

    /// <summary>Internal reflectance and shine of the three positions while layers are added.</summary>
    private sealed class Surface
    {
        private readonly double[] bands = new double[3 * N];

        public Surface(Reflectance ground)
        {
            for (var p = 0; p < 3; p++)
                ground.Bands.CopyTo(bands.AsSpan(p * N));
        }

        public double[] Depth { get; } = new double[3];

        public Span<double> At(Position position) => bands.AsSpan((int)position * N, N);

        public void CopyFrom(Surface other)
        {
            other.bands.CopyTo(bands, 0);
            other.Depth.CopyTo(Depth, 0);
        }
    }
}
