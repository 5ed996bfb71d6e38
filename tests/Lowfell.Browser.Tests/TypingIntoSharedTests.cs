using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

/// <summary>What is typed into a treatment of several zones, and into a chooser that is still empty.</summary>
public sealed class TypingIntoSharedTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    /// <summary>The question comes when typing is over, takes no key for a moment, and none of its answers has the focus.</summary>
    [Fact]
    public async Task What_is_typed_into_a_shared_treatment_is_asked_about_when_typing_is_over()
    {
        var page = session.OpenZone("Jetty section", "Iron");
        page.AskAgain();
        var zone = page.Driver.Url.Split('?')[0].Split('/')[^1];
        async Task<string> Stored() => (await session.Ask($"/api/plan/zones/{zone}"))["layers"]![1]!["note"]!.GetValue<string>();
        void Open()
        {
            page.Click("li[data-layer='2'] button[data-select]");
            page.Wait(d => page.Field(d, "Note"));
        }

        Open();
        page.Type("Note", "laid thin ");
        page.SeeText("[role=dialog] h2", "Whom is this for?");
        Assert.Equal("dialog", page.Driver.SwitchTo().ActiveElement().GetAttribute("role"));
        Assert.Empty(page.Axe("[role=dialog]"));
        Assert.Equal("", await Stored());

        // Closed without an answer, it stands and waits; a reload keeps it so.
        page.See("[role=dialog][data-listens=true]");
        page.Keys(Keys.Escape);
        page.Gone("[role=dialog]");
        page.See("[data-held]");
        session.OnEveryLoad(page, "try { localStorage.removeItem('lowfell.shared') } catch { }");
        page.Driver.Navigate().Refresh();
        page.See("[data-held]");
        Assert.Equal("", await Stored());
        page.ClickText("[data-held] button", "Say whom it is for");
        page.ClickText("[role=dialog] button", "Leave it as it was");
        page.Gone("[role=dialog]");
        page.Gone("[data-held]");
        Assert.Equal("", await Stored());
        Open();
        Assert.Equal("", page.Field(page.Driver, "Note").GetAttribute("value"));
        page.Type("Note", "for all");
        page.ClickText("[role=dialog] button", "zones change with it");
        page.Gone("[role=dialog]");
        page.Stored();
        Assert.Equal("for all", await Stored());
        Assert.Empty(page.Errors());
        session.Close(page);
    }

    [Fact]
    public void One_more_component_is_an_empty_chooser_until_something_is_chosen()
    {
        var page = session.OpenZone("Pump house", "Walls");
        page.Click("li[data-layer='2'] button[data-select]");
        page.ClickText("button", "Mix in another");
        page.Wait(d => d.SwitchTo().ActiveElement().Equals(d.FindElement(By.CssSelector("[data-component='1'] input"))));
        Assert.Equal("", page.Says("[data-component='1'] input", "value"));
        Assert.Equal("saved", page.Says("[data-save]", "data-save"));
        page.Keys("Wet Sl");
        Assert.Equal("saved", page.Says("[data-save]", "data-save"));
        page.Keys(Keys.Enter);
        page.Wait(d => d.FindElement(By.CssSelector("[data-component='1'] input")).GetAttribute("value") == "Wet Slate");
        page.Stored();
        Assert.Empty(page.Errors());
    }
}
