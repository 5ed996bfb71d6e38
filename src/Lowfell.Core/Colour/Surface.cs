using System.Numerics;
using System.Runtime.InteropServices;

namespace Lowfell.Core.Colour;

/// <summary>
/// The boundary between a film and the air. Part of the light turns back before it has met any colour, more of it in every direction the
/// rougher the surface is; and inside the film part of what comes up is turned back down.
/// Source: Saunderson (1942), J. Opt. Soc. Am. 32; the figures are rules of thumb for dry model paints, whose blacks read 1.5 to 2 %.
/// </summary>
/// <param name="First">First-surface share: of the light that arrives, what is seen of it from every direction, 0..1.</param>
/// <param name="Inner">Of the light that comes up inside the film, what is turned back, 0..1.</param>
public readonly record struct Surface(double First, double Inner)
{
    /// <summary>First-surface shares. Eggshell lies like a surface of which nothing is known; a wet film as smooth as gloss.</summary>
    public const double MattFirst = 0.015, UnstatedFirst = 0.010, SatinFirst = 0.006, GlossFirst = 0.002, WetFirst = GlossFirst;

    /// <summary>Loose grains: rougher than any paint film. Fixing them takes it away.</summary>
    public const double ChalkFirst = 0.03;

    /// <summary>Light turned back inside any paint film.</summary>
    public const double UsualInner = 0.40;

    /// <summary>A colour that is as dark as its surface alone would leave nothing for the film: so much of its darkest band may be surface.</summary>
    private const double MostOfDarkest = 0.8;

    /// <summary>No surface: what is seen is what is inside. Plain film optics.</summary>
    public static readonly Surface None;

    /// <summary>A dry surface of which nothing is known.</summary>
    public static readonly Surface Unstated = Of(UnstatedFirst);

    /// <summary>The surface of a paint film with a first-surface share.</summary>
    public static Surface Of(double first) => new(first, UsualInner);

    /// <summary>What is seen of a reflectance inside.</summary>
    public double Shown(double inside) => First + (1 - First) * (1 - Inner) * inside / (1 - Inner * inside);

    /// <summary>The reflectance inside that is seen so; below 0 for what is darker than the surface allows.</summary>
    public double Inside(double seen) => (seen - First) / ((1 - First) * (1 - Inner) + Inner * (seen - First));

    /// <inheritdoc cref="Shown(double)"/>
    public void Shown(ReadOnlySpan<double> inside, Span<double> shown)
    {
        var through = (1 - First) * (1 - Inner);
        var from = MemoryMarshal.Cast<double, Vector<double>>(inside);
        var to = MemoryMarshal.Cast<double, Vector<double>>(shown);
        Vector<double> first = new(First), inner = new(Inner), share = new(through);
        for (var i = 0; i < to.Length; i++)
            to[i] = first + share * from[i] / (Vector<double>.One - inner * from[i]);
        for (var i = to.Length * Vector<double>.Count; i < shown.Length; i++)
            shown[i] = First + through * inside[i] / (1 - Inner * inside[i]);
    }

    /// <summary>The linear colour in which a reflectance inside is seen, without its bands in between. Every row of the observer adds up to 1.</summary>
    public LinearRgb Linear(ReadOnlySpan<double> inside)
    {
        var from = MemoryMarshal.Cast<double, Vector<double>>(inside);
        ReadOnlySpan<Vector<double>> rows = MemoryMarshal.Cast<double, Vector<double>>(Observer.RowOf(0)), greens = MemoryMarshal.Cast<double, Vector<double>>(Observer.RowOf(1)), blues = MemoryMarshal.Cast<double, Vector<double>>(Observer.RowOf(2));
        Vector<double> inner = new(Inner), r = default, g = default, b = default;
        for (var i = 0; i < from.Length; i++)
        {
            var up = from[i] / (Vector<double>.One - inner * from[i]);
            r += rows[i] * up;
            g += greens[i] * up;
            b += blues[i] * up;
        }

        double red = Vector.Sum(r), green = Vector.Sum(g), blue = Vector.Sum(b);
        for (var i = from.Length * Vector<double>.Count; i < inside.Length; i++)
        {
            var up = inside[i] / (1 - Inner * inside[i]);
            (red, green, blue) = (red + Observer.RowOf(0)[i] * up, green + Observer.RowOf(1)[i] * up, blue + Observer.RowOf(2)[i] * up);
        }

        var through = (1 - First) * (1 - Inner);
        return new(First + through * red, First + through * green, First + through * blue);
    }

    /// <inheritdoc cref="Shown(double)"/>
    public Reflectance Shown(Reflectance inside)
    {
        Span<double> values = stackalloc double[Observer.Bands];
        Shown(inside.Bands, values);
        return new Reflectance(values);
    }

    /// <inheritdoc cref="Inside(double)"/>
    public Reflectance Inside(Reflectance seen)
    {
        Span<double> values = stackalloc double[Observer.Bands];
        for (var i = 0; i < values.Length; i++)
            values[i] = Math.Max(0, Inside(seen.Bands[i]));
        return new Reflectance(values);
    }

    /// <summary>The same surface, its share lowered where a colour that was seen through it is darker than it allows: the colour is kept.</summary>
    public Surface LoweredFor(Reflectance seen)
    {
        var darkest = 1.0;
        foreach (var band in seen.Bands)
            darkest = Math.Min(darkest, band);
        return this with { First = Math.Min(First, darkest * MostOfDarkest) };
    }
}
