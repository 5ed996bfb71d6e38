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
    public LinearRgb ToLinear() => new(Decode(R), Decode(G), Decode(B));

    /// <summary>CIELAB of this colour, straight from the hex, under the white of <see cref="Observer"/>.</summary>
    public Lab ToLab() => Lab.FromXyz(Observer.ToXyz(ToLinear()));

    /// <inheritdoc/>
    public override string ToString() => string.Create(CultureInfo.InvariantCulture, $"#{R:x2}{G:x2}{B:x2}");

    private static double Decode(byte value)
    {
        var v = value / 255.0;
        return v <= 0.04045 ? v / 12.92 : Math.Pow((v + 0.055) / 1.055, 2.4);
    }
}

/// <summary>Linear-light red, green and blue on the 0..1 scale; may leave that range before clipping.</summary>
public readonly record struct LinearRgb(double R, double G, double B)
{
    /// <summary>Clips each channel to 0..1 and encodes it (IEC 61966-2-1), rounding half up.</summary>
    public SrgbColour ToSrgb() => new(Encode(R), Encode(G), Encode(B));

    private static byte Encode(double linear)
    {
        var v = Math.Clamp(linear, 0, 1);
        var encoded = v <= 0.0031308 ? 12.92 * v : 1.055 * Math.Pow(v, 1 / 2.4) - 0.055;
        return (byte)Math.Floor(255 * encoded + 0.5);
    }
}

/// <summary>CIE tristimulus values, white Y = 1.</summary>
public readonly record struct Xyz(double X, double Y, double Z);
