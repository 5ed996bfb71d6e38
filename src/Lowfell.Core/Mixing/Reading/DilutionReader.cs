using System.Globalization;
using System.Text.RegularExpressions;

namespace Lowfell.Core.Mixing.Reading;

/// <summary>
/// Reads a dilution as people write it: parts, drops, shares, percentages, fractions, number words, named consistencies. What can mean
/// two things comes back as a question with both readings; what means nothing comes back with what to write. Paint comes first
/// unless the words say otherwise.
/// </summary>
public static partial class DilutionReader
{
    private const int LongestText = 200;
    private const decimal MostParts = 1000;
    private const int MostComponents = 12;

    /// <summary>Reads a text.</summary>
    /// <param name="text">As typed.</param>
    /// <param name="percent">What a bare percentage means in this house; null asks.</param>
    public static DilutionReading Read(string text, PercentMeaning? percent = null)
    {
        if (text.Length > LongestText)
            return Fault($"That is longer than {LongestText} letters. Write parts, such as 2:1.");
        var plain = Plain(text);
        if (plain.Length == 0)
            return Fault("Write parts, such as 2:1, or neat.");
        if (Neat().IsMatch(plain))
            return One(Parts.One, Parts.Zero, "neat, not thinned");
        if (Equal().IsMatch(plain))
            return One(Parts.One, Parts.One, "equal parts");
        return Named(plain) ?? Percentages(plain, percent) ?? Shares(plain) ?? Several(plain) ?? Amounts(plain)
            ?? Fault("This could mean anything. Write parts, such as 2:1, a share, such as 30% of the mix, or drops, such as 5 drops + 2 drops.");
    }

    /// <summary>Lower case, one space, number words as figures, decimal commas as points; words that add nothing are left out.</summary>
    private static string Plain(string text)
    {
        var plain = text.ToLowerInvariant().Replace('\u00a0', ' ').Replace('∶', ':').Replace('：', ':').Replace('−', '-').Replace('–', '-').Replace("percent", "%", StringComparison.Ordinal).Replace("per cent", "%", StringComparison.Ordinal).Replace("brush-load", "brushload", StringComparison.Ordinal);
        plain = NumberWords(FractionSigns(plain));
        plain = HalfAnd().Replace(plain, "$1.5");

        // A comma is a decimal one unless it is all that stands between two numbers.
        if (Separator().IsMatch(plain))
            plain = DecimalComma().Replace(plain, "$1.$2");
        plain = Filler().Replace(plain, " ");
        return Spaces().Replace(plain, " ").Trim(' ', '.', ';', '!');
    }

    private static string FractionSigns(string text)
    {
        // As a number of parts, beside the sign of a ratio: "1:½".
        text = HalfOrQuarterOfAPart().Replace(text, m => m.Value switch { "½" => "0.5", "¼" => "0.25", _ => "0.75" });
        foreach (var (sign, after, alone) in new[] { ('½', ".5", "half"), ('¼', ".25", "quarter"), ('¾', ".75", "3 quarters"), ('⅓', "", "third"), ('⅔', "", "2 thirds") })
        {
            if (after.Length > 0)
                text = Regex.Replace(text, $@"(?<=\d) ?{sign}", after);
            text = text.Replace(sign.ToString(), alone, StringComparison.Ordinal);
        }

        return text;
    }

    private static readonly (string Word, string Figure)[] numbers =
    [
        ("one", "1"), ("two", "2"), ("three", "3"), ("four", "4"), ("five", "5"), ("six", "6"), ("seven", "7"), ("eight", "8"), ("nine", "9"), ("ten", "10"), ("eleven", "11"), ("twelve", "12"),
        ("fifteen", "15"), ("twenty", "20"), ("thirty", "30"), ("forty", "40"), ("fifty", "50"), ("sixty", "60"), ("seventy", "70"), ("eighty", "80"), ("ninety", "90"), ("a dozen", "12"),
    ];

    private static string NumberWords(string text)
    {
        foreach (var (word, figure) in numbers)
            text = Regex.Replace(text, $@"\b{word}\b", figure, RegexOptions.CultureInvariant);
        text = Regex.Replace(text, @"\b(?:1|a) (half|third|quarter|fifth)\b", "$1", RegexOptions.CultureInvariant);
        return Regex.Replace(text, @"\ba (part|drop|bit)\b", "1 $1", RegexOptions.CultureInvariant);
    }

