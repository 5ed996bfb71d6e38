using System.Text.Json.Nodes;
using Lowfell.Core.Bench;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Tests;

/// <summary>A refusal never destroys: what does not fit is kept whole, as much of it is taken as fits, and a person decides about the rest.</summary>
public sealed class UnfitTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private sealed record Spot(Guid Set, Guid Design, Guid Zone, List<Guid> Lines, List<(Guid Id, string Label)> Pieces);

    private async Task<Spot> At(string design, string zone)
    {
        await using var db = server.Db();
        var at = await (from z in db.Zones join d in db.Designs on z.DesignId equals d.Id where z.Name == zone && d.Name == design select new { z.Id, z.DesignId, z.TreatmentId, d.SetId }).SingleAsync(Stop);
        return new(at.SetId, at.DesignId, at.Id, await Revisions.Layers(db).Where(l => l.TreatmentId == at.TreatmentId).Select(l => l.StepId).ToListAsync(Stop),
            (await db.Pieces.Where(p => p.DesignId == at.DesignId && p.ParentId == null).OrderBy(p => p.Label).Select(p => new { p.Id, p.Label }).ToListAsync(Stop)).Select(p => (p.Id, p.Label)).ToList());
    }

    private async Task<BenchDevice> Device(string name)
    {
        var device = new BenchDevice(server, name);
        await device.Begin();
        return device;
    }

    private async Task<Guid> NewPiece(Guid design, string label)
    {
        var (status, made) = await server.Send(HttpMethod.Post, $"/api/designs/{design}/pieces", new { labels = new[] { label } });
        Assert.True(status is 200 or 201, made.ToJsonString());
        return made["ids"]![0]!.GetValue<Guid>();
    }

    private async Task Do(HttpMethod method, string path, object? body = null)
    {
        var (status, said) = await server.Send(method, path, body ?? new { });
        Assert.True(status is >= 200 and < 300, $"{method} {path}: {said.ToJsonString()}");
    }

    /// <summary>Removes something and gives the step by which it can be brought back.</summary>
    private async Task<Guid> Remove(string path)
    {
        var key = Guid.NewGuid();
        var (status, said) = await server.Send(HttpMethod.Delete, path, new { }, key);
        Assert.True(status == 200 && said["removed"]!.GetValue<bool>(), said.ToJsonString());
        return key;
    }

    private async Task BringBack(Guid step) => await Do(HttpMethod.Post, $"/api/workshops/{await server.WorkshopId()}/undo", new { step });

    /// <summary>What waits of what a device told.</summary>
    private async Task<List<JsonNode>> Waiting(BenchDevice device)
    {
        await using var db = server.Db();
        var own = (await db.BenchRefusals.Where(r => r.Device == device.Name).Select(r => r.EventId).ToListAsync(Stop)).Select(id => id.ToString()).ToHashSet();
        return (await server.Get(device.Path + "/unfit"))["entries"]!.AsArray().Where(e => e!["settled"] is null && own.Contains(e.Text("id"))).Select(e => e!).ToList();
    }

    private async Task<PieceState?> State(Guid zone, Guid line, Guid piece)
    {
        await using var db = server.Db();
        return (await db.PieceLayers.FindAsync([zone, line, piece], Stop))?.State;
    }

    private async Task Agrees()
    {
        await using var db = server.Db();
        Assert.Equal(0, await PieceBook.Differences(db, await server.WorkshopId(), Stop));
    }

    [Fact]
    public async Task Work_on_a_piece_that_was_put_away_is_work()
    {
        var (at, device) = (await At("Lock-wall straight", "Brick field"), await Device("away"));
        var six = at.Pieces.Skip(4).Take(6).Select(p => p.Id).ToList();
        await Do(HttpMethod.Post, $"/api/pieces/{six[2]}/put-away");
        await device.Tell(device.Event("given", at.Zone, at.Lines[5], six));
        foreach (var piece in six)
            Assert.Equal(PieceState.Done, await State(at.Zone, at.Lines[5], piece));
        await Do(HttpMethod.Post, $"/api/pieces/{six[2]}/bring-back");
        await Agrees();
    }

    [Theory]
    [InlineData("zones")]
    [InlineData("designs")]
    [InlineData("sets")]
    public async Task Work_on_a_zone_design_or_set_that_was_put_away_is_work(string what)
    {
        var (at, device) = (await At("Reed dredger", "Deck"), await Device($"away {what}"));
        var id = what switch { "zones" => at.Zone, "designs" => at.Design, _ => at.Set };
        var line = at.Lines[what.Length % at.Lines.Count];
        await Do(HttpMethod.Post, $"/api/{what}/{id}/put-away");
        await device.Tell(device.Event("begun", at.Zone, line, [at.Pieces[0].Id], 9), device.Event("given", at.Zone, line, [at.Pieces[0].Id]));
        await Do(HttpMethod.Post, $"/api/{what}/{id}/bring-back");
        Assert.Equal(PieceState.Done, await State(at.Zone, line, at.Pieces[0].Id));
        await Agrees();
    }

    [Fact]
    public async Task Of_six_pieces_of_which_one_was_removed_five_are_taken_and_the_sixth_waits_for_it_to_come_back()
    {
        var (at, device) = (await At("Jetty section", "Timber"), await Device("six"));
        var gone = await NewPiece(at.Design, "J77");
        var five = at.Pieces.Take(5).Select(p => p.Id).ToList();
        var step = await Remove($"/api/pieces/{gone}");
        var told = device.Event("given", at.Zone, at.Lines[6], [.. five, gone], with: e => { e["note"] = "by lamplight"; e["minutes"] = 12; });
        var (status, answer) = await device.Send(told);
        var refused = answer["refused"]!.AsArray().Single()!;
        Assert.Equal((200, gone), (status, refused["pieceIds"]!.AsArray().Single()!.GetValue<Guid>()));
        foreach (var piece in five)
            Assert.Equal(PieceState.Done, await State(at.Zone, at.Lines[6], piece));

        // True reasons, the whole event, and when it happened.
        var waits = Assert.Single(await Waiting(device));
        Assert.Equal("J77 was removed.", waits.Text("why"));
        var whole = JsonNode.Parse(waits.Text("told"))!;
        foreach (var name in new[] { "id", "number", "kind", "toldAt", "zoneId", "layerId", "note", "minutes" })
            Assert.Equal(told[name]!.ToJsonString(), name == "toldAt" ? told[name]!.ToJsonString() : whole[name]!.ToJsonString());
        Assert.Equal(told["toldAt"]!.GetValue<DateTimeOffset>(), whole["toldAt"]!.GetValue<DateTimeOffset>());
        Assert.Equal([gone], whole["pieceIds"]!.AsArray().Select(p => p!.GetValue<Guid>()));

        // It fits once the piece is back, and not before; each decision can be undone.
        var path = $"{device.Path}/unfit/{waits.Text("id")}";
        var (early, why) = await server.Send(HttpMethod.Post, path + "/take-in", new { });
        Assert.Equal((409, "still-not"), (early, why.Text("code")));
        await BringBack(step);
        await Do(HttpMethod.Post, path + "/take-in");
        Assert.Equal(PieceState.Done, await State(at.Zone, at.Lines[6], gone));
        Assert.Empty(await Waiting(device));
        Assert.Equal(409, (await server.Send(HttpMethod.Post, path + "/let-go", new { })).Status);
        await Do(HttpMethod.Post, path + "/undo");
        Assert.Null(await State(at.Zone, at.Lines[6], gone));
        Assert.Single(await Waiting(device));
        await Do(HttpMethod.Post, path + "/let-go");
        Assert.Empty(await Waiting(device));
        await Do(HttpMethod.Post, path + "/undo");
        Assert.Single(await Waiting(device));

        // By the instant it happened, not by that at which it was taken in.
        await Do(HttpMethod.Post, path + "/take-in");
        await using var db = server.Db();
        var row = await db.WorkEvents.Where(e => e.Note == "by lamplight" && e.Pieces.Any(p => p.PieceId == gone)).OrderByDescending(e => e.Sequence).FirstAsync(Stop);
        Assert.Equal(told["toldAt"]!.GetValue<DateTimeOffset>().UtcDateTime, row.At.UtcDateTime, TimeSpan.FromSeconds(2));
        await Agrees();
    }

    [Fact]
    public async Task Work_on_a_zone_that_was_removed_is_kept_with_the_true_reason_and_can_be_put_right()
    {
        var (at, device) = (await At("Pump house", "Walls"), await Device("zone"));
        var (made, zone) = await server.Send(HttpMethod.Post, $"/api/designs/{at.Design}/zones", new { name = "Lean-to", areaCm2 = 12, relief = "light" });
        Assert.True(made is 200 or 201, zone.ToJsonString());
        var id = zone["id"]!.GetValue<Guid>();
        await Remove($"/api/zones/{id}");
        var (_, answer) = await device.Send(device.Event("given", id, at.Lines[0], [at.Pieces[0].Id]));
        Assert.Contains("“Lean-to” was removed", answer["refused"]![0]!.Text("why"), StringComparison.Ordinal);
        var path = $"{device.Path}/unfit/{(await Waiting(device)).Single().Text("id")}";
        await Do(HttpMethod.Post, path + "/correct", new { zoneId = at.Zone, layerId = at.Lines[1] });
        Assert.Equal(PieceState.Done, await State(at.Zone, at.Lines[1], at.Pieces[0].Id));
        Assert.Equal("corrected", (await server.Get(device.Path + "/unfit"))["entries"]!.AsArray().Single(e => path.EndsWith(e!.Text("id"), StringComparison.Ordinal))!.Text("settled"));

        // What never was is said never to have been, and another workshop's is no business of this one.
        var (_, never) = await device.Send(device.Event("given", Guid.NewGuid(), at.Lines[0], [at.Pieces[0].Id]), device.Event("given", at.Zone, at.Lines[0], [Guid.NewGuid(), Guid.NewGuid()]), device.Event("given", at.Zone, at.Lines[0], [(await At("Jetty section", "Timber")).Pieces[0].Id]));
        Assert.Contains("nor that there ever was one", never["refused"]![0]!.Text("why"), StringComparison.Ordinal);
        Assert.Equal("2 pieces are not known here.", never["refused"]![1]!.Text("why"));
        Assert.EndsWith("is a piece of Jetty section.", never["refused"]![2]!.Text("why"), StringComparison.Ordinal);
    }

    [Fact]
    public async Task A_note_that_is_too_long_is_kept_to_the_last_letter_and_taken_in_once_it_is_short()
    {
        var device = await Device("novelist");
        var note = string.Concat(Enumerable.Repeat("paint dries ", 60));
        Assert.Single((await device.Send(device.Event("noted", with: e => e["note"] = note))).Body["refused"]!.AsArray());
        var waits = Assert.Single(await Waiting(device));
        Assert.Equal(note, waits.Text("note"));
        await Do(HttpMethod.Post, $"{device.Path}/unfit/{waits.Text("id")}/correct", new { note = "paint dries" });
        Assert.Equal("paint dries", (await server.Get(device.Path + "/unfit"))["entries"]!.AsArray().Single(e => e!.Text("id") == waits.Text("id"))!["told"] is { } ? "paint dries" : "");
        await using var db = server.Db();
        Assert.Equal(1, await db.WorkEvents.CountAsync(e => e.Device == "novelist" && e.Note == "paint dries", Stop));
    }

    [Fact]
    public async Task What_did_not_fit_is_taken_back_by_the_one_who_told_it()
    {
        var (at, device) = (await At("Jetty section", "Timber"), await Device("mind"));
        var wrong = device.Event("given", Guid.NewGuid(), at.Lines[0], [at.Pieces[0].Id]);
        await device.Send(wrong);
        Assert.Single(await Waiting(device));
        await device.Tell(device.Event("taken back", with: e => e["undoesId"] = wrong["id"]!.GetValue<Guid>()));
        Assert.Empty(await Waiting(device));
        await device.Tell(device.Event("noted", with: e => e["note"] = "and on it goes"));
    }

    /// <summary>A device that was taken in anew begins at one again and sends what it has: what was stored and never answered counts once.</summary>
    [Fact]
    public async Task Told_again_under_another_number_and_name_it_counts_once()
    {
        var (at, device, again) = (await At("Jetty section", "Iron"), await Device("before"), await Device("after"));
        JsonObject[] told = [device.Event("given", at.Zone, at.Lines[2], [at.Pieces[0].Id]), device.Event("given", Guid.NewGuid(), at.Lines[0], [at.Pieces[0].Id]), device.Event("noted", with: e => e["note"] = "told twice")];
        await device.Send(told);
        var before = (await Waiting(device)).Count;
        var (status, answer) = await again.Send(told.Select((e, i) => { var copy = (JsonObject)e.DeepClone(); copy["number"] = i + 1; return copy; }).ToArray());
        Assert.Equal((200, 3), (status, answer["lastNumber"]!.GetValue<int>()));
        Assert.Equal(before, (await Waiting(device)).Count);
        await using var db = server.Db();
        Assert.Equal(1, await db.WorkEvents.CountAsync(e => e.Note == "told twice", Stop));
        Assert.Equal(0, await db.WorkEvents.CountAsync(e => e.Device == "after", Stop));

        // Another event under an id that is used is no second telling: it is kept, and told apart.
        var other = again.Event("noted", with: e => { e["id"] = told[2]["id"]!.GetValue<Guid>(); e["number"] = 4; e["note"] = "somebody else"; });
        Assert.Equal("This id is another event's.", (await again.Send(other)).Body["refused"]![0]!.Text("why"));
        Assert.Contains(await Waiting(again), e => e.Text("note") == "somebody else");
    }

    [Fact]
    public async Task What_cannot_even_be_read_is_kept_as_it_stands()
    {
        var (device, id) = (await Device("strange"), Guid.NewGuid());
        var path = device.Path + "/unfit";
        await Do(HttpMethod.Post, path, new { id, told = "{\"kind\":\"sung to\"}", why = "The server could not read it.", toldAt = DateTimeOffset.UtcNow });
        var waits = (await server.Get(path))["entries"]!.AsArray().Single(e => e!.Text("id") == id.ToString())!;
        Assert.Equal("{\"kind\":\"sung to\"}", waits.Text("told"));
        Assert.Equal((409, "not-an-event"), ((await server.Send(HttpMethod.Post, $"{path}/{id}/take-in", new { })) is var (s, b) ? (s, b.Text("code")) : default));
        await Do(HttpMethod.Post, $"{path}/{id}/let-go");
        foreach (var (told, field) in new[] { ("", "told"), (new string('x', 100_001), "told") })
            Assert.Contains(field, (await server.Send(HttpMethod.Post, path, new { id = Guid.NewGuid(), told, why = "x" })).Body.Fields());
        Assert.Equal(404, (await server.Send(HttpMethod.Post, $"{path}/{Guid.NewGuid()}/let-go", new { })).Status);

        // A second workshop sees and settles nothing of it.
        var (_, other) = await server.Send(HttpMethod.Post, "/api/workshops", new { name = $"Other {Guid.NewGuid():n}" });
        Assert.Empty((await server.Get($"/api/bench/{other["id"]}/unfit"))["entries"]!.AsArray());
        Assert.Equal(404, (await server.Send(HttpMethod.Post, $"/api/bench/{other["id"]}/unfit/{id}/undo", new { })).Status);
    }

    /// <summary>The serving role may write down what was decided, and change nothing else of what was told.</summary>
    [Fact]
    public async Task What_was_told_cannot_be_changed_by_the_one_who_serves()
    {
        var device = await Device("kept");
        await device.Send(device.Event("noted", with: e => e["note"] = new string('n', 501)));
        await LowfellServer.Execute(server.Serving, "update bench_refusals set settled_by = settled_by");
        foreach (var sql in new[] { "update bench_refusals set told = '{}'", "update bench_refusals set why = ''", "delete from bench_refusals" })
            await Assert.ThrowsAsync<Npgsql.PostgresException>(() => LowfellServer.Execute(server.Serving, sql));
    }

    [Fact]
    public async Task An_evening_of_a_clock_that_was_put_right_lies_where_it_was()
    {
        var (at, device) = (await At("Jetty section", "Timber"), await Device("clocks"));
        var now = DateTimeOffset.UtcNow;
        Guid? epoch = Guid.NewGuid();
        async Task<DateTimeOffset?> Told(DateTimeOffset wall, DateTimeOffset sent, Action<JsonObject> with, double? sentTick = null)
        {
            var e = device.Event("given", at.Zone, at.Lines[7], [at.Pieces[0].Id], with: x => { x["toldAt"] = wall; with(x); });
            var (status, body) = await new Painter(server, 0, "clocks").Send(HttpMethod.Post, device.Path + "/events", new JsonObject { ["sentAt"] = sent, ["epoch"] = epoch, ["tick"] = sentTick, ["events"] = new JsonArray(e.DeepClone()) });
            Assert.True(status == 200 && body["refused"]!.AsArray().Count == 0, body.ToJsonString());
            await using var db = server.Db();
            return (await db.WorkEvents.FindAsync([e["id"]!.GetValue<Guid>()], Stop)) is { } row ? row.Clock is null ? row.At : null : throw new InvalidOperationException("It is not there.");
        }

        // An hour ahead while it told, half an hour ago; put right before it sent.
        var half = now.AddMinutes(-30);
        Assert.Equal(half.UtcDateTime, (await Told(half.AddHours(1), now, e => e["offsetMs"] = -3_600_000))!.Value.UtcDateTime, TimeSpan.FromSeconds(2));
        Assert.Equal(half.UtcDateTime, (await Told(half.AddHours(1), now, e => { e["epoch"] = epoch; e["tick"] = 1000; }, 1000 + 30 * 60_000))!.Value.UtcDateTime, TimeSpan.FromSeconds(5));

        // Of the year 2020, and put right: believed where it was known how far it was off, guessed and marked where it was not.
        var then = half.AddYears(-6);
        Assert.Equal(half.UtcDateTime, (await Told(then, now, e => e["offsetMs"] = (half - then).TotalMilliseconds))!.Value.UtcDateTime, TimeSpan.FromSeconds(2));
        Assert.Null(await Told(then, now, _ => { }));
        Assert.Contains((await server.Get($"/api/log/{at.Set}"))["entries"]!.AsArray(), e => e!["guessed"]!.GetValue<bool>());
        await Agrees();
    }

    /// <summary>Between laying and wiping an answer was slow, and the device thinks of its clock as 40 s less behind than before.</summary>
    [Fact]
    public async Task What_is_wiped_off_right_after_it_was_laid_is_off()
    {
        var (at, device) = (await At("Jetty section", "Timber"), await Device("jumps"));
        JsonObject Told(string kind, double offsetMs) => device.Event(kind, at.Zone, at.Lines[7], [at.Pieces[1].Id], with: e => { e["toldAt"] = DateTimeOffset.UtcNow.AddMinutes(-2); e["offsetMs"] = offsetMs; });
        var laid = Told("given", 40_000);
        await device.Send(laid);
        Assert.Contains((await server.Get(device.Path))["wet"]!.AsArray(), w => w!.Text("eventId") == laid["id"]!.GetValue<Guid>().ToString());
        await device.Send(Told("wiped", 0));
        var bench = await server.Get(device.Path);
        Assert.DoesNotContain(bench["wet"]!.AsArray(), w => w!.Text("eventId") == laid["id"]!.GetValue<Guid>().ToString());
        Assert.Equal(["wiped", "given"], bench["steps"]!.AsArray().Take(2).Select(s => s!.Text("kind")));
        await Agrees();
    }
}
