using System.Collections.Concurrent;
using System.Text.Json.Nodes;
using Lowfell.Tests;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;
using Microsoft.Extensions.Hosting;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;

[assembly: AssemblyFixture(typeof(Lowfell.Browser.Tests.AtTheEnd))]

namespace Lowfell.Browser.Tests;

/// <summary>Ends what the tests had in common.</summary>
public sealed class AtTheEnd : IDisposable
{
    public void Dispose() => BrowserSession.QuitAll();
}

/// <summary>The real server over a fresh database, and Debian's Chromium to look at it.</summary>
public sealed class BrowserSession : IAsyncLifetime
{
    private const string Template = "browser_template";
    private static readonly Lazy<Task> template = new(MakeTemplate);

    /// <summary>Browsers that a class is done with, wiped clean, for the next one.</summary>
    private static readonly ConcurrentBag<Browser> idle = [];
    private readonly List<Browser> browsers = [];
    private string database = "";
    private WebApplicationFactory<Program>? server;

    /// <summary>A browser, what it was opened for, and the test that has it.</summary>
    private sealed record Browser(IWebDriver Driver, int Width, int Height, bool Dark, string Test);

    public string Address { get; private set; } = "";

    public async ValueTask InitializeAsync()
    {
        await template.Value;
        database = $"browser_{Guid.NewGuid():n}";
        await TestDatabase.Create(database, Template);
        Serve(Ports.Free());
    }

    /// <summary>Ends the server without a word to those who are at it.</summary>
    public async Task CutOff()
    {
        await server!.Services.GetRequiredService<IHost>().StopAsync(new CancellationToken(canceled: true));
        await server.DisposeAsync();
        server = null;
    }

    /// <summary>Starts it again where it was.</summary>
    public void StartAgain() => Serve(new Uri(Address).Port);

    private void Serve(int port)
    {
        server = Served.Start(database, port, s => s.AddSingleton<TimeProvider>(Morning.Clock));
        Address = $"http://127.0.0.1:{port}";
    }

    public async ValueTask DisposeAsync()
    {
        foreach (var browser in browsers)
            PutAside(browser);
        if (server is not null)
            await CutOff();
        await TestDatabase.LetGo(database);
    }

    private void PutAside(Browser browser)
    {
        try
        {
            if (browser.Width > 0 && browser.Driver.WindowHandles.Count == 1)
            {
                idle.Add(browser with { Driver = Wiped(browser.Driver), Test = "" });
                return;
            }
        }
        catch (WebDriverException)
        {
            // One that cannot be wiped is of no use to anybody.
        }

        browser.Driver.Quit();
    }

    /// <summary>Closes every browser that is left when all tests are done.</summary>
    internal static void QuitAll()
    {
        while (idle.TryTake(out var browser))
            browser.Driver.Quit();
    }

    /// <summary>Making tables and the demo takes seconds; it is done once, and every class of tests gets a copy.</summary>
    private static async Task MakeTemplate()
    {
        await TestDatabase.Create(Template);
        await using (Served.Start(Template, with: s => s.AddSingleton<TimeProvider>(Morning.Clock)))
        {
        }

        await TestDatabase.LetGo(Template);
    }

    /// <summary>A browser that knows nothing: a new one, or one that an earlier test is done with, wiped clean.</summary>
    public Page Open(string path = "/", int width = 1280, int height = 800, bool dark = false)
    {
        var test = TestContext.Current.Test!.UniqueID;
        var own = browsers.FindIndex(b => (b.Width, b.Height, b.Dark) == (width, height, dark) && b.Test != test);
        var driver = own >= 0 ? Wiped(browsers[own].Driver) : Idle(width, height, dark) ?? Launch(width, height, dark);
        if (own >= 0)
            browsers.RemoveAt(own);
        browsers.Add(new Browser(driver, width, height, dark, test));
        driver.Navigate().GoToUrl(path.StartsWith('/') ? Address + path : path);
        return new Page(driver);
    }

    private static IWebDriver? Idle(int width, int height, bool dark)
    {
        List<Browser> others = [];
        IWebDriver? found = null;
        while (found is null && idle.TryTake(out var browser))
            if ((browser.Width, browser.Height, browser.Dark) == (width, height, dark))
                found = browser.Driver;
            else
                others.Add(browser);
        others.ForEach(idle.Add);
        return found;
    }

