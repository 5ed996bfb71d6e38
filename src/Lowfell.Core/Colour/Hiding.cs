namespace Lowfell.Core.Colour;

/// <summary>Hiding: how many coats until the ground no longer shows.</summary>
public static class Hiding
{
    /// <summary>A contrast ratio from which a ground counts as hidden.</summary>
    public const double HiddenRatio = 0.98;

    /// <summary>More coats than anybody lays.</summary>
    public const int MostCoats = 12;

    /// <summary>S*X of one coat such that <paramref name="coats"/> coats of this masstone hide a black and white card.</summary>
    /// <param name="masstone">Colour of the thick film.</param>
    /// <param name="coats">Coats to hide, 0.25 to 12.</param>
    public static double FromCoats(SrgbColour masstone, double coats) => FromCoats(Reflectance.Of(masstone), coats, Surface.None);

    /// <summary>The same from the masstone inside the film, judged through its surface.</summary>
    public static double FromCoats(Reflectance masstone, double coats, Surface surface)
    {
        double low = 0.02, high = 40;
        for (var i = 0; i < 50; i++)
        {
            var middle = Math.Sqrt(low * high);
            if (Optics.FromMasstone(masstone, middle).ContrastRatio(coats, surface) < HiddenRatio)
                low = middle;
            else
                high = middle;
        }

        return Math.Sqrt(low * high);
    }

    /// <summary>Coats, not whole, after which a black and white card is hidden; at most <see cref="MostCoats"/>.</summary>
    public static double Coats(Optics optics, Surface surface = default)
    {
        double low = 0, high = MostCoats;
        for (var i = 0; i < 40; i++)
        {
            var middle = (low + high) / 2;
            if (optics.ContrastRatio(middle, surface) < HiddenRatio)
                low = middle;
            else
                high = middle;
        }

        return high;
    }

    /// <summary>
    /// The least whole number of equal films that hides one ground against a white and a black stand-in for it:
    /// the lighter of "film over ground" and "film over nothing behind it" must be within the ratio.
    /// </summary>
    /// <param name="optics">The paint, per standard coat.</param>
    /// <param name="filmPerCoat">Standard coats laid in one pass.</param>
    /// <param name="ground">What is below, inside the film.</param>
    /// <param name="surface">The surface through which the paint is seen.</param>
    /// <returns>Coats, or null when even <see cref="MostCoats"/> do not hide it.</returns>
    public static int? CoatsOver(Optics optics, double filmPerCoat, Reflectance ground, Surface surface = default)
    {
        for (var coats = 1; coats <= MostCoats; coats++)
            if (GroundRatio(optics, filmPerCoat * coats, ground, surface) >= HiddenRatio)
                return coats;
        return null;
    }

    /// <summary>Luminance ratio, at most 1, between the film over this ground and the same paint endlessly thick.</summary>
    public static double GroundRatio(Optics optics, double film, Reflectance ground, Surface surface = default)
    {
        var over = Observer.Luminance(surface.Shown(optics.Over(ground, film)).Bands);
        var masstone = Observer.Luminance(surface.Shown(optics.Masstone()).Bands);
        return Math.Min(over, masstone) / Math.Max(over, masstone);
    }
}
