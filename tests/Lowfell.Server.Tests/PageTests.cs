using System.IO.Compression;
using System.Net;
using System.Net.Http.Headers;
using System.Text.RegularExpressions;

namespace Lowfell.Server.Tests;

/// <summary>The built page: what is sent of it for which address, how small, and for how long it may be kept.</summary>
public sealed partial class PageTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    private async Task<string> Open(string path) => await server.Http.GetStringAsync(path, Stop);

    private static List<string> Ahead(string page) => [.. FetchedAhead().Matches(page).Select(m => m.Groups["view"].Value).Distinct()];

    [Theory]
    [InlineData("/", "plan")]
    [InlineData("/plan/0198a3c2-0000-7000-8000-000000000001", "plan")]
    [InlineData("/plan/0198a3c2-0000-7000-8000-000000000001/0198a3c2-0000-7000-8000-000000000002?tab=colour", "plan")]
    [InlineData("/remarks/0198a3c2-0000-7000-8000-000000000001", "remarks")]
    [InlineData("/table/0198a3c2-0000-7000-8000-000000000001", "table")]
    [InlineData("/shelf/0198a3c2-0000-7000-8000-000000000001", "shelf")]
    [InlineData("/stock/0198a3c2-0000-7000-8000-000000000001", "stock")]
    [InlineData("/pots/0198a3c2-0000-7000-8000-000000000001", "pots")]
    [InlineData("/start/new", "start")]
    [InlineData("/house/0198a3c2-0000-7000-8000-000000000001", "house")]
    public async Task Of_the_bundles_only_those_of_the_view_that_is_opened_are_fetched_ahead(string path, string view) =>
        Assert.Equal([view], Ahead(await Open(path)));

    [Theory]
    [InlineData("/no-such-place")]
    [InlineData("/planet/x")]
    public async Task An_address_that_leads_nowhere_opens_the_page_and_fetches_nothing_ahead(string path) => Assert.Empty(Ahead(await Open(path)));

    [Fact]
    public async Task Every_bundle_the_page_names_is_there_and_may_be_kept_for_good()
    {
        var named = Asset().Matches(string.Concat(await Open("/"), await Open("/pots/x"), await Open("/start/new"))).Select(m => m.Value).Distinct().ToList();
        Assert.True(named.Count > 10, string.Join(", ", named));
        foreach (var asset in named)
        {
            using var answer = await server.Http.GetAsync(asset, Stop);
            Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
            Assert.Contains("immutable", string.Join(", ", answer.Headers.GetValues("Cache-Control")), StringComparison.Ordinal);
            Assert.Equal(TimeSpan.FromDays(365), answer.Headers.CacheControl!.MaxAge);
            Assert.Contains("Accept-Encoding", answer.Headers.Vary);
        }
    }

    [Theory]
    [InlineData("br", "br")]
    [InlineData("gzip", "gzip")]
    [InlineData("gzip, br", "br")]
    [InlineData("br;q=0, gzip", "gzip")]
    [InlineData("deflate", null)]
    [InlineData("", null)]
    public async Task An_asset_comes_as_small_as_the_browser_takes_it_and_is_the_same_unpacked(string takes, string? comes)
    {
        var script = Asset().Matches(await Open("/")).Select(m => m.Value).First(a => a.EndsWith(".js", StringComparison.Ordinal));
        var plain = await server.Http.GetByteArrayAsync(script, Stop);
        using var request = new HttpRequestMessage(HttpMethod.Get, script);
        request.Headers.TryAddWithoutValidation("Accept-Encoding", takes);
        using var answer = await server.Http.SendAsync(request, Stop);
        Assert.Equal(comes, answer.Content.Headers.ContentEncoding.SingleOrDefault());
        Assert.Equal("text/javascript", answer.Content.Headers.ContentType!.MediaType);
        await using var body = await answer.Content.ReadAsStreamAsync(Stop);
        await using Stream unpacked = comes switch { "br" => new BrotliStream(body, CompressionMode.Decompress), "gzip" => new GZipStream(body, CompressionMode.Decompress), _ => body };
        using var all = new MemoryStream();
        await unpacked.CopyToAsync(all, Stop);
        Assert.Equal(plain, all.ToArray());
    }

    [Fact]
    public async Task The_page_itself_is_never_kept_and_names_the_nonce_of_its_own_policy()
    {
        using var one = await server.Http.GetAsync("/", Stop);
        using var two = await server.Http.GetAsync("/", Stop);
        Assert.True(one.Headers.CacheControl!.NoStore);
        Assert.Equal(new MediaTypeHeaderValue("text/html", "utf-8"), one.Content.Headers.ContentType);
        var nonces = new List<string>();
        foreach (var answer in new[] { one, two })
        {
            var nonce = Nonce().Match(await answer.Content.ReadAsStringAsync(Stop)).Groups["nonce"].Value;
            Assert.Contains($"'nonce-{nonce}'", answer.Headers.GetValues("Content-Security-Policy").Single(), StringComparison.Ordinal);
            nonces.Add(nonce);
        }

        Assert.NotEqual(nonces[0], nonces[1]);
        Assert.All(nonces, n => Assert.Equal(32, n.Length));
    }

    [Theory]
    [InlineData("/assets/none.js", HttpStatusCode.NotFound)]
    [InlineData("/assets/../appsettings.json", HttpStatusCode.NotFound)]
    [InlineData("/api/nothing", HttpStatusCode.NotFound)]
    [InlineData("/plan.txt", HttpStatusCode.NotFound)]
    public async Task What_is_not_there_is_not_answered_with_the_page(string path, HttpStatusCode status)
    {
        using var answer = await server.Http.GetAsync(path, Stop);
        Assert.Equal(status, answer.StatusCode);
        Assert.NotEqual("text/html", answer.Content.Headers.ContentType?.MediaType);
    }

    [Theory]
    [InlineData("POST")]
    [InlineData("DELETE")]
    public async Task The_page_is_only_for_reading(string method)
    {
        using var request = new HttpRequestMessage(new HttpMethod(method), "/plan/x");
        using var answer = await server.Http.SendAsync(request, Stop);
        Assert.Equal(HttpStatusCode.MethodNotAllowed, answer.StatusCode);
    }

    [GeneratedRegex("""<link rel="modulepreload"[^>]* data-view="(?<view>\w+)">""")]
    private static partial Regex FetchedAhead();

    [GeneratedRegex("""/assets/[\w.-]+\.(js|css)""")]
    private static partial Regex Asset();

    [GeneratedRegex("""name="lowfell-nonce" content="(?<nonce>\w+)""")]
    private static partial Regex Nonce();
}