    private static DilutionReading? Named(string plain)
    {
        var name = LikeA().Replace(plain, "");
        if (Consistency.All.FirstOrDefault(c => c.Names.Contains(name)) is not { } found)
            return null;
        RatioReading Of((int Paint, int Thinner) r) => new(Parts.Of(r.Paint), Parts.Of(r.Thinner), $"{r.Paint} : {r.Thinner}");
        return new([Of(found.Usual) with { Says = $"like {found.Names[0]}: about {found.Usual.Paint} : {found.Usual.Thinner}, from {found.Thickest.Paint} : {found.Thickest.Thinner} to {found.Thinnest.Paint} : {found.Thinnest.Thinner}" }],
            "", "", (Of(found.Thickest), Of(found.Thinnest)));
    }

    private static DilutionReading? Percentages(string plain, PercentMeaning? house)
    {
        var all = Percent().Matches(plain);
        if (all.Count == 0)
            return null;
        if (all.Count > 2 || all.Any(m => !Number(m.Groups[1].Value, out _)))
            return Fault("One percentage says enough: write 30% of the mix, or 30% added.");
        Number(all[0].Groups[1].Value, out var p);
        if (all.Count == 2)
        {
            Number(all[1].Groups[1].Value, out var q);
            if (p + q != 100)
                return Fault(FormattableString.Invariant($"{p:0.##} % and {q:0.##} % do not make 100 %. Write paint and thinner in parts."));
            return ThinnerFirst(plain) ? Share(q, p) : Share(p, q);
        }

        var rest = plain.Remove(all[0].Index, all[0].Length).Trim();
        if (p <= 0)
            return p == 0 ? One(Parts.One, Parts.Zero, "neat, not thinned") : Fault("Less than nothing cannot be added.");
        if (Of(rest, "paint") && !Of(rest, "thinner") && !Added().IsMatch(rest))
            return Regex.IsMatch(rest, @"^of (?:the )?paint") ? AddedTo(p) : p > 100 ? Fault("Paint cannot be more than the whole.") : Share(p, 100 - p);
        if (Added().IsMatch(rest) || rest.StartsWith('+'))
            return AddedTo(p);
        var ofMix = OfMix().IsMatch(rest);
        if (ofMix)
            return p >= 100 ? Fault("Thinner cannot be the whole mix.") : Share(100 - p, p);
        if (rest.Length > 0 && !OnlyThinner().IsMatch(rest))
            return null;

        // What is left is a bare percentage, of which a hundred or more can only have been added.
        if (p >= 100)
            return AddedTo(p);
        RatioReading share = Share(100 - p, p).Readings[0], added = AddedTo(p).Readings[0];
        return house switch
        {
            PercentMeaning.OfTheMix => new([share], "", ""),
            PercentMeaning.Added => new([added], "", ""),
            _ => new([share, added], FormattableString.Invariant($"Is {p:0.##} % of the whole mix thinner, or are {p:0.##} parts of thinner added to 100 of paint?"), ""),
        };
    }

    private static DilutionReading Share(decimal paint, decimal thinner) =>
        paint <= 0 ? Fault("That leaves no paint.") : One(Parts.Of(paint), Parts.Of(thinner), FormattableString.Invariant($"{thinner:0.##} % of the mix is thinner"));

    private static DilutionReading AddedTo(decimal p) => One(Parts.Of(100), Parts.Of(p), FormattableString.Invariant($"{p:0.##} parts of thinner added to 100 of paint"));

