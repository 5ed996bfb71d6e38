using Lowfell.Core.Mixing.Reading;

namespace Lowfell.Core.Tests.Mixing;

/// <summary>What people write, and what is made of it: a reading, an honest question, or what to write instead; never a silent guess.</summary>
public class DilutionReaderTests
{
    private const string Table = """
        2:1 = 2:1
        2 : 1 = 2:1
        1:1 = 1:1
        1/3 = 1:3
        3/1 = 3:1
        4 / 1 = 4:1
        2 to 1 = 2:1
        two to one = 2:1
        one to three = 1:3
        2,5:1 = 5:2
        2.5:1 = 5:2
        1,5 : 1 = 3:2
        0,5:1 = 1:2
        2½:1 = 5:2
        2 ½ : 1 = 5:2
        two and a half to one = 5:2
        about 2:1 = 2:1
        ~2:1 = 2:1
        roughly 3:1 = 3:1
        2:1 ratio = 2:1
        2∶1 = 2:1
        6:2 = 3:1
        10:5 = 2:1
        100:40 = 5:2
        5 drops + 2 drops = 5:2
        5 drops paint + 2 drops thinner = 5:2
        5 drops paint, 2 drops thinner = 5:2
        5 drops of paint and 2 of water = 5:2
        5+2 = 5:2
        5 + 2 = 5:2
        5 & 2 = 5:2
        5 drops to 2 = 5:2
        five drops to two = 5:2
        3 drops paint to 1 drop water = 3:1
        3 drops paint to a drop of water = 3:1
        2 ml + 1 ml = 2:1
        1,5 ml + 0,5 ml = 3:1
        2ml+1ml = 2:1
        two parts varnish one thinner = 2:1
        2 parts varnish 1 part thinner = 2:1
        two parts paint, one part water = 2:1
        2 parts paint to 1 part water = 2:1
        1 part thinner to 2 parts paint = 2:1
        one part water to three parts paint = 3:1
        water 1 paint 4 = 4:1
        paint 4 water 1 = 4:1
        thinner 2, paint 1 = 1:2
        1 drop thinner per 3 drops paint = 3:1
        1 thinner for every 3 paint = 3:1
        2 brush-loads to 1 = 2:1
        3 pipettes paint + 1 pipette water = 3:1
        equal parts = 1:1
        equal parts paint and water = 1:1
        half and half = 1:1
        50/50 = 1:1
        50:50 = 1:1
        fifty fifty = 1:1
        70/30 = 7:3
        70:30 = 7:3
        same again of water = 1:1
        neat = 1:0
        undiluted = 1:0
        not thinned = 1:0
        straight from the pot = 1:0
        3:0 = 1:0
        0% = 1:0
        30% of the mix = 7:3
        30 % of the mix = 7:3
        30% of mix = 7:3
        30 percent of the mix = 7:3
        30% of the total = 7:3
        30% thinner in the mix = 7:3
        33,3% of the mix = 667:333
        30% added = 10:3
        30 % added = 10:3
        add 30% = 10:3
        +30% = 10:3
        30% extra = 10:3
        30% water added = 10:3
        30% of the paint = 10:3
        150% = 2:3
        100% = 1:1
        70% paint = 7:3
        60 % paint = 3:2
        70% paint 30% water = 7:3
        70% paint, 30% thinner = 7:3
        30% water 70% paint = 7:3
        half water = 1:1
        half paint = 1:1
        a third water = 2:1
        one third thinner = 2:1
        a quarter water = 3:1
        two thirds water = 1:2
        ⅓ water = 2:1
        a third paint = 1:2
        thin as milk = 3:2
        like milk = 3:2
        milk = 3:2
        like skimmed milk = 2:3
        thin as skimmed milk = 2:3
        like cream = 4:1
        as thin as ink = 1:3
        like yoghurt = 8:1
        30% = ? 7:3, 10:3
        40 % = ? 3:2, 5:2
        thinned 40% = ? 3:2, 5:2
        thinned by 40 % = ? 3:2, 5:2
        about sixty percent thinner = ? 2:3, 5:3
        60% thinner = ? 2:3, 5:3
        25 % water = ? 3:1, 4:1
        1/3 water = ? 2:1, 1:3
        1/4 paint = ? 1:3, 1:4
        1 in 4 = ? 1:3, 3:1, 1:4
        1 part in 3 = ? 1:2, 2:1, 1:3
        water 2:1 = ? 2:1, 1:2
        thinner 3/1 = ? 3:1, 1:3
        3:1 water to paint = 1:3
        2:1 thinner = 2:1
        1:2 (water:paint) = 2:1
        20 to 30% = !
        2:1 + 10% medium = !
        2,1 = !
        2 1 = !
        2-1 = !
        2 = !
        thin = !
        a bit of water = !
        two parts = !
        1:2:1 = 3:1
        1 : 1 : 2 = 2:2
        2:1:0 = 3:0
        1:½ = 2:1
        1 : ½ = 2:1
        ½:1 = 1:2
        1:1½ = 2:3
        1:¾ = 4:3
        1:0:2 = !
        1:1:2000 = !
        1:1:1:1:1:1:1:1:1:1:1:1:1:1 = !
        2 parts red 1 blue 1 water = !
        0:1 = !
        -2:1 = !
        30% 40% = !
        110% of the mix = !
        100% of the mix = !
        5 drops + 2 ml = !
        5 g + 2 g = !
        2000:1 = !
        half = !
        twice = !
        5,2 drops = !
        until it looks right = !
        2 coats + 1 day = !
        12 = !
        """;

