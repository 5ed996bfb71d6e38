using System.Net;
using System.Security.Cryptography.X509Certificates;
using System.Text.Json.Nodes;
using Lowfell.Tests;
using Microsoft.Extensions.DependencyInjection;

namespace Lowfell.Server.Tests;

/// <summary>The bench on other devices: another loopback address stands for the network.</summary>
public sealed class DeviceTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private async Task<string> Root() => $"/api/devices/{await server.WorkshopId()}";

    /// <summary>Opens the door at an address of the "network", and waits until somebody listens there.</summary>
    private async Task<string> Open(string address = "127.0.0.2")
    {
        var port = Ports.Free();
        var (status, said) = await server.Send(HttpMethod.Put, $"{await Root()}/door", new { address, port });
        Assert.True(status == 200, said.ToJsonString());
        Assert.Equal(said.Text("openAt"), (await server.Get(await Root())).Text("openAt"));
        return $"{address}:{port}";
    }

    private async Task<OtherDevice> At(string door, bool anyName = false) => new(door, X509CertificateLoader.LoadCertificate(await server.Http.GetByteArrayAsync("/api/pairing/authority.cer", Stop))) { AnyName = anyName };

    private async Task<string> Key(string role)
    {
        var (status, key) = await server.Send(HttpMethod.Post, $"{await Root()}/keys", new { role });
        Assert.True(status == 201, key.ToJsonString());
        return key.Text("key");
    }

    private async Task<(OtherDevice Device, string Id)> TakenIn(string door, string role, string name = "Tablet")
    {
        var device = await At(door);
        var (status, said, answer) = await device.Send(HttpMethod.Post, "/api/pairing", new { key = await Key(role), name, secret = OtherDevice.Secret() });
        Assert.True(status == 200, said.ToJsonString());
        var cookie = Assert.Single(answer.Headers.GetValues("Set-Cookie"));
        foreach (var needed in new[] { "httponly", "secure", "samesite=strict" })
            Assert.Contains(needed, cookie, StringComparison.OrdinalIgnoreCase);
        return (device, said.Text("deviceId"));
    }

    /// <summary>Every endpoint there is, as the document writes it, and with ids of the demo in it.</summary>
    private async Task<List<(string Written, HttpMethod Method, string Path)>> Paths()
    {
        var (workshop, set, zone) = (await server.WorkshopId(), await server.SetId(), await server.ZoneId("Mud-and-salt base", "Fen mud"));
        string Filled(string path) => System.Text.RegularExpressions.Regex.Replace(path, @"\{(\w+)\}", m => $"{m.Groups[1].Value switch { "workshopId" => workshop, "setId" => set, "zoneId" => zone, _ => Guid.NewGuid() }}");
        return (await server.Get("/openapi/v1.json"))["paths"]!.AsObject()
            .SelectMany(p => p.Value!.AsObject().Select(way => ($"{way.Key} {p.Key}", HttpMethod.Parse(way.Key), Filled(p.Key))))
            .Where(e => !e.Item3.StartsWith("/api/pairing", StringComparison.Ordinal)).ToList();
    }

    private async Task<List<(HttpMethod Method, string Path)>> Everything()
    {
        var found = (await Paths()).Select(e => (e.Method, e.Path)).ToList();
        Assert.True(found.Count > 100, $"{found.Count}");
        found.AddRange(new[] { "/health", "/metrics", "/openapi/v1.json", "/index.html", "/sw.js", "/assets/nothing.js" }.Select(p => (HttpMethod.Get, p)));
        return found;
    }

    private static async Task GetsNothing(OtherDevice device, List<(HttpMethod Method, string Path)> everything)
    {
        foreach (var (method, path) in everything)
        {
            var (status, body, answer) = await device.Send(method, path, method == HttpMethod.Get ? null : new { });
            using var _ = answer;
            Assert.True(status == 401 && body.Text("code") == "not-paired", $"{method} {path}: {status} {body.ToJsonString()}");
        }
    }

    [Fact]
    public async Task A_device_that_is_not_paired_or_was_sent_away_gets_nothing_but_the_pairing_page()
    {
        var (door, everything) = (await Open(), await Everything());
        using var stranger = await At(door);
        await GetsNothing(stranger, everything);
        foreach (var near in new[] { "/pairs", "/pair/anything", "/pair.html", "/api/pairing/anything", "/assets/pai" })
            Assert.Equal(401, (await stranger.Send(HttpMethod.Get, near)).Status);
        using var forged = await At(door);
        forged.Http.DefaultRequestHeaders.Add("Cookie", $"lowfell-device={OtherDevice.Secret()}");
        await GetsNothing(forged, everything.Take(10).ToList());
        var (_, _, led) = await stranger.Send(HttpMethod.Get, "/plan/anything", accept: "text/html");
        Assert.Equal((HttpStatusCode.Redirect, "/pair"), (led.StatusCode, led.Headers.Location?.ToString()));
        var (page, _, paired) = await stranger.Send(HttpMethod.Get, "/pair", accept: "text/html");
        Assert.Equal(200, page);
        Assert.DoesNotContain("index", await paired.Content.ReadAsStringAsync(Stop));

        var (device, id) = await TakenIn(door, "work");
        using var _ = device;
        Assert.Equal(200, (await device.Send(HttpMethod.Get, $"/api/bench/{await server.WorkshopId()}")).Status);
        Assert.Equal(200, (await server.Send(HttpMethod.Delete, $"{await Root()}/{id}", null)).Status);
        await GetsNothing(device, everything);
    }

    [Fact]
    public async Task A_device_gets_the_bench_of_its_own_workshop_and_what_its_role_is_for()
    {
        var (door, workshop) = (await Open("127.0.0.3"), await server.WorkshopId());
        var (looks, _) = await TakenIn(door, "look", "Wall");
        var (works, _) = await TakenIn(door, "work", "Phone");
        using var one = looks;
        using var two = works;
        var (status, other) = await server.Send(HttpMethod.Post, "/api/workshops", new { name = "Another bench" });
        Assert.Equal(201, status);
        foreach (var device in new[] { looks, works })
        {
            Assert.Equal(200, (await device.Send(HttpMethod.Get, $"/api/bench/{workshop}")).Status);
            Assert.Equal(200, (await device.Send(HttpMethod.Get, $"/api/instruments/{workshop}")).Status);
            Assert.Equal((403, "only-there"), await Refused(device, HttpMethod.Get, $"/api/bench/{other["id"]}"));
            Assert.Equal((403, "only-there"), await Refused(device, HttpMethod.Get, "/api/workshops"));
            Assert.Equal((403, "only-there"), await Refused(device, HttpMethod.Put, $"/api/workshops/{workshop}"));
            Assert.Equal((403, "only-there"), await Refused(device, HttpMethod.Post, $"{await Root()}/keys"));
            var (_, _, led) = await device.Send(HttpMethod.Get, "/plan/anything", accept: "text/html");
            Assert.Equal($"/bench/{workshop}", led.Headers.Location?.ToString());
            var (_, _, page) = await device.Send(HttpMethod.Get, $"/bench/{workshop}", accept: "text/html");
            Assert.Contains($"content=\"{(device == looks ? "look" : "work")}\"", await page.Content.ReadAsStringAsync(Stop));
        }

        var noted = new JsonObject { ["sentAt"] = DateTimeOffset.UtcNow, ["events"] = new JsonArray(new JsonObject { ["id"] = Guid.NewGuid(), ["number"] = 1, ["kind"] = "noted", ["toldAt"] = DateTimeOffset.UtcNow, ["note"] = "from the phone" }) };
        Assert.Equal((403, "only-there"), await Refused(looks, HttpMethod.Post, $"/api/bench/{workshop}/events", noted));
        Assert.Equal(200, (await works.Send(HttpMethod.Post, $"/api/bench/{workshop}/events", noted)).Status);
    }

    private static readonly string[] looking =
    [
        "get /api/bench/{workshopId}", "get /api/bench/{workshopId}/task", "get /api/changes/{workshopId}", "get /api/instruments/{workshopId}", "post /api/instruments/{workshopId}/pour",
    ];

    private static readonly string[] working =
    [
        .. looking, "post /api/bench/{workshopId}/events", "get /api/bench/{workshopId}/unfit", "post /api/bench/{workshopId}/unfit", "post /api/bench/{workshopId}/unfit/{id}/take-in",
        "post /api/bench/{workshopId}/unfit/{id}/correct", "post /api/bench/{workshopId}/unfit/{id}/let-go", "post /api/bench/{workshopId}/unfit/{id}/undo", "post /api/log/{setId}/photos",
    ];

    /// <summary>Every path of the document: what a role is for is let in, and whatever else there is, or will be, is not.</summary>
    [Theory]
    [InlineData("look", "127.0.0.11")]
    [InlineData("work", "127.0.0.12")]
    [InlineData("measure", "127.0.0.13")]
    public async Task A_role_gets_its_own_paths_and_no_other(string role, string address)
    {
        var (device, _) = await TakenIn(await Open(address), role, $"For {role}");
        using var __ = device;
        var mine = role switch { "look" => looking, "work" => working, _ => ["post /api/instruments/readings"] };
        var got = new List<string>();
        foreach (var (written, method, path) in await Paths())
        {
            var (status, said, answer) = await device.Send(method, path, method == HttpMethod.Get ? null : new { });
            using var ___ = answer;
            if (status == 403 && said.Text("code") == "only-there")
                continue;
            Assert.True(status is not (401 or 403 or >= 500), $"{written}: {status} {said.ToJsonString()}");
            got.Add(written);
        }

        Assert.Equal(mine.Order(StringComparer.Ordinal), got.Order(StringComparer.Ordinal));
    }

    private static async Task<(int, string)> Refused(OtherDevice device, HttpMethod method, string path, object? body = null)
    {
        var (status, said, _) = await device.Send(method, path, body ?? (method == HttpMethod.Get ? null : new { }));
        return (status, said["code"]?.GetValue<string>() ?? "");
    }

    [Fact]
    public async Task A_key_works_once_and_for_five_minutes()
    {
        var clock = new Clock(DateTimeOffset.UtcNow);
        var (later, http) = server.Start(s => s.AddSingleton<TimeProvider>(clock));
        await using var _ = later;
        async Task<(int Status, string Code)> Pair(string key, string secret)
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, "/api/pairing") { Content = System.Net.Http.Json.JsonContent.Create(new { key, name = "Phone", secret }) };
            request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
            using var answer = await http.SendAsync(request, Stop);
            return ((int)answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync(Stop))!["code"]?.GetValue<string>() ?? "");
        }

        var (key, secret) = (await Key("look"), OtherDevice.Secret());
        clock.Now = DateTimeOffset.UtcNow.AddMinutes(4.9);

        // As it was typed, in small letters and without the dashes; sent again, it is the same device.
        Assert.Equal((200, ""), await Pair(key.ToLowerInvariant().Replace("-", "", StringComparison.Ordinal), secret));
        Assert.Equal((200, ""), await Pair(key, secret));
        Assert.Equal((403, "key-no-good"), await Pair(key, OtherDevice.Secret()));
        var old = await Key("look");
        clock.Now = DateTimeOffset.UtcNow.AddMinutes(5.1);
        Assert.Equal((403, "key-no-good"), await Pair(old, OtherDevice.Secret()));
        Assert.Equal((403, "key-no-good"), await Pair("ABCD-EFGH-JKLM", OtherDevice.Secret()));
        Assert.Equal((400, "invalid"), await Pair(old, "short"));
    }

    [Fact]
    public async Task Of_eight_devices_that_show_one_key_at_once_one_is_taken_in()
    {
        var key = await Key("work");
        var all = await Task.WhenAll(Enumerable.Range(0, 8).Select(n => server.Send(HttpMethod.Post, "/api/pairing", new { key, name = $"Phone {n}", secret = OtherDevice.Secret() })));
        Assert.Equal(1, all.Count(a => a.Status == 200));
        Assert.Equal(7, all.Count(a => a.Status == 403));
    }

    [Fact]
    public async Task One_that_is_sent_away_hears_no_more()
    {
        var (device, id) = await TakenIn(await Open("127.0.0.4"), "look");
        using var _ = device;
        using var stream = await device.Http.GetStreamAsync($"/api/changes/{await server.WorkshopId()}", Stop);
        using var reader = new StreamReader(stream);
        Assert.StartsWith("event:", await reader.ReadLineAsync(Stop));
        await server.Send(HttpMethod.Delete, $"{await Root()}/{id}", null);
        await reader.ReadToEndAsync(Stop).WaitAsync(TimeSpan.FromSeconds(20), Stop);
    }

    [Fact]
    public async Task The_door_opens_where_this_machine_is_and_shuts_again()
    {
        var door = await Open("127.0.0.5");
        using (var device = await At(door))
            Assert.Equal(401, (await device.Send(HttpMethod.Get, "/api/workshops")).Status);

        // Another name for the same address is another site's.
        using (var device = await At(door, anyName: true))
        {
            using var request = new HttpRequestMessage(HttpMethod.Get, "/pair");
            request.Headers.Host = "elsewhere.invalid";
            Assert.Equal(HttpStatusCode.Forbidden, (await device.Http.SendAsync(request, Stop)).StatusCode);
        }

        foreach (var (address, field) in new[] { ("203.0.113.7", "address"), ("0.0.0.0", "address"), ("the kitchen", "address") })
        {
            var (status, said) = await server.Send(HttpMethod.Put, $"{await Root()}/door", new { address, port = 5299 });
            Assert.True(status == 400 && said.Fields().Contains(field), said.ToJsonString());
        }

        // Another address while somebody listens there: the old one is let go of, and the new one opens.
        var (inside, _) = await TakenIn(door, "look", "Old tablet");
        using (inside)
        using (var stream = await inside.Http.GetStreamAsync($"/api/changes/{await server.WorkshopId()}", Stop))
        using (var moved = await At(await Open("127.0.0.6")))
            Assert.Equal(401, (await moved.Send(HttpMethod.Get, "/api/workshops")).Status);
        Assert.Equal(200, (await server.Send(HttpMethod.Delete, $"{await Root()}/door", null)).Status);
        Assert.Equal("", (await server.Get(await Root())).Text("openAt"));
        using var late = await At(door);
        await Assert.ThrowsAsync<HttpRequestException>(() => late.Send(HttpMethod.Get, "/pair"));
    }
}
