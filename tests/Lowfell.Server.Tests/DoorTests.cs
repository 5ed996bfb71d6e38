using System.Diagnostics;
using System.Net;
using System.Security.Cryptography;
using System.Security.Cryptography.X509Certificates;
using System.Text.Json.Nodes;
using Lowfell.Server.Devices;
using Lowfell.Server.Http;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Lowfell.Tests;
using Microsoft.AspNetCore.Hosting.Server;
using Microsoft.AspNetCore.Hosting.Server.Features;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Configuration;
using Microsoft.Extensions.DependencyInjection;

namespace Lowfell.Server.Tests;

/// <summary>The door and the workshop's own authority: what it can sign, how long it lives, who can open it, and what becomes of a server whose authority is odd.</summary>
public sealed class DoorTests(LowfellServer server) : IClassFixture<LowfellServer>, IDisposable
{
    private readonly string folder = Directory.CreateTempSubdirectory("lowfell-door-").FullName;

    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    public void Dispose() => Directory.Delete(folder, recursive: true);

    private string File(string name) => Path.Combine(folder, name);

    private static OwnSecret Secret(string file) => new(new ConfigurationBuilder().AddInMemoryCollection([new("Lowfell:Secret", file)]).Build());

    private async Task<string> Root() => $"/api/devices/{await server.WorkshopId()}";

    [Fact]
    public void The_secret_lies_in_a_file_that_only_its_owner_can_read_and_is_the_same_for_every_server()
    {
        var (one, two) = (Secret(File("own")), Secret(File("own")));
        Assert.True(OperatingSystem.IsWindows() || System.IO.File.GetUnixFileMode(File("own")) == (UnixFileMode.UserRead | UnixFileMode.UserWrite));
        var sealedBytes = one.Seal([1, 2, 3]);
        Assert.Equal([1, 2, 3], two.Open(sealedBytes));
        Assert.Equal(one.Derived("a"), two.Derived("a"));
        Assert.NotEqual(one.Derived("a"), one.Derived("b"));
        Assert.Null(Secret(File("another")).Open(sealedBytes));
        sealedBytes[^1] ^= 1;
        Assert.Null(one.Open(sealedBytes));
        System.IO.File.WriteAllText(File("odd"), "not a secret");
        Assert.Contains("not", Secret(File("odd")).Trouble, StringComparison.Ordinal);
        Assert.Empty(one.Trouble);
    }

    [Fact]
    public async Task Of_servers_that_make_the_secret_at_once_all_have_the_same()
    {
        var all = await Task.WhenAll(Enumerable.Range(0, 12).Select(_ => Task.Run(() => Secret(File("race")).Derived("x"), Stop)));
        Assert.Single(all.Select(Convert.ToHexString).Distinct());
        Assert.Single(Directory.GetFiles(folder));
    }

    private static X509Certificate2 Opened((byte[] Certificate, byte[] Key) made)
    {
        using var key = ECDsa.Create();
        key.ImportPkcs8PrivateKey(made.Key, out _);
        using var bare = X509CertificateLoader.LoadCertificate(made.Certificate);
        return bare.CopyWithPrivateKey(key);
    }

    /// <summary>What somebody who had the authority's key could sign for a name or an address.</summary>
    private static X509Certificate2 Forged(X509Certificate2 authority, Action<SubjectAlternativeNameBuilder> names)
    {
        using var key = ECDsa.Create(ECCurve.NamedCurves.nistP256);
        var request = new CertificateRequest("CN=Somebody", key, HashAlgorithmName.SHA256);
        var san = new SubjectAlternativeNameBuilder();
        names(san);
        request.CertificateExtensions.Add(san.Build());
        request.CertificateExtensions.Add(new X509BasicConstraintsExtension(false, false, 0, true));
        request.CertificateExtensions.Add(new X509EnhancedKeyUsageExtension([new Oid("1.3.6.1.5.5.7.3.1")], false));
        request.CertificateExtensions.Add(X509AuthorityKeyIdentifierExtension.CreateFromCertificate(authority, true, false));
        return request.Create(authority, DateTimeOffset.UtcNow.AddHours(-1), DateTimeOffset.UtcNow.AddDays(20), [1, 2, 3]);
    }

