using System.Globalization;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Support.UI;

namespace Lowfell.Benchmarks;

/// <summary>Moves the dilution slider of the demo's filter in a real browser and counts the frames in which the column shows new colours, by the browser's own timeline.</summary>
internal static class Frames
{
    private const int Steps = 180, StepsOneWay = 45, Drags = 5;

    // Just after each frame is drawn: whether the column's colours, or the section, changed with it. However much changes in one frame
    // counts once.
    private const string Watch = """
        performance.clearMarks();
        const seen = { column: false, section: false };
        const watch = (target, what, options) => new MutationObserver(() => { seen[what] = true; }).observe(target, { subtree: true, ...options });
        watch(document.querySelector('[aria-label="The stack"]'), 'column', { attributes: true, attributeFilter: ['data-colours'] });
        watch(document.querySelector('figure svg'), 'section', { attributes: true, attributeFilter: ['d', 'fill'], childList: true });
        const drawn = new MessageChannel();
        drawn.port1.onmessage = () => {
          for (const what in seen)
            if (seen[what]) { performance.mark(what); seen[what] = false; }
        };
        (function frame() { drawn.port2.postMessage(0); requestAnimationFrame(frame); })();
        """;

    public static void Run(string url, string zonePath, double leastFrames, double yardstick)
    {
        using var driver = Launch();
        var script = (IJavaScriptExecutor)driver;
        var wait = new WebDriverWait(driver, TimeSpan.FromSeconds(20));
        wait.IgnoreExceptionTypes(typeof(NoSuchElementException), typeof(InvalidOperationException));
        driver.ExecuteCdpCommand("Emulation.setDeviceMetricsOverride", new() { ["width"] = 1280, ["height"] = 800, ["deviceScaleFactor"] = 1, ["mobile"] = false });
        driver.Navigate().GoToUrl(url + zonePath);
        wait.Until(d => d.FindElement(By.CssSelector("li[data-layer='6'] button[data-select]")));
        script.ExecuteScript("document.querySelector(\"li[data-layer='6'] button[data-select]\").focus()");
        driver.SwitchTo().ActiveElement().SendKeys("c");
        wait.Until(d => d.FindElements(By.CssSelector("aside [role=slider]")).First(s => s.GetAttribute("aria-valuetext")?.EndsWith("paint", StringComparison.Ordinal) == true));
        driver.Manage().Timeouts().AsynchronousJavaScript = TimeSpan.FromSeconds(60);
        Drag(script);
        script.ExecuteScript(Watch);
        var drags = Enumerable.Range(0, Drags).Select(_ => Watched(script)).ToList();
        foreach (var what in new[] { "column", "section" })
        {
            // Other work on the machine slows single drags; the middle one stands for all.
            var times = drags.Select(d => d[what]).OrderBy(Rate).ElementAt(Drags / 2);
            var gaps = times.Zip(times.Skip(1), (a, b) => b - a).Order().ToList();
            var rate = Rate(times);
            var typical = gaps.Count > 0 ? gaps[gaps.Count / 2] : 0;
            var all = string.Join(", ", drags.Select(d => Rate(d[what]).ToString("0", CultureInfo.InvariantCulture)));
            Console.WriteLine($"{$"dilution slider in the browser, frames a second, {what}",-66}{rate,12:0.0}{leastFrames,10:0}{typical / yardstick,14:0.0}   {(rate >= leastFrames ? "within" : "UNDER")}   (median gap {typical:0.0} ms, longest {gaps.LastOrDefault():0.0} ms; of {all})");
        }
    }

    /// <summary>A browser of the size that the page is drawn for.</summary>
    public static ChromeDriver Launch()
    {
        // The program itself: what lies in /usr/bin only calls it, and would leave it running.
        var options = new ChromeOptions { BinaryLocation = "/usr/lib/chromium/chromium-headless-shell" };
        options.AddArguments("--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update",
            "--disable-sync", "--window-size=1280,800", "--no-sandbox");
        var driver = new ChromeDriver(ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver"), options);

        // It was said once that an edit of a shared stack is for all its zones; else a question would stand before the slider.
        driver.ExecuteCdpCommand("Page.addScriptToEvaluateOnNewDocument", new() { ["source"] = "try { if (location.protocol === 'http:') localStorage.setItem('lowfell.shared', 'all') } catch { }" });
        return driver;
    }

    private static double Rate(List<double> times) => times.Count > 1 ? (times.Count - 1) * 1000 / (times[^1] - times[0]) : 0;

    /// <summary>One drag, and when the browser drew new colours in it.</summary>
    private static Dictionary<string, List<double>> Watched(IJavaScriptExecutor script)
    {
        script.ExecuteScript("performance.clearMarks()");
        Drag(script);
        return new[] { "column", "section" }.ToDictionary(w => w, what => ((IReadOnlyCollection<object>)script.ExecuteScript($"return performance.getEntriesByName('{what}').map(e => e.startTime)")!)
            .Select(t => Convert.ToDouble(t, CultureInfo.InvariantCulture)).ToList());
    }

    /// <summary>One step of the thumb in every frame the browser draws, to and fro twice, so that it ends where it began.</summary>
    private static void Drag(IJavaScriptExecutor script) => script.ExecuteAsyncScript($$"""
        const done = arguments[0];
        const thumb = document.querySelector('aside [role=slider]');
        let step = 0;
        (function next() {
          if (step === {{Steps}}) return requestAnimationFrame(() => requestAnimationFrame(done));
          const key = Math.floor(step++ / {{StepsOneWay}}) % 2 === 0 ? 'ArrowLeft' : 'ArrowRight';
          thumb.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
          requestAnimationFrame(next);
        })();
        """);
}
