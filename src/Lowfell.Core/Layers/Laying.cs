using Lowfell.Core.Colour;

namespace Lowfell.Core.Layers;

/// <summary>What one layer leaves on the three positions: wet film before drying and the share of each position covered.</summary>
/// <param name="FilmUm">Wet film, um, where it covers.</param>
/// <param name="Cover">Share of the position covered, 0..1.</param>
public readonly record struct Laid(Split FilmUm, Split Cover)
{
    public static readonly Laid Nothing = new(Split.Even(0), Split.Even(0));
}

/// <summary>Works out films from technique, relief, region and area shares. Wash, bead and powder conserve what was laid.</summary>
public static class Laying
{
    /// <summary>Section of a pin-wash bead along a joint, mm2.</summary>
    public const double BeadMm2 = 0.5;

    /// <summary>Share of the bead that stays after clean-up.</summary>
    public const double BeadLeft = 1.0 / 3;

    /// <summary>Before clean-up the bead still stands on the shoulders of the joint.</summary>
    private static readonly Split uncleaned = new(0.3, 0.35, 2.5);

    /// <summary>How much of light from above reaches upward, sideways and downward faces.</summary>
    private const double LightUp = 1, LightSide = 0.5, LightDown = 0.05;

    /// <summary>Film and cover of a layer on a zone; <paramref name="cleaned"/> says whether a pin wash gets its clean-up.</summary>
    public static Laid Of(Layer layer, Zone zone, bool cleaned)
    {
        var figures = TechniqueTable.For(layer.Technique, layer.Tool);
        var split = figures.SplitFor(zone.Relief);
        var usual = figures.FilmUm.Usual * layer.Coats;
        var within = Within(layer.Region);
        switch (figures.Laydown)
        {
            case Laydown.Film:
                return new Laid(split * (usual * layer.Strength) * within, within);
            case Laydown.Wash:
            case Laydown.Powder:
                return new Laid(Conserve(split * within, zone.Shares, within) * (usual * layer.Strength), within);
            case Laydown.Bead:
                var volumeMm3 = BeadMm2 * zone.JointMm * layer.Coats * layer.Strength;
                var meanUm = zone.AreaCm2 > 0 ? volumeMm3 / (zone.AreaCm2 * 100) * 1000 : 0;
                var shape = cleaned ? split : uncleaned;
                return new Laid(shape * (meanUm * (cleaned ? BeadLeft : 1) / zone.Shares.Dot(shape)), Split.Even(1));
            case Laydown.Cover:
                var light = layer.Technique == Technique.DirectionalLight ? LightOn(zone.Orientation) : 1;
                var cover = Covered(split * (light * layer.Strength), layer) * within;
                return new Laid(Split.Even(usual) * within, layer.Whole ? cover.WhereAny() : cover);
            default:
                return Laid.Nothing;
        }
    }

    /// <summary>Several passes of a partial cover overlap by chance: what is left bare is the product of what each pass leaves bare.</summary>
    private static Split Covered(Split once, Layer layer)
    {
        if (layer.Technique is Technique.DirectionalLight)
            return new(Math.Min(1, once.Raised), Math.Min(1, once.Field), Math.Min(1, once.Recess));
        double Several(double cover) => 1 - Math.Pow(1 - Math.Clamp(cover, 0, 1), layer.Coats);
        return new(Several(once.Raised), Several(once.Field), Several(once.Recess));
    }

    private static Split Within(Region region) => region switch
    {
        Region.Raised or Region.Edges => new(1, 0, 0),
        Region.Recess => new(0, 0, 1),
        _ => Split.Even(1),
    };

    /// <summary>Scales a split so that its mean over the positions it reaches is 1: film laid equals film left.</summary>
    private static Split Conserve(Split split, Split shares, Split within)
    {
        var mean = shares.Dot(split);
        return mean > 0 ? split * (shares.Dot(within) / mean) : Split.Even(0);
    }

    private static double LightOn(Orientation o) => o.Up * LightUp + o.Side * LightSide + o.Down * LightDown;

    /// <summary>Share of the zone's area that a region takes in.</summary>
    public static double RegionShare(Region region, Zone zone) => region switch
    {
        Region.All => 1,
        Region.Raised => zone.Shares.Raised,
        Region.Recess => zone.Shares.Recess,
        Region.Upward => Math.Max(zone.Orientation.Up, 0.05),
        Region.LowerThird => 1.0 / 3,
        Region.Edges => zone.AreaCm2 > 0 ? Math.Min(1, zone.EdgeMm * EdgeWidthMm / (zone.AreaCm2 * 100)) : 0,
        Region.WithinRim => zone.AreaCm2 > 0 ? Math.Max(0.05, 1 - zone.EdgeMm * RimMarginMm / (zone.AreaCm2 * 100)) : 1,
        _ => SpotsShare,
    };

    private const double EdgeWidthMm = 2;

    /// <summary>Left free along the rim of a handled base: what lies nearer chips off, mm.</summary>
    public const double RimMarginMm = 2;

    private const double SpotsShare = 0.1;

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