    /// <summary>"a third water", "half paint", "1 in 4".</summary>
    private static DilutionReading? Shares(string plain)
    {
        if (Fraction().Match(plain) is { Success: true } fraction)
        {
            var (n, d) = fraction.Groups[1].Value switch { "half" => (1, 2), "third" => (1, 3), "quarter" => (1, 4), "fifth" => (1, 5), "2 thirds" => (2, 3), _ => (3, 4) };
            var rest = fraction.Groups[2].Value;
            if (Of(rest, "paint") == Of(rest, "thinner"))
                return Fault("A part of what? Write half water, or 1:1.");
            return Of(rest, "paint") ? One(Parts.Of(n), Parts.Of(d - n), $"{fraction.Groups[1].Value} of the mix is paint") : One(Parts.Of(d - n), Parts.Of(n), $"{fraction.Groups[1].Value} of the mix is thinner");
        }

        if (FractionOf().Match(plain) is { Success: true } of && Number(of.Groups[1].Value, out var part) && Number(of.Groups[2].Value, out var whole) && part > 0 && part < whole && whole <= MostParts)
        {
            var (p, w) = (Parts.Of(part), Parts.Of(whole));
            return Of(plain, "paint")
                ? new([Ratio(p, w - p, FormattableString.Invariant($"{part}/{whole} of the mix is paint")), Ratio(p, w, FormattableString.Invariant($"{part} of paint to {whole} of thinner"))], "Is that its share of the mix, or paint to thinner?", "")
                : new([Ratio(w - p, p, FormattableString.Invariant($"{part}/{whole} of the mix is thinner")), Ratio(p, w, FormattableString.Invariant($"{part} of paint to {whole} of thinner"))], "Is that its share of the mix, or paint to thinner?", "");
        }

        if (OneIn().Match(plain) is not { Success: true } one || !Number(one.Groups[1].Value, out var a) || !Number(one.Groups[2].Value, out var b))
            return null;
        if (a <= 0 || b <= a || b > MostParts)
            return Fault("One part in how many? Write parts, such as 1:3.");
        return new(
            [Ratio(Parts.Of(a), Parts.Of(b - a), FormattableString.Invariant($"{a} of every {b} parts is paint")), Ratio(Parts.Of(b - a), Parts.Of(a), FormattableString.Invariant($"{a} of every {b} parts is thinner")),
                Ratio(Parts.Of(a), Parts.Of(b), FormattableString.Invariant($"{a} of paint to {b} of thinner"))],
            FormattableString.Invariant($"{a} in {b}: what is it that makes {a} part of {b}?"), "");
    }

    /// <summary>"1 : 1 : 2": components of the mix, and the thinner last.</summary>
    private static DilutionReading? Several(string plain)
    {
        if (!Ratio3().IsMatch(plain))
            return null;
        var figures = Figure().Matches(plain);
        if (figures.Count > MostComponents + 1)
            return Fault($"At most {MostComponents} components and the thinner.");
        var numbers = new List<decimal>();
        foreach (Match figure in figures)
        {
            if (!Number(figure.Value, out var n) || n > MostParts)
                return Fault($"At most {MostParts} parts.");
            numbers.Add(n);
        }

        if (numbers[..^1].Contains(0))
            return Fault("A component of no parts is none: leave it out.");
        var whole = Parts.Whole(numbers.Select(n => Parts.Of(n)).ToList());
        var mix = whole.Take(whole.Count - 1).ToList();
        var paint = mix.Aggregate((a, b) => a + b);
        return new([new RatioReading(paint, whole[^1], $"{string.Join(" and ", mix)} of what is mixed, thinned with {whole[^1]}") { Components = mix }], "", "");
    }

