using System.Text.Json.Nodes;
using OpenQA.Selenium;
using OpenQA.Selenium.Chrome;

namespace Lowfell.Browser.Tests;

/// <summary>Work at the bench: by keys, by touch, without a server, on two screens, with a clock that is wrong.</summary>
public sealed class BenchTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    private async Task<string> Path() => $"/bench/{(await session.Ask("/api/workshops"))[0]!["id"]}";

    private Task<JsonNode> Bench(string path) => session.Ask($"/api{path}");

    private static string Now(Page page) => page.Says("section[aria-label='What to do now'] h1");

    /// <summary>Everything told is in the database.</summary>
    private static void Sent(Page page) => page.See("[data-waiting='0']");

    /// <summary>Takes back all that this device has told, so that what comes after finds the bench as it was.</summary>
    private static void TakeAllBack(Page page)
    {
        page.Wait(d =>
        {
            if (d.FindElement(By.CssSelector("[data-act=back]")) is { Enabled: true } back)
                back.Click();
            return !d.FindElement(By.CssSelector("[data-act=back]")).Enabled;
        });
        Sent(page);
    }

    private static string Label(Page page) => page.Says("[data-piece][aria-pressed=true]", "data-piece")!;

    [Fact]
    public async Task A_batch_by_keys_alone_with_a_mishap_and_a_pedal()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Press("1");
        var first = Now(page);
        Assert.Equal("dark", page.Says("html", "data-bench"));
        var label = Label(page);
        page.Press("b");
        page.SeeText("[role=status]", "begun");
        page.Press("d");
        page.See($"[data-wet~='{label}']");
        page.Wait(_ => Now(page) != first);
        var second = Label(page);

        // The pedal lays the next piece, and takes it back.
        page.Keys(Keys.PageDown);
        page.See($"[data-wet~='{second}']");
        page.Keys(Keys.PageUp);
        page.See($"[data-piece='{second}']");
        Sent(page);

        // What is laid is wiped off and laid again.
        page.Press("x");
        page.SeeText("[role=dialog] h2", "Wiped off");
        page.Keys("a hair in it" + Keys.Enter);
        page.Gone("[role=dialog]");
        page.See($"[data-piece='{label}']");
        page.Press("m");
        page.SeeText("[role=dialog] h2", "Mishap");
        page.Keys("a thumb in it" + Keys.Tab);
        page.Fill("What saved it", "wiped at once");
        page.Keys(Keys.Enter);
        page.ClickText("[role=dialog] button", "Keep it");
        page.Gone("[role=dialog]");
        page.Press("n");
        page.SeeText("[role=dialog] h2", "Note");
        page.Keys("the can was cold" + Keys.Enter);
        page.Gone("[role=dialog]");
        page.Press("r");
        page.Wait(_ => page.Driver.FindElements(By.CssSelector($"[data-piece='{label}']")).Count == 0);
        Sent(page);
        Assert.Empty(page.Axe());
        var steps = (await Bench(await Path()))["steps"]!.AsArray().Select(s => s!["kind"]!.ToString()).ToList();
        Assert.Equal(["given", "noted", "mishap", "wiped"], steps.Take(4));
        page.Press("u");
        page.See($"[data-piece='{label}']");
        Sent(page);
        page.Press("c");
        page.SeeText("[role=dialog] h2", "What to work on");
        Assert.Empty(page.Axe("[role=dialog]"));
        page.Keys("slate roof pump");
        page.ClickText("[role=dialog] ul button", "Slate roof on Pump house");
        page.Wait(_ => page.Says("section[aria-label='What to do now'] p").Contains("Slate roof", StringComparison.Ordinal));
        page.Press("v");
        page.SeeText("[role=dialog] h2", "Alerts");
        page.Keys(Keys.Escape);
        page.Gone("[role=dialog]");
        TakeAllBack(page);
        page.Press("p");
        page.SeeText("h1", "Brick field");
        Assert.Equal("light", page.Says("html", "data-bench"));
        Assert.Empty(page.Errors());
    }

    [Fact]
    public async Task A_batch_by_touch_on_a_phone()
    {
        var page = session.Open(await Path(), 390, 844);
        var first = Now(page);
        var label = Label(page);
        Assert.Empty(page.Axe());

        // Whatever is tapped with paint on a finger is as big as one.
        var small = (IReadOnlyCollection<object>)((IJavaScriptExecutor)page.Driver).ExecuteScript(
            "return [...document.querySelectorAll('main button')].filter(b => b.checkVisibility()).map(b => [b.innerText, b.getBoundingClientRect()]).filter(([, r]) => r.height < 56 || r.width < 56).map(([t, r]) => `${t} ${r.width} ${r.height}`)")!;
        Assert.Empty(small);
        Assert.True((bool)((IJavaScriptExecutor)page.Driver).ExecuteScript("return document.documentElement.scrollWidth <= innerWidth")!);
        page.Click("[data-act=begin]");
        page.SeeText("[role=status]", "begun");
        page.Click("[data-act=done]");
        page.Wait(_ => Now(page) != first);
        page.See($"[data-wet~='{label}']");
        page.ClickText("main button", "More");
        page.Click("[data-act=skip]");
        page.ClickText("[role=dialog] button", "not seen from the table");
        page.ClickText("[role=dialog] button", "Skip it");
        page.Gone("[role=dialog]");
        Sent(page);
        TakeAllBack(page);
        page.See($"[data-piece='{label}']");
        Assert.Empty(page.Errors());
    }

    [Fact]
    public async Task Without_a_server_events_wait_through_a_reload_and_a_closed_browser_and_arrive_once()
    {
        var folder = Directory.CreateTempSubdirectory("lowfell-browser-").FullName;
        var path = await Path();
        var page = session.OpenKept(folder, path);
        var first = Label(page);

        // The page is kept once the browser has taken it over.
        page.Wait(d => (bool)((IJavaScriptExecutor)d).ExecuteAsyncScript("const done = arguments[0]; navigator.serviceWorker.ready.then(async () => done(navigator.serviceWorker.controller !== null && (await caches.keys()).length > 0))")!);
        page.Driver.Navigate().Refresh();
        Assert.Equal(first, Label(page));
        await session.CutOff();
        try
        {
            page.Press("d");
            page.See("[data-waiting='1']");
            page.See($"[data-wet~='{first}']");
            var second = Label(page);
            page.Driver.Navigate().Refresh();
            page.See("[data-waiting='1']");
            page.See($"[data-wet~='{first}']");
            Assert.Equal(second, Label(page));
            page.Press("d");
            page.See("[data-waiting='2']");
            session.Close(page);
            page = session.OpenKept(folder, path);
            page.See("[data-waiting='2']");
            page.Press("n");
            page.SeeText("[role=dialog] h2", "Note");
            page.Keys("no server" + Keys.Enter);
            page.See("[data-waiting='3']");
        }
        finally
        {
            session.StartAgain();
        }

        Sent(page);
        page.SeeText("main", "On the line");
        var steps = (await Bench(path))["steps"]!.AsArray();
        Assert.Equal(["noted", "given", "given"], steps.Take(3).Select(s => s!["kind"]!.ToString()));
        Assert.Equal(1, steps.Count(s => s!["words"]!.ToString().Contains("no server", StringComparison.Ordinal)));
        TakeAllBack(page);

        // What is at hand may be another layer by now: time passes and things get dry. It is wet no longer.
        page.Gone($"[data-wet~='{first}']");
        session.Close(page);
        Directory.Delete(folder, recursive: true);
    }

    [Fact]
    public async Task Two_screens_follow_each_other()
    {
        var path = await Path();
        Page one = session.Open(path), two = session.Open(path, 1024, 768);
        var label = Label(one);
        Assert.Equal(label, Label(two));
        one.Press("d");
        two.See($"[data-wet~='{label}']");
        two.Gone($"[data-piece='{label}']");
        var next = Label(two);
        two.Press("d");
        one.See($"[data-wet~='{next}']");
        two.Press("u");
        one.See($"[data-piece='{next}']");
        one.Press("u");
        two.See($"[data-piece='{label}']");
        Assert.Empty(one.Errors());
        Assert.Empty(two.Errors());
    }

    [Fact]
    public async Task A_clock_that_is_seven_minutes_wrong_dries_nothing_sooner()
    {
        var path = await Path();
        var page = session.Open("/");
        session.OnEveryLoad(page, Morning.Behind("-7 * 60000"));
        page.Driver.Navigate().GoToUrl(session.Address + path);
        var label = Label(page);
        page.Press("d");
        page.See($"[data-wet~='{label}']");
        Sent(page);
        var wet = (await Bench(path))["wet"]!.AsArray().First(w => w!["piece"]!.ToString() == label)!;
        Assert.InRange((Morning.Clock.GetUtcNow() - wet["doneAt"]!.GetValue<DateTimeOffset>()).TotalMinutes, -0.1, 1);
        page.Press("u");
        page.See($"[data-piece='{label}']");
        Sent(page);
        session.Close(page);
    }

    [Fact]
    public void Every_piece_has_a_label_to_print_and_a_number_for_its_rim()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Press("e");
        page.ClickText("a", "Labels to print");
        page.SeeText("h1", "Labels of Harrowmere Sluice");
        Assert.Equal(43, page.Wait(d => d.FindElements(By.CssSelector("[data-label=label]")) is { Count: > 0 } all ? all : null)!.Count);
        Assert.Equal(1, page.Sheets());
        page.Choose("What to print", "Rim numbers");
        Assert.Equal(43, page.Wait(d => d.FindElements(By.CssSelector("[data-label=rim]")) is { Count: > 0 } all ? all : null)!.Count);
        Assert.Empty(page.Axe());
        page.ClickText("a", "Back to the set");
        page.SeeText("h1", "Harrowmere Sluice");
        Assert.Empty(page.Errors());
    }

    [Fact]
    public void Cores_lie_side_by_side_and_a_difference_is_let_be_or_brought_level()
    {
        var page = session.Open();
        page.SeeText("h1", "Brick field");
        page.Press("2");
        page.SeeText("h1", "Brick field, Lock-wall straight");
        page.ClickText("nav a", "Tide band");
        page.SeeText("h1", "Tide band, Lock-wall straight");
        page.SeeText("[data-differs^='W5, W6 other']", "Tide again");
        Assert.Equal(8, page.Driver.FindElements(By.CssSelector("[data-core]")).Count);
        page.Press("o");
        page.Wait(d => d.FindElement(By.CssSelector("main input[type=checkbox]")).Selected);
        page.Click("[data-core=W5]");
        page.SeeText("section[aria-label='The story of W5'] li", "base coat on Tide band");
        page.Click("aside [aria-label^='Accept: W5, other']");
        page.SeeText("[role=dialog] h2", "Let it be on W5");
        page.Keys("the far end of the wall" + Keys.Enter);
        page.Gone("[role=dialog]");
        page.SeeText("aside p", "It may stay");
        page.SeeText("section[aria-label='The story of W5'] li", "the far end of the wall");
        page.ClickText("[role=tab]", "As a table");
        page.SeeText("table th", "base coat");
        Assert.Empty(page.Axe());
        page.ClickText("nav[aria-label='Designs and zones'] a", "Coping");
        page.SeeText("h1", "Coping");
        page.ClickText("aside a", "Bring level at the bench");
        page.Wait(_ => page.Says("section[aria-label='What to do now'] p").Contains("Coping", StringComparison.Ordinal));
        Assert.Empty(page.Errors());
    }
}
