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

    [Fact]
    public async Task Thirty_names_typed_quickly_choose_thirty_materials_and_do_nothing_else()
    {
        var page = Zone("Reed dredger", "Deck");
        var (at, layers) = (page.Driver.Url, page.Stack().Count);
        page.Press("a");
        page.See("[data-editor]");
        foreach (var name in (await Names()).Take(30))
        {
            var field = page.Wait(d => page.Field(d, "Material"));
            field.SendKeys(name + Keys.Enter);
            page.Wait(d => page.Field(d, "Material").GetAttribute("value") == name);
            Assert.Equal(page.Field(page.Driver, "Material"), page.Driver.SwitchTo().ActiveElement());
        }

        Assert.Equal((at, layers + 1), (page.Driver.Url, page.Stack().Count));
        page.Stored();
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

    [Fact]
    public void Keys_pressed_anywhere_while_data_is_coming_change_nothing_that_is_not_said()
    {
        var page = Zone("Pump house", "Walls");
        var stack = page.Stack();
        Line(page, offline: false, latencyMs: 120);

        // Looking and going: none of these changes a stack, wherever it ends up.
        var random = new Random(20261125);
        const string Keys = "[]omcsvptwkjhl";
        page.Press(string.Concat(Enumerable.Range(0, 60).Select(_ => Keys[random.Next(Keys.Length)])));
        page.Press("p");
        page.See("main[data-view=layers] li[data-layer]");
        Line(page, offline: false, latencyMs: 0);
        page.Driver.Navigate().GoToUrl(session.Address);
        page.ClickText("a", "Pump house");
        page.ClickText("a", "Walls");
        page.SeeText("h1", "Walls");
        page.Stored();
        Assert.Equal(stack.Order(), page.Stack().Order());
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
        for (var round = 1; round <= 3; round++)
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
    public void Without_a_server_two_zones_are_edited_and_both_are_stored_once_when_it_is_back()
    {
        var page = Zone("Jetty section", "Timber");
        page.ClickText("a", "Rope");
        page.SeeText("h1", "Rope");
        page.Stored();
        Line(page, offline: true, latencyMs: 0);
        page.Click("li[data-layer='1'] button[data-select]");
        page.Fill("Note", "rope without a server");
        page.See("[data-waiting='1']");
        Assert.NotEqual("saved", page.See("[data-save]").GetAttribute("data-save"));
        page.ClickText("a", "Timber");
        page.SeeText("h1", "Timber");
        page.Click("li[data-layer='1'] button[data-select]");
        page.Fill("Note", "timber without a server");
        page.See("[data-waiting='2']");
        Line(page, offline: false, latencyMs: 0);
        page.Stored();
        page.Gone("[data-waiting]");
        page.Driver.Navigate().Refresh();
        page.Wait(_ => page.Row(1).Text.Contains("timber without a server", StringComparison.Ordinal));
        page.ClickText("a", "Rope");
        page.SeeText("h1", "Rope");
        page.Wait(_ => page.Row(1).Text.Contains("rope without a server", StringComparison.Ordinal));
    }
}