    /// <summary>Two amounts of the same unit in any dress: 2:1, 5 drops + 2 drops, 2 parts varnish 1 thinner.</summary>
    private static DilutionReading? Amounts(string plain)
    {
        var found = Amount().Matches(plain);
        var figures = Figure().Matches(plain);
        if (figures.Count != 2 || found.Count != 2 || plain.Contains('-', StringComparison.Ordinal) || TwoNumbersRunTogether().IsMatch(plain))
            return figures.Count == 1 ? Fault("That is one number. Write paint and thinner, such as 2:1.") : null;
        if (!Number(found[0].Groups["n"].Value, out var first) || !Number(found[1].Groups["n"].Value, out var second))
            return null;
        string one = Unit(found[0].Groups["u"].Value), other = Unit(found[1].Groups["u"].Value);
        if (one.Length > 0 && other.Length > 0 && one != other)
            return Fault($"{one} and {other} do not compare. Write both in one unit.");
        if (one == "g" || other == "g")
            return Fault("Grams compare only by density. Write both in drops or ml.");
        if (Stray(plain, found))
            return null;
        if (first > MostParts || second > MostParts)
            return Fault($"At most {MostParts} parts.");
        if (first > 0 && second > 0 && first != second && ThinnerBeforeRatio().IsMatch(plain))
        {
            return new([Ratio(Parts.Of(first), Parts.Of(second), FormattableString.Invariant($"{first:0.###} of paint to {second:0.###} of thinner")),
                Ratio(Parts.Of(second), Parts.Of(first), FormattableString.Invariant($"{first:0.###} of thinner to {second:0.###} of paint"))], "Which of the two numbers is the paint?", "");
        }

        var (paint, thinner) = ThinnerFirst(plain) ? (second, first) : (first, second);
        if (paint <= 0)
            return Fault("That leaves no paint.");
        if (thinner == 0)
            return One(Parts.One, Parts.Zero, "neat, not thinned");
        return One(Parts.Of(paint), Parts.Of(thinner), FormattableString.Invariant($"{paint:0.###} {(one.Length > 0 ? one : "parts")} of paint to {thinner:0.###} of thinner"));
    }

    /// <summary>Words left over that nobody can account for: better asked than guessed.</summary>
    private static bool Stray(string plain, MatchCollection found)
    {
        var rest = plain;
        foreach (var amount in found.Reverse())
            rest = rest.Remove(amount.Index, amount.Length).Insert(amount.Index, " ");
        var bare = Materials().Replace(rest, " ");
        return !Joins().IsMatch(bare) && !(Of(plain, "paint") && Of(plain, "thinner") && JoinsAndNames().IsMatch(bare));
    }

    private static bool ThinnerFirst(string plain)
    {
        int paint = Find(plain, "paint"), thinner = Find(plain, "thinner");
        if (paint < 0 && thinner >= 0)
            return Figure().Matches(plain) is { Count: >= 2 } f && thinner < f[1].Index;
        return thinner >= 0 && thinner < paint;
    }

    private static bool Of(string text, string what) => Find(text, what) >= 0;

    private static int Find(string text, string what) => (what == "paint" ? PaintWord() : ThinnerWord()).Match(text) is { Success: true } m ? m.Index : -1;

    private static string Unit(string text) => text switch
    {
        "" => "",
        "p" or "part" or "parts" => "parts",
        "drop" or "drops" or "dr" => "drops",
        "ml" or "millilitre" or "millilitres" or "milliliters" or "cc" => "ml",
        "g" or "gram" or "grams" => "g",
        _ => text.TrimEnd('s') + "s",
    };

    private static bool Number(string text, out decimal value) => decimal.TryParse(text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out value);

    private static DilutionReading One(Parts paint, Parts thinner, string says) => new([Ratio(paint, thinner, says)], "", "");

    private static RatioReading Ratio(Parts paint, Parts thinner, string says)
    {
        var whole = Parts.Whole([paint, thinner]);
        return new(whole[0], whole[1], says);
    }

    private static DilutionReading Fault(string what) => new([], "", what);

    private const string PaintWords = @"paint|varnish|colou?r|ink|wash|primer|enamel|acrylic|oil|lacquer|pigment|glue|pva";
    private const string ThinnerWords = @"thinners?|water|white spirit|spirit|medium|solvent|alcohol|isopropanol|flow improver|retarder";
    private const string Units = @"parts?|p|drops?|dr|ml|millilitres?|milliliters|cc|g|grams?|brushloads?|loads?|caps?|pipettes?|squirts?|spoons?|cups?|bits?";

    [GeneratedRegex(@"^(neat|undiluted|unthinned|not thinned|no thinner|straight(?: from the (?:pot|bottle))?|pure|none|from the pot)$")]
    private static partial Regex Neat();

    [GeneratedRegex(@"^(equal parts?|half and half|half half|half ?/ ?half|half-half|50 ?[-/] ?50|50 50|same again|same of each|even parts)(?: of)?(?: (?:paint|varnish|ink) and)?(?: (?:water|thinner|medium))?$")]
    private static partial Regex Equal();

