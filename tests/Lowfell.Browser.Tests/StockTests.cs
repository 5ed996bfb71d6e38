using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

/// <summary>From what is short to what is on the shelf, and back.</summary>
public sealed class StockTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    [Fact]
    public void What_is_short_is_bought_and_taken_back_by_keys_alone()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Press("k");
        page.SeeText("h1", "Stock");
        IWebElement Line() => page.See("[data-line='Peat Seven']");
        Assert.Contains("Short", Line().Text);
        page.Wait(d =>
        {
            d.FindElement(By.CssSelector("[aria-label='Bought: Peat Seven']")).SendKeys(Keys.Enter);
            return true;
        });
        page.Gone("[aria-label='Bought: Peat Seven']");
        Assert.DoesNotContain("Short", Line().Text);
        page.See("[aria-label='Moves of Peat Seven']").SendKeys(Keys.Enter);
        page.See("[data-move='bought']");
        Assert.Empty(page.Axe());

        // More than there is is refused with what is there, and what was typed stays.
        page.Fill("How much", "9999");
        page.ClickText("button", "Record");
        page.SeeText("[role=dialog]", "more than there is");
        Assert.Equal("9999", page.Field(page.Driver, "How much").GetAttribute("value"));
        page.ClickText("button", "Take back");
        page.See("[data-move='corrected']");
        page.Keys(Keys.Escape);
        page.Gone("[role=dialog]");
        page.See("[aria-label='Bought: Peat Seven']");
    }

    [Fact]
    public void A_file_is_looked_at_and_mended_before_it_is_stored()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Go("Shelf");
        page.SeeText("h1", "Shelf");
        page.ClickText("button", "Files…");
        var folder = Directory.CreateTempSubdirectory("lowfell-files");
        string Csv(string name, string text)
        {
            var path = Path.Combine(folder.FullName, name);
            File.WriteAllText(path, text);
            return path;
        }

        page.See("[role=dialog] input[type=file]").SendKeys(Csv("bad.csv", "name,kind,colour\nEel Skin,paint,grey\n"));
        Assert.Contains("colour", page.Says("[data-faults]"));
        Assert.Empty(page.Axe());
        page.See("[role=dialog] input[type=file]").SendKeys(Csv("good.csv", "name,kind,colour\nEel Skin,paint,#5d6058\n"));
        page.ClickText("button", "Put them on the shelf");
        page.SeeText("p", "all on the shelf now");
        page.Keys(Keys.Escape);
        page.Gone("[role=dialog]");
        page.SeeText("button", "Eel Skin");
        folder.Delete(recursive: true);
    }
}
