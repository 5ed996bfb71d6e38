using System.Text.Json.Nodes;
using Microsoft.Extensions.DependencyInjection;

namespace Lowfell.Server.Tests;

/// <summary>Clocks go back: in autumn, after a flat battery, on a tablet that never had the time. What happened first stays first.</summary>
public sealed class ClockTests(LowfellServer server) : PotDesk(server), IClassFixture<LowfellServer>
{
    [Fact]
    public async Task With_a_clock_that_goes_back_undo_takes_back_what_was_done_last()
    {
        var clock = new Clock(new DateTimeOffset(2026, 11, 20, 20, 0, 0, TimeSpan.Zero));
        var (late, http) = Server.Start(s => s.AddSingleton<TimeProvider>(clock));
        await using var _ = late;
        async Task<JsonNode> Send(string path, object body)
        {
            using var request = new HttpRequestMessage(HttpMethod.Post, path) { Content = System.Net.Http.Json.JsonContent.Create(body) };
            request.Headers.Add("Idempotency-Key", Guid.NewGuid().ToString());
            using var answer = await http.SendAsync(request, Stop);
            var said = JsonNode.Parse(await answer.Content.ReadAsStringAsync(Stop))!;
            Assert.True(answer.IsSuccessStatusCode, said.ToJsonString());
            return said;
        }

        var (root, mud) = (await Root(), await Material("Mud Dark"));
        var pot = await Send(root, new { id = Guid.NewGuid(), eventId = Guid.NewGuid(), label = "Before the hour changed", vessel = "jar", amounts = new[] { new { materialId = mud, ml = 2m } } });
        async Task Add(decimal ml) => pot = await Send($"{root}/{pot["id"]}/top-up", new { id = Guid.NewGuid(), version = pot["version"]!.GetValue<uint>(), amounts = new[] { new { materialId = mud, ml } } });
        await Add(1);
        clock.Now = clock.Now.AddHours(-3);
        await Add(0.5m);
        clock.Now = clock.Now.AddDays(-40);
        await Add(0.25m);
        Assert.Equal(3.75m, Ml(pot));
        var told = (await Server.Get($"{root}/{pot["id"]}"))["events"]!.AsArray().Select(e => e!["at"]!.GetValue<DateTimeOffset>()).ToList();
        Assert.Equal(told.Order(), told);
        decimal[] after = [3.5m, 3m, 2m];
        foreach (var ml in after)
        {
            var newest = (await Server.Get($"{root}/{pot["id"]}"))["events"]!.AsArray().Single(e => e!["canTakeBack"]!.GetValue<bool>())!;
            pot = await Send($"{root}/{pot["id"]}/events/{newest["id"]}/take-back", new { id = Guid.NewGuid(), version = pot["version"]!.GetValue<uint>() });
            Assert.Equal(ml, Ml(pot));
        }
    }
}
