using System.Text.Json.Nodes;
using Lowfell.Core.Bench;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Tests;

/// <summary>A layer over several zones of a piece at the bench: told once for all of them, less what was taken out, in one coat or in several.</summary>
public sealed class WholeLayerTests(LowfellServer server) : FileDesk(server), IClassFixture<LowfellServer>
{
    private const string Design = "Pump house";
    private static readonly SemaphoreSlim one = new(1);
    private readonly Weaver weaver = new(server);

    /// <summary>A new layer on top of everything on a design: zones with its line on each, its step, and pieces.</summary>
    private sealed record Whole(Guid Treatment, string Step, IReadOnlyList<(Guid Zone, Guid Line)> On, IReadOnlyList<Guid> Pieces)
    {
        public JsonArray Also(params int[] which) => new([.. which.Select(i => (JsonNode)new JsonObject { ["zoneId"] = On[i].Zone, ["layerId"] = On[i].Line })]);
    }

    private async Task<Whole> Begin(int coats)
    {
        await one.WaitAsync(Stop);
        try
        {
            var order = await weaver.Woven(Design);
            var layer = new { id = Guid.NewGuid(), technique = "dust", paint = Array.Empty<object>(), coats, region = "all", strength = 1, tool = "brush", drying = "air", optional = false, note = "" };
            var added = await weaver.Sent(HttpMethod.Post, $"/api/treatments/{order["id"]}/steps", new { version = order["version"], layer, over = order["surfaces"]!.AsArray().Select(s => s!["id"]), aboveId = order["steps"]!.AsArray()[^1]!["layer"]!["id"] });
            var step = added["steps"]!.AsArray()[^1]!;
            var here = await weaver.Zones(Design);
            var lines = step["over"]!.AsArray().ToDictionary(l => l!.Text("surfaceId"), l => l!["lineId"]!.GetValue<Guid>());
            var on = added["surfaces"]!.AsArray().SelectMany(s => s!["zones"]!.AsArray().Select(z => (z!["zoneId"]!.GetValue<Guid>(), lines[s.Text("id")]))).Where(o => here.Contains(o.Item1)).ToList();
            await using var db = Server.Db();
            var pieces = await db.Pieces.Where(p => p.ParentId == null && db.Zones.Any(z => z.Id == on[0].Item1 && z.DesignId == p.DesignId)).OrderBy(p => p.Label).Select(p => p.Id).ToListAsync(Stop);
            return new(order["id"]!.GetValue<Guid>(), step["layer"]!.Text("id"), on, pieces);
        }
        finally
        {
            one.Release();
        }
    }

    private async Task<BenchDevice> Device(string name)
    {
        var device = new BenchDevice(Server, name);
        await device.Begin();
        return device;
    }

    private async Task<List<(PieceState State, int Coats)?>> States(Whole at, Guid piece)
    {
        await using var db = Server.Db();
        var rows = new List<(PieceState, int)?>();
        foreach (var (zone, line) in at.On)
            rows.Add(await db.PieceLayers.FindAsync([zone, line, piece], Stop) is { } row ? (row.State, row.Coats) : null);
        return rows;
    }

    /// <summary>What is kept is what a replay of the stream says, and what the database keeps by itself has the same.</summary>
    private async Task Agrees()
    {
        await using var db = Server.Db();
        Assert.Equal(0, await PieceBook.Differences(db, await Server.WorkshopId(), Stop));
        var laid = (await db.DoneLayers.Select(d => new { d.ZoneId, d.LineId, d.PieceId }).ToListAsync(Stop)).ToHashSet();
        laid.SymmetricExceptWith(await db.PieceLayers.Where(p => p.Coats > 0).Select(d => new { d.ZoneId, d.LineId, d.PieceId }).ToListAsync(Stop));
        Assert.Empty(laid);
    }

    [Fact]
    public async Task It_is_done_on_all_its_zones_less_one_and_taken_back_on_another_device()
    {
        var (at, device, other) = (await Begin(1), await Device("whole"), await Device("elsewhere"));
        var last = at.On.Count - 1;
        Assert.True(last >= 2);
        var given = device.Event("given", at.On[0].Zone, at.On[0].Line, [at.Pieces[0]], 5, e => e["also"] = at.Also([.. Enumerable.Range(1, last - 1)]));
        await device.Tell(given);
        var states = await States(at, at.Pieces[0]);
        Assert.All(states.Take(last), s => Assert.Equal((PieceState.Done, 1), s));
        Assert.Null(states[last]);
        await Agrees();

        // What remains is still offered, and it alone.
        var left = await Server.Get($"{device.Path}/task?zoneId={at.On[last].Zone}&layerId={at.On[last].Line}");
        Assert.Contains(at.Pieces[0], left["pieces"]!.AsArray().Select(p => p!["id"]!.GetValue<Guid>()));
        var first = await Server.Get($"{device.Path}/task?zoneId={at.On[0].Zone}&layerId={at.On[0].Line}");
        Assert.DoesNotContain(at.Pieces[0], first["pieces"]!.AsArray().Select(p => p!["id"]!.GetValue<Guid>()));
        Assert.Equal(at.On.Skip(1).Take(last - 1).Select(o => o.Zone).Order(), first["also"]!.AsArray().Select(a => a!["zoneId"]!.GetValue<Guid>()).Order());
        var step = (await Server.Get(device.Path))["steps"]![0]!.Text("words");
        Assert.True(step.Count(c => c == ',') >= last - 1, step);

        await other.Tell(other.Event("taken back", with: e => e["undoesId"] = given["id"]!.GetValue<Guid>()));
        Assert.All(await States(at, at.Pieces[0]), Assert.Null);
        await Agrees();
    }

