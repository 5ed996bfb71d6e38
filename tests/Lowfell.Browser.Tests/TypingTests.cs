using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

/// <summary>What is typed quickly into a chooser of materials chooses, and does nothing else.</summary>
public sealed class TypingTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    [Theory]
    [InlineData("Material", 30)]
    [InlineData("Component 2", 8)]
    public async Task Names_typed_quickly_choose_as_many_materials_and_do_nothing_else(string chooser, int many)
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
        foreach (var name in (await session.ShelfNames()).Where(n => chooser == "Material" || n != "Bog Umber").Take(many))
        {
            page.Type(chooser, name);
            page.Wait(d => page.Field(d, chooser).GetAttribute("value") == name);
            Assert.Equal(page.Field(page.Driver, chooser), page.Driver.SwitchTo().ActiveElement());
        }

        Assert.Equal((at, layers + 1), (page.Driver.Url, page.Stack().Count));
        page.Stored();
    }
}
