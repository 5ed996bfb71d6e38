using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

/// <summary>The room is set where it is shown, and what dries in it follows.</summary>
public sealed class BenchAirTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    [Fact]
    public void A_cold_morning_makes_waits_longer_and_a_fan_shorter()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        var usual = Wait(page);
        Air(page, "150 %", moving: false);
        page.SeeText("[role=dialog] p, [role=dialog] span", "at most 100 %");
        Air(page, "70 %", moving: false, open: false);
        page.SeeText("header button", "8.5 °C · 70 %");
        var cold = page.Wait(_ => Wait(page) is var now && now != usual ? now : null);
        Air(page, "70 %", moving: true);
        page.Gone("[role=dialog]");
        page.Wait(_ => Wait(page) is var now && now != cold);
        Assert.Empty(page.Axe());
        Assert.Empty(page.Errors());
    }

    private static string Wait(Page page) => page.Wait(d => d.FindElement(By.CssSelector("li[data-layer='5'] button[data-select] > span:last-child")).Text);

    private static void Air(Page page, string humidity, bool moving, bool open = true)
    {
        if (open)
            page.Click("header button[aria-label^='The air at the bench']");
        page.See("[role=dialog]");
        page.Fill("Temperature", "8,5");
        page.Fill("Humidity", humidity);
        if (moving)
            page.Click("[role=dialog] input[type=checkbox]");
        page.ClickText("button", "Store it");
    }
}
