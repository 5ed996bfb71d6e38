using System.Text.Json.Nodes;
using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

/// <summary>Somebody makes a set and changes their mind about everything in it, by mouse and by keys, and ends with what was wanted.</summary>
public sealed class ChangeOfMindTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    private static void Menu(Page page, string of, string entry)
    {
        page.Click($"[data-menu='More of {of}']");
        page.ClickText("[role=menuitem]", entry);
    }

    private static void Inline(Page page, string label, string text)
    {
        page.Wait(d =>
        {
            var field = d.FindElement(By.CssSelector($"input[aria-label='{label}']"));
            field.SendKeys(Keys.Control + "a");
            field.SendKeys(text + Keys.Enter);
            return true;
        });
        page.Wait(d => d.FindElements(By.CssSelector("input")).Any(i => i.GetAttribute("value") == text));
    }

    [Fact]
    public void By_mouse_a_copy_of_the_set_becomes_another_and_what_was_removed_comes_back()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Click("[data-menu=Sets]");
        page.ClickText("[role=menuitem]", "All sets");
        page.SeeText("h1", "Sets of Fen Row bench");
        Menu(page, "Harrowmere Sluice", "Copy it");
        page.See("[data-set='Harrowmere Sluice 2']");
        Assert.Empty(page.Axe());
        page.Click("[aria-label='Harrowmere Sluice 2 before']");
        page.Wait(d => d.FindElements(By.CssSelector("[data-set]"))[0].GetAttribute("data-set") == "Harrowmere Sluice 2");
        page.Click("[aria-label='Change Harrowmere Sluice 2']");

        // Its facts: a wrong one is told beside its field, and a smaller scale asks about the measures.
        page.ClickText("button", "Facts of the set");
        page.Fill("Name", "Fen Gate");
        page.Fill("Seen from", "far");
        page.ClickText("[role=dialog] button", "Store it");
        page.SeeText("[role=dialog] p", "is not a figure");
        page.Fill("Seen from", "1.2 m");
        page.Fill("Scale", "1:72");
        page.ClickText("[role=dialog] button", "Store it");
        page.SeeText("[role=dialog] p", "Say whether the measures follow");
        page.Choose("The measures", "follow");
        Assert.Empty(page.Axe());
        page.ClickText("[role=dialog] button", "Store it");
        page.Gone("[role=dialog]");
        page.SeeText("h1", "Fen Gate");
        page.SeeText("main", "1:72 · seen from 1.2 m");
        page.SeeText("td", "192.37 cm²");

        // A design: another name, more pieces, one fewer, a zone more and one gone.
        Inline(page, "Name of the design", "Gate wall");
        page.SeeText("nav[aria-label=Designs]", "Gate wall");
        page.Wait(d =>
        {
            var count = d.FindElement(By.CssSelector("input[aria-label='How many more']"));
            count.SendKeys(Keys.Control + "a");
            count.SendKeys("2" + Keys.Enter);
            return true;
        });
        page.SeeText("section[aria-labelledby=pieces]", "10 pieces to paint");
        Menu(page, "W10", "Remove it");
        page.SeeText("section[aria-labelledby=pieces]", "9 pieces to paint");
        Inline(page, "Label of W9", "Spare wall");
        page.ClickText("button", "Add a zone");
        page.Fill("Name", "Ladder");
        page.Fill("Area", "12");
        page.Choose("Surface", "ribs");
        page.SeeText("[role=dialog] p", "by area and surface");
        Assert.Empty(page.Axe());
        page.ClickText("[role=dialog] button", "Add the zone");
        page.Gone("[role=dialog]");
        page.SeeText("section[aria-labelledby=zones] tr", "Ladder");
        Menu(page, "Mooring ring", "Remove it");
        page.Gone("[data-menu='More of Mooring ring']");
        page.SeeText("li", "It can be brought back for 30 days");
        Menu(page, "Tide band", "Jetty section");
        page.Gone("[data-menu='More of Tide band']");
        Assert.Empty(page.Axe());

        // One undo for all of it, in order; the page says what it took back.
        page.Chord(Keys.Control, "z");
        page.See("[data-menu='More of Tide band']");
        page.Chord(Keys.Control, "z");
        page.See("[data-menu='More of Mooring ring']");
        page.Chord(Keys.Control, "z");
        page.Gone("[data-menu='More of Ladder']");
        page.Chord(Keys.Control, "y");
        page.See("[data-menu='More of Ladder']");

        // The whole set is removed, and brought back.
        page.Click("[data-menu=Sets]");
        page.ClickText("[role=menuitem]", "All sets");
        Menu(page, "Fen Gate", "Remove it");
        page.Gone("[data-set='Fen Gate']");
        page.ClickText("section[aria-label=Removed] button", "Bring back");
        page.See("[data-set='Fen Gate']");
        Assert.Empty(page.Axe());

        // What was done stands in a list, across views and reloads.
        page.Driver.Navigate().Refresh();
        page.See("[data-set='Fen Gate']");
        page.Press("z");
        page.SeeText("[role=dialog] li", "Removed the set Fen Gate");
        page.SeeText("[role=dialog] li", "Added the zone Ladder to Gate wall");
        Assert.Empty(page.Axe());
        page.Keys(Keys.Escape);
        page.Gone("[role=dialog]");
        Menu(page, "Fen Gate", "Remove it");
        page.Gone("[data-set='Fen Gate']");
    }

    [Fact]
    public void By_keys_an_edit_of_a_shared_stack_asks_whom_it_is_for_and_versions_come_back()
    {
        var page = session.OpenZone("Jetty section", "Iron");
        page.AskAgain();
        page.SeeText("[data-treatment]", "shared by 3 zones");
        var before = page.Stack();
        page.Press("a");
        page.SeeText("[role=dialog] h2", "Whom is this for?");
        Assert.Empty(page.Axe());

        // Left as it was, nothing has happened; asked again, this zone parts from the rest.
        page.See("[role=dialog][data-listens=true]");
        page.Keys(Keys.Escape);
        page.Gone("[role=dialog]");
        Assert.Equal(before, page.Stack());
        page.Click("li[data-layer='2'] button[data-select]");
        page.Keys(Keys.Escape);
        page.Keys(Keys.Delete);
        page.See("[role=dialog][data-listens=true]");
        page.Keys(Keys.Tab);
        page.Keys(Keys.Tab);
        page.Keys(Keys.Enter);
        page.Gone("[role=dialog]");
        page.Wait(_ => page.Stack().Count == before.Count - 1);
        page.SeeText("[data-treatment]", "Mooring iron, Jetty section");
        page.Stored();

        // The others kept what they had; the library tells both, and the version before is one step away.
        page.Press("y");
        page.SeeText("h1", "Treatments");
        page.Press("x");
        page.Keys("mooring");
        page.Wait(d => d.FindElements(By.CssSelector("ul[aria-label=Treatments] a")).Count == 2);
        page.ClickText("ul[aria-label=Treatments] a", "Mooring iron, Jetty section");
        page.SeeText("main", "It began as");
        page.Wait(d => d.FindElements(By.CssSelector("[data-version]")).Count >= 1);
        Assert.Empty(page.Axe());
        Assert.Empty(page.Errors());
        page.Chord(Keys.Control, "z");
        page.SeeText("li", "Undone: Parted Iron on Jetty section");
    }

    [Fact]
    public async Task Two_treatments_become_one_and_a_layer_goes_over_both_of_its_surfaces_by_keys()
    {
        var workshop = (await session.Ask("/api/workshops"))[0]!["id"]!;
        var library = (await session.Ask($"/api/workshops/{workshop}/treatments")).AsArray();
        var window = library.Single(t => t!["name"]!.ToString() == "Window glass")!;
        var zone = window["uses"]![0]!["zoneId"]!;
        async Task<int> Layers() => (await session.Ask($"/api/plan/zones/{zone}"))["layers"]!.AsArray().Count;
        var before = await Layers();
        var page = session.Open($"/treatments/{workshop}/{window["id"]}");
        page.SeeText("h3", "One surface");
        page.Choose("Bring another treatment in", "House door");
        page.ClickText("button", "Bring it in");
        page.SeeText("h3", "One order over 2 surfaces");
        Assert.Empty(page.Axe());
        Inline(page, "Name of the surface Window glass", "glass");
        page.See("input[aria-label='Name of the surface glass']");

        // The topmost layer of the door over the glass as well: by the space bar.
        var box = page.See("input[type=checkbox][aria-label$=' over glass']:not(:checked)");
        box.SendKeys(Keys.Space);
        page.SeeText("li", "goes over glass too");
        Assert.Equal(before + 1, await Layers());
        page.Driver.Navigate().GoToUrl(page.Driver.Url.Split("/treatments")[0] + $"/plan/{window["uses"]![0]!["setId"]}/{zone}");
        page.SeeText("[data-treatment]", "its surface glass");
        Assert.Empty(page.Errors());
        for (var i = 0; i < 3; i++)
            page.Chord(Keys.Control, "z");
        page.Wait(d => d.FindElement(By.CssSelector("[data-treatment]")).Text.Contains("Window glass", StringComparison.Ordinal));
        page.SeeText("li", "Undone: Brought House door into Window glass");
        Assert.Equal(before, await Layers());
    }

    [Fact]
    public void A_set_and_a_workshop_are_changed_by_keys_alone()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Press("e");
        page.SeeText("h1", "Harrowmere Sluice");
        page.Press(".");
        page.See("article[aria-label='Lock-wall corner']");
        page.Press("i");
        page.SeeText("[role=dialog] h2", "Facts of Harrowmere Sluice");
        page.Fill("Kept back of each colour", "2 ml");
        page.Keys(Keys.Enter);
        page.Gone("[role=dialog]");
        page.Press("q");
        page.SeeText("h1", "Sets of Fen Row bench");
        page.Press("i");
        page.SeeText("[role=dialog] h2", "Facts of Fen Row bench");
        page.Fill("Painters", "AB, CD");
        page.Fill("Time zone", "Middle Fen");
        page.Keys(Keys.Enter);
        page.SeeText("[role=dialog] p", "Give a time zone by its name");
        page.Fill("Time zone", "Europe/London");
        page.Keys(Keys.Enter);
        page.Gone("[role=dialog]");
        page.Chord(Keys.Control, "z");
        page.SeeText("li", "Undone: Changed the facts of Fen Row bench");
        page.Chord(Keys.Control, "z");
        page.SeeText("li", "Undone: Changed the facts of Harrowmere Sluice");
        Assert.DoesNotContain(page.Errors(), e => !e.Contains("400", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_material_is_replaced_everywhere_after_a_look_at_what_that_does()
    {
        var workshop = (await session.Ask("/api/workshops"))[0]!["id"]!;
        var clay = (await session.Ask($"/api/shelf/{workshop}/materials")).AsArray().Single(m => m!["name"]!.ToString() == "Rust Bloom")!["id"]!;
        var page = session.Open($"/shelf/{workshop}/{clay}");
        page.SeeText("section[aria-label='Used for'] li", "Mooring iron");
        page.ClickText("button", "Replace it everywhere…");
        page.Choose("Take instead", "Wet Slate");
        page.SeeText("[role=dialog] li", "Mooring ring, Lock-wall straight");
        Assert.Empty(page.Axe());
        page.ClickText("[role=dialog] button", "Replace it everywhere");
        page.Gone("[role=dialog]");
        page.SeeText("section[aria-label='Used for']", "Not in any layer yet");
        page.Chord(Keys.Control, "z");
        page.SeeText("section[aria-label='Used for'] li", "Mooring iron");
        Assert.Empty(page.Errors());
    }

    [Fact]
    public async Task A_mix_is_kept_and_laid_a_change_of_a_material_is_agreed_to_and_what_is_off_the_shelf_is_offered_its_nearest()
    {
        var workshop = (await session.Ask("/api/workshops"))[0]!["id"]!;
        var slate = (await session.Ask($"/api/shelf/{workshop}/materials")).AsArray().Single(m => m!["name"]!.ToString() == "Wet Slate")!["id"]!;
        var page = session.OpenZone("Keeper’s cottage", "Door");
        page.Click("[data-row] button[data-select]");
        page.See("[data-editor]");
        page.ClickText("[data-editor] button", "Mix in another");
        page.Click("[data-menu=Recipes]");
        page.ClickText("[role=menuitem]", "Keep this mix as a recipe…");
        page.Fill("Name", "Door green");
        page.Keys(Keys.Enter);
        page.SeeText("li", "Door green is kept.");
        page.Stored();
        page.Driver.Navigate().GoToUrl($"{session.Address}/shelf/{workshop}/{slate}");
        page.Fill("Colour", "#aa3311");
        page.ClickText("button", "Store changes");
        page.SeeText("[role=dialog] h2", "Wet Slate, changed");
        page.See("[role=dialog] ul[aria-label='Zones that change'] li");
        Assert.Empty(page.Axe());
        page.ClickText("[role=dialog] button", "Not now");
        page.Gone("[role=dialog]");
        Assert.Equal("#aa3311", page.Wait(d => page.Field(d, "Colour")).GetAttribute("value"));
        page.ClickText("button", "Store changes");
        page.ClickText("[role=dialog] button", "Store it");
        page.SeeText("li", "Wet Slate is on the shelf.");
        page.Chord(Keys.Control, "z");
        page.SeeText("li", "Undone: Changed the material Wet Slate");
        var used = page.See("section[aria-label='Used for'] li a").GetAttribute("href");
        page.ClickText("button", "Take off the shelf");
        page.SeeText("li", "Wet Slate was taken off the shelf.");
        page.ClickText("button", "Off the shelf: 1");
        page.SeeText("[role=dialog] li", "still in");
        Assert.Empty(page.Axe());
        page.Keys(Keys.Escape);
        page.Gone("[role=dialog]");
        Assert.NotNull(used);
        page.Chord(Keys.Control, "z");
        page.SeeText("li", "Undone: Took Wet Slate off the shelf");
        Assert.Empty(page.Errors());
    }
}
