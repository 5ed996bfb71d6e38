using System.Diagnostics;
using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Lowfell.Core.Words;
using OpenQA.Selenium;
using OpenQA.Selenium.Support.UI;

namespace Lowfell.Benchmarks;

/// <summary>Two hundred pieces of one design with twenty layers each: how long the server takes to lay their cores side by side, and how smoothly the page scrolls over them.</summary>
internal sealed class ManyCores(HttpClient http, Action<string, double, double> report)
{
    private const int Pieces = 200, Layers = 20, Rounds = 15, Frames = 240, PixelsAFrame = 24, Scrolls = 5;

    // As the browser draws: one step in every frame, and how long from the first to the last.
    private const string Scroll = """
        const [frames, pixels, done] = arguments;
        const box = document.querySelector('[data-cores]'), times = [];
        let by = pixels;
        (function next(at) {
          times.push(at);
          if (times.length > frames) return done({ ms: times.at(-1) - times[0], longest: Math.max(...times.slice(1).map((t, i) => t - times[i])) });
          if (box.scrollLeft + box.clientWidth >= box.scrollWidth - 1) by = -pixels;
          if (box.scrollLeft <= 0) by = pixels;
          box.scrollLeft += by;
          requestAnimationFrame(next);
        })(performance.now());
        """;

    public async Task Run(string page)
    {
        var workshop = (await Get("/api/workshops"))[0]!["id"]!.GetValue<string>();
        var set = (await Send(HttpMethod.Post, "/api/plan/sets", new
        {
            workshopId = workshop,
            name = "Long quay",
            scale = 56,
            tableMetres = 0.9,
            design = new { name = "Quay wall", pieces = Pieces, substrate = "printed plastic", silhouette = "wall", zones = new[] { new { name = "Face", areaCm2 = 80, relief = "deep", jointMm = 900, edgeMm = 400 } } },
        }))["setId"]!.GetValue<string>();
        var zone = (await Get($"/api/plan/sets/{set}"))["designs"]![0]!["zones"]![0]!["id"]!.GetValue<string>();
        await Stack(workshop, zone);
        await Lay(workshop, set, zone);
        var path = $"/api/pieces/{set}/cores?zoneId={zone}";
        var times = new List<double>();
        for (var n = 0; n < Rounds; n++)
        {
            var watch = Stopwatch.StartNew();
            await http.GetStringAsync(path);
            times.Add(watch.Elapsed.TotalMilliseconds);
        }

        report($"cores of {Pieces} pieces x {Layers} layers, asked for the first time", times[0], 1000);
        report($"cores of {Pieces} pieces x {Layers} layers, {(await Get(path))["pieces"]!.AsArray().Sum(p => p!["differences"]!.AsArray().Count)} differences", times.Order().ElementAt(Rounds / 2), 300);
        InTheBrowser($"{page}/pieces/{set}/{zone}");
    }

    /// <summary>A stack of known techniques, in which nothing is asked of one layer that another does not give.</summary>
    private async Task Stack(string workshop, string zone)
    {
        var shelf = (await Get($"/api/shelf/{workshop}/materials")).AsArray().Select(m => (Name: m!["name"]!.GetValue<string>(), Id: m["id"]!.GetValue<string>())).ToLookup(m => m.Name, m => m.Id);
        var stack = Workload.WithSlips(40).Take(Layers).Select(l => new JsonObject
        {
            ["id"] = Guid.NewGuid().ToString(),
            ["technique"] = EnumWords.Of(l.Technique),
            ["paint"] = new JsonArray([.. l.Paint.Select(p => new JsonObject { ["materialId"] = shelf[p.Material.Name].First(), ["parts"] = 1 })]),
            ["coats"] = l.Coats,
            ["region"] = EnumWords.Of(l.Region),
            ["strength"] = l.Strength,
            ["tool"] = EnumWords.Of(l.Tool),
            ["drying"] = EnumWords.Of(l.Drying),
            ["note"] = "",
        });
        var sheet = await Get($"/api/plan/zones/{zone}");
        await Send(HttpMethod.Put, $"/api/plan/zones/{zone}/stack", new JsonObject { ["version"] = sheet["version"]!.DeepClone(), ["layers"] = new JsonArray([.. stack]) });
    }

