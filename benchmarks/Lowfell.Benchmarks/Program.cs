using System.Globalization;
using Lowfell.Benchmarks;
using static Lowfell.Benchmarks.Measured;

// PART — prints the measured time of each promise beside its bar. Each part has a server and a database of its own: what one leaves behind
// is in no other's way.
CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
Heading();
var url = Environment.GetEnvironmentVariable("LOWFELL_BENCH_URL")!;
var database = Environment.GetEnvironmentVariable("LOWFELL_BENCH_DATABASE")!;
using var http = new HttpClient { BaseAddress = new Uri(url), Timeout = TimeSpan.FromMinutes(5) };
Task Now(Action work)
{
    work();
    return Task.CompletedTask;
}

var parts = new Dictionary<string, Func<Task>>
{
    ["page"] = () => PageFigures.Run(http, url),
    ["pieces"] = () => Now(() => PlansOfPieces.Run(Report, Time)),
    ["core"] = () => Now(CoreFigures.Run),
    ["served"] = () => ServedFigures.Run(http),
    ["cores"] = () => new ManyCores(http, Report).Run(url),
    ["log"] = () => new LongLog(http, database, Report).Run(),
    ["year"] = () => new YearOfWork(http, database, Report).Run(int.Parse(Environment.GetEnvironmentVariable("LOWFELL_BENCH_PROCESS")!, CultureInfo.InvariantCulture)),
    ["changes"] = () => new LargePlan(http, database, Report).Run(),
    ["writes"] = () => new ManyWrites(http, database, Environment.GetEnvironmentVariable("LOWFELL_BENCH_LOGS")!, Report).Run(),
    ["sessions"] = () => Now(() =>
    {
        Timetables.Growth();
        Timetables.SideBySide(args is [_, var seconds] ? double.Parse(seconds, CultureInfo.InvariantCulture) : 60);
    }),
};
if (args is not [var name, ..] || !parts.TryGetValue(name, out var part))
{
    Console.Error.WriteLine($"Name one of {string.Join(", ", parts.Keys)}.");
    return 2;
}

await part();
return 0;
