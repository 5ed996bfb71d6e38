using CsCheck;
using Lowfell.Core.Colour;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Tests.Materials;

public class GplPaletteTests
{
    private static readonly Gen<GplPalette> palettes = Gen.Select(Gen.String[Gen.Char['a', 'z'], 0, 12], Gen.Int[0, 16], Gen.Select(Gen.Byte, Gen.Byte, Gen.Byte, Gen.String[Gen.Char['A', 'z'], 0, 8]).Array[0, 60],
        (name, columns, colours) => new GplPalette(name, columns, colours.Select(c => new GplColour(new SrgbColour(c.Item1, c.Item2, c.Item3), c.Item4)).ToList()));

    [Fact]
    public void What_is_written_reads_back_the_same() => palettes.Sample(p =>
    {
        var again = GplPalette.Read(p.Write());
        Assert.Equal((p.Name, p.Columns), (again.Name, again.Columns));
        Assert.Equal(p.Colours, again.Colours);
        Assert.Equal(p.Write(), again.Write());
    });

    [Theory]
    [InlineData("GIMP Palette\r\nName: Fen\r\n#\r\n  0   0   0\tBlack\r\n255 255 255\tWhite\r\n", "Fen", 2)]
    [InlineData("GIMP Palette\n#\n 10 20 30 No tab here\n1 2 3\n", "", 2)]
    [InlineData("\uFEFFGIMP Palette\nName: Reeds: late summer\nColumns: 8\n# a remark\n\n 10\t20\t30\tTabs\n", "Reeds: late summer", 1)]
    [InlineData("GIMP Palette", "", 0)]
    public void Reads_what_is_found_in_the_world(string text, string name, int colours)
    {
        var palette = GplPalette.Read(text);
        Assert.Equal((name, colours), (palette.Name, palette.Colours.Count));
    }

    [Theory]
    [InlineData("", "Line 1")]
    [InlineData("name,colour\nPeat,#4a3527", "Line 1")]
    [InlineData("GIMP Palette\n256 0 0\tToo much", "Line 2")]
    [InlineData("GIMP Palette\nName: x\n1 2\tToo few", "Line 3")]
    [InlineData("GIMP Palette\n#\n-1 0 0\tBelow", "Line 3")]
    public void Says_which_line_is_wrong(string text, string says) =>
        Assert.Contains(says, Assert.Throws<FormatException>(() => GplPalette.Read(text)).Message, StringComparison.Ordinal);
}
