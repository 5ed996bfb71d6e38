using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Tests;

/// <summary>Short ways to work with pots over HTTP.</summary>
public abstract class PotDesk(LowfellServer server)
{
    protected LowfellServer Server { get; } = server;

    protected static CancellationToken Stop => TestContext.Current.CancellationToken;

    protected async Task<string> Root() => $"/api/pots/{await Server.SetId()}";

    protected async Task<Guid> Material(string name)
    {
        await using var db = Server.Db();
        return await db.Materials.Where(m => m.Name == name).Select(m => m.Id).SingleAsync(Stop);
    }

    protected async Task<decimal> StockOf(string name)
    {
        await using var db = Server.Db();
        return await db.Materials.Where(m => m.Name == name).Select(m => m.StockMl).SingleAsync(Stop);
    }

    protected async Task<JsonNode> Make(string label, params (string Name, decimal Ml)[] amounts)
    {
        var portions = new List<object>();
        foreach (var (name, ml) in amounts)
            portions.Add(new { materialId = await Material(name), ml });
        var (status, pot) = await Server.Send(HttpMethod.Post, await Root(), new { id = Guid.NewGuid(), eventId = Guid.NewGuid(), label, vessel = "jar", amounts = portions });
        Assert.True(status == 200, pot.ToJsonString());
        return pot;
    }

    protected async Task<(int Status, JsonNode Body)> Step(JsonNode pot, string step, object body)
    {
        var json = System.Text.Json.JsonSerializer.SerializeToNode(body)!.AsObject();
        json["id"] ??= Guid.NewGuid();
        json["version"] ??= pot["version"]!.GetValue<uint>();
        return await Server.Send(HttpMethod.Post, $"{await Root()}/{pot["id"]}/{step}", json);
    }

    protected static decimal Ml(JsonNode pot) => pot["ml"]!.GetValue<decimal>();

    protected static decimal Of(JsonNode pot, string name) => pot["contents"]!.AsArray().Where(c => c!.Text("name") == name).Sum(c => c!["ml"]!.GetValue<decimal>());

    protected async Task<(JsonNode Mix, JsonNode Place)> Ground()
    {
        var mix = (await Server.Get(await Root()))["mixes"]!.AsArray().First(m => m!.Text("name") == "Peat Seven + Brick Clay")!;
        return (mix, mix["places"]!.AsArray().Single(p => p!.Text("zone") == "Brick field on Lock-wall straight")!);
    }

    /// <summary>The pieces that a place of a mix has.</summary>
    protected async Task<JsonArray> PiecesOf(JsonNode place) =>
        (await Server.Get(await Root()))["designs"]!.AsArray().Single(d => d!.Text("id") == place.Text("designId"))!["pieces"]!.AsArray();
}
