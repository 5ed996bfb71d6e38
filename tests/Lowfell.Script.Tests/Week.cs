using System.Collections.Concurrent;
using System.Diagnostics;
using System.Net.Http.Json;
using System.Text.Json.Nodes;

namespace Lowfell.Script.Tests;

/// <summary>
/// A week of a workshop in minutes: six devices and two pages tell, photograph, plan and carry sets in and out over a line that is bad, while by a
/// seed one part after the other is killed, the disk fills, clocks jump, and everything is backed up and restored. Whatever was answered with yes
/// has to be there once.
/// </summary>
internal sealed class Week(Place place, int seed, bool ownDisk) : IDisposable
{
    private const int Devices = 6, Pages = 2, MostAtOnce = 12;
    private static readonly string[] kinds = ["begun", "given", "given", "paused", "wiped", "noted", "noted", "mishap", "hot air"];
    private static readonly TimeSpan patience = TimeSpan.FromSeconds(30);

    private readonly BadLine line = new(seed);
    private readonly ConcurrentDictionary<string, int> counts = new();
    private readonly ConcurrentDictionary<Guid, byte> told = new(), moved = new(), photographed = new();
    private readonly ConcurrentDictionary<string, byte> shelved = new(), carried = new();
    private readonly ConcurrentQueue<string> defects = new();
    private readonly TaskCompletionSource enough = new(TaskCreationOptions.RunContinuationsAsynchronously);
    private HttpClient? http;
    private string workshop = "", set = "", zone = "";
    private string[] layers = [], pieces = [], materials = [];
    private byte[] picture = [];

    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private void Count(string what) => counts.AddOrUpdate(what, 1, (_, n) => n + 1);

    public async Task Begin()
    {
        http = new HttpClient(line) { BaseAddress = place.Http.BaseAddress, Timeout = patience };
        var bench = (await place.Get("/api/workshops"))[0]!;
        (workshop, set) = (bench["id"]!.GetValue<string>(), bench["sets"]![0]!["id"]!.GetValue<string>());
        var design = (await place.Get($"/api/plan/sets/{set}"))["designs"]!.AsArray().First(d => d!["name"]!.GetValue<string>() == "Mud-and-salt base")!;
        zone = design["zones"]![0]!["id"]!.GetValue<string>();
        layers = (await place.Get($"/api/plan/zones/{zone}"))["layers"]!.AsArray().Select(l => l!["id"]!.GetValue<string>()).ToArray();
        pieces = (await place.Get($"/api/bench/{workshop}/task?zoneId={zone}&layerId={layers[^1]}"))["pieces"]!.AsArray().Select(p => p!["id"]!.GetValue<string>()).ToArray();
        materials = (await place.Get($"/api/shelf/{workshop}/materials")).AsArray().Select(m => m!["id"]!.GetValue<string>()).Take(6).ToArray();
        picture = Convert.FromBase64String("iVBORw0KGgoAAAANSUhEUgAAAAgAAAAICAIAAABLbSncAAAAEUlEQVR4nGNwSAjAihiGlgQAbiE8AZWPymkAAAAASUVORK5CYII=");
    }

    /// <summary>Works under faults for so long.</summary>
    /// <param name="time">How long.</param>
    /// <param name="restart">Starts Lowfell again, once it has ended.</param>
    /// <param name="hasEnded">Whether it ended: a database that found no room in the middle of a write does, and says so.</param>
    public async Task Work(TimeSpan time, Func<Task> restart, Func<bool> hasEnded)
    {
        var end = Stopwatch.GetTimestamp() + (long)(time.TotalSeconds * Stopwatch.Frequency);
        var all = Enumerable.Range(0, Devices).Select(Device).Concat(Enumerable.Range(0, Pages).Select(Page)).ToList();
        var random = new Random(seed);
        using var timer = new PeriodicTimer(TimeSpan.FromSeconds(1));
        for (var wait = 3; Stopwatch.GetTimestamp() < end && await timer.WaitForNextTickAsync(Stop);)
        {
            if (all.Find(t => t.IsFaulted) is { } broken)
                await broken;
            if (--wait > 0)
                continue;
            await Fault(random, restart);
            await Place.Until(async () => hasEnded() || await place.Answers());
            if (hasEnded())
                await restart();
            wait = random.Next(4, 12);
        }

        enough.TrySetResult();
        await Task.WhenAll(all);
    }

