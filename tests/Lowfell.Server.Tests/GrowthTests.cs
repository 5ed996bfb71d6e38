using System.Text.Json.Nodes;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Lowfell.Server.Tests;

/// <summary>What grows by itself is bounded, and what takes room can be let go of by a person.</summary>
public sealed class GrowthTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Spent_ids_and_used_keys_go()
    {
        var (key, now) = (Guid.NewGuid(), DateTimeOffset.UtcNow);
        Assert.Equal(201, (await server.Send(HttpMethod.Post, "/api/workshops", new { name = "Spent" }, key)).Status);
        await using var db = server.Db();
        await Receipts.Prune(db, now.AddDays(31), Stop);
        Assert.True(await db.SpentWrites.AnyAsync(w => w.Id == key, Stop));
        Assert.Equal(0, await Receipts.Forget(db, now.AddDays(31 + 364), Stop));
        Assert.True(await Receipts.Forget(db, now.AddDays(31 + 366), Stop) > 0);
        Assert.False(await db.SpentWrites.AnyAsync(w => w.Id == key, Stop));

        await server.Send(HttpMethod.Post, $"/api/devices/{await server.WorkshopId()}/keys", new { role = "look" });
        Assert.Equal(0, await OldKeys.Prune(db, now.AddMinutes(60), Stop));
        Assert.True(await OldKeys.Prune(db, now.AddMinutes(66), Stop) > 0);
        Assert.Equal(0, await db.PairingKeys.CountAsync(Stop));

        // The role that serves can forget, and cannot take an id away that is not old.
        await using var serving = new LowfellDb(LowfellDb.Options(server.Serving));
        Assert.Equal(0, await Receipts.Forget(serving, now, Stop));
        await Assert.ThrowsAsync<PostgresException>(() => serving.Database.ExecuteSqlAsync($"delete from spent_writes", Stop));
    }

    [Fact]
    public async Task Pictures_that_are_put_away_can_be_let_go_for_good_and_what_was_written_stays()
    {
        var (workshop, set) = (await server.WorkshopId(), await server.SetId());
        async Task<JsonNode> Taken(string words)
        {
            var (status, photo) = await server.Send(HttpMethod.Post, $"/api/log/{set}/photos", new { id = Guid.NewGuid(), data = Convert.ToBase64String(Camera.Photo(40, 30)), words });
            Assert.True(status == 201, photo.ToJsonString());
            return photo;
        }

        var (stays, goes) = (await Taken("stays"), await Taken("goes"));
        var path = $"/api/log/{set}/photos/{goes.Text("id")}";
        var step = Guid.NewGuid();
        Assert.Equal(200, (await server.Send(HttpMethod.Put, path, new { version = goes["version"]!.GetValue<uint>(), putAway = true }, step)).Status);
        var away = await server.Get($"/api/workshops/{workshop}/put-away-photos");
        Assert.Equal(1, away["count"]!.GetValue<int>());
        Assert.True(away["bytes"]!.GetValue<long>() > 100);
        Assert.Equal(1, (await server.Send(HttpMethod.Post, $"/api/workshops/{workshop}/put-away-photos/let-go", new { })).Body["count"]!.GetValue<int>());
        Assert.Equal(0, (await server.Get($"/api/workshops/{workshop}/put-away-photos"))["count"]!.GetValue<int>());
        await using var db = server.Db();
        var row = await db.Photos.AsNoTracking().SingleAsync(p => p.Id == goes["id"]!.GetValue<Guid>(), Stop);
        Assert.Equal((null, null, "goes"), (row.BlobId, row.SmallId, row.Words));
        Assert.Equal(2, await db.Blobs.CountAsync(b => b.Type == "image/jpeg", Stop));
        Assert.Equal(404, (int)(await server.Http.GetAsync(path + ".jpg", Stop)).StatusCode);
        Assert.Equal(200, (int)(await server.Http.GetAsync($"/api/log/{set}/photos/{stays.Text("id")}.jpg", Stop)).StatusCode);

        // Neither undo nor a change of mind brings it back, and a file of the set goes without it.
        var (undone, why) = await server.Send(HttpMethod.Post, $"/api/workshops/{workshop}/undo", new { step });
        Assert.True(undone == 409 && why.Text("detail").Contains("for good", StringComparison.Ordinal), why.ToJsonString());
        Assert.Equal(409, (await server.Send(HttpMethod.Put, path, new { version = row.Version, putAway = false })).Status);
        Assert.Equal(200, (int)(await server.Http.GetAsync($"/api/sets/{set}/file", Stop)).StatusCode);
    }

    /// <summary>Two servers on a database that has nothing in it yet: one brings it up, the other waits for that, and there is one demo.</summary>
    [Fact]
    public async Task Two_servers_that_start_at_once_on_an_empty_database_both_serve()
    {
        var empty = await server.Empty();
        var factories = Enumerable.Range(0, 2).Select(_ => new WebApplicationFactory<Program>().WithWebHostBuilder(b => b.UseSetting("Lowfell:Database", empty).UseSetting("Lowfell:Owner", empty).UseSetting("urls", "http://127.0.0.1:0"))).ToList();
        var clients = await Task.WhenAll(factories.Select(f => Task.Run(() =>
        {
            f.UseKestrel(0);
            f.StartServer();
            return f.CreateClient();
        }, Stop)));
        foreach (var http in clients)
        {
            Assert.True((await http.GetAsync("/health", Stop)).IsSuccessStatusCode);
            Assert.Single(JsonNode.Parse(await http.GetStringAsync("/api/workshops", Stop))!.AsArray());
        }

        foreach (var factory in factories)
            await factory.DisposeAsync();
    }
}
