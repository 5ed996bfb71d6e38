using System.Text.Json.Nodes;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Support.UI;

namespace Lowfell.Browser.Tests;

/// <summary>No key does what was not meant, while data is coming.</summary>
public sealed class StrayKeyTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    private static void Latency(Page page, int ms)
    {
        var driver = (ChromeDriver)page.Driver;
        driver.ExecuteCdpCommand("Network.enable", []);
        driver.ExecuteCdpCommand("Network.emulateNetworkConditions", new() { ["offline"] = false, ["latency"] = ms, ["downloadThroughput"] = -1, ["uploadThroughput"] = -1 });
    }

    [Fact]
    public void A_key_and_what_is_typed_after_it_wait_for_the_view_they_are_meant_for()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Stored();
        Latency(page, 300);
        page.Press("/rust");
        page.Wait(d => d.FindElement(By.Id("find")).GetAttribute("value") == "rust");
        Latency(page, 0);
    }

    /// <summary>Who points at something else no longer means the keys that still had to wait.</summary>
    [Fact]
    public void A_click_makes_void_the_keys_that_still_wait()
    {
        var page = session.OpenZone("Pump house", "Walls");
        page.Stored();
        Latency(page, 1500);
        page.Press("kj");
        page.Click("[data-menu=Workshop]");
        page.See("[role=menu]");
        page.Keys(Keys.Escape);
        page.Gone("[role=menu]");
        Latency(page, 0);
        page.SeeText("h1", "Stock");
        page.Gone("[data-waiting]");
        Assert.Contains("/stock/", page.Driver.Url, StringComparison.Ordinal);
    }

    /// <summary>Whatever is pressed where, while data is coming: all that changes is stacks, and answers that tab and arrows led to; each change was said, and undo brings them back.</summary>
    [Fact]
    public async Task Two_hundred_keys_over_every_view_change_nothing_that_is_not_said()
    {
        var page = session.OpenZone("Pump house", "Walls");
        var home = page.Driver.Url;
        var views = page.Wait(d => d.FindElements(By.CssSelector("nav[aria-label=Places] a")) is { Count: > 1 } all ? all : null)!
            .SelectMany(a => a.GetAttribute("data-views")!.Split('|')).Append("House rules").ToList();
        var before = await Everything();
        ((IJavaScriptExecutor)page.Driver).ExecuteScript("""
            window.said = [];
            new MutationObserver(() => document.querySelectorAll('[data-said]').forEach(e => said.includes(e.dataset.said) || said.push(e.dataset.said))).observe(document.body, { childList: true, subtree: true });
            """);
        Latency(page, 120);
        var random = new Random(20261125);
        var keys = Enumerable.Range(33, 94).Select(c => ((char)c).ToString()).Concat([Keys.ArrowUp, Keys.ArrowDown, Keys.ArrowLeft, Keys.ArrowRight, Keys.Home, Keys.End, Keys.Delete, Keys.Escape, Keys.Tab]).ToList();
        foreach (var view in views)
        {
            Leave(page, view);
            new OpenQA.Selenium.Interactions.Actions(page.Driver).SendKeys(string.Concat(Enumerable.Range(0, 200).Select(_ => keys[random.Next(keys.Count)]))).Perform();
        }

        Latency(page, 0);
        var said = (long)((IJavaScriptExecutor)page.Driver).ExecuteScript("return said.length")!;
        page.Driver.Navigate().GoToUrl(home);
        page.SeeText("h1", "Walls");
        page.Stored();
        page.Gone("[data-waiting]");
        var after = await Everything();
        var changed = before.Keys.Where(k => before[k] != after[k]).ToList();
        Assert.All(changed, k => Assert.True(k.StartsWith("zone ", StringComparison.Ordinal) || k is "house" or "workshops", k));

        // A treatment shows in every zone that is laid with it, an answer in house and workshops: one change, said once.
        var changes = changed.Select(k => k.StartsWith("zone ", StringComparison.Ordinal) ? k[..k.LastIndexOf(' ')] : "house").Distinct().Count();
        Assert.True(said >= changes, $"{string.Join(", ", changed)} changed, and {said} things were said.");
    }

    /// <summary>Goes to a view past whatever the keys have opened, or are still opening.</summary>
    private static void Leave(Page page, string view) => page.Wait(d =>
    {
        void Click(string css, Func<IWebElement, bool> which) => d.FindElements(By.CssSelector(css)).First(which).Click();
        d.FindElement(By.TagName("body")).SendKeys(Keys.Escape);
        if (d.FindElements(By.CssSelector("[role=dialog], [role=menu], [role=listbox]")).Count > 0)
            return false;
        if (view == "House rules")
        {
            Click("[data-menu=Workshop]", _ => true);
            Click("[role=menuitem]", a => a.Text.Contains(view, StringComparison.Ordinal));
        }
        else
        {
            Click("nav[aria-label=Places] a", a => a.GetAttribute("data-views")!.Split('|').Contains(view));

            // A place of one view has no second row.
            if (d.FindElements(By.CssSelector($"nav[aria-label=Places] a[data-views='{view}']")).Count == 0)
                Click("nav[aria-label=Views] a", a => a.Text.Contains(view, StringComparison.Ordinal));
        }

        // It is on its way now: another click before it is there would begin anew.
        try
        {
            new WebDriverWait(d, TimeSpan.FromSeconds(10)).Until(w => Arrived(w) || w.FindElements(By.CssSelector("[role=dialog], [role=menu], [role=listbox]")).Count > 0);
        }
        catch (WebDriverTimeoutException)
        {
            // A key that came late led elsewhere.
        }

        return Arrived(d);
        bool Arrived(IWebDriver w) => w.Title.StartsWith(view, StringComparison.Ordinal);
    });

    /// <summary>Everything stored, by what it is: the layers of each zone, and what the other views show.</summary>
    private async Task<Dictionary<string, string>> Everything()
    {
        async Task<string> Get(string path) => (await session.Ask(path)).ToJsonString();
        var workshops = await session.Ask("/api/workshops");
        var first = workshops[0]!;
        var (workshop, set) = (first["id"]!, first["sets"]![0]!["id"]!);
        var all = new Dictionary<string, string> { ["workshops"] = workshops.ToJsonString(), ["house"] = await Get($"/api/workshops/{workshop}/house-rules"), ["materials"] = Materials(await session.Ask($"/api/shelf/{workshop}/materials")) };
        all["pots"] = (await session.Ask($"/api/pots/{set}"))["pots"]!.ToJsonString();
        foreach (var zone in (await session.Ask($"/api/plan/sets/{set}"))["designs"]!.AsArray().SelectMany(d => d!["zones"]!.AsArray()))
            all[$"zone {zone!["name"]} {zone["id"]}"] = (await session.Ask($"/api/plan/zones/{zone["id"]}"))["layers"]!.ToJsonString();
        return all;
    }

    /// <summary>The shelf as it is entered; in how many layers a material is used is no part of it.</summary>
    private static string Materials(JsonNode shelf)
    {
        var all = shelf.AsArray();
        foreach (var material in all)
            material!.AsObject().Remove("uses");
        return all.ToJsonString();
    }
}
