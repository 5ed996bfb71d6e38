using System.Text.Json.Nodes;
using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

/// <summary>An evening of the demo from its first layer to its last.</summary>
public sealed class BenchEveningTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    /// <summary>Which layer of what, on which piece.</summary>
    private static string AtHand(Page page) => page.Says("section[aria-label='What to do now'] > p") + page.Says("section[aria-label='What to do now'] h1");

    /// <summary>Everything that the session holds, one batch after the other, with nothing but keys; a pot is mixed on the way, and topped up.</summary>
    [Fact]
    public async Task A_whole_session_of_the_demo_by_keys_alone()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Press("1");
        var path = $"/bench/{(await session.Ask("/api/workshops"))[0]!["id"]}";
        page.See("section[aria-label='What to do now'] h1");
        string Evening(JsonNode bench) => bench["begins"]!.ToString();
        static List<JsonNode> ToLay(JsonNode bench) => bench["tasks"]!.AsArray().Where(t => !t!["beforehand"]!.GetValue<bool>()).Select(t => t!).ToList();
        var bench = await session.Ask($"/api{path}");
        var (evening, laid, mixed) = (Evening(bench), 0, false);
        while (bench["begins"] is not null && Evening(bench) == evening && ToLay(bench) is { Count: > 0 } tasks)
        {
            Assert.True(laid < 60, "The session does not end.");
            var was = AtHand(page);
            if (!mixed && page.Driver.FindElement(By.CssSelector("[data-act=mix]")).Enabled)
            {
                var hands = new Hands(page);
                page.Press("o");
                page.SeeText("[role=dialog] h2", "Pot mixed");
                hands.To("It is mixed");
                hands.Press(Keys.Enter);
                page.SeeText("[role=status]", "is mixed");
                page.Gone("[role=dialog]");
                page.Press("o");
                page.SeeText("[role=dialog] label", "More into");
                hands.To("A new pot");
                hands.Press(Keys.ArrowDown);
                hands.To("It is topped up");
                hands.Press(Keys.Enter);
                page.Gone("[role=dialog]");
                mixed = true;
            }

            page.Press("b");
            page.SeeText("[role=status]", "begun");
            page.Press(page.Driver.FindElement(By.CssSelector("[data-act=rest]")).Enabled ? "r" : "d");

            // What lies below may be wet still: by keys alone it is said that it is done all the same, once the question listens.
            page.Wait(d => d.FindElements(By.CssSelector("[role=dialog][data-listens=true]")).Count > 0 || AtHand(page) != was);
            if (page.Driver.FindElements(By.CssSelector("[role=dialog]")).Count > 0)
            {
                var hands = new Hands(page);
                hands.To("Done all the same");
                hands.Press(Keys.Enter);
            }

            page.Wait(_ => AtHand(page) != was);
            page.See("[data-waiting='0']");
            laid++;
            bench = await session.Ask($"/api{path}");
        }

        Assert.True(laid >= 3 && mixed, $"{laid} batches");
        Assert.Empty(page.Errors());
    }
}
