using System.Net.Http.Json;
using System.Text.Json.Nodes;
using OpenQA.Selenium;
using OpenQA.Selenium.Interactions;

namespace Lowfell.Browser.Tests;

/// <summary>A sentence typed quickly into every text field there is stands where it was typed, and nothing else has changed.</summary>
public abstract class TypingEverywhere(BrowserSession session)
{
    /// <summary>Letters that are keys of views, spaces that press buttons, capitals.</summary>
    private const string Sentence = "A dQuick Brown xFox Jumps over the oz Dogs";

    /// <summary>For all but the first field of a place: the same in short.</summary>
    private const string InShort = "A dQ xF oz, 7";

    private const int Parts = 3;
    private int typed;

    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    /// <summary>Of a list, which has the same field in every row, the first and the last row.</summary>
    private const string Fields = """
        const within = [...document.querySelectorAll('[role=dialog][data-listens]')].at(-1) ?? document.querySelector('main');
        const all = [...within.querySelectorAll('input, textarea')].filter(f => f.checkVisibility() && !f.disabled && !f.readOnly && !['checkbox', 'radio', 'range', 'file', 'date', 'color', 'time'].includes(f.type));
        const named = f => (f.labels?.[0]?.innerText || f.getAttribute('aria-label') || f.placeholder).split(' of ')[0].replace(/\d+/g, '#');
        const kind = f => { let path = named(f); for (let e = f; e !== within; e = e.parentElement) path += '/' + e.tagName + '.' + e.getAttribute('class'); return path };
        const kinds = Map.groupBy(all, kind), fields = all.filter(f => [0, -1].some(at => kinds.get(kind(f)).at(at) === f));
        """;

    private static int Count(Page page) => (int)(long)((IJavaScriptExecutor)page.Driver).ExecuteScript(Fields + "return fields.length")!;

    /// <summary>Types into the field at a place as a hand does, and puts back what was there.</summary>
    private static void Type(Page page, int at, string where, bool whole)
    {
        var script = (IJavaScriptExecutor)page.Driver;
        var (url, dialogs) = (page.Driver.Url, page.Driver.FindElements(By.CssSelector("[role=dialog][data-listens]")).Count);
        var field = (IWebElement?)script.ExecuteScript(Fields + "const f = fields[arguments[0]]; f?.scrollIntoView({ block: 'center' }); f?.focus(); return f ?? null", at);
        if (field is null)
            return;
        var was = field.GetAttribute("value") ?? "";
        var name = $"{where}, field {at} ({script.ExecuteScript("return arguments[0].labels?.[0]?.innerText || arguments[0].getAttribute('aria-label') || arguments[0].placeholder", field)})";
        var words = at == 0 || whole ? Sentence : InShort;
        new Actions(page.Driver).KeyDown(Keys.Control).SendKeys("a").KeyUp(Keys.Control).SendKeys(words).Perform();
        var most = int.TryParse(field.GetAttribute("maxlength"), out var length) && length > 0 ? Math.Min(length, words.Length) : words.Length;
        var stands = script.ExecuteScript("return arguments[0].isConnected && document.activeElement === arguments[0] ? arguments[0].value : null", field) as string;
        Assert.True(stands == words[..most], $"{name}: “{stands ?? "the field is gone, or has lost the focus"}”");
        Assert.True((url, dialogs) == (page.Driver.Url, page.Driver.FindElements(By.CssSelector("[role=dialog][data-listens]")).Count), $"{name}: something opened");

        // What was there is typed again, so that what is stored on leaving is what it was.
        if (field.GetAttribute("role") == "combobox")
            new Actions(page.Driver).SendKeys(Keys.Escape).Perform();
        else
            new Actions(page.Driver).KeyDown(Keys.Control).SendKeys("a").KeyUp(Keys.Control).SendKeys(was.Length == 0 ? Keys.Delete : was.Replace("\n", Keys.Shift + Keys.Enter + Keys.Null, StringComparison.Ordinal)).Perform();
    }

    protected void TypeAll(Page page, string where, bool whole = false)
    {
        for (var at = 0; at < Count(page); at++)
        {
            Type(page, at, where, whole);
            typed++;
        }
    }

    /// <summary>Everything that is stored, but for what is only looked at.</summary>
    private async Task<Dictionary<string, string>> Everything()
    {
        var workshop = (await session.Ask("/api/workshops"))[0]!;
        var (id, set) = (workshop["id"]!, workshop["sets"]![0]!["id"]!);
        var all = new Dictionary<string, string> { ["workshops"] = (await session.Ask("/api/workshops")).ToJsonString() };
        foreach (var path in new[] { $"/api/workshops/{id}/house-rules", $"/api/shelf/{id}/materials", $"/api/sets/{set}", $"/api/workshops/{id}/treatments", $"/api/trials/{set}", $"/api/bases/{set}", $"/api/workshops/{id}/recipes", $"/api/bench/{id}/unfit" })
            all[path] = (await session.Ask(path)).ToJsonString();
        all["pots"] = (await session.Ask($"/api/pots/{set}"))["pots"]!.ToJsonString();
        foreach (var zone in (await session.Ask($"/api/plan/sets/{set}"))["designs"]!.AsArray().SelectMany(d => d!["zones"]!.AsArray()))
            all[$"zone {zone!["name"]} {zone["id"]}"] = (await session.Ask($"/api/plan/zones/{zone["id"]}"))["layers"]!.ToJsonString();
        return all;
    }

