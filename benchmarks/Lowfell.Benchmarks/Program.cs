using System.Diagnostics;
using System.Globalization;
using System.Text;
using System.Text.Json.Nodes;
using Lowfell.Benchmarks;
using Lowfell.Core.Colour;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Mixing;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Core.Order;
using Lowfell.Core.Start;
using Lowfell.Core.Tests.Scalar;

// Prints the measured time of each promise beside its bar. A yardstick (the same arithmetic, bare) is run in between,
// so that two runs on different machines can be compared as ratios.
CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
var yardstick = Time(() => Workload.Yardstick(40 * 3 * 36), 400);
Console.WriteLine($"{"what",-66}{"median ms",12}{"bar ms",10}{"x yardstick",14}");

// Alone when asked for, else last: it leaves the database a thousand times fuller.
if (args is ["year"])
{
    await Year();
    return 0;
}

if (args is ["changes"])
{
    await Changes();
    return 0;
}

if (args is ["writes"])
{
    await Writes();
    return 0;
}

if (args is ["sessions", .. var rest])
{
    Timetables.Growth();
    Timetables.SideBySide(rest is [var seconds] ? double.Parse(seconds, CultureInfo.InvariantCulture) : 60);
    return 0;
}

if (args is ["cores"])
{
    await Cores();
    return 0;
}

if (args is ["log"])
{
    await LogOf();
    return 0;
}

if (args is ["pieces"])
{
    PlansOfPieces.Run(Report, Time);
    return 0;
}

if (args is ["page"])
{
    await Page();
    return 0;
}

// The page first: a machine that has just been worked hard draws fewer frames.
await Page();
PlansOfPieces.Run(Report, Time);

var zone = Workload.Zone(1);
var stack = Workload.Stack(40, sound: true);
Report("prediction, 40 layers at three positions, all described", Time(() => Described(zone, stack), 400), 0.3);
Report("prediction, 40 layers, with the range of hands at every layer", Time(() => StackPrediction.Compute(zone, stack).RangeBelow(40), 200), 3);
var vectorised = Time(() => StackPrediction.Compute(zone, stack).SeenBelow(40), 400);
var scalar = Time(() => ScalarModel.Forward(zone, stack), 100);
Console.WriteLine($"    forward pass alone: vectorised {vectorised:0.000} ms, one band at a time {scalar:0.000} ms, {scalar / vectorised:0.0} times as long");
var run = StackPrediction.Compute(zone, Workload.BaseUnderSix());
var paints = Workload.Paints(300);
var wanted = SrgbColour.Parse("#7a6248").ToLab();
var nine = StartHere.AllRatios.Where(r => r.First + r.Second < 7).ToList();
Report($"start here, 300 paints, all pairs at {nine.Count} ratios, six layers above", Time(() => StartHere.Find(run, 1, Position.Field, wanted, paints, 20, nine), 20), 150);
var buried = StackPrediction.Compute(zone, Workload.BaseUnderSix().Select((l, i) => i > 1 ? l with { Strength = 2 } : l).ToList());
Report("start here, the same where six heavy layers leave little to tell", Time(() => StartHere.Find(buried, 1, Position.Field, wanted, paints, 20, nine), 20), 150);
Report($"start here, the same at all {StartHere.AllRatios.Count} ratios", Time(() => StartHere.Find(run, 1, Position.Field, wanted, paints), 20), 150);
var ordinary = Workload.Ordinary(40);
Report($"order check, 40 layers, ordinary, {OrderCheck.Run(Workload.Context(zone), ordinary).Count} findings, remedies tried", Time(() => OrderCheck.Run(Workload.Context(zone), ordinary), 200), 5);
var slips = Workload.WithSlips(40);
Report($"order check, 40 layers, {OrderCheck.Run(Workload.Context(zone), slips).Count} findings, remedies tried", Time(() => OrderCheck.Run(Workload.Context(zone), slips), 200), 40);
var unsound = Workload.Stack(40, sound: false);
Report($"stress: 40 layers, nearly all wrong, {OrderCheck.Run(Workload.Context(zone), unsound).Count} findings", Time(() => OrderCheck.Run(Workload.Context(zone), unsound), 60), 40);
var zones = Enumerable.Range(0, 500).Select(n => Workload.Context(Workload.Zone(n))).ToList();
var twenty = Workload.WithSlips(40).Take(20).ToList();
Report("order check, 500 zones x 20 layers, remedies tried, on both cores", Time(() => zones.AsParallel().Sum(c => OrderCheck.Run(c, twenty).Count), 5), 1000);
var set = Workload.Set(200, 5, 20);
Report("whole-set quantities, 200 pieces x 5 zones x 20 layers", Time(() => SetMixes.Needs(set, (_, _) => 0), 60), 50);
Report("the same by mixes, less what is done", Time(() => SetMixes.FromShelf(SetMixes.Of(set, (_, _) => 3), new Dictionary<string, double>()), 60), 50);
var fourPart = Recipe.Of(paints.Take(4).Select((p, i) => new MixPart(p, Parts.Of(7 + i))));
Report("fewest whole drops of four paints within 0.5", Time(() => WholeDrops.Fewest(fourPart), 60), 20);
var ranOut = new StackView(Workload.Context(zone) with { Shelf = paints }, Workload.BaseUnderSix());
var oneLess = paints.ToDictionary(p => p.Id, _ => 20m);
oneLess[ranOut.Layers[1].Main!.Id] = 0;
Report("a pot ran out: what lands closest of 300 paints under six layers", Time(() => Remix.Find(ranOut, 1, Recipe.Of(ranOut.Layers[1])!.Fill(10), paints, oneLess, 8), 20), 300);

