using System.Globalization;
using System.Text.Json.Nodes;

namespace Lowfell.Server.Tests;

/// <summary>Two windows at work on the same thing.</summary>
public sealed class TwoWritersTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    /// <summary>Two windows that change one set by chance, a thousand times: no fault of the store is seen, and what was said to be stored is.</summary>
    [Fact]
    public async Task Two_writers_at_random_lose_nothing_silently()
    {
        var set = await server.SetId();
        var random = new Random(12);
        var stored = new Dictionary<string, string>();
        var gate = new Lock();
        async Task Write(string device, int seed)
        {
            var own = new Random(seed);
            var painter = new Painter(server, seed, device);
            await painter.Begin();
            var version = (await painter.Sheet(set))["version"]!.Copy();
            for (var i = 0; i < 500; i++)
            {
                // Each has fields of its own, and one that both want; the version is the one this window saw last.
                var (field, value) = own.Next(3) switch
                {
                    0 => (device == "one" ? "handling" : "targetSheen", device == "one" ? (own.Next(2) == 0 ? "display" : "careful") : (own.Next(2) == 0 ? "matt" : "satin")),
                    1 => (device == "one" ? "tableMetres" : "reserveMl", $"{own.Next(1, 9)}"),
                    _ => ("name", $"Sluice {device} {i}"),
                };
                var body = new JsonObject { ["version"] = version.Copy(), [field] = decimal.TryParse(value, CultureInfo.InvariantCulture, out var number) ? JsonValue.Create(number) : JsonValue.Create(value) };
                var (status, problem) = await painter.Send(HttpMethod.Put, $"/api/sets/{set}", body);
                if (status == 200)
                {
                    version = problem["version"]!.Copy();
                    if (field != "name")
                        lock (gate)
                            stored[field] = value;
                }
                else if (status == 409)
                    version = problem["current"]!["version"]!.Copy();
                if (status != 200)
                    Assert.True(status == 409 && problem.Text("code") == "changed-elsewhere" && field == "name", problem.ToJsonString());
            }
        }

        await Task.WhenAll(Write("one", random.Next()), Write("two", random.Next()));
        var now = await server.Get($"/api/sets/{set}");
        Assert.All(stored, s => Assert.True(now[s.Key]!.ToString() == s.Value || (decimal.TryParse(now[s.Key]!.ToString(), CultureInfo.InvariantCulture, out var n) && n == decimal.Parse(s.Value, CultureInfo.InvariantCulture)), $"{s.Key} is {now[s.Key]}, stored was {s.Value}"));
    }
}