    private bool Trusted(X509Certificate2 authority, X509Certificate2 leaf)
    {
        using var chain = new X509Chain();
        chain.ChainPolicy.TrustMode = X509ChainTrustMode.CustomRootTrust;
        chain.ChainPolicy.CustomTrustStore.Add(authority);
        chain.ChainPolicy.RevocationMode = X509RevocationMode.NoCheck;
        var here = chain.Build(leaf);

        // By another hand too: two that read the constraints alike.
        System.IO.File.WriteAllText(File("ca.pem"), authority.ExportCertificatePem());
        System.IO.File.WriteAllText(File("leaf.pem"), leaf.ExportCertificatePem());
        using var openssl = Process.Start(new ProcessStartInfo("openssl", ["verify", "-x509_strict", "-no-CApath", "-CAfile", File("ca.pem"), File("leaf.pem")]) { RedirectStandardOutput = true, RedirectStandardError = true })!;
        var says = openssl.StandardError.ReadToEnd();
        openssl.WaitForExit();
        Assert.True(here == (openssl.ExitCode == 0), $"{here}, and openssl: {says}");
        return here;
    }

    [Fact]
    public void Whoever_trusts_the_authority_trusts_no_site_and_nothing_that_the_internet_can_reach()
    {
        using var authority = Opened(Authority.Make(DateTimeOffset.UtcNow));
        Assert.InRange((authority.NotAfter - authority.NotBefore).TotalDays, 729, 733);
        Assert.True(authority.Extensions["2.5.29.30"]!.Critical);
        foreach (var address in new[] { "192.168.1.20", "10.1.2.3", "172.16.0.1", "172.31.255.254", "169.254.9.9", "127.0.0.2", "fd00::5", "fe80::1" })
            using (var leaf = Authority.Sign(authority, IPAddress.Parse(address), DateTimeOffset.UtcNow))
                Assert.True(Trusted(authority, leaf), address);
        foreach (var name in Authority.Names())
            using (var leaf = Forged(authority, n => n.AddDnsName(name)))
                Assert.True(Trusted(authority, leaf), name);
        foreach (var name in new[] { "example.org", "lowfell.example", "localhost.example", "anything" })
            using (var leaf = Forged(authority, n => n.AddDnsName(name)))
                Assert.False(Trusted(authority, leaf), name);
        foreach (var address in new[] { "203.0.113.7", "172.32.0.1", "192.169.0.1", "11.0.0.1", "2001:db8::1", "8.8.8.8" })
        {
            Assert.False(Authority.IsOwn(IPAddress.Parse(address)), address);
            using var leaf = Forged(authority, n => n.AddIpAddress(IPAddress.Parse(address)));
            Assert.False(Trusted(authority, leaf), address);
        }

        // A site beside an address that is allowed is a site all the same.
        using (var both = Forged(authority, n => { n.AddIpAddress(IPAddress.Parse("192.168.1.20")); n.AddDnsName("example.org"); }))
            Assert.False(Trusted(authority, both));
    }

    private static async Task Put(LowfellServer server, (byte[] Certificate, byte[] Key)? made, OwnSecret secret, byte[]? key = null)
    {
        await using var db = server.Db();
        await db.Authorities.ExecuteDeleteAsync(Stop);
        if (made is not var (certificate, own))
            return;
        db.Add(new AuthorityRow { Certificate = certificate, SealedKey = key ?? secret.Seal(own), MadeAt = DateTimeOffset.UtcNow });
        await db.SaveChangesAsync(Stop);
    }

    private static async Task Asked(LowfellServer server, string address, int port)
    {
        await using var db = server.Db();
        db.Add(new DoorRow { Address = address, Port = port, OpenedAt = DateTimeOffset.UtcNow });
        await db.SaveChangesAsync(Stop);
    }

    private static byte[] Garbage => [1, 2, 3, 4, 5];

