namespace Lowfell.Core.Colour;

/// <summary>Takes the light out of a photo by a grey card that was in it.</summary>
public static class GreyCard
{
    /// <summary>Reflectance of the usual grey card.</summary>
    public const double Usual = 0.18;

    /// <summary>Below this a channel of the card is too dark, above the other it is burnt out: there is nothing to correct by.</summary>
    private const double Darkest = 0.02, Brightest = 0.98;

    /// <summary>The colour of a sample under neutral light: each channel is scaled so that the card comes out as it is.</summary>
    /// <param name="card">Mean linear colour of the card in the photo.</param>
    /// <param name="cardReflectance">What the card reflects, 0..1.</param>
    /// <param name="sample">Mean linear colour of the sample in the photo.</param>
    /// <exception cref="ArgumentException">The card is too dark or burnt out in a channel, or the sample comes out lighter than white.</exception>
    public static SrgbColour Correct(LinearRgb card, double cardReflectance, LinearRgb sample)
    {
        foreach (var channel in new[] { card.R, card.G, card.B })
            if (channel is < Darkest or > Brightest)
                throw new ArgumentException(channel < Darkest
                    ? "The grey card is almost black in the photo. Pick it again, or take a brighter photo."
                    : "The grey card is burnt out in the photo. Pick it again, or take a darker photo.");
        var corrected = new LinearRgb(
            sample.R * cardReflectance / card.R, sample.G * cardReflectance / card.G, sample.B * cardReflectance / card.B);
        if (Math.Max(corrected.R, Math.Max(corrected.G, corrected.B)) > 1.1)
            throw new ArgumentException("Beside that card the sample comes out lighter than white. Look whether card and sample are swapped, or lit differently.");
        return corrected.ToSrgb();
    }
}
