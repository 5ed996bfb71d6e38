using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

/// <summary>What is typed quickly into a chooser of materials chooses, and does nothing else.</summary>
public sealed class TypingTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    private async Task<List<string>> Names()
    {
        var workshop = (await session.Ask("/api/workshops"))[0]!["id"]!;
        return (await session.Ask($"/api/shelf/{workshop}/materials")).AsArray().Select(m => m!["name"]!.GetValue<string>()).ToList();
    }

    [Theory]
    [InlineData("Material")]
    [InlineData("Component 2")]
    public async Task Thirty_names_typed_quickly_choose_thirty_materials_and_do_nothing_else(string chooser)
    {
        var page = session.OpenZone("Reed dredger", "Deck");
        var layers = page.Stack().Count;
        page.Press("a");
        page.See("[data-editor]");
        if (chooser != "Material")
        {
            page.Choose("Material", "Bog Umber");
            page.ClickText("button", "Mix in another");
        }

        var at = page.Driver.Url;
        foreach (var name in (await Names()).Where(n => chooser == "Material" || n != "Bog Umber").Take(30))
        {
            Type(page, chooser, name);
            page.Wait(d => page.Field(d, chooser).GetAttribute("value") == name);
            Assert.Equal(page.Field(page.Driver, chooser), page.Driver.SwitchTo().ActiveElement());
        }

        Assert.Equal((at, layers + 1), (page.Driver.Url, page.Stack().Count));
        page.Stored();
    }

    /// <summary>Into a chooser as a hand does it: a click, unless it has the focus already, and then the letters.</summary>
    private static void Type(Page page, string chooser, string name) => page.Wait(d =>
    {
        var field = page.Field(d, chooser);
        if (!field.Equals(d.SwitchTo().ActiveElement()))
            field.Click();
        new OpenQA.Selenium.Interactions.Actions(d).SendKeys(name + Keys.Enter).Perform();
        return true;
    });

    /// <summary>What a chooser of the pots takes goes into the jar at once, and the chooser is ready for the next.</summary>
    [Fact]
    public async Task Names_typed_quickly_all_go_into_the_jar_that_is_mixed_freely()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Go("Pots");
        page.ClickText("button", "Mix freely");
        page.SeeText("h2", "Mixed freely");
        static By Out(string name) => By.CssSelector($"[aria-label='Take {name} out']");
        var names = (await Names()).Where(n => !n.Contains('\'', StringComparison.Ordinal)).Take(30).ToList();
        for (var n = 0; n < names.Count; n++)
        {
            var name = names[n];
            Type(page, "Put in", name);
            page.Wait(d => d.FindElement(Out(name)));
            Assert.Equal(Math.Min(n + 1, 2), page.Driver.FindElements(By.CssSelector("[aria-label^='Take '][aria-label$=' out']")).Count);
            if (n == 0)
                continue;
            page.Driver.FindElement(Out(names[n - 1])).Click();
            page.Wait(d => d.FindElements(Out(names[n - 1])).Count == 0);
        }
    }

    /// <summary>What goes into a pot by hand is chosen by typing too, and nothing is done before it is said.</summary>
    [Fact]
    public async Task Thirty_names_typed_quickly_at_a_pot_put_nothing_in_before_it_is_said()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Go("Pots");
        page.Click("[data-pot]");
        page.See("[data-event]");
        var events = page.Driver.FindElements(By.CssSelector("[data-event]")).Count;
        page.Press("u");
        page.See("[role=dialog]");
        page.Choose("What to do", "Put something in");
        foreach (var name in (await Names()).Take(30))
        {
            Type(page, "Material", name);
            page.Wait(d => page.Field(d, "Material").GetAttribute("value") == name);
        }

        page.Keys(Keys.Escape);
        page.Gone("[role=dialog]");
        Assert.Equal(events, page.Driver.FindElements(By.CssSelector("[data-event]")).Count);
    }
}
