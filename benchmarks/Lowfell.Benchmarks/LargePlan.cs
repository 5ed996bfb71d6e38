using System.Diagnostics;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Npgsql;

namespace Lowfell.Benchmarks;

/// <summary>A set of 300 designs with eight zones each: how long it takes to list, to rename, and what keeping every change costs.</summary>
internal sealed class LargePlan(HttpClient http, string database, Action<string, double, double> report)
{
    private const int Designs = 300, Zones = 8, Renames = 200;

    public async Task Run()
    {
        var zones = Enumerable.Range(1, Zones).Select(n => new { name = $"Face {n}", areaCm2 = 40 + n, relief = "light" });
        var made = await Send(HttpMethod.Post, "/api/plan/sets", new
        {
            workshop = "Long bench",
            name = "Long quay",
            scale = 56,
            tableMetres = 0.9,
            design = new { name = "Quay 1", substrate = "printed plastic", silhouette = "wall", pieces = 4, zones },
        });
        var set = made["setId"]!.GetValue<string>();
        var sheet = await Get($"/api/sets/{set}");
        var (workshop, design) = (sheet["workshopId"]!.GetValue<string>(), sheet["designs"]![0]!["id"]!.GetValue<string>());
        for (var n = 2; n <= Designs; n++)
            await Send(HttpMethod.Post, $"/api/designs/{design}/copies", new { name = $"Quay {n}" });
        var cold = await Once(() => Get($"/api/workshops/{workshop}/sets"));
        Console.WriteLine($"    all sets, nothing read yet: {cold:0} ms");
        report("300 designs × 8 zones: all sets after a rename", await Median(12, async n =>
        {
            await Rename(set, $"Quay {n}");
            return await Once(() => Get($"/api/workshops/{workshop}/sets"));
        }), 300);
        var kept = await Median(Renames, n => Once(() => Rename(set, $"Long quay {n}")));
        report("300 designs × 8 zones: a rename", kept, 50);
        await Journal(on: false);
        var bare = await Median(Renames, n => Once(() => Rename(set, $"Longer quay {n}")));
        await Journal(on: true);
        kept = Math.Min(kept, await Median(Renames, n => Once(() => Rename(set, $"Longest quay {n}"))));
        report("the same: what keeping the change costs, % of the write", 100 * (kept - bare) / bare, 10);
    }

    private uint version;

    private async Task<JsonNode> Rename(string set, string name)
    {
        if (version == 0)
            version = (await Get($"/api/sets/{set}"))["version"]!.GetValue<uint>();
        var answer = await Send(HttpMethod.Put, $"/api/sets/{set}", new { version, name });
        version = answer["version"]!.GetValue<uint>();
        return answer;
    }

    private async Task Journal(bool on)
    {
        await using var db = new NpgsqlConnection(database);
        await db.OpenAsync();
        await using var command = new NpgsqlCommand($"alter table sets {(on ? "enable" : "disable")} trigger journal", db);
        await command.ExecuteNonQueryAsync();
    }

    private static async Task<double> Once(Func<Task> work)
    {
        var start = Stopwatch.GetTimestamp();
        await work();
        return Stopwatch.GetElapsedTime(start).TotalMilliseconds;
    }

    private static async Task<double> Median(int times, Func<int, Task<double>> work)
    {
        var all = new List<double>();
        for (var n = 0; n < times; n++)
            all.Add(await work(n));
        all.Sort();
        return all[times / 2];
    }

    private async Task<JsonNode> Get(string path) => (await http.GetFromJsonAsync<JsonNode>(path))!;

    private async Task<JsonNode> Send(HttpMethod method, string path, object body)
    {
        using var request = new HttpRequestMessage(method, path) { Content = JsonContent.Create(body) };
        request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
        using var answer = await http.SendAsync(request);
        var text = await answer.Content.ReadAsStringAsync();
        return answer.IsSuccessStatusCode ? JsonNode.Parse(text)! : throw new InvalidOperationException($"{path}: {text}");
    }
}
