using System.Globalization;
using System.Text;
using Lowfell.Core.Colour;

namespace Lowfell.Core.Materials;

/// <summary>One colour of a palette; the name may be empty.</summary>
public sealed record GplColour(SrgbColour Colour, string Name);

/// <summary>A palette in the open text format of the GNU Image Manipulation Program: a first line, a few headers, then red, green, blue and a name a line.</summary>
/// <param name="Name">What it calls itself; may be empty.</param>
/// <param name="Columns">How many to a row when shown; 0 leaves it open.</param>
/// <param name="Colours">In the order of the file.</param>
public sealed record GplPalette(string Name, int Columns, IReadOnlyList<GplColour> Colours)
{
    private const string FirstLine = "GIMP Palette";
    private const int MostColours = 10_000;

    /// <summary>Reads a palette.</summary>
    /// <exception cref="FormatException">It is none; the message names the line and what to do.</exception>
    public static GplPalette Read(string text)
    {
        var lines = text.TrimStart('\uFEFF').Split('\n');
        if (lines[0].Trim() != FirstLine)
            throw new FormatException($"Line 1 must read \"{FirstLine}\": this is no such palette.");
        var (name, columns) = ("", 0);
        var colours = new List<GplColour>();
        for (var i = 1; i < lines.Length; i++)
        {
            var line = lines[i].TrimEnd('\r').Trim();
            if (line.Length == 0 || line[0] == '#')
                continue;
            if (colours.Count == 0 && line.StartsWith("Name:", StringComparison.Ordinal))
                name = line[5..].Trim();
            else if (colours.Count == 0 && line.StartsWith("Columns:", StringComparison.Ordinal))
                columns = int.TryParse(line[8..].Trim(), NumberStyles.None, CultureInfo.InvariantCulture, out var n) ? n : 0;
            else
                colours.Add(Colour(line, i + 1));
            if (colours.Count > MostColours)
                throw new FormatException($"Line {i + 1}: at most {MostColours} colours in a palette.");
        }

        return new GplPalette(name, columns, colours);
    }

    /// <summary>The palette as a file.</summary>
    public string Write()
    {
        var text = new StringBuilder($"{FirstLine}\nName: {OneLine(Name)}\n");
        if (Columns > 0)
            text.Append(CultureInfo.InvariantCulture, $"Columns: {Columns}\n");
        text.Append("#\n");
        foreach (var (c, name) in Colours)
            text.Append(CultureInfo.InvariantCulture, $"{c.R,3} {c.G,3} {c.B,3}\t{OneLine(name)}\n");
        return text.ToString();
    }

    private static GplColour Colour(string line, int number)
    {
        var at = 0;
        byte Channel()
        {
            while (at < line.Length && char.IsWhiteSpace(line[at]))
                at++;
            var start = at;
            while (at < line.Length && char.IsAsciiDigit(line[at]))
                at++;
            return byte.TryParse(line.AsSpan(start, at - start), NumberStyles.None, CultureInfo.InvariantCulture, out var value)
                ? value
                : throw new FormatException($"Line {number}: give red, green and blue from 0 to 255, then a name.");
        }

        var colour = new SrgbColour(Channel(), Channel(), Channel());
        return new GplColour(colour, line[at..].Trim());
    }

    private static string OneLine(string text) => text.ReplaceLineEndings(" ");
}
