using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

public sealed class ShelfAndStartTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    private const string Tile = "[data-tiles] [role=listitem] button";

    private static int Found(Page page) => int.Parse(page.Says("[data-tiles]", "data-tiles")!, System.Globalization.CultureInfo.InvariantCulture);

    [Fact]
    public void Search_narrows_as_it_is_typed()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Stored();
        page.Press("/");
        page.See(Tile);
        Assert.True(page.Driver.FindElements(By.CssSelector(Tile)).Count < Found(page));
        page.See("#find").SendKeys("enamel wash");
        page.Wait(d => d.FindElements(By.CssSelector(Tile)).Count == 3 && Found(page) == 3);
        page.See("#find").SendKeys(" zzz");
        page.SeeText("p", "Nothing on the shelf answers to");
        page.ClickText("button", "Show everything");
        page.Wait(_ => Found(page) > 50);
        Assert.Empty(page.Errors());
    }

    [Fact]
    public void A_wrong_entry_keeps_what_was_typed_and_names_the_field()
    {
        var page = session.Open();
        page.Go("Shelf");
        page.See(Tile);
        page.ClickText("button", "Add a material");
        page.Fill("Name", "Withy Bark");
        Assert.Contains("a guess", page.Says("[data-usual]"));
        page.Click("[aria-controls=material-more]");
        page.Fill("Recoat after", "soon");
        Assert.Empty(page.Axe());
        page.Click("[aria-controls=material-more]");
        page.Gone("#material-more input");
        page.Fill("Colour", "#12");
        page.Fill("In stock", "1,2 cl");
        page.ClickText("button", "Put it on the shelf");
        Assert.Contains("is written as #6b4f2a", page.Says("[aria-invalid=true] + p"));
        Assert.Equal(page.Field(page.Driver, "Colour"), page.Driver.SwitchTo().ActiveElement());
        Assert.Equal("Withy Bark", page.Field(page.Driver, "Name").GetAttribute("value"));
        Assert.Empty(page.Axe());
        page.Fill("Colour", "#6b4f2a");

        // What is out of sight and wrong is brought into sight.
        page.ClickText("button", "Put it on the shelf");
        page.SeeText("p", "“soon” is not a figure");
        page.Wait(d => d.SwitchTo().ActiveElement().GetAttribute("name") == "recoatMinutes");
        page.Fill("Recoat after", "1 h 30");
        page.ClickText("button", "Put it on the shelf");
        page.SeeText("h2", "Withy Bark");
        page.See($"[aria-label='Withy Bark'] form");
        Assert.Contains("estimate", page.Says("figure figcaption"));
        Assert.Equal("12 ml", page.Field(page.Driver, "In stock").GetAttribute("value"));

        // Taken off by mistake, it comes back whole.
        page.ClickText("button", "Take off the shelf");
        page.Gone("[aria-label='Withy Bark']");
        page.SeeText("li", "was taken off the shelf");
        page.ClickText("button", "Undo");
        page.SeeText("li", "is on the shelf again");
        page.See("#find").SendKeys("withy bark");
        page.Wait(_ => Found(page) == 1);
        Assert.Empty(page.Errors());
    }

    [Fact]
    public void What_is_typed_into_a_material_stays_whichever_way_one_leaves_it()
    {
        var page = session.Open();
        page.Go("Shelf");
        page.See(Tile);
        page.ClickText("button", "Add a material");
        page.Fill("Name", "Lock Lime");
        page.ClickText("button", "Bog Umber");
        page.SeeText("h2", "Bog Umber");
        page.Fill("In stock", "3 ml");
        page.Driver.Navigate().Back();
        page.Go("Pots");
        page.Go("Shelf");
        page.See(Tile);
        page.ClickText("button", "Bog Umber");
        page.SeeText("p", "What you typed before stands here again");
        Assert.Equal("3 ml", page.Field(page.Driver, "In stock").GetAttribute("value"));
        page.ClickText("button", "Start over");
        page.Wait(d => page.Field(d, "In stock").GetAttribute("value") == "31 ml");
        page.ClickText("button", "Add a material");
        page.Driver.Navigate().Refresh();
        page.Wait(d => page.Field(d, "Name").GetAttribute("value") == "Lock Lime");
        page.ClickText("button", "Start over");
        page.Wait(d => page.Field(d, "Name").GetAttribute("value") == "");
        page.Driver.Navigate().Refresh();
        page.SeeText("h2", "New material");
        Assert.Equal("", page.Field(page.Driver, "Name").GetAttribute("value"));
    }

    [Fact]
    public void A_material_shows_what_it_is_used_for()
    {
        var page = session.Open();
        page.Go("Shelf");
        page.ClickText("button", "Bog Umber");
        Assert.Contains("Lock brick", page.Wait(d => d.FindElement(By.CssSelector("section[aria-label='Used for'] li"))).FindElement(By.XPath("..")).Text);
    }

    [Fact]
    public void A_new_workshop_is_guided_to_its_first_set_in_five_steps()
    {
        var page = session.Open("/start/new");
        page.Fill("Name of the workshop", "Attic bench");
        page.Fill("Name of the set", "Causeway");
        page.Fill("Scale", "forty");
        page.ClickText("button", "Next");

        // A mistake is told in its step, with the focus there, and nothing goes on.
        page.SeeText("p", "is not a scale. Write it as 1:56");
        Assert.Equal("scale", page.Driver.SwitchTo().ActiveElement().GetAttribute("name"));
        page.Fill("Scale", "1:48");
        page.Fill("Seen from", "90 cm");
        for (var step = 1; step <= 4; step++)
        {
            Assert.Empty(page.Axe());
            page.ClickText("button", "Next");
            page.SeeText("h2", new[] { "Kind of piece", "The design", "Its zones", "What will be made" }[step - 1]);
            if (step == 1)
            {
                page.Driver.FindElement(By.CssSelector("input[name=kind]")).SendKeys(Keys.ArrowLeft);
                page.SeeText("label", "Base");
                page.Wait(d => d.FindElements(By.CssSelector("input[name=kind]"))[3].Selected);
            }

            if (step == 2)
            {
                page.Fill("How many", "2.5");
                page.ClickText("button", "Next");
                page.SeeText("p", "is a whole number");
                page.Fill("How many", "14");
            }

            if (step == 3)
            {
                page.Fill("Area of zone 1", "0,1 dm²");
                page.Wait(d => d.FindElement(By.CssSelector("figure svg")).GetAttribute("data-part") == "Ground");
                page.Choose("Layers to begin with of zone 2", "None yet");
            }
        }

        // Left in the middle and come back to, everything stands where it was.
        page.Driver.Navigate().Refresh();
        page.SeeText("p", "What you typed before stands here again");
        Assert.Equal("1:48", page.Field(page.Driver, "Scale").GetAttribute("value"));
        page.ClickText("button", "5 What will be made");
        page.SeeText("main", "14 × Base, 32 mm");
        Assert.Contains("Rim, 3.5 cm², smooth: no layers yet", page.Says("main"));
        Assert.Empty(page.Axe());
        page.ClickText("button", "Make the set");
        page.SeeText("h1", "Ground");
        page.Stored();
        Assert.Contains("Causeway · 1:48 · 14 pieces", page.Says("header"));
        Assert.True(page.Stack().Count >= 4);
        Assert.Contains("10 cm² a piece", page.Says("main"));
        Assert.Empty(page.Errors());

        // The next set on this bench can share what there is, and a name that is taken leaves nothing behind.
        page.Click("[data-menu=Sets]");
        page.SeeText("[role=menu]", "Attic bench");
        page.Keys(Keys.Escape);
        page.ClickText("button", "Add a design");
        page.ClickText("[role=dialog] label", "Wall");
        page.Fill("Name of the design", "Dyke");
        page.Fill("Area of zone 2", "31");
        page.ClickText("[role=dialog] label", "Building");
        page.Wait(d => page.Field(d, "Name of the design").GetAttribute("value") == "Dyke");
        page.ClickText("[role=dialog] label", "Wall");
        page.Wait(d => page.Field(d, "Area of zone 2").GetAttribute("value") == "31");
        page.Keys(Keys.Escape);
        page.Gone("[role=dialog]");
        page.ClickText("button", "Add a design");
        page.SeeText("[role=dialog] p", "What you typed before stands here again");
        Assert.Equal("31", page.Field(page.Driver, "Area of zone 2").GetAttribute("value"));
        page.Choose("Layers to begin with of zone 1", "As Ground (shared)");
        Assert.Empty(page.Axe());
        page.ClickText("button", "Add Dyke");
        page.Gone("[role=dialog]");
        page.SeeText("h1", "Front face");
        page.SeeText("main", "shared by 2 zones");
        Assert.Empty(page.Errors());
    }

    [Fact]
    public void Answers_of_the_house_wait_until_they_are_stored()
    {
        var page = session.Open();
        page.Go("House rules");
        page.Click("[data-school='sand glue'] label:last-child input");
        page.SeeText("legend", "not stored yet");
        page.Go("Layers");
        page.SeeText("h1", "Brick field");
        page.Go("House rules");
        page.SeeText("legend", "not stored yet");
        page.Driver.Navigate().Refresh();
        page.SeeText("legend", "not stored yet");
        page.ClickText("button", "Back");
        page.Gone("legend span");
        page.Driver.Navigate().Refresh();
        page.SeeText("p", "Choose another answer");
        Assert.Empty(page.Errors());
    }
}
