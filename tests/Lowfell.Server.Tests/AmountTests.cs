using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>Amounts of the demo set against a sheet worked by hand.</summary>
public sealed class AmountTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private const double OnePercent = 0.01;

    private async Task<JsonNode> Line(string zone, int number, int sitting = 6) =>
        (await server.Get($"/api/pots/{await server.SetId()}/amounts?sitting={sitting}"))["lines"]!.AsArray().Single(l => l!.Text("zone") == zone && l!["number"]!.GetValue<int>() == number)!;

    private static void Near(double byHand, JsonNode line, string field)
    {
        var said = line[field]!.GetValue<double>();
        Assert.True(Math.Abs(said - byHand) <= OnePercent * byHand, $"{field}: {said}, by hand {byHand}");
    }

    private static void Sheet(JsonNode line, int pieces, double onSurface, double transferLoss, int fills, double fillLoss, double margin, double total)
    {
        Assert.Equal((pieces, fills), (line["pieces"]!.GetValue<int>(), line["fills"]!.GetValue<int>()));
        Near(onSurface, line, "onSurfaceMl");
        Near(transferLoss, line, "transferLossMl");
        Near(fillLoss, line, "fillLossMl");
        Near(margin, line, "marginMl");
        Near(total, line, "totalMl");
    }

    /// <summary>
    /// Ground colour, brushed. 318 cm2 × 90 um is 2.862 ml a coat; × 2 coats × 8 walls = 45.792 ml on the surface. A brush leaves nine
    /// parts in ten: 45.792 ÷ 0.9 = 50.880, so 5.088 in rag and water. 318 × 2 × 8 = 5 088 cm2, a filling covers 150: 34 fillings,
    /// 0.15 ml on the palette each = 5.100. Sum 55.980; a tenth to spare, 5.598; in all 61.578 ml. In sittings of six walls:
    /// 34.344 ÷ 0.9 + 26 × 0.15 = 42.060, × 1.1 = 46.266; then two: 11.448 ÷ 0.9 + 9 × 0.15 = 14.070, × 1.1 = 15.477.
    /// </summary>
    [Fact]
    public async Task Ground_colour_on_eight_walls()
    {
        var line = await Line("Brick field on Lock-wall straight", 2);
        Sheet(line, 8, 45.792, 5.088, 34, 5.100, 5.598, 61.578);
        Assert.Equal([46.27, 15.48], line["sittingsMl"]!.AsArray().Select(s => s!.GetValue<double>()));
    }

    /// <summary>
    /// Satin varnish, airbrushed. 318 cm2 × 30 um × 8 = 7.632 ml on the surface; six parts in ten arrive: 12.720, so 5.088 in the air.
    /// 2 544 cm2, a cup covers 300: nine cups, 0.7 ml in cup and tip each = 6.300. Sum 19.020, a tenth 1.902, in all 20.922 ml,
    /// of which two parts in three are varnish, 13.948, and the rest thinner, 6.974.
    /// </summary>
    [Fact]
    public async Task Satin_varnish_on_eight_walls()
    {
        var line = await Line("Brick field on Lock-wall straight", 5);
        Sheet(line, 8, 7.632, 5.088, 9, 6.300, 1.902, 20.922);
        var set = await server.SetId();
        var mix = (await server.Get($"/api/pots/{set}"))["mixes"]!.AsArray().Single(m => m!.Text("recipeKey") == line.Text("recipeKey"))!;
        Assert.Equal([66.7, 33.3], mix["parts"]!.AsArray().Select(p => p!["percent"]!.GetValue<double>()));
    }

    /// <summary>
    /// Peat wash over the back faces. 300 cm2 × 70 um × 8 = 16.800 ml; 95 in 100 stay: 17.684, 0.884 lost. 2 400 cm2, a brushful does
    /// 200: twelve, 0.1 ml each = 1.200. Sum 18.884, a tenth 1.888, in all 20.773 ml.
    /// </summary>
    [Fact]
    public async Task Peat_wash_on_eight_back_faces() =>
        Sheet(await Line("Back face on Lock-wall straight", 4), 8, 16.800, 0.884, 12, 1.200, 1.888, 20.773);

    [Fact]
    public async Task What_pieces_have_already_is_not_counted_again()
    {
        var done = await Line("Back face on Lock-wall straight", 2);
        Assert.Equal((0, 0.0), (done["pieces"]!.GetValue<int>(), done["totalMl"]!.GetValue<double>()));
        Assert.Equal(2, (await Line("Tide band on Lock-wall straight", 2))["pieces"]!.GetValue<int>());
    }

    [Fact]
    public async Task A_reserve_is_asked_once_a_set_and_counted_in_what_it_takes()
    {
        var path = $"/api/pots/{await server.SetId()}";
        var before = await server.Get($"{path}/amounts");
        Assert.Empty(before["reserves"]!.AsArray());
        var version = before["reserve"]!["version"]!.GetValue<uint>();
        var (status, refused) = await server.Send(HttpMethod.Put, $"{path}/reserve", new { ml = 200, version });
        Assert.Equal((400, "ml"), (status, refused.Fields().Single()));
        (status, var stored) = await server.Send(HttpMethod.Put, $"{path}/reserve", new { ml = 3, version });
        Assert.Equal((200, 3m), (status, stored["ml"]!.GetValue<decimal>()));
        Assert.Equal(409, (await server.Send(HttpMethod.Put, $"{path}/reserve", new { ml = 4, version })).Status);
        var after = await server.Get($"{path}/amounts");
        var kept = after["reserves"]!.AsArray();
        Assert.Contains(kept, r => r!.Text("paint") == "Peat Seven + Brick Clay");
        Assert.Equal(before["totalMl"]!.GetValue<double>() + 3 * kept.Count, after["totalMl"]!.GetValue<double>(), 0.05);
        Assert.Equal(200, (await server.Send(HttpMethod.Put, $"{path}/reserve", new { ml = 0, version = stored["version"]!.GetValue<uint>() })).Status);
    }
}
