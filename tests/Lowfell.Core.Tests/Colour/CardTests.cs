using CsCheck;
using Lowfell.Core.Colour;

namespace Lowfell.Core.Tests.Colour;

public class CardTests
{
    private static readonly Gen<SrgbColour> bright = Gen.Select(Gen.Int[28, 235], Gen.Int[28, 235], Gen.Int[28, 235], (r, g, b) => new SrgbColour((byte)r, (byte)g, (byte)b));

    [Fact]
    public void K_and_S_of_a_card_give_the_card_back() =>
        Gen.Select(bright, Gen.Double[0.1, 2.5]).Sample((paint, hiding) =>
        {
            var (black, white) = Laid(Optics.FromMasstone(paint, hiding));
            if (ContrastCard.Refusal(black, white) is not null)
                return;
            var (blackAgain, whiteAgain) = Seen(ContrastCard.Read(black, white).Optics);

            // A card is typed in 256 steps: in a deep blue one of them is a quarter of a difference.
            const double bar = 0.3;
            Assert.InRange(ColourDifference.Ciede2000(black.ToLab(), blackAgain), 0, bar);
            Assert.InRange(ColourDifference.Ciede2000(white.ToLab(), whiteAgain), 0, bar);
        }, iter: 600);

    [Fact]
    public void What_the_card_says_holds_for_more_coats() =>
        Gen.Select(bright, Gen.Double[0.2, 1.5]).Sample((paint, hiding) =>
        {
            var truth = Optics.FromMasstone(paint, hiding);
            var (black, white) = Laid(truth);
            if (ContrastCard.Refusal(black, white) is not null)
                return;
            var card = ContrastCard.Read(black, white);
            if (card.IsFaint)
                return;
            var ground = Reflectance.Flat(Optics.CardBlack);
            Assert.InRange(ColourDifference.Ciede2000(truth.Over(ground, 2).ToLab(), card.Optics.Over(ground, 2).ToLab()), 0, 4);
        }, iter: 200);

    [Theory]
    [InlineData("#c0c0c0", "#808080", "swapped")]
    [InlineData("#6b4f2a", "#6b4f2a", "thinner coat")]
    [InlineData("#101010", "#fafafa", "no coat does both")]
    public void Impossible_cards_are_refused_with_the_reason(string black, string white, string says) =>
        Assert.Contains(says, Assert.Throws<ArgumentException>(() => ContrastCard.Read(SrgbColour.Parse(black), SrgbColour.Parse(white))).Message);

    [Fact]
    public void Halves_nearly_alike_leave_the_hiding_open()
    {
        var card = ContrastCard.Read(SrgbColour.Parse("#6a4e2a"), SrgbColour.Parse("#6b4f2a"));
        Assert.True(card.IsFaint);
        Assert.True(card.CoatsToHideHigh > card.CoatsToHideLow);
        Assert.False(ContrastCard.Read(SrgbColour.Parse("#4a3020"), SrgbColour.Parse("#9a7a50")).IsFaint);
    }

    [Fact]
    public void A_grey_card_takes_the_light_out_of_a_photo() =>
        Gen.Select(bright, Gen.Double[0.4, 1.5], Gen.Double[0.4, 1.5], Gen.Double[0.4, 1.5]).Sample((colour, r, g, b) =>
        {
            LinearRgb Lit(LinearRgb c) => new(c.R * r, c.G * g, c.B * b);
            var card = new LinearRgb(GreyCard.Usual, GreyCard.Usual, GreyCard.Usual);
            Assert.Equal(colour, GreyCard.Correct(Lit(card), GreyCard.Usual, Lit(colour.ToLinear())));
        });

    [Fact]
    public void A_card_burnt_out_or_black_is_refused()
    {
        var sample = new LinearRgb(0.2, 0.2, 0.2);
        Assert.Contains("burnt out", Assert.Throws<ArgumentException>(() => GreyCard.Correct(new(1, 0.5, 0.5), 0.18, sample)).Message);
        Assert.Contains("black", Assert.Throws<ArgumentException>(() => GreyCard.Correct(new(0.2, 0.01, 0.5), 0.18, sample)).Message);
        Assert.Contains("swapped", Assert.Throws<ArgumentException>(() => GreyCard.Correct(new(0.03, 0.03, 0.03), 0.9, sample)).Message);
    }

    [Theory]
    [InlineData("#806040", "#806040", "the same to the eye")]
    [InlineData("#806040", "#402c18", "altogether darker")]
    [InlineData("#808080", "#8c7c7c", "plainly redder")]
    [InlineData("#808080", "#8a8a8a", "a little lighter")]
    public void Differences_are_said_in_words(string from, string to, string words) =>
        Assert.Equal(words, DifferenceWords.Of(SrgbColour.Parse(from).ToLab(), SrgbColour.Parse(to).ToLab()));

    private static (SrgbColour Black, SrgbColour White) Laid(Optics optics) =>
        (optics.Over(Reflectance.Flat(Optics.CardBlack), 1).ToSrgb(), optics.Over(Reflectance.Flat(Optics.CardWhite), 1).ToSrgb());

    private static (Lab Black, Lab White) Seen(Optics optics) =>
        (optics.Over(Reflectance.Flat(Optics.CardBlack), 1).ToLab(), optics.Over(Reflectance.Flat(Optics.CardWhite), 1).ToLab());
}
