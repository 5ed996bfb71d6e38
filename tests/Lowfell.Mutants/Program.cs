using System.Diagnostics;
using System.Globalization;
using Lowfell.Mutants;

// ROOT WORK SEEDS HOW-MANY — puts faults into a copy of the code and says which of them no test notices. For SEEDS also lines: FILE:LINE,FILE:LINE.
var (root, work, wanted) = (args[0], args[1], int.Parse(args[3], CultureInfo.InvariantCulture));
var clock = Stopwatch.StartNew();
var tree = new Tree(root, work);
tree.Copy();
var faults = await tree.Compile(args[2].Contains(".cs:") ? Choice.At(tree, args[2].Split(',')) : Choice.Of(tree, Choice.Seeds(args[2]), wanted));
Say($"{faults.Count} faults compiled");

var open = faults;
var noticed = new Dictionary<int, string>();
foreach (var lane in new[] { "Core", "Server" })
{
    var tests = await Tests.Trace(tree, lane);
    foreach (var test in tests.LeftOut)
        Console.WriteLine($"  left out, since the copy alone is enough for it to fail: {test}");
    Say($"{lane} traced; it comes by {open.Count(f => tests.ComesBy(f))} of {open.Count}");
    await tests.Notice(open, Tell, Say);
    open = open.Where(f => !noticed.ContainsKey(f.Number)).ToList();
    foreach (var fault in open)
        Console.WriteLine($"  open after {lane}: {Where(fault)}");
    Say($"{lane}: {noticed.Count} of {faults.Count} noticed so far");
}

foreach (var seed in faults.GroupBy(f => f.Seed))
{
    foreach (var fault in seed.Where(f => !noticed.ContainsKey(f.Number)))
        Console.WriteLine($"  SURVIVED: {Where(fault)}");
    var alive = seed.Count(f => !noticed.ContainsKey(f.Number));
    Console.WriteLine($"seed {seed.Key}: {seed.Count() - alive} of {seed.Count()} noticed, {alive} survived ({(double)alive / seed.Count():0 %})");
}

Say($"{open.Count} of {faults.Count} survived");
return open.Count * 10 > faults.Count ? 1 : 0;

// Told at once, so that a run that is ended early was not in vain.
void Tell(Chosen fault, string by)
{
    lock (noticed)
        noticed[fault.Number] = by;
    Console.WriteLine($"  noticed by {by}: {Where(fault)}");
}

void Say(string what) => Console.WriteLine($"lowfell: {what}, after {clock.Elapsed.TotalMinutes:0.0} min");

static string Where(Chosen fault) => $"{fault.Place.File}:{fault.Place.Line} {fault.Place.Kind}: {Short(fault.Place.Says)}";

static string Short(string says) => string.Join(' ', says.Split(default(char[]), StringSplitOptions.RemoveEmptyEntries)) is var one && one.Length > 140 ? one[..140] + "…" : one;
