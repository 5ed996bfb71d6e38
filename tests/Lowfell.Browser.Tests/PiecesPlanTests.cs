using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace Lowfell.Browser.Tests;

/// <summary>How pieces differ, and how bases are laid out: by mouse and by keys alone.</summary>
public sealed class PiecesPlanTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    [Fact]
    public void A_layer_is_varied_looked_at_kept_and_undone_by_keys()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Go("Variation");
        page.SeeText("h1", "Stipple Withy Grey");
        page.See("[data-piece=W1] svg");

        var before = page.Says("[data-piece=W3]");

        // Another plan is looked at, and is what is kept.
        page.Press("x");
        page.SeeText("span", "plan 8 · not kept yet");
        page.Wait(_ => page.Says("[data-piece=W3]") != before);
        page.Fill("How large, on the mean", "900 mm");
        page.Keys(Keys.Tab);
        page.SeeText("p", "At most");
        page.Fill("How large, on the mean", "9 mm");
        page.Keys(Keys.Tab);
        page.SeeText("p", "of 9 mm");
        page.Press("v");
        page.SeeText("[data-said]", "Plan 8 is kept");
        page.SeeText("span", "plan 8 · kept");
        page.Click("[data-said] button");
        page.SeeText("span", "plan 7 · kept");
        Assert.Equal(before, page.Says("[data-piece=W3]"));
        Assert.Empty(page.Errors());
    }

    [Fact]
    public void Materials_are_dealt_and_what_came_out_otherwise_is_noted()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Go("Variation");
        page.SeeText("h1", "Stipple Withy Grey");
        page.Click("article input[type=checkbox]");
        page.SeeText("table th", "Withy Grey");
        page.SeeText("li", "run together");
        page.ClickText("button", "Back to what is kept");
        page.Gone("section[aria-label='Dealt materials']");
        page.Click("[data-piece=W3]");
        page.SeeText("[role=dialog] h2", "W3, as it was laid");
        page.Fill("How many marks", "two");
        page.ClickText("[role=dialog] button", "Store it");
        page.SeeText("[role=dialog]", "A whole number");
        page.Fill("How many marks", "5");
        page.Fill("Where they are", "a row of small ones");
        Assert.Empty(page.Axe("[role=dialog]"));
        page.ClickText("[role=dialog] button", "Store it");
        page.Gone("[role=dialog]");
        page.SeeText("[data-piece=W3]", "a row of small ones");
        Assert.Empty(page.Errors());
    }

    [Fact]
    public void Bases_are_drawn_again_kept_and_changed_by_mouse_and_by_keys()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Go("Bases");
        page.SeeText("h1", "Mud-and-salt base");
        page.See("[data-base=B24] svg");
        page.Press("x");
        page.SeeText("span", "not kept yet");
        page.Press("v");
        page.SeeText("[data-said]", "The bases are kept");

        // By keys: a thing is gone to and moved over the rim; what is broken is said, and put right with one press.
        var label = Wide(page);
        page.Click($"[data-base={label}]");
        page.SeeText("h2", label);
        var thing = page.See("[data-element]");
        var from = thing.GetAttribute("aria-label");
        for (var i = 0; i < 14; i++)
            page.See("[data-element]").SendKeys(Keys.Shift + Keys.ArrowRight);
        page.SeeText("ul[aria-label=Rules] li", "over the rim");
        page.SeeText("h2", "by hand");
        Assert.Contains("broken", page.Says($"[data-base={label}]", "aria-label"));
        page.ClickText("ul[aria-label=Rules] button", "Move it to the nearest place");
        page.SeeText("ul[aria-label=Rules] li", "every flat is clear");

        // By mouse: dragged, and one more put beside it and taken away with its key.
        var before = page.See("[data-element] circle").GetAttribute("cx");
        new Actions(page.Driver).ClickAndHold(page.See("[data-element] circle")).MoveByOffset(-40, 10).Release().Perform();
        page.Wait(_ => page.See("[data-element] circle").GetAttribute("cx") != before);
        page.SeeText("h2", "by hand");
        var many = page.Driver.FindElements(By.CssSelector("[data-element]")).Count;
        page.ClickText("button", "Add a tuft");
        page.Wait(d => d.FindElements(By.CssSelector("[data-element]")).Count == many + 1);
        page.See($"[data-element]:nth-of-type({many + 1})");
        page.Driver.FindElements(By.CssSelector("[data-element]"))[many].SendKeys(Keys.Delete);
        page.Wait(d => d.FindElements(By.CssSelector("[data-element]")).Count == many);
        page.ClickText("button", "As it was drawn");
        page.SeeText("[data-said]", "as it was drawn");
        page.Wait(_ => page.See("[data-element]").GetAttribute("aria-label") == from);
        Assert.Empty(page.Errors());
    }

    [Fact]
    public void What_is_wanted_is_changed_and_goes_into_the_plan()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Go("Bases");
        page.SeeText("h1", "Mud-and-salt base");
        page.ClickText("[role=tab]", "What is wanted");
        page.Fill("Across", "5 mm");
        page.Keys(Keys.Tab);
        page.SeeText("p", "At least 15 mm");
        page.Fill("Across", "40 mm");
        page.Keys(Keys.Tab);
        page.SeeText("span", "40 mm round");

        // A flat more, put where it belongs by the arrows and by hand.
        page.ClickText("button", "Another flat");
        const string Flat = "[aria-label='Flats from above'] g:last-of-type";
        page.See(Flat + "[aria-label$='in the middle']").SendKeys(Keys.Shift + Keys.ArrowRight + Keys.ArrowRight + Keys.ArrowRight);
        page.See(Flat + "[aria-label$=', right']");
        new OpenQA.Selenium.Interactions.Actions(page.Driver).DragAndDropToOffset(page.See(Flat), -80, 0).Perform();
        page.See(Flat + "[aria-label$='left']");
        Assert.Empty(page.Axe("aside"));
        page.ClickText("button", "Keep them");
        page.SeeText("[data-said]", "The bases are kept");
        page.SeeText("p", "The plan reckons with other areas");
        page.ClickText("button", "Areas and counts into the plan");
        page.SeeText("p", "The plan reckons with what is drawn");
        page.ClickText("button", "From the table");
        page.SeeText("p", "In the colours they have from 0.9 m");
        Assert.Empty(page.Errors());
    }

    [Fact]
    public void A_layer_in_the_plan_leads_to_its_plan_over_the_pieces()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Stored();
        page.Click("li[data-layer='3'] button[data-select]");
        page.SeeText("label", "Differently on every piece");
        page.Wait(d =>
        {
            var box = d.FindElements(By.TagName("label")).First(l => l.Text == "Differently on every piece").FindElement(By.TagName("input"));
            if (!box.Selected)
                box.Click();
            return box.Selected;
        });
        page.Stored();
        page.ClickText("a", "Show plan 1");
        page.SeeText("h1", "Patch Brick Clay");
        page.SeeText("span", "plan 1 · kept");
        page.SeeText("h2", "Brick field, Lock-wall corner");

        // Laid alike again, it is among those that could be varied.
        page.ClickText("button", "Alike on every piece");
        page.SeeText("[data-said]", "alike on every piece");
        page.SeeText("ul[aria-label='Could be varied'] a", "patch Brick Clay");
        Assert.Empty(page.Errors());
    }

    [Fact]
    public void Sheets_are_made_as_files_without_a_complaint()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Go("Bases");
        page.SeeText("h1", "Mud-and-salt base");
        Kept(page);
        page.Go("Trials");
        page.See("[aria-label^='The tile']");
        Kept(page);
        Assert.Empty(page.Errors());
    }

    /// <summary>Presses for the file, and sees that one came: a whole document of some pages.</summary>
    private static void Kept(Page page)
    {
        var script = (IJavaScriptExecutor)page.Driver;
        script.ExecuteScript("window.made = 0; const url = URL.createObjectURL; URL.createObjectURL = b => { window.made = b.type === 'application/pdf' ? b.size : -1; return url.call(URL, b); }");
        page.ClickText("button", "As a PDF");
        Assert.True(page.Wait(_ => script.ExecuteScript("return window.made") is long and > 1000));
    }

    /// <summary>A base with a thing on it.</summary>
    private static string Wide(Page page) => page.Wait(d => d.FindElements(By.CssSelector("[data-base]")).First(b => b.GetAttribute("aria-label")!.Contains("tuft")).GetAttribute("data-base")!);
}
