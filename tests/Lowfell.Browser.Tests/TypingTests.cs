using System.Text.Json.Nodes;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;

namespace Lowfell.Browser.Tests;

/// <summary>Nothing typed is lost, and nothing typed does what was not meant: while data is coming, over reloads, without a server.</summary>
public sealed class TypingTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    private Page Zone(string design, string zone)
    {
        var page = session.Open();
        page.ClickText("a", design);
        page.ClickText("a", zone);
        page.SeeText("h1", zone);
        page.Stored();
        return page;
    }

    private static void Line(Page page, bool offline, int latencyMs)
    {
        var driver = (ChromeDriver)page.Driver;
        driver.ExecuteCdpCommand("Network.enable", []);
        driver.ExecuteCdpCommand("Network.emulateNetworkConditions", new() { ["offline"] = offline, ["latency"] = latencyMs, ["downloadThroughput"] = -1, ["uploadThroughput"] = -1 });
    }

    private async Task<List<string>> Names()
    {
        using var http = new HttpClient { BaseAddress = new Uri(session.Address) };
        var workshop = JsonNode.Parse(await http.GetStringAsync("/api/workshops", TestContext.Current.CancellationToken))![0]!["id"]!;
        return JsonNode.Parse(await http.GetStringAsync($"/api/shelf/{workshop}/materials", TestContext.Current.CancellationToken))!.AsArray().Select(m => m!["name"]!.GetValue<string>()).ToList();
    }

    [Theory]
    [InlineData("Material")]
    [InlineData("Component 2")]
    public async Task Thirty_names_typed_quickly_choose_thirty_materials_and_do_nothing_else(string chooser)
    {
        var page = Zone("Reed dredger", "Deck");
        var layers = page.Stack().Count;
        page.Press("a");
        page.See("[data-editor]");
        if (chooser != "Material")
        {
            page.Choose("Material", "Bog Umber");
            page.ClickText("button", "Mix in another");
        }

        var at = page.Driver.Url;
        foreach (var name in (await Names()).Where(n => chooser == "Material" || n != "Bog Umber").Take(30))
        {
            Type(page, chooser, name);
            page.Wait(d => page.Field(d, chooser).GetAttribute("value") == name);
            Assert.Equal(page.Field(page.Driver, chooser), page.Driver.SwitchTo().ActiveElement());
        }

        Assert.Equal((at, layers + 1), (page.Driver.Url, page.Stack().Count));
        page.Stored();
    }

    /// <summary>Into a chooser as a hand does it: a click, unless it has the focus already, and then the letters.</summary>
    private static void Type(Page page, string chooser, string name) => page.Wait(d =>
    {
        var field = page.Field(d, chooser);
        if (!field.Equals(d.SwitchTo().ActiveElement()))
            field.Click();
        new OpenQA.Selenium.Interactions.Actions(d).SendKeys(name + Keys.Enter).Perform();
        return true;
    });

    /// <summary>What a chooser of the pots takes goes into the jar at once, and the chooser is ready for the next.</summary>
    [Fact]
    public async Task Names_typed_quickly_all_go_into_the_jar_that_is_mixed_freely()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Go("Pots");
        page.ClickText("button", "Mix freely");
        page.SeeText("h2", "Mixed freely");
        static By Out(string name) => By.CssSelector($"[aria-label='Take {name} out']");
        var names = (await Names()).Where(n => !n.Contains('\'', StringComparison.Ordinal)).Take(30).ToList();
        for (var n = 0; n < names.Count; n++)
        {
            var name = names[n];
            Type(page, "Put in", name);
            page.Wait(d => d.FindElement(Out(name)));
            Assert.Equal(Math.Min(n + 1, 2), page.Driver.FindElements(By.CssSelector("[aria-label^='Take '][aria-label$=' out']")).Count);
            if (n == 0)
                continue;
            page.Driver.FindElement(Out(names[n - 1])).Click();
            page.Wait(d => d.FindElements(Out(names[n - 1])).Count == 0);
        }
    }

    /// <summary>What goes into a pot by hand is chosen by typing too, and nothing is done before it is said.</summary>
    [Fact]
    public async Task Thirty_names_typed_quickly_at_a_pot_put_nothing_in_before_it_is_said()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Go("Pots");
        page.Click("[data-pot]");
        page.See("[data-event]");
        var events = page.Driver.FindElements(By.CssSelector("[data-event]")).Count;
        page.Press("u");
        page.See("[role=dialog]");
        page.Choose("What to do", "Put something in");
        foreach (var name in (await Names()).Take(30))
        {
            Type(page, "Material", name);
            page.Wait(d => page.Field(d, "Material").GetAttribute("value") == name);
        }

        page.Keys(Keys.Escape);
        page.Gone("[role=dialog]");
        Assert.Equal(events, page.Driver.FindElements(By.CssSelector("[data-event]")).Count);
    }

    [Fact]
    public void A_key_and_what_is_typed_after_it_wait_for_the_view_they_are_meant_for()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Stored();
        Line(page, offline: false, latencyMs: 300);
        page.Press("/rust");
        page.Wait(d => d.FindElement(By.Id("find")).GetAttribute("value") == "rust");
        Line(page, offline: false, latencyMs: 0);
    }

    /// <summary>Whatever is pressed where, while data is coming: all that changes is stacks, each change was said, and undo brings them back.</summary>
    [Fact]
    public async Task Two_hundred_keys_over_every_view_change_nothing_that_is_not_said()
    {
        var page = Zone("Pump house", "Walls");
        var home = page.Driver.Url;
        var views = page.Wait(d => d.FindElements(By.CssSelector("nav[aria-label=Places] a")) is { Count: > 1 } all ? all : null)!
            .SelectMany(a => a.GetAttribute("data-views")!.Split('|')).Append("House rules").ToList();
        var before = await Everything();
        ((IJavaScriptExecutor)page.Driver).ExecuteScript("""
            window.said = [];
            new MutationObserver(() => document.querySelectorAll('[data-said]').forEach(e => said.includes(e.dataset.said) || said.push(e.dataset.said))).observe(document.body, { childList: true, subtree: true });
            """);
        Line(page, offline: false, latencyMs: 120);
        var random = new Random(20261125);
        var keys = Enumerable.Range(33, 94).Select(c => ((char)c).ToString()).Concat([Keys.ArrowUp, Keys.ArrowDown, Keys.ArrowLeft, Keys.ArrowRight, Keys.Home, Keys.End, Keys.Delete, Keys.Escape, Keys.Tab]).ToList();
        foreach (var view in views)
        {
            page.Wait(d =>
            {
                d.FindElement(By.TagName("body")).SendKeys(Keys.Escape);
                return d.FindElements(By.CssSelector("[role=dialog], [role=menu], [role=listbox]")).Count == 0;
            });
            page.Go(view);
            new OpenQA.Selenium.Interactions.Actions(page.Driver).SendKeys(string.Concat(Enumerable.Range(0, 200).Select(_ => keys[random.Next(keys.Count)]))).Perform();
        }

        Line(page, offline: false, latencyMs: 0);
        var said = (long)((IJavaScriptExecutor)page.Driver).ExecuteScript("return said.length")!;
        page.Driver.Navigate().GoToUrl(home);
        page.SeeText("h1", "Walls");
        page.Stored();
        page.Gone("[data-waiting]");
        var after = await Everything();
        var changed = before.Keys.Where(k => before[k] != after[k]).ToList();
        Assert.All(changed, k => Assert.StartsWith("zone ", k, StringComparison.Ordinal));
        Assert.True(changed.Count == 0 || said >= changed.Count, $"{string.Join(", ", changed)} changed, and {said} things were said.");
    }

    /// <summary>Everything stored, by what it is: the layers of each zone, and what the other views show.</summary>
    private async Task<Dictionary<string, string>> Everything()
    {
        using var http = new HttpClient { BaseAddress = new Uri(session.Address) };
        Task<string> Get(string path) => http.GetStringAsync(path, TestContext.Current.CancellationToken);
        var workshops = await Get("/api/workshops");
        var first = JsonNode.Parse(workshops)![0]!;
        var (workshop, set) = (first["id"]!, first["sets"]![0]!["id"]!);
        var all = new Dictionary<string, string> { ["workshops"] = workshops, ["house"] = await Get($"/api/workshops/{workshop}/house-rules"), ["materials"] = Materials(await Get($"/api/shelf/{workshop}/materials")) };
        all["pots"] = JsonNode.Parse(await Get($"/api/pots/{set}"))!["pots"]!.ToJsonString();
        foreach (var zone in JsonNode.Parse(await Get($"/api/plan/sets/{set}"))!["designs"]!.AsArray().SelectMany(d => d!["zones"]!.AsArray()))
            all[$"zone {zone!["name"]} {zone["id"]}"] = JsonNode.Parse(await Get($"/api/plan/zones/{zone["id"]}"))!["layers"]!.ToJsonString();
        return all;
    }

    /// <summary>The shelf as it is entered; in how many layers a material is used is no part of it.</summary>
    private static string Materials(string shelf)
    {
        var all = JsonNode.Parse(shelf)!.AsArray();
        foreach (var material in all)
            material!.AsObject().Remove("uses");
        return all.ToJsonString();
    }

    [Theory]
    [InlineData(0)]
    [InlineData(50)]
    [InlineData(100)]
    [InlineData(300)]
    public void A_reload_right_after_the_last_key_loses_nothing(int afterMs)
    {
        var page = Zone("Keeper’s cottage", "Door");
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
        using var http = new HttpClient { BaseAddress = new Uri(session.Address) };
        async Task<JsonNode> Get(string path) => JsonNode.Parse(await http.GetStringAsync(path, TestContext.Current.CancellationToken))!;
        var set = (await Get("/api/workshops"))[0]!["sets"]![0]!["id"]!;
        var found = new Dictionary<string, int>();
        foreach (var zone in (await Get($"/api/plan/sets/{set}"))["designs"]!.AsArray().Single(d => d!["name"]!.GetValue<string>() == design)!["zones"]!.AsArray())
            found[zone!["name"]!.GetValue<string>()] = (await Get($"/api/plan/zones/{zone["id"]}"))["revision"]!.GetValue<int>();
        return found;
    }
}