    private async Task Link(string zone, string treatment)
    {
        using var http = new HttpClient { BaseAddress = new Uri(session.Address) };
        using var request = new HttpRequestMessage(HttpMethod.Post, $"/api/zones/{zone}/link") { Content = JsonContent.Create(new { treatmentId = treatment }) };
        request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
        using var answer = await http.SendAsync(request, Stop);
        Assert.True(answer.IsSuccessStatusCode, await answer.Content.ReadAsStringAsync(Stop));
    }

    /// <summary>One part of all the views there are, and what is typed into besides.</summary>
    protected async Task Everywhere(int part, Action<Page>? first = null, Action<Page>? last = null)
    {
        var set = (await session.Ask("/api/workshops"))[0]!["sets"]![0]!["id"]!;
        var designs = (await session.Ask($"/api/plan/sets/{set}"))["designs"]!.AsArray();
        var zones = designs.SelectMany(d => d!["zones"]!.AsArray()).Select(z => z!).ToList();
        var wall = designs.Single(d => d!["name"]!.GetValue<string>() == "Lock-wall straight")!["zones"]!.AsArray().Single(z => z!["name"]!.GetValue<string>() == "Brick field")!;
        var treatment = (await session.Ask($"/api/plan/zones/{wall["id"]}"))["treatmentId"]!.GetValue<string>();
        foreach (var zone in zones.Where(z => z["id"]!.GetValue<string>() != wall["id"]!.GetValue<string>()).Take(11))
            await Link(zone["id"]!.GetValue<string>(), treatment);
        var page = session.OpenZone("Lock-wall straight", "Brick field");
        page.SeeText("[data-treatment]", "shared by 1");
        page.AskAgain();
        var before = await Everything();

        first?.Invoke(page);
        var views = page.Wait(d => d.FindElements(By.CssSelector("nav[aria-label=Places] a")) is { Count: > 1 } all ? all : null)!
            .SelectMany(a => a.GetAttribute("data-views")!.Split('|')).Concat(["House rules", "Other devices", "All sets", "This set"]).ToList();
        foreach (var view in views.Where((_, at) => at % Parts == part))
        {
            page.Go(view);
            page.Wait(d => d.Title.StartsWith(view, StringComparison.Ordinal));
            page.See("main h1, main section");
            page.Drawn();
            TypeAll(page, view);
            Dialogs(page, view);
        }

        last?.Invoke(page);
        page.Driver.Navigate().GoToUrl(session.Address);
        page.SeeText("h1", "Brick field");
        page.Stored();
        page.Gone("[data-waiting]");
        var after = await Everything();
        Assert.True(typed > 20, $"{typed} fields");
        Assert.Equal([], before.Keys.Where(k => before[k] != after[k]).Select(k => $"{k} changed"));
        Assert.DoesNotContain(page.Errors(), e => !e.Contains(" 400 ", StringComparison.Ordinal));
    }

    /// <summary>Types into every dialog that a button here opens, one of each kind.</summary>
    private void Dialogs(Page page, string where)
    {
        const string openers = "const openers = [...document.querySelectorAll('main [aria-haspopup=dialog]:not([disabled])')].filter(e => e.checkVisibility()), kind = e => (e.getAttribute('aria-label') ?? e.innerText).split(' of ')[0].split(', ').at(-1).trim();";
        var script = (IJavaScriptExecutor)page.Driver;
        foreach (var kind in ((IReadOnlyCollection<object>)script.ExecuteScript(openers + "return openers.map(kind)")!).Cast<string>().Distinct().ToList())
        {
            if (script.ExecuteScript(openers + "const one = openers.find(e => kind(e) === arguments[0]); one?.focus(); one?.click(); return !!one", kind) is not true)
                continue;
            page.See("[role=dialog][data-listens]");
            TypeAll(page, $"{where}: {kind}");
            page.Wait(d =>
            {
                if (d.FindElements(By.CssSelector("[role=dialog][data-listens]")).Count == 0)
                    return true;
                new Actions(d).SendKeys(Keys.Escape).Perform();
                return false;
            });
        }
    }
}

public sealed class TypingInLayersTests(BrowserSession session) : TypingEverywhere(session), IClassFixture<BrowserSession>
{
    [Fact]
    public Task A_sentence_typed_into_every_field_of_layers_and_of_a_third_of_the_views_changes_nothing_else() => Everywhere(0, first: page =>
    {
        // Every letter of them is an edit of twelve zones.
        page.Click("li[data-layer='3'] button[data-select]");
        page.See("[data-editor] textarea, [data-editor] input[maxlength='500']");
        TypeAll(page, "a layer", whole: true);
        page.ClickText("button", "Mix in another");
        page.See("[data-component='1']");
        TypeAll(page, "a layer with one more component");
        page.Keys(Keys.Escape);
        page.Stored();
    });
}

public sealed class TypingInViewsTests(BrowserSession session) : TypingEverywhere(session), IClassFixture<BrowserSession>
{
    [Fact]
    public Task A_sentence_typed_into_every_field_of_the_second_third_changes_nothing_else() => Everywhere(1);
}

public sealed class TypingAtTheStartTests(BrowserSession session) : TypingEverywhere(session), IClassFixture<BrowserSession>
{
    [Fact]
    public Task A_sentence_typed_into_every_field_of_a_first_set_and_of_the_last_third_changes_nothing_else() => Everywhere(2, last: page =>
    {
        page.Driver.Navigate().GoToUrl($"{new Uri(page.Driver.Url).GetLeftPart(UriPartial.Authority)}/start/new");
        page.See("main h1");
        TypeAll(page, "a first set");
    });
}
