namespace Lowfell.Browser.Tests;

/// <summary>axe holds nothing against any view, light or dark, wide or narrow.</summary>
public sealed class AccessTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    [Theory]
    [InlineData(1280, false)]
    [InlineData(1024, true)]
    public void Every_view_is_clean(int width, bool dark)
    {
        var page = session.Open(width: width, height: 768, dark: dark);
        page.SeeText("h1", "Brick field");
        page.Stored();
        Assert.Empty(page.Axe());
        page.ClickText("a", "Reed dredger");
        page.SeeText("h1", "Hull");
        page.See("[data-finding]");
        page.Click("li[data-layer='3'] button[data-select]");
        page.See("[data-editor]");
        Assert.Empty(page.Axe());
        page.Keys(OpenQA.Selenium.Keys.Escape);
        page.Press("?");
        page.See("[role=dialog]");
        Assert.Empty(page.Axe());
        page.Keys(OpenQA.Selenium.Keys.Escape);
        page.Gone("[role=dialog]");
        page.ClickText("a", "Shelf");
        page.SeeText("h1", "Shelf");
        page.See("main section li");
        Assert.Empty(page.Axe());
        page.ClickText("button", "Bog Umber");
        page.SeeText("h3", "Used for");
        Assert.Empty(page.Axe());
        page.ClickText("a", "Pots");
        page.See("[data-jar]");
        page.See("[data-advice]");
        Assert.Empty(page.Axe());
        page.Click("[data-pot='Tide again']");
        page.See("[data-event='made']");
        Assert.Empty(page.Axe());
        Assert.Empty(page.Errors());
    }
}
