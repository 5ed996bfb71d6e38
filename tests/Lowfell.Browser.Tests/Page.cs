using System.Text;
using System.Text.RegularExpressions;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Support.UI;

namespace Lowfell.Browser.Tests;

/// <summary>One browser window, with waits for conditions instead of pauses.</summary>
public sealed class Page(IWebDriver driver)
{
    public IWebDriver Driver { get; } = driver;

    public T Wait<T>(Func<IWebDriver, T> condition)
    {
        var wait = new WebDriverWait(Driver, TimeSpan.FromSeconds(40)) { PollingInterval = TimeSpan.FromMilliseconds(25) };
        wait.IgnoreExceptionTypes(typeof(InvalidOperationException), typeof(StaleElementReferenceException), typeof(NoSuchElementException), typeof(ElementClickInterceptedException), typeof(ElementNotInteractableException));
        try
        {
            return wait.Until(d =>
            {
                // What has not come at once is looked for less often: looking costs the page time too.
                wait.PollingInterval = TimeSpan.FromMilliseconds(Math.Min(150, wait.PollingInterval.TotalMilliseconds * 1.25));
                return condition(d);
            });
        }
        catch (WebDriverTimeoutException late)
        {
            var body = Driver.FindElements(By.CssSelector("main, body")).LastOrDefault()?.Text ?? "";
            var over = string.Join(" | ", Driver.FindElements(By.CssSelector("[role=dialog], [role=alertdialog], [role=menu], [role=listbox]")).Select(e => e.Text.ReplaceLineEndings(" ")).Select(t => t[..Math.Min(300, t.Length)]));
            throw new WebDriverTimeoutException($"{late.Message} at {Driver.Url}. Console: {string.Join(" | ", Errors())}. Open over it: {over}. Page: {body[..Math.Min(3000, body.Length)]}", late);
        }
    }

    /// <summary>Opens the first view with a browser that hears nothing of what other windows store.</summary>
    public void Deafen(string address)
    {
        var driver = (ChromeDriver)Driver;
        driver.ExecuteCdpCommand("Network.enable", []);
        driver.ExecuteCdpCommand("Network.setBlockedURLs", new() { ["urls"] = new[] { "*/api/changes/*" } });
        Driver.Navigate().GoToUrl(address);
    }

    public IWebElement See(string css) => Wait(d => d.FindElement(By.CssSelector(css)));

    /// <summary>What an element says, or one of its attributes: found and read as one look, so that it cannot be drawn anew in between.</summary>
    public string? Says(string css, string attribute) => Wait(d => new[] { d.FindElement(By.CssSelector(css)).GetAttribute(attribute) })[0];

    /// <inheritdoc cref="Says(string, string)"/>
    public string Says(string css) => Wait(d => d.FindElement(By.CssSelector(css)).Text);

    public IWebElement SeeText(string tag, string text) => Wait(d => WithText(d, tag, text));

    /// <summary>Waits until a view shows what it has, instead of saying that it is working it out.</summary>
    public void Drawn() => Wait(d => (bool)((IJavaScriptExecutor)d).ExecuteScript(
        "const view = document.querySelector('main'); return !!view && (!view.innerText.includes('…') || !!view.querySelector('li, [role=listitem], table, fieldset'))")!);

    public void Gone(string css) => Wait(d => d.FindElements(By.CssSelector(css)).Count == 0);

    public void Click(string css)
    {
        Wait(d =>
        {
            Hand(d.FindElement(By.CssSelector(css)));
            return true;
        });
        Homed();
    }

    public void ClickText(string tag, string text)
    {
        Wait(d =>
        {
            Hand(WithText(d, tag, text));
            return true;
        });
        Homed();
    }

    /// <summary>A click on what cannot be clicked yet would be lost: a hand waits until it can.</summary>
    private static void Hand(IWebElement on)
    {
        if (!on.Enabled)
            throw new ElementNotInteractableException("It cannot be clicked now.");
        on.Click();
    }

