using Microsoft.AspNetCore.Routing;

namespace Lowfell.Server.Http;

/// <summary>Serves the built page; every address that is not the API's opens it, so that links into views work.</summary>
internal static class Page
{
    public static void MapPage(this WebApplication app)
    {
        app.UseStaticFiles(new StaticFileOptions
        {
            OnPrepareResponse = static file => file.Context.Response.Headers.CacheControl =
                file.Context.Request.Path.StartsWithSegments("/assets") ? "public, max-age=31536000, immutable" : "no-cache",
        });
        // Reading only: otherwise a wrong content type sent to the API would end here as "not found".
        var reading = new HttpMethodMetadata([HttpMethods.Get, HttpMethods.Head]);
        app.MapFallback("/", Open).WithMetadata(reading).ExcludeFromDescription();
        app.MapFallback("/{**path:nonfile:regex(^(?!api/|openapi/).*$)}", Open).WithMetadata(reading).ExcludeFromDescription();
    }

    private static async Task<IResult> Open(HttpContext http, IWebHostEnvironment host)
    {
        var file = host.WebRootFileProvider.GetFileInfo("index.html");
        if (!file.Exists)
            return Problems.Of(StatusCodes.Status503ServiceUnavailable, "not-built", "The page has not been built. Start Lowfell with ./lowfell start.");
        await using var stream = file.CreateReadStream();
        using var reader = new StreamReader(stream);
        http.Response.Headers.CacheControl = "no-store";
        return Results.Text((await reader.ReadToEndAsync(http.RequestAborted)).Replace(NoncePlace, http.Nonce(), StringComparison.Ordinal), "text/html; charset=utf-8");
    }

    private const string NoncePlace = "__nonce__";
}