    public static TheoryData<string, string> Inputs()
    {
        var data = new TheoryData<string, string>();
        foreach (var line in Table.Split('\n', StringSplitOptions.RemoveEmptyEntries))
            data.Add(line[..line.LastIndexOf('=')].Trim(), line[(line.LastIndexOf('=') + 1)..].Trim());
        return data;
    }

    [Theory, MemberData(nameof(Inputs))]
    public void Reads(string text, string expected)
    {
        var read = DilutionReader.Read(text);
        var said = string.Join(", ", read.Readings.Select(r => $"{r.Paint}:{r.Thinner}"));
        Assert.Equal(expected, read.Fault.Length > 0 ? "!" : read.IsAmbiguous ? $"? {said}" : said);
        Assert.Equal(read.IsAmbiguous, read.Question.Length > 0);
        Assert.All(read.Readings, r => Assert.NotEmpty(r.Says));
    }

    [Fact]
    public void There_are_more_than_a_hundred_and_twenty() => Assert.True(Inputs().Count() >= 120);

    [Fact]
    public void The_house_answers_a_bare_percentage()
    {
        Assert.Equal("3:2", Only(DilutionReader.Read("40%", PercentMeaning.OfTheMix)));
        Assert.Equal("5:2", Only(DilutionReader.Read("40%", PercentMeaning.Added)));
        Assert.Equal("3:2", Only(DilutionReader.Read("40% of the mix", PercentMeaning.Added)));
    }

    [Fact]
    public void A_named_consistency_says_how_far_it_reaches()
    {
        var milk = DilutionReader.Read("thin as milk");
        Assert.True(milk.Range!.Value.Thickest.PaintShare > milk.Only!.PaintShare && milk.Only.PaintShare > milk.Range.Value.Thinnest.PaintShare);
        Assert.Equal(Consistency.All.Count, Consistency.All.Select(c => c.Names[0]).Distinct().Count());
    }

    [Fact]
    public void Three_parts_are_two_components_and_the_thinner()
    {
        var read = DilutionReader.Read("1 : 1 : 2").Only!;
        Assert.Equal(["1", "1"], read.Components.Select(c => c.ToString()));
        Assert.Equal(0.5, read.PaintShare);
        Assert.Equal(["2", "1"], DilutionReader.Read("1:½:1").Only!.Components.Select(c => c.ToString()));
        Assert.Empty(DilutionReader.Read("2:1").Only!.Components);
    }

    private static string Only(DilutionReading read) => $"{read.Only!.Paint}:{read.Only.Thinner}";

    [Theory]
    [InlineData(200, false)]
    [InlineData(201, true)]
    public void What_is_too_long_is_not_read(int length, bool tooLong) =>
        Assert.Equal(tooLong, DilutionReader.Read("2:1".PadRight(length)).Fault.Contains("longer than 200"));
}
