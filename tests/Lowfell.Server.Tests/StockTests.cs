using System.Text.Json.Nodes;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Lowfell.Server.Tests;

/// <summary>Stock is the sum of its moves, whoever writes, and moves are only ever added.</summary>
public sealed class StockTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private async Task<MaterialRow> Material(string name)
    {
        await using var db = server.Db();
        return await db.Materials.AsNoTracking().SingleAsync(m => m.Name == name, Stop);
    }

    private static object Move(Guid material, string kind, decimal ml, string reason = "", Guid? id = null) => new { id = id ?? Guid.NewGuid(), materialId = material, kind, ml, reason };

    private async Task<(int Status, JsonNode Body)> Send(params object[] moves) => await server.Send(HttpMethod.Post, $"/api/stock/{await server.WorkshopId()}/moves", new { moves });

    [Fact]
    public async Task Every_material_begins_with_what_was_there()
    {
        await using var db = server.Db();
        var sums = await db.StockMoves.GroupBy(m => m.MaterialId).Select(g => new { g.Key, Sum = g.Sum(m => m.Ml) }).ToDictionaryAsync(g => g.Key, g => g.Sum, Stop);
        Assert.All(await db.Materials.AsNoTracking().ToListAsync(Stop), m => Assert.Equal(m.StockMl, sums.GetValueOrDefault(m.Id)));
    }

    [Fact]
    public async Task A_move_sent_twice_counts_once_and_is_taken_back_once()
    {
        var peat = await Material("Peat Seven");
        var id = Guid.NewGuid();
        var (status, stock) = await Send(Move(peat.Id, "bought", 17, "two pots", id));
        Assert.Equal((200, peat.StockMl + 17), (status, stock[0]!["stockMl"]!.GetValue<decimal>()));
        (_, stock) = await Send(Move(peat.Id, "bought", 17, "two pots", id));
        Assert.Equal(peat.StockMl + 17, stock[0]!["stockMl"]!.GetValue<decimal>());
        var undo = new { id = Guid.NewGuid() };
        (status, stock) = await server.Send(HttpMethod.Post, $"/api/stock/moves/{id}/undo", undo);
        Assert.Equal((200, peat.StockMl), (status, stock[0]!["stockMl"]!.GetValue<decimal>()));
        Assert.Equal(200, (await server.Send(HttpMethod.Post, $"/api/stock/moves/{id}/undo", undo)).Status);
        (status, var refused) = await server.Send(HttpMethod.Post, $"/api/stock/moves/{id}/undo", new { id = Guid.NewGuid() });
        Assert.Equal((409, "undone-already"), (status, refused.Text("code")));
        var history = (await server.Get($"/api/stock/materials/{peat.Id}/moves")).AsArray();
        Assert.True(history.Single(m => m!["id"]!.GetValue<Guid>() == id)!["undone"]!.GetValue<bool>());
        Assert.Contains(history, m => m!.Text("kind") == "opening");
    }

    [Fact]
    public async Task More_than_there_is_cannot_be_used_and_nothing_of_the_batch_is_stored()
    {
        MaterialRow slate = await Material("Wet Slate"), rope = await Material("Rope Buff");
        var (status, refused) = await Send(Move(slate.Id, "used", 5), Move(rope.Id, "used", rope.StockMl + 1));
        Assert.Equal((409, "not-enough"), (status, refused.Text("code")));
        Assert.Contains("Rope Buff", refused.Text("detail"), StringComparison.Ordinal);
        Assert.Equal((slate.StockMl, rope.StockMl), ((await Material("Wet Slate")).StockMl, (await Material("Rope Buff")).StockMl));

        // With the correction recorded first, the rest follows.
        (status, _) = await Send(Move(rope.Id, "corrected", 3, "found another pot"), Move(rope.Id, "used", rope.StockMl + 1));
        Assert.Equal(200, status);
        Assert.Equal(2, (await Material("Rope Buff")).StockMl);
    }

    [Fact]
    public async Task What_is_wrong_with_a_move_is_named()
    {
        var peat = await Material("Cold Iron");
        var (status, problem) = await Send(Move(peat.Id, "used", -1), Move(peat.Id, "corrected", 2), Move(peat.Id, "opening", 2), Move(Guid.NewGuid(), "bought", 1.005m), new { });
        Assert.Equal(400, status);
        Assert.Superset(new HashSet<string> { "moves[0].ml", "moves[1].reason", "moves[2].kind", "moves[3].ml", "moves[4].id", "moves[4].materialId" }, problem.Fields().ToHashSet());
        (status, problem) = await Send(Move(Guid.NewGuid(), "bought", 1));
        Assert.Equal((400, "moves[0].materialId"), (status, problem.Fields().Single()));
    }

    [Fact]
    public async Task The_database_refuses_to_change_or_delete_a_move_and_to_go_below_nothing()
    {
        var iron = await Material("Bright Wear");
        foreach (var sql in new[] { "update stock_moves set ml = ml + 1", "delete from stock_moves", $"insert into stock_moves (id, material_id, kind, ml, reason, at) values (gen_random_uuid(), '{iron.Id}', 'used', -1000, '', now())" })
            await Assert.ThrowsAsync<PostgresException>(() => LowfellServer.Execute(server.Connection, sql));
        Assert.Equal(iron.StockMl, (await Material("Bright Wear")).StockMl);
    }

    [Fact]
    public async Task A_stock_typed_in_on_the_shelf_becomes_a_correction()
    {
        var oxide = await Material("Deck Oxide");
        await using (var db = server.Db())
        {
            var row = await db.Materials.SingleAsync(m => m.Id == oxide.Id, Stop);
            row.StockMl = 4;
            await db.SaveChangesAsync(Stop);
        }

        await using var after = server.Db();
        var moves = await after.StockMoves.Where(m => m.MaterialId == oxide.Id).ToListAsync(Stop);
        Assert.Equal(4, moves.Sum(m => m.Ml));
        Assert.Equal(4 - oxide.StockMl, moves.Single(m => m.Kind == StockMoveKind.Corrected).Ml);
    }

    /// <summary>A thousand random moves from four clients at once: no lost update, never below nothing, always the sum.</summary>
    [Fact]
    public async Task A_thousand_moves_from_four_clients_add_up()
    {
        var materials = new[] { await Material("Lime Render"), await Material("Salt White"), await Material("Tarnside Matt") };
        string[] kinds = ["bought", "used", "thrown away", "lent", "returned"];
        async Task<List<(Guid Material, decimal Ml)>> Client(int seed)
        {
            var random = new Random(seed);
            var stored = new List<(Guid, decimal)>();
            for (var n = 0; n < 125; n++)
            {
                var batch = Enumerable.Range(0, 2).Select(_ => (Material: materials[random.Next(3)].Id, Kind: kinds[random.Next(5)], Ml: random.Next(1, 4000) / 100m)).ToList();
                var (status, body) = await Send([.. batch.Select(b => Move(b.Material, b.Kind, b.Ml))]);
                Assert.True(status is 200 or 409, body.ToJsonString());
                if (status == 200)
                    stored.AddRange(batch.Select(b => (b.Material, b.Kind is "bought" or "returned" ? b.Ml : -b.Ml)));
            }

            return stored;
        }

        var all = (await Task.WhenAll(Enumerable.Range(1, 4).Select(Client))).SelectMany(s => s).ToLookup(s => s.Material, s => s.Ml);
        await using var db = server.Db();
        foreach (var before in materials)
        {
            var row = await db.Materials.AsNoTracking().SingleAsync(m => m.Id == before.Id, Stop);
            Assert.Equal(before.StockMl + all[row.Id].Sum(), row.StockMl);
            Assert.Equal(await db.StockMoves.Where(m => m.MaterialId == row.Id).SumAsync(m => m.Ml, Stop), row.StockMl);
            Assert.True(row.StockMl >= 0);
        }
    }

    [Fact]
    public async Task The_shopping_list_counts_whole_packs_and_follows_what_is_bought()
    {
        var path = $"/api/stock/{await server.WorkshopId()}/shopping";
        var list = await server.Get(path);
        var line = list["lines"]!.AsArray().First(l => l!.Text("state") == "short")!;
        double need = line["needMl"]!.GetValue<double>(), stock = line["stockMl"]!.GetValue<double>(), pack = line["packMl"]!.GetValue<double>();
        Assert.Equal(Math.Ceiling((need - stock) / pack), line["packs"]!.GetValue<int>());
        var csv = await server.Http.GetStringAsync(path + ".csv", Stop);
        Assert.StartsWith("maker,name,need_ml", csv, StringComparison.Ordinal);
        Assert.Contains(line.Text("name"), csv, StringComparison.Ordinal);
        await Send(Move(line["materialId"]!.GetValue<Guid>(), "bought", (decimal)(line["packs"]!.GetValue<int>() * pack)));
        list = await server.Get(path);
        Assert.NotEqual("short", list["lines"]!.AsArray().Single(l => l!.Text("name") == line.Text("name"))!.Text("state"));
    }

    [Fact]
    public async Task What_has_no_price_is_counted_and_not_added_as_nothing()
    {
        var path = $"/api/stock/{await server.WorkshopId()}/shopping";
        var before = await server.Get(path);
        Assert.Equal(("€", 0), (before.Text("currency"), before["unpriced"]!.GetValue<int>()));
        var dear = before["lines"]!.AsArray().First(l => l!.Text("state") == "short" && l!["cost"]!.GetValue<double>() > 0)!;
        await LowfellServer.Execute(server.Connection, $"update materials set price = null where id = '{dear.Text("materialId")}'");

        // Another write to the shelf has it read again.
        var other = await Material("Wet Slate");
        await server.Send(HttpMethod.Put, $"/api/shelf/materials/{other.Id}/bottle", new { version = other.Version, drops = 20, ml = 0.8 });
        var after = await server.Get(path);
        Assert.Equal(1, after["unpriced"]!.GetValue<int>());
        Assert.Equal(before["cost"]!.GetValue<double>() - dear["cost"]!.GetValue<double>(), after["cost"]!.GetValue<double>(), 2);
        var line = after["lines"]!.AsArray().Single(l => l!.Text("materialId") == dear.Text("materialId"))!;
        Assert.Null(line["cost"]);
        Assert.True(line["packs"]!.GetValue<int>() > 0);
    }

    [Fact]
    public async Task Two_moves_of_one_id_are_refused()
    {
        var (peat, id) = (await Material("Lamp Soot Wash"), Guid.NewGuid());
        var (status, refused) = await Send(Move(peat.Id, "bought", 5, "", id), Move(peat.Id, "bought", 7, "", id));
        Assert.Equal((400, "moves"), (status, Assert.Single(refused.Fields())));
        Assert.Equal(peat.StockMl, (await Material("Lamp Soot Wash")).StockMl);
    }
}
