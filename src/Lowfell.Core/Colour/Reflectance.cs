namespace Lowfell.Core.Colour;

/// <summary>Reflectance of a surface in the 36 bands of <see cref="Observer"/>, each 0..1. Immutable.</summary>
public sealed class Reflectance
{
    private readonly double[] bands;

    /// <summary>Takes a copy of 36 values.</summary>
    /// <exception cref="ArgumentException">Not 36 values.</exception>
    public Reflectance(ReadOnlySpan<double> values)
    {
        if (values.Length != Observer.Bands)
            throw new ArgumentException($"A reflectance has {Observer.Bands} bands, not {values.Length}.", nameof(values));
        bands = values.ToArray();
    }

    /// <summary>The 36 values.</summary>
    public ReadOnlySpan<double> Bands => bands;

    /// <summary>The same value in every band: a neutral surface.</summary>
    public static Reflectance Flat(double value)
    {
        Span<double> values = stackalloc double[Observer.Bands];
        values.Fill(value);
        return new Reflectance(values);
    }

    /// <summary>A plausible smooth reflectance for a colour; see <see cref="SmoothReflectance"/>.</summary>
    public static Reflectance Of(SrgbColour colour) => SmoothReflectance.From(colour);

    /// <summary>The colour seen under D65.</summary>
    public SrgbColour ToSrgb() => Observer.ToLinear(bands).ToSrgb();

    /// <summary>CIELAB under D65.</summary>
    public Lab ToLab() => Lab.FromXyz(Observer.ToXyz(Observer.ToLinear(bands)));

    /// <summary>
    /// Area average of a covered and an uncovered part, per band.
    /// Source: Murray (1936), Proceedings of the Physical Society; used as Murray-Davies for dots and stipple.
    /// </summary>
    /// <param name="ground">What shows between.</param>
    /// <param name="covered">Share of the area covered by this surface, 0..1.</param>
    public Reflectance Covering(Reflectance ground, double covered)
    {
        Span<double> values = stackalloc double[Observer.Bands];
        for (var i = 0; i < values.Length; i++)
            values[i] = covered * bands[i] + (1 - covered) * ground.bands[i];
        return new Reflectance(values);
    }
}