    /// <summary>Runs a script before every page that this browser loads from now on; no other test gets the browser.</summary>
    public void OnEveryLoad(Page page, string script)
    {
        ((ChromeDriver)page.Driver).ExecuteCdpCommand("Page.addScriptToEvaluateOnNewDocument", new() { ["source"] = script });
        var own = browsers.FindIndex(b => ReferenceEquals(b.Driver, page.Driver));
        browsers[own] = browsers[own] with { Width = 0 };
    }

    /// <summary>A browser that keeps what it knows in a folder: closed and opened again, it is the same one.</summary>
    public Page OpenKept(string folder, string path)
    {
        var driver = Launch(1280, 800, dark: false, folder);
        browsers.Add(new Browser(driver, 0, 0, false, TestContext.Current.Test!.UniqueID));
        driver.Navigate().GoToUrl(Address + path);
        return new Page(driver);
    }

    /// <summary>A browser on another device: it takes the workshop's own certificate.</summary>
    public Page OpenElsewhere(string address)
    {
        var driver = Launch(390, 844, dark: true, elsewhere: true);
        browsers.Add(new Browser(driver, 0, 0, true, TestContext.Current.Test!.UniqueID));
        driver.Navigate().GoToUrl(address);
        return new Page(driver);
    }

    /// <summary>Closes a browser as its window is closed.</summary>
    public void Close(Page page)
    {
        browsers.RemoveAll(b => ReferenceEquals(b.Driver, page.Driver));
        page.Driver.Quit();
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

    /// <summary>A file as the server sends it.</summary>
    public async Task<byte[]> Bytes(string path)
    {
        using var http = new HttpClient { BaseAddress = new Uri(Address) };
        return await http.GetByteArrayAsync(path, TestContext.Current.CancellationToken);
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
    private IWebDriver Wiped(IWebDriver driver)
    {
        ((ChromeDriver)driver).ExecuteCdpCommand("Network.emulateNetworkConditions", new() { ["offline"] = false, ["latency"] = 0, ["downloadThroughput"] = -1, ["uploadThroughput"] = -1 });
        if (!driver.Url.StartsWith("http", StringComparison.Ordinal))
            driver.Navigate().GoToUrl(Address);
        ((IJavaScriptExecutor)driver).ExecuteScript("localStorage.clear(); sessionStorage.clear()");
        driver.Navigate().GoToUrl("about:blank");
        ((ChromeDriver)driver).ExecuteCdpCommand("Storage.clearDataForOrigin", new() { ["origin"] = Address, ["storageTypes"] = "indexeddb,cache_storage,service_workers" });
        ((ChromeDriver)driver).ExecuteCdpCommand("Network.setBlockedURLs", new() { ["urls"] = Array.Empty<string>() });
        driver.Manage().Logs.GetLog(LogType.Browser);
        return driver;
    }

    private static ChromeDriver Launch(int width, int height, bool dark, string? keepsIn = null, bool elsewhere = false)
    {
        // The program itself: what lies in /usr/bin only calls it, and would leave it running.
        var options = new ChromeOptions { AcceptInsecureCertificates = elsewhere, BinaryLocation = "/usr/lib/chromium/chromium-headless-shell" };
        options.AddArguments("--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking", "--disable-component-update",
            "--disable-sync", "--disable-dev-shm-usage", $"--window-size={width},{height}", "--force-prefers-reduced-motion");
        if (keepsIn is not null)
        {
            // The small one has no page in a folder of its own.
            options.BinaryLocation = "/usr/lib/chromium/chromium";
            options.AddArguments("--headless=new", $"--user-data-dir={keepsIn}");
        }

        if (dark)
            options.AddArgument("--blink-settings=preferredColorScheme=0");
        if (Environment.UserName == "root")
            options.AddArgument("--no-sandbox");
        options.SetLoggingPreference(LogType.Browser, LogLevel.All);
        var service = ChromeDriverService.CreateDefaultService("/usr/bin", "chromedriver");
        service.SuppressInitialDiagnosticInformation = true;
        var driver = new ChromeDriver(service, options);

        // What looks through a whole view takes its time on a machine that is busy with other things.
        driver.Manage().Timeouts().AsynchronousJavaScript = TimeSpan.FromMinutes(3);

        driver.ExecuteCdpCommand("Page.addScriptToEvaluateOnNewDocument", new() { ["source"] = Morning.Clock.Script });

        // A painter who has said once that an edit of a shared stack is for all its zones; who is asked again forgets it (Page.AskAgain).
        driver.ExecuteCdpCommand("Page.addScriptToEvaluateOnNewDocument", new() { ["source"] = "try { if (location.protocol === 'http:') localStorage.setItem('lowfell.shared', 'all') } catch { }" });
        return driver;
    }
}