    private async Task Fault(Random random, Func<Task> restart)
    {
        switch (random.Next(ownDisk ? 6 : 5))
        {
            case 0:
                Count("fault: a backend of the database killed");
                Kill(await place.Ask<int>("select pid from pg_stat_activity where usename = 'lowfell_serve' and pid <> pg_backend_pid() order by random() limit 1"));
                break;
            case 1:
                Count("fault: the server killed");
                Kill(place.Processes("Lowfell.Server").FirstOrDefault());
                await restart();
                break;
            case 2:
                Count("fault: the postmaster killed");
                Kill(int.Parse((await File.ReadAllLinesAsync(Path.Combine(place.Data, "cluster", "postmaster.pid"), Stop))[0], System.Globalization.CultureInfo.InvariantCulture));
                await restart();
                break;
            case 3:
                Count("stopped, backed up, restored and started");
                await Restore(restart);
                break;
            case 4:
                Count("backed up while it ran");
                var file = Path.Combine(place.Data, $"week-{Guid.NewGuid():n}.backup");
                var backup = await place.Run("backup", file);
                Assert.True(backup.Code == 0, backup.Text);
                File.Delete(file);
                break;
            default:
                Count("fault: the disk full");
                await Fill();
                break;
        }
    }

    private async Task Restore(Func<Task> restart)
    {
        var file = Path.Combine(Path.GetTempPath(), $"week-{Guid.NewGuid():n}.backup");
        await place.Run("stop");
        foreach (var arguments in new string[][] { ["backup", file], ["restore", file] })
        {
            var ended = await place.Run(arguments);
            Assert.True(ended.Code == 0, ended.Text);
        }

        File.Delete(file);
        await restart();
    }

    private async Task Fill()
    {
        var filler = Path.Combine(place.Data, "filler");
        try
        {
            await using var to = File.Create(filler);
            while (true)
                await to.WriteAsync(new byte[1_000_000], Stop);
        }
        catch (IOException)
        {
            // It is full.
        }

        using var timer = new PeriodicTimer(TimeSpan.FromSeconds(2));
        await timer.WaitForNextTickAsync(Stop);
        File.Delete(filler);
    }

    private static void Kill(int process)
    {
        if (process == 0)
            return;
        using var victim = Process.GetProcessById(process);
        victim.Kill();
    }

    /// <summary>Asks until there is a definite answer; null once there was enough.</summary>
    private async Task<(int Status, JsonNode Body)?> Until(HttpMethod method, string path, Func<HttpContent?> body, Guid key, string device)
    {
        using var timer = new PeriodicTimer(TimeSpan.FromMilliseconds(150));
        while (true)
        {
            var (status, said) = await Ask(method, path, body(), key, device);
            if (status == 500)
                defects.Enqueue($"{method} {path}: {said.ToJsonString()}");
            if (status is not (0 or 429 or 500 or 502 or 503 or 504 or 507))
                return (status, said);
            Count("answers that never came, or “not now”");
            await timer.WaitForNextTickAsync(Stop);
        }
    }

    private async Task<(int Status, JsonNode Body)> Ask(HttpMethod method, string path, HttpContent? body, Guid key, string device)
    {
        using var request = new HttpRequestMessage(method, path) { Content = body };
        request.Headers.Add("Idempotency-Key", key.ToString());
        request.Headers.Add("Lowfell-Device", device);
        try
        {
            using var answer = await http!.SendAsync(request, Stop);
            var text = answer.Content.Headers.ContentType?.MediaType?.EndsWith("json", StringComparison.Ordinal) == true ? await answer.Content.ReadAsStringAsync(Stop) : "";
            return ((int)answer.StatusCode, text.Length == 0 ? new JsonObject() : JsonNode.Parse(text)!);
        }
        catch (Exception e) when (e is HttpRequestException or IOException or System.Text.Json.JsonException || (e is OperationCanceledException && !Stop.IsCancellationRequested))
        {
            return (0, new JsonObject());
        }
    }

    /// <summary>A device that numbers what happens, tells it in order, and has a clock that jumps.</summary>
    private async Task Device(int n)
    {
        var (random, name, number, wall) = (new Random(seed * 31 + n), $"week device {n}", 0, TimeSpan.Zero);
        var line = new List<JsonObject>();
        while (!enough.Task.IsCompleted || line.Count > 0)
        {
            if (random.Next(12) == 0)
            {
                wall = TimeSpan.FromMinutes(random.Next(4) switch { 0 => 0, 1 => 60, 2 => -60, _ => -6 * 365 * 1440 });
                Count("fault: a device's clock jumped");
            }

            if (!enough.Task.IsCompleted)
                for (var more = random.Next(1, 6); more > 0; more--)
                    line.Add(Event(random, ++number, DateTimeOffset.UtcNow + wall));
            var batch = line.Take(random.Next(1, MostAtOnce)).ToList();
            var body = new JsonObject { ["sentAt"] = DateTimeOffset.UtcNow + wall, ["events"] = new JsonArray(batch.Select(e => e.DeepClone()).ToArray()) };
            if (await Until(HttpMethod.Post, $"/api/bench/{workshop}/events", () => JsonContent.Create(body), Guid.NewGuid(), name) is not var (status, said))
                return;
            Assert.True(status == 200, $"{status} {said.ToJsonString()}");
            var last = said["lastNumber"]!.GetValue<int>();
            foreach (var e in line.Where(e => e["number"]!.GetValue<int>() <= last))
                if (told.TryAdd(e["id"]!.GetValue<Guid>(), 0))
                    Count("events told and answered");
            line.RemoveAll(e => e["number"]!.GetValue<int>() <= last);
        }
    }