    /// <summary>A server that finds an authority from the future, from far in it, gone, or unreadable starts, serves, and says so.</summary>
    [Theory]
    [InlineData("two hours ahead", "dated ahead")]
    [InlineData("2035", "dated ahead")]
    [InlineData("gone", "")]
    [InlineData("another secret", "cannot be opened")]
    [InlineData("broken key", "cannot be opened")]
    [InlineData("broken certificate", "cannot be read")]
    [InlineData("ended", "")]
    public async Task A_server_starts_and_serves_whatever_its_authority_is(string how, string says)
    {
        await using var alone = await LowfellServer.Asleep();
        var (secret, now, port) = (Secret(File("own")), DateTimeOffset.UtcNow, Ports.Free());
        var good = Authority.Make(now);
        await Put(alone, how switch
        {
            "two hours ahead" => Authority.Make(now.AddDays(1).AddHours(2)),
            "2035" => Authority.Make(new DateTimeOffset(2035, 1, 1, 0, 0, 0, TimeSpan.Zero)),
            "ended" => Authority.Make(now.AddYears(-3)),
            "gone" => null,
            "broken certificate" => (Garbage, good.Key),
            _ => good,
        }, how == "another secret" ? Secret(File("another")) : secret, how == "broken key" ? Garbage : null);
        await Asked(alone, "127.0.0.7", port);
        var (factory, _) = alone.Start(with: null, settings: [("Lowfell:Secret", File("own"))]);
        await using var __ = factory;

        // The door may be open by now: this machine's own address is the one that is not encrypted.
        using var http = new HttpClient { BaseAddress = new Uri(factory.Services.GetRequiredService<IServer>().Features.Get<IServerAddressesFeature>()!.Addresses.First(a => a.StartsWith("http://", StringComparison.Ordinal))) };
        Assert.Equal(HttpStatusCode.OK, (await http.GetAsync("/health", Stop)).StatusCode);
        var path = $"/api/devices/{JsonNode.Parse(await http.GetStringAsync("/api/workshops", Stop))![0]!["id"]}";
        async Task<JsonNode> Devices() => JsonNode.Parse(await http.GetStringAsync(path, Stop))!;
        var reading = await Devices();
        Assert.Contains(says, reading["authority"]!.Text("trouble"), StringComparison.Ordinal);
        Assert.True(says.Length > 0 || reading["authority"]!.Text("trouble").Length == 0, reading["authority"]!.ToJsonString());

        // What cannot be opened keeps the door shut and is told of in the page and in /health; the rest opens all the same.
        var shut = says.StartsWith("cannot", StringComparison.Ordinal);
        await Until(async () => shut ? JsonNode.Parse(await http.GetStringAsync("/health", Stop))!["troubles"]!.AsArray().Count > 0 : (await Devices()).Text("openAt").Length > 0);
        Assert.Equal(shut, (await Devices()).Text("openAt").Length == 0);
        var troubles = JsonNode.Parse(await http.GetStringAsync("/api/troubles", Stop))!.AsArray();
        Assert.Equal(shut, troubles.Any(t => t!.Text("what") == "The door for other devices"));

        // A new one mends it: the fingerprint is another, and the door opens.
        using var request = new HttpRequestMessage(HttpMethod.Post, path + "/authority");
        request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
        Assert.Equal(HttpStatusCode.OK, (await http.SendAsync(request, Stop)).StatusCode);
        var after = await Devices();
        Assert.Empty(after["authority"]!.Text("trouble"));
        Assert.NotEqual(reading["authority"]!.Text("fingerprint"), after["authority"]!.Text("fingerprint"));
        await Until(async () => (await Devices()).Text("openAt") == $"127.0.0.7:{port}");
    }

    private static async Task Until(Func<Task<bool>> condition)
    {
        using var timer = new PeriodicTimer(TimeSpan.FromMilliseconds(50));
        for (var tries = 0; !await condition(); tries++)
        {
            Assert.True(tries < 600, "it did not come about within half a minute");
            await timer.WaitForNextTickAsync(Stop);
        }
    }

    [Fact]
    public async Task Certificates_are_made_anew_in_time_while_it_runs()
    {
        var clock = new Clock(DateTimeOffset.UtcNow);
        await Put(server, null, Secret(File("own")));
        await using var services = new ServiceCollection().AddDbContextFactory<LowfellDb>(o => LowfellDb.Configure((DbContextOptionsBuilder<LowfellDb>)o, server.Connection)).BuildServiceProvider();
        var certificates = new Certificates(services.GetRequiredService<IDbContextFactory<LowfellDb>>(), Secret(File("own")), clock);
        var address = IPAddress.Parse("192.168.1.20");
        await certificates.For(address, Stop);
        var (first, authority) = (certificates.Shown!, await certificates.State(Stop));
        await certificates.For(address, Stop);
        Assert.Same(first, certificates.Shown);
        clock.Now = clock.Now.AddDays(355);
        await certificates.For(address, Stop);
        Assert.Same(first, certificates.Shown);

        // Less than a month before it ends there is another, of the same authority; and near the authority's own end, another authority.
        clock.Now = clock.Now.AddDays(10);
        await certificates.For(address, Stop);
        Assert.NotSame(first, certificates.Shown);
        Assert.Equal(authority.Fingerprint, (await certificates.State(Stop)).Fingerprint);
        clock.Now = clock.Now.AddDays(340);
        await certificates.For(address, Stop);
        var renewed = await certificates.State(Stop);
        Assert.NotEqual(authority.Fingerprint, renewed.Fingerprint);
        Assert.True(certificates.Shown!.NotAfter > clock.Now.UtcDateTime && certificates.Shown.NotAfter <= renewed.GoodUntil);

        // Neither the database nor a backup of it can sign.
        await using var db = server.Db();
        var row = await db.Authorities.AsNoTracking().SingleAsync(Stop);
        using var key = ECDsa.Create();
        Assert.ThrowsAny<CryptographicException>(() => key.ImportPkcs8PrivateKey(row.SealedKey, out _));
    }

