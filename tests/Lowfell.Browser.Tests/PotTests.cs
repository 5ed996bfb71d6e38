using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

/// <summary>From what is short to the last piece: buying, mixing, painting, running out and mixing again, by mouse.</summary>
public sealed class PotTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    private static readonly string[] ground = ["Peat Seven", "Brick Clay"];

    [Fact]
    public void A_batch_by_mouse_from_the_plan_to_the_remix()
    {
        // The plan says 41 ml of the ground colour; 22 are there.
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Row(2).Click();
        page.SeeText("td", "41 ml");
        page.SeeText("td", "22 ml");
        page.Go("Stock");
        Assert.Contains("41 ml", page.Says("[data-line='Peat Seven']"), StringComparison.Ordinal);
        foreach (var paint in ground)
        {
            page.Click($"[aria-label='Bought: {paint}']");
            page.Gone($"[aria-label='Bought: {paint}']");
        }

        // A jar of fifty.
        page.Go("Pots");
        page.Click("[data-mix='Peat Seven + Brick Clay']");
        page.See("[data-jar]");
        Assert.Contains("Brick field on Lock-wall straight", page.Says("[data-needs]"), StringComparison.Ordinal);
        page.See("[data-fit='fits']");
        Assert.Contains("pots of", page.Says("[data-advice]"), StringComparison.Ordinal);
        Assert.Empty(page.Axe());
        page.Fill("In all", "50");
        page.Keys(Keys.Tab);
        page.Wait(d => page.Field(d, "ml of Peat Seven").GetAttribute("value") == "24");
        page.ClickText("button", "Make a pot");
        page.Fill("Label", "Ground two");
        Assert.Contains("50 ml", page.Says("[data-measured]"), StringComparison.Ordinal);
        Assert.Empty(page.Axe());
        page.ClickText("button", "It is mixed");
        page.SeeText("h2", "Ground two");
        page.Gone("[role=dialog]");

        // By the plan it lasts for six walls, and six are ticked.
        page.ClickText("button", "Give to pieces");
        page.See("[role=dialog] fieldset");
        Assert.Equal(6, page.Driver.FindElements(By.CssSelector("[role=dialog] input[type=checkbox]:checked")).Count);
        Assert.Empty(page.Axe());
        page.ClickText("button", "They have it");
        page.Gone("[role=dialog]");
        page.SeeText("dd", "W1, W2, W3, W4, W5, W6");

        // It ran out: the same again, or what comes near.
        page.ClickText("button", "It ran out");
        page.ClickText("button", "It is empty");
        page.Wait(d => d.FindElement(By.CssSelector("[data-left]")).Text == "Empty");
        page.Wait(d => d.FindElements(By.CssSelector("[data-remix]")).Count > 2);
        Assert.Contains("W7, W8", page.Says("[data-ran-out]"), StringComparison.Ordinal);
        Assert.Contains("the same recipe", page.Says("[data-remix]"), StringComparison.Ordinal);
        Assert.All(page.Driver.FindElements(By.CssSelector("[data-remix] [data-difference]")), d => Assert.Matches(@"\d+\.\d", d.Text));
        Assert.Empty(page.Axe());
        page.ClickText("button", "Mix this");
        page.SeeText("h2", "A remix");
        page.See("[data-jar]");
        page.ClickText("button", "Make a pot");
        page.Fill("Label", "Ground three");
        page.ClickText("button", "It is mixed");
        page.SeeText("h2", "Ground three");
        page.ClickText("button", "Give to pieces");
        page.ClickText("button", "They have it");
        page.Gone("[role=dialog]");
        page.SeeText("dd", "W7, W8");
        Assert.DoesNotContain(page.Errors(), e => !e.Contains("409", StringComparison.Ordinal));
    }

    [Fact]
    public void Numbers_of_a_jar_follow_one_another_and_a_bottle_is_calibrated()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Go("Pots");
        page.Click("[data-mix='Wet Slate']");
        IWebElement Cell(string label) => page.Wait(d => page.Field(d, label));
        void Set(string label, string value)
        {
            var cell = Cell(label);
            cell.SendKeys(Keys.Control + "a");
            cell.SendKeys(value + Keys.Enter);
        }

        void Shows(string label, string value) => page.Wait(d => page.Field(d, label).GetAttribute("value") == value);
        page.SeeText("h2", "Wet Slate");
        Set("Share, % of Tap Water", "50");
        Shows("Parts of Wet Slate", "1");
        Set("Drops of Wet Slate", "40");
        Shows("ml of Tap Water", "2");
        Shows("Drops of Tap Water", "40");
        Set("Share, % of Tap Water", "75");
        page.See("[data-fit='too thin']");
        Set("Share, % of Tap Water", "100");
        page.SeeText("p", "below 100");
        page.ClickText("button", "Back to the plan");
        Shows("Parts of Wet Slate", "4");
        page.Click("[aria-label^='Calibrate the drop of Wet Slate']");
        page.Fill("They fill", "40");
        page.ClickText("button", "Keep it");
        page.SeeText("p", "is none that a bottle gives");
        page.Fill("They fill", "0.8");
        Assert.Empty(page.Axe());
        page.ClickText("button", "Keep it");
        page.Gone("[role=dialog]");
        page.See("[aria-label='Calibrate the drop of Wet Slate, now 0.04 ml']");
        foreach (var (tab, shows, sheets) in new[] { ("Amounts", "[data-amounts]", 10), ("Mix cards", "[data-card]", 3) })
        {
            page.ClickText("button", tab);
            page.See(shows);
            Assert.InRange(page.Sheets(), 1, sheets);
        }
    }
}

