using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>A tablet at the bench: numbers what it tells, by a clock of its own.</summary>
internal sealed class BenchDevice(LowfellServer server, string name, TimeSpan clock = default)
{
    private readonly Painter painter = new(server, 0, name);
    private long number;

    public string Name => name;

    public string Path { get; private set; } = "";

    public async Task Begin()
    {
        await painter.Begin();
        Path = $"/api/bench/{painter.Workshop}";
    }

    public DateTimeOffset Now => DateTimeOffset.UtcNow + clock;

    /// <summary>An event with the next number.</summary>
    public JsonObject Event(string kind, Guid? zone = null, Guid? layer = null, IEnumerable<Guid>? pieces = null, double minutesAgo = 0, Action<JsonObject>? with = null)
    {
        var e = new JsonObject { ["id"] = Guid.NewGuid(), ["number"] = ++number, ["kind"] = kind, ["toldAt"] = Now.AddMinutes(-minutesAgo), ["zoneId"] = zone, ["layerId"] = layer, ["pieceIds"] = new JsonArray((pieces ?? []).Select(p => (JsonNode)p).ToArray()) };
        with?.Invoke(e);
        return e;
    }

    public Task<(int Status, JsonNode Body)> Send(params JsonObject[] events) =>
        painter.Send(HttpMethod.Post, Path + "/events", new JsonObject { ["sentAt"] = Now, ["events"] = new JsonArray(events.Select(e => e.DeepClone()).ToArray()) });

    /// <summary>Tells what must be accepted.</summary>
    public async Task Tell(params JsonObject[] events)
    {
        var (status, body) = await Send(events);
        Assert.True(status == 200 && body["refused"]!.AsArray().Count == 0, $"{status} {body.ToJsonString()}");
    }
}