    [Fact]
    public async Task Secrets_stand_nowhere_but_as_hashes_and_are_told_again_to_who_asks_again()
    {
        var (path, key) = (await Root(), Guid.NewGuid());
        var (_, pairing) = await server.Send(HttpMethod.Post, path + "/keys", new { role = "look" }, key);
        Assert.Equal(pairing.Text("key"), (await server.Send(HttpMethod.Post, path + "/keys", new { role = "look" }, key)).Body.Text("key"));
        var (_, calendar) = await server.Send(HttpMethod.Post, $"/api/sessions/{await server.WorkshopId()}/address", new { }, key = Guid.NewGuid());
        Assert.Equal(calendar.Text("path"), (await server.Send(HttpMethod.Post, $"/api/sessions/{await server.WorkshopId()}/address", new { }, key)).Body.Text("path"));
        Assert.Equal(200, (int)(await server.Http.GetAsync(calendar.Text("path"), Stop)).StatusCode);
        await using var db = server.Db();
        var receipts = string.Join('\n', await db.WriteReceipts.Select(r => r.Told).ToListAsync(Stop));
        Assert.DoesNotContain(pairing.Text("key"), receipts);
        Assert.DoesNotContain(pairing.Text("key").Replace("-", "", StringComparison.Ordinal), receipts);
        Assert.DoesNotContain(calendar.Text("path").Split('/')[^1], receipts);
    }

    private async Task<(OtherDevice Device, Guid Id)> TakenIn(string door, string role, string name)
    {
        var (_, key) = await server.Send(HttpMethod.Post, $"{await Root()}/keys", new { role });
        var secret = OtherDevice.Secret();
        var (status, paired) = await server.Send(HttpMethod.Post, "/api/pairing", new { key = key.Text("key"), name, secret });
        Assert.True(status == 200, paired.ToJsonString());
        var device = new OtherDevice(door, X509CertificateLoader.LoadCertificate(await server.Http.GetByteArrayAsync("/api/pairing/authority.cer", Stop)));
        device.Http.DefaultRequestHeaders.Add("Cookie", $"lowfell-device={secret}");
        return (device, paired["deviceId"]!.GetValue<Guid>());
    }

    private async Task<string> Open(string address)
    {
        var port = Ports.Free();
        await Put(server, null, Secret(File("own")));
        var (status, said) = await server.Send(HttpMethod.Put, $"{await Root()}/door", new { address, port });
        Assert.True(status == 200, said.ToJsonString());
        return $"{address}:{port}";
    }

    private static JsonObject Noted(Guid id, int number, string note) => new() { ["sentAt"] = DateTimeOffset.UtcNow, ["events"] = new JsonArray(new JsonObject { ["id"] = id, ["number"] = number, ["kind"] = "noted", ["toldAt"] = DateTimeOffset.UtcNow, ["note"] = note }) };

