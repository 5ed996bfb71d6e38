namespace Lowfell.Core.Colour;

/// <summary>Absorption and scattering of a material in 36 bands, per standard coat (thickness 1). Immutable.</summary>
public sealed class Optics
{
    private readonly double[] k;
    private readonly double[] s;

    /// <summary>Takes copies of 36 absorptions and 36 scatterings, none negative.</summary>
    /// <exception cref="ArgumentException">Not 36 values each.</exception>
    public Optics(ReadOnlySpan<double> absorption, ReadOnlySpan<double> scattering)
    {
        if (absorption.Length != Observer.Bands || scattering.Length != Observer.Bands)
            throw new ArgumentException($"Optics have {Observer.Bands} bands of K and of S.");
        k = absorption.ToArray();
        s = scattering.ToArray();
    }

    /// <summary>Absorption per standard coat.</summary>
    public ReadOnlySpan<double> K => k;

    /// <summary>Scattering per standard coat.</summary>
    public ReadOnlySpan<double> S => s;

    /// <summary>No colour at all: a clear medium or varnish.</summary>
    public static readonly Optics Clear = new(new double[Observer.Bands], new double[Observer.Bands]);

    /// <summary>From the colour of an endlessly thick film and one scattering power per coat, alike in all bands.</summary>
    /// <param name="masstone">The colour of the paint when nothing shows through.</param>
    /// <param name="hiding">S*X of one standard coat.</param>
    public static Optics FromMasstone(SrgbColour masstone, double hiding) =>
        FromMasstone(Reflectance.Of(masstone), hiding);

    /// <inheritdoc cref="FromMasstone(SrgbColour, double)"/>
    public static Optics FromMasstone(Reflectance masstone, double hiding)
    {
        Span<double> k = stackalloc double[Observer.Bands];
        Span<double> s = stackalloc double[Observer.Bands];
        for (var i = 0; i < Observer.Bands; i++)
        {
            k[i] = KubelkaMunk.RatioFromMasstone(masstone.Bands[i]) * hiding;
            s[i] = hiding;
        }

        return new Optics(k, s);
    }

    /// <summary>From one standard film of a transparent material over a white ground; scattering is nearly none.</summary>
    /// <param name="seen">What it reflects there; a perfect white is as white inside as it is seen through a surface.</param>
    /// <param name="scattering">S of the film; a wash has a trace of it.</param>
    public static Optics FromOverWhite(Reflectance seen, double scattering)
    {
        Span<double> k = stackalloc double[Observer.Bands];
        Span<double> s = stackalloc double[Observer.Bands];
        for (var i = 0; i < Observer.Bands; i++)
        {
            s[i] = scattering;
            k[i] = AbsorptionFor(seen.Bands[i], scattering);
        }

        return new Optics(k, s);
    }

    /// <summary>
    /// From a contrast card that was found possible: one standard coat over the black and over the white half; see <see cref="ContrastCard"/>.
    /// Both halves are reconstructed on their own, so that in some bands no film fits them; what the nearest film misses is
    /// added to the colours asked for until it gives the card back, and what then is still missed is fitted; see <see cref="CardFit"/>.
    /// </summary>
    /// <param name="overBlack">Seen over the black half.</param>
    /// <param name="overWhite">Seen over the white half.</param>
    /// <param name="surface">The surface of the coat that both were seen through.</param>
    internal static Optics FromContrastCard(SrgbColour overBlack, SrgbColour overWhite, Surface surface)
    {
        LinearRgb black = overBlack.ToLinear(), white = overWhite.ToLinear();
        LinearRgb askBlack = black, askWhite = white;
        Optics? nearest = null;
        var least = double.MaxValue;
        for (var round = 0; round < MostRounds && least > CloseEnough; round++)
        {
            var optics = Solve(SmoothReflectance.From(askBlack, DarkestAsked), SmoothReflectance.From(askWhite, DarkestAsked), surface);
            var (seenBlack, seenWhite) = optics.OnCard(1, surface);
            var missed = Math.Max(
                ColourDifference.Ciede2000(overBlack.ToLab(), seenBlack.ToLab()), ColourDifference.Ciede2000(overWhite.ToLab(), seenWhite.ToLab()));
            if (missed < least)
                (nearest, least) = (optics, missed);
            askBlack = askBlack + (black - Observer.ToLinear(seenBlack.Bands));
            askWhite = askWhite + (white - Observer.ToLinear(seenWhite.Bands));
        }

        return least <= CloseEnough ? nearest! : CardFit.Finish(nearest!, overBlack.ToLab(), overWhite.ToLab(), surface).Optics;
    }

    /// <summary>Rounds of correction, and the CIEDE2000 at which no further one is worth it.</summary>
    private const int MostRounds = 12;

