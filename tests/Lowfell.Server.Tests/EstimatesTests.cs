using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>Minutes of a set, and where each zone would stand.</summary>
public sealed class EstimatesTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    [Fact]
    public async Task Minutes_add_up_from_layers_to_the_set()
    {
        var set = (await server.Get($"/api/workshops/{await server.WorkshopId()}/sets"))[0]!["id"]!;
        var said = await server.Get($"/api/estimates/{set}");
        double Minutes(JsonNode n) => n["minutes"]!.GetValue<double>();
        var zones = said["designs"]!.AsArray().SelectMany(d => d!["zones"]!.AsArray()).Select(z => z!).ToList();
        Assert.Equal(Minutes(said), said["designs"]!.AsArray().Sum(d => Minutes(d!)), 0.5);
        Assert.Equal(Minutes(said), said["techniques"]!.AsArray().Sum(t => Minutes(t!)), 1.0);
        Assert.All(zones, z => Assert.Equal(Minutes(z), z["layers"]!.AsArray().Sum(l => Minutes(l!)), 1.0));

        // What is laid on pieces is not asked for again.
        Assert.Contains(zones.SelectMany(z => z["layers"]!.AsArray()), l => l!["piecesToGo"]!.GetValue<int>() == 0 && Minutes(l) == 0);
        Assert.Equal(404, (await server.Send(HttpMethod.Get, $"/api/estimates/{Guid.NewGuid()}", null)).Status);
    }
}
