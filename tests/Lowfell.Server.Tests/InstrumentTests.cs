using System.Net.Http.Json;
using System.Text.Json.Nodes;
using Lowfell.Core.Instruments;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Tests;

/// <summary>A thermometer and a scale at the bench, played by the stand-ins; and instruments that fall silent or talk nonsense.</summary>
public sealed class InstrumentTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    /// <summary>An instrument that is taken in, in a workshop of this server.</summary>
    private async Task<(string Secret, Guid Id)> TakenIn(string name)
    {
        var (_, key) = await server.Send(HttpMethod.Post, $"/api/devices/{await server.WorkshopId()}/keys", new { role = "measure" });
        var secret = OtherDevice.Secret();
        var (status, said) = await server.Send(HttpMethod.Post, "/api/pairing", new { key = key.Text("key"), name, secret });
        Assert.True(status == 200, said.ToJsonString());
        return (secret, said["deviceId"]!.GetValue<Guid>());
    }

    private async Task<(int Status, JsonNode Body)> Say(string? secret, params object[] readings)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/instruments/readings") { Content = JsonContent.Create(new { readings }) };
        request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
        if (secret is not null)
            request.Headers.Authorization = new("Bearer", secret);
        using var answer = await server.Http.SendAsync(request, Stop);
        return ((int)answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync(Stop))!);
    }

    private static object Word(ClimateReading r) => new { at = r.At, temperatureC = r.TemperatureC, relativeHumidity = r.RelativeHumidity };

    private async Task<JsonNode> Now() => await server.Get($"/api/instruments/{await server.WorkshopId()}");

    private async Task SendAway(Guid id) => await server.Send(HttpMethod.Delete, $"/api/devices/{await server.WorkshopId()}/{id}", null);

    [Fact]
    public async Task Only_an_instrument_that_was_taken_in_is_listened_to()
    {
        Assert.Equal(401, (await Say(null, new { grams = 1 })).Status);
        Assert.Equal(401, (await Say(OtherDevice.Secret(), new { grams = 1 })).Status);
        var (secret, id) = await TakenIn("Shelf sensor");
        Assert.Equal(400, (await Say(secret)).Status);
        Assert.Equal(400, (await Say(secret, new { temperatureC = 20 })).Status);
        Assert.Equal(400, (await Say(secret, new { temperatureC = 20, relativeHumidity = 0.5, grams = 1 })).Status);
        Assert.Equal(1, (await Say(secret, new { grams = 1 })).Body["taken"]!.GetValue<int>());
        await SendAway(id);
        Assert.Equal(401, (await Say(secret, new { grams = 1 })).Status);
    }

    [Fact]
    public async Task A_cooling_evening_lengthens_what_is_drying_at_the_bench()
    {
        var (workshop, now) = (await server.WorkshopId(), DateTimeOffset.UtcNow);
        var device = new BenchDevice(server, "tablet that cools");
        await device.Begin();
        await using var db = server.Db();
        var at = await db.Zones.Where(z => z.Name == "Timber").Select(z => new { z.Id, z.DesignId, z.TreatmentId }).FirstAsync(Stop);
        var line = (await Revisions.Layers(db).Where(l => l.TreatmentId == at.TreatmentId && l.Technique == Core.Layers.Technique.BaseCoat).Select(l => l.StepId).ToListAsync(Stop))[0];
        var piece = await db.Pieces.Where(p => p.DesignId == at.DesignId && p.ParentId == null).OrderBy(p => p.Label).Select(p => p.Id).FirstAsync(Stop);
        await device.Tell(device.Event("given", at.Id, line, [piece], 1));
        async Task<double> Dries()
        {
            var wet = (await server.Get($"/api/bench/{workshop}"))["wet"]!.AsArray().Single(w => w!["pieceId"]!.GetValue<Guid>() == piece && w["layerId"]!.GetValue<Guid>() == line)!;
            return (wet["readyAt"]!.GetValue<DateTimeOffset>() - wet["doneAt"]!.GetValue<DateTimeOffset>()).TotalMinutes;
        }

        // Typed are 17 °C and 62 %; measured is a room five degrees colder, as damp: 2^(5/10) as long.
        var typed = await Dries();
        var (secret, id) = await TakenIn("Cold sensor");
        var play = new StandInClimate(3);
        var (_, told) = await Say(secret, Enumerable.Range(0, 20).Select(m => Word(play.Cooling(now.AddMinutes(m - 20), now.AddHours(-2), 12, 0, 0.62))).ToArray());
        Assert.Equal(20, told["taken"]!.GetValue<int>());
        Assert.InRange(await Dries() / typed, Math.Sqrt(2) * 0.98, Math.Sqrt(2) * 1.02);
        Assert.Equal("Cold sensor", (await Now())["air"]!.Text("by"));
        await SendAway(id);
        Assert.Equal(typed, await Dries(), 0.1);
        Assert.Equal("", (await Now())["air"]!.Text("by"));
    }

    [Fact]
    public async Task One_that_falls_silent_or_talks_nonsense_is_told_of_and_ignored()
    {
        var (secret, id) = await TakenIn("Loose sensor");
        var (_, told) = await Say(secret, new { temperatureC = 18.0, relativeHumidity = 0.5 }, new { temperatureC = 300.0, relativeHumidity = 0.5 }, new { temperatureC = 19.0, relativeHumidity = 0.5 });
        Assert.Equal((2, 1), (told["taken"]!.GetValue<int>(), told["refused"]!.GetValue<int>()));
        var now = await Now();
        Assert.Equal(18.5, now["air"]!["temperatureC"]!.GetValue<double>());
        Assert.Contains("300 °C", Assert.Single(now["troubles"]!.AsArray())!.Text("says"));

        // Twenty minutes later nothing has come.
        await using var db = server.Db();
        await db.Database.ExecuteSqlAsync($"update readings set at = at - interval '20 minutes' where device_id = {id}", Stop);
        await db.Database.ExecuteSqlAsync($"update paired_devices set trouble_at = trouble_at - interval '20 minutes' where id = {id}", Stop);
        now = await Now();
        Assert.Equal("", now["air"]!.Text("by"));
        Assert.Equal(17, now["air"]!["temperatureC"]!.GetValue<double>());
        Assert.Contains("silent", Assert.Single(now["troubles"]!.AsArray())!.Text("says"));
        await SendAway(id);
        Assert.Empty((await Now())["troubles"]!.AsArray());
    }

    [Fact]
    public async Task Damp_air_warns_of_sprayed_matt_varnish()
    {
        var workshop = await server.WorkshopId();
        await using var db = server.Db();
        var matt = await (
            from z in db.Zones
            join l in Revisions.Layers(db) on z.TreatmentId equals l.TreatmentId
            where l.Technique == Core.Layers.Technique.Varnish && (l.Tool == Core.Layers.Tool.Airbrush || l.Tool == Core.Layers.Tool.SprayCan)
            select new { z.Id, LineId = l.StepId }).ToListAsync(Stop);
        Assert.NotEmpty(matt);
        async Task<int> Warned()
        {
            var warned = 0;
            foreach (var m in matt)
                warned += (await server.Get($"/api/bench/{workshop}/task?zoneId={m.Id}&layerId={m.LineId}"))["watch"]!.AsArray().Count(w => w!.GetValue<string>().Contains("damp now", StringComparison.Ordinal));
            return warned;
        }

        Assert.Equal(0, await Warned());
        var (secret, id) = await TakenIn("Damp sensor");
        await Say(secret, new { temperatureC = 17.0, relativeHumidity = 0.78 });
        Assert.True(await Warned() > 0);
        await SendAway(id);
    }

    [Fact]
    public async Task A_scale_says_what_lies_on_it_once_it_is_at_rest_and_what_is_still_to_pour()
    {
        var (workshop, since) = (await server.WorkshopId(), DateTimeOffset.UtcNow.AddSeconds(-4));
        var (secret, id) = await TakenIn("Pot scale");
        var scale = new StandInScale(5);
        await Say(secret, Enumerable.Range(0, 20).Select(i => (object)new { at = since.AddSeconds(i * 0.2), grams = scale.At(since, TimeSpan.FromSeconds(i * 0.2), i < 10 ? i : 14.4).Grams }).ToArray());
        var lies = (await Now())["scale"]!;
        Assert.True(lies["atRest"]!.GetValue<bool>());
        Assert.Equal(14.4, lies["grams"]!.GetValue<double>(), 0.02);
        await using var db = server.Db();
        var two = await db.Materials.Where(m => m.WorkshopId == workshop && m.Kind == Core.Materials.MaterialKind.Paint).OrderBy(m => m.Name).Take(2).Select(m => new { m.Id, m.DropMl, m.DensityGPerMl, m.Carrier, m.Kind }).ToListAsync(Stop);
        var grams = (double)(two[0].DropMl ?? 0.05m) * 10 * (double)(two[0].DensityGPerMl ?? Core.Mixing.Measures.UsualMeasures.UsualDensity(two[0].Kind, two[0].Carrier));
        var (status, says) = await server.Send(HttpMethod.Post, $"/api/instruments/{workshop}/pour", new { ml = (double)(two[0].DropMl ?? 0.05m) * 30, parts = new object[] { new { materialId = two[0].Id, parts = 2, grams }, new { materialId = two[1].Id, parts = 1, grams = 0 } } });
        Assert.True(status == 200, says.ToJsonString());
        Assert.Equal((two[0].Id, 10), (says["nextId"]!.GetValue<Guid>(), says["drops"]!.GetValue<int>()));
        Assert.Equal(10, says["poured"]![0]!["drops"]!.GetValue<double>());
        var (bad, why) = await server.Send(HttpMethod.Post, $"/api/instruments/{workshop}/pour", new { ml = 0, parts = new object[] { new { materialId = Guid.NewGuid(), parts = -1 } } });
        Assert.Equal(400, bad);
        Assert.Superset(new HashSet<string> { "ml", "parts[0].materialId", "parts[0].parts" }, why.Fields().ToHashSet());
        await SendAway(id);
    }

    [Fact]
    public async Task Readings_thin_out_with_age()
    {
        var (_, id) = await TakenIn("Old sensor");
        var (workshop, now) = (await server.WorkshopId(), new DateTimeOffset(2025, 11, 20, 12, 0, 0, TimeSpan.Zero));
        await using var db = server.Db();
        async Task Add(TimeSpan ago, int count, int secondsApart, bool weights = false)
        {
            for (var i = 0; i < count; i++)
                db.Add(new ReadingRow { WorkshopId = workshop, DeviceId = id, At = now - ago + TimeSpan.FromSeconds(i * secondsApart), TemperatureC = weights ? null : 20, RelativeHumidity = weights ? null : 0.5, Grams = weights ? 1 : null });
            await db.SaveChangesAsync(Stop);
        }

        await Add(TimeSpan.FromHours(1), 60, 60);
        await Add(TimeSpan.FromDays(3), 60, 60);
        await Add(TimeSpan.FromDays(100), 120, 60);
        await Add(TimeSpan.FromDays(2), 50, 1, weights: true);
        await OldReadings.Prune(db, now, Stop);
        Task<int> Left(double fromDays, double toDays) => db.Readings.CountAsync(r => r.DeviceId == id && r.At >= now.AddDays(-fromDays) && r.At < now.AddDays(-toDays), Stop);
        Assert.Equal((60, 6, 2), (await Left(1, 0), await Left(4, 2.5), await Left(101, 99)));
        Assert.False(await db.Readings.AnyAsync(r => r.DeviceId == id && r.Grams != null, Stop));
    }
}
