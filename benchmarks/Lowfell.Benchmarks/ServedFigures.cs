using System.Diagnostics;
using System.Text;
using System.Text.Json.Nodes;
using static Lowfell.Benchmarks.Measured;

namespace Lowfell.Benchmarks;

/// <summary>Answers of the server for the demo, from client to client over loopback.</summary>
internal static class ServedFigures
{
    public static async Task Run(HttpClient http)
    {
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
}
