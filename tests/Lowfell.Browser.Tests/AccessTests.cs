using OpenQA.Selenium;

namespace Lowfell.Browser.Tests;

public sealed class WidestAccessTests(BrowserSession session) : AccessTests(session)
{
    [Fact]
    public void Everything_that_can_be_opened_is_clean() => EverythingIsClean(1280, dark: false);
}

public sealed class WideAccessTests(BrowserSession session) : AccessTests(session)
{
    /// <summary>Dialogs are as wide here as at 1280, and as dark as at 390.</summary>
    [Fact]
    public void Every_view_is_clean_in_the_dark() => EverythingIsClean(1024, dark: true, dialogs: false);
}

public sealed class NarrowestAccessTests(BrowserSession session) : AccessTests(session)
{
    [Fact]
    public void Everything_that_can_be_opened_is_clean_in_the_dark() => EverythingIsClean(390, dark: true);
}

/// <summary>axe holds nothing against any view, light or dark, wide or narrow. A class each, so that they run side by side.</summary>
public abstract class AccessTests(BrowserSession session) : IClassFixture<BrowserSession>
{
    /// <summary>
    /// Every view, tab, menu and dialog there is, found on the page itself: a new one is looked at without being named here. In
    /// three widths, two of them in the dark; and the focus is somewhere whatever was closed.
    /// </summary>
    protected void EverythingIsClean(int width, bool dark, bool dialogs = true)
    {
        var page = session.Open(width: width, height: 800, dark: dark);

        // All rules once; in other widths and colours, those that widths and colours decide.
        string[] rules = width == 1280 ? [] : ["color-contrast", "target-size"];
        void Clean(string what, string within = "body")
        {
            var found = page.Axe(within, rules);
            Assert.True(found.Count == 0, $"{what}: {string.Join("; ", found)}");
        }

        page.SeeText("h1", "Brick field");
        page.Stored();
        foreach (var menu in new[] { "Sets", "Workshop" })
        {
            page.Click($"[data-menu={menu}]");
            page.See("[role=menu]");
            Clean($"menu {menu}");
            page.Keys(Keys.Escape);
            page.Gone("[role=menu]");
            Focused(page, $"menu {menu}");
        }

        var views = page.Wait(d => d.FindElements(By.CssSelector("nav[aria-label=Places] a")) is { Count: > 1 } all ? all : null)!
            .SelectMany(a => a.GetAttribute("data-views")!.Split('|')).Concat(["House rules", "All sets", "This set"]).ToList();
        Assert.True(views.Count >= 7, string.Join(", ", views));
        foreach (var view in views)
        {
            page.Go(view);
            page.Wait(d => d.Title.StartsWith(view, StringComparison.Ordinal));
            page.See("main h1");
            page.Drawn();
            NothingCut(page, view);
            var opened = new HashSet<string>();
            var tabs = page.Driver.FindElements(By.CssSelector("main [role=tab]")).Count;
            for (var tab = 0; tab < Math.Max(1, tabs); tab++)
            {
                if (tabs > 0)
                    page.Wait(d =>
                    {
                        d.FindElements(By.CssSelector("main [role=tab]"))[tab].Click();
                        return true;
                    });
                Clean($"{view}, tab {tab}", tab == 0 ? "body" : "main [role=tabpanel][data-state=active]");
                if (dialogs)
                    Dialogs(page, $"{view}, tab {tab}", Clean, opened);
                // In a wide window the bars stay where they are: what is longer than the window scrolls in its own frame.
                Assert.True(width < 1024 || page.Wait(d => (bool)((IJavaScriptExecutor)d).ExecuteScript("return document.documentElement.scrollHeight <= innerHeight")!), $"{view}, tab {tab}");
            }

            if (page.Driver.FindElements(By.CssSelector("[data-pot]")) is [_, ..])
            {
                page.Driver.FindElements(By.CssSelector("main [role=tab]"))[0].Click();
                page.Click("[data-pot]");
                page.See("[data-event]");
                Clean("a pot", "main");
                if (dialogs)
                    Dialogs(page, "a pot", Clean, opened);
            }

            // What lies in the lists opens beside them: a layer with its editor, a material with its uses.
            foreach (var (one, there) in new[] { ("li[data-layer='3'] button[data-select]", "[data-editor]"), ("[data-tiles] [role=listitem] button", "main h3") })
            {
                if (page.Driver.FindElements(By.CssSelector(one)).Count == 0)
                    continue;
                page.Click(one);
                page.See(there);
                Clean($"{view}, {there}", "main");
            }
        }

        page.Driver.Navigate().GoToUrl(session.Address + "/start/new");
        page.See("main h1");
        Clean("a first set");
        page.Press("f");
        page.See("#found [role=option]");
        Clean("the finder");
        page.Keys(Keys.Escape);
        page.Gone("[role=dialog]");
        page.Press("?");
        page.See("[role=dialog]");
        Clean("the keys");
        Assert.Empty(page.Errors());
    }

    /// <summary>Opens every dialog that a button here opens, one of each kind, and none twice in a view.</summary>
    private static void Dialogs(Page page, string where, Action<string, string> clean, HashSet<string> opened)
    {
        const string openers = "const openers = [...document.querySelectorAll('main [aria-haspopup=dialog]:not([disabled])')].filter(e => e.checkVisibility()), kind = e => (e.getAttribute('aria-label') ?? e.innerText).split(' of ')[0].split(', ').at(-1).trim();";
        var script = (IJavaScriptExecutor)page.Driver;
        var kinds = ((IReadOnlyCollection<object>)script.ExecuteScript(openers + "return openers.map(kind)")!).Cast<string>().Distinct().ToList();
        foreach (var kind in kinds.Where(opened.Add))
        {
            script.ExecuteScript(openers + "const one = openers.find(e => kind(e) === arguments[0]); one.focus(); one.click()", kind);
            page.See("[role=dialog]");
            // Behind a dialog nothing can be reached; what it covers was looked at before.
            clean($"{where}: {kind}", "[role=dialog]");
            page.Wait(d =>
            {
                if (d.FindElements(By.CssSelector("[role=dialog]")).Count == 0)
                    return true;
                new OpenQA.Selenium.Interactions.Actions(d).SendKeys(Keys.Escape).Perform();
                return false;
            });
            Focused(page, $"{where}: {kind}");
        }
    }

    private static void Focused(Page page, string after) =>
        Assert.True(page.Wait(d => d.SwitchTo().ActiveElement().TagName != "body"), $"nothing has the focus after {after}");

    /// <summary>The page itself never scrolls sideways: what is wider has a frame of its own to scroll in.</summary>
    private static void NothingCut(Page page, string view) =>
        Assert.True(page.Wait(d => (bool)((IJavaScriptExecutor)d).ExecuteScript("const m = document.querySelector('main'); return document.documentElement.scrollWidth <= innerWidth && m.scrollWidth <= m.clientWidth + 1")!), view);
}
