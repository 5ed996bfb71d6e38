using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

/// <summary>What is typed quickly into a chooser of the pots goes where it is meant to, and nowhere else.</summary>
public sealed class TypingAtPotsTests(BrowserSession session) : IClassFixture<BrowserSession>
{
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
        var names = (await session.ShelfNames()).Where(n => !n.Contains('\'', StringComparison.Ordinal)).Take(10).ToList();
        for (var n = 0; n < names.Count; n++)
        {
            var name = names[n];
            page.Type("Put in", name);
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
    public async Task Names_typed_quickly_at_a_pot_put_nothing_in_before_it_is_said()
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
        foreach (var name in (await session.ShelfNames()).Take(10))
        {
            page.Type("Material", name);
            page.Wait(d => page.Field(d, "Material").GetAttribute("value") == name);
        }

        page.Keys(Keys.Escape);
        page.Gone("[role=dialog]");
        Assert.Equal(events, page.Driver.FindElements(By.CssSelector("[data-event]")).Count);
    }
}