    /// <summary>Every layer on nearly every piece, half of them from two pots; one piece in twenty misses one.</summary>
    private async Task Lay(string workshop, string set, string zone)
    {
        var layers = (await Get($"/api/plan/zones/{zone}"))["layers"]!.AsArray();
        var pieces = (await Get($"/api/pieces/{set}/cores?zoneId={zone}"))["pieces"]!.AsArray().Select(p => p!["id"]!.GetValue<string>()).ToList();
        var (events, number) = (new JsonArray(), 0);
        var now = DateTimeOffset.UtcNow;
        JsonObject Event(string kind, int hoursAgo, params (string Key, JsonNode Value)[] more)
        {
            var told = new JsonObject { ["id"] = Guid.NewGuid(), ["number"] = ++number, ["kind"] = kind, ["toldAt"] = now.AddHours(-hoursAgo), ["zoneId"] = zone };
            foreach (var (key, value) in more)
                told[key] = value;
            events.Add(told);
            return told;
        }

        for (var l = 0; l < layers.Count; l++)
        {
            var hours = (layers.Count - l) * 30;
            var pots = new List<string?>();
            foreach (var share in l % 2 == 0 ? [3, 1] : Array.Empty<int>())
            {
                var pot = Guid.NewGuid().ToString();
                pots.Add(pot);
                var amounts = new JsonArray([.. layers[l]!["paint"]!.AsArray().Select((p, i) => new JsonObject { ["materialId"] = p!["materialId"]!.DeepClone(), ["ml"] = i == 0 ? 20 * share : 20 })]);
                Event("made", hours + 1, ("potId", pot), ("label", $"Quay {l} {share}"), ("vessel", "jar"), ("amounts", amounts));
            }

            if (pots.Count == 0)
                pots.Add(null);
            for (var k = 0; k < pots.Count; k++)
            {
                var mine = pieces.Where((_, n) => n % 20 != l && n * pots.Count / Pieces == k).Select(p => (JsonNode)p).ToArray();
                var given = Event("given", hours, ("layerId", layers[l]!["id"]!.DeepClone()), ("pieceIds", new JsonArray(mine)));
                if (pots[k] is { } from)
                    (given["potId"], given["ml"]) = (from, 5);
            }
        }

        await Send(HttpMethod.Post, $"/api/bench/{workshop}/events", new JsonObject { ["sentAt"] = now, ["events"] = events });
    }

    private void InTheBrowser(string url)
    {
        using var driver = Benchmarks.Frames.Launch();
        var script = (IJavaScriptExecutor)driver;
        driver.Manage().Timeouts().AsynchronousJavaScript = TimeSpan.FromSeconds(60);
        driver.Navigate().GoToUrl(url);
        new WebDriverWait(driver, TimeSpan.FromSeconds(20)).Until(d => d.FindElements(By.CssSelector("[data-cores] [data-core]")).Count > 0);
        var scrolls = Enumerable.Range(0, Scrolls).Select(_ => (Dictionary<string, object>)script.ExecuteAsyncScript(Scroll, Frames, PixelsAFrame)!)
            .Select(s => (Rate: Frames * 1000 / Convert.ToDouble(s["ms"], CultureInfo.InvariantCulture), Longest: Convert.ToDouble(s["longest"], CultureInfo.InvariantCulture))).OrderBy(s => s.Rate).ToList();
        var (rate, longest) = scrolls[Scrolls / 2];
        Console.WriteLine($"{"scrolling over them in the browser, frames a second",-66}{rate,12:0.0}{55,10}{"",14}   {(rate >= 55 ? "within" : "UNDER")}   (longest gap {longest:0.0} ms)");
    }

    private async Task<JsonNode> Get(string path) => JsonNode.Parse(await http.GetStringAsync(path))!;

    private async Task<JsonNode> Send(HttpMethod method, string path, object body)
    {
        using var request = new HttpRequestMessage(method, path) { Content = JsonContent.Create(body) };
        request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
        request.Headers.Add("Lowfell-Device", "quay bench");
        using var answer = await http.SendAsync(request);
        var text = await answer.Content.ReadAsStringAsync();
        return answer.IsSuccessStatusCode ? JsonNode.Parse(text)! : throw new InvalidOperationException($"{path}: {text}");
    }
}
