using System.Text.Json.Nodes;
using Lowfell.Core.Bench;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Tests;

/// <summary>What happens at the bench: told by devices in their order, late or twice, with clocks that are off.</summary>
public sealed class BenchTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private sealed record Coping(Guid Zone, List<Guid> Lines, List<Guid> Pieces);

    private async Task<Coping> At(string design = "Jetty section", string zone = "Timber")
    {
        await using var db = server.Db();
        var at = await db.Zones.Where(z => z.Name == zone && db.Designs.Any(d => d.Id == z.DesignId && d.Name == design)).Select(z => new { z.Id, z.DesignId, z.TreatmentId }).SingleAsync();
        return new(at.Id, await Revisions.Layers(db).Where(l => l.TreatmentId == at.TreatmentId).Select(l => l.StepId).ToListAsync(), await db.Pieces.Where(p => p.DesignId == at.DesignId && p.ParentId == null).OrderBy(p => p.Label).Select(p => p.Id).ToListAsync());
    }

    private async Task<BenchDevice> Device(string name, double minutesOff = 0)
    {
        var device = new BenchDevice(server, name, TimeSpan.FromMinutes(minutesOff));
        await device.Begin();
        return device;
    }

    private async Task<PieceLayerRow?> Kept(Guid zone, Guid line, Guid piece)
    {
        await using var db = server.Db();
        return await db.PieceLayers.FindAsync(zone, line, piece);
    }

    /// <summary>What is kept is what a replay of the whole stream says, and what the database keeps by itself agrees.</summary>
    private async Task Agrees()
    {
        await using var db = server.Db();
        Assert.Equal(0, await PieceBook.Differences(db, await server.WorkshopId(), CancellationToken.None));
        var laid = (await db.DoneLayers.Select(d => new { d.ZoneId, d.LineId, d.PieceId }).ToListAsync()).Select(d => new PieceKey(d.ZoneId, d.LineId, d.PieceId)).ToHashSet();
        Assert.True(laid.SetEquals((await db.PieceLayers.Where(p => p.State == PieceState.Done).ToListAsync()).Select(p => new PieceKey(p.ZoneId, p.LineId, p.PieceId))));
    }

    [Fact]
    public async Task A_layer_is_begun_done_wiped_and_done_again_and_every_step_can_be_taken_back()
    {
        var (at, device) = (await At(), await Device("one"));
        var piece = at.Pieces[0];
        Task<PieceLayerRow?> Now() => Kept(at.Zone, at.Lines[0], piece);
        var begun = device.Event("begun", at.Zone, at.Lines[0], [piece], 9);
        var given = device.Event("given", at.Zone, at.Lines[0], [piece], 5);
        await device.Tell(begun, given);
        Assert.Equal(PieceState.Done, (await Now())!.State);
        await using (var db = server.Db())
            Assert.Equal(4, (double)(await db.TakenTimes.FindAsync([given["id"]!.GetValue<Guid>()], Stop))!.Minutes, 0.02);
        var wiped = device.Event("wiped", at.Zone, at.Lines[0], [piece], 4, e => e["note"] = "a hair in it");
        await device.Tell(wiped);
        Assert.Equal((PieceState.Open, 1), ((await Now())!.State, (await Now())!.Wipes));
        await device.Tell(device.Event("given", at.Zone, at.Lines[0], [piece], 1));
        Assert.Equal(PieceState.Done, (await Now())!.State);
        await Agrees();

        // The wiping never was: the piece has what it had before, and it twice.
        await device.Tell(device.Event("taken back", with: e => e["undoesId"] = wiped["id"]!.GetValue<Guid>()));
        Assert.Equal((PieceState.Done, 0), ((await Now())!.State, (await Now())!.Wipes));
        await Agrees();
        await using (var db = server.Db())
            Assert.Equal(2, (await db.DoneLayers.SingleAsync(d => d.PieceId == piece && d.LineId == at.Lines[0], Stop)).Times);
        Assert.Contains("taken back already", (await device.Send(device.Event("taken back", with: e => e["undoesId"] = wiped["id"]!.GetValue<Guid>()))).Body["refused"]![0]!.Text("why"));
        Assert.Equal(0, (await new Painter(server, 0).Do(HttpMethod.Post, device.Path + "/rebuild", null))["differed"]!.GetValue<int>());
    }

    /// <summary>Told while the line was down, and delivered after the plan had changed: it is of the layer that was shown; the next coat is of the new one.</summary>
    [Fact]
    public async Task What_is_told_is_of_the_layer_that_was_seen_though_the_plan_changed_meanwhile()
    {
        var (at, device) = (await At(), await Device("cut-off"));
        async Task<Guid> Row()
        {
            await using var db = server.Db();
            var surface = (await db.Zones.FindAsync([at.Zone], Stop))!.SurfaceId;
            return await Revisions.Laid(db).Where(l => l.Lay.SurfaceId == surface && l.Lay.LineId == at.Lines[2]).Select(l => l.Layer.Id).SingleAsync(Stop);
        }

        var seen = await Row();
        var told = device.Event("given", at.Zone, at.Lines[2], [at.Pieces[2]], 9, e => e["seenId"] = seen);
        var sheet = await server.Get($"/api/plan/zones/{at.Zone}");
        var layers = sheet["layers"]!.Copy().AsArray();
        layers[2]!["coats"] = layers[2]!["coats"]!.GetValue<int>() + 1;
        Assert.Equal(200, (await server.Send(HttpMethod.Put, $"/api/plan/zones/{at.Zone}/stack", new { version = sheet["version"], revision = sheet["revision"], layers })).Status);
        var now = await Row();
        Assert.NotEqual(seen, now);
        await device.Tell(told);
        Assert.Equal(seen, (await Kept(at.Zone, at.Lines[2], at.Pieces[2]))!.LayerId);

        // What is no row of this line is not believed, and where nothing is said it is as planned.
        await device.Tell(device.Event("given", at.Zone, at.Lines[2], [at.Pieces[3]], 1, e => e["seenId"] = at.Lines[1]), device.Event("given", at.Zone, at.Lines[2], [at.Pieces[1]]));
        Assert.Equal((now, now), ((await Kept(at.Zone, at.Lines[2], at.Pieces[3]))!.LayerId, (await Kept(at.Zone, at.Lines[2], at.Pieces[1]))!.LayerId));
    }

    [Fact]
    public async Task What_is_sent_twice_counts_once_and_what_comes_before_its_turn_waits()
    {
        var (at, device) = (await At(), await Device("two"));
        JsonObject first = device.Event("noted", with: e => e["note"] = "one"), second = device.Event("noted", with: e => e["note"] = "two"), third = device.Event("noted", with: e => e["note"] = "three");
        var (status, body) = await device.Send(second, third);
        Assert.Equal((409, "out-of-order"), (status, body.Text("code")));
        Assert.Equal(0, body["current"]!["lastNumber"]!.GetValue<long>());
        await device.Tell(first, second);
        await device.Tell(first, second, third);
        await device.Tell(second, third);
        await using var db = server.Db();
        Assert.Equal(["one", "two", "three"], await db.WorkEvents.Where(e => e.Device == "two").OrderBy(e => e.Sequence).Select(e => e.Note).ToListAsync(Stop));

        // A device that lost what it knew of itself begins at one again: nothing of it is taken for what was told before.
        var (used, again) = await device.Send(new JsonObject { ["id"] = Guid.NewGuid(), ["number"] = 1, ["kind"] = "noted", ["toldAt"] = device.Now, ["note"] = "lost" });
        Assert.Equal((409, "number-used", 3), (used, again.Text("code"), again["current"]!["lastNumber"]!.GetValue<long>()));
    }

    [Fact]
    public async Task A_clock_that_is_seven_minutes_wrong_is_put_right()
    {
        var at = await At();
        foreach (var (minutes, name) in new[] { (7.0, "fast"), (-7.0, "slow") })
        {
            var device = await Device(name, minutes);
            var given = device.Event("given", at.Zone, at.Lines[1], [at.Pieces[1]], minutesAgo: 30);
            await device.Tell(given);
            var row = (await Kept(at.Zone, at.Lines[1], at.Pieces[1]))!;
            Assert.InRange((DateTimeOffset.UtcNow - row.DoneAt!.Value).TotalMinutes, 29.5, 30.5);
        }
    }

    [Fact]
    public async Task What_comes_late_is_put_where_it_belongs()
    {
        var (at, here, away) = (await At(), await Device("here"), await Device("away"));
        var (line, piece) = (at.Lines[2], at.Pieces[0]);
        await here.Tell(here.Event("wiped", at.Zone, line, [piece], 10));
        Assert.Equal(PieceState.Open, (await Kept(at.Zone, line, piece))!.State);
        await away.Tell(away.Event("given", at.Zone, line, [piece], 25));
        Assert.Equal(PieceState.Open, (await Kept(at.Zone, line, piece))!.State);
        await Agrees();
        await away.Tell(away.Event("given", at.Zone, line, [piece], 5));
        Assert.Equal(PieceState.Done, (await Kept(at.Zone, line, piece))!.State);
        await Agrees();
    }

    [Fact]
    public async Task What_cannot_be_is_refused_with_the_reason_and_the_rest_goes_on()
    {
        var (at, device) = (await At(), await Device("hostile"));
        var other = await At("Pump house", "Walls");
        var fine = device.Event("noted", with: e => e["note"] = "fine");
        JsonObject[] wrong =
        [
            device.Event("given", Guid.NewGuid(), at.Lines[0], at.Pieces),
            device.Event("given", at.Zone, Guid.NewGuid(), at.Pieces),
            device.Event("given", at.Zone, at.Lines[0], [other.Pieces[0]]),
            device.Event("given", at.Zone, at.Lines[0]),
            device.Event("given", at.Zone, at.Lines[0], at.Pieces, with: e => e["potId"] = Guid.NewGuid()),
            device.Event("noted", with: e => e["note"] = new string('n', 501)),
            device.Event("taken back", with: e => e["undoesId"] = Guid.NewGuid()),
            device.Event("noted", with: e => e["id"] = fine["id"]!.GetValue<Guid>()),
            device.Event("given", at.Zone, at.Lines[0], at.Pieces, with: e => e["minutes"] = -1),
        ];
        var last = device.Event("noted", with: e => e["note"] = "the rest");
        var (status, body) = await device.Send([fine, .. wrong, last]);
        Assert.Equal(200, status);
        Assert.Equal(Enumerable.Range(2, wrong.Length), body["refused"]!.AsArray().Select(r => r!["number"]!.GetValue<int>()));
        Assert.All(body["refused"]!.AsArray(), r => Assert.EndsWith(".", r!.Text("why")));
        await using var db = server.Db();
        Assert.Equal(["fine", "the rest"], await db.WorkEvents.Where(e => e.Device == "hostile").OrderBy(e => e.Sequence).Select(e => e.Note).ToListAsync(Stop));

        // What is not even an event, and ten thousand of them, store nothing.
        Assert.Equal(400, (await device.Send(Enumerable.Range(0, 10_000).Select(_ => new JsonObject { ["id"] = Guid.NewGuid() }).ToArray())).Status);
        Assert.Equal(400, (await device.Send(new JsonObject { ["id"] = Guid.NewGuid(), ["number"] = 14, ["kind"] = "poured out", ["toldAt"] = device.Now })).Status);

        // An id that was refused once is refused again, and clocks of other ages are named.
        var again = device.Event("noted", with: e => { e["id"] = wrong[0]["id"]!.GetValue<Guid>(); e["note"] = "again"; });
        Assert.Equal("This id is another event's.", (await device.Send(again)).Body["refused"]![0]!.Text("why"));
        foreach (var age in new[] { DateTimeOffset.MinValue, DateTimeOffset.MaxValue })
            Assert.Equal("sentAt", (await new Painter(server, 0, "ageless").Send(HttpMethod.Post, device.Path + "/events", new { sentAt = age, events = new[] { new { id = Guid.NewGuid(), number = 1, kind = "noted", toldAt = age, note = "x" } } })).Body.Fields().Single());

        // An instant that cannot be is no reason to refuse what happened: it is guessed, and marked so.
        foreach (var told in new[] { DateTimeOffset.MinValue, DateTimeOffset.MaxValue, DateTimeOffset.UtcNow.AddMinutes(20), DateTimeOffset.UtcNow.AddDays(-100) })
        {
            var odd = device.Event("noted", with: e => e["toldAt"] = told);
            await device.Tell(odd);
            Assert.Equal(Store.Rows.WorkEventRow.Guessed, (await db.WorkEvents.FindAsync([odd["id"]!.GetValue<Guid>()], Stop))!.Clock);
        }

        Assert.Equal(404, (await new Painter(server, 0).Send(HttpMethod.Post, $"/api/bench/{Guid.NewGuid()}/events", new { sentAt = device.Now, events = new[] { fine } })).Status);
    }

    [Fact]
    public async Task A_pot_gives_what_is_laid_from_it_and_gets_it_back()
    {
        var (at, device) = (await At("Lock-wall straight", "Tide band"), await Device("pots"));
        await using var db = server.Db();
        var pot = await db.Pots.Include(p => p.Contents).AsNoTracking().SingleAsync(p => p.Label == "Tide ground", Stop);
        var line = (await db.DoneLayers.FirstAsync(d => d.PotId == pot.Id, Stop)).LineId;
        Task<decimal> Left() => db.PotContents.Where(c => c.PotId == pot.Id).SumAsync(c => c.Ml, Stop);
        var was = await Left();
        var given = device.Event("given", at.Zone, line, [at.Pieces[6]], with: e => { e["potId"] = pot.Id; e["ml"] = 1.5; });
        await device.Tell(given);
        Assert.Equal((double)was - 1.5, (double)await Left(), 0.001);
        Assert.Equal(pot.Id, (await Kept(at.Zone, line, at.Pieces[6]))!.PotId);
        await device.Tell(device.Event("taken back", with: e => e["undoesId"] = given["id"]!.GetValue<Guid>()));
        Assert.Equal(was, await Left());
        Assert.Null(await Kept(at.Zone, line, at.Pieces[6]));

        // More than there is takes what there is: it ran out.
        await device.Tell(device.Event("given", at.Zone, line, [at.Pieces[6], at.Pieces[7]], with: e => { e["potId"] = pot.Id; e["ml"] = 500; }));
        Assert.Equal(0, await Left());
        await Agrees();
    }

    [Fact]
    public async Task Four_devices_at_once_come_to_what_a_replay_says()
    {
        var at = await At("Lock-wall straight", "Coping");
        var devices = await Task.WhenAll(Enumerable.Range(0, 4).Select(i => Device($"storm {i}", i * 3 - 4)));
        string[] kinds = ["begun", "given", "given", "paused", "wiped", "skipped", "mishap", "hot air", "noted", "accepted"];
        await Task.WhenAll(devices.Select(async (device, d) =>
        {
            var random = new Random(d);
            var told = new List<Guid>();
            for (var round = 0; round < 12; round++)
            {
                var batch = Enumerable.Range(0, random.Next(1, 9)).Select(_ =>
                {
                    if (told.Count > 3 && random.Next(6) == 0)
                    {
                        var undone = told[random.Next(told.Count)];
                        told.Remove(undone);
                        return device.Event("taken back", with: e => e["undoesId"] = undone);
                    }

                    var next = device.Event(kinds[random.Next(kinds.Length)], at.Zone, at.Lines[random.Next(3)], at.Pieces.Where(_ => random.Next(3) == 0).DefaultIfEmpty(at.Pieces[0]), random.Next(0, 600));
                    told.Add(next["id"]!.GetValue<Guid>());
                    return next;
                }).ToArray();
                await device.Tell(batch);

                // An answer that was lost: told again.
                if (random.Next(3) == 0)
                    await device.Tell(batch);
            }
        }));
        await Agrees();
    }

    [Fact]
    public async Task The_bench_says_what_to_do_with_which_pot_and_what_is_wet()
    {
        var (at, device) = (await At(), await Device("reader"));
        var bench = await server.Get(device.Path);
        var tasks = bench["tasks"]!.AsArray();
        Assert.NotEmpty(tasks);
        Assert.All(tasks, t => Assert.True(t!["pieces"]!.AsArray().Count > 0 && t["minutes"]!.GetValue<double>() > 0));
        Assert.Contains(tasks, t => t!["mix"]?["parts"]!.AsArray() is { Count: > 1 } parts && parts.All(p => p!["drops"]!.GetValue<int>() > 0));
        Assert.All(tasks.Where(t => t!["mix"] is not null), t => Assert.True(t!["mix"]!["ml"]!.GetValue<double>() > 0));
        var free = await server.Get($"{device.Path}/task?zoneId={at.Zone}&layerId={at.Lines[3]}");
        Assert.Equal(at.Pieces.Count, free["pieces"]!.AsArray().Count);
        await device.Tell(device.Event("given", at.Zone, at.Lines[3], at.Pieces.Take(2), 1));
        var after = await server.Get(device.Path);
        var wet = after["wet"]!.AsArray().Where(w => w!["layerId"]!.GetValue<Guid>() == at.Lines[3]).ToList();
        Assert.Equal(2, wet.Count);
        Assert.All(wet, w => Assert.True(w!["touchAt"]!.GetValue<DateTimeOffset>() > w["doneAt"]!.GetValue<DateTimeOffset>()));
        Assert.Equal("given", after["steps"]![0]!.Text("kind"));
        Assert.Equal(at.Pieces.Count - 2, (await server.Get($"{device.Path}/task?zoneId={at.Zone}&layerId={at.Lines[3]}"))["pieces"]!.AsArray().Count);
    }

    /// <summary>A pot that is mixed, topped up and laid from at the bench, without anybody having asked first; all of it can be taken back, the newest first.</summary>
    [Fact]
    public async Task A_pot_is_mixed_and_topped_up_at_the_bench_and_taken_back()
    {
        var device = new BenchDevice(server, "mixer");
        await device.Begin();
        var set = await server.SetId();
        var zone = (await server.Get($"/api/plan/sets/{set}"))["designs"]![0]!["zones"]!.AsArray().Single(z => z!.Text("name") == "Brick field")!["id"]!.GetValue<Guid>();
        var layer = (await server.Get($"/api/plan/zones/{zone}"))["layers"]![1]!;
        var mix = (await server.Get($"/api/bench/{(await server.Get("/api/workshops"))[0]!["id"]}/task?zoneId={zone}&layerId={layer["id"]}"))["mix"]!;
        var pieces = (await server.Get($"/api/pieces/{set}/cores?zoneId={zone}"))["pieces"]!.AsArray().Take(2).Select(p => p!["id"]!.GetValue<Guid>()).ToArray();
        var pot = Guid.NewGuid();
        async Task<decimal> Shelf() => (await server.Get($"/api/shelf/{(await server.Get("/api/workshops"))[0]!["id"]}/materials")).AsArray().Single(m => m!.Text("id") == mix["parts"]![0]!.Text("materialId"))!["stockMl"]!.GetValue<decimal>();
        JsonArray Drops(int each) => new(mix["parts"]!.AsArray().Select(p => (JsonNode)new JsonObject { ["materialId"] = p!["materialId"]!.DeepClone(), ["drops"] = each }).ToArray());
        JsonObject Filled(string kind, int drops, string? label = null) => device.Event(kind, zone, with: e =>
        {
            (e["potId"], e["amounts"]) = (pot, Drops(drops));
            if (label is not null)
                (e["label"], e["vessel"], e["recipeKey"]) = (label, "jar", mix.Text("key"));
        });
        var (before, each) = (await Shelf(), mix["parts"]![0]!["unitMl"]!.GetValue<decimal>());
        var (made, more, laid) = (Filled("made", 40, "Brick, really"), Filled("topped up", 10), device.Event("given", zone, layer["id"]!.GetValue<Guid>(), pieces, with: e => (e["potId"], e["ml"]) = (pot, 0.5)));
        await device.Tell(made, more, laid);
        async Task<JsonNode> Pot() => (await server.Get($"/api/pots/{set}"))["pots"]!.AsArray().Single(p => p!.Text("id") == pot.ToString())!;
        Assert.Equal("Brick, really", (await Pot()).Text("label"));
        var parts = mix["parts"]!.AsArray().Sum(p => p!["unitMl"]!.GetValue<decimal>());
        Assert.Equal(Math.Round(50 * parts - 0.5m, 2), Math.Round((await Pot())["ml"]!.GetValue<decimal>(), 2));
        Assert.Equal(before - 50 * each, await Shelf());

        // What was put in cannot be taken back while something was taken since; the newest first, it can.
        var (_, early) = await device.Send(device.Event("taken back", with: e => e["undoesId"] = more["id"]!.DeepClone()));
        Assert.Contains("since", early["refused"]![0]!.Text("why"), StringComparison.Ordinal);
        foreach (var back in new[] { laid, more, made })
            await device.Tell(device.Event("taken back", with: e => e["undoesId"] = back["id"]!.DeepClone()));
        Assert.Equal(before, await Shelf());

        // The same label again is another pot's; one that is not there is topped up by nobody.
        var second = device.Event("made", zone, with: e => (e["potId"], e["label"], e["vessel"], e["amounts"]) = (Guid.NewGuid(), "Brick, really", "jar", Drops(3)));
        await device.Tell(second);
        Assert.Contains((await server.Get($"/api/pots/{set}"))["pots"]!.AsArray(), p => p!.Text("label") == "Brick, really 2");
        var (_, none) = await device.Send(device.Event("topped up", zone, with: e => (e["potId"], e["amounts"]) = (Guid.NewGuid(), Drops(3))), device.Event("made", zone, with: e => e["potId"] = Guid.NewGuid()));
        Assert.Equal(2, none["refused"]!.AsArray().Count);
    }
}
