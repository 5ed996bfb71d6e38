namespace Lowfell.Server.Tests;

/// <summary>What stands in for what nobody measured.</summary>
public sealed class GuessTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    /// <summary>100 cm2 of blocks 10 by 5 mm: 10 000 × (1/10 + 1/5) = 3 000 mm of joint; the outline of a square of 100 mm is 400 mm.</summary>
    [Fact]
    public async Task Joints_and_edges_follow_area_and_surface()
    {
        var (status, guess) = await server.Send(HttpMethod.Post, $"/api/sets/{await server.SetId()}/zone-guess", new { areaCm2 = 100, surface = "courses", surfaceLengthMm = 10, surfaceHeightMm = 5, relief = "deep" });
        Assert.Equal((200, 3000, 400), (status, guess["jointMm"]!.GetValue<double>(), guess["edgeMm"]!.GetValue<double>()));
        Assert.Equal(1, guess["raised"]!.GetValue<double>() + guess["field"]!.GetValue<double>() + guess["recess"]!.GetValue<double>(), 9);
    }

    [Fact]
    public async Task Sizes_that_cannot_be_are_named()
    {
        var (status, problem) = await server.Send(HttpMethod.Post, $"/api/sets/{await server.SetId()}/zone-guess", new { areaCm2 = 100, surface = "courses", surfaceLengthMm = -1 });
        Assert.Equal(400, status);
        Assert.Contains("surfaceLengthMm", problem.Fields());
    }
}
