using System.Diagnostics;
using System.Globalization;
using System.Text.Json.Nodes;
using Lowfell.Benchmarks;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Order;

// Prints the measured time of each promise beside its bar. A yardstick (the same arithmetic, bare) is run in between,
// so that two runs on different machines can be compared as ratios.
CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
var yardstick = Time(() => Workload.Yardstick(40 * 3 * 36), 400);
Console.WriteLine($"{"what",-62}{"median ms",12}{"bar ms",10}{"x yardstick",14}");

var zone = Workload.Zone(1);
var stack = Workload.Stack(40, sound: true);
Report("prediction, 40 layers at three positions", Time(() => StackPrediction.Compute(zone, stack), 400), 1);
Report("order check, 40 layers, sound, remedies tried", Time(() => OrderCheck.Run(Workload.Context(zone), stack), 200), 5);
var slips = Workload.WithSlips(40);
Report($"order check, 40 layers, {OrderCheck.Run(Workload.Context(zone), slips).Count} findings, remedies tried", Time(() => OrderCheck.Run(Workload.Context(zone), slips), 200), 5);
var unsound = Workload.Stack(40, sound: false);
Report($"stress: 40 layers, nearly all wrong, {OrderCheck.Run(Workload.Context(zone), unsound).Count} findings", Time(() => OrderCheck.Run(Workload.Context(zone), unsound), 60), 5);
var set = Workload.Set(200, 5, 20);
Report("whole-set quantities, 200 pieces x 5 zones x 20 layers", Time(() => Quantities.ForSet(set), 60), 50);

if (Environment.GetEnvironmentVariable("LOWFELL_BENCH_URL") is { Length: > 0 } url)
{
    using var http = new HttpClient { BaseAddress = new Uri(url) };
    var setId = JsonNode.Parse(await http.GetStringAsync("/api/workshops"))![0]!["sets"]![0]!["id"]!.GetValue<string>();
    var overview = $"/api/plan/sets/{setId}";
    var zoneId = JsonNode.Parse(await http.GetStringAsync(overview))!["designs"]![0]!["zones"]![0]!["id"]!.GetValue<string>();
    Report("Plan answer for the demo, client to client over loopback", Time(() => http.GetStringAsync(overview).GetAwaiter().GetResult(), 150), 50);
    Report("one zone with its reading, over loopback", Time(() => http.GetStringAsync($"/api/plan/zones/{zoneId}").GetAwaiter().GetResult(), 150), 50);
}

return 0;

void Report(string what, double ms, double bar) =>
    Console.WriteLine($"{what,-62}{ms,12:0.000}{bar,10:0}{ms / yardstick,14:0.0}   {(ms <= bar ? "within" : "OVER")}");

static double Time(Action work, int rounds)
{
    for (var i = 0; i < rounds / 2 + 20; i++)
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
