namespace Lowfell.Core.Colour;

/// <summary>One standard coat laid over a card half black, half white, and what it tells.</summary>
/// <param name="Optics">Absorption and scattering of the coat.</param>
/// <param name="CoatsToHideLow">Coats to hide when both halves were read one step too far apart.</param>
/// <param name="CoatsToHideHigh">Coats to hide when both halves were read one step too near to each other.</param>
/// <param name="IsFaint">The halves are so alike that scattering is hardly known; the interval says how hardly.</param>
public sealed record ContrastCard(Optics Optics, double CoatsToHideLow, double CoatsToHideHigh, bool IsFaint)
{
    /// <summary>Difference in luminance between the halves below which reading by eye leaves scattering poorly known.</summary>
    private const double FaintDifference = 0.01;

    /// <summary>Half a percent of lightness either way is noise of the eye.</summary>
    private const double LightnessNoise = 0.5;

    /// <summary>Reads a card.</summary>
    /// <param name="overBlack">Colour over the black half.</param>
    /// <param name="overWhite">Colour over the white half.</param>
    /// <param name="surface">The surface of the coat that both were seen through.</param>
    /// <exception cref="ArgumentException">No coat can look like that; the message says why and what to do.</exception>
    public static ContrastCard Read(SrgbColour overBlack, SrgbColour overWhite, Surface surface = default)
    {
        if (Refusal(overBlack, overWhite) is { } reason)
            throw new ArgumentException(reason);
        var optics = Optics.FromContrastCard(overBlack, overWhite, surface);
        var apart = Observer.Luminance(Reflectance.Of(overWhite).Bands) - Observer.Luminance(Reflectance.Of(overBlack).Bands);
        var fewer = Hiding.Coats(Optics.FromContrastCard(Step(overBlack, 1), Step(overWhite, -1), surface), surface);
        var more = Hiding.Coats(Optics.FromContrastCard(Step(overBlack, -1), Step(overWhite, 1), surface), surface);
        return new ContrastCard(optics, Math.Min(fewer, more), Math.Max(fewer, more), apart < FaintDifference);
    }

    /// <summary>Why no coat can look like that; null when one can.</summary>
    public static string? Refusal(SrgbColour overBlack, SrgbColour overWhite)
    {
        double black = overBlack.ToLab().L, white = overWhite.ToLab().L;
        if (overBlack == overWhite)
            return "Both halves are the same colour: the coat hides the card completely, so the card cannot tell how well. Lay a thinner coat, or give the colour and 1 coat to hide.";
        if (black > white + LightnessNoise)
            return "Over black is lighter than over white. Look whether the two colours are swapped.";
        if (black < bareBlack - LightnessNoise && white > bareWhite + LightnessNoise)
            return "Over black is darker than the bare black half and over white lighter than the bare white one; no coat does both. Read the colours again, under one light.";
        return null;
    }

    private static readonly double bareBlack = Reflectance.Flat(Optics.CardBlack).ToLab().L;
    private static readonly double bareWhite = Reflectance.Flat(Optics.CardWhite).ToLab().L;

    private static SrgbColour Step(SrgbColour c, int by) => new(Step(c.R, by), Step(c.G, by), Step(c.B, by));

    private static byte Step(byte channel, int by) => (byte)Math.Clamp(channel + by, 0, 255);
}
