using System.Diagnostics;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace Lowfell.Benchmarks;

/// <summary>The bench over a year of events: a replay of all of them, and how soon a second device sees what the first one told.</summary>
internal sealed class BenchFollowed(HttpClient http, Action<string, double, double> report)
{
    private const int Events = 100, NinetyFifth = 94;

    public async Task Run(string workshop, string set)
    {
        var path = $"/api/bench/{workshop}";

        // The first puts right what was not told through the bench; the second only looks.
        await Post($"{path}/rebuild", new JsonObject(), "bench");
        var watch = Stopwatch.StartNew();
        var differed = (await Post($"{path}/rebuild", new JsonObject(), "bench"))["differed"]!.GetValue<int>();
        report($"replay of the whole stream, beside what is kept ({differed} rows differ), ms", watch.Elapsed.TotalMilliseconds, 2000);
        await http.GetStringAsync(path);
        watch.Restart();
        await http.GetStringAsync(path);
        report("the bench read, ms", watch.Elapsed.TotalMilliseconds, 500);
        await Follow(workshop, set, path);
    }

    private async Task Follow(string workshop, string set, string path)
    {
        var zone = (await Get($"/api/plan/sets/{set}"))["designs"]![0]!["zones"]![0]!["id"]!.GetValue<string>();
        var layer = (await Get($"/api/plan/zones/{zone}"))["layers"]![0]!["id"]!.GetValue<string>();
        using var changes = await http.GetAsync($"/api/changes/{workshop}", HttpCompletionOption.ResponseHeadersRead);
        using var lines = new StreamReader(await changes.Content.ReadAsStreamAsync());
        await Notice(lines);
        var took = new List<double>();
        for (var n = 1; n <= Events; n++)
        {
            var id = Guid.NewGuid();
            var watch = Stopwatch.StartNew();
            await Post($"{path}/events", new JsonObject { ["sentAt"] = DateTimeOffset.UtcNow, ["events"] = new JsonArray(new JsonObject { ["id"] = id, ["number"] = n, ["kind"] = "noted", ["toldAt"] = DateTimeOffset.UtcNow, ["note"] = $"{zone} {layer}" }) }, "first");
            await Notice(lines);
            var steps = (await Get(path))["steps"]!.AsArray();
            if (steps[0]!["eventId"]!.GetValue<Guid>() != id)
                throw new InvalidOperationException("The second device was told of it before it could see it.");
            took.Add(watch.Elapsed.TotalMilliseconds);
        }

        took.Sort();
        report("from the first device to the second, 95 of 100, ms", took[NinetyFifth], 1000);
    }

    /// <summary>Waits until a page that listens is told of a change.</summary>
    private static async Task Notice(StreamReader lines)
    {
        while (await lines.ReadLineAsync() is { } line)
            if (line.StartsWith("data:", StringComparison.Ordinal))
                return;
        throw new InvalidOperationException("The line of changes was cut.");
    }

    private async Task<JsonNode> Get(string path) => JsonNode.Parse(await http.GetStringAsync(path))!;

    private async Task<JsonNode> Post(string path, JsonNode body, string device)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, path) { Content = JsonContent.Create(body) };
        request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
        request.Headers.Add("Lowfell-Device", device);
        using var answer = await http.SendAsync(request);
        var text = await answer.Content.ReadAsStringAsync();
        return answer.IsSuccessStatusCode ? JsonNode.Parse(text)! : throw new InvalidOperationException($"{path}: {text}");
    }
}
