using System.Diagnostics;
using System.Text;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;
using Lowfell.Tests;
using Npgsql;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;
using OpenQA.Selenium.Support.UI;

namespace Lowfell.Browser.Tests;

/// <summary>The real server as its own process over a fresh database, and Debian's Chromium to look at it.</summary>
public sealed class BrowserSession : IAsyncLifetime
{
    private const string Template = "browser_template";
    private static readonly string root = Needed("LOWFELL_TEST_DATABASE");
    private static readonly Lazy<Task> template = new(MakeTemplate);
    private readonly List<Browser> browsers = [];
    private string database = "";
    private Process? server;

    /// <summary>A browser, what it was opened for, and the test that has it.</summary>
    private sealed record Browser(IWebDriver Driver, int Width, int Height, bool Dark, string Test);

    public string Address { get; private set; } = "";

    public async ValueTask InitializeAsync()
    {
        await template.Value;
        database = $"browser_{Guid.NewGuid():n}";
        await Create($"{database} template {Template}");
        (server, Address) = await Serve(database);
    }

    /// <summary>Ends the server as a power cut would.</summary>
    public async Task CutOff()
    {
        await Stop(server!);
        server = null;
    }

    /// <summary>Starts it again where it was.</summary>
    public async Task StartAgain() => (server, _) = await Serve(database, Address);

    public async ValueTask DisposeAsync()
    {
        foreach (var browser in browsers)
            browser.Driver.Quit();
        if (server is not null)
            await Stop(server);
    }

    /// <summary>Making tables and the demo takes seconds; it is done once, and every class of tests gets a copy.</summary>
    private static async Task MakeTemplate()
    {
        await Create(Template);
        var (first, _) = await Serve(Template);
        await Stop(first);
    }

    private static async Task Create(string database)
    {
        await using var db = new NpgsqlConnection(root);
        await db.OpenAsync(TestContext.Current.CancellationToken);
        await using var create = new NpgsqlCommand($"create database {database}", db);
        await create.ExecuteNonQueryAsync(TestContext.Current.CancellationToken);
    }

    private static async Task<(Process Server, string Address)> Serve(string database, string? at = null)
    {
        var address = at ?? $"http://127.0.0.1:{Ports.Free()}";
        var start = new ProcessStartInfo("dotnet") { UseShellExecute = false, RedirectStandardOutput = true, RedirectStandardError = true };
        foreach (var argument in new[] { Needed("LOWFELL_TEST_SERVER"), "--urls", address })
            start.ArgumentList.Add(argument);
        start.Environment["Lowfell__Database"] = new NpgsqlConnectionStringBuilder(root) { Database = database }.ConnectionString;
        start.Environment["ASPNETCORE_CONTENTROOT"] = Needed("LOWFELL_TEST_CONTENT");
        var server = Process.Start(start)!;
        server.OutputDataReceived += (_, _) => { };
        server.ErrorDataReceived += (_, _) => { };
        server.BeginOutputReadLine();
        server.BeginErrorReadLine();
        using var http = new HttpClient();
        await Until(async () =>
        {
            try
            {
                return (await http.GetAsync(address + "/health", TestContext.Current.CancellationToken)).IsSuccessStatusCode;
            }
            catch (HttpRequestException)
            {
                return false;
            }
        });
        return (server, address);
    }

    private static async Task Stop(Process server)
    {
        server.Kill(entireProcessTree: true);
        await server.WaitForExitAsync(CancellationToken.None);
        server.Dispose();
    }

    /// <summary>A browser that knows nothing: a new one, or one that an earlier test is done with, wiped clean.</summary>
    public Page Open(string path = "/", int width = 1280, int height = 800, bool dark = false)
    {
        var test = TestContext.Current.Test!.UniqueID;
        var idle = browsers.FindIndex(b => (b.Width, b.Height, b.Dark) == (width, height, dark) && b.Test != test);
        var driver = idle >= 0 ? Wiped(browsers[idle].Driver) : Launch(width, height, dark);
        if (idle >= 0)
            browsers.RemoveAt(idle);
        browsers.Add(new Browser(driver, width, height, dark, test));
        driver.Navigate().GoToUrl(path.StartsWith('/') ? Address + path : path);
        return new Page(driver);
    }

    /// <summary>The first view, gone on to a zone of the demo, with all of it stored.</summary>
    public Page OpenZone(string design, string zone)
    {
        var page = Open();
        page.ClickText("a", design);
        page.ClickText("a", zone);
        page.SeeText("h1", zone);
        page.Stored();
        return page;
    }

    /// <summary>What the server answers.</summary>
    public async Task<JsonNode> Ask(string path)
    {
        using var http = new HttpClient { BaseAddress = new Uri(Address) };
        return JsonNode.Parse(await http.GetStringAsync(path, TestContext.Current.CancellationToken))!;
    }

    /// <summary>The names on the demo's shelf.</summary>
    public async Task<List<string>> ShelfNames()
    {
        var workshop = (await Ask("/api/workshops"))[0]!["id"]!;
        return (await Ask($"/api/shelf/{workshop}/materials")).AsArray().Select(m => m!["name"]!.GetValue<string>()).ToList();
    }

    /// <summary>Nothing of the last test is left in it: what the page keeps is emptied, and its console is read to the end.</summary>
    private static IWebDriver Wiped(IWebDriver driver)
    {
        ((IJavaScriptExecutor)driver).ExecuteScript("localStorage.clear(); sessionStorage.clear()");
        driver.Navigate().GoToUrl("about:blank");
        ((ChromeDriver)driver).ExecuteCdpCommand("Network.setBlockedURLs", new() { ["urls"] = Array.Empty<string>() });
        driver.Manage().Logs.GetLog(LogType.Browser);
        return driver;
    }

