using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

/// <summary>Remarks over the set, living with one, house rules: by mouse and by keys alone.</summary>
public sealed class RemarksTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    private static string Counts(Page page) => page.Wait(d => d.FindElement(By.CssSelector("[data-counts]")).Text);

    [Fact]
    public void One_remedy_everywhere_is_looked_at_done_and_undone()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Go("Remarks");
        page.See("[data-group='wash-on-flat'] [data-remedy='as-filter']");
        var before = Counts(page);
        page.Click("[data-group='wash-on-flat'] [data-remedy='as-filter']");
        page.See("[role=dialog] [data-change]");
        Assert.Empty(page.Axe());
        page.ClickText("button", "Do it everywhere");
        page.Gone("[role=dialog]");
        page.Gone("[data-group='wash-on-flat']");
        Assert.NotEqual(before, Counts(page));
        page.Press(Keys.Control + "z");
        page.See("[data-group='wash-on-flat']");
        page.Wait(_ => Counts(page) == before);
        Assert.Empty(page.Errors());
    }

    [Fact]
    public void A_remark_is_lived_with_and_taken_back_by_keys_alone()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.ClickText("a", "Keeper’s cottage");
        page.ClickText("a", "Cut edges");
        page.See("[data-finding='wash-on-flat']");
        page.Stored();
        page.Wait(d =>
        {
            if (d.FindElements(By.TagName("label")).Any(l => l.Text == "Why you live with it"))
                return true;
            d.FindElement(By.CssSelector("[data-finding='wash-on-flat'] [data-live-with]")).SendKeys(Keys.Enter);
            return false;
        });
        page.Keys("only the back shows" + Keys.Enter);
        page.Gone("[data-finding='wash-on-flat']");
        var lived = page.See("[data-accepted='wash-on-flat']");
        Assert.Contains("only the back shows", lived.Text);
        Assert.Empty(page.Axe());

        // It stays lived with after the page is read anew, and stands in the list of the set.
        page.Driver.Navigate().Refresh();
        page.See("[data-accepted='wash-on-flat']");
        page.Press("w");
        page.SeeText("h1", "Remarks");
        page.SeeText("button", "Lived with").SendKeys(Keys.Enter);
        page.SeeText("main", "only the back shows");
        Assert.Empty(page.Axe());
        page.Driver.Navigate().Back();
        page.Wait(d =>
        {
            d.FindElement(By.CssSelector("[data-accepted='wash-on-flat'] button:last-of-type")).SendKeys(Keys.Enter);
            return true;
        });
        page.See("[data-finding='wash-on-flat']");
    }

    [Fact]
    public void A_remedy_says_what_it_would_do_before_it_is_pressed()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.ClickText("a", "Back face");
        page.SeeText("h1", "Back face");
        page.See("[data-finding='wash-on-flat'] [data-remedy='stippled']");
        page.Wait(d =>
        {
            ((IJavaScriptExecutor)d).ExecuteScript("document.querySelector(\"[data-finding='wash-on-flat'] [data-remedy='stippled']\").focus()");
            return true;
        });
        var change = page.See("[data-finding='wash-on-flat'] [data-change]");
        Assert.Contains("work", change.Text);
        Assert.Contains("Peat Wash", change.Text);
        Assert.DoesNotContain(page.Stack(), l => l.Contains("stipple", StringComparison.OrdinalIgnoreCase));
        page.Keys(Keys.Enter);
        page.Gone("[data-finding='wash-on-flat']");
        Assert.Contains(page.Stack(), l => l.Contains("stipple", StringComparison.OrdinalIgnoreCase));
        page.ClickText("button", "Undo");
        page.See("[data-finding='wash-on-flat']");
        page.Stored();
    }

    [Fact]
    public void House_rules_show_their_effect_before_they_are_stored()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Press("h");
        page.SeeText("h1", "House rules");
        page.Click("[data-school='pigments'] label:nth-of-type(2) input");
        Assert.Matches(@"\d+ remarks? goe?s?\.", page.Wait(d => d.FindElement(By.CssSelector("[data-effect]")).Text));
        Assert.Empty(page.Axe());
        page.ClickText("button", "Store these rules");
        page.Gone("[data-effect]");
        page.Wait(d => d.FindElement(By.CssSelector("[data-school='pigments'] label:nth-of-type(2) input")).Selected);
        page.Press("w");
        page.SeeText("h1", "Remarks");
        page.See("[data-group]");
        page.Gone("[data-group='pigment-sealed']");
        Assert.Empty(page.Errors());
    }

    [Fact]
    public void A_piece_half_done_is_judged_by_what_is_still_to_come()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.ClickText("button", "For a piece half done");
        page.Choose("On the piece already", "up to 8, pin wash");
        page.Choose("The last one, how long ago", "3 days");
        page.SeeText("button", "Clean-up comes too late");
        page.Choose("The last one, how long ago", "30 min");
        page.Gone("[data-finding='clean-up-missed']");
    }

    [Fact]
    public void The_care_sheet_follows_the_design()
    {
        var page = session.Open();
        page.Go("Remarks");
        page.SeeText("button", "Care").Click();
        page.SeeText("p", "Instant glue");
        page.Choose("What you work on", "Jetty section");
        page.SeeText("h2", "Jetty section");
        page.Wait(d => !d.FindElement(By.TagName("main")).Text.Contains("Instant glue", StringComparison.Ordinal));
        Assert.Empty(page.Axe());
    }
}
