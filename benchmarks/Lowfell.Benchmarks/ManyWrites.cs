using System.Diagnostics;
using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Npgsql;

namespace Lowfell.Benchmarks;

/// <summary>20,000 writes of several kinds by eight writers at once, one in fifty refused: what they leave behind.</summary>
internal sealed class ManyWrites(HttpClient http, string database, string logs, Action<string, double, double> report)
{
    private const int Writes = 20_000, Writers = 8, RefusedEvery = 50;

    public async Task Run()
    {
        var (before, logBefore) = (await Receipts(), Log());
        var benches = new List<string>();
        for (var n = 0; n < Writers; n++)
            benches.Add((await Send("/api/workshops", new { name = $"Writer {n + 1}" }))!["id"]!.GetValue<string>());
        var start = Stopwatch.GetTimestamp();
        await Task.WhenAll(benches.Select((bench, n) => Task.Run(() => Write(bench, n))));
        var seconds = Stopwatch.GetElapsedTime(start).TotalSeconds;
        var (after, logAfter) = (await Receipts(), Log());
        Console.WriteLine($"    {after.Count - before.Count:0} receipts in {seconds:0} s, {(after.Count - before.Count) / seconds:0} writes a second");
        report("20,000 writes: receipts with their indexes, MB", after.Mb - before.Mb, 20);
        report("20,000 writes: log, MB", logAfter - logBefore, 20);
    }

    private async Task Write(string bench, int writer)
    {
        var material = (await Send($"/api/shelf/{bench}/materials", new { name = $"Writer's grey {writer}", kind = "paint", carrier = "water acrylic", colour = "#667788" }))!["id"]!.GetValue<string>();
        for (var n = 0; n < Writes / Writers; n++)
        {
            if (n % RefusedEvery == 0)
                await Send($"/api/stock/{bench}/moves", new { moves = new[] { new { id = Guid.NewGuid(), materialId = material, kind = "no such kind", ml = 1 } } }, refused: true);
            else if (n % 3 == 0)
                await Send($"/api/shelf/{bench}/materials", new { name = $"Grey {n}", kind = "paint", carrier = "water acrylic", colour = "#667788" });
            else
                await Send($"/api/stock/{bench}/moves", new { moves = new[] { new { id = Guid.NewGuid(), materialId = material, kind = "bought", ml = 1 } } });
        }
    }

    private async Task<JsonNode?> Send(string path, object body, bool refused = false)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, path) { Content = JsonContent.Create(body) };
        request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
        using var answer = await http.SendAsync(request);
        var text = await answer.Content.ReadAsStringAsync();
        return answer.IsSuccessStatusCode != refused ? (text.Length > 0 ? JsonNode.Parse(text) : null) : throw new InvalidOperationException($"{path}: {text}");
    }

    private async Task<(double Count, double Mb)> Receipts()
    {
        await using var db = new NpgsqlConnection(database);
        await db.OpenAsync();
        await using var ask = new NpgsqlCommand("select (select count(*) from write_receipts)::float8, ((pg_total_relation_size('write_receipts') + pg_total_relation_size('spent_writes')) / 1048576.0)::float8", db);
        await using var row = await ask.ExecuteReaderAsync();
        await row.ReadAsync();
        return (row.GetDouble(0), row.GetDouble(1));
    }

    private double Log() => Directory.EnumerateFiles(logs, "server*").Sum(f => new FileInfo(f).Length) / 1048576.0;
}
