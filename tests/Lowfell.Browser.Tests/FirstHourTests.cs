using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace Lowfell.Browser.Tests;

/// <summary>The whole first hour without a pointer: a workshop, a set, ten materials, twelve layers, a pot and what is still to buy.</summary>
public sealed class FirstHourTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    private static readonly (string Name, string Colour, string Kind)[] materials =
    [
        ("Quay Grey", "#77756e", "paint"), ("Hollow Brown", "#4a3626", "paint"), ("Sluice Green", "#54614c", "paint"), ("Pale Sedge", "#c9c09a", "paint"),
        ("Tarred Rope", "#2b2622", "paint"), ("Bleached Plank", "#a99f8c", "paint"), ("Fen Umber Wash", "#3b2c1e", "wash"), ("Otter Wash", "#2f2a28", "wash"),
        ("Silt Filter", "#8a7f66", "filter"), ("Mill Satin", "", "varnish"),
    ];

    private static readonly (string Technique, string Material)[] layers =
    [
        ("base coat", "Quay Grey"), ("base coat", "Hollow Brown"), ("layered coat", "Sluice Green"), ("layered coat", "Quay Grey"), ("stipple", "Bleached Plank"), ("varnish", "Mill Satin"),
        ("filter", "Silt Filter"), ("pin wash", "Fen Umber Wash"), ("varnish", "Mill Satin"), ("drybrush", "Pale Sedge"), ("stipple", "Tarred Rope"), ("varnish", "Mill Satin"),
    ];

    [Fact]
    public void From_an_empty_bench_to_the_shopping_list_by_keyboard_alone()
    {
        var page = session.Open("/start/new");
        page.See("form h2");
        var hands = new Hands(page);

        // Workshop and set, in five steps.
        hands.To("Name of the workshop");
        hands.Type("Night bench");
        hands.To("Name of the set");
        hands.Type("Sluice yard");
        for (var step = 1; step < 5; step++)
        {
            hands.Press(Keys.Enter);
            page.Wait(d => d.FindElement(By.CssSelector("[aria-current=step]")).Text.StartsWith($"{step + 1}", StringComparison.Ordinal));
            hands.Press(Keys.Tab);
        }

        hands.To("Make the set");
        hands.Press(Keys.Enter);
        page.Wait(d => d.FindElement(By.CssSelector("header")).Text.Contains("Sluice yard", StringComparison.Ordinal));
        page.Stored();
        hands.Done("workshop and set");

        // Ten materials.
        hands.Press("/");
        page.See("#find");
        hands.Press(Keys.Tab);
        foreach (var (name, colour, kind) in materials)
        {
            page.Wait(_ => hands.Ready);
            hands.Press("a");
            page.SeeText("h2", "New material");
            page.Wait(d => page.Field(d, "Name") is { } field && field.Equals(d.SwitchTo().ActiveElement()) && field.GetAttribute("value") == "");
            hands.Type(name);
            hands.Press(Keys.Tab);
            if (colour.Length > 0)
                hands.Type(colour);
            hands.To("Kind");
            hands.Type(kind);
            hands.Press(Keys.Tab);
            hands.Type("17 ml");
            hands.Press(Keys.Enter);
            page.SeeText("h2", name);
        }

        hands.Done("ten materials");

        // Twelve layers over the usual ones, each above the last.
        hands.Press("p");
        page.SeeText("h1", "Front face");
        page.Stored();
        var before = page.Stack().Count;
        foreach (var (technique, material) in layers)
        {
            hands.Press("a");
            page.Wait(d => page.Field(d, "Technique").Equals(d.SwitchTo().ActiveElement()));
            hands.Type(technique);
            hands.Press(Keys.Enter);
            hands.Press(Keys.Tab);
            hands.Type(material);
            hands.Press(Keys.Enter);
            page.Wait(d => page.Field(d, "Material").GetAttribute("value") == material);
            hands.Press(Keys.Escape);
        }

        page.Stored();
        Assert.Equal(before + 12, page.Stack().Count);
        hands.Done("twelve layers");

        // A pot, and what is to buy.
        hands.Press("j");
        page.See("[data-jar]");
        for (var n = 0; n < 30 && !(bool)((IJavaScriptExecutor)page.Driver).ExecuteScript("return [...document.querySelectorAll('main h2')].some(h => h.innerText === 'Plain matt varnish')")!; n++)
            hands.Press(Keys.ArrowDown);
        page.SeeText("h2", "Plain matt varnish");
        hands.Press("n");
        page.See("[role=dialog]");
        hands.To("It is mixed");
        hands.Press(Keys.Enter);
        page.Gone("[role=dialog]");
        page.See("[data-event='made']");
        hands.Done("a pot");
        hands.Press("k");
        page.SeeText("h1", "Stock");
        page.See("[data-line]");
        hands.Done("shopping list");
        TestContext.Current.TestOutputHelper!.WriteLine(hands.Told);
    }
}

/// <summary>Two hands on a keyboard: what has the focus gets what they type, and every key is counted.</summary>
internal sealed class Hands(Page page)
{
    private readonly List<string> told = [];
    private int keys, since;

    public string Told => string.Join("; ", told) + $"; {keys} keys in all";

    private void Send(string keys) => new Actions(page.Driver).SendKeys(keys).Perform();

    private IWebElement Focus => page.Driver.SwitchTo().ActiveElement();

    /// <summary>Says how many keys a part of it took.</summary>
    public void Done(string what)
    {
        told.Add($"{what}: {keys - since}");
        since = keys;
    }

    /// <summary>Letters act: the view has the focus and no field of it.</summary>
    public bool Ready => Focus.TagName is not ("input" or "textarea");

    public void Press(string key)
    {
        keys++;
        Send(key);
        page.Wait(_ => Focus.TagName != "body");
    }

    public void Type(string text)
    {
        keys += text.Length;
        Send(text);
    }

    /// <summary>Tab until a field or button with this name has the focus.</summary>
    public void To(string name)
    {
        var passed = new List<string>();
        while (passed.Count < 80)
        {
            passed.Add(Name());
            if (passed[^1] == name)
                return;
            Press(OpenQA.Selenium.Keys.Tab);
        }

        Assert.Fail($"Tab never comes to “{name}”, but to {string.Join(" | ", passed)}.");
    }

    private string Name() => (string)((IJavaScriptExecutor)page.Driver).ExecuteScript("""
        const e = document.activeElement;
        return (e.getAttribute('aria-label') ?? e.labels?.[0]?.innerText ?? e.innerText ?? '').trim();
        """)!;
}
