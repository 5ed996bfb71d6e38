using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>Any set there is goes out as a file and comes in the same.</summary>
public sealed class FileChanceTests(LowfellServer server) : FileDesk(server), IClassFixture<LowfellServer>
{
    /// <summary>Sets that were changed by chance: layers, zones, pieces, pots, bench, in every order.</summary>
    [Theory]
    [InlineData(11)]
    [InlineData(12)]
    public async Task Sets_changed_by_chance_go_out_come_in_elsewhere_and_go_out_the_same(int seed)
    {
        var painter = new Painter(Server, seed, $"chance {seed}");
        await painter.Begin();
        for (var n = 0; n < 60; n++)
            await painter.Change();
        foreach (var set in (await Server.Get($"/api/workshops/{painter.Workshop}/sets")).AsArray().Take(3))
            await RoundTrip(set!.Text("id"));
    }
}
