using System.Net.Http.Json;
using System.Text.Json.Nodes;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;

namespace Lowfell.Browser.Tests;

/// <summary>What the page keeps until it is somewhere safe: whatever is refused, cut off, put right or full, nothing that was told is gone.</summary>
public sealed class BenchOutboxTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private async Task<string> Workshop() => (await session.Ask("/api/workshops"))[0]!["id"]!.GetValue<string>();

    private async Task<string> Set() => (await session.Ask("/api/workshops"))[0]!["sets"]![0]!["id"]!.GetValue<string>();

    private async Task<JsonNode> Send(HttpMethod method, string path, object? body = null, Guid? key = null)
    {
        using var http = new HttpClient { BaseAddress = new Uri(session.Address) };
        using var request = new HttpRequestMessage(method, path) { Content = JsonContent.Create(body ?? new { }) };
        request.Headers.Add("Idempotency-Key", (key ?? Guid.NewGuid()).ToString());
        using var answer = await http.SendAsync(request, Stop);
        var text = await answer.Content.ReadAsStringAsync(Stop);
        Assert.True(answer.IsSuccessStatusCode, text);
        return text.Length == 0 ? new JsonObject() : JsonNode.Parse(text)!;
    }

    private static void Offline(Page page, bool off)
    {
        var driver = (ChromeDriver)page.Driver;
        driver.ExecuteCdpCommand("Network.enable", []);
        driver.ExecuteCdpCommand("Network.emulateNetworkConditions", new() { ["offline"] = off, ["latency"] = 0, ["downloadThroughput"] = -1, ["uploadThroughput"] = -1 });
    }

    private static void Note(Page page, string words)
    {
        page.Press("n");
        page.SeeText("[role=dialog] h2", "Note");
        page.Keys(words + Keys.Enter);
        page.Gone("[role=dialog]");
    }

    private static void Sent(Page page) => page.See("[data-waiting='0']");

    /// <summary>Something of this browser's own store: a script with `db` and `done`.</summary>
    private static object? InStore(Page page, string script) => ((IJavaScriptExecutor)page.Driver).ExecuteAsyncScript(
        "const done = arguments[0]; const ask = indexedDB.open('lowfell-bench'); ask.onsuccess = () => { const db = ask.result; const all = name => new Promise(r => { const q = db.transaction(name).objectStore(name).getAll(); q.onsuccess = () => r(q.result) }); const put = (name, what) => new Promise(r => { const t = db.transaction(name, 'readwrite'); t.objectStore(name).put(what); t.oncomplete = r });" + script + " }");

    private async Task<Page> Bench()
    {
        var page = session.Open($"/bench/{await Workshop()}");
        page.See("section[aria-label='What to do now'] h1");
        return page;
    }

    /// <summary>What was noted, the newest first.</summary>
    private async Task<List<string>> Noted() => (await session.Ask($"/api/bench/{await Workshop()}"))["steps"]!.AsArray().Select(s => s!["words"]!.GetValue<string>().Split(", ")[^1]).ToList();

    private async Task<JsonNode> Unfit(string told) => (await Unfit()).Single(e => e.ToJsonString().Contains(told, StringComparison.Ordinal));

    private async Task<List<JsonNode>> Unfit() => (await session.Ask($"/api/bench/{await Workshop()}/unfit"))["entries"]!.AsArray().Select(e => e!).ToList();

    [Fact]
    public async Task A_piece_that_was_removed_meanwhile_waits_and_the_rest_is_taken_in()
    {
        var workshop = await Workshop();
        var design = (await session.Ask($"/api/plan/sets/{await Set()}"))["designs"]!.AsArray().Single(d => d!["name"]!.GetValue<string>() == "Jetty section")!;
        var zone = design["zones"]!.AsArray().Single(z => z!["name"]!.GetValue<string>() == "Iron")!["id"];
        var layer = (await session.Ask($"/api/plan/zones/{zone}"))["layers"]![4]!["id"];
        var piece = (await Send(HttpMethod.Post, $"/api/designs/{design["id"]}/pieces", new { labels = new[] { "Z99" } }))["ids"]![0]!.GetValue<string>();
        var page = session.Open($"/bench/{workshop}?zone={zone}&layer={layer}");
        page.See("[data-piece='Z99']");
        var count = page.Driver.FindElements(By.CssSelector("[data-piece]")).Count;
        Assert.True(count > 1);
        Offline(page, true);
        page.Press("r");
        page.Unready();
        page.See("[data-waiting='1']");
        var step = Guid.NewGuid();
        await Send(HttpMethod.Delete, $"/api/pieces/{piece}", null, step);
        Offline(page, false);
        ((IJavaScriptExecutor)page.Driver).ExecuteScript("window.dispatchEvent(new Event('online'))");
        Sent(page);
        page.See("[data-unfits='1']");
        var waits = await Unfit("Z99");
        Assert.Equal("Z99 was removed.", waits["why"]!.GetValue<string>());

        // It is there after a reload too, whole; axe holds nothing against where it is looked at.
        page.Driver.Navigate().Refresh();
        page.Click("[data-unfits='1']");
        page.SeeText("[role=dialog] [data-unfit]", "Z99 was removed");
        Assert.Empty(page.Axe("[role=dialog]"));
        page.ClickText("[role=dialog] button", "Take in after all");
        page.SeeText("[data-said]", "still does not fit");
        await Send(HttpMethod.Post, $"/api/workshops/{workshop}/undo", new { step });
        page.ClickText("[role=dialog] button", "Take in after all");
        page.See("[role=dialog] [data-decided]");
        page.ClickText("[role=dialog] button", "Close");
        page.Gone("[role=dialog]");
        page.Gone("[data-unfits]");
        Assert.Equal("taken in", (await Unfit("Z99"))["settled"]!.GetValue<string>());

        // In the log it can be undone, let go, and undone again.
        page.Driver.Navigate().GoToUrl(session.Address + $"/unfit/{workshop}");
        page.SeeText("h1", "What did not fit");
        var (open, decided) = ($"[data-unfit='{waits["id"]}']", $"[data-decided='{waits["id"]}']");
        page.ClickText($"{decided} button", "Undo");
        page.ClickText($"{open} button", "Let go");
        page.SeeText(decided, "let go");
        Assert.Empty(page.Axe());
        page.ClickText($"{decided} button", "Undo");
        page.ClickText($"{open} button", "Put right…");
        page.SeeText("[role=dialog] h2", "Put right what did not fit");
        Assert.Empty(page.Axe("[role=dialog]"));
        page.ClickText("[role=dialog] button", "Take it in so");
        page.SeeText(decided, "corrected");
        Assert.DoesNotContain(page.Errors(), e => !e.Contains("409", StringComparison.Ordinal) && !e.Contains("INTERNET_DISCONNECTED", StringComparison.Ordinal));
        session.Close(page);
    }

    [Fact]
    public async Task What_cannot_be_read_leaves_the_line_whole_and_what_comes_after_goes_on()
    {
        var page = await Bench();
        Note(page, "before");
        Sent(page);
        Offline(page, true);
        Note(page, "one");
        Note(page, "two");
        page.See("[data-waiting='2']");

        // Between them something that no server of this version can read.
        InStore(page, "all('events').then(async all => { const [one, two] = all; await put('events', { ...two, number: two.number + 1 }); await put('events', { ...two, id: crypto.randomUUID(), kind: 'sung to', note: 'a shanty' }); done(all.length) })");
        Offline(page, false);
        page.Driver.Navigate().Refresh();
        Sent(page);
        page.See("[data-unfits='1']");
        await using var _ = new Later(page);
        Assert.Equal(["two", "one", "before"], (await Noted()).Take(3));
        page.Wait(_ => Unfit().GetAwaiter().GetResult().Any(e => e["told"]!.GetValue<string>().Contains("a shanty", StringComparison.Ordinal)));
        var kept = (await Unfit()).Single(e => e["told"]!.GetValue<string>().Contains("a shanty", StringComparison.Ordinal));
        Assert.Null(kept["settled"]);
        page.Click("[data-unfits='1']");
        page.SeeText("[role=dialog] [data-unfit]", "could not be read");
        page.ClickText("[role=dialog] button", "As it was told");
        page.SeeText("[role=dialog] pre", "a shanty");
        page.ClickText("[role=dialog] button", "Let go");
        page.See("[role=dialog] [data-decided]");
    }

    /// <summary>Closes a page whose console was meant to have complaints in it.</summary>
    private sealed class Later(Page page) : IAsyncDisposable
    {
        public ValueTask DisposeAsync()
        {
            page.Errors();
            return ValueTask.CompletedTask;
        }
    }

    [Theory]
    [InlineData(60 * 60_000.0)]
    [InlineData(-6.0 * 365 * 86_400_000)]
    public async Task A_clock_that_is_put_right_before_it_sends_moves_what_was_told(double offMs)
    {
        var (page, workshop) = (session.Open("/"), await Workshop());
        session.OnEveryLoad(page, $"globalThis.offMs = {offMs.ToString(System.Globalization.CultureInfo.InvariantCulture)}; {Morning.Behind("-globalThis.offMs")}");
        page.Driver.Navigate().GoToUrl(session.Address + $"/bench/{workshop}");
        page.See("section[aria-label='What to do now'] h1");
        Offline(page, true);
        var (words, told) = ($"by a clock that was {offMs} off", Morning.Clock.GetUtcNow());
        Note(page, words);
        page.See("[data-waiting='1']");
        ((IJavaScriptExecutor)page.Driver).ExecuteScript("globalThis.offMs = 0");
        Offline(page, false);
        ((IJavaScriptExecutor)page.Driver).ExecuteScript("window.dispatchEvent(new Event('online'))");
        Sent(page);
        Assert.Empty(page.Driver.FindElements(By.CssSelector("[data-unfits]")));
        var step = (await session.Ask($"/api/bench/{workshop}"))["steps"]!.AsArray().Single(s => s!["words"]!.GetValue<string>().Contains(words, StringComparison.Ordinal))!;
        Assert.InRange((step["at"]!.GetValue<DateTimeOffset>() - told).TotalSeconds, -5, 30);
        session.Close(page);
    }

    [Fact]
    public async Task A_photograph_stays_until_the_picture_is_taken_in_and_can_be_sent_again_or_saved()
    {
        var (page, workshop, set) = (await Bench(), await Workshop(), await Set());
        async Task<int> Photos() => (await session.Ask($"/api/log/{set}/photos"))["photos"]!.AsArray().Count;
        var before = await Photos();
        Offline(page, true);
        ((IJavaScriptExecutor)page.Driver).ExecuteAsyncScript("""
            const done = arguments[0], canvas = Object.assign(document.createElement('canvas'), { width: 40, height: 30 });
            canvas.getContext('2d').fillRect(0, 0, 20, 20);
            canvas.toBlob(blob => {
              const files = new DataTransfer();
              files.items.add(new File([blob], 'bench.png', { type: 'image/png' }));
              const field = document.querySelector('#take-photo');
              field.files = files.files;
              field.dispatchEvent(new Event('change', { bubbles: true }));
              done();
            });
            """);
        page.See("[data-waiting='2']");

        // The set it was taken for is not there when it is sent: nothing of the picture's.
        var wrong = Guid.NewGuid();
        InStore(page, $"all('photos').then(async ([photo]) => {{ await put('photos', {{ ...photo, setId: '{wrong}' }}); done() }})");
        Offline(page, false);
        page.Driver.Navigate().Refresh();
        page.See("[data-unfits='1']");
        Sent(page);
        Assert.Equal(before, await Photos());
        page.Click("[data-unfits='1']");
        page.SeeText("[role=dialog] [data-photo]", "There is no set with this id");
        Assert.Empty(page.Axe("[role=dialog]"));

        // As a file it is a picture.
        ((IJavaScriptExecutor)page.Driver).ExecuteScript("window.saved = []; const make = URL.createObjectURL; URL.createObjectURL = b => (saved.push(b), make(b)); HTMLAnchorElement.prototype.click = function () { saved.push(this.download) }");
        page.ClickText("[role=dialog] button", "Save as file");
        page.Wait(d => (bool)((IJavaScriptExecutor)d).ExecuteScript("return saved.length === 2 && saved[1].endsWith('.jpg')")!);
        Assert.Equal(0xD8L, ((IJavaScriptExecutor)page.Driver).ExecuteAsyncScript("const done = arguments[0]; saved[0].arrayBuffer().then(b => done(new Uint8Array(b)[1]))"));
        page.ClickText("[role=dialog] button", "Save all of it as a file");
        page.Wait(d => (bool)((IJavaScriptExecutor)d).ExecuteScript("return saved.length === 4 && saved[3] === 'lowfell bench.json'")!);

        // Sent again it waits still, and once what was in the way is gone it gets there.
        page.ClickText("[role=dialog] button", "Send again");
        page.SeeText("[role=dialog] [data-photo]", "There is no set with this id");
        InStore(page, $"all('photos').then(async ([photo]) => {{ await put('photos', {{ ...photo, setId: '{set}' }}); done() }})");
        page.ClickText("[role=dialog] button", "Send again");
        page.Gone("[role=dialog] [data-photo]");
        Assert.Equal(before + 1, await Photos());
        page.Errors();
    }

    [Fact]
    public async Task A_browser_without_room_sends_all_the_same_and_says_what_it_cannot_keep()
    {
        var page = await Bench();
        Note(page, "while there is room");
        Sent(page);
        Offline(page, true);
        ((IJavaScriptExecutor)page.Driver).ExecuteScript("const add = IDBObjectStore.prototype.add; IDBObjectStore.prototype.add = function (...a) { if (this.name === 'events' && !window.roomy) throw new DOMException('full', 'QuotaExceededError'); return add.apply(this, a) }");
        Note(page, "no room left");
        Note(page, "none at all");
        page.See("[data-waiting='2']");
        page.SeeText("[role=alert]", "This browser has no room");
        Assert.Empty(page.Axe());
        Offline(page, false);
        ((IJavaScriptExecutor)page.Driver).ExecuteScript("window.dispatchEvent(new Event('online'))");
        Sent(page);
        ((IJavaScriptExecutor)page.Driver).ExecuteScript("window.roomy = true");
        Note(page, "room again");
        Sent(page);
        Assert.Equal(["room again", "none at all", "no room left", "while there is room"], (await Noted()).Take(4));
        page.Errors();
    }

    /// <summary>What lies below is not ready: it is asked once, waiting changes nothing, and the answer is a fact of the log.</summary>
    [Fact]
    public async Task Nothing_is_laid_silently_onto_what_is_not_ready()
    {
        var workshop = await Workshop();
        var zone = (await session.Ask($"/api/plan/sets/{await Set()}"))["designs"]!.AsArray().Single(d => d!["name"]!.GetValue<string>() == "Pump house")!["zones"]!.AsArray().Single(z => z!["name"]!.GetValue<string>() == "Slate roof")!["id"]!.GetValue<string>();
        var layers = (await session.Ask($"/api/plan/zones/{zone}"))["layers"]!.AsArray();
        Page At(int layer)
        {
            var page = session.Open($"/bench/{workshop}?zone={zone}&layer={layers[layer]!["id"]}");
            page.Wait(_ => page.Says("section[aria-label='What to do now'] p").Contains("Slate roof", StringComparison.Ordinal));
            return page;
        }

        var piece = (await session.Ask($"/api/bench/{workshop}/task?zoneId={zone}&layerId={layers[1]!["id"]}"))["pieces"]![0]!["label"]!.GetValue<string>();
        var page = At(0);
        page.Click($"[data-piece='{piece}']");
        page.See($"[data-piece='{piece}'][aria-pressed=true]");
        page.Press("d");
        page.See($"[data-wet~='{piece}']");
        Sent(page);
        page.Driver.Navigate().GoToUrl(session.Address + $"/bench/{workshop}?zone={zone}&layer={layers[1]!["id"]}");
        page.Click($"[data-piece='{piece}']");
        page.See($"[data-piece='{piece}'][aria-pressed=true]");
        page.Press("d");
        page.SeeText("[role=dialog] h2", "What lies below is not ready");
        Assert.Empty(page.Axe("[role=dialog]"));

        // A hand that goes on tapping does not say yes by it.
        Assert.NotEqual("BUTTON", page.Driver.SwitchTo().ActiveElement().TagName.ToUpperInvariant());
        page.ClickText("[role=dialog] button", "Wait");
        page.Gone("[role=dialog]");
        page.See($"[data-piece='{piece}']");
        page.Press("d");
        page.ClickText("[role=dialog] button", "Done all the same");
        page.Gone($"[data-piece='{piece}']");
        Sent(page);
        Assert.Contains("was ready", (await session.Ask($"/api/bench/{workshop}"))["steps"]![0]!["words"]!.GetValue<string>(), StringComparison.Ordinal);

        Assert.Empty(page.Errors());
    }
}