    [Fact]
    public async Task A_layer_over_all_of_it_is_one_thing_to_do_with_the_minutes_of_all_its_zones()
    {
        var (at, device) = (await Begin(1), await Device("counting"));
        var task = await Server.Get($"{device.Path}/task?zoneId={at.On[0].Zone}&layerId={at.On[0].Line}");
        Assert.Equal(at.On.Skip(1).Select(o => (o.Zone, o.Line)).Order(), task["also"]!.AsArray().Select(a => (a!["zoneId"]!.GetValue<Guid>(), a["layerId"]!.GetValue<Guid>())).Order());
        var given = device.Event("given", at.On[0].Zone, at.On[0].Line, at.Pieces, 1, e => e["also"] = at.Also([.. Enumerable.Range(1, at.On.Count - 1)]));
        await device.Tell(given);
        await using var db = Server.Db();
        var row = await db.WorkEvents.Include(e => e.Also).SingleAsync(e => e.Id == given["id"]!.GetValue<Guid>(), Stop);
        Assert.Equal(task["minutes"]!.GetValue<double>(), (double)row.EstimateMinutes!, 0.06);
        Assert.Equal(at.On.Count - 1, row.Also.Count);
        var log = await Server.Get($"/api/log/{await Server.SetId()}?zoneId={at.On[^1].Zone}");
        Assert.Equal(at.On.Count - 1, log["entries"]!.AsArray().Single(e => e!["id"]!.GetValue<Guid>() == given["id"]!.GetValue<Guid>())!.Text("zone").Count(c => c == ','));
    }

    /// <summary>Three coats are planned and one is told; then two are planned on one of the zones, and there the second makes it whole.</summary>
    [Fact]
    public async Task Coats_are_counted_on_every_zone_through_a_change_of_the_plan()
    {
        var (at, device) = (await Begin(3), await Device("coats"));
        var all = at.Also([.. Enumerable.Range(1, at.On.Count - 1)]);
        JsonObject Coat(double ago) => device.Event("given", at.On[0].Zone, at.On[0].Line, at.Pieces.Take(1), ago, e => (e["also"], e["coats"]) = (all.Copy(), 1));
        var first = Coat(9);
        await device.Tell(first);
        Assert.All(await States(at, at.Pieces[0]), s => Assert.Equal((PieceState.Partly, 1), s));
        await Agrees();
        var task = await Server.Get($"{device.Path}/task?zoneId={at.On[0].Zone}&layerId={at.On[0].Line}");
        Assert.Equal((3, 1), (task["coats"]!.GetValue<int>(), task["pieces"]!.AsArray().Single(p => p!["id"]!.GetValue<Guid>() == at.Pieces[0])!["coats"]!.GetValue<int>()));
        var cores = await Server.Get($"/api/pieces/{await Server.SetId()}/cores?zoneId={at.On[0].Zone}");
        var differs = cores["pieces"]!.AsArray().Single(p => p!["id"]!.GetValue<Guid>() == at.Pieces[0])!["differences"]!.AsArray();
        Assert.True(differs.Any(d => d!.Text("fault") == "coats" && d!["layerId"]!.GetValue<Guid>() == at.On[0].Line), differs.ToJsonString());

        var sheet = await weaver.Sheet(at.On[0].Zone);
        var layers = sheet["layers"]!.Copy().AsArray();
        layers[^1]!["coats"] = 2;
        await weaver.Sent(HttpMethod.Put, $"/api/plan/zones/{at.On[0].Zone}/stack", new { version = sheet["version"], revision = sheet["revision"], layers });
        await device.Tell(Coat(5));
        var states = await States(at, at.Pieces[0]);
        Assert.Equal((PieceState.Done, 2), states[0]);
        Assert.All(states.Skip(1), s => Assert.Equal((PieceState.Partly, 2), s));
        await Agrees();

        // A pass more while it lies on top is one coat more, and told to be done again it is no more than it was.
        await device.Tell(Coat(3), device.Event("given", at.On[0].Zone, at.On[0].Line, at.Pieces.Take(1), 2));
        Assert.All(await States(at, at.Pieces[0]), s => Assert.Equal((PieceState.Done, 3), s));
        await device.Tell(device.Event("taken back", with: e => e["undoesId"] = first["id"]!.GetValue<Guid>()));
        states = await States(at, at.Pieces[0]);
        Assert.Equal((PieceState.Done, 2), states[0]);
        Assert.All(states.Skip(1), s => Assert.Equal((PieceState.Partly, 2), s));
        await Agrees();
    }

