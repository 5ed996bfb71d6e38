using System.Diagnostics;
using System.IO.Compression;
using System.Net.Http.Headers;
using System.Text;

namespace Lowfell.Script.Tests;

/// <summary>At the edges of what the script runs: secrets, logs, copies on a disk that fails, and memory.</summary>
[System.Runtime.Versioning.SupportedOSPlatform("linux")]
public sealed class EdgeTests(Begun begun)
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    /// <summary>Neither a command line nor a log that others can read has a secret in it.</summary>
    [Fact]
    public async Task Secrets_stand_in_no_command_line_and_in_no_log()
    {
        await using var place = new Place();
        var lines = new HashSet<string>();
        var starting = place.Start("env", "LOWFELL_LOG_LEVEL=verbose");

        // Often enough to see what lives for the blink of an eye, and not so often that it is in the way of what it looks at.
        using var look = new PeriodicTimer(TimeSpan.FromMilliseconds(4));
        while (!starting.IsCompleted)
        {
            foreach (var process in Directory.GetDirectories("/proc").Where(d => int.TryParse(Path.GetFileName(d), out _)))
                try
                {
                    lines.Add(await File.ReadAllTextAsync(Path.Combine(process, "cmdline"), Stop));
                }
                catch (Exception e) when (e is IOException or UnauthorizedAccessException)
                {
                    // It has ended meanwhile.
                }

            await look.WaitForNextTickAsync(Stop);
        }

        await starting;
        var workshop = (await place.Get("/api/workshops"))[0]!["id"];
        var calendar = (await place.Send(HttpMethod.Post, $"/api/sessions/{workshop}/address", new { })).Body["path"]!.GetValue<string>();
        Assert.True((await place.Http.GetAsync(calendar, Stop)).IsSuccessStatusCode);
        Assert.False((await place.Http.GetAsync(calendar + "x", Stop)).IsSuccessStatusCode);
        var secrets = new List<string> { calendar.Split('/')[^1] };
        foreach (var file in new[] { "database-password", "lowfell_owner-password", "lowfell_serve-password", "own-secret" })
        {
            secrets.Add((await File.ReadAllTextAsync(Path.Combine(place.Data, file), Stop)).Trim());
            Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, File.GetUnixFileMode(Path.Combine(place.Data, file)));
        }

        Assert.Contains(lines, l => l.Contains("psql", StringComparison.Ordinal));
        Assert.DoesNotContain(lines, l => secrets.Exists(s => l.Contains(s, StringComparison.Ordinal)));
        await place.Run("stop");
        var logs = Directory.GetFiles(place.Data, "*.log*").Concat(Directory.GetFiles(place.Data, "server.out*")).Where(f => !f.EndsWith("initdb.log", StringComparison.Ordinal)).ToList();
        Assert.True(logs.Count >= 3, string.Join(", ", logs));
        foreach (var log in logs)
        {
            Assert.Equal(UnixFileMode.UserRead | UnixFileMode.UserWrite, File.GetUnixFileMode(log));
            Assert.DoesNotContain(secrets, (await File.ReadAllTextAsync(log, Stop)).Contains);
        }

        Assert.Contains("/api/calendar/{secret}", string.Concat(logs.Where(l => l.Contains("server", StringComparison.Ordinal)).Select(File.ReadAllText)), StringComparison.Ordinal);
    }

    /// <summary>Logs that have grown are put aside while it runs, and what is written goes on at once.</summary>
    [Fact]
    public async Task Logs_roll_while_it_runs()
    {
        await using var place = await begun.Copy();
        await place.Start("env", "LOWFELL_LOG_BYTES=300", "LOWFELL_COPY_EVERY=0.2", "LOWFELL_COPIES=0");
        await Place.Until(() => Task.FromResult(File.Exists(Path.Combine(place.Data, "postgres.log.1"))));
        Assert.True(await place.Answers());
        await Place.Until(() => Task.FromResult(new FileInfo(Path.Combine(place.Data, "postgres.log")).Length < 300));
        await Assert.ThrowsAnyAsync<Exception>(() => place.Ask<int>("select no_such_thing()"));
        await place.Run("stop");
        Assert.Contains("shut", await File.ReadAllTextAsync(Path.Combine(place.Data, "postgres.log"), Stop), StringComparison.Ordinal);
    }

    /// <summary>A disk that failed is tried again after a while, not every minute; the page says so, and the bench goes on.</summary>
    [Fact]
    public async Task A_disk_that_fails_is_not_tried_every_minute()
    {
        await using var place = await begun.Copy();
        var copies = Path.Combine(place.Data, "copies");
        Directory.CreateDirectory(copies);
        string[] apart = Environment.UserName == "root" ? ["unshare", "-m"] : ["unshare", "-c", "-m", "--keep-caps"];
        var script = await place.Start([.. apart, "env", "LOWFELL_COPY_EVERY=0.1", "bash", "-c", $"mount -t tmpfs -o size=64k,mode=755 tmpfs {copies} && exec \"$@\"", "-"]);
        await Place.Until(async () => (await place.Get("/api/copies"))["failedAt"] is not null);
        var failed = $"/proc/{script.Id}/root{copies}/failed";
        var (at, rounds) = (File.GetLastWriteTimeUtc(failed), 0);
        using var timer = new PeriodicTimer(TimeSpan.FromMilliseconds(100));
        while (rounds++ < 20 && await timer.WaitForNextTickAsync(Stop))
            Assert.Equal(at, File.GetLastWriteTimeUtc(failed));
        Assert.Equal(201, (await place.Send(HttpMethod.Post, "/api/workshops", new { name = "Attic bench" })).Status);

        // After an hour it is.
        File.SetLastWriteTimeUtc(failed, DateTime.UtcNow.AddMinutes(-61));
        await Place.Until(() => Task.FromResult(File.GetLastWriteTimeUtc(failed) > DateTime.UtcNow.AddMinutes(-1)));
    }

    /// <summary>A set file that is all numbers, and one whose rows are as many as can be and mean nothing: sixty megabytes of each.</summary>
    private static byte[] Hostile(bool rows)
    {
        var (made, random) = (new MemoryStream(), new Random(7));
        using (var zip = new ZipArchive(made, ZipArchiveMode.Create, leaveOpen: true))
        using (var to = new StreamWriter(zip.CreateEntry("set.json", CompressionLevel.Fastest).Open(), new UTF8Encoding(false), 65_536))
        {
            to.Write("{\"lowfell\":\"set\",\"version\":1,\"materials\":[");
            if (rows)
                for (var row = 0; row < 60_000; row++)
                {
                    to.Write(row == 0 ? "{" : ",{");
                    for (var column = 0; column < 45; column++)
                        to.Write(FormattableString.Invariant($"{(column == 0 ? "" : ",")}\"c{column}\":{random.NextInt64(1L << 50)}"));
                    to.Write('}');
                }
            else
                for (var n = 0; n < 31_000_000; n++)
                    to.Write(n == 0 ? "1" : ",1");
            to.Write("]}");
        }

        return made.ToArray();
    }

    /// <summary>What a process holds of the machine's memory, and the most it ever did, bytes.</summary>
    private static (long Now, long Most) Memory(int process)
    {
        var status = File.ReadAllLines($"/proc/{process}/status");
        long Of(string name) => long.Parse(status.Single(l => l.StartsWith(name, StringComparison.Ordinal)).Split(' ', StringSplitOptions.RemoveEmptyEntries)[^2], System.Globalization.CultureInfo.InvariantCulture) * 1024;
        return (Of("VmRSS"), Of("VmHWM"));
    }

    [Fact]
    public async Task Six_hostile_files_at_once_take_little_memory_and_give_it_back()
    {
        await using var place = await begun.Copy();
        await place.Start();
        var workshop = (await place.Get("/api/workshops"))[0]!["id"];
        var server = place.Processes("Lowfell.Server").First();
        var before = Memory(server);
        var files = new[] { Hostile(rows: false), Hostile(rows: true) };
        var answers = await Task.WhenAll(Enumerable.Range(0, 6).Select(async n =>
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, $"/api/workshops/{workshop}/sets/file") { Content = new ByteArrayContent(files[n % 2]) { Headers = { ContentType = new MediaTypeHeaderValue("application/zip") } } };
            request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
            using var http = new HttpClient { BaseAddress = place.Http.BaseAddress, Timeout = TimeSpan.FromMinutes(5) };
            using var answer = await http.SendAsync(request, Stop);
            return ((int)answer.StatusCode, await answer.Content.ReadAsStringAsync(Stop));
        }));
        Assert.All(answers, a => Assert.True(a.Item1 == 400 && a.Item2.Contains("not-a-set", StringComparison.Ordinal), $"{a.Item1} {a.Item2}"));
        var most = Memory(server).Most;
        await Place.Until(() => Task.FromResult(Memory(server).Now < 600_000_000), () => $"{before.Now / 1_000_000} MB before, {most / 1_000_000} MB at the most, {Memory(server).Now / 1_000_000} MB after", seconds: 80);
        Console.WriteLine($"figure: six hostile set files at once: before {before.Now / 1_000_000} MB, most {most / 1_000_000} MB, after {Memory(server).Now / 1_000_000} MB");
        Assert.True(most < 1_200_000_000, $"{most / 1_000_000} MB at the most");
        Assert.True(await place.Answers());
        Assert.Empty(place.Defects());
    }
}