/// <summary>The same batch by keys alone, and a pot that is thinned, split and poured together.</summary>
public sealed class PotKeyTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    private static readonly string[] ground = ["Peat Seven", "Brick Clay"];

    private static void Press(Page page, string css, string keys) => page.Wait(d =>
    {
        d.FindElement(By.CssSelector(css)).SendKeys(keys);
        return true;
    });

    [Fact]
    public void A_batch_by_keys_from_the_plan_to_the_remix()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Press("k");
        foreach (var paint in ground)
        {
            Press(page, $"[aria-label='Bought: {paint}']", Keys.Enter);
            page.Gone($"[aria-label='Bought: {paint}']");
        }

        page.Press("j");
        page.SeeText("h2", "What the plan wants mixed");
        Press(page, "[data-mix='Peat Seven + Brick Clay']", Keys.Enter);
        page.SeeText("h2", "Peat Seven + Brick Clay");
        page.See("[data-jar]");
        page.Fill("ml of Peat Seven", "24");
        page.Keys(Keys.Enter);
        page.Wait(d => page.Field(d, "ml of Tap Water").GetAttribute("value") == "10");
        page.Keys(Keys.Escape + Keys.Tab);
        Press(page, "[data-mix='Peat Seven + Brick Clay']", "n");
        page.Fill("Label", "Ground by keys");
        page.Keys(Keys.Enter);
        page.SeeText("h2", "Ground by keys");
        page.Gone("[role=dialog]");
        page.Press("g");
        page.See("[role=dialog] fieldset");
        page.Fill("Used", "46");
        page.Keys(Keys.Enter);
        page.Gone("[role=dialog]");
        page.SeeText("dd", "W1, W2, W3, W4, W5, W6");
        page.Press("x");
        page.SeeText("p", "By the book");
        page.Wait(d => d.FindElements(By.CssSelector("[data-remix]")).Count > 1);

        // Without the first paint the nearest is told with what it differs by.
        page.Press("k");
        Press(page, "[aria-label='Moves of Peat Seven']", Keys.Enter);
        page.Choose("What happened", "lent");
        var there = page.Says("[role=dialog] h2").Split(':')[1].Trim().Split(' ')[0];
        page.Fill("How much", (int.Parse(there, System.Globalization.CultureInfo.InvariantCulture) - 1).ToString(System.Globalization.CultureInfo.InvariantCulture));
        page.Keys(Keys.Enter);
        page.See("[data-move='lent']");
        page.Keys(Keys.Escape);
        page.Press("j");
        Press(page, "[data-pot='Ground by keys']", Keys.Enter);
        page.SeeText("h2", "Ground by keys");
        page.Press("x");
        page.Wait(d => d.FindElements(By.CssSelector("[data-remix]")).Count > 1 && !d.FindElement(By.CssSelector("[data-ran-out]")).Text.Contains("the same recipe", StringComparison.Ordinal));
        Assert.Matches(@"\d+\.\d", page.Says("[data-remix] [data-difference]"));
        Press(page, "[data-remix] button", Keys.Enter);
        page.SeeText("h2", "A remix");
        page.See("[data-jar]");
        page.Press("n");
        Assert.Contains("stands in", page.Says("[role=dialog]"), StringComparison.Ordinal);
        page.Fill("Label", "Remix by keys");
        page.Keys(Keys.Enter);
        page.SeeText("h2", "Remix by keys");
        page.Gone("[role=dialog]");
        page.Press("g");
        page.Fill("Used", "5");
        page.Keys(Keys.Enter);
        page.Gone("[role=dialog]");
        page.See("[data-event='given']");
    }

    [Fact]
    public void A_pot_is_thinned_split_poured_together_and_the_last_step_taken_back()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Press("j");
        Press(page, "[data-pot='Tide ground']", Keys.Enter);
        page.SeeText("h2", "Tide ground");
        Assert.Empty(page.Axe());
        page.Press("u");
        page.Fill("Paint : thinner", "2:1");
        page.SeeText("b", "Add 2.08 ml Tap Water");
        Assert.Empty(page.Axe());
        page.Field(page.Driver, "Paint : thinner").SendKeys(Keys.Enter);
        page.Gone("[role=dialog]");
        page.Wait(d => d.FindElement(By.CssSelector("[data-left]")).Text == "12.48 ml");
        page.ClickText("button", "Take back");
        page.Wait(d => d.FindElement(By.CssSelector("[data-left]")).Text == "10.4 ml");
        page.ClickText("button", "Split");
        page.Fill("To take", "99");
        page.Keys(Keys.Enter);
        page.SeeText("p", "Only 10.4 ml are left");
        page.Fill("To take", "4");
        page.Keys(Keys.Enter);
        page.Gone("[role=dialog]");
        page.Wait(d => d.FindElement(By.CssSelector("[data-left]")).Text == "6.4 ml");
        page.See("[data-pot='Tide ground pot']");
        page.ClickText("button", "Pour another in");
        page.Choose("Pour in", "Tide ground pot");
        page.SeeText("b", "10.4 ml in all");
        page.See("[role=dialog] [data-fit]");
        Assert.Empty(page.Axe("[role=dialog]"));
        page.ClickText("button", "Pour it in");
        page.Gone("[role=dialog]");
        page.Wait(d => d.FindElement(By.CssSelector("[data-left]")).Text == "10.4 ml");
        Assert.Empty(page.Axe());
    }

    [Fact]
    public void A_wrong_entry_is_told_beside_its_field_and_nothing_is_stored()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Press("j");
        Press(page, "[data-mix='Wet Slate']", Keys.Enter);
        page.SeeText("h2", "Wet Slate");
        page.See("[data-jar]");
        page.Press("n");
        page.Choose("Measured in", "drops");
        Told(page, "Drops of Wet Slate", "2,5", "A count of drops is a whole number.");
        Told(page, "Label", "", "The label is missing.");
        page.Keys(Keys.Escape);
        page.Gone("[role=dialog]");
        Press(page, "[data-pot='Tide ground']", Keys.Enter);
        page.SeeText("h2", "Tide ground");
        var left = page.Says("[data-left]");
        page.Press("u");
        Told(page, "Paint : thinner", "much", "Write parts, such as 2:1.");
        page.Choose("What to do", "Put something in");
        page.Choose("Material", "Salt White");
        Told(page, "How much", "a lot", "");
        page.Keys(Keys.Escape);
        page.Gone("[role=dialog]");
        page.Press("g");
        Told(page, "Used", "-3", "What is used is more than 0 ml.");
        page.Keys(Keys.Escape);
        page.Gone("[role=dialog]");
        Assert.Equal(left, page.Says("[data-left]"));
        Assert.Empty(page.Errors());
    }

    /// <summary>A field of the dialog, whatever the view behind it calls by the same name.</summary>
    private static IWebElement Field(IWebDriver d, string label) =>
        d.FindElement(By.Id(d.FindElements(By.CssSelector("[role=dialog] label")).First(l => l.GetAttribute("textContent") == label).GetAttribute("for")!));

    /// <summary>What is typed is refused on Enter: in words beside its field, which keeps the focus and what was typed.</summary>
    private static void Told(Page page, string label, string typed, string says)
    {
        page.Wait(d =>
        {
            var field = Field(d, label);
            field.SendKeys(Keys.Control + "a" + Keys.Null + Keys.Backspace + typed);
            return field.GetAttribute("value") == typed;
        });
        page.Keys(Keys.Enter);
        page.Wait(d =>
        {
            var field = Field(d, label);
            return field.Equals(d.SwitchTo().ActiveElement()) && field.GetAttribute("value") == typed && field.GetAttribute("aria-invalid") == "true"
                && d.FindElement(By.Id(field.GetAttribute("aria-describedby")!)).Text is { Length: > 8 } told && told.Contains(says, StringComparison.Ordinal);
        });
    }
}
