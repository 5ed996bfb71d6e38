using System.Text.RegularExpressions;

namespace Lowfell.Server.Tests;

/// <summary>Treatments are brought together in one, and nothing that is said of any zone changes.</summary>
public sealed partial class TogetherTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private readonly Weaver weaver = new(server);

    /// <summary>Which treatment, and at which version: that alone becomes another.</summary>
    [GeneratedRegex("\"(treatmentId|treatmentVersion)\":(\"[0-9a-f-]{36}\"|[0-9]+)")]
    private static partial Regex Ids();

    private async Task<string> Everything()
    {
        var (set, workshop) = (await server.SetId(), await server.WorkshopId());
        var all = new List<string>();
        foreach (var path in new[] { $"/api/plan/sets/{set}", $"/api/plan/sets/{set}/remarks", $"/api/estimates/{set}", $"/api/pots/{set}/amounts", $"/api/sessions/{workshop}", $"/api/log/{set}/record" })
            all.Add((await server.Get(path)).ToJsonString());
        foreach (var zone in await weaver.Zones())
            all.Add((await server.Get($"/api/pieces/{set}/cores?zoneId={zone}")).ToJsonString());
        return Ids().Replace(string.Join('\n', all), "");
    }

    [Fact]
    public async Task Brought_together_every_zone_is_as_it_was_and_so_is_everything_that_is_said()
    {
        var (stacks, said) = (await weaver.Stacks(), await Everything());
        var order = await weaver.Woven("Lock-wall straight");
        Assert.Equal(5, order["surfaces"]!.AsArray().Count);
        Assert.Equal(order["steps"]!.AsArray().Count, order["steps"]!.AsArray().Select(s => s!["layer"]!.Text("id")).Distinct().Count());
        Weaver.Same(stacks, await weaver.Stacks());
        Assert.Equal(said, await Everything());

        // Every surface says which zones take it.
        var zones = await weaver.Zones("Lock-wall straight");
        Assert.All(zones, z => Assert.Contains(order["surfaces"]!.AsArray(), s => s!["zones"]!.AsArray().Any(u => u!["zoneId"]!.GetValue<Guid>() == z)));
        var workshop = await server.WorkshopId();
        Assert.Equal(200, (await server.Send(HttpMethod.Post, $"/api/workshops/{workshop}/undo", new { })).Status);
        Weaver.Same(stacks, await weaver.Stacks());
        Assert.Single((await server.Get($"/api/treatments/{order["id"]}/order"))["surfaces"]!.AsArray());
        Assert.Equal(200, (await server.Send(HttpMethod.Post, $"/api/workshops/{workshop}/redo", new { })).Status);
        Weaver.Same(stacks, await weaver.Stacks());
        Assert.Equal(said, await Everything());
    }
}
