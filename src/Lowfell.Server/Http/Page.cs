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
        app.MapFallbackToFile("/", "index.html");
        app.MapFallbackToFile("/{**path:nonfile:regex(^(?!api/|openapi/).*$)}", "index.html");
    }
}