if (Environment.GetEnvironmentVariable("LOWFELL_BENCH_URL") is { Length: > 0 } url)
{
    using var http = new HttpClient { BaseAddress = new Uri(url) };
    var setId = JsonNode.Parse(await http.GetStringAsync("/api/workshops"))![0]!["sets"]![0]!["id"]!.GetValue<string>();
    var overview = $"/api/plan/sets/{setId}";
    var zoneId = JsonNode.Parse(await http.GetStringAsync(overview))!["designs"]![0]!["zones"]![0]!["id"]!.GetValue<string>();
    Report("Plan answer for the demo, client to client over loopback", Time(() => http.GetStringAsync(overview).GetAwaiter().GetResult(), 150), 50);
    var stackOf = JsonNode.Parse(await http.GetStringAsync($"/api/plan/zones/{zoneId}"))!["layers"]!.ToJsonString();
    Report("a draft read while a slider moves, over loopback", Time(() => Post($"/api/plan/zones/{zoneId}/reading", $"{{\"layers\":{stackOf},\"moving\":true}}"), 150), 20);
    var version = JsonNode.Parse(await http.GetStringAsync($"/api/plan/zones/{zoneId}"))!["version"]!.GetValue<uint>();
    Report("remarks of the whole demo set after a change, remedies tried", TimeAfter(Touch, () => http.GetStringAsync($"{overview}/remarks").GetAwaiter().GetResult(), 40), 60);
    Report("one zone with its reading, over loopback", Time(() => http.GetStringAsync($"/api/plan/zones/{zoneId}").GetAwaiter().GetResult(), 150), 50);
    Report("mixes and pots of the demo set, over loopback", Time(() => http.GetStringAsync($"/api/pots/{setId}").GetAwaiter().GetResult(), 100), 50);
    var mix = JsonNode.Parse(await http.GetStringAsync($"/api/pots/{setId}"))!["mixes"]![0]!["parts"]!.AsArray();
    var jar = new JsonObject { ["totalMl"] = 40, ["parts"] = new JsonArray([.. mix.Select(p => new JsonObject { ["materialId"] = p!["materialId"]!.GetValue<string>(), ["parts"] = int.Parse(p["parts"]!.GetValue<string>()) })]) }.ToJsonString();
    Report("a jar while numbers are typed, over loopback", Time(() => Post($"/api/pots/{setId}/jar", jar), 100), 20);
    foreach (var (what, bad) in new[] { ("refused with 50 bad rows", 50), ("stored", 0) })
    {
        var bench = JsonNode.Parse(Send(HttpMethod.Post, "/api/workshops", $"{{\"name\":\"Bench {bad}\"}}"))!["id"];
        var file = new JsonObject { ["store"] = true, ["text"] = Workload.Csv(10_000, bad) }.ToJsonString();
        var began = Stopwatch.GetTimestamp();
        Post($"/api/shelf/{bench}/csv", file);
        Report($"CSV of 10,000 materials, {what}, once", Stopwatch.GetElapsedTime(began).TotalMilliseconds, 3000);
    }

    await Cores();
    await LogOf();
    await Year();
    await Writes();

    // Any stored change makes the server forget what it has said of the set.
    void Touch()
    {
        var answer = Send(HttpMethod.Put, $"/api/plan/zones/{zoneId}/stack", $"{{\"version\":{version},\"layers\":{stackOf}}}");
        version = JsonNode.Parse(answer)!["version"]!.GetValue<uint>();
    }

    void Post(string path, string body) => Send(HttpMethod.Post, path, body);

    string Send(HttpMethod method, string path, string body)
    {
        using var request = new HttpRequestMessage(method, path) { Content = new StringContent(body, Encoding.UTF8, "application/json") };
        request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
        var answer = http.SendAsync(request).GetAwaiter().GetResult().EnsureSuccessStatusCode();
        return answer.Content.ReadAsStringAsync().GetAwaiter().GetResult();
    }
}

