using System.Globalization;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Support.UI;

namespace Lowfell.Benchmarks;

/// <summary>A long shelf in a real browser: how long from the key that opens it to its first tiles, and from a letter to what it finds, each as drawn.</summary>
internal static class LongShelf
{
    private const int Rounds = 7;
    private const double OpenMs = 200, KeyMs = 100;

    // From a key to the frame in which what it asked for has been drawn.
    private const string Timed = """
        const [press, ready, done] = arguments;
        const began = performance.now(), holds = new Function(`return ${ready}`);
        new Function(press)();
        (function look() { holds() ? requestAnimationFrame(() => setTimeout(() => done(performance.now() - began))) : requestAnimationFrame(look); })();
        """;

    public static async Task Run(HttpClient http, string url, int materials, Action<string, double, double> report)
    {
        var workshop = await Workshop(http, materials);
        using var driver = Frames.Launch();
        var script = (IJavaScriptExecutor)driver;
        driver.Manage().Timeouts().AsynchronousJavaScript = TimeSpan.FromSeconds(60);
        driver.Navigate().GoToUrl($"{url}/stock/{workshop}");
        new WebDriverWait(driver, TimeSpan.FromSeconds(20)).Until(d => d.FindElements(By.CssSelector("main h1")).Count > 0);
        double Time(string press, string ready) => Convert.ToDouble(script.ExecuteAsyncScript(Timed, press, ready), CultureInfo.InvariantCulture);
        const string key = "document.querySelector('main').focus(); document.activeElement.dispatchEvent(new KeyboardEvent('keydown', { key: '{0}', bubbles: true, cancelable: true }))";
        List<double> opened = [], typed = [];
        for (var n = 0; n < Rounds; n++)
        {
            opened.Add(Time(key.Replace("{0}", "/", StringComparison.Ordinal), "document.querySelector('[data-tiles] [role=listitem]')"));
            foreach (var words in new[] { "P", "Pa", "Pai", "Paint 7" })
            {
                // As the browser types: the value of the field, and word of it.
                var type = $"const f = document.querySelector('#find'); f.focus(); Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value').set.call(f, '{words}'); window.was = document.querySelector('[data-tiles]').dataset.tiles; f.dispatchEvent(new Event('input', {{ bubbles: true }}))";
                typed.Add(Time(type, $"document.querySelector('#find').value === '{words}' && document.querySelector('[data-tiles] [role=listitem]')"));
            }

            Time(key.Replace("{0}", "k", StringComparison.Ordinal), "document.querySelector('main h1')?.innerText === 'Stock'");
        }

        // The first time its bundle and the shelf itself are fetched too.
        report($"a shelf of {materials} in the browser: opened for the first time", opened[0], 3000);
        report("the same: opened again", opened.Order().ElementAt(Rounds / 2), OpenMs);
        report("the same: a letter typed", typed.Order().ElementAt(typed.Count / 2), KeyMs);
    }

    private static async Task<string> Workshop(HttpClient http, int materials)
    {
        async Task<JsonNode> Send(string path, object body)
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, path) { Content = JsonContent.Create(body) };
            request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
            using var answer = await http.SendAsync(request);
            return JsonNode.Parse(await answer.EnsureSuccessStatusCode().Content.ReadAsStringAsync())!;
        }

        var id = (await Send("/api/workshops", new { name = $"Shelf of {materials}" }))["id"]!.GetValue<string>();
        await Send($"/api/shelf/{id}/csv", new { text = Workload.Csv(materials, 0), store = true });
        return id;
    }
}
