using System.IO.Compression;
using System.Text;
using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>Sets out of files and into them.</summary>
public abstract class FileDesk(LowfellServer server)
{
    protected LowfellServer Server => server;

    protected static CancellationToken Stop => TestContext.Current.CancellationToken;

    protected async Task<JsonNode> Home() => (await server.Get("/api/workshops")).AsArray().Single(w => w!.Text("name") == "Fen Row bench")!;

    protected async Task<string> Demo() => (await Home())["sets"]!.AsArray().Single(s => s!.Text("name") == "Harrowmere Sluice")!.Text("id");

    protected Task<byte[]> Out(string set) => server.Http.GetByteArrayAsync($"/api/sets/{set}/file", Stop);

    protected async Task<(int Status, JsonNode Body)> In(string workshop, byte[] file)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, $"/api/workshops/{workshop}/sets/file") { Content = new ByteArrayContent(file) { Headers = { { "Content-Type", "application/zip" } } } };
        request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
        using var answer = await server.Http.SendAsync(request, Stop);
        return ((int)answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync(Stop))!);
    }

    protected async Task<string> Elsewhere() => (await new Painter(server, 0, "files").Send(HttpMethod.Post, "/api/workshops", new { name = $"Elsewhere {Guid.NewGuid():n}" })).Body.Text("id");

    protected static Dictionary<string, byte[]> Opened(byte[] zip)
    {
        using var archive = new ZipArchive(new MemoryStream(zip));
        return archive.Entries.ToDictionary(e => e.FullName, e =>
        {
            using var from = e.Open();
            using var to = new MemoryStream();
            from.CopyTo(to);
            return to.ToArray();
        });
    }

    protected static byte[] Zipped(params (string Name, byte[] Bytes)[] entries)
    {
        var made = new MemoryStream();
        using (var zip = new ZipArchive(made, ZipArchiveMode.Create, leaveOpen: true))
            foreach (var (name, bytes) in entries)
            {
                using var to = zip.CreateEntry(name, CompressionLevel.Fastest).Open();
                to.Write(bytes);
            }

        return made.ToArray();
    }

    /// <summary>Takes a file in elsewhere, and tells it again: it has to be the same.</summary>
    protected async Task RoundTrip(string set)
    {
        var first = await Out(set);
        var (status, taken) = await In(await Elsewhere(), first);
        Assert.True(status == 200, taken.ToJsonString());
        var (one, two) = (Opened(first), Opened(await Out(taken.Text("setId"))));
        Assert.Equal(one.Keys, two.Keys);
        var (told, again) = (Encoding.UTF8.GetString(one["set.json"]).Split('\n'), Encoding.UTF8.GetString(two["set.json"]).Split('\n'));
        Assert.Equal(told.Zip(again).Where(x => x.First != x.Second).Take(5), []);
        Assert.Equal(told.Length, again.Length);
        foreach (var name in one.Keys)
            Assert.True(one[name].AsSpan().SequenceEqual(two[name]), name);
    }
}
