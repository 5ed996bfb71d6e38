using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>Treatments over several zones of the demo, and what lies on every zone.</summary>
internal sealed class Weaver(LowfellServer server)
{
    public async Task<JsonNode> Sent(HttpMethod method, string path, object? body)
    {
        var (status, answer) = await server.Send(method, path, body);
        Assert.True(status is >= 200 and < 300, $"{method} {path}: {status} {answer.ToJsonString()}");
        return answer;
    }

    public Task<JsonNode> Sheet(Guid zone) => server.Get($"/api/plan/zones/{zone}");

    public async Task<IReadOnlyList<Guid>> Zones(string? design = null) =>
        (await server.Get($"/api/plan/sets/{await server.SetId()}"))["designs"]!.AsArray().Where(d => design is null || d!.Text("name") == design).SelectMany(d => d!["zones"]!.AsArray()).Select(z => z!["id"]!.GetValue<Guid>()).ToList();

    /// <summary>What lies on every zone, and everything that is said of it.</summary>
    public async Task<Dictionary<Guid, string>> Stacks()
    {
        var stacks = new Dictionary<Guid, string>();
        foreach (var zone in await Zones())
        {
            var sheet = await Sheet(zone);
            stacks[zone] = sheet["layers"]!.ToJsonString() + sheet["reading"]!.ToJsonString();
        }

        return stacks;
    }

    public static void Same(Dictionary<Guid, string> was, Dictionary<Guid, string> now) => Assert.All(was, w => Assert.Equal(w.Value, now[w.Key]));

    /// <summary>Brings the treatments of a design's zones together in that of its first; the order of the piece.</summary>
    public async Task<JsonNode> Woven(string design)
    {
        var sheets = new List<JsonNode>();
        foreach (var zone in await Zones(design))
            sheets.Add(await Sheet(zone));
        var treatments = sheets.DistinctBy(s => s.Text("treatmentId")).Select(s => new { treatmentId = s["treatmentId"]!.GetValue<Guid>(), version = s["version"]!.GetValue<uint>() }).ToList();
        var first = treatments[0].treatmentId;
        return treatments.Count == 1 ? await server.Get($"/api/treatments/{first}/order")
            : await Sent(HttpMethod.Post, $"/api/treatments/{first}/together", new { treatments[0].version, with = treatments.Skip(1), name = $"All of {design}" });
    }
}
