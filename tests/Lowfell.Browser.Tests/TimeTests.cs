using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

/// <summary>Minutes and evenings.</summary>
public sealed class TimeTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    [Fact]
    public void By_keys_to_what_it_costs_and_when_it_is_done_and_other_hours_end_it_sooner()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Press("=");
        page.SeeText("h1", "Estimates");
        page.ClickText("aside a", "Slate roof");
        page.SeeText("section[aria-label='Stop here'] h2", "Slate roof, Keeper’s cottage");
        page.SeeText("section[aria-label='Stop here'] td", "all of it");
        page.Press("-");
        page.SeeText("h1", "Finished");
        var before = page.Says("main h1");
        page.Click("main details summary");
        page.See("main details[open] ol li button");
        Assert.Empty(page.Axe());
        page.Press("q");
        page.SeeText("h1", "Sets of Fen Row bench");
        page.Press("i");
        page.Fill("Hours at the bench", "whenever");
        page.Keys(Keys.Enter);
        page.SeeText("[role=dialog] p", "was not understood");
        page.Fill("Hours at the bench", "every day 9-12, every day 14-20");
        page.Keys(Keys.Enter);
        page.Gone("[role=dialog]");
        page.Press("-");
        page.SeeText("aside p", "Mon Tue Wed Thu Fri Sat Sun 09:00-12:00");
        Assert.NotEqual(before, page.Says("main h1"));
        page.Chord(Keys.Control, "z");
        page.SeeText("aside p", "Mon Tue Wed Thu Fri 19:00-22:00");
        Assert.DoesNotContain(page.Errors(), e => !e.Contains("400", StringComparison.Ordinal));
    }

    [Fact]
    public void An_operation_goes_to_another_evening_by_keys_and_by_mouse_or_is_refused_with_where_it_can()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Press("-");
        page.SeeText("h1", "Finished");

        // By keys: from the first to the next, later by a session, and back with one undo.
        Focus(page, "[data-operation][tabindex='0']");
        page.Keys(Keys.ArrowRight);
        var moved = Label(page);
        page.Chord(Keys.Alt, Keys.ArrowDown);
        page.SeeText("[role=status]", "is done");
        Assert.Contains(moved, page.Says("section[data-session]:has([data-operation][aria-label$=pinned]) [aria-label$=pinned]", "aria-label"), StringComparison.Ordinal);
        Assert.Contains(moved, Label(page), StringComparison.Ordinal);
        page.Chord(Keys.Control, "z");
        page.Gone("[aria-label$=pinned]");

        // What lies on something that is not dry yet is refused, with the reason and the nearest session that works.
        var first = page.Says("section[data-session]", "aria-label")!;
        Focus(page, "div:last-of-type > section[data-session] [data-operation]");
        page.Keys(Keys.Enter);
        page.Choose("Do it in the session of", first);
        page.ClickText("[role=dialog] button", "Move it there");
        page.Wait(d => d.FindElements(By.CssSelector("[role=alert], [role=status]")).Any(e => e.Text.Contains("cannot be done", StringComparison.Ordinal) || e.Text.Contains("not dry by then", StringComparison.Ordinal) || e.Text.Contains("dry by then", StringComparison.Ordinal)));

        // Escape takes away what it says, and then the dialog.
        page.Wait(d =>
        {
            d.SwitchTo().ActiveElement().SendKeys(Keys.Escape);
            return d.FindElements(By.CssSelector("[role=dialog]")).Count == 0;
        });

        // By mouse: dragged onto another evening.
        var block = page.See("section[data-session] [data-operation]");
        var label = block.GetAttribute("aria-label")!;
        var target = page.Wait(d => d.FindElements(By.CssSelector("section[data-session]"))[1]);
        new OpenQA.Selenium.Interactions.Actions(page.Driver).MoveToElement(block).ClickAndHold().MoveByOffset(10, 10).MoveToElement(target).Release().Perform();
        page.See("[data-operation][aria-label$=pinned]");
        page.Wait(d => ((IJavaScriptExecutor)d).ExecuteScript("arguments[0].click(); return true", d.FindElement(By.CssSelector("[data-operation][aria-label$=pinned]"))));
        page.SeeText("[role=dialog] button", "Let it go where it likes");
        Assert.Empty(page.Axe("[role=dialog]"));
        page.ClickText("[role=dialog] button", "Let it go where it likes");
        page.Gone("[role=dialog]");
        Assert.NotEqual("", label);
    }

    [Fact]
    public void Done_otherwise_with_less_left_out_late_and_on_paper()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Press("-");
        page.SeeText("h1", "Finished");
        page.SeeText("aside h2", "On time");
        page.Click("[id$=trigger-otherwise]");
        page.SeeText("aside b", "A second pair of hands");
        Assert.Empty(page.Axe());
        page.Click("[aria-label='Take over: In groups of 4']");
        page.SeeText("[role=status]", "in groups of 4");

        // Only so many hours: left out, seen in the plan, and put back there.
        page.Click("[id$=trigger-fit]");
        page.SeeText("aside p", "nothing is lost");
        page.Fill("Hours there are", "100");
        page.Keys(Keys.Enter);
        page.ClickText("aside button", " out");
        page.SeeText("aside h3", "Left out by now");
        Assert.Empty(page.Axe());
        page.SeeText("[role=status]", "Out of date");
        page.ClickText("aside button", "Put all back");
        page.SeeText("[role=status]", "put back");

        page.ClickText("main button", "Late today");
        page.SeeText("[role=dialog] [role=status]", "It is finished");
        page.Keys(Keys.Escape);
        page.Gone("[role=dialog]");
        page.Click("[id$=trigger-along]");
        page.ClickText("aside button", "Make an address");
        Assert.Contains("/api/calendar/", page.Says("[aria-label='The address']", "value"), StringComparison.Ordinal);
        page.ClickText("aside button", "Revoke it");
        page.Gone("[aria-label='The address']");
        page.Click("main details summary");
        page.ClickText("main a", "Sheet to print");
        page.SeeText("main button", "Print");
        Assert.Empty(page.Axe());
        Assert.InRange(page.Sheets(), 1, 3);
        Assert.DoesNotContain(page.Errors(), e => !e.Contains("409", StringComparison.Ordinal));
    }

    private static void Focus(Page page, string css) => page.Wait(d =>
    {
        ((IJavaScriptExecutor)d).ExecuteScript("arguments[0].focus()", d.FindElement(By.CssSelector(css)));
        return true;
    });

    private static string Label(Page page) => page.Wait(d => d.SwitchTo().ActiveElement().GetAttribute("aria-label"))!.Split(' ', 2)[1];
}
