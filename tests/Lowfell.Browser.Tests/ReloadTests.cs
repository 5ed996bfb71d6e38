using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

/// <summary>Nothing typed is lost when the page is read again.</summary>
public sealed class ReloadTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    [Theory]
    [InlineData(0)]
    [InlineData(100)]
    public void A_reload_right_after_the_last_key_loses_nothing(int afterMs)
    {
        var page = session.OpenZone("Keeper’s cottage", "Door");
        var text = "";
        for (var round = 1; round <= 4; round++)
        {
            page.Click("li[data-layer='1'] button[data-select]");
            page.See("[data-editor]");
            var note = page.Wait(d => page.Field(d, "Note"));
            note.SendKeys(Keys.End + $" {afterMs}.{round}");
            text += $" {afterMs}.{round}";

            // In the page itself, so that nothing of the driver lies between the key and the reload.
            ((IJavaScriptExecutor)page.Driver).ExecuteScript($"setTimeout(() => location.reload(), {afterMs})");
            page.Wait(d => d.FindElements(By.CssSelector("[data-editor]")).Count == 0);
            page.SeeText("h1", "Door");
            page.Stored();
            page.Wait(_ => page.Row(1).Text.Contains(text.Trim(), StringComparison.Ordinal));
        }
    }
}
