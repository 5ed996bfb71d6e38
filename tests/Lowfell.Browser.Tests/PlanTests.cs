using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace Lowfell.Browser.Tests;

public sealed class PlanTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    private Page Zone(string design, string zone, bool deaf = false)
    {
        var page = session.Open(deaf ? "about:blank" : "/");
        if (deaf)
            page.Deafen(session.Address);
        page.ClickText("a", design);
        page.ClickText("a", zone);
        page.SeeText("h1", zone);
        page.Stored();
        return page;
    }

    [Fact]
    public void Two_windows_on_one_layer_are_told_and_lose_nothing()
    {
        // The second hears of nothing, as on a line that is just coming back.
        Page first = Zone("Jetty section", "Rope"), second = Zone("Jetty section", "Rope", deaf: true);
        first.Click("li[data-layer='2'] button[data-select]");
        first.Fill("Note", "theirs: buff rope");
        first.Stored();
        second.Click("li[data-layer='2'] button[data-select]");
        second.Fill("Note", "mine: old rope");
        // Nobody is asked in the middle of a word; what waits says so, and the question comes when it is gone to.
        second.SeeText("[data-held]", "another window changed the same");
        Assert.Empty(second.Driver.FindElements(By.CssSelector("[role=dialog]")));
        second.ClickText("button", "See both");
        var dialog = second.See("[role=dialog]");
        Assert.Contains("theirs: buff rope", dialog.Text);
        Assert.Contains("mine: old rope", dialog.Text);
        Assert.Empty(second.Axe());
        second.ClickText("button", "Take all of theirs");
        second.Gone("[role=dialog]");
        second.Stored();
        Assert.Contains("theirs: buff rope", second.Row(2).Text);

        // Taking theirs loses nothing: the own version is one undo away.
        second.ClickText("button", "Undo");
        second.Wait(d => second.Row(2).Text.Contains("mine: old rope", StringComparison.Ordinal));
        second.Stored();
        first.Driver.Navigate().Refresh();
        first.Wait(d => first.Row(2).Text.Contains("mine: old rope", StringComparison.Ordinal));
    }

    [Fact]
    public void A_tip_that_comes_with_the_focus_takes_no_click_meant_for_what_it_covers()
    {
        var page = Zone("Jetty section", "Rope");
        page.Keys(Keys.Tab);
        ((IJavaScriptExecutor)page.Driver).ExecuteScript("const e = document.querySelector('main h1'); e.dataset.tip = 'What it is'; e.tabIndex = 0; e.focus()");
        page.SeeText("[data-tip-shown]", "What it is");
        Assert.Equal(false, ((IJavaScriptExecutor)page.Driver).ExecuteScript("""
            const tip = document.querySelector('[data-tip-shown]'), r = tip.getBoundingClientRect(), under = document.elementFromPoint(r.x + r.width / 2, r.y + r.height / 2);
            return !!under.closest('[data-radix-popper-content-wrapper]');
            """));
    }

    [Fact]
    public void Changes_to_different_layers_are_brought_together()
    {
        Page first = Zone("Pump house", "Timber"), second = Zone("Pump house", "Timber", deaf: true);
        first.Click("li[data-layer='1'] button[data-select]");
        first.Fill("Note", "first window");
        first.Stored();
        second.Click("li[data-layer='3'] button[data-select]");
        second.Fill("Note", "second window");
        second.Wait(d => second.Row(1).Text.Contains("first window", StringComparison.Ordinal) && second.Row(3).Text.Contains("second window", StringComparison.Ordinal));
        second.Stored();
        second.Driver.Navigate().Refresh();
        second.Wait(d => second.Row(1).Text.Contains("first window", StringComparison.Ordinal) && second.Row(3).Text.Contains("second window", StringComparison.Ordinal));
    }

    [Fact]
    public void What_another_window_stores_arrives_by_itself_and_leaves_what_is_being_typed_alone()
    {
        Page first = Zone("Pump house", "Slate roof"), second = Zone("Pump house", "Slate roof");
        second.Click("li[data-layer='2'] button[data-select]");
        second.See("[data-editor]");
        second.Fill("Note", "typed here");
        second.Stored();
        first.Wait(_ => first.Row(2).Text.Contains("typed here", StringComparison.Ordinal));
        first.Click("li[data-layer='1'] button[data-select]");
        first.Fill("Note", "from the other window");
        first.Stored();
        second.Wait(_ => second.Row(1).Text.Contains("from the other window", StringComparison.Ordinal));
        second.SeeText("li", "Another window stored this stack");

        // The layer that is open stays open, with the focus where it was.
        Assert.Equal("typed here", second.Field(second.Driver, "Note").GetAttribute("value"));
        Assert.Equal(second.Field(second.Driver, "Note"), second.Driver.SwitchTo().ActiveElement());

        // Undo takes back what was done here, and nothing of the other's.
        second.ClickText("button", "Undo");
        second.Wait(_ => !second.Row(2).Text.Contains("typed here", StringComparison.Ordinal));
        Assert.Contains("from the other window", second.Row(1).Text);
        second.Stored();
        first.Wait(_ => !first.Row(2).Text.Contains("typed here", StringComparison.Ordinal));
    }

    [Fact]
    public void Colours_and_remarks_follow_an_edit_in_place()
    {
        var page = Zone("Mud-and-salt base", "Fen mud");
        string Colours() => page.Says("li[data-layer='4'] [data-colours]", "data-colours")!;
        var before = Colours();
        page.Click("li[data-layer='4'] button[data-select]");
        page.Choose("Material", "Salt White");
        page.Wait(_ => Colours() != before);
        page.See("[data-finding='coats-to-hide']");
        page.Fill("Paint : thinner", "1:");
        page.Wait(d => d.FindElement(By.CssSelector("[data-editor]")).Text.Contains("That is one number", StringComparison.Ordinal));
        page.Fill("Paint : thinner", "1:3");
        page.Wait(d => d.FindElement(By.CssSelector("[data-editor]")).Text.Contains("25 % of the mix is paint", StringComparison.Ordinal));
        page.Keys(Keys.Escape);
        page.Gone("[data-editor]");
        page.Stored();
    }

    [Fact]
    public void A_lower_third_with_layers_of_its_own_is_looked_at_by_itself()
    {
        var page = Zone("Lock-wall corner", "Brick field");
        string Colours() => page.Says("li[data-layer='12'] [data-colours]", "data-colours")!;
        var whole = Colours();
        page.Click("[data-part='lower third']");
        page.Wait(_ => Colours() != whole);
        var third = Colours();
        page.Click("[data-part='the rest']");
        page.Wait(_ => Colours() is var rest && rest != whole && rest != third);
        Assert.Equal("true", page.Says("[data-part='the rest']", "aria-pressed"));
        page.Go("From the table");
        page.See("[data-place='lower third']");
    }

    [Fact]
    public void A_dilution_is_typed_any_way_and_a_bare_percentage_asked_once()
    {
        var page = Zone("Reed dredger", "Hazard stripes");
        string Editor() => page.Wait(d => d.FindElement(By.CssSelector("[data-editor]")).Text);
        page.Click("li[data-layer='2'] button[data-select]");
        page.Fill("Paint : thinner", "5 drops + 2 drops");
        page.Wait(_ => Editor().Contains("5 : 2, 71 % paint", StringComparison.Ordinal));
        page.Fill("Paint : thinner", "1 : 1 : 2");
        page.Wait(_ => Editor().Contains("1 : 1 : 2, 50 % paint", StringComparison.Ordinal) && Editor().Contains("one component, whose parts stay", StringComparison.Ordinal));
        page.Fill("Paint : thinner", "40%");
        page.Wait(_ => Editor().Contains("Is 40 % of the whole mix thinner", StringComparison.Ordinal));
        Assert.Empty(page.Axe());
        page.ClickText("button", "3 : 2");
        page.Wait(_ => Editor().Contains("60 % of the mix is paint", StringComparison.Ordinal));
        page.Fill("Paint : thinner", "25 %");
        page.Wait(_ => Editor().Contains("3 : 1, 75 % paint", StringComparison.Ordinal));
        page.Stored();
        page.Driver.Navigate().Refresh();
        page.Wait(d => page.Row(2).Text.Contains("3 : 1", StringComparison.Ordinal));
    }

    [Fact]
    public void Layers_move_by_drag_and_by_keys()
    {
        var page = Zone("Lock-wall straight", "Coping");
        var start = page.Stack();
        IWebElement from = page.Row(5), to = page.Row(4);
        new Actions(page.Driver).MoveToElement(from, -60, 0).Perform();
        page.See("ol[data-drags]");
        new Actions(page.Driver).MoveToElement(from, -60, 0).ClickAndHold().MoveByOffset(0, 12).MoveToElement(to, -60, 4).MoveByOffset(0, 3).Release().Perform();
        page.Wait(_ => page.Stack()[3] == start[4]);
        page.Stored();
        page.Row(4).SendKeys(Keys.Escape);
        page.Driver.Navigate().Refresh();
        page.Stored();
        new Actions(page.Driver).MoveToElement(page.Row(7)).Perform();
        ((IJavaScriptExecutor)page.Driver).ExecuteScript("document.querySelector(\"li[data-layer='4'] button[data-select]\").focus()");
        page.Chord(Keys.Alt, Keys.ArrowUp);
        page.Wait(_ => page.Stack().SequenceEqual(start));
        page.Stored();
    }

    [Fact]
    public void Peeling_back_adding_and_order_have_keys()
    {
        var page = Zone("Reed dredger", "Deck");
        var layers = page.Stack().Count;
        page.Press("[[");
        page.Wait(d => d.FindElement(By.TagName("figcaption")).Text.Contains($"after layer {layers - 2}", StringComparison.Ordinal));
        page.Press("]");
        page.Wait(d => d.FindElement(By.TagName("figcaption")).Text.Contains($"after layer {layers - 1}", StringComparison.Ordinal));
        page.Press("a");
        page.See("[data-editor]");
        Assert.Equal(layers + 1, page.Stack().Count);
        page.Choose("Material", "Cold Iron");
        page.ClickText("button", "Remove layer");
        page.Gone("[data-editor]");
        Assert.Equal(layers, page.Stack().Count);
        page.Press("o");
        page.SeeText("button", "First to last");
        page.Press("?");
        Assert.Contains("undo", page.Says("[role=dialog]"));
        page.Keys(Keys.Escape);
        page.Gone("[role=dialog]");
    }

    [Fact]
    public void A_ten_layer_stack_needs_no_page_scroll_at_1280_by_800()
    {
        var page = Zone("Lock-wall straight", "Brick field");
        var script = (IJavaScriptExecutor)page.Driver;
        Assert.True(page.Stack().Count >= 10);
        Assert.True((bool)script.ExecuteScript("return document.documentElement.scrollHeight <= innerHeight")!);
        Assert.True((bool)script.ExecuteScript("const s = document.querySelector('[data-scroll=stack]'); return s.scrollHeight <= s.clientHeight + 1 || s.querySelectorAll('li').length > 10")!);
    }

    [Fact]
    public void An_unknown_zone_says_so()
    {
        var page = session.Open($"/plan/{Guid.NewGuid()}/{Guid.NewGuid()}");
        Assert.Contains("There is no set with this id", page.Says("[role=alert]"));
        Assert.Empty(page.Axe());
    }
}