    private JsonObject Event(Random random, int number, DateTimeOffset at)
    {
        var e = new JsonObject
        {
            ["id"] = Guid.NewGuid(),
            ["number"] = number,
            ["kind"] = kinds[random.Next(kinds.Length)],
            ["toldAt"] = at,
            ["zoneId"] = zone,
            ["layerId"] = layers[random.Next(layers.Length)],
            ["pieceIds"] = new JsonArray(pieces.Where(_ => random.Next(6) == 0).DefaultIfEmpty(pieces[0]).Select(p => (JsonNode)p).ToArray()),
        };

        // Now and then what does not fit: a zone that never was, a piece that is gone, a note too long.
        var odd = random.Next(25);
        if (odd == 0)
            e["zoneId"] = Guid.NewGuid();
        else if (odd == 1)
            e["pieceIds"]!.AsArray().Add(Guid.NewGuid());
        else if (odd == 2)
            e["note"] = new string('n', 600);
        if (odd < 3)
            Count("events that do not fit");
        return e;
    }

    /// <summary>A page that writes all kinds of things.</summary>
    private async Task Page(int n)
    {
        var (random, name) = (new Random(seed * 37 + n), $"week page {n}");
        while (!enough.Task.IsCompleted)
            switch (random.Next(10))
            {
                case < 3:
                    var move = Guid.NewGuid();
                    if (await Write($"/api/stock/{workshop}/moves", new { moves = new[] { new { id = move, materialId = materials[random.Next(materials.Length)], kind = "bought", ml = 1 + random.Next(9), reason = "week" } } }, name))
                        moved.TryAdd(move, 0);
                    break;
                case < 5:
                    var thing = $"Week {Guid.NewGuid():n}";
                    if (await Write($"/api/shelf/{workshop}/materials", new { name = thing, kind = "paint", carrier = "water acrylic", colour = "#405060", stockMl = 3 }, name))
                        shelved.TryAdd(thing, 0);
                    break;
                case < 7:
                    var photo = Guid.NewGuid();
                    if (await Write($"/api/log/{set}/photos", new { id = photo, data = Convert.ToBase64String(picture), words = "week" }, name))
                        photographed.TryAdd(photo, 0);
                    break;
                case 7:
                    await Stack(name);
                    break;
                case 8:
                    if (await Until(HttpMethod.Get, $"/api/sessions/{workshop}", () => null, Guid.NewGuid(), name) is (200, _))
                        Count("plans looked at");
                    break;
                default:
                    await Carry(name);
                    break;
            }
    }

    private async Task<bool> Write(string path, object body, string name)
    {
        if (await Until(HttpMethod.Post, path, () => JsonContent.Create(body), Guid.NewGuid(), name) is not var (status, said))
            return false;
        Assert.True(status is 200 or 201, $"{path}: {status} {said.ToJsonString()}");
        Count("writes of pages");
        return true;
    }

    private async Task Stack(string name)
    {
        if (await Until(HttpMethod.Get, $"/api/plan/zones/{zone}", () => null, Guid.NewGuid(), name) is not (200, var sheet))
            return;
        var edited = sheet["layers"]!.DeepClone();
        edited[0]!["note"] = $"week {Guid.NewGuid():n}";
        var body = new JsonObject { ["version"] = sheet["version"]!.DeepClone(), ["layers"] = edited };
        if (await Until(HttpMethod.Put, $"/api/plan/zones/{zone}/stack", () => JsonContent.Create(body), Guid.NewGuid(), name) is var (status, said))
        {
            Assert.True(status is 200 or 409, $"{status} {said.ToJsonString()}");
            Count("stacks stored or found changed");
        }
    }

