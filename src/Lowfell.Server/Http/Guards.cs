using System.Globalization;
using System.Net;
using System.Security.Cryptography;

namespace Lowfell.Server.Http;

/// <summary>Keeps other sites and other machines out: the server is for this machine's own pages.</summary>
public static class Guards
{
    private static readonly HashSet<string> ownHosts = new(StringComparer.OrdinalIgnoreCase) { "127.0.0.1", "localhost", "[::1]" };

    // No inline script anywhere. The one style element the page makes itself, which holds the scroll while a dialog is open,
    // carries the nonce of its page; drawings are SVG elements, colours are set through the object model.
    private const string Policy =
        "default-src 'none'; script-src 'self'; style-src 'self' 'nonce-{0}'; font-src 'self'; img-src 'self' data: blob:; connect-src 'self'; "
        + "manifest-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'";

    /// <summary>The nonce that this answer's content policy names.</summary>
    public static string Nonce(this HttpContext http) => (string)http.Items[nameof(Nonce)]!;

    public static void UseGuards(this WebApplication app) => app.Use(async (http, next) =>
    {
        var headers = http.Response.Headers;
        var nonce = Convert.ToHexStringLower(RandomNumberGenerator.GetBytes(16));
        http.Items[nameof(Nonce)] = nonce;
        headers.ContentSecurityPolicy = string.Format(CultureInfo.InvariantCulture, Policy, nonce);
        headers.XContentTypeOptions = "nosniff";
        headers["Referrer-Policy"] = "no-referrer";
        headers["Cross-Origin-Opener-Policy"] = "same-origin";
        headers["Cross-Origin-Resource-Policy"] = "same-origin";
        if (!IsOwn(http))
        {
            await Problems.Of(StatusCodes.Status403Forbidden, "wrong-host", "Open Lowfell by its own address on this machine.").ExecuteAsync(http);
            return;
        }

        if (IsWrite(http.Request) && !FromHere(http.Request))
        {
            await Problems.Of(StatusCodes.Status403Forbidden, "wrong-origin", "Another site tried to change something here; it was refused.").ExecuteAsync(http);
            return;
        }

        await next(http);
    });

    /// <summary>By one of this machine's own names; what comes in encrypted, by the very address it came in at.</summary>
    private static bool IsOwn(HttpContext http) => http.Request.IsHttps
        ? IPAddress.TryParse(http.Request.Host.Host, out var named) && http.Connection.LocalIpAddress is { } at && named.Equals(at.IsIPv4MappedToIPv6 ? at.MapToIPv4() : at)
        : ownHosts.Contains(http.Request.Host.Host);

    private static bool IsWrite(HttpRequest request) => !HttpMethods.IsGet(request.Method) && !HttpMethods.IsHead(request.Method);

    private static bool FromHere(HttpRequest request)
    {
        var origin = request.Headers.Origin.ToString();
        if (origin.Length == 0)
            return request.Headers["Sec-Fetch-Site"].ToString() is "" or "same-origin" or "none";
        return Uri.TryCreate(origin, UriKind.Absolute, out var uri) && string.Equals(uri.Authority, request.Host.Value, StringComparison.OrdinalIgnoreCase);
    }
}
