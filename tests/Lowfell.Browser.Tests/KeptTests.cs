using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

/// <summary>Nothing typed is lost: over reloads, and without a server.</summary>
public sealed class KeptTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    [Theory]
    [InlineData(0)]
    [InlineData(50)]
    [InlineData(100)]
    [InlineData(300)]
    public void A_reload_right_after_the_last_key_loses_nothing(int afterMs)
    {
        var page = session.OpenZone("Keeper’s cottage", "Door");
        var text = "";
        for (var round = 1; round <= 10; round++)
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

    [Fact]
    public async Task A_server_that_is_away_and_answers_that_are_lost_leave_both_zones_stored_once()
    {
        using var line = new LossyLine(session.Address);
        var page = session.Open(line.Address);
        page.SeeText("h1", "Brick field");
        page.ClickText("a", "Jetty section");
        page.SeeText("h1", "Timber");
        page.Stored();
        page.ClickText("a", "Rope");
        page.SeeText("h1", "Rope");
        page.Stored();
        var before = await Revisions("Jetty section");
        await session.CutOff();
        try
        {
            page.Click("li[data-layer='1'] button[data-select]");
            page.Fill("Note", "rope without a server");
            page.See("[data-waiting='1']");
            Assert.NotEqual("saved", page.See("[data-save]").GetAttribute("data-save"));
            page.ClickText("a", "Timber");
            page.SeeText("h1", "Timber");
            page.Click("li[data-layer='1'] button[data-select]");
            page.Fill("Note", "timber without a server");
            page.See("[data-waiting='2']");

            // Asked in vain again and again; then it is back, does what it is asked, and the first three answers never arrive.
            var vain = line.InVain;
            page.Wait(_ => line.InVain > vain + 3);
            line.Lose(3);
        }
        finally
        {
            await session.StartAgain();
        }

        page.Wait(_ => line.Lost == 3);
        page.Stored();
        page.Gone("[data-waiting]");
        var after = await Revisions("Jetty section");
        Assert.Equal(before.Keys.Order(), after.Keys.Order());
        foreach (var (zone, revision) in before)
            Assert.Equal(revision + (zone is "Rope" or "Timber" ? 1 : 0), after[zone]);
        page.Driver.Navigate().Refresh();
        page.Wait(_ => page.Row(1).Text.Contains("timber without a server", StringComparison.Ordinal));
        page.ClickText("a", "Rope");
        page.SeeText("h1", "Rope");
        page.Wait(_ => page.Row(1).Text.Contains("rope without a server", StringComparison.Ordinal));
    }

    /// <summary>How often the stack of each zone of a design was stored.</summary>
    private async Task<Dictionary<string, int>> Revisions(string design)
    {
        var set = (await session.Ask("/api/workshops"))[0]!["sets"]![0]!["id"]!;
        var found = new Dictionary<string, int>();
        foreach (var zone in (await session.Ask($"/api/plan/sets/{set}"))["designs"]!.AsArray().Single(d => d!["name"]!.GetValue<string>() == design)!["zones"]!.AsArray())
            found[zone!["name"]!.GetValue<string>()] = (await session.Ask($"/api/plan/zones/{zone["id"]}"))["revision"]!.GetValue<int>();
        return found;
    }
}
