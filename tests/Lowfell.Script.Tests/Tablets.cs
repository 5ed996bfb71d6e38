using System.Collections.Concurrent;
using System.Text.Json.Nodes;

namespace Lowfell.Script.Tests;

/// <summary>
/// Four tablets at the bench. Each tells what happens in its order, again and again until it is answered; now and then one loses patience
/// and never sees the answer.
/// </summary>
/// <param name="place">Where they work.</param>
/// <param name="other">Another server of the same database, to which a tablet turns that gets no answer; half of them begin there.</param>
/// <param name="atOnce">The most events in one sending.</param>
/// <param name="eventsEach">What each of them has to tell.</param>
public sealed class Tablets(Place place, Place? other = null, int atOnce = 60, int eventsEach = 500)
{
    public const int Count = 4;
    private static readonly string[] kinds = ["begun", "given", "given", "paused", "wiped", "noted", "mishap", "hot air"];
    private string path = "", zone = "";
    private string[] layers = [], pieces = [];
    private int lost;
    private readonly ConcurrentQueue<(int Tablet, Place At, DateTimeOffset When)> answered = [];

    /// <summary>Sendings that nobody answered.</summary>
    public int LostAnswers => lost;

    /// <summary>Answers as they came: which tablet got one from which server, and when.</summary>
    public IReadOnlyCollection<(int Tablet, Place At, DateTimeOffset When)> Answered => answered;

    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    public async Task Prepare()
    {
        var workshop = (await place.Get("/api/workshops"))[0]!;
        path = $"/api/bench/{workshop["id"]}";
        var design = (await place.Get($"/api/plan/sets/{workshop["sets"]![0]!["id"]}"))["designs"]!.AsArray().First(d => d!["name"]!.GetValue<string>() == "Mud-and-salt base")!;
        zone = design["zones"]![0]!["id"]!.GetValue<string>();
        layers = (await place.Get($"/api/plan/zones/{zone}"))["layers"]!.AsArray().Select(l => l!["id"]!.GetValue<string>()).ToArray();
        pieces = (await place.Get($"{path}/task?zoneId={zone}&layerId={layers[0]}"))["pieces"]!.AsArray().Select(p => p!["id"]!.GetValue<string>()).ToArray();
    }

    public Task Work() => Task.WhenAll(Enumerable.Range(0, Count).Select(Tablet));

    private async Task Tablet(int n)
    {
        var random = new Random(n);
        var events = Enumerable.Range(1, eventsEach).Select(number => new JsonObject
        {
            ["id"] = Guid.NewGuid(),
            ["number"] = number,
            ["kind"] = kinds[random.Next(kinds.Length)],
            ["toldAt"] = DateTimeOffset.UtcNow.AddSeconds(number - 3600),
            ["zoneId"] = zone,
            ["layerId"] = layers[random.Next(layers.Length)],
            ["pieceIds"] = new JsonArray(pieces.Where(_ => random.Next(8) == 0).DefaultIfEmpty(pieces[0]).Select(p => (JsonNode)p).ToArray()),
        }).ToList();
        var at = other is not null && n % 2 == 1 ? other : place;
        for (var from = 0; from < eventsEach;)
        {
            var batch = new JsonArray(events.Skip(from).Take(random.Next(1, atOnce)).Select(e => e.DeepClone()).ToArray());
            var (status, answer, _) = await at.Send(HttpMethod.Post, path + "/events", new JsonObject { ["sentAt"] = DateTimeOffset.UtcNow, ["events"] = batch }, patience: random.Next(8) == 0 ? TimeSpan.FromMilliseconds(15) : TimeSpan.FromSeconds(20), device: $"tablet {n}");
            if (status is 0 or 503)
            {
                Interlocked.Increment(ref lost);
                if (other is not null && answer is JsonObject { Count: 0 } && !await at.Answers())
                    at = at == place ? other : place;
                await Task.Yield();
                continue;
            }

            Assert.True(status == 200, $"{answer.ToJsonString()} {place.Defects()}");
            answered.Enqueue((n, at, DateTimeOffset.UtcNow));
            from = answer["lastNumber"]!.GetValue<int>();
        }
    }

    /// <summary>Every event is there once and in its order, and what is kept is what a replay of all of them says.</summary>
    public async Task Exact()
    {
        Assert.True(lost > 0, "answers were lost on the way");
        Assert.Equal(Count * eventsEach, await place.Ask<long>("select count(*) from work_events where device like 'tablet %'"));
        Assert.Equal(0L, await place.Ask<long>("select count(*) from bench_refusals"));
        Assert.Equal(0L, await place.Ask<long>("select count(*) from (select device_number - row_number() over (partition by device order by sequence) as off from work_events where device like 'tablet %') n where off <> 0"));
        var (status, rebuilt, _) = await place.Send(HttpMethod.Post, path + "/rebuild", new { });
        Assert.Equal((200, 0), (status, rebuilt["differed"]!.GetValue<int>()));
        Assert.Equal(0L, await place.Ask<long>("select count(*) from (select zone_id, line_id, piece_id from piece_layers where state = 'done') a full join (select distinct zone_id, line_id, piece_id from done_layers) b using (zone_id, line_id, piece_id) where a.zone_id is null or b.zone_id is null"));
    }
}
