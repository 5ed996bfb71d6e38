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
        page.Go("Shelf");
        page.SeeText("h1", "Shelf");
        page.See("main section li");
        Assert.Empty(page.Axe());
        page.ClickText("button", "Bog Umber");
        page.SeeText("h3", "Used for");
        Assert.Empty(page.Axe());
        page.Go("Pots");
        page.See("[data-jar]");
        page.See("[data-advice]");
        Assert.Empty(page.Axe());
        page.Click("[data-pot='Tide again']");
        page.See("[data-event='made']");
        Assert.Empty(page.Axe());
        Assert.Empty(page.Errors());
    }

    /// <summary>The list of views comes from the bar and the menus themselves: a new view is looked at without being named here.</summary>
    [Theory]
    [InlineData(1280, true)]
    [InlineData(390, false)]
    public void Every_view_there_is_is_clean_and_has_a_title(int width, bool dark)
    {
        var page = session.Open(width: width, height: 800, dark: dark);
        page.SeeText("h1", "Brick field");
        page.Stored();
        var views = page.Wait(d => d.FindElements(OpenQA.Selenium.By.CssSelector("nav[aria-label=Places] a")) is { Count: > 1 } all ? all : null)!
            .SelectMany(a => a.GetAttribute("data-views")!.Split('|')).Append("House rules").ToList();
        Assert.True(views.Count >= 7, string.Join(", ", views));
        foreach (var view in views)
        {
            page.Go(view);
            page.Wait(d => d.Title.StartsWith(view, StringComparison.Ordinal));
            page.See("main h1");
            var found = page.Axe();
            Assert.True(found.Count == 0, $"{view}: {string.Join("; ", found)}");
        }

        page.Driver.Navigate().GoToUrl(session.Address + "/start/new");
        page.See("main h1");
        Assert.Empty(page.Axe());
        page.Press("f");
        page.See("#found [role=option]");
        Assert.Empty(page.Axe());
        Assert.Empty(page.Errors());
    }
}
