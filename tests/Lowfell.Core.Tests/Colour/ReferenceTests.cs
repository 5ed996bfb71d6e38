using Lowfell.Core.Colour;
using static Lowfell.Core.Tests.ReferenceTable;

namespace Lowfell.Core.Tests.Colour;

public class ReferenceTests
{
    [Fact]
    public void White_point_comes_from_the_table()
    {
        Assert.Equal(0.9501187224, Observer.White.X, 9);
        Assert.Equal(1.0881606711, Observer.White.Z, 9);
    }

    [Fact]
    public void Difference_agrees_with_the_published_pairs()
    {
        foreach (var row in Rows("ciede2000-pairs.csv"))
        {
            var n = row.Select(Number).ToArray();
            Lab first = new(n[0], n[1], n[2]), second = new(n[3], n[4], n[5]);
            Assert.Equal(n[6], ColourDifference.Ciede2000(first, second), 1e-4);
            Assert.Equal(n[6], ColourDifference.Ciede2000(second, first), 1e-4);
        }
    }

    [Fact]
    public void Film_agrees_with_the_worked_bands_and_their_limits()
    {
        foreach (var row in Rows("film-over-substrate.csv"))
        {
            var n = row.Select(Number).ToArray();
            var r = KubelkaMunk.Film(n[0], n[1], n[2], n[3]);
            Assert.InRange(r, n[4] * (1 - 1e-7), n[4] * (1 + 1e-7));
        }
    }

    [Fact]
    public void Reconstruction_agrees_and_comes_back()
    {
        foreach (var row in Rows("spectral-roundtrip.csv"))
        {
            var colour = SrgbColour.Parse(row[0]);
            var reflectance = Reflectance.Of(colour);
            Assert.Equal(Number(row[1]), reflectance.Bands[5], 0.00006);
            Assert.Equal(Number(row[2]), reflectance.Bands[17], 0.00006);
            Assert.Equal(Number(row[3]), reflectance.Bands[27], 0.00006);
            var lab = colour.ToLab();
            Assert.Equal(Number(row[4]), lab.L, 0.0006);
            Assert.Equal(Number(row[5]), lab.A, 0.0006);
            Assert.Equal(Number(row[6]), lab.B, 0.0006);
            Assert.Equal(row[7], reflectance.ToSrgb().ToString());
        }
    }

    [Theory]
    [InlineData("#1f3f8f", 1, "#f2c500", 1, "#275c59")]
    [InlineData("#1f3f8f", 1, "#f2c500", 3, "#45724c")]
    [InlineData("#9b2d1f", 1, "#d8cfc0", 4, "#c7644c")]
    public void Mixes_agree(string first, int firstParts, string second, int secondParts, string expected)
    {
        var mix = Optics.Mix([(Optics.FromMasstone(SrgbColour.Parse(first), 1), firstParts), (Optics.FromMasstone(SrgbColour.Parse(second), 1), secondParts)]);
        Assert.Equal(expected, mix.Masstone().ToSrgb().ToString());
    }

    [Theory]
    [InlineData(1, "#9e9f98")]
    [InlineData(3, "#c5c1b8")]
    public void Films_agree(int coats, string expected)
    {
        var paint = Optics.FromMasstone(SrgbColour.Parse("#d8cfc0"), 0.5);
        Assert.Equal(expected, paint.Over(Reflectance.Of(SrgbColour.Parse("#3c4a2e")), coats).ToSrgb().ToString());
    }

    [Fact]
    public void Partial_cover_agrees()
    {
        var over = Reflectance.Of(SrgbColour.Parse("#d8cfc0")).Covering(Reflectance.Of(SrgbColour.Parse("#3c4a2e")), 0.3);
        Assert.Equal("#868575", over.ToSrgb().ToString());
    }

    [Theory]
    [InlineData(0.03, 0.85, 0.45401732, 0.53350838, 0.4, 1.5)]
    [InlineData(0.02, 0.88, 0.06502291, 0.07448930, 2.0, 0.3)]
    public void Contrast_cards_agree(double black, double white, double overBlack, double overWhite, double k, double s)
    {
        var (absorption, scattering, hidden) = KubelkaMunk.FromContrastCard(overBlack, overWhite, black, white);
        Assert.False(hidden);
        Assert.Equal(k, absorption, 1e-5);
        Assert.Equal(s, scattering, 1e-5);
    }
}
