using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

/// <summary>Minutes and evenings.</summary>
public sealed class TimeTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    [Fact]
    public void By_keys_to_what_it_costs_and_when_it_is_done_and_other_hours_end_it_sooner()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Press("=");
        page.SeeText("h1", "Estimates");
        page.ClickText("aside a", "Slate roof");
        page.SeeText("section[aria-label='Stop here'] h2", "Slate roof, Keeper’s cottage");
        page.SeeText("section[aria-label='Stop here'] td", "all of it");
        page.Press("-");
        page.SeeText("h1", "Finished");
        var before = page.Says("main h1");
        page.Click("main details summary");
        page.See("main details[open] ol li a");
        Assert.Empty(page.Axe());
        page.Press("q");
        page.SeeText("h1", "Sets of Fen Row bench");
        page.Press("i");
        page.Fill("Hours at the bench", "whenever");
        page.Keys(Keys.Enter);
        page.SeeText("[role=dialog] p", "was not understood");
        page.Fill("Hours at the bench", "every day 9-12, every day 14-20");
        page.Keys(Keys.Enter);
        page.Gone("[role=dialog]");
        page.Press("-");
        page.SeeText("aside p", "Mon Tue Wed Thu Fri Sat Sun 09:00-12:00");
        Assert.NotEqual(before, page.Says("main h1"));
        page.Chord(Keys.Control, "z");
        page.SeeText("aside p", "Tue Thu 19:30-22:00");
        page.SeeText("h1", before);
        Assert.DoesNotContain(page.Errors(), e => !e.Contains("400", StringComparison.Ordinal));
    }
}
