using System.Text.Json.Nodes;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Tests;

/// <summary>Make two more: as the old ones were really done.</summary>
public sealed class MatchTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private async Task<(int Status, JsonNode Body)> Send(string of, object body) => await new Painter(server, 0, "match").Send(HttpMethod.Post, $"/api/pieces/{await server.SetId()}/{of}", body);

    private async Task<JsonNode> Design(string name) => (await server.Get($"/api/plan/sets/{await server.SetId()}"))["designs"]!.AsArray().Single(d => d!.Text("name") == name)!;

    private async Task<Guid> Piece(string design, string zone, string label)
    {
        var of = (await Design(design))["zones"]!.AsArray().Single(z => z!.Text("name") == zone)!.Text("id");
        return (await server.Get($"/api/pieces/{await server.SetId()}/cores?zoneId={of}"))["pieces"]!.AsArray().Single(p => p!.Text("label") == label)!["id"]!.GetValue<Guid>();
    }

    [Fact]
    public async Task Two_more_walls_get_the_tide_mix_as_really_dropped_with_what_can_stand_in_for_a_material_that_is_gone()
    {
        var like = await Piece("Lock-wall straight", "Tide band", "W5");

        // The green has gone: nothing of it is left in the bottle.
        var workshop = (await server.Get("/api/workshops"))[0]!.Text("id");
        var green = (await server.Get($"/api/shelf/{workshop}/materials")).AsArray().Single(m => m!.Text("name") == "Weed Green")!;
        await using (var db = server.Db())
            await db.Database.ExecuteSqlAsync($"""
                insert into stock_moves (id, material_id, kind, ml, reason, at) select gen_random_uuid(), id, 'corrected', -stock_ml, 'dried up', now() from materials where id = {Guid.Parse(green.Text("id"))} and stock_ml > 0;
                insert into slice_versions values ({Guid.Parse(workshop)}, 'stock', 5), ({Guid.Parse(workshop)}, 'shelf', 5) on conflict (workshop_id, slice) do update set version = slice_versions.version + 1
                """, TestContext.Current.CancellationToken);
        var (status, look) = await Send("match/look", new { pieceIds = new[] { like }, count = 2 });
        Assert.True(status == 200, look.ToJsonString());
        var mix = look["deviations"]!.AsArray().Single(d => d!.Text("zone") == "Tide band" && d!.Text("kind") == "other mix")!;

        // 60 drops of slate, 15 of green, 18 of water: four to one, a fifth thinner; planned was one to one.
        foreach (var part in new[] { "80 % Wet Slate", "20 % Weed Green", "(Tide again)", "planned 50 % Wet Slate + 50 % Weed Green" })
            Assert.Contains(part, mix.Text("words"), StringComparison.Ordinal);
        Assert.True(mix["kept"]!.GetValue<bool>() && mix["difference"]!.GetValue<double>() > 0.2);
        var need = look["needs"]!.AsArray().Single(n => n!.Text("name") == "Weed Green")!;
        Assert.True(need["short"]!.GetValue<bool>());
        var standIns = need["standIns"]!.AsArray();
        Assert.NotEmpty(standIns);
        Assert.Equal(standIns.Select(s => s!["difference"]!.GetValue<double>()).Order(), standIns.Select(s => s!["difference"]!.GetValue<double>()));
        Assert.True(look["minutes"]!.GetValue<double>() > 0);

        // Made so, with the nearest in its place: the new walls' own treatment has that mix.
        var (made, done) = await Send("match", new { pieceIds = new[] { like }, count = 2, name = "Lock-wall, later", swaps = new[] { new { materialId = green["id"], byId = standIns[0]!["materialId"] } } });
        Assert.True(made == 200, done.ToJsonString());
        Assert.Equal(["W9", "W10"], done["pieces"]!.AsArray().Select(p => p!.ToString()));
        var zone = (await Design("Lock-wall, later"))["zones"]!.AsArray().Single(z => z!.Text("name") == "Tide band")!.Text("id");
        var base2 = (await server.Get($"/api/plan/zones/{zone}"))["layers"]![1]!["paint"]!.AsArray();
        Assert.Equal([1, 4], base2.Select(p => (int)p!["parts"]!.GetValue<decimal>()).Order());
        Assert.Equal(1, base2.Single(p => p!.Text("materialId") == standIns[0]!.Text("materialId"))!["parts"]!.GetValue<decimal>());
        Assert.Equal(200, (await new Painter(server, 0, "match").Send(HttpMethod.Post, $"/api/workshops/{workshop}/undo", new { })).Status);
        Assert.DoesNotContain((await server.Get($"/api/plan/sets/{await server.SetId()}"))["designs"]!.AsArray(), d => d!.Text("name") == "Lock-wall, later");
    }

    [Fact]
    public async Task What_was_left_out_is_left_out_again_unless_it_is_dropped()
    {
        var like = await Piece("Mud-and-salt base", "Reed bed", "B3");
        var look = (await Send("match/look", new { pieceIds = new[] { like }, count = 3 })).Body;
        var left = look["deviations"]!.AsArray().Single(d => d!.Text("kind") == "left out")!;
        Assert.StartsWith("layer 4, dry brush", left.Text("words"), StringComparison.Ordinal);
        async Task<int> Layers(object ask)
        {
            var (status, made) = await Send("match", ask);
            Assert.True(status == 200, made.ToJsonString());
            var zone = (await Design(made.Text("name")))["zones"]!.AsArray().Single(z => z!.Text("name") == "Reed bed")!.Text("id");
            return (await server.Get($"/api/plan/zones/{zone}"))["layers"]!.AsArray().Count;
        }

        Assert.Equal(5, await Layers(new { pieceIds = new[] { like }, count = 3, name = "Without" }));
        Assert.Equal(6, await Layers(new { pieceIds = new[] { like }, count = 3, name = "With", dropped = new[] { left.Text("id") } }));
    }

    [Fact]
    public async Task What_cannot_be_matched_is_named()
    {
        var like = await Piece("Lock-wall straight", "Tide band", "W1");
        foreach (var (body, field) in new (object, string)[]
        {
            (new { count = 2 }, "pieceIds"), (new { pieceIds = new[] { Guid.NewGuid() }, count = 2 }, "pieceIds"), (new { pieceIds = new[] { like } }, "count"), (new { pieceIds = new[] { like }, count = 0 }, "count"),
            (new { pieceIds = new[] { like, await Piece("Jetty section", "Timber", "J1") }, count = 2 }, "pieceIds"), (new { pieceIds = new[] { like }, count = 2, name = " " }, "name"),
            (new { pieceIds = new[] { like }, count = 2, swaps = new[] { new { materialId = Guid.NewGuid(), byId = Guid.NewGuid() } } }, "swaps[0]"),
        })
            foreach (var of in new[] { "match/look", "match" })
                Assert.True((await Send(of, body)) is (400, var refused) && refused.Fields().Single() == field, $"{of} {field}");
        Assert.Equal(409, (await Send("match", new { pieceIds = new[] { like }, count = 2, name = "Pump house" })).Status);
    }
}