    [Fact]
    public async Task A_zone_that_is_elsewhere_is_kept_by_itself_and_the_rest_is_taken_in()
    {
        var (at, device) = (await Begin(1), await Device("astray"));
        var strange = (await weaver.Zones("Jetty section"))[0];
        var also = at.Also(1);
        also.Add(new JsonObject { ["zoneId"] = strange, ["layerId"] = (await weaver.Sheet(strange))["layers"]![0]!["id"]!.GetValue<Guid>() });
        var given = device.Event("given", at.On[0].Zone, at.On[0].Line, at.Pieces.Take(1), 1, e => e["also"] = also);
        var (status, body) = await device.Send(given);
        Assert.Equal(200, status);
        Assert.Contains("another design", body["refused"]!.AsArray().Single()!.Text("why"), StringComparison.Ordinal);
        Assert.Equal([(PieceState.Done, 1), (PieceState.Done, 1), null], (await States(at, at.Pieces[0])).Take(3));

        // The same once more counts once, and says the same.
        Assert.Equal(200, (await device.Send(given)).Status);
        var unfit = (await Server.Get($"/api/bench/{await Server.WorkshopId()}/unfit"))["entries"]!.AsArray().Single(e => e!["id"]!.GetValue<Guid>() == given["id"]!.GetValue<Guid>())!;
        Assert.Equal(strange, unfit["zoneId"]!.GetValue<Guid>());
        await Agrees();

        foreach (var wrong in new[] { at.Also(0), at.Also(1, 1), new JsonArray(new JsonObject { ["zoneId"] = at.On[1].Zone }) })
            Assert.Contains("each once", (await device.Send(device.Event("given", at.On[0].Zone, at.On[0].Line, at.Pieces.Take(1), 0, e => e["also"] = wrong))).Body["refused"]![0]!.Text("why"), StringComparison.Ordinal);
        Assert.Contains("from 1 to", (await device.Send(device.Event("given", at.On[0].Zone, at.On[0].Line, at.Pieces.Take(1), 0, e => e["coats"] = 0))).Body["refused"]![0]!.Text("why"), StringComparison.Ordinal);
        Assert.Contains("from 1 to", (await device.Send(device.Event("begun", at.On[0].Zone, at.On[0].Line, at.Pieces.Take(1), 0, e => e["coats"] = 1))).Body["refused"]![0]!.Text("why"), StringComparison.Ordinal);
        await using var db = Server.Db();
        await Assert.ThrowsAnyAsync<Exception>(() => db.Database.ExecuteSqlAsync($"insert into work_also (event_id, zone_id, line_id) values ({given["id"]!.GetValue<Guid>()}, {strange}, {Guid.NewGuid()})", Stop));
    }

    /// <summary>Copies and files have what lies on all zones, coat by coat.</summary>
    [Fact]
    public async Task Copies_and_files_have_it_on_all_its_zones_in_as_many_coats()
    {
        var (at, device) = (await Begin(3), await Device("copied"));
        await device.Tell(device.Event("given", at.On[0].Zone, at.On[0].Line, at.Pieces.Take(2), 9, e => (e["also"], e["coats"]) = (at.Also(1), 1)));
        await device.Tell(device.Event("given", at.On[0].Zone, at.On[0].Line, at.Pieces.Take(1), 5, e => (e["also"], e["coats"]) = (at.Also(1), 1)));
        await using var db = Server.Db();
        var set = await Server.SetId();
        async Task<List<(string, string, PieceState, int)>> Lies(Guid of) => (await (
            from p in db.PieceLayers.AsNoTracking()
            join z in db.Zones on p.ZoneId equals z.Id
            join d in db.Designs on z.DesignId equals d.Id
            join piece in db.Pieces on p.PieceId equals piece.Id
            where d.SetId == of && d.Name == Design && p.Coats > 0
            select new { z.Name, piece.Label, p.State, p.Coats }).ToListAsync(Stop)).Select(p => (p.Name, p.Label, p.State, p.Coats)).Order().ToList();
        var here = await Lies(set);
        Assert.Contains(here, l => l is { Item3: PieceState.Partly, Item4: 2 });

        var copy = await weaver.Sent(HttpMethod.Post, $"/api/sets/{set}/copies", new { name = "Once more", withWork = true });
        Assert.Equal(here, await Lies(copy["id"]!.GetValue<Guid>()));
        var (status, taken) = await In(await Elsewhere(), await Out(set.ToString()));
        Assert.True(status == 200, taken.ToJsonString());
        Assert.Equal(here, await Lies(taken["setId"]!.GetValue<Guid>()));
        await Agrees();
    }
}
