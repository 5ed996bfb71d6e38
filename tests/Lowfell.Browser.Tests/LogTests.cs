using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

/// <summary>The log: read, looked through, added to; what it teaches; two more like an old one; the set as a file.</summary>
public sealed class LogTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    /// <summary>A picture as a painter has it on the disk.</summary>
    private static string Picture()
    {
        var file = Path.Combine(Path.GetTempPath(), $"lowfell-{Guid.NewGuid():n}.png");
        File.WriteAllBytes(file, Convert.FromBase64String("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=="));
        return file;
    }

    [Fact]
    public void The_log_is_read_and_looked_through_by_keys_and_teaches_what_can_be_undone()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Press("3");
        page.SeeText("h1", "The log of Harrowmere Sluice");
        page.SeeText("[data-entry=mishap]", "a sleeve went through it");
        page.Press(";");
        page.Wait(d => d.SwitchTo().ActiveElement().GetAttribute("id") == "look-through");
        page.Keys("sleeve cloth");
        page.SeeText("[data-hit=log]", "Tide band");
        Assert.Empty(page.Axe());
        page.Keys(Keys.Escape);
        page.Gone("[data-hit]");

        // The pages of the log, one after the other.
        foreach (var (tab, sees) in new[] { ("Photographs", "No photographs yet."), ("Learned", "Minutes"), ("Went wrong", "a sleeve went through it") })
        {
            page.Press(".");
            page.Wait(d => d.FindElement(By.CssSelector("[role=tab][data-state=active]")).Text == tab);
            page.SeeText("main", sees);
        }

        page.Press(",");
        page.ClickText("[data-learned=prime] button", "Reckon with it");
        page.SeeText("[data-learned=prime]", "reckoned with");
        page.Chord(Keys.Control, "z");
        page.SeeText("[data-learned=prime] button", "Reckon with it");
        Assert.Empty(page.Errors());
    }

    [Fact]
    public void A_photograph_is_added_told_what_it_shows_and_put_away()
    {
        var file = Picture();
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Press("3");
        page.ClickText("[role=tab]", "Photographs");
        page.See("[aria-label='Photographs to add']").SendKeys(file);
        page.See("[data-photo] img");
        page.See("[aria-label='What it shows']").Click();
        page.Keys("the tide line, wet");
        page.Keys(Keys.Enter);
        page.See("[data-photo] img[alt='the tide line, wet']");
        Assert.Empty(page.Axe());
        page.ClickText("[data-photo] button", "Put away");
        page.Gone("[data-photo]");
        Assert.Empty(page.Errors());
        File.Delete(file);
    }

    [Fact]
    public void Two_more_walls_are_made_as_an_old_one_was_done()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Press("2");
        page.ClickText("nav[aria-label='Designs and zones'] a", "Tide band");
        page.Click("[data-core=W5]");
        page.ClickText("aside button", "Make more like W5");
        page.SeeText("[role=dialog] li", "Tide again");
        page.See("[data-need='Weed Green']");
        Assert.Empty(page.Axe());
        page.ClickText("[role=dialog] button", "Make 2 more");
        page.Wait(d => d.PageSource.Contains("Lock-wall straight, as W5", StringComparison.Ordinal) && d.PageSource.Contains("W10", StringComparison.Ordinal));
        page.Chord(Keys.Control, "z");
        page.Wait(d => !d.PageSource.Contains("W10", StringComparison.Ordinal));
        Assert.Empty(page.Errors());
    }

    [Fact]
    public async Task A_set_is_kept_as_a_file_and_comes_back_beside_itself()
    {
        var file = Path.Combine(Path.GetTempPath(), $"lowfell-{Guid.NewGuid():n}.zip");
        var set = (await session.Ask("/api/workshops"))[0]!["sets"]![0]!["id"]!.ToString();
        await File.WriteAllBytesAsync(file, await session.Bytes($"/api/sets/{set}/file"), TestContext.Current.CancellationToken);
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Press("q");
        page.SeeText("h1", "Sets of");
        page.See("[aria-label='The file of a set']").SendKeys(file);
        page.SeeText("[role=status]", "Harrowmere Sluice (2) is on this bench.");
        page.SeeText("h1", "Brick field");

        // What is no set is said to be none.
        await File.WriteAllTextAsync(file, "not a set", TestContext.Current.CancellationToken);
        page.Press("q");
        page.SeeText("h1", "Sets of");
        page.See("[aria-label='The file of a set']").SendKeys(file);
        page.SeeText("[role=alert], [role=status]", "cannot be read");
        File.Delete(file);
    }
}
