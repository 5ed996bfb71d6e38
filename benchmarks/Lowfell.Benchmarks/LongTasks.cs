using System.Globalization;
using OpenQA.Selenium;
using OpenQA.Selenium.Support.UI;

namespace Lowfell.Benchmarks;

/// <summary>An evening's walk through the views by keys, and how long the page was deaf in each step of it: its longest task.</summary>
internal static class LongTasks
{
    private const int Rounds = 5;
    private const double MostMs = 100;

    private const string Watch = """
        window.long = [];
        new PerformanceObserver(l => long.push(...l.getEntries().map(e => e.duration))).observe({ type: 'longtask', buffered: true });
        """;

    private static readonly (string Step, string Keys, string Until)[] walk =
    [
        ("a layer opened", Keys.ArrowUp + Keys.Enter, "[data-editor]"),
        ("the editor closed", Keys.Escape, "body:not(:has([data-editor]))"),
        ("the next zone", ".", "[data-save=saved]"),
        ("remarks", "w", "[data-counts]"),
        ("from the table", "t", "main svg"),
        ("the shelf", "/", "[data-tiles] [role=listitem]"),
        ("a letter on the shelf", "r", "[data-tiles] [role=listitem]"),
        ("pots", Keys.Tab + "j", "[data-jar]"),
        ("another mix", Keys.ArrowDown, "[data-jar]"),
        ("stock", "k", "[data-line]"),
        ("back to the layers", "p", "[data-save=saved]"),
    ];

    public static void Run(string url, string zonePath, Action<string, double, double> report)
    {
        var longest = new Dictionary<string, List<double>>();
        for (var n = 0; n < Rounds; n++)
        {
            using var driver = Frames.Launch();
            var script = (IJavaScriptExecutor)driver;
            var wait = new WebDriverWait(driver, TimeSpan.FromSeconds(20)) { PollingInterval = TimeSpan.FromMilliseconds(50) };
            wait.IgnoreExceptionTypes(typeof(NoSuchElementException), typeof(InvalidOperationException), typeof(StaleElementReferenceException));
            void Done(string step, string until)
            {
                wait.Until(d => d.FindElement(By.CssSelector(until)));
                // Two quiet frames: what the step set going has been drawn.
                script.ExecuteAsyncScript("const done = arguments[0]; requestIdleCallback(() => requestAnimationFrame(() => requestAnimationFrame(() => done())), { timeout: 2000 })");
                var tasks = ((IReadOnlyCollection<object>)script.ExecuteScript("return long.splice(0)")!).Select(t => Convert.ToDouble(t, CultureInfo.InvariantCulture));
                (longest.TryGetValue(step, out var all) ? all : longest[step] = []).Add(tasks.DefaultIfEmpty(0).Max());
            }

            driver.ExecuteCdpCommand("Page.addScriptToEvaluateOnNewDocument", new() { ["source"] = Watch });
            driver.Navigate().GoToUrl(url + zonePath);
            Done("the first view", "[data-save=saved]");
            script.ExecuteScript("document.querySelector(\"li[data-layer='6'] button[data-select]\").focus()");
            foreach (var (step, keys, until) in walk)
            {
                driver.SwitchTo().ActiveElement().SendKeys(keys);
                Done(step, until);
            }
        }

        foreach (var (step, tasks) in longest)
            report($"longest task, {step}", tasks.Order().ElementAt(Rounds / 2), MostMs);
    }
}
