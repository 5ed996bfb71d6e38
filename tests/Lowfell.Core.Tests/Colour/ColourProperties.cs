using CsCheck;
using Lowfell.Core.Colour;

namespace Lowfell.Core.Tests.Colour;

public class ColourProperties
{
    private static readonly Gen<SrgbColour> colours = Gen.Select(Gen.Byte, Gen.Byte, Gen.Byte, (r, g, b) => new SrgbColour(r, g, b));
    private static readonly Gen<SrgbColour> bright = Gen.Select(Gen.Int[7, 255], Gen.Int[7, 255], Gen.Int[7, 255], (r, g, b) => new SrgbColour((byte)r, (byte)g, (byte)b));

    [Fact]
    public void Text_of_a_colour_reads_back() =>
        colours.Sample(c => Assert.Equal(c, SrgbColour.Parse(c.ToString())));

    [Theory]
    [InlineData("#12")]
    [InlineData("123456")]
    [InlineData("#12345g")]
    [InlineData("#1234567")]
    [InlineData("# 12345")]
    [InlineData("")]
    public void Anything_else_is_refused(string text) => Assert.False(SrgbColour.TryParse(text, out _));

    [Fact]
    public void Every_reconstruction_is_physical_and_gives_its_colour_back() =>
        bright.Sample(c =>
        {
            var r = Reflectance.Of(c);
            foreach (var band in r.Bands)
                Assert.InRange(band, 0, 1);
            // The clamp at 0.998 may cost the brightest channel one step.
            var back = r.ToSrgb();
            Assert.InRange(Math.Abs(back.R - c.R) + Math.Abs(back.G - c.G) + Math.Abs(back.B - c.B), 0, 1);
        }, iter: 300);

    [Fact]
    public void More_coats_come_ever_nearer_to_the_masstone() =>
        Gen.Select(bright, bright, Gen.Double[0.1, 4]).Sample((paint, ground, hiding) =>
        {
            var optics = Optics.FromMasstone(paint, hiding);
            var below = Reflectance.Of(ground);
            var masstone = optics.Masstone();
            var before = below;
            for (var coats = 1; coats <= 6; coats++)
            {
                var now = optics.Over(below, coats);
                for (var i = 0; i < Observer.Bands; i++)
                    Assert.True(Math.Abs(now.Bands[i] - masstone.Bands[i]) <= Math.Abs(before.Bands[i] - masstone.Bands[i]) + 1e-12);
                before = now;
            }
        }, iter: 100);

    [Fact]
    public void Two_films_are_one_of_both_thicknesses() =>
        Gen.Select(bright, bright, Gen.Double[0.05, 3], Gen.Double[0.05, 3]).Sample((paint, ground, x, y) =>
        {
            var optics = Optics.FromMasstone(paint, 1);
            var twice = optics.Over(optics.Over(Reflectance.Of(ground), x), y);
            var once = optics.Over(Reflectance.Of(ground), x + y);
            for (var i = 0; i < Observer.Bands; i++)
                Assert.Equal(once.Bands[i], twice.Bands[i], 1e-9);
        }, iter: 100);

    [Fact]
    public void Many_bands_at_once_agree_with_one_at_a_time() =>
        Gen.Select(Gen.Double[0, 40].Array[36], Gen.Double[0, 5].Array[36], Gen.Double[0, 1].Array[36], Gen.OneOf(Gen.Double[0, 3], Gen.Const(0.0), Gen.Const(1e-7), Gen.Const(1e5))).Sample((k, s, ground, x) =>
        {
            (k[0], s[1], k[2], s[2]) = (0, 0, 0, 0);
            var together = new double[36];
            KubelkaMunk.Film(k, s, x, ground, together);
            for (var i = 0; i < 36; i++)
                Assert.Equal(KubelkaMunk.Film(k[i], s[i], x, ground[i]), together[i], 1e-9);
        });

    [Fact]
    public void Order_in_a_mix_does_not_matter_and_one_to_none_is_the_paint_itself() =>
        Gen.Select(bright, bright, Gen.Int[1, 9], Gen.Int[1, 9]).Sample((a, b, p, q) =>
        {
            Optics first = Optics.FromMasstone(a, 1), second = Optics.FromMasstone(b, 1);
            var one = Optics.Mix([(first, p), (second, q)]);
            var other = Optics.Mix([(second, q), (first, p)]);
            var alone = Optics.Mix([(first, 1), (second, 0)]);
            for (var i = 0; i < Observer.Bands; i++)
            {
                Assert.Equal(one.K[i], other.K[i], 1e-9);
                Assert.Equal(first.K[i], alone.K[i], 1e-12);
            }
        }, iter: 100);

    [Fact]
    public void A_card_gives_back_what_was_laid_on_it() =>
        Gen.Select(bright, Gen.Double[0.3, 2]).Sample((paint, hiding) =>
        {
            var optics = Optics.FromMasstone(paint, hiding);
            for (var i = 0; i < Observer.Bands; i++)
            {
                var black = KubelkaMunk.Film(optics.K[i], optics.S[i], 1, Optics.CardBlack);
                var white = KubelkaMunk.Film(optics.K[i], optics.S[i], 1, Optics.CardWhite);
                var (k, s, hidden) = KubelkaMunk.FromContrastCard(black, white, Optics.CardBlack, Optics.CardWhite);
                if (hidden)
                    continue;
                Assert.Equal(optics.K[i], k, 1e-6 + optics.K[i] * 1e-4);
                Assert.Equal(optics.S[i], s, 1e-6 + optics.S[i] * 1e-4);
            }
        }, iter: 100);

    [Fact]
    public void A_quick_no_is_never_wrong() =>
        Gen.Select(colours, colours, Gen.Double[0, 12]).Sample((a, b, room) =>
        {
            Lab first = a.ToLab(), second = b.ToLab();
            if (ColourDifference.Ciede2000(first, second) > room)
                return;
            Assert.True(ColourDifference.MayBeWithin(room, first, second));
            var (darkest, lightest) = ColourDifference.LuminancesWithin(room, first);
            Assert.InRange(Observer.ToXyz(b.ToLinear()).Y, darkest - 1e-12, lightest + 1e-12);
        }, iter: 20_000);

    [Fact]
    public void Hiding_from_coats_hides_the_card_in_just_that_many() =>
        Gen.Select(bright, Gen.Double[1, 5]).Sample((paint, coats) =>
        {
            var hiding = Hiding.FromCoats(paint, coats);
            var ratio = Optics.FromMasstone(paint, hiding).ContrastRatio(coats);

            // A paint near black absorbs so much that it hides with hardly any scattering at all.
            if (hiding < 0.021)
                Assert.True(ratio >= Hiding.HiddenRatio);
            else
                Assert.Equal(Hiding.HiddenRatio, ratio, 1e-3);
        }, iter: 50);
}
