using System.Text.RegularExpressions;
using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

public sealed class ColourTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    private Page Zone(string design, string zone, int layer, int width = 1280, bool dark = false)
    {
        var page = session.Open(width: width, dark: dark);
        page.ClickText("a", design);
        page.ClickText("a", zone);
        page.SeeText("h1", zone);
        page.Stored();
        Focus(page, layer);
        return page;
    }

    private static void Focus(Page page, int layer) =>
        ((IJavaScriptExecutor)page.Driver).ExecuteScript($"document.querySelector(\"li[data-layer='{layer}'] button[data-select]\").focus()");

    private static string Colours(Page page, int layer) => page.Says($"li[data-layer='{layer}'] [data-colours]", "data-colours")!;

    private static double Apart(Page page) =>
        double.Parse(Regex.Match(page.Says("[data-target] figcaption"), @"ΔE (\d+\.\d)").Groups[1].Value, System.Globalization.CultureInfo.InvariantCulture);

    [Fact]
    public void A_wanted_colour_is_reached_by_one_key()
    {
        var page = Zone("Lock-wall straight", "Brick field", 2);
        page.Keys("c");
        page.Fill("Wanted colour", "#8a6a58");
        page.See("[data-target]");
        page.See("[data-start='0']");
        var before = Apart(page);
        Assert.Empty(page.Axe());
        Focus(page, 2);
        page.Keys("b");
        page.Wait(_ => Apart(page) < before - 0.5);
        page.Stored();

        // The target is the zone's own: it is there after a reload, and gone when taken away.
        page.Driver.Navigate().Refresh();
        page.SeeText("h1", "Brick field");
        page.Stored();
        page.Press("c");
        page.See("[data-target]");
        page.ClickText("button", "No target");
        page.Gone("[data-target]");
        Assert.Empty(page.Errors());
    }

    [Fact]
    public void Sliders_move_the_column_and_undo_takes_it_back()
    {
        var page = Zone("Jetty section", "Timber", 3);
        page.Keys("c");
        var before = Colours(page, 3);
        var coats = page.SeeText("span", "Coats");
        Assert.NotNull(coats);
        var heavily = page.Wait(d => d.FindElements(By.CssSelector("[role=slider]")).Last(s => s.GetAttribute("aria-valuemax") == "2"));
        heavily.SendKeys(Keys.Home);
        page.Wait(_ => Colours(page, 3) != before);
        page.Stored();
        page.ClickText("button", "Undo");
        page.Wait(_ => Colours(page, 3) == before);
        page.Stored();
    }

    [Fact]
    public void Marks_are_lost_as_the_eye_steps_back_and_can_be_left_out()
    {
        var page = Zone("Lock-wall straight", "Coping", 1, 1024, dark: true);
        page.Keys("s");
        page.See("[data-details]");
        var distance = page.Wait(d => d.FindElements(By.CssSelector("aside [role=slider]")).First(s => s.GetAttribute("aria-valuemax") == "3"));
        distance.SendKeys(Keys.End);
        page.Wait(d => d.FindElements(By.CssSelector("[data-verdict='just'], [data-verdict='lost']")).Count > 0);
        Assert.Empty(page.Axe());
        var layers = page.Stack().Count;
        page.ClickText("button", "Leave it out");
        page.Wait(_ => page.Stack().Count < layers);
        page.Stored();
        page.ClickText("button", "Undo");
        page.Wait(_ => page.Stack().Count == layers);
    }

    [Fact]
    public void Two_pots_are_compared_side_by_side()
    {
        var page = Zone("Lock-wall straight", "Brick field", 6);
        page.Keys("c");
        page.ClickText("button", "Compare with another");
        Assert.StartsWith("0", page.Says("[data-compared]", "data-compared"), StringComparison.Ordinal);
        var heavily = page.Wait(d => d.FindElements(By.CssSelector("[role=dialog] [role=slider]")).Last());
        heavily.SendKeys(Keys.End);
        page.Wait(d => !d.FindElement(By.CssSelector("[data-compared]")).GetAttribute("data-compared")!.StartsWith("0.0", StringComparison.Ordinal)
            && d.FindElement(By.CssSelector("[data-compared]")).GetAttribute("data-compared") != "0");
        Assert.Empty(page.Axe());
        page.Choose("Compare with", "Lock coping");
        page.Wait(d => double.Parse(d.FindElement(By.CssSelector("[data-compared]")).GetAttribute("data-compared")!, System.Globalization.CultureInfo.InvariantCulture) > 3);
        page.Keys(Keys.Escape);
        page.Gone("[role=dialog]");
    }

    [Theory]
    [InlineData(1280, false)]
    [InlineData(1024, true)]
    public void The_table_view_follows_its_distance(int width, bool dark)
    {
        var page = session.Open(width: width, height: 768, dark: dark);
        page.SeeText("h1", "Brick field");
        page.Press("t");
        page.SeeText("h1", "Lock-wall straight");
        string Near() => page.Says("svg[data-metres]", "aria-label")!;
        page.See("svg[data-metres]");
        var before = Near();
        page.See("[role=slider]").SendKeys(Keys.Home);
        page.Wait(_ => Near() != before);
        page.ClickText("button", "Reed dredger");
        page.SeeText("h1", "Reed dredger");
        page.See("[data-pair]");
        Assert.Empty(page.Errors());
    }

    [Fact]
    public void A_look_from_a_photo_tunes_a_paint_and_the_shelf_takes_it_back()
    {
        var page = Zone("Jetty section", "Rope", 2);
        page.Keys("c");
        page.Click("[aria-label='Seen after this layer, from a photo']");
        page.See("[role=dialog] input[type=file]").SendKeys(Photo());
        page.SeeText("p", "Point at the grey card");
        var picture = page.See("[role=application]");
        picture.SendKeys(Keys.Enter);
        page.SeeText("p", "Now point at the paint");
        for (var i = 0; i < 3; i++)
            picture.SendKeys(Keys.Shift + Keys.ArrowRight);
        picture.SendKeys(Keys.Enter);
        Assert.Empty(page.Axe());
        page.ClickText("button", "Take #");
        page.Gone("[role=dialog]");
        page.ClickText("button", "Tune ");
        page.SeeText("li", "was tuned");
        Focus(page, 2);
        page.Keys("m");
        page.ClickText("a", "Open");
        page.SeeText("h3", "What looking taught");
        Assert.Empty(page.Axe());
        page.ClickText("button", "Take back");
        page.SeeText("span", "taken back");
        Assert.Empty(page.Errors());
    }

    [Fact]
    public void The_shelf_finds_the_nearest_to_a_colour()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Press("/");
        page.SeeText("h1", "Shelf");
        page.See("#find").SendKeys("#b5552f");
        page.Wait(d => int.Parse(d.FindElement(By.CssSelector("[data-nearest]")).GetAttribute("data-nearest")!, System.Globalization.CultureInfo.InvariantCulture) > 5);
        Assert.Empty(page.Axe());
        page.Click("[data-nearest] li button");
        page.See("aside form");
    }

    [Fact]
    public void An_impossible_card_is_told_while_it_is_typed()
    {
        var page = session.Open();
        page.Go("Shelf");
        page.ClickText("button", "Add a material");
        page.Fill("Name", "Test card");
        page.Click("[aria-controls=material-more]");
        page.Fill("Card: one coat over black", "#c0c0c0");
        page.Fill("Card: one coat over white", "#707070");
        page.SeeText("p", "Look whether the two colours are swapped");
        page.Fill("Card: one coat over black", "#503820");
        page.Fill("Card: one coat over white", "#9a7a50");
        page.SeeText("figcaption", "Read one step off");
        Assert.Empty(page.Axe());
    }

    /// <summary>A picture, left half the grey of a card and right half a buff paint, both under warm light.</summary>
    private static string Photo()
    {
        const int width = 80, height = 40;
        using var file = new MemoryStream();
        using var bytes = new BinaryWriter(file);
        bytes.Write("BM"u8);
        bytes.Write(54 + width * height * 3);
        bytes.Write(0);
        bytes.Write(54);
        bytes.Write(40);
        bytes.Write(width);
        bytes.Write(height);
        bytes.Write((short)1);
        bytes.Write((short)24);
        for (var i = 0; i < 6; i++)
            bytes.Write(0);
        for (var i = 0; i < width * height; i++)
            bytes.Write(i % width < 52 ? [100, 118, 140] : new byte[] { 70, 120, 170 });
        var path = Path.Combine(Path.GetTempPath(), $"lowfell-photo-{Guid.NewGuid():n}.bmp");
        File.WriteAllBytes(path, file.ToArray());
        return path;
    }
}
