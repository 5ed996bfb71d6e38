using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

/// <summary>A trial from the question to the treatment: proposed or put together, laid out, looked at, learned from, chosen.</summary>
public sealed class TrialsTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    [Fact]
    public void The_demos_trial_shows_what_was_seen_and_what_it_teaches()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Go("Trials");
        page.ClickText("ul[aria-label=Trials] a", "Which dry brush, under how much wash?");
        page.See("[aria-label^='The tile, 40 × 40 mm, 4 fields']");
        Assert.Empty(page.Axe());
        page.SeeText("aside h2", "What the tile teaches");
        page.SeeText("aside li", "Peat Wash");

        // A field by keys, and the tape of one step.
        page.See("[role=button][aria-label^='Field 3']").SendKeys(Keys.Enter);
        page.SeeText("aside h2", "Field 3");
        page.ClickText("li button", "Show the tape");
        page.See("li button[aria-pressed=true]");
        page.ClickText("aside button", "Take it over");
        page.SeeText("[data-said]", "as the tile teaches");
        page.SeeText("aside p", "It is taken over");
        Assert.Empty(page.Errors());
    }

    [Fact]
    public void A_trial_is_put_together_laid_out_looked_at_and_becomes_the_treatment()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Go("Trials");
        page.See("[aria-label^='The tile']");
        page.Press("x");
        page.SeeText("[role=dialog] h2", "A new trial");
        page.ClickText("[role=dialog] button", "Vary a layer of your own choice");
        page.Choose("In what 1", "coats");
        page.Fill("Levels 1", "1, two");
        page.SeeText("[role=dialog] fieldset", "Write whole numbers of coats");
        page.Fill("Levels 1", "1, 2, 3");
        page.See("[role=dialog] [aria-label*='3 fields']");
        page.Fill("Tile, across", "12");
        page.Keys(Keys.Tab);
        page.SeeText("[role=dialog]", "At least 15 mm");
        page.Fill("Tile, across", "60");
        page.Keys(Keys.Tab);
        page.See("[role=dialog] [aria-label^='The tile, 60 × 40 mm']");
        Assert.Empty(page.Axe("[role=dialog]"));
        page.Fill("What it asks", "How many coats?");
        page.ClickText("[role=dialog] button", "Lay it out");
        page.Gone("[role=dialog]");
        page.SeeText("ul[aria-label=Trials] a", "How many coats?");
        page.Click("[role=button][aria-label^='Field 3']");
        page.Fill("What it looks like", "#403830");
        page.ClickText("aside button", "Keep it");
        page.SeeText("aside ul[aria-label=Seen]", "field");
        page.ClickText("aside button", "Lay it so");
        page.SeeText("[data-said]", "as field 3 now");
        page.SeeText("aside h2", "chosen");

        // Minds change: the treatment goes back to what was held beside the model.
        page.Click("[role=button][aria-label^='Field 1']");
        page.ClickText("aside button", "Stay with it");
        page.SeeText("[data-said]", "as field 1 now");
        page.SeeText("aside h2", "chosen");
        page.Go("Layers");
        page.SeeText("h1", "Brick field");
    }

    [Fact]
    public void What_would_tell_most_is_proposed()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Go("Trials");
        page.See("[aria-label^='The tile']");
        page.Press("x");
        page.ClickText("[role=dialog] button", "Propose a trial");
        page.Click("[role=dialog] input[name=proposal]");
        page.See("[role=dialog] [aria-label^='The tile']");
        page.ClickText("[role=dialog] button", "Lay it out");
        page.Gone("[role=dialog]");
        page.See("ul[aria-label=Trials] a[aria-current]");
    }
}
