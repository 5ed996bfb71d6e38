using System.Diagnostics.CodeAnalysis;
using System.Globalization;

namespace Lowfell.Core.Colour;

/// <summary>A colour as people type it: three sRGB bytes. Never replaced by its spectral reconstruction.</summary>
public readonly record struct SrgbColour(byte R, byte G, byte B)
{
    /// <summary>Reads <c>#rrggbb</c>, upper or lower case.</summary>
    /// <exception cref="FormatException">The text is not a hash and six hexadecimal digits.</exception>
    public static SrgbColour Parse(string text) =>
        TryParse(text, out var colour)
            ? colour
            : throw new FormatException($"'{text}' is not a colour. Write a hash and six digits, for example #6b4f2a.");

    /// <summary>Reads <c>#rrggbb</c>; false when the text is anything else.</summary>
    public static bool TryParse([NotNullWhen(true)] string? text, out SrgbColour colour)
    {
        colour = default;
        if (text is not { Length: 7 } || text[0] != '#')
            return false;
        if (!uint.TryParse(text.AsSpan(1), NumberStyles.AllowHexSpecifier, CultureInfo.InvariantCulture, out var value))
            return false;
        colour = new SrgbColour((byte)(value >> 16), (byte)(value >> 8), (byte)value);
        return true;
    }

    /// <summary>Linear light of the three channels, 0..1 (IEC 61966-2-1).</summary>
    public LinearRgb ToLinear() => new(decoded[R], decoded[G], decoded[B]);

    /// <summary>CIELAB of this colour, straight from the hex, under the white of <see cref="Observer"/>.</summary>
    public Lab ToLab() => Lab.FromXyz(Observer.ToXyz(ToLinear()));

    /// <inheritdoc/>
    public override string ToString() => string.Create(CultureInfo.InvariantCulture, $"#{R:x2}{G:x2}{B:x2}");

    private static readonly double[] decoded = Enumerable.Range(0, 256).Select(v => SrgbTransfer.Decode(v / 255.0)).ToArray();
}

/// <summary>Linear-light red, green and blue on the 0..1 scale; may leave that range before clipping.</summary>
public readonly record struct LinearRgb(double R, double G, double B)
{
    public static LinearRgb operator +(LinearRgb a, LinearRgb b) => new(a.R + b.R, a.G + b.G, a.B + b.B);

    public static LinearRgb operator -(LinearRgb a, LinearRgb b) => new(a.R - b.R, a.G - b.G, a.B - b.B);

    /// <summary>Clips each channel to 0..1 and encodes it (IEC 61966-2-1), rounding half up.</summary>
    public SrgbColour ToSrgb() => new(SrgbTransfer.Encode(R), SrgbTransfer.Encode(G), SrgbTransfer.Encode(B));
}

/// <summary>CIE tristimulus values, white Y = 1.</summary>
public readonly record struct Xyz(double X, double Y, double Z);
