namespace Lowfell.Core.Colour;

/// <summary>The transfer curve of sRGB (IEC 61966-2-1), both ways.</summary>
internal static class SrgbTransfer
{
    private const int Steps = 4096;

    // From which linear value on a byte is written; searched from a guess, so that no power is taken for every colour shown.
    private static readonly double[] from = Enumerable.Range(0, 256).Select(b => b == 0 ? double.NegativeInfinity : Decode((b - 0.5) / 255)).ToArray();
    private static readonly byte[] guess = Enumerable.Range(0, Steps).Select(i => Slow((double)i / Steps)).ToArray();

    /// <summary>Linear light 0..1 of an encoded value 0..1.</summary>
    public static double Decode(double v) => v <= 0.04045 ? v / 12.92 : Math.Pow((v + 0.055) / 1.055, 2.4);

    /// <summary>The byte of a linear value, clipped to 0..1, rounding half up.</summary>
    public static byte Encode(double linear)
    {
        if (!(linear > 0))
            return 0;
        if (linear >= 1)
            return 255;
        int b = guess[(int)(linear * Steps)];
        while (b < 255 && linear >= from[b + 1])
            b++;
        return (byte)b;
    }

    private static byte Slow(double linear)
    {
        var b = 0;
        while (b < 255 && linear >= from[b + 1])
            b++;
        return (byte)b;
    }
}