    /// <summary>Whatever was done, something has the focus: keys and screen readers go on from there.</summary>
    private void Homed() => Wait(d => (bool)((IJavaScriptExecutor)d).ExecuteScript("return document.activeElement !== document.body")!);

    /// <summary>Looked for in one step inside the page: a list that is drawn anew meanwhile cannot go stale between two questions.</summary>
    private static IWebElement WithText(IWebDriver d, string tag, string text) =>
        (IWebElement?)((IJavaScriptExecutor)d).ExecuteScript(
            "return [...document.querySelectorAll(arguments[0])].find(e => e.checkVisibility() && e.innerText.replaceAll('\\u00a0', ' ').includes(arguments[1])) ?? null", tag, text)
        ?? throw new NoSuchElementException($"No {tag} says '{text}'.");

    /// <summary>A key for the view, whether its data is there or still coming.</summary>
    public void Press(string key)
    {
        See("main").SendKeys(key);
        Homed();
    }

    public void Keys(string keys)
    {
        Driver.SwitchTo().ActiveElement().SendKeys(keys);
        Homed();
    }

    public void Chord(string modifier, string key)
    {
        new OpenQA.Selenium.Interactions.Actions(Driver).KeyDown(modifier).SendKeys(key).KeyUp(modifier).Perform();
        Homed();
    }

    /// <summary>Types over what a field holds.</summary>
    public void Fill(string label, string text) => Wait(d =>
    {
        var field = Field(d, label);
        field.SendKeys(OpenQA.Selenium.Keys.Control + "a");
        field.SendKeys(text);
        return field.GetAttribute("value") == text;
    });

    public IWebElement Field(IWebDriver d, string label) =>
        d.FindElements(By.TagName("label")).Where(l => l.Text.Trim() == label || l.GetAttribute("textContent") == label).Select(l => d.FindElement(By.Id(l.GetAttribute("for")!))).First();

    /// <summary>Chooses as a hand does: by typing where there is much to choose from, from the open list where there is little.</summary>
    public void Choose(string label, string option)
    {
        if (Wait(d => Field(d, label)).TagName == "input")
        {
            Fill(label, option);
            See("[role=option][aria-selected=true]");
            Keys(OpenQA.Selenium.Keys.Enter);
            Wait(d => Field(d, label).GetAttribute("aria-expanded") == "false" && Field(d, label).GetAttribute("value")!.StartsWith(option, StringComparison.Ordinal));
            return;
        }

        Wait(d =>
        {
            if (d.FindElements(By.CssSelector("[role=option]")).Count == 0)
                Field(d, label).Click();
            d.FindElements(By.CssSelector("[role=option]")).First(o => o.Text.StartsWith(option, StringComparison.Ordinal)).Click();
            return true;
        });
        Gone("[role=listbox]");
    }

    /// <summary>Into a chooser as a hand does it: a click, unless it has the focus already, and then the letters.</summary>
    public void Type(string chooser, string name) => Wait(d =>
    {
        var field = Field(d, chooser);
        if (!field.Equals(d.SwitchTo().ActiveElement()))
            field.Click();
        new OpenQA.Selenium.Interactions.Actions(d).SendKeys(name + OpenQA.Selenium.Keys.Enter).Perform();
        return true;
    });

    /// <summary>Opens a view by the bar: its place first, then the view in the second row; or from the menu of the sets or of the workshop.</summary>
    public void Go(string view)
    {
        // The bar is whole once it knows both set and workshop.
        var places = Wait(d => d.FindElements(By.CssSelector("nav[aria-label=Places] a")) is { Count: > 1 } all ? all : null)!;
        if (places.FirstOrDefault(a => a.GetAttribute("data-views")!.Split('|').Contains(view)) is not { } place)
        {
            Click($"[data-menu={(view.EndsWith(" set", StringComparison.Ordinal) || view.EndsWith(" sets", StringComparison.Ordinal) ? "Sets" : "Workshop")}]");
            ClickText("[role=menuitem]", view);
            return;
        }

        var (name, only) = (place.Text, place.GetAttribute("data-views") == view);

        // While the bar is being filled a link can move from under the pointer.
        bool There(IWebDriver d) => d.FindElements(By.CssSelector("nav[aria-label=Places] a[aria-current]")).Any(a => a.Text == name);
        Wait(d =>
        {
            if (!There(d))
                d.FindElements(By.CssSelector("nav[aria-label=Places] a")).First(a => a.Text == name).Click();
            return There(d);
        });
        if (!only)
            ClickText("nav[aria-label=Views] a", view);
    }

