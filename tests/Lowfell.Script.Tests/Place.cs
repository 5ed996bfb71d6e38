using System.Diagnostics;
using System.Net.Http.Json;
using System.Text;
using System.Text.Json.Nodes;
using Lowfell.Tests;
using Npgsql;

namespace Lowfell.Script.Tests;

/// <summary>What a command printed and how it ended.</summary>
public sealed record Ended(int Code, string Text);

/// <summary>A data folder of its own with ports of its own, in which the script is run as a person runs it.</summary>
public sealed class Place : IAsyncDisposable
{
    private static readonly string root = Needed("LOWFELL_TEST_ROOT");

    /// <summary>PostgreSQL's own programs, for making backups that are not quite right.</summary>
    public static readonly string Programs = Needed("LOWFELL_TEST_PG_BIN");

    private readonly List<Process> started = [];

    public string Data { get; }
    public int Web { get; } = Ports.Free();
    public int Port { get; } = Ports.Free();
    public HttpClient Http { get; }
    public bool Demo { get; init; } = true;

    /// <summary>A database of another place that this one serves; null for its own.</summary>
    public string? Database { get; init; }

    /// <summary>How the serving role reaches the database here.</summary>
    public async Task<string> Serving() => $"Host=127.0.0.1;Port={Port};Username=lowfell_serve;Password={(await File.ReadAllTextAsync(Path.Combine(Data, "lowfell_serve-password"), Stop)).Trim()};Database=lowfell";

    public Place(string? data = null)
    {
        Data = data ?? Path.Combine(Path.GetTempPath(), $"lowfell-place-{Guid.NewGuid():n}"[..28]);
        Http = new HttpClient { BaseAddress = new Uri($"http://127.0.0.1:{Web}"), Timeout = TimeSpan.FromSeconds(60) };
    }

    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    /// <summary>A copy of this place's data, as it is while nothing runs.</summary>
    public async Task<Place> Copy()
    {
        var copy = new Place();
        await Command("cp", "-a", Data, copy.Data);
        return copy;
    }

    /// <summary>Runs the script to its end.</summary>
    public Task<Ended> Run(params string[] arguments) => Wait(Launch([Path.Combine(root, "lowfell"), .. arguments]));

    /// <summary>Starts Lowfell and waits until it answers.</summary>
    public async Task<Process> Start(params string[] before)
    {
        var process = Launch([.. before, Path.Combine(root, "lowfell"), "start"]);
        var text = Read(process);
        await Until(async () => process.HasExited || await Answers(), () => text.ToString());
        Assert.False(process.HasExited, text.ToString());
        return process;
    }

    public async Task<bool> Answers()
    {
        try
        {
            return (await Http.GetAsync("/health", Stop)).IsSuccessStatusCode;
        }
        catch (HttpRequestException)
        {
            return false;
        }
    }

    public Process Launch(params string[] command)
    {
        var info = new ProcessStartInfo(command[0]) { RedirectStandardOutput = true, RedirectStandardError = true, RedirectStandardInput = true };
        foreach (var argument in command.Skip(1))
            info.ArgumentList.Add(argument);
        info.Environment["LOWFELL_DATA"] = Data;
        info.Environment["LOWFELL_PORT"] = $"{Web}";
        info.Environment["LOWFELL_DB_PORT"] = $"{Port}";
        info.Environment["LOWFELL_DEMO"] = Demo ? "on" : "off";
        info.Environment.Remove("LOWFELL_DATABASE");
        if (Database is not null)
            info.Environment["LOWFELL_DATABASE"] = Database;
        var process = Process.Start(info)!;
        started.Add(process);
        return process;
    }

    public static async Task<Ended> Wait(Process process)
    {
        var text = Read(process);
        await process.WaitForExitAsync(Stop);
        process.WaitForExit();
        return new Ended(process.ExitCode, text.ToString());
    }

    /// <summary>Runs any other program to its end; it must succeed.</summary>
    public async Task<string> Command(params string[] command)
    {
        var ended = await Wait(Launch(command));
        Assert.True(ended.Code == 0, $"{string.Join(' ', command)}: {ended.Text}");
        return ended.Text;
    }

    private static StringBuilder Read(Process process)
    {
        var text = new StringBuilder();
        void Take(string? line)
        {
            lock (text)
                text.AppendLine(line);
        }

        process.OutputDataReceived += (_, e) => Take(e.Data);
        process.ErrorDataReceived += (_, e) => Take(e.Data);
        process.BeginOutputReadLine();
        process.BeginErrorReadLine();
        return text;
    }

