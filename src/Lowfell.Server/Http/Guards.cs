namespace Lowfell.Server.Http;

/// <summary>Keeps other sites and other machines out: the server is for this machine's own pages.</summary>
public static class Guards
{
    private static readonly HashSet<string> ownHosts = new(StringComparer.OrdinalIgnoreCase) { "127.0.0.1", "localhost", "[::1]" };

    // No inline script or style anywhere; drawings are SVG elements, colours are set through the object model.
    private const string Policy =
        "default-src 'none'; script-src 'self'; style-src 'self'; font-src 'self'; img-src 'self' data: blob:; connect-src 'self'; "
        + "manifest-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'";

    public static void UseGuards(this WebApplication app) => app.Use(async (http, next) =>
    {
        var headers = http.Response.Headers;
        headers.ContentSecurityPolicy = Policy;
        headers.XContentTypeOptions = "nosniff";
        headers["Referrer-Policy"] = "no-referrer";
        headers["Cross-Origin-Opener-Policy"] = "same-origin";
        headers["Cross-Origin-Resource-Policy"] = "same-origin";
        if (!ownHosts.Contains(http.Request.Host.Host))
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

    private static bool IsWrite(HttpRequest request) => !HttpMethods.IsGet(request.Method) && !HttpMethods.IsHead(request.Method);

    private static bool FromHere(HttpRequest request)
    {
        var origin = request.Headers.Origin.ToString();
        if (origin.Length == 0)
            return request.Headers["Sec-Fetch-Site"].ToString() is "" or "same-origin" or "none";
        return Uri.TryCreate(origin, UriKind.Absolute, out var uri) && string.Equals(uri.Authority, request.Host.Value, StringComparison.OrdinalIgnoreCase);
    }
}
