using System.Collections.Concurrent;
using System.Text.Json.Nodes;

namespace Lowfell.Script.Tests;

/// <summary>One write as it was sent, with its key: the same however often it is sent.</summary>
public sealed record Sent(Guid Key, HttpMethod Method, string Path, object Body)
{
    public int Status { get; set; }
    public string Answer { get; set; } = "";
}

/// <summary>
/// Eight painters who write all kinds of things at once. Each sends a write again, with the same key and body, until there is a
/// definite answer; some lose patience and never see the first one.
/// </summary>
public sealed class Writers(Place place)
{
    private readonly ConcurrentQueue<Sent> done = new();
    private readonly TaskCompletionSource enough = new(TaskCreationOptions.RunContinuationsAsynchronously);
    private string set = "", workshop = "";
    private string[] materials = [], zones = [];
    private int lost;

    public IReadOnlyList<Sent> Done => [.. done];
    public int LostAnswers => lost;
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    public async Task Prepare()
    {
        var bench = (await place.Get("/api/workshops"))[0]!;
        workshop = bench["id"]!.GetValue<string>();
        set = bench["sets"]![0]!["id"]!.GetValue<string>();
        materials = (await place.Get($"/api/shelf/{workshop}/materials")).AsArray().Where(m => m!["stockMl"]!.GetValue<decimal>() > 15).Select(m => m!["id"]!.GetValue<string>()).Take(6).ToArray();
        zones = (await place.Get($"/api/plan/sets/{set}"))["designs"]!.AsArray().SelectMany(d => d!["zones"]!.AsArray()).Select(z => z!["id"]!.GetValue<string>()).Take(8).ToArray();
    }

    /// <summary>Lets them work until they are told that it is enough.</summary>
    public Task Work() => Task.WhenAll(Enumerable.Range(0, 8).Select(Writer));

    public void Enough() => enough.TrySetResult();

    private async Task Writer(int n)
    {
        var random = new Random(n);
        JsonNode? pot = null;
        while (!enough.Task.IsCompleted)
        {
            switch ((n + random.Next(3)) % 6)
            {
                case 0:
                    await Until(random, HttpMethod.Post, $"/api/stock/{workshop}/moves", new { moves = new[] { new { id = Guid.NewGuid(), materialId = materials[random.Next(materials.Length)], kind = "bought", ml = 1 + random.Next(9), reason = "kept" } } });
                    break;
                case 1:
                    await Until(random, HttpMethod.Post, $"/api/shelf/{workshop}/materials", new { name = $"Thing {Guid.NewGuid():n}", kind = "paint", carrier = "water acrylic", colour = "#405060", stockMl = 3 });
                    break;
                case 2:
                    await Until(random, HttpMethod.Post, $"/api/shelf/{workshop}/csv", new { store = true, text = string.Join('\n', Enumerable.Range(0, 5).Select(_ => $"Row {Guid.NewGuid():n},paint,#405060").Prepend("name,kind,colour")) });
                    break;
                case 3:
                    await Stack(random);
                    break;
                case 4:
                    await Until(random, HttpMethod.Put, $"/api/workshops/{workshop}/house-rules/bare-percent", new { meaning = (string?)null });
                    break;
                default:
                    pot = await Pot(random, pot);
                    break;
            }
        }
    }

    private async Task Stack(Random random)
    {
        if (await Read($"/api/plan/zones/{zones[random.Next(zones.Length)]}") is not { } sheet)
            return;
        var layers = sheet["layers"]!.DeepClone();
        layers[0]!["note"] = $"note {Guid.NewGuid():n}";
        await Until(random, HttpMethod.Put, $"/api/plan/zones/{sheet["zone"]!["id"]}/stack", new JsonObject { ["version"] = sheet["version"]!.DeepClone(), ["layers"] = layers });
    }

    private async Task<JsonNode?> Pot(Random random, JsonNode? pot)
    {
        if (pot is null)
            return await Until(random, HttpMethod.Post, $"/api/pots/{set}", new { id = Guid.NewGuid(), eventId = Guid.NewGuid(), label = $"Pot {Guid.NewGuid():n}", vessel = "jar", bottleHadMore = true, amounts = materials.Take(2).Select(m => new { materialId = m, ml = 0.5 }) });
        var path = $"/api/pots/{set}/{pot["id"]}";
        var version = pot["version"]!.GetValue<uint>();
        var next = random.Next(3) switch
        {
            0 => await Until(random, HttpMethod.Post, path + "/top-up", new { id = Guid.NewGuid(), version, bottleHadMore = true, amounts = new[] { new { materialId = materials[random.Next(2)], ml = 0.25 } } }),
            1 => await Until(random, HttpMethod.Post, path + "/throw-away", new { id = Guid.NewGuid(), version, ml = 0.0625 }),
            _ => await Until(random, HttpMethod.Post, path + "/correct", new { id = Guid.NewGuid(), version, leftMl = 0.75m + random.Next(100) / 128m }),
        };
        return next is not null && next["version"] is not null ? next : await Read(path) is { } there ? there["pot"] : null;
    }

    private async Task<JsonNode?> Read(string path)
    {
        var (status, body, _) = await place.Send(HttpMethod.Get, path, null);
        return status == 200 ? body : null;
    }

    /// <summary>Sends until there is an answer that is neither lost nor asks to try again.</summary>
    private async Task<JsonNode?> Until(Random random, HttpMethod method, string path, object body)
    {
        var sent = new Sent(Guid.NewGuid(), method, path, body);
        using var pause = new PeriodicTimer(TimeSpan.FromMilliseconds(40));
        while (true)
        {
            // One in four is not waited for: the answer is lost on the way, whatever became of it.
            var (status, answer, _) = await place.Send(method, path, body, sent.Key, random.Next(4) == 0 ? TimeSpan.FromMilliseconds(random.Next(1, 25)) : TimeSpan.FromSeconds(30));
            if (status is > 0 and not (503 or 507))
            {
                if (status >= 500)
                    Assert.Fail($"{path}: {answer.ToJsonString()} {place.Defects()}");
                (sent.Status, sent.Answer) = (status, answer.ToJsonString());
                done.Enqueue(sent);
                return status < 300 ? answer : null;
            }

            Interlocked.Increment(ref lost);
            await pause.WaitForNextTickAsync(Stop);
        }
    }
}
