using System.Globalization;
using System.Xml.Linq;

namespace Lowfell.Mutants;

/// <summary>One lane of tests of the copy: which of them come by which fault, how long each takes, and whether any notices.</summary>
public sealed class Tests
{
    /// <summary>No more of them in one call: what a fault breaks, few of them see.</summary>
    private const int MostAtOnce = 60;

    /// <summary>The database that the server's tests begin with: made once, and anew where the fault lies in what makes it.</summary>
    private const string TemplateIs = "LOWFELL_TEST_TEMPLATE", Template = "mutants_template";

    private static readonly TimeSpan patience = TimeSpan.FromMinutes(40);
    private readonly Tree tree;
    private readonly string lane;
    private readonly Dictionary<int, List<string>> covering = [];
    private readonly Dictionary<string, double> seconds = [];

    private Tests(Tree tree, string lane) => (this.tree, this.lane) = (tree, lane);

    /// <summary>Tests that are not green in the copy with no fault on.</summary>
    public List<string> LeftOut { get; } = [];

    /// <summary>Runs the lane once with no fault on, and notes which test comes by which place.</summary>
    public static async Task<Tests> Trace(Tree tree, string lane)
    {
        var tests = new Tests(tree, lane);
        var (seen, times) = (Path.Combine(tree.At, $"{lane}.seen"), Path.Combine(tree.At, $"{lane}.xml"));
        var (_, said) = await tests.Go(patience, new() { ["LOWFELL_MUTANT_TRACE"] = seen, [TemplateIs] = Template }, "-xml", times);
        if (!File.Exists(times) || !File.Exists(seen))
            throw new InvalidOperationException($"The tests of {lane} did not run: {said[^Math.Min(said.Length, 2000)..]}");
        foreach (var test in XDocument.Load(times).Descendants("test"))
        {
            var name = $"{test.Attribute("type")!.Value}.{test.Attribute("method")!.Value}";
            tests.seconds[name] = tests.seconds.GetValueOrDefault(name) + double.Parse(test.Attribute("time")!.Value, CultureInfo.InvariantCulture);
            if (test.Attribute("result")!.Value != "Pass" && !tests.LeftOut.Contains(name))
                tests.LeftOut.Add(name);
        }

        foreach (var name in tests.LeftOut)
            tests.seconds.Remove(name);
        foreach (var line in await File.ReadAllLinesAsync(seen))
            if (line.Split(' ') is [var number, var test] && tests.seconds.ContainsKey(test))
            {
                var fault = int.Parse(number, CultureInfo.InvariantCulture);
                (tests.covering.TryGetValue(fault, out var list) ? list : tests.covering[fault] = []).Add(test);
            }

        return tests;
    }

    public bool ComesBy(Chosen fault) => covering.ContainsKey(fault.Number);

    /// <summary>By whom a fault is noticed; null when every test that comes by it stays green.</summary>
    public async Task<string?> Notice(Chosen fault)
    {
        // What is worked out once was noted for whichever test came first, and all may notice.
        var template = fault.Place.File.StartsWith("src/Lowfell.Store/", StringComparison.Ordinal) ? $"mutant_{fault.Number}" : Template;
        var names = (fault.Place.Once ? seconds.Keys : covering[fault.Number].AsEnumerable()).OrderBy(t => seconds[t]).ToList();
        foreach (var some in names.Chunk(MostAtOnce))
        {
            var wait = TimeSpan.FromSeconds(90 + 5 * some.Sum(t => seconds[t]));
            var (code, said) = await Go(wait, new() { ["LOWFELL_MUTANT"] = fault.Number.ToString(CultureInfo.InvariantCulture), [TemplateIs] = template }, ["-stopOnFail", .. some.SelectMany(t => new[] { "-method", t })]);
            if (code is null)
                return $"{lane}, which never ends";
            if (code != 0)
                return said.Split('\n').Select(l => l.Trim()).FirstOrDefault(l => l.EndsWith("[FAIL]", StringComparison.Ordinal))?[..^"[FAIL]".Length].Trim() ?? lane;
        }

        return null;
    }

    private Task<(int? Code, string Said)> Go(TimeSpan wait, Dictionary<string, string> with, params string[] arguments) =>
        Run.To(tree.At, wait, with, [Path.Combine(tree.At, $"tests/Lowfell.{lane}.Tests/bin/Release/net10.0/Lowfell.{lane}.Tests"), "-noColor", .. arguments]);
}
