using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

public sealed class ShelfAndStartTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    [Fact]
    public void Search_narrows_as_it_is_typed()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Stored();
        page.Press("/");
        page.See("main section li");
        page.See("#find").SendKeys("enamel wash");
        page.Wait(d => d.FindElements(By.CssSelector("main section li")).Count == 3);
        page.See("#find").SendKeys(" zzz");
        page.SeeText("p", "Nothing on the shelf answers to");
        page.ClickText("button", "Show everything");
        page.Wait(d => d.FindElements(By.CssSelector("main section li")).Count > 50);
        Assert.Empty(page.Errors());
    }

    [Fact]
    public void A_wrong_entry_keeps_what_was_typed_and_names_the_field()
    {
        var page = session.Open();
        page.Go("Shelf");
        page.See("main section li");
        page.ClickText("button", "Add a material");
        page.Fill("Name", "Withy Bark");
        page.Fill("Colour", "#12");
        page.ClickText("button", "Put it on the shelf");
        Assert.Contains("Write a hash and six", page.See("[aria-invalid=true] + p").Text);
        Assert.Equal("Withy Bark", page.Field(page.Driver, "Name").GetAttribute("value"));
        Assert.Empty(page.Axe());
        page.Fill("Colour", "#6b4f2a");
        page.ClickText("button", "Put it on the shelf");
        page.SeeText("h2", "Withy Bark");
        Assert.Contains("estimate", page.See("figure figcaption").Text);
        page.ClickText("button", "Take off the shelf");
        page.Wait(d => d.FindElements(By.TagName("h2")).All(h => h.Text != "Withy Bark"));
    }

    [Fact]
    public void A_material_shows_what_it_is_used_for()
    {
        var page = session.Open();
        page.Go("Shelf");
        page.ClickText("button", "Bog Umber");
        Assert.Contains("Lock brick", page.Wait(d => d.FindElement(By.CssSelector("section[aria-label='Used for'] li"))).FindElement(By.XPath("..")).Text);
    }

    [Fact]
    public void A_new_workshop_is_guided_to_its_first_set_in_five_steps()
    {
        var page = session.Open("/start/new");
        page.Fill("Name of the workshop", "Attic bench");
        page.Fill("Name of the set", "Causeway");
        for (var step = 1; step <= 5; step++)
        {
            Assert.Empty(page.Axe());
            if (step == 2)
                page.ClickText("button", "Base");
            if (step == 3)
                page.Fill("How many", "0");
            page.ClickText("button", step == 5 ? "Make the set" : "Next");
        }

        // The mistake in step three is named there, and everything typed is still in place.
        page.See("[role=alert]");
        page.SeeText("h2", "The design");
        page.Fill("How many", "12");
        page.ClickText("button", "5 First layers");
        page.ClickText("button", "Make the set");
        page.SeeText("h1", "Ground");
        page.Stored();
        Assert.Contains("Causeway", page.See("header").Text);
        Assert.True(page.Stack().Count >= 4);
    }
}
