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
}
