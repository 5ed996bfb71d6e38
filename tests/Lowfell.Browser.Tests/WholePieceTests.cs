using System.Text.Json.Nodes;
using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

/// <summary>Layers of one treatment over several surfaces, planned zone by zone: over what a layer goes, and whom an edit is for.</summary>
public sealed class WholePieceTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    private async Task<JsonNode> Sheet(JsonNode zone) => await session.Ask($"/api/plan/zones/{zone}");

    [Fact]
    public async Task A_layer_is_laid_over_everything_and_an_edit_asks_once_whom_it_is_for()
    {
        var workshop = (await session.Ask("/api/workshops"))[0]!["id"]!;
        var library = (await session.Ask($"/api/workshops/{workshop}/treatments")).AsArray();
        var (window, door) = (library.Single(t => t!["name"]!.ToString() == "Window glass")!, library.Single(t => t!["name"]!.ToString() == "House door")!);
        var (glassZone, doorZone) = (window["uses"]![0]!["zoneId"]!, door["uses"]![0]!["zoneId"]!);
        var (glassHad, doorHad) = ((await Sheet(glassZone))["layers"]!.AsArray().Count, (await Sheet(doorZone))["layers"]!.AsArray().Count);
        var page = session.Open($"/treatments/{workshop}/{window["id"]}");
        page.SeeText("h3", "One surface");
        page.Choose("Bring another treatment in", "House door");
        page.ClickText("button", "Bring it in");
        page.SeeText("h3", "One order over 2 surfaces");
        void Open(JsonNode zone) => page.Driver.Navigate().GoToUrl(page.Driver.Url.Split("/treatments")[0].Split("/plan")[0] + $"/plan/{window["uses"]![0]!["setId"]}/{zone}");

        // Each zone has the stack of its own surface, one after the other on one page.
        Open(doorZone);
        page.SeeText("[data-treatment]", "its surface House door");
        Assert.Equal(doorHad, page.Stack().Count);
        page.Press(".");
        page.SeeText("[data-treatment]", "its surface Window glass");
        Assert.Equal(glassHad, page.Stack().Count);
        page.Press(",");
        page.SeeText("[data-treatment]", "its surface House door");
        Assert.Equal(doorHad, page.Stack().Count);

        // A new layer: over what, with everything first where that is usual.
        page.Press("a");
        page.Choose("Technique", "varnish");
        page.Choose("Material", "Tarnside Satin");
        page.SeeText("[role=group] span", "varnish usually goes over everything");
        Assert.Empty(page.Axe("[data-editor]"));
        page.ClickText("[role=group] button", "Everything");
        page.SeeText("li", "It goes over all 2 surfaces");
        page.Wait(d => d.FindElement(By.CssSelector("[role=group][aria-label='Goes over'] button[aria-pressed=true]")).Text.Contains("Everything", StringComparison.Ordinal));
        Assert.Equal((glassHad + 1, doorHad + 1), ((await Sheet(glassZone))["layers"]!.AsArray().Count, (await Sheet(doorZone))["layers"]!.AsArray().Count));

        // An edit of it asks once whom it is for.
        page.Fill("Coats", "2");
        page.Keys(Keys.Tab);
        page.SeeText("[role=dialog] h2", "Whom is this for?");
        page.SeeText("[role=dialog]", "What you changed also goes over Window glass");
        Assert.Empty(page.Axe("[role=dialog]"));
        page.ClickText("[role=dialog] button", "Wherever the layer lies");
        page.SeeText("[data-scope=everywhere]", "for every surface");
        page.Stored();
        var satin = (await Sheet(doorZone))["layers"]!.AsArray()[^1]!["paint"]![0]!["materialId"]!.ToString();
        async Task<string> Coats(JsonNode zone) => (await Sheet(zone))["layers"]!.AsArray().Last(l => l!["technique"]!.ToString() == "varnish" && l["paint"]![0]!["materialId"]!.ToString() == satin)!["coats"]!.ToString();
        Assert.Equal(("2", "2"), (await Coats(doorZone), await Coats(glassZone)));
        page.ClickText("[data-scope] button", "Ask again");
        page.Gone("[data-scope]");
        page.Fill("Coats", "3");
        page.Keys(Keys.Tab);
        page.ClickText("[role=dialog] button", "Only House door");
        page.SeeText("[data-scope=here]", "for House door alone");
        page.Stored();
        Assert.Equal(("3", "2"), (await Coats(doorZone), await Coats(glassZone)));

        // What lies on one surface alone is nobody else's, and nothing is asked.
        page.ClickText("[data-scope] button", "Ask again");
        page.Gone("[data-scope]");
        page.Click("li[data-layer='2'] button[data-select]");
        page.Fill("Coats", "4");
        page.Keys(Keys.Tab);
        page.Stored();
        page.Gone("[role=dialog]");
        Assert.Empty(page.Errors());
    }
}