    [GeneratedRegex(@"^(?:(?:as )?thin (?:as|like)|thinned (?:to|like)|like|as|to|consistency of|the consistency of) (?:a )?")]
    private static partial Regex LikeA();

    [GeneratedRegex(@"(\d+(?:\.\d+)?) ?%")]
    private static partial Regex Percent();

    [GeneratedRegex(@"^(?:thinner |water |medium )?(?:is )?(?:of|in) (?:the )?(?:(?:whole|total|finished) )?(?:mix|mixture|total|whole|pot)|^(?:thinner|water|medium) (?:of|in) (?:the )?(?:mix|total|whole)|by (?:share|volume) of (?:the )?mix")]
    private static partial Regex OfMix();

    [GeneratedRegex(@"\b(?:added|add|extra|more|on top|to the paint)\b")]
    private static partial Regex Added();

    [GeneratedRegex(@"^(?:thinned|diluted|thin|dilution|by|with|of|thinners?|water|white spirit|spirit|medium| )*$")]
    private static partial Regex OnlyThinner();

    [GeneratedRegex(@"^(half|third|quarter|fifth|2 thirds|3 quarters) (.+)$")]
    private static partial Regex Fraction();

    [GeneratedRegex(@"^(\d+) (?:part |drop )?in (\d+)$")]
    private static partial Regex OneIn();

    [GeneratedRegex(@"(?<n>\d+(?:\.\d+)?)(?: ?(?<u>" + Units + @")(?![a-z]))?")]
    private static partial Regex Amount();

    /// <summary>"water 2:1" may say what it is thinned with, or which number is the water.</summary>
    [GeneratedRegex(@"^(?:" + ThinnerWords + @") (?:by )?[\d.]+ ?[:/] ?[\d.]+$")]
    private static partial Regex ThinnerBeforeRatio();

    [GeneratedRegex(@"\d+(?:\.\d+)?")]
    private static partial Regex Figure();

    [GeneratedRegex(@"^\d+ \d+$|\d,\d")]
    private static partial Regex TwoNumbersRunTogether();

    [GeneratedRegex(@"\b(?:" + PaintWords + "|" + ThinnerWords + @"|of|the)\b")]
    private static partial Regex Materials();

    [GeneratedRegex(@"^[ ,]*(?::|/|\+|&|to|and|with|plus|per|for each|for every|for|each|every|,)?[ ,]*(?:of)?[ ,]*$")]
    private static partial Regex Joins();

    /// <summary>"3:1 water to paint": the names come after the numbers, in their order.</summary>
    [GeneratedRegex(@"^[ ,]*(?::|/|to)[ ,]*(?::|/|to|and)[ ,]*$")]
    private static partial Regex JoinsAndNames();

    [GeneratedRegex(@"\b(?:" + PaintWords + @")\b")]
    private static partial Regex PaintWord();

    [GeneratedRegex(@"\b(?:" + ThinnerWords + @")\b")]
    private static partial Regex ThinnerWord();

    [GeneratedRegex(@"(\d+) and half\b")]
    private static partial Regex HalfAnd();

    [GeneratedRegex(@"[:/+&%a-z]")]
    private static partial Regex Separator();

    [GeneratedRegex(@"(\d),(\d)")]
    private static partial Regex DecimalComma();

    [GeneratedRegex(@"^\d+(?:\.\d+)?(?: ?: ?\d+(?:\.\d+)?){2,}$")]
    private static partial Regex Ratio3();

    [GeneratedRegex(@"(?<=[:/] ?)[½¼¾]|(?<!\d ?)[½¼¾](?= ?[:/])")]
    private static partial Regex HalfOrQuarterOfAPart();

    [GeneratedRegex(@"^(\d+) ?/ ?(\d+) (?:of )?(?:" + PaintWords + "|" + ThinnerWords + @")$")]
    private static partial Regex FractionOf();

    [GeneratedRegex(@"\b(?:about|roughly|around|approximately|approx|circa|maybe|ratio|thinned with|mixed|mix it|the usual|dilute|diluted|(?<!not )thinned)\b|~|≈|\(|\)")]
    private static partial Regex Filler();

    [GeneratedRegex(@"\s+")]
    private static partial Regex Spaces();
}