    [Fact]
    public async Task Nobody_tells_as_somebody_else_whatever_the_headers_say()
    {
        var door = await Open("127.0.0.8");
        var (one, first) = await TakenIn(door, "work", "Wet fingers");
        var (two, second) = await TakenIn(door, "work", "Dry fingers");
        using var a = one;
        using var b = two;
        var path = $"/api/bench/{await server.WorkshopId()}";
        foreach (var device in new[] { one, two })
        {
            device.Http.DefaultRequestHeaders.Add("Lowfell-Device", $"paired {first:n}");
            device.Http.DefaultRequestHeaders.Add("Lowfell-Painter", "The owner");
        }

        // Each counts from one by itself, though both call themselves the same.
        var (ofFirst, ofSecond) = (Guid.NewGuid(), Guid.NewGuid());
        Assert.Equal(200, (await one.Send(HttpMethod.Post, path + "/events", Noted(ofFirst, 1, "of the first"))).Status);
        Assert.Equal(200, (await two.Send(HttpMethod.Post, path + "/events", Noted(ofSecond, 1, "of the second"))).Status);

        // On this machine nobody passes for a device either.
        var (status, said) = await new Painter(server, 0, $"paired {first:n}").Send(HttpMethod.Post, path + "/events", Noted(Guid.NewGuid(), 1, "of the page"));
        Assert.True(status == 200, said.ToJsonString());
        await using var db = server.Db();
        var told = await db.WorkEvents.Where(e => e.Note.StartsWith("of the ")).ToDictionaryAsync(e => e.Note, e => (e.Actor, e.Device), Stop);
        Assert.Equal(("Wet fingers", $"paired {first:n}"), told["of the first"]);
        Assert.Equal(("Dry fingers", $"paired {second:n}"), told["of the second"]);
        Assert.Equal("script", told["of the page"].Device);

        // What one told and did not fit, the other neither sees nor settles.
        var wrong = Noted(Guid.NewGuid(), 2, new string('n', 501));
        await one.Send(HttpMethod.Post, path + "/events", wrong);
        Assert.Single((await one.Send(HttpMethod.Get, path + "/unfit")).Body["entries"]!.AsArray());
        Assert.Empty((await two.Send(HttpMethod.Get, path + "/unfit")).Body["entries"]!.AsArray());
        var (status2, said2, _) = await two.Send(HttpMethod.Post, $"{path}/unfit/{wrong["events"]![0]!["id"]!.GetValue<Guid>()}/let-go", new { });
        Assert.True(status2 == 404, said2.ToJsonString());
        Assert.Equal("Wet fingers", (await server.Get(path + "/unfit"))["entries"]!.AsArray().Single(e => e!["id"]!.GetValue<Guid>() == wrong["events"]![0]!["id"]!.GetValue<Guid>())!.Text("device"));
    }

    [Fact]
    public async Task However_many_streams_devices_open_this_machine_gets_its_own()
    {
        var door = await Open("127.0.0.9");
        var (workshop, streams, devices) = (await server.WorkshopId(), new List<Stream>(), new List<OtherDevice>());
        async Task<HttpStatusCode> Listen(HttpClient http)
        {
            var answer = await http.GetAsync($"/api/changes/{workshop}", HttpCompletionOption.ResponseHeadersRead, Stop);
            if (answer.IsSuccessStatusCode)
                streams.Add(await answer.Content.ReadAsStreamAsync(Stop));
            return answer.StatusCode;
        }

        for (var n = 0; n < DoorLimits.StreamsOfDevices / DoorLimits.StreamsEach; n++)
        {
            var (device, _) = await TakenIn(door, "look", $"Wall {n}");
            devices.Add(device);
            for (var i = 0; i < DoorLimits.StreamsEach; i++)
                Assert.Equal(HttpStatusCode.OK, await Listen(device.Http));
            Assert.Equal(HttpStatusCode.ServiceUnavailable, await Listen(device.Http));
        }

        var (late, _) = await TakenIn(door, "look", "One too many");
        devices.Add(late);
        Assert.Equal(HttpStatusCode.ServiceUnavailable, await Listen(late.Http));
        Assert.Equal(HttpStatusCode.OK, await Listen(server.Http));
        foreach (var stream in streams)
            await stream.DisposeAsync();
        foreach (var device in devices)
            device.Dispose();
    }

    [Fact]
    public async Task Keys_are_not_guessed_and_one_device_does_not_take_it_all()
    {
        var door = await Open("127.0.0.10");
        using var stranger = new OtherDevice(door, X509CertificateLoader.LoadCertificate(await server.Http.GetByteArrayAsync("/api/pairing/authority.cer", Stop)));
        var answers = new List<int>();
        for (var n = 0; n < DoorLimits.AttemptsPerMinute + 2; n++)
            answers.Add((await stranger.Send(HttpMethod.Post, "/api/pairing", new { key = "ABCD-EFGH-JKLM", name = "Guesser", secret = OtherDevice.Secret() })).Status);
        Assert.Equal(Enumerable.Repeat(403, DoorLimits.AttemptsPerMinute).Concat([429, 429]), answers);

        var (device, _) = await TakenIn(door, "work", "Greedy");
        using var greedy = device;
        var path = $"/api/instruments/{await server.WorkshopId()}";

        // More than a second lets it have, however slow the machine is.
        var all = new List<(int Status, JsonNode Body, HttpResponseMessage Answer)>();
        for (var wave = 0; wave < 40 && all.All(a => a.Status != 429); wave++)
            all.AddRange(await Task.WhenAll(Enumerable.Range(0, 200).Select(_ => greedy.Send(HttpMethod.Get, path))));
        Assert.Contains(all, a => a.Status == 429 && a.Answer.Headers.RetryAfter is not null);
        Assert.True(all.Count(a => a.Status == 200) >= DoorLimits.MostRequests / 2);
        Assert.Equal(200, (int)(await server.Http.GetAsync(path, Stop)).StatusCode);
    }
}