return 0;

async Task Page()
{
    if (Environment.GetEnvironmentVariable("LOWFELL_BENCH_URL") is not { Length: > 0 } page)
        return;
    using var http = new HttpClient { BaseAddress = new Uri(page) };
    var set = JsonNode.Parse(await http.GetStringAsync("/api/workshops"))![0]!["sets"]![0]!["id"]!.GetValue<string>();
    var zone = JsonNode.Parse(await http.GetStringAsync($"/api/plan/sets/{set}"))!["designs"]![0]!["zones"]![0]!["id"]!.GetValue<string>();
    FirstView.Run(page, $"/plan/{set}/{zone}", Report);
    LongTasks.Run(page, $"/plan/{set}/{zone}", Report);
    Frames.Run(page, $"/plan/{set}/{zone}", leastFrames: 40, yardstick);
    foreach (var materials in new[] { 400, 5_000 })
        await LongShelf.Run(http, page, materials, Report);
}

async Task LogOf()
{
    using var http = new HttpClient { BaseAddress = new Uri(Environment.GetEnvironmentVariable("LOWFELL_BENCH_URL")!) };
    await new LongLog(http, Environment.GetEnvironmentVariable("LOWFELL_BENCH_DATABASE")!, Report).Run();
}

async Task Cores()
{
    var page = Environment.GetEnvironmentVariable("LOWFELL_BENCH_URL")!;
    using var http = new HttpClient { BaseAddress = new Uri(page) };
    await new ManyCores(http, Report).Run(page);
}

async Task Writes()
{
    using var http = new HttpClient { BaseAddress = new Uri(Environment.GetEnvironmentVariable("LOWFELL_BENCH_URL")!) };
    await new ManyWrites(http, Environment.GetEnvironmentVariable("LOWFELL_BENCH_DATABASE")!, Environment.GetEnvironmentVariable("LOWFELL_BENCH_LOGS")!, Report).Run();
}

async Task Changes()
{
    using var http = new HttpClient { BaseAddress = new Uri(Environment.GetEnvironmentVariable("LOWFELL_BENCH_URL")!), Timeout = TimeSpan.FromMinutes(5) };
    await new LargePlan(http, Environment.GetEnvironmentVariable("LOWFELL_BENCH_DATABASE")!, Report).Run();
}

async Task Year()
{
    using var http = new HttpClient { BaseAddress = new Uri(Environment.GetEnvironmentVariable("LOWFELL_BENCH_URL")!), Timeout = TimeSpan.FromMinutes(5) };
    await new YearOfWork(http, Environment.GetEnvironmentVariable("LOWFELL_BENCH_DATABASE")!, Report).Run(int.Parse(Environment.GetEnvironmentVariable("LOWFELL_BENCH_PROCESS")!, CultureInfo.InvariantCulture));
}

void Report(string what, double ms, double bar) =>
    Console.WriteLine($"{what,-66}{ms,12:0.000}{bar,10:0.#}{ms / yardstick,14:0.0}   {(ms <= bar ? "within" : "OVER")}");

static double Described(Zone zone, IReadOnlyList<Layer> stack)
{
    var sum = 0.0;
    foreach (var layer in StackPrediction.Compute(zone, stack))
        sum += layer.LargestChange;
    return sum;
}

static double TimeAfter(Action before, Action work, int rounds)
{
    var times = new double[2 * rounds];
    for (var i = 0; i < times.Length; i++)
    {
        before();
        var start = Stopwatch.GetTimestamp();
        work();
        times[i] = Stopwatch.GetElapsedTime(start).TotalMilliseconds;
    }

    // The first half only warms up.
    Array.Sort(times, rounds, rounds);
    return times[rounds + rounds / 2];
}

static double Time(Action work, int rounds)
{
    // Long enough for the compiler to have made up its mind in the background.
    var warm = Stopwatch.GetTimestamp();
    while (Stopwatch.GetElapsedTime(warm).TotalMilliseconds < 1500)
        work();
    var times = new double[rounds];
    for (var i = 0; i < rounds; i++)
    {
        var start = Stopwatch.GetTimestamp();
        work();
        times[i] = Stopwatch.GetElapsedTime(start).TotalMilliseconds;
    }

    Array.Sort(times);
    return times[rounds / 2];
}