    public async Task<JsonNode> Get(string path) => JsonNode.Parse(await Http.GetStringAsync(path, Stop))!;

    /// <summary>Sends a write; an answer that does not come is status 0.</summary>
    public async Task<(int Status, JsonNode Body, HttpResponseMessage? Answer)> Send(HttpMethod method, string path, object? body, Guid? key = null, TimeSpan? patience = null, string? device = null)
    {
        using var request = new HttpRequestMessage(method, path) { Content = JsonContent.Create(body) };
        request.Headers.Add("Idempotency-Key", (key ?? Guid.NewGuid()).ToString());
        if (device is not null)
            request.Headers.Add("Lowfell-Device", device);
        using var impatient = CancellationTokenSource.CreateLinkedTokenSource(Stop);
        if (patience is { } time)
            impatient.CancelAfter(time);
        try
        {
            var answer = await Http.SendAsync(request, impatient.Token);
            var text = await answer.Content.ReadAsStringAsync(impatient.Token);
            return ((int)answer.StatusCode, text.Length == 0 ? new JsonObject() : JsonNode.Parse(text)!, answer);
        }
        catch (Exception e) when (e is HttpRequestException or IOException or (OperationCanceledException and not null) && !Stop.IsCancellationRequested)
        {
            return (0, new JsonObject(), null);
        }
    }

    /// <summary>A question to the database as the one who made the cluster.</summary>
    public async Task<T> Ask<T>(string sql, string database = "lowfell")
    {
        await using var db = new NpgsqlConnection($"Host=127.0.0.1;Port={Port};Username=lowfell;Password={(await File.ReadAllTextAsync(Path.Combine(Data, "database-password"), Stop)).Trim()};Database={database};Pooling=false");
        await db.OpenAsync(Stop);
        await using var command = new NpgsqlCommand(sql, db) { CommandTimeout = 120 };
        return await command.ExecuteScalarAsync(Stop) is T value ? value : default!;
    }

    /// <summary>What the server's log says of its own mistakes.</summary>
    public string Defects() => string.Join('\n', Directory.GetFiles(Data, "server*.log").SelectMany(File.ReadLines).Where(l => l.Contains("Defect", StringComparison.Ordinal)).TakeLast(3));

    /// <summary>The processes of this data folder whose command line has a word in it.</summary>
    public IEnumerable<int> Processes(string word) => Directory.GetDirectories("/proc").Select(d => Path.GetFileName(d)).Where(n => int.TryParse(n, out _)).Where(n =>
    {
        try
        {
            var line = File.ReadAllText($"/proc/{n}/cmdline").Replace('\0', ' ');
            return line.Contains(word, StringComparison.Ordinal) && (line.Contains(Data, StringComparison.Ordinal) || File.ReadAllText($"/proc/{n}/environ").Contains($"Lowfell__Log={Data}", StringComparison.Ordinal));
        }
        catch (Exception e) when (e is IOException or UnauthorizedAccessException)
        {
            return false;
        }
    }).Select(int.Parse).ToList();

    /// <summary>Waits for something to come about; patient, since a machine may be busy with other things.</summary>
    public static async Task Until(Func<Task<bool>> condition, Func<string>? says = null, int seconds = 300)
    {
        var end = Stopwatch.GetTimestamp() + seconds * Stopwatch.Frequency;
        using var timer = new PeriodicTimer(TimeSpan.FromMilliseconds(50));
        while (!await condition())
        {
            Assert.True(Stopwatch.GetTimestamp() < end, $"It did not come about within {seconds} s. {says?.Invoke()}");
            await timer.WaitForNextTickAsync(Stop);
        }
    }

    public static string Needed(string name) => Environment.GetEnvironmentVariable(name) ?? throw new InvalidOperationException("Run these tests with ./lowfell test.");

    /// <summary>What was started last.</summary>
    public Process Newest => started[^1];

    /// <summary>Ends everything that was started here.</summary>
    public async Task End()
    {
        foreach (var process in started)
        {
            if (!process.HasExited)
                process.Kill(entireProcessTree: true);
            await process.WaitForExitAsync(CancellationToken.None);
        }

        await Until(() => Task.FromResult(!Processes("postgres").Any()), () => $"postgres of {Data} is still there");
    }

    public async ValueTask DisposeAsync()
    {
        Http.Dispose();
        await End();
        foreach (var process in started)
            process.Dispose();
        if (Directory.Exists(Data))
            Directory.Delete(Data, recursive: true);
    }
}
