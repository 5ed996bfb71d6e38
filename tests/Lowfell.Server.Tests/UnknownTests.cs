using System.Net;
using System.Text.Json.Nodes;
using System.Text.RegularExpressions;

namespace Lowfell.Server.Tests;

/// <summary>Everything that can be read of a thing says so when there is no such thing.</summary>
public sealed partial class UnknownTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    [GeneratedRegex(@"\{[^}]+\}")]
    private static partial Regex Part();

    [Fact]
    public async Task What_is_of_nothing_is_not_found()
    {
        var paths = (await server.Get("/openapi/v1.json"))["paths"]!.AsObject().Where(p => p.Value!["get"] is not null && p.Key.Contains("Id}", StringComparison.Ordinal)).Select(p => p.Key).ToList();
        Assert.True(paths.Count > 40, $"{paths.Count}");
        var found = new List<string>();
        foreach (var path in paths)
        {
            var asked = Part().Replace(path, m => m.Value == "{number}" ? "1" : $"{Guid.NewGuid()}");
            using var answer = await server.Http.GetAsync(asked + Needed(path), TestContext.Current.CancellationToken);
            if (answer.StatusCode != HttpStatusCode.NotFound || JsonNode.Parse(await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken))!.Text("code") != "not-found")
                found.Add($"{path} {(int)answer.StatusCode} {await answer.Content.ReadAsStringAsync(TestContext.Current.CancellationToken)}");
        }

        Assert.Empty(found.Select(f => f[..Math.Min(f.Length, 200)]));
    }

    /// <summary>What has to be asked with.</summary>
    private static string Needed(string path) => path switch
    {
        "/api/search/{workshopId}" => "?q=rust",
        "/api/sessions/{workshopId}/late" => "?minutes=30",
        "/api/pots/{setId}/advice" => "?key=any",
        _ => $"?zoneId={Guid.NewGuid()}&layerId={Guid.NewGuid()}",
    };
}
