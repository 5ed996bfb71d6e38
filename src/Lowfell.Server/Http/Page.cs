using System.Text.RegularExpressions;
using Lowfell.Core.Words;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Routing;
using Microsoft.AspNetCore.StaticFiles;

namespace Lowfell.Server.Http;

/// <summary>Serves the built page; every address that is not the API's opens it, so that links into views work.</summary>
internal static partial class Page
{
    public static void MapPage(this WebApplication app)
    {
        app.Use(Choose);
        app.UseStaticFiles(new StaticFileOptions { ContentTypeProvider = new PrecompressedTypes(), OnPrepareResponse = Dress });

        // Reading only: otherwise a wrong content type sent to the API would end here as "not found".
        var reading = new HttpMethodMetadata([HttpMethods.Get, HttpMethods.Head]);
        app.MapFallback("/", Open).WithMetadata(reading).ExcludeFromDescription();
        app.MapFallback("/{**path:nonfile:regex(^(?!api/|openapi/).*$)}", Open).WithMetadata(reading).ExcludeFromDescription();

        // The one view that other devices get, and the page they are taken in by.
        app.MapGet("/bench/{workshopId:guid}", Open).For(DeviceRole.Look, DeviceRole.Work).ExcludeFromDescription();
        app.MapGet(Elsewhere.PairPage, (HttpContext http, IWebHostEnvironment host) => Send("pair.html", http, host)).ExcludeFromDescription();
    }

    private static readonly (string Coding, string Ending)[] codings = [("br", ".br"), ("gzip", ".gz")];

    /// <summary>Takes the compressed form of an asset that the build left beside it, where the browser takes it.</summary>
    private static Task Choose(HttpContext http, RequestDelegate next)
    {
        if (http.Request.Path.StartsWithSegments("/assets"))
        {
            http.Response.Headers.Vary = "Accept-Encoding";
            var files = http.RequestServices.GetRequiredService<IWebHostEnvironment>().WebRootFileProvider;
            var accepted = http.Request.GetTypedHeaders().AcceptEncoding.Where(e => e.Quality is not 0).Select(e => e.Value.ToString()).ToHashSet(StringComparer.OrdinalIgnoreCase);
            foreach (var (coding, ending) in codings)
            {
                if (!accepted.Contains(coding) || !files.GetFileInfo(http.Request.Path + ending).Exists)
                    continue;
                http.Request.Path += ending;
                break;
            }
        }

        return next(http);
    }

    /// <summary>Assets are named by their content: what was fetched once stays.</summary>
    private static void Dress(StaticFileResponseContext file)
    {
        var headers = file.Context.Response.Headers;
        headers.CacheControl = file.Context.Request.Path.StartsWithSegments("/assets") ? "public, max-age=31536000, immutable" : "no-cache";
        foreach (var (coding, ending) in codings)
            if (file.File.Name.EndsWith(ending, StringComparison.Ordinal))
                headers.ContentEncoding = coding;
    }

    private sealed class PrecompressedTypes : IContentTypeProvider
    {
        private readonly FileExtensionContentTypeProvider usual = new();

        public bool TryGetContentType(string subpath, [System.Diagnostics.CodeAnalysis.MaybeNullWhen(false)] out string contentType)
        {
            foreach (var (_, ending) in codings)
                if (subpath.EndsWith(ending, StringComparison.Ordinal))
                    subpath = subpath[..^ending.Length];
            return usual.TryGetContentType(subpath, out contentType);
        }
    }

    private static Task<IResult> Open(HttpContext http, IWebHostEnvironment host) => Send("index.html", http, host);

    private static async Task<IResult> Send(string name, HttpContext http, IWebHostEnvironment host)
    {
        var file = host.WebRootFileProvider.GetFileInfo(name);
        if (!file.Exists)
            return Problems.Of(StatusCodes.Status503ServiceUnavailable, "not-built", "The page has not been built. Start Lowfell with ./lowfell start.");
        await using var stream = file.CreateReadStream();
        using var reader = new StreamReader(stream);
        http.Response.Headers.CacheControl = "no-store";
        var page = OnlyItsOwn(await reader.ReadToEndAsync(http.RequestAborted), http.Request.Path);
        var role = http.DeviceOf() is { } device ? EnumWords.Of(device.Role) : "";
        return Results.Text(page.Replace(NoncePlace, http.Nonce(), StringComparison.Ordinal).Replace(RolePlace, role, StringComparison.Ordinal), "text/html; charset=utf-8");
    }

    /// <summary>Of the bundles that the page names to be fetched ahead, those of the view that is opened; a bare address opens the plan.</summary>
    private static string OnlyItsOwn(string page, PathString path)
    {
        var view = path.Value!.Split('/') is [_, { Length: > 0 } first, ..] ? first : "plan";
        return FetchedAhead().Replace(page, link => link.Groups["view"].Value == view ? link.Value : "");
    }

    [GeneratedRegex("""<link rel="modulepreload"[^>]* data-view="(?<view>\w+)">\s*""")]
    private static partial Regex FetchedAhead();

    /// <summary>What this answer's content policy names, and what the device that asks may do; nothing for this machine itself.</summary>
    private const string NoncePlace = "__nonce__", RolePlace = "__role__";
}