    /// <summary>Has the page ask again whom an edit of a shared stack is for, until it is loaded anew.</summary>
    public void AskAgain() => ((IJavaScriptExecutor)Driver).ExecuteScript("localStorage.removeItem('lowfell.shared')");

    /// <summary>Says that it is done all the same, where what lies below is not ready yet.</summary>
    public void Unready() => Wait(d =>
    {
        if (d.FindElements(By.CssSelector("[role=dialog]")).FirstOrDefault(w => w.Text.Contains("is not ready", StringComparison.Ordinal)) is { } asks)
            asks.FindElements(By.TagName("button")).Single(b => b.Text == "Done all the same").Click();
        return d.FindElements(By.CssSelector("[role=dialog]")).Count == 0;
    });

    /// <summary>Waits until everything edited is in the database.</summary>
    public void Stored() => See("[data-save=saved]");

    /// <summary>Techniques from the bottom of the stack up.</summary>
    public List<string> Stack() => Wait(d => d.FindElements(By.CssSelector("li[data-layer]"))
        .OrderBy(e => int.Parse(e.GetAttribute("data-layer")!, System.Globalization.CultureInfo.InvariantCulture))
        .Select(e => e.FindElement(By.CssSelector("button[data-select] > span:nth-of-type(2)")).Text.Split('\n')[0].TrimEnd(' ', '■', '▲', '●')).ToList());

    public IWebElement Row(int layer) => See($"li[data-layer='{layer}'] button[data-select]");

    /// <summary>
    /// Runs axe, by all its rules or by some of them, on a part of the page; on what can be reached where none is named: an open dialog,
    /// else the view.
    /// </summary>
    public List<string> Axe(string? within = null, params string[] rules)
    {
        var script = (IJavaScriptExecutor)Driver;
        if (!(bool)script.ExecuteScript("return 'axe' in window")!)
            script.ExecuteScript(File.ReadAllText(Environment.GetEnvironmentVariable("LOWFELL_TEST_AXE")!));
        var found = (IReadOnlyCollection<object>)script.ExecuteAsyncScript("""
            const [named, rules, done] = arguments;
            const within = named ?? (document.querySelector('[role=dialog]') ? '[role=dialog]' : document.querySelector('main') ? 'main' : 'body');
            axe.run(within === 'body' ? document : within, { resultTypes: ['violations'], runOnly: rules.length ? rules : ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa', 'best-practice'] })
              .then(r => done(r.violations.map(v => v.id + ': ' + v.nodes.slice(0, 3).map(n => n.html.slice(0, 160)).join(' | '))));
            """, within, rules)!;
        return found.Select(f => f.ToString()!).ToList();
    }

    /// <summary>On how many sheets of A4 the page is printed.</summary>
    public int Sheets()
    {
        var paper = new PrintOptions { PageDimensions = PrintOptions.PageSize.A4 };
        var pdf = ((WebDriver)Driver).Print(paper).AsByteArray;
        return Regex.Count(Encoding.Latin1.GetString(pdf), @"/Type\s*/Page\b");
    }

    /// <summary>Errors that the page wrote to the browser's console.</summary>
    public List<string> Errors() => Driver.Manage().Logs.GetLog(LogType.Browser).Where(l => l.Level >= LogLevel.Severe).Select(l => l.Message).ToList();
}