    private static ChromeDriver Launch(int width, int height, bool dark)
    {
        // The program itself: what lies in /usr/bin only calls it, and would leave it running.
        var options = new ChromeOptions { BinaryLocation = "/usr/lib/chromium/chromium-headless-shell" };
        options.AddArguments("--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update",
            "--disable-sync", "--disable-dev-shm-usage", $"--window-size={width},{height}", "--force-prefers-reduced-motion");
        if (dark)
            options.AddArgument("--blink-settings=preferredColorScheme=0");
        if (Environment.UserName == "root")
            options.AddArgument("--no-sandbox");
        options.SetLoggingPreference(LogType.Browser, LogLevel.All);
        var service = ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver");
        service.SuppressInitialDiagnosticInformation = true;
        return new ChromeDriver(service, options);
    }

    private static string Needed(string name) =>
        Environment.GetEnvironmentVariable(name) ?? throw new InvalidOperationException("Run these tests with ./lowfell test.");

    private static async Task Until(Func<Task<bool>> condition)
    {
        using var late = CancellationTokenSource.CreateLinkedTokenSource(TestContext.Current.CancellationToken);
        late.CancelAfter(TimeSpan.FromMinutes(1));
        using var again = new PeriodicTimer(TimeSpan.FromMilliseconds(100));
        while (!await condition())
            await again.WaitForNextTickAsync(late.Token);
    }
}

/// <summary>One browser window, with waits for conditions instead of pauses.</summary>
public sealed class Page(IWebDriver driver)
{
    public IWebDriver Driver { get; } = driver;

    public T Wait<T>(Func<IWebDriver, T> condition)
    {
        var wait = new WebDriverWait(Driver, TimeSpan.FromSeconds(20)) { PollingInterval = TimeSpan.FromMilliseconds(40) };
        wait.IgnoreExceptionTypes(typeof(InvalidOperationException), typeof(StaleElementReferenceException), typeof(NoSuchElementException), typeof(ElementClickInterceptedException), typeof(ElementNotInteractableException));
        try
        {
            return wait.Until(condition);
        }
        catch (WebDriverTimeoutException late)
        {
            var body = Driver.FindElements(By.CssSelector("main, body")).LastOrDefault()?.Text ?? "";
            throw new WebDriverTimeoutException($"{late.Message} at {Driver.Url}. Console: {string.Join(" | ", Errors())}. Page: {body[..Math.Min(3000, body.Length)]}", late);
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

    public IWebElement SeeText(string tag, string text) => Wait(d => WithText(d, tag, text));

    public void Gone(string css) => Wait(d => d.FindElements(By.CssSelector(css)).Count == 0);

    public void Click(string css)
    {
        Wait(d =>
        {
            d.FindElement(By.CssSelector(css)).Click();
            return true;
        });
        Homed();
    }

    public void ClickText(string tag, string text)
    {
        Wait(d =>
        {
            WithText(d, tag, text).Click();
            return true;
        });
        Homed();
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

    /// <summary>Opens a view by the bar: its place first, then the view in the second row; or from the menu of the workshop.</summary>
    public void Go(string view)
    {
        // The bar is whole once it knows both set and workshop.
        var places = Wait(d => d.FindElements(By.CssSelector("nav[aria-label=Places] a")) is { Count: > 1 } all ? all : null)!;
        if (places.FirstOrDefault(a => a.GetAttribute("data-views")!.Split('|').Contains(view)) is not { } place)
        {
            Click("[data-menu=Workshop]");
            ClickText("[role=menuitem]", view);
            return;
        }

        place.Click();
        ClickText("nav[aria-label=Views] a", view);
    }

    /// <summary>Waits until everything edited is in the database.</summary>
    public void Stored() => See("[data-save=saved]");

    /// <summary>Techniques from the bottom of the stack up.</summary>
    public List<string> Stack() => Wait(d => d.FindElements(By.CssSelector("li[data-layer]"))
        .OrderBy(e => int.Parse(e.GetAttribute("data-layer")!, System.Globalization.CultureInfo.InvariantCulture))
        .Select(e => e.FindElement(By.CssSelector("button[data-select] > span:nth-of-type(2)")).Text.Split('\n')[0].TrimEnd(' ', '■', '▲', '●')).ToList());

    public IWebElement Row(int layer) => See($"li[data-layer='{layer}'] button[data-select]");

    /// <summary>Runs axe on the page as it stands, or on a part of it, by all its rules or by one, and returns what it holds against it.</summary>
    public List<string> Axe(string within = "body", string rule = "")
    {
        var script = (IJavaScriptExecutor)Driver;
        if (!(bool)script.ExecuteScript("return 'axe' in window")!)
            script.ExecuteScript(File.ReadAllText(Environment.GetEnvironmentVariable("LOWFELL_TEST_AXE")!));
        var found = (IReadOnlyCollection<object>)script.ExecuteAsyncScript("""
            const [within, rule, done] = arguments;
            axe.run(within === 'body' ? document : within, { resultTypes: ['violations'], runOnly: rule ? [rule] : ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa', 'best-practice'] })
              .then(r => done(r.violations.map(v => v.id + ': ' + v.nodes.slice(0, 3).map(n => n.html.slice(0, 160)).join(' | '))));
            """, within, rule)!;
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