    private const double CloseEnough = 0.05, DarkestAsked = 2e-4;

    private static Optics Solve(Reflectance onBlack, Reflectance onWhite, Surface surface)
    {
        double black = CardInside(CardBlack, surface), white = CardInside(CardWhite, surface);
        var (insideBlack, insideWhite) = (surface.Inside(onBlack), surface.Inside(onWhite));
        Span<double> k = stackalloc double[Observer.Bands];
        Span<double> s = stackalloc double[Observer.Bands];
        for (var i = 0; i < Observer.Bands; i++)
            (k[i], s[i], _) = KubelkaMunk.FromContrastCard(insideBlack.Bands[i], insideWhite.Bands[i], black, white);
        return new Optics(k, s);
    }

    /// <summary>Reflectance of the bare black half of a contrast card.</summary>
    public const double CardBlack = 0.03;

    /// <summary>Reflectance of the bare white half of a contrast card.</summary>
    public const double CardWhite = 0.85;

    /// <summary>The surface when <paramref name="coats"/> standard coats lie over a ground.</summary>
    public Reflectance Over(Reflectance ground, double coats)
    {
        Span<double> values = stackalloc double[Observer.Bands];
        KubelkaMunk.Film(k, s, coats, ground.Bands, values);
        return new Reflectance(values);
    }

    /// <summary>The surface of an endlessly thick film.</summary>
    public Reflectance Masstone()
    {
        Span<double> values = stackalloc double[Observer.Bands];
        for (var i = 0; i < values.Length; i++)
            values[i] = s[i] > 0 ? KubelkaMunk.Masstone(k[i] / s[i]) : k[i] > 0 ? 0 : 1;
        return new Reflectance(values);
    }

    /// <summary>Seen of some standard coats on a contrast card, through the coat's surface.</summary>
    public (Reflectance OverBlack, Reflectance OverWhite) OnCard(double coats, Surface surface) => (
        surface.Shown(Over(Reflectance.Flat(CardInside(CardBlack, surface)), coats)),
        surface.Shown(Over(Reflectance.Flat(CardInside(CardWhite, surface)), coats)));

    /// <summary>A bare half of the card below a coat: its own surface is gone there.</summary>
    private static double CardInside(double seen, Surface coat) => coat == Surface.None ? seen : Surface.Unstated.Inside(seen);

    /// <summary>Luminance over the black half against luminance over the white half after some coats, 0..1.</summary>
    public double ContrastRatio(double coats, Surface surface = default)
    {
        var (black, white) = OnCard(coats, surface);
        return Observer.Luminance(black.Bands) / Observer.Luminance(white.Bands);
    }

    /// <summary>Volume-weighted mean of several materials. Source: Duncan (1940), Proc. Phys. Soc. 52.</summary>
    /// <param name="parts">Each material's optics with its share; shares need not add to one.</param>
    /// <exception cref="ArgumentException">No share above zero.</exception>
    public static Optics Mix(IReadOnlyList<(Optics Optics, double Share)> parts)
    {
        var total = 0.0;
        foreach (var part in parts)
            total += part.Share;
        if (!(total > 0))
            throw new ArgumentException("A mix needs at least one component with more than 0 parts.", nameof(parts));
        Span<double> mixedK = stackalloc double[Observer.Bands];
        Span<double> mixedS = stackalloc double[Observer.Bands];
        foreach (var (optics, share) in parts)
        {
            var weight = share / total;
            for (var i = 0; i < Observer.Bands; i++)
            {
                mixedK[i] += weight * optics.k[i];
                mixedS[i] += weight * optics.s[i];
            }
        }

        return new Optics(mixedK, mixedS);
    }

    /// <summary>The same material laid thicker (above 1) or thinner (below 1).</summary>
    public Optics Scaled(double factor)
    {
        Span<double> scaledK = stackalloc double[Observer.Bands];
        Span<double> scaledS = stackalloc double[Observer.Bands];
        for (var i = 0; i < Observer.Bands; i++)
        {
            scaledK[i] = k[i] * factor;
            scaledS[i] = s[i] * factor;
        }

        return new Optics(scaledK, scaledS);
    }

    /// <summary>K that makes one film with this S over perfect white look like <paramref name="seen"/>; bisection, since S &gt; 0 has no closed form.</summary>
    private static double AbsorptionFor(double seen, double scattering)
    {
        if (scattering == 0)
            return -Math.Log(seen) / 2;
        double low = 0, high = 20;
        for (var i = 0; i < 60; i++)
        {
            var middle = (low + high) / 2;
            if (KubelkaMunk.Film(middle, scattering, 1, 1) > seen)
                low = middle;
            else
                high = middle;
        }

        return (low + high) / 2;
    }
}
