using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

/// <summary>The same journey with no pointer at all.</summary>
public sealed class KeyboardJourneyTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    [Fact]
    public void By_keyboard_alone()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        Focus(page, "Lock-wall straight");
        page.Keys(Keys.Enter);
        Focus(page, "Brick field");
        page.Keys(Keys.Enter);
        page.SeeText("h1", "Brick field");
        page.Stored();
        var start = page.Stack();
        var pin = start.IndexOf("Pin wash") + 1;
        Focus(page, "Dust");
        for (var i = start.Count; i > pin - 1; i--)
            page.Keys(Keys.ArrowDown);
        page.Wait(d => d.SwitchTo().ActiveElement().Text.Contains("Tarnside Satin", StringComparison.Ordinal));
        page.Keys(Keys.Delete);
        page.See("[data-finding='same-solvent']");
        page.Keys("r");
        page.Gone("[data-finding='same-solvent']");
        Assert.Equal(start, page.Stack());
        page.Chord(Keys.Control, "z");
        page.See("[data-finding='same-solvent']");
        page.Chord(Keys.Control, "z");
        page.Gone("[data-finding='same-solvent']");
        page.Chord(Keys.Control, "y");
        page.See("[data-finding='same-solvent']");
        page.Stored();
        page.Driver.Navigate().Refresh();
        page.See("[data-finding='same-solvent']");
        Assert.Equal(start.Count - 1, page.Stack().Count);
    }

    /// <summary>Presses Tab until the element in focus says <paramref name="text"/>.</summary>
    private static void Focus(Page page, string text)
    {
        for (var i = 0; i < 120; i++)
        {
            page.Keys(Keys.Tab);
            if (page.Driver.SwitchTo().ActiveElement().Text.Contains(text, StringComparison.Ordinal))
                return;
        }

        Assert.Fail($"Nothing that says '{text}' can be reached with Tab.");
    }
}
