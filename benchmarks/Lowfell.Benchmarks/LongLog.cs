using System.Diagnostics;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Npgsql;

namespace Lowfell.Benchmarks;

/// <summary>A log of 20,000 lines with 500 photographs: looking through it, and listing them.</summary>
internal sealed class LongLog(HttpClient http, string database, Action<string, double, double> report)
{
    private const int Lines = 20_000, Photos = 500, Rounds = 15;

    public async Task Run()
    {
        var workshop = (await Get("/api/workshops"))[0]!;
        var (id, set) = (workshop["id"]!.GetValue<string>(), workshop["sets"]![0]!["id"]!.GetValue<string>());
        var picture = await Picture(set);
        await using (var db = new NpgsqlConnection(database))
        {
            await db.OpenAsync();

            // Notes of a few words each; the photographs are as many rows over one picture.
            await using var fill = new NpgsqlCommand($"""
                insert into work_events (id, workshop_id, actor, device, kind, told_at, at, received_at, note, saved_by)
                select gen_random_uuid(), '{id}', 'EW', 'long log', 'noted', now() - n * interval '9 minutes', now() - n * interval '9 minutes', now(),
                  'line ' || n || ' of ' || (array['tide', 'wall', 'rust', 'reed', 'salt', 'slate'])[n % 6 + 1] || ' and ' || (array['wash', 'brush', 'glaze', 'sponge', 'dust'])[n % 5 + 1] || case when n % 997 = 0 then ' heron' else '' end, ''
                from generate_series(1, {Lines}) n;
                insert into photos (id, workshop_id, set_id, words, taken_at, actor, width, height, blob_id, small_id)
                select gen_random_uuid(), workshop_id, set_id, 'photograph ' || n, taken_at - n * interval '1 hour', actor, width, height, blob_id, small_id from photos, generate_series(1, {Photos - 1}) n where id = '{picture}';
                analyze;
                """, db) { CommandTimeout = 300 };
            await fill.ExecuteNonQueryAsync();
        }

        await Measure($"a word in {Lines} lines of the log, of which {Lines / 997} have it", $"/api/search/{id}?q=heron", 100);
        await Measure("two words, of which hundreds have both", $"/api/search/{id}?q=tide%20sponge", 100);
        await Measure($"a page of a log of {Lines} lines", $"/api/log/{set}?most=150", 300);
        await Measure($"{Photos} photographs, listed", $"/api/log/{set}/photos?most={Photos}", 300);
    }

    private async Task Measure(string what, string path, double bar)
    {
        await http.GetStringAsync(path);
        var times = new List<double>();
        for (var n = 0; n < Rounds; n++)
        {
            var watch = Stopwatch.StartNew();
            await http.GetStringAsync(path);
            times.Add(watch.Elapsed.TotalMilliseconds);
        }

        report(what, times.Order().ElementAt(Rounds / 2), bar);
    }

    /// <summary>One dot, as a photograph.</summary>
    private async Task<string> Picture(string set)
    {
        const string dot = "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==";
        using var request = new HttpRequestMessage(HttpMethod.Post, $"/api/log/{set}/photos") { Content = JsonContent.Create(new { id = Guid.NewGuid(), data = dot, words = "the first" }) };
        request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
        using var answer = await http.SendAsync(request);
        return JsonNode.Parse(await answer.EnsureSuccessStatusCode().Content.ReadAsStringAsync())!["id"]!.GetValue<string>();
    }

    private async Task<JsonNode> Get(string path) => JsonNode.Parse(await http.GetStringAsync(path))!;
}
