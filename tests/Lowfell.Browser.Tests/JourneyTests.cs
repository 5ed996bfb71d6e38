using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

/// <summary>A painter takes the varnish from under an enamel pin wash, is told why that is wrong, and mends it.</summary>
public sealed class JourneyTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    [Fact]
    public void By_mouse()
    {
        var page = session.Open();
        page.ClickText("a", "Lock-wall straight");
        page.ClickText("a", "Brick field");
        page.SeeText("h1", "Brick field");
        page.Stored();
        var start = page.Stack();
        var pin = start.IndexOf("Pin wash") + 1;
        Assert.Equal("Varnish", start[pin - 2]);
        page.Click($"li[data-layer='{pin - 1}'] button[data-select]");
        page.ClickText("button", "Remove layer");
        var finding = page.See("[data-finding='same-solvent']");
        Assert.Contains("carries the same solvent", finding.Text);
        Assert.Contains("Bog Umber", finding.Text);
        page.Click("[data-finding='same-solvent'] [data-remedy='varnish-below']");
        page.Gone("[data-finding='same-solvent']");
        var mended = page.Stack();
        Assert.Equal(start, mended);
        page.ClickText("button", "Undo");
        page.See("[data-finding='same-solvent']");
        page.ClickText("button", "Undo");
        page.Gone("[data-finding='same-solvent']");
        page.ClickText("button", "Redo");
        page.See("[data-finding='same-solvent']");
        page.Stored();
        var kept = page.Stack();
        page.Driver.Navigate().Refresh();
        page.See("[data-finding='same-solvent']");
        Assert.Equal(kept, page.Stack());
        Assert.Equal(start.Count - 1, kept.Count);
        Assert.Empty(page.Errors());
    }

    [Fact]
    public void By_keyboard_alone()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");

        // Tab to the jetty, whose streak will become an enamel one over another.
        Focus(page, "Reed dredger");
        page.Keys(Keys.Enter);
        page.SeeText("h1", "Hull");
        Focus(page, "Bucket arm");
        page.Keys(Keys.Enter);
        page.SeeText("h1", "Bucket arm");
        page.Stored();
        var start = page.Stack();
        var pin = start.IndexOf("Pin wash") + 1;
        Focus(page, "Assemble");
        for (var i = start.Count; i > pin - 1; i--)
            page.Keys(Keys.ArrowDown);
        page.Wait(d => d.SwitchTo().ActiveElement().Text.Contains("Tarnside Satin", StringComparison.Ordinal));
        page.Keys(Keys.Delete);
        page.See("[data-finding='no-barrier']");
        page.Keys("r");
        page.Gone("[data-finding='no-barrier']");
        Assert.Equal(start, page.Stack());
        page.Chord(Keys.Control, "z");
        page.See("[data-finding='no-barrier']");
        page.Chord(Keys.Control, "z");
        page.Gone("[data-finding='no-barrier']");
        page.Chord(Keys.Control, "y");
        page.See("[data-finding='no-barrier']");
        page.Stored();
        page.Driver.Navigate().Refresh();
        page.See("[data-finding='no-barrier']");
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
