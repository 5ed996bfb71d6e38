using System.Text.Json.Nodes;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Lowfell.Server.Tests;

/// <summary>The one way to write: once for every key, small receipts, faults told for what they are.</summary>
public sealed class WriteTests(LowfellServer server) : PotDesk(server), IClassFixture<LowfellServer>
{
    private async Task<long> Count(string sql)
    {
        await using var db = new NpgsqlConnection(Server.Connection);
        await db.OpenAsync(Stop);
        await using var ask = new NpgsqlCommand(sql, db);
        return Convert.ToInt64(await ask.ExecuteScalarAsync(Stop), System.Globalization.CultureInfo.InvariantCulture);
    }

    [Fact]
    public async Task A_write_without_a_key_is_refused_by_name()
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/workshops") { Content = new StringContent("{\"name\":\"No key\"}", System.Text.Encoding.UTF8, "application/json") };
        using var answer = await Server.Http.SendAsync(request, Stop);
        var problem = JsonNode.Parse(await answer.Content.ReadAsStringAsync(Stop))!;
        Assert.Equal((400, "no-key", "Idempotency-Key"), ((int)answer.StatusCode, problem.Text("code"), problem.Fields().Single()));
    }

    /// <summary>Every kind of write sent twice gives one answer and happens once; the same key with another body is refused.</summary>
    [Fact]
    public async Task Sent_twice_it_counts_once_and_with_another_body_it_is_refused()
    {
        var (workshop, set) = (await Server.WorkshopId(), await Server.SetId());
        var sheet = await Server.Get($"/api/plan/zones/{await Server.ZoneId("Jetty section", "Iron")}");
        var material = await Material("Tap Water");
        (HttpMethod, string, JsonNode)[] writes =
        [
            (HttpMethod.Post, "/api/workshops", new JsonObject { ["name"] = "Twice" }),
            (HttpMethod.Post, $"/api/shelf/{workshop}/materials", JsonNode.Parse("""{"name":"Twice","kind":"paint","carrier":"water acrylic","colour":"#445566"}""")!),
            (HttpMethod.Post, $"/api/shelf/{workshop}/csv", JsonNode.Parse("""{"store":true,"text":"name,kind,colour\nTwice in a file,paint,#445566"}""")!),
            (HttpMethod.Post, $"/api/stock/{workshop}/moves", new JsonObject { ["moves"] = new JsonArray(new JsonObject { ["id"] = Guid.NewGuid(), ["materialId"] = material, ["kind"] = "bought", ["ml"] = 3 }) }),
            (HttpMethod.Put, $"/api/plan/zones/{sheet["zone"]!["id"]}/stack", new JsonObject { ["version"] = sheet["version"]!.DeepClone(), ["layers"] = sheet["layers"]!.DeepClone() }),
            (HttpMethod.Post, $"/api/pots/{set}", new JsonObject { ["id"] = Guid.NewGuid(), ["eventId"] = Guid.NewGuid(), ["label"] = "Twice", ["vessel"] = "jar", ["amounts"] = new JsonArray(new JsonObject { ["materialId"] = material, ["ml"] = 1 }) }),
            (HttpMethod.Put, $"/api/workshops/{workshop}/house-rules/bare-percent", JsonNode.Parse("""{"meaning":"of the mix"}""")!),
        ];
        foreach (var (method, path, body) in writes)
        {
            var key = Guid.NewGuid();
            var first = await Server.Send(method, path, body.ToJsonString(), key);
            Assert.True(first.Status is 200 or 201, $"{path}: {first.Body}");
            var events = await Count("select (select count(*) from work_events) + (select count(*) from stock_moves) + (select count(*) from materials) + (select count(*) from workshops) + (select count(*) from treatment_revisions)");
            var again = await Server.Send(method, path, body.ToJsonString(), key);
            Assert.Equal((first.Status, first.Body.ToJsonString()), (again.Status, again.Body.ToJsonString()));
            Assert.Equal(events, await Count("select (select count(*) from work_events) + (select count(*) from stock_moves) + (select count(*) from materials) + (select count(*) from workshops) + (select count(*) from treatment_revisions)"));
            var other = await Server.Send(method, path, body.ToJsonString() + " ", key);
            Assert.Equal((409, "key-reused"), (other.Status, other.Body.Text("code")));
        }

        Assert.True(await Count("select max(octet_length(told)) from write_receipts") < 1000, "receipts say what to read again, not what was read");
    }

    [Fact]
    public async Task After_the_prune_a_redelivery_is_refused_and_not_done_twice()
    {
        var key = Guid.NewGuid();
        var body = new { name = "Long ago" };
        Assert.Equal(201, (await Server.Send(HttpMethod.Post, "/api/workshops", body, key)).Status);
        await using (var db = Server.Db())
        {
            Assert.Equal(0, await Receipts.Prune(db, DateTimeOffset.UtcNow.AddDays(29), Stop));
            Assert.True(await Receipts.Prune(db, DateTimeOffset.UtcNow.AddDays(31), Stop) > 0);
        }

        var (status, problem) = await Server.Send(HttpMethod.Post, "/api/workshops", body, key);
        Assert.Equal((409, "key-spent"), (status, problem.Text("code")));
        Assert.Equal(1, await Count("select count(*) from workshops where name = 'Long ago'"));
    }

    [Fact]
    public async Task Twenty_first_sets_made_at_once_all_succeed()
    {
        var (_, workshop) = await Server.Send(HttpMethod.Post, "/api/workshops", new { name = "Crowded" });
        var answers = await Task.WhenAll(Enumerable.Range(0, 20).Select(n => Server.Send(HttpMethod.Post, "/api/plan/sets", new
        {
            workshopId = workshop["id"]!.GetValue<Guid>(),
            name = $"Set {n}",
            scale = 56,
            tableMetres = 1,
            design = new { name = "Base", pieces = 2, substrate = "moulded plastic", zones = new[] { new { name = "Ground", areaCm2 = 8 } } },
        })));
        Assert.All(answers, a => Assert.True(a.Status == 201, a.Body.ToJsonString()));
    }

    /// <summary>What was done points at the layer it was done by, however the plan changes after it; undo goes by the stream and not by the clock.</summary>
    [Fact]
    public async Task Work_keeps_to_the_layer_it_was_done_by()
    {
        var zone = await Server.ZoneId("Keeper’s cottage", "Door");
        var sheet = await Server.Get($"/api/plan/zones/{zone}");
        var line = sheet["layers"]![1]!["id"]!.GetValue<Guid>();
        await using var db = Server.Db();
        var piece = await (from z in db.Zones join p in db.Pieces on z.DesignId equals p.DesignId where z.Id == zone select p.Id).FirstAsync(Stop);
        var pot = await Make("Door pot", ("Wall Filler", 2));
        (_, pot) = await Step(pot, "give", new { zoneId = zone, layerId = line, pieceIds = new[] { piece }, ml = 0.5 });
        var layers = sheet["layers"]!.DeepClone();
        layers[1]!["coats"] = 5;
        Assert.Equal(200, (await Server.Send(HttpMethod.Put, $"/api/plan/zones/{zone}/stack", new JsonObject { ["version"] = sheet["version"]!.DeepClone(), ["layers"] = layers })).Status);
        var given = await db.WorkEvents.AsNoTracking().SingleAsync(e => e.ZoneId == zone && e.Kind == WorkKind.Given, Stop);
        Assert.Equal(sheet["layers"]![1]!["coats"]!.GetValue<int>(), (await db.Layers.SingleAsync(l => l.Id == given.LayerId, Stop)).Coats);
        Assert.Equal(5, (await Server.Get($"/api/plan/zones/{zone}"))["layers"]![1]!["coats"]!.GetValue<int>());
        Assert.Equal(1, await Count($"select count(*) from done_layers where zone_id = '{zone}' and line_id = '{line}'"));
        (_, pot) = await Step(pot, $"events/{given.Id}/take-back", new { });
        Assert.Equal(0, await Count($"select count(*) from done_layers where zone_id = '{zone}'"));
        Assert.Equal(2, Ml(pot));
    }

    /// <summary>Pots and progress kept as it goes are what a replay of the stream comes to.</summary>
    [Fact]
    public async Task What_is_kept_is_what_a_replay_comes_to()
    {
        var zone = await Server.ZoneId("Keeper’s cottage", "Timber");
        var line = (await Server.Get($"/api/plan/zones/{zone}"))["layers"]![0]!["id"]!.GetValue<Guid>();
        await using var db = Server.Db();
        var pieces = await (from z in db.Zones join p in db.Pieces on z.DesignId equals p.DesignId where z.Id == zone select p.Id).ToListAsync(Stop);
        var random = new Random(7);
        var pot = await Make("Replayed", ("Wall Filler", 5), ("Tap Water", 1));
        for (var n = 0; n < 40; n++)
        {
            var newest = (await Server.Get($"{await Root()}/{pot["id"]}"))["events"]![0]!;
            var (status, body) = random.Next(5) switch
            {
                0 => await Step(pot, "top-up", new { amounts = new[] { new { materialId = await Material("Tap Water"), ml = 0.2 } } }),
                1 => await Step(pot, "throw-away", new { ml = 0.05 }),
                2 when newest["canTakeBack"]!.GetValue<bool>() => await Step(pot, $"events/{newest["id"]}/take-back", new { }),
                3 when await Make($"Replayed {n}", ("Tap Water", 0.1m)) is var other => await Step(pot, "join", new { otherId = other["id"]!.GetValue<Guid>(), otherVersion = other["version"]!.GetValue<uint>() }),
                _ => await Step(pot, "give", new { zoneId = zone, layerId = line, pieceIds = pieces.OrderBy(_ => random.Next()).Take(1 + random.Next(pieces.Count)), ml = 0.05 }),
            };
            Assert.True(status == 200, body.ToJsonString());
            pot = body;
        }

        foreach (var kept in await db.Pots.AsNoTracking().ToListAsync(Stop))
        {
            var replayed = new PotRow { Id = kept.Id, Label = kept.Label };
            var events = await db.WorkEvents.AsNoTracking().Include(e => e.Amounts).Where(e => e.PotId == kept.Id).OrderBy(e => e.Sequence).ToListAsync(Stop);
            foreach (var e in events)
                PotState.Take(replayed, e, events.Find(u => u.Id == e.UndoesId));
            Assert.Equal((kept.Filling, kept.FilledMl, kept.NewestEventId, kept.LastOutEventId), (replayed.Filling, replayed.FilledMl, replayed.NewestEventId, replayed.LastOutEventId));
        }

        Assert.Equal(0, await Count("""
            select count(*) from (
              select e.zone_id, e.line_id, p.piece_id, e.pot_id, e.filling, count(*) as times from work_events e join work_pieces p on p.event_id = e.id
              where e.kind = 'given' and not exists (select from work_events u where u.undoes_id = e.id)
                and not exists (select from work_events x join work_pieces y on y.event_id = x.id where x.kind = 'wiped' and (x.zone_id, x.line_id, y.piece_id) = (e.zone_id, e.line_id, p.piece_id) and (x.at, x.sequence) > (e.at, e.sequence))
              group by 1, 2, 3, 4, 5) s
            full join done_layers d on (d.zone_id, d.line_id, d.piece_id) = (s.zone_id, s.line_id, s.piece_id) and (d.pot_id, d.filling) is not distinct from (s.pot_id, s.filling)
            where s.times is distinct from d.times
            """));
    }

    [Theory]
    [InlineData("drop table work_events")]
    [InlineData("alter table work_events add column x int")]
    [InlineData("copy (select 1) to program 'true'")]
    [InlineData("copy workshops to '/tmp/never-written'")]
    [InlineData("update work_events set note = 'x'")]
    [InlineData("delete from work_events")]
    [InlineData("update work_amounts set ml = 1")]
    [InlineData("delete from stock_moves")]
    [InlineData("truncate work_pieces")]
    [InlineData("update layers set coats = 2")]
    [InlineData("insert into pot_contents select gen_random_uuid(), gen_random_uuid(), 1")]
    [InlineData("delete from done_layers")]
    [InlineData("create table mine (id int)")]
    [InlineData("create function mine() returns int language sql as 'select 1'")]
    [InlineData("alter table pots disable trigger all")]
    [InlineData("set session_replication_role = replica")]
    public async Task The_serving_role_may_not(string sql)
    {
        var error = await Assert.ThrowsAsync<PostgresException>(() => LowfellServer.Execute(Server.Serving, sql));
        Assert.Equal(PostgresErrorCodes.InsufficientPrivilege, error.SqlState);
    }

    [Theory]
    [InlineData("/shopping?within=NaN", "within")]
    [InlineData("/shopping?within=Infinity", "within")]
    [InlineData("/shopping?within=much", "within")]
    public async Task A_number_must_be_one(string path, string field)
    {
        var (status, problem) = await Server.Send(HttpMethod.Get, $"/api/stock/{await Server.WorkshopId()}{path}", null);
        Assert.Equal((400, field), (status, problem.Fields().Single()));
    }

    [Theory]
    [InlineData("\u200b\u200d")]
    [InlineData("\u202e\u2066")]
    [InlineData("\u3164")]
    [InlineData(" \t ")]
    public async Task A_name_must_be_seen(string name)
    {
        var (status, problem) = await Server.Send(HttpMethod.Post, "/api/workshops", new { name });
        Assert.Equal((400, "name"), (status, problem.Fields().Single()));
    }

    [Fact]
    public async Task A_name_that_is_taken_is_told_in_a_sentence()
    {
        var body = JsonNode.Parse("""{"name":"Bog Umber","maker":"Tarnside","kind":"paint","carrier":"enamel","colour":"#445566"}""")!;
        await Server.Send(HttpMethod.Post, $"/api/shelf/{await Server.WorkshopId()}/materials", body.ToJsonString());
        var (status, problem) = await Server.Send(HttpMethod.Post, $"/api/shelf/{await Server.WorkshopId()}/materials", body.ToJsonString());
        Assert.Equal((409, "already-there", "name"), (status, problem.Text("code"), problem.Fields().Single()));
        Assert.DoesNotContain("ix_", problem.ToJsonString());
    }

    [Fact]
    public async Task A_field_that_means_nothing_is_named()
    {
        var (status, problem) = await Server.Send(HttpMethod.Post, "/api/calc/mix", """{"components":[{"colour":"#112233","parts":1,"part":2}]}""");
        Assert.Equal((400, "unknown-field"), (status, problem.Text("code")));
        Assert.Contains("components[0]", problem.Fields().Single());
    }
}
