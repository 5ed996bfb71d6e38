using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

/// <summary>Nothing typed is lost while the server is away.</summary>
public sealed class AwayTests(BrowserSession session) : IClassFixture<BrowserSession>
{
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
            Assert.NotEqual("saved", page.Says("[data-save]", "data-save"));
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
            session.StartAgain();
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
