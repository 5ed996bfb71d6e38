using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Tests;

/// <summary>The demo as it is loaded; nothing here writes, so that no order of tests matters.</summary>
public sealed class DemoTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    [Fact]
    public async Task The_demo_has_seven_designs_and_43_pieces_each_zone_with_five_to_twelve_layers()
    {
        var overview = await server.Get($"/api/plan/sets/{await server.SetId()}");
        Assert.Equal(7, overview["designs"]!.AsArray().Count);
        Assert.Equal(43, overview["pieces"]!.GetValue<int>());
        var zones = overview["designs"]!.AsArray().SelectMany(d => d!["zones"]!.AsArray()).ToList();
        Assert.All(zones, z => Assert.InRange(z!["layers"]!.GetValue<int>(), 5, 12));
        Assert.True(zones.Count(z => z!["stops"]!.GetValue<int>() + z["cautions"]!.GetValue<int>() + z["hints"]!.GetValue<int>() > 0) >= 6);
        Assert.InRange((await server.Get($"/api/shelf/{await server.WorkshopId()}/materials")).AsArray().Count, 55, 70);
    }

    [Fact]
    public async Task Dredgers_have_sub_assemblies_that_are_not_counted_twice()
    {
        await using var db = server.Db();
        Assert.Equal(4, await db.Pieces.CountAsync(p => p.ParentId != null, TestContext.Current.CancellationToken));
    }
}
