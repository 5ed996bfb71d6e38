using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Lowfell.Tests;
using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

/// <summary>A phone is taken in, works at the bench and is sent away; a scale mixes a pot.</summary>
public sealed class OtherDevicesTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    [Fact]
    public async Task A_phone_is_taken_in_works_and_is_sent_away()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Go("Other devices");
        page.SeeText("h2", "The door is shut");
        Assert.Empty(page.Axe());

        // An address that is none of this machine's is refused where it was typed, and nothing is lost.
        var port = Ports.Free();
        page.Choose("At this machine's address", "another address");
        page.Fill("Address", "203.0.113.7");
        page.Fill("Port", $"{port}");
        page.Keys(Keys.Tab);
        page.ClickText("main button", "Open it");
        page.SeeText("[data-said]", "no address of this machine");
        page.Fill("Address", "127.0.0.2");
        page.ClickText("main button", "Open it");
        page.SeeText("h2", "The door is open");
        page.ClickText("main button", "To work with");
        var key = page.Says("[data-key]");
        Assert.Empty(page.Axe("[role=dialog]"));
        page.See("[role=dialog] svg[role=img]");

        var phone = session.OpenElsewhere($"https://127.0.0.2:{port}/pair#{key}");
        phone.SeeText("h1", "Pair this device");
        Assert.Equal(key, phone.Says("#key", "value"));
        Assert.DoesNotContain("#", phone.Driver.Url);
        Assert.Empty(phone.Axe());
        phone.Fill("Name of this device", "Wet fingers");
        phone.ClickText("button", "Pair it");
        phone.See("section[aria-label='What to do now'] h1");
        Assert.Empty(phone.Driver.FindElements(By.CssSelector("nav[aria-label=Places]")));
        page.Keys(Keys.Escape);
        page.Gone("[role=dialog]");
        page.See("[data-device='Wet fingers']");

        // What is done on the phone is seen here.
        phone.ClickText("button", "More");
        phone.Click("[data-act=note]");
        phone.SeeText("[role=dialog] h2", "Note");
        phone.Keys("told from the phone" + Keys.Enter);
        phone.Gone("[role=dialog]");
        phone.See("[data-waiting='0']");
        var workshop = (await session.Ask("/api/workshops"))[0]!["id"];
        Assert.Contains((await session.Ask($"/api/bench/{workshop}"))["steps"]!.AsArray(), s => s!["words"]!.GetValue<string>().Contains("told from the phone", StringComparison.Ordinal));

        page.Click("button[aria-label='Send Wet fingers away']");
        page.Gone("[data-device='Wet fingers']");
        phone.ClickText("button", "More");
        phone.Click("[data-act=note]");
        phone.SeeText("[role=dialog] h2", "Note");
        phone.Keys("too late" + Keys.Enter);
        phone.Wait(d => d.FindElement(By.CssSelector("[data-waiting]")).GetAttribute("data-waiting") == "1");
        phone.SeeText("[role=alert]", "kept here, and can be saved as a file");
        phone.Driver.Navigate().Refresh();
        phone.SeeText("h1", "Pair this device");

        // It keeps what it has, and can show and save it; taken in again, it sends it as who it is now.
        phone.SeeText("#kept", "too late");
        Assert.Empty(phone.Axe());
        ((IJavaScriptExecutor)phone.Driver).ExecuteScript("window.saved = []; HTMLAnchorElement.prototype.click = function () { saved.push(this.download) }");
        phone.ClickText("button", "Save it as a file");
        phone.Wait(d => (bool)((IJavaScriptExecutor)d).ExecuteScript("return saved[0] === 'lowfell bench.json'")!);
        page.ClickText("main button", "To work with");
        var again = page.Says("[data-key]");
        phone.Fill("Key", again);
        phone.Fill("Name of this device", "Dry fingers");
        phone.ClickText("button", "Pair it");
        phone.See("[data-waiting='0']");
        Assert.Contains((await session.Ask($"/api/bench/{workshop}"))["steps"]!.AsArray(), s => s!["words"]!.GetValue<string>().Contains("too late", StringComparison.Ordinal) && s["painter"]!.GetValue<string>() == "Dry fingers");
        Assert.DoesNotContain(page.Errors(), e => !e.Contains("400", StringComparison.Ordinal));
    }

    [Fact]
    public async Task A_pot_is_mixed_by_the_scale()
    {
        var workshop = (await session.Ask("/api/workshops"))[0]!;
        var overview = await session.Ask($"/api/plan/sets/{workshop["sets"]![0]!["id"]}");
        var zone = overview["designs"]!.AsArray().SelectMany(d => d!["zones"]!.AsArray()).First(z => z!["name"]!.GetValue<string>() == "Tide band")!["id"]!;
        var layer = (await session.Ask($"/api/plan/zones/{zone}"))["layers"]![1]!["id"]!;
        await using var scale = await Scale.Begin(session.Address, $"{workshop["id"]}");
        var page = session.Open($"/bench/{workshop["id"]}?zone={zone}&layer={layer}");
        page.SeeText("section[aria-label='What to do now'] h1", "Base coat");
        page.Press("o");
        page.SeeText("[role=dialog] section[aria-label='By the scale']", "12.0");
        page.Click("[role=dialog] section[aria-label='By the scale'] button:not([disabled])");
        string Says() => page.Says("[role=dialog] section[aria-label='By the scale'] [role=status]");
        for (var pours = 0; pours < 8 && !page.Wait(_ => Says() is { Length: > 0 } said && !said.Contains("Weighing", StringComparison.Ordinal) ? said : null)!.Contains("Mixed", StringComparison.Ordinal); pours++)
        {
            // As many drops as it says, of what it says; a hand that counts right.
            var said = Says();
            scale.Grams += int.Parse(said.Split(' ')[0], System.Globalization.CultureInfo.InvariantCulture) * 0.05 * 1.2;
            page.Wait(_ => Says() is var now && now != said ? now : null);
        }

        page.SeeText("[role=dialog] [role=status]", "Mixed: within");
        Assert.Empty(page.Axe("[role=dialog]"));
        page.ClickText("[role=dialog] button", "Count what was weighed");
        page.SeeText("[role=dialog] [role=status]", "As weighed");
        page.Fill("Label", "By weight");
        page.ClickText("[role=dialog] button", "It is mixed");
        page.Gone("[role=dialog]");
        page.See("[data-waiting='0']");
        var pot = (await session.Ask($"/api/pots/{overview["setId"]}"))["pots"]!.AsArray().Single(p => p!["label"]!.GetValue<string>() == "By weight")!;
        Assert.True(pot["contents"]!.AsArray().Count > 1);
        Assert.All(pot["contents"]!.AsArray(), c => Assert.Null(c!["drops"]));
    }

    /// <summary>A scale that says five times a second what lies on it.</summary>
    private sealed class Scale(HttpClient http, Task saying, CancellationTokenSource end) : IAsyncDisposable
    {
        private sealed class Load
        {
            public double Grams { get; set; } = 12;
        }

        private Load load = new();

        public double Grams
        {
            get => load.Grams;
            set => load.Grams = value;
        }

        public static async Task<Scale> Begin(string address, string workshop)
        {
            var http = new HttpClient { BaseAddress = new Uri(address) };
            async Task<JsonNode> Send(string path, object body)
            {
                using var request = new HttpRequestMessage(HttpMethod.Post, path) { Content = JsonContent.Create(body) };
                request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
                using var answer = await http.SendAsync(request, Stop);
                answer.EnsureSuccessStatusCode();
                return JsonNode.Parse(await answer.Content.ReadAsStringAsync(Stop))!;
            }

            var key = (await Send($"/api/devices/{workshop}/keys", new { role = "measure" }))["key"]!.GetValue<string>();
            var secret = Guid.NewGuid().ToString("n") + Guid.NewGuid().ToString("n");
            await Send("/api/pairing", new { key, name = "Pot scale", secret });
            http.DefaultRequestHeaders.Authorization = new("Bearer", secret);
            var (end, load) = (new CancellationTokenSource(), new Load());
            async Task Say()
            {
                using var timer = new PeriodicTimer(TimeSpan.FromMilliseconds(200));
                while (!end.IsCancellationRequested && await timer.WaitForNextTickAsync(CancellationToken.None))
                    await Send("/api/instruments/readings", new { readings = new[] { new { grams = Math.Round(load.Grams, 2) } } });
            }

            return new Scale(http, Say(), end) { load = load };
        }

        public async ValueTask DisposeAsync()
        {
            await end.CancelAsync();
            await saying;
            http.Dispose();
            end.Dispose();
        }
    }
}
