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

    /// <summary>At the bench a layer over two zones is told once, less what was taken out, and coat by coat.</summary>
    [Fact]
    public async Task At_the_bench_a_layer_over_two_zones_is_one_thing_to_do_less_what_is_taken_out_coat_by_coat()
    {
        var workshop = (await session.Ask("/api/workshops"))[0]!["id"]!;
        var library = (await session.Ask($"/api/workshops/{workshop}/treatments")).AsArray();
        var timber = library.Single(t => t!["name"]!.ToString() == "Jetty timber")!;
        var (set, zone) = (timber["uses"]![0]!["setId"]!, timber["uses"]![0]!["zoneId"]!);
        var page = session.Open($"/treatments/{workshop}/{timber["id"]}");
        page.SeeText("h3", "One surface");
        page.Choose("Bring another treatment in", "Jetty rope");
        page.ClickText("button", "Bring it in");
        page.SeeText("h3", "One order over 2 surfaces");
        var root = page.Driver.Url.Split("/treatments")[0];
        page.Driver.Navigate().GoToUrl($"{root}/plan/{set}/{zone}");
        page.SeeText("[data-treatment]", "its surface");
        page.Press("a");
        page.Choose("Technique", "varnish");
        page.Choose("Material", "Tarnside Satin");
        page.ClickText("[role=group] button", "Everything");
        page.SeeText("li", "It goes over all 2 surfaces");
        page.Fill("Coats", "2");
        page.Keys(Keys.Tab);
        page.ClickText("[role=dialog] button", "Wherever the layer lies");
        page.Stored();
        var line = (await Sheet(zone))["layers"]!.AsArray()[^1]!["id"]!;

        page.Driver.Navigate().GoToUrl($"{root}/bench/{workshop}?zone={zone}&layer={line}");
        page.SeeText("section[aria-label='What to do now'] h1", "Varnish");
        page.SeeText("section[aria-label='What to do now'] li", "2 coats");
        var places = page.Wait(d => d.FindElements(By.CssSelector("[role=group][aria-label='Where it goes'] button")) is { Count: 2 } two ? two.Select(b => b.Text).ToList() : null)!;
        Assert.Empty(page.Axe());

        // One coat on all its pieces, on both zones: nothing is done yet, and it says how far it is.
        var piece = page.Says("[data-piece][aria-pressed=true]", "data-piece")!;
        page.Press(".");
        page.SeeText("section[aria-label='What to do now'] p", $"{piece} has 1 of 2 coats");
        page.See($"[data-wet~='{piece}']");
        page.SeeText("[data-act=coat]", "Coat 2 of 2");
        page.See("[data-waiting='0']");

        // The second on one of the two: the other is taken out, and stays to do.
        page.ClickText("[role=group][aria-label='Where it goes'] button", places[1]);
        page.Wait(d => d.FindElement(By.CssSelector("[role=group][aria-label='Where it goes'] button:nth-child(1)")) is { Enabled: false });
        page.Press("d");
        page.ClickText("[role=dialog] button", "Done all the same");
        page.See("[data-waiting='0']");
        var bench = await session.Ask($"/api/bench/{workshop}");
        var told = bench["steps"]!.AsArray().Select(s => s!["words"]!.ToString()).ToList();
        Assert.DoesNotContain(places[1], told[0], StringComparison.Ordinal);
        Assert.Contains("1 coat", told[1], StringComparison.Ordinal);
        Assert.Contains(places[1], told[1], StringComparison.Ordinal);
        var rest = await session.Ask($"/api/bench/{workshop}/task?zoneId={zone}&layerId={line}");
        Assert.DoesNotContain(piece, rest["pieces"]!.AsArray().Select(p => p!["label"]!.ToString()));
        Assert.Empty(page.Errors());
    }
}
