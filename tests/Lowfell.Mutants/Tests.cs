using System.Collections.Concurrent;
using System.Globalization;
using System.Text.RegularExpressions;
using System.Xml.Linq;

namespace Lowfell.Mutants;

/// <summary>One lane of tests of the copy: which of them come by which fault, how long each takes, and whether any notices.</summary>
public sealed partial class Tests
{
    /// <summary>How many classes of tests are asked in each round: what a fault breaks, few tests see, and each class begins a server of its own.</summary>
    private static readonly int[] rounds = [1, 2, 6];

    private const int MostAtOnce = 12;

    /// <summary>The database that the server's tests begin with: made once, and anew where the fault lies in what makes it.</summary>
    private const string TemplateIs = "LOWFELL_TEST_TEMPLATE", Template = "mutants_template";

    private static readonly TimeSpan patience = TimeSpan.FromMinutes(40);
    private readonly Tree tree;
    private readonly string lane;
    private readonly Dictionary<int, List<string>> covering = [];
    private readonly HashSet<int> touched = [];
    private readonly Dictionary<string, double> seconds = [];
    private readonly Dictionary<string, int> reach = [];
    private readonly ConcurrentBag<int> noticed = [];

    private Tests(Tree tree, string lane) => (this.tree, this.lane) = (tree, lane);

    /// <summary>Tests that are not green in the copy with no fault on.</summary>
    public List<string> LeftOut { get; } = [];

    /// <summary>Runs the lane once with no fault on, one test after the other, and notes which comes by which place.</summary>
    public static async Task<Tests> Trace(Tree tree, string lane)
    {
        var tests = new Tests(tree, lane);
        var (seen, times) = (Path.Combine(tree.At, $"{lane}.seen"), Path.Combine(tree.At, $"{lane}.xml"));
        var (_, said) = await tests.Go(patience, new() { ["LOWFELL_MUTANT_TRACE"] = seen, [TemplateIs] = Template }, "-xml", times, "-parallel", "none");
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
            if (line.Split(' ') is [var number, var test] && int.Parse(number, CultureInfo.InvariantCulture) is var fault)
            {
                // What is worked out once is noted for whichever test came first, were it one that is left out.
                tests.touched.Add(fault);
                if (!tests.seconds.ContainsKey(test))
                    continue;
                (tests.covering.TryGetValue(fault, out var list) ? list : tests.covering[fault] = []).Add(test);
                tests.reach[test] = tests.reach.GetValueOrDefault(test) + 1;
            }

        return tests;
    }

    public bool ComesBy(Chosen fault) => covering.ContainsKey(fault.Number) || (fault.Place.Once && touched.Contains(fault.Number));

    /// <summary>
    /// Which of the faults are noticed: all of them by the tests nearest to each at first, then what is still open by the next, so that the
    /// few that no test notices, which every test must be asked about, come last. Tells each as it is found.
    /// </summary>
    public async Task Notice(IReadOnlyList<Chosen> faults, Action<Chosen, string> tell, Action<string> say)
    {
        var open = faults.Where(ComesBy).Select(f => (Fault: f, Left: new Queue<List<string>>(Nearest(f)))).ToList();
        for (var round = 0; open.Count > 0; round++)
        {
            await Parallel.ForEachAsync(open, new ParallelOptions { MaxDegreeOfParallelism = 2 }, async (one, _) =>
            {
                while (one.Left.Count > 0)
                {
                    var some = Enumerable.Range(0, Math.Min(one.Left.Count, round < rounds.Length ? rounds[round] : MostAtOnce)).SelectMany(_ => one.Left.Dequeue()).ToList();
                    if (await Notice(one.Fault, some) is { } by)
                    {
                        tell(one.Fault, by);
                        one.Left.Clear();
                        noticed.Add(one.Fault.Number);
                    }

                    if (round < rounds.Length)
                        return;
                }
            });
            open = open.Where(o => !noticed.Contains(o.Fault.Number) && o.Left.Count > 0).ToList();
            say($"{lane}: {open.Count} are open after round {round + 1}");
        }
    }

    /// <summary>
    /// The tests that come by a fault, class by class: those first that are named after what it lies in, then those that come by few others;
    /// what goes everywhere says little about any one place. What is worked out once was noted for whichever test came first, and all may notice.
    /// </summary>
    private IEnumerable<List<string>> Nearest(Chosen fault)
    {
        var words = Words(fault.Place.File["src/Lowfell.".Length..]);
        return (fault.Place.Once ? seconds.Keys : covering[fault.Number].AsEnumerable()).GroupBy(t => t[..t.LastIndexOf('.')])
            .OrderByDescending(c => Words(c.Key).Intersect(words).Count()).ThenBy(c => c.Min(t => reach.GetValueOrDefault(t))).ThenBy(c => c.Key, StringComparer.Ordinal)
            .Select(c => c.OrderByDescending(t => Words(t).Intersect(words).Count()).ThenBy(t => seconds[t]).ToList());
    }

    /// <summary>The words of a name, by their first letters: "Timetables/KeptPlan.cs" has "Time", "Kept" and "Plan".</summary>
    private static HashSet<string> Words(string name) => Word().Matches(name).Select(m => m.Value.Length > 4 ? m.Value[..4] : m.Value).Except(["Lowf", "Test", "Serv", "Core", "Stor", "The", "A"]).ToHashSet(StringComparer.OrdinalIgnoreCase);

    [GeneratedRegex("[A-Z][a-z]+|[a-z]+")]
    private static partial Regex Word();

    /// <summary>By which of these tests a fault is noticed; null when they stay green.</summary>
    private async Task<string?> Notice(Chosen fault, List<string> some)
    {
        var template = fault.Place.File.StartsWith("src/Lowfell.Store/", StringComparison.Ordinal) ? $"mutant_{fault.Number}" : Template;
        var wait = TimeSpan.FromSeconds(90 + 5 * some.Sum(t => seconds[t]));
        var (code, said) = await Go(wait, new() { ["LOWFELL_MUTANT"] = fault.Number.ToString(CultureInfo.InvariantCulture), [TemplateIs] = template }, ["-stopOnFail", .. some.SelectMany(t => new[] { "-method", t })]);
        return code switch
        {
            null => $"{lane}, which never ends",
            0 => null,
            _ => said.Split('\n').Select(l => l.Trim()).FirstOrDefault(l => l.EndsWith("[FAIL]", StringComparison.Ordinal))?[..^"[FAIL]".Length].Trim() ?? lane,
        };
    }

    private Task<(int? Code, string Said)> Go(TimeSpan wait, Dictionary<string, string> with, params string[] arguments) =>
        Run.To(tree.At, wait, with, [Path.Combine(tree.At, $"tests/Lowfell.{lane}.Tests/bin/Release/net10.0/Lowfell.{lane}.Tests"), "-noColor", .. arguments]);
}