    /// <summary>The set out as a file, and in again beside itself; a few in all, since a set is large.</summary>
    private async Task Carry(string name)
    {
        if (carried.Count >= 6)
            return;
        byte[] file;
        try
        {
            file = await place.Http.GetByteArrayAsync($"/api/sets/{set}/file", Stop);
        }
        catch (Exception e) when (e is HttpRequestException or IOException)
        {
            return;
        }

        if (await Until(HttpMethod.Post, $"/api/workshops/{workshop}/sets/file", () => new ByteArrayContent(file) { Headers = { { "Content-Type", "application/zip" } } }, Guid.NewGuid(), name) is not var (status, said))
            return;
        Assert.True(status == 200, $"{status} {said.ToJsonString()}");
        carried.TryAdd(said["setId"]!.GetValue<string>(), 0);
        Count("set files out and in");
    }

    /// <summary>Looks whether all of it is there once, and whether what is kept of it is what it comes to.</summary>
    public async Task Look()
    {
        async Task Nothing(string what, string sql)
        {
            var odd = await place.Ask<long>(sql);
            counts[what] = (int)odd;
            Assert.True(odd == 0, $"{odd} {what}");
        }

        string Ids<T>(IEnumerable<T> of) => string.Join(", ", of.Select(id => $"('{id}')").DefaultIfEmpty("(null)"));
        await Nothing("events lost", $"select count(*) from (values {Ids(told.Keys)}) t(id) where id is not null and not exists (select from work_events where id = t.id::uuid) and not exists (select from bench_refusals where event_id = t.id::uuid)");
        await Nothing("events there twice", "select count(*) from (select device, device_number from work_events where device like 'week device %' group by 1, 2 having count(*) > 1) d");
        await Nothing("events out of order", "select count(*) from (select device_number < max(device_number) over (partition by device order by sequence rows between unbounded preceding and 1 preceding) as back from work_events where device like 'week device %') o where back");
        await Nothing("events in the future", "select count(*) from work_events where at > received_at + interval '1 second'");
        await Nothing("stock moves lost", $"select count(*) from (values {Ids(moved.Keys)}) t(id) where id is not null and (select count(*) from stock_moves where id = t.id::uuid) <> 1");
        await Nothing("materials lost or there twice", $"select count(*) from (values {Ids(shelved.Keys)}) t(id) where id is not null and (select count(*) from materials where name = t.id) <> 1");
        await Nothing("photographs lost", $"select count(*) from (values {Ids(photographed.Keys)}) t(id) where id is not null and (select count(*) from photos p join blobs b on b.id = p.blob_id where p.id = t.id::uuid) <> 1");
        await Nothing("sets lost", $"select count(*) from (values {Ids(carried.Keys)}) t(id) where id is not null and not exists (select from sets where id = t.id::uuid)");
        await Nothing("stocks that are not the sum of their moves", "select count(*) from materials m where stock_ml <> coalesce((select sum(ml) from stock_moves s where s.material_id = m.id), 0)");
        await Nothing("pots that are not what went in", "select count(*) from (select e.pot_id, a.material_id, sum(a.ml) as ml from work_events e join work_amounts a on a.event_id = e.id group by 1, 2) s full join pot_contents c on (c.pot_id, c.material_id) = (s.pot_id, s.material_id) where s.ml is distinct from c.ml");
        await Nothing("orphans", "select (select count(*) from blobs b where not exists (select from photos p where b.id in (p.blob_id, p.small_id)) and not exists (select from jobs j where j.blob_id = b.id)) + (select count(*) from bench_refusals r where became_id is not null and not exists (select from work_events where id = r.became_id))");
        await Nothing("locks left behind", "select count(*) from pg_locks l join pg_stat_activity a using (pid) where a.usename = 'lowfell_serve' and a.state = 'idle in transaction' and a.state_change < now() - interval '10 seconds'");
        var (status, rebuilt, _) = await place.Send(HttpMethod.Post, $"/api/bench/{workshop}/rebuild", new { });
        Assert.Equal((200, 0), (status, rebuilt["differed"]!.GetValue<int>()));
        counts["rows that a replay has otherwise"] = 0;
        counts["answers of 500"] = defects.Count;
        Assert.True(defects.IsEmpty, string.Join('\n', defects.Take(5)) + place.Defects());
    }

    /// <summary>What was done and survived, a line each.</summary>
    public string Table()
    {
        counts["line: answers dropped"] = line.Dropped;
        counts["line: questions doubled"] = line.Doubled;
        counts["line: answers delayed"] = line.Delayed;
        return string.Join('\n', counts.OrderBy(c => c.Key, StringComparer.Ordinal).Select(c => $"{c.Value,7}  {c.Key}"));
    }

    public void Dispose()
    {
        http?.Dispose();
        line.Dispose();
    }
}
