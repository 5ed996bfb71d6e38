using Lowfell.Core.Colour;

namespace Lowfell.Core.Layers;

/// <summary>What one layer leaves on the three positions: wet film before drying and the share of each position covered.</summary>
/// <param name="FilmUm">Wet film of one pass, um, where it covers.</param>
/// <param name="Cover">Share of the position that one pass covers, 0..1.</param>
/// <param name="Passes">
/// Passes of a partial cover, each of which lands where it will: what stays bare is the product of what each leaves bare. Whole films
/// are one pass, however many coats they have.
/// </param>
public readonly record struct Laid(Split FilmUm, Split Cover, int Passes = 1)
{
    public static readonly Laid Nothing = new(Split.Even(0), Split.Even(0));

    /// <summary>The same patches with so much of their film at each position.</summary>
    public Laid Times(Split share) => this with { FilmUm = FilmUm * share };

    /// <summary>Mean film over each position, um: all passes over what each of them covers.</summary>
    public Split MeanUm => FilmUm * Cover * Passes;

    /// <summary>Share of each position covered at least once.</summary>
    public Split Covered => new(Once(Cover.Raised), Once(Cover.Field), Once(Cover.Recess));

    private double Once(double cover) => Passes == 1 ? cover : 1 - Math.Pow(1 - cover, Passes);
}

/// <summary>Works out films from technique, relief, region and area shares. Whatever lies more thickly in one place lies more thinly in another: the mean is what was laid.</summary>
public static class Laying
{
    /// <summary>Section of a pin-wash bead along a joint, mm2.</summary>
    public static readonly Span3 BeadsMm2 = new(0.3, 0.5, 0.8);

    /// <inheritdoc cref="BeadsMm2"/>
    public const double BeadMm2 = 0.5;

    /// <summary>Share of the bead that stays after clean-up.</summary>
    public const double BeadLeft = 1.0 / 3;

    /// <summary>What fades lays full at one end of its region and nothing at the other.</summary>
    private const double FadeShare = 0.5;

    /// <summary>Before clean-up the bead still stands on the shoulders of the joint.</summary>
    private static readonly Split uncleaned = new(0.3, 0.35, 2.5);

    /// <summary>How much of light from above reaches upward, sideways and downward faces.</summary>
    private const double LightUp = 1, LightSide = 0.5, LightDown = 0.05;

    /// <summary>Film and cover of a layer on a zone as it is laid, before any clean-up; see <see cref="Lifting"/>.</summary>
    public static Laid Of(Layer layer, Zone zone)
    {
        var figures = TechniqueTable.For(layer.Technique, layer.Tool);
        var split = figures.SplitFor(zone.Relief);
        var once = figures.FilmUm.Usual * Preparations.Film(layer);
        var fade = layer.Fades ? FadeShare : 1;
        var usual = once * layer.Coats;
        var within = Regions.Within(layer.Region);
        switch (figures.Laydown)
        {
            case Laydown.Film:
            case Laydown.Wash:
            case Laydown.Powder:
                return new Laid(Conserve(split * within, zone.Shares, within) * (usual * layer.Strength * fade), within);
            case Laydown.Bead:
                var volumeMm3 = BeadMm2 * zone.JointMm * layer.Coats * layer.Strength * fade;
                var meanUm = zone.AreaCm2 > 0 ? volumeMm3 / (zone.AreaCm2 * 100) * 1000 : 0;
                return new Laid(uncleaned * (meanUm / zone.Shares.Dot(uncleaned)) * within, within);
            case Laydown.Cover:
                // Light from above meets the same faces at every pass; everything else lands by chance.
                var light = layer.Technique == Technique.DirectionalLight;
                var cover = (split * ((light ? LightOn(zone.Orientation) : 1) * layer.Strength)).AtMost(1) * within * (layer.Whole ? 1 : fade);
                if (layer.Varied is { } plan && !light)
                {
                    // A plan's marks are laid over each other, coat on coat, and are as many and as large as it says.
                    var planned = layer.Whole ? cover.WhereAny() : (new Laid(Split.Even(0), cover, layer.Coats).Covered * plan.Share(layer, zone)).AtMost(1);
                    return new Laid(Split.Even(usual) * within, planned);
                }

                return layer.Whole || light
                    ? new Laid(Split.Even(usual) * within, layer.Whole ? cover.WhereAny() : cover)
                    : new Laid(Split.Even(once) * within, cover, layer.Coats);
            case Laydown.Chip:
                var broken = (split * layer.Strength).AtMost(1) * within * (layer.Whole ? 1 : fade);
                return new Laid(Split.Even(0), layer.Whole ? broken.WhereAny() : layer.Varied is { } chips ? (broken * chips.Share(layer, zone)).AtMost(1) : broken, layer.Whole ? 1 : layer.Coats);
            default:
                return Laid.Nothing;
        }
    }

    /// <summary>Share of a bead that a clean-up leaves at each position: a third of all of it, lying as the technique's own split says.</summary>
    public static Split BeadKept(Zone zone)
    {
        var split = TechniqueTable.For(Technique.PinWash).SplitFor(zone.Relief);
        var factor = BeadLeft * zone.Shares.Dot(uncleaned) / zone.Shares.Dot(split);
        return new(split.Raised / uncleaned.Raised * factor, split.Field / uncleaned.Field * factor, split.Recess / uncleaned.Recess * factor);
    }

    /// <summary>Scales a split so that its mean over the positions it reaches is 1: film laid equals film left.</summary>
    private static Split Conserve(Split split, Split shares, Split within)
    {
        var mean = shares.Dot(split);
        return mean > 0 ? split * (shares.Dot(within) / mean) : Split.Even(0);
    }

    private static double LightOn(Orientation o) => o.Up * LightUp + o.Side * LightSide + o.Down * LightDown;

    /// <summary>Wet film that a layer leaves on one piece, ml: the film on every position over the place where it lies.</summary>
    public static double SurfaceMl(Layer layer, Zone zone) =>
        zone.AreaCm2 * Regions.PlaceShare(layer.Region, zone) * zone.Shares.Dot(Of(layer, zone).MeanUm) * MlPerCm2Um;

    private const double MlPerCm2Um = 1e-4;

    /// <summary>Optics per um of wet film as it comes out of the pot, thinner included.</summary>
    public static Optics PerUm(Layer layer)
    {
        Span<double> k = stackalloc double[Observer.Bands], s = stackalloc double[Observer.Bands];
        PerUm(layer, k, s);
        return new Optics(k, s);
    }

    /// <summary>Absorption and scattering per um of wet film, 36 bands each.</summary>
    public static void PerUm(Layer layer, Span<double> k, Span<double> s)
    {
        k.Clear();
        s.Clear();
        var parts = 0.0;
        foreach (var part in layer.Paint)
            if (!part.Material.IsThinner)
                parts += part.Parts.ToDouble();
        if (parts <= 0)
            return;
        foreach (var part in layer.Paint)
        {
            if (part.Material.IsThinner)
                continue;
            var share = part.Parts.ToDouble() / parts * layer.PaintShare / StandardFilm.Um(part.Material.Kind);
            ReadOnlySpan<double> paintK = part.Material.Optics.K, paintS = part.Material.Optics.S;
            for (var i = 0; i < k.Length; i++)
            {
                k[i] += share * paintK[i];
                s[i] += share * paintS[i];
            }
        }
    }
}
