using System.Net.Http.Json;

namespace Lowfell.Server.Tests;

public sealed class GuardTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private static object Film => new { paint = "#d8cfc0", hiding = 1, coats = 1, ground = "#3c4a2e" };

    private async Task<HttpResponseMessage> Send(Action<HttpRequestMessage> dress)
    {
        using var request = new HttpRequestMessage(HttpMethod.Post, "/api/calc/film") { Content = JsonContent.Create(Film) };
        dress(request);
        return await server.Http.SendAsync(request, TestContext.Current.CancellationToken);
    }

    [Theory]
    [InlineData("elsewhere.invalid", 403)]
    [InlineData("127.0.0.1.elsewhere.invalid", 403)]
    [InlineData("localhost", 200)]
    public async Task Only_its_own_names_are_answered(string host, int status)
    {
        using var answer = await Send(r => r.Headers.Host = host);
        Assert.Equal(status, (int)answer.StatusCode);
    }

    [Fact]
    public async Task Other_origins_may_not_write()
    {
        using var foreign = await Send(r => r.Headers.Add("Origin", "http://elsewhere.invalid"));
        Assert.Equal(403, (int)foreign.StatusCode);
        using var otherPort = await Send(r => r.Headers.Add("Origin", "http://127.0.0.1:1"));
        Assert.Equal(403, (int)otherPort.StatusCode);
        using var crossSite = await Send(r => r.Headers.Add("Sec-Fetch-Site", "cross-site"));
        Assert.Equal(403, (int)crossSite.StatusCode);
        using var own = await Send(r => r.Headers.Add("Origin", server.Http.BaseAddress!.GetLeftPart(UriPartial.Authority)));
        Assert.Equal(200, (int)own.StatusCode);
    }

    [Fact]
    public async Task Forms_of_other_sites_cannot_pose_as_json()
    {
        using var answer = await Send(r => r.Content = new StringContent("paint=1", System.Text.Encoding.UTF8, "text/plain"));
        Assert.Equal(415, (int)answer.StatusCode);
    }

    [Fact]
    public async Task Every_answer_carries_a_strict_content_policy()
    {
        using var answer = await server.Http.GetAsync("/health", TestContext.Current.CancellationToken);
        var policy = Assert.Single(answer.Headers.GetValues("Content-Security-Policy"));
        Assert.Contains("default-src 'none'", policy);
        Assert.DoesNotContain("unsafe", policy);
        Assert.Equal("nosniff", Assert.Single(answer.Headers.GetValues("X-Content-Type-Options")));
    }

    [Fact]
    public async Task The_api_describes_itself_in_the_words_of_the_field()
    {
        var document = await server.Get("/openapi/v1.json");
        Assert.NotNull(document["paths"]!["/api/calc/mix"]);
        var techniques = document["components"]!["schemas"]!["Technique"]!["enum"]!.AsArray().Select(t => t!.GetValue<string>()).ToList();
        Assert.Contains("all-over wash", techniques);
        Assert.Contains("clean up excess", techniques);
    }
}
