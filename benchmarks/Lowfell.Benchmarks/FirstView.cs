using System.Globalization;
using OpenQA.Selenium;
using OpenQA.Selenium.Support.UI;

namespace Lowfell.Benchmarks;

/// <summary>The first view in browsers that know nothing yet: when its heading stands there, and what was sent until the stack did.</summary>
internal static class FirstView
{
    private const int Rounds = 5;
    private const double MostMs = 1000, MostKb = 250;

    // Set by the page itself in the frame in which the heading is first drawn.
    private const string Watch = """
        const seen = new MutationObserver(() => {
          if (!document.querySelector('h1')) return;
          seen.disconnect();
          requestAnimationFrame(() => performance.mark('heading'));
        });
        seen.observe(document, { childList: true, subtree: true });
        """;

    public static void Run(string url, string zonePath, Action<string, double, double> report)
    {
        var times = new List<double>();
        var kilobytes = 0.0;
        for (var n = 0; n < Rounds; n++)
        {
            using var driver = Frames.Launch();
            driver.ExecuteCdpCommand("Page.addScriptToEvaluateOnNewDocument", new() { ["source"] = Watch });
            driver.Navigate().GoToUrl(url + zonePath);
            var script = (IJavaScriptExecutor)driver;
            var wait = new WebDriverWait(driver, TimeSpan.FromSeconds(20));
            wait.Until(_ => (bool)script.ExecuteScript("return performance.getEntriesByName('heading').length > 0 && !!document.querySelector('li[data-layer]')")!);
            times.Add(Number(script, "performance.getEntriesByName('heading')[0].startTime"));
            kilobytes = Number(script, "[...performance.getEntriesByType('resource'), ...performance.getEntriesByType('navigation')].filter(e => !e.name.includes('/api/')).reduce((s, e) => s + e.transferSize, 0)") / 1024;
        }

        report("first view in a browser that knows nothing: first heading", times.Order().ElementAt(Rounds / 2), MostMs);
        report("the same: page, scripts, styles and font as sent, kB", kilobytes, MostKb);
    }

    private static double Number(IJavaScriptExecutor script, string what) => Convert.ToDouble(script.ExecuteScript($"return {what}"), CultureInfo.InvariantCulture);
}
