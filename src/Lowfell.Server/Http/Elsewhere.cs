using System.Security.Cryptography;
using System.Text;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Http;

/// <summary>A device that was taken in and not sent away: whose it is and what it may do.</summary>
internal sealed record PairedDevice(Guid Id, Guid WorkshopId, string Name, DeviceRole Role);

/// <summary>Marks an endpoint that other devices reach too, and those of which roles.</summary>
internal sealed record ForDevices(IReadOnlyList<DeviceRole> Roles);

/// <summary>
/// What comes in encrypted comes from another device. Such a device gets the pairing page and nothing else until it is taken in; after
/// that, what its role is for, in its own workshop. Everything else stays on this machine.
/// </summary>
internal static class Elsewhere
{
    public const string Cookie = "lowfell-device", PairPage = "/pair";
    private const string Bearer = "Bearer ";

    /// <summary>The pairing page with its sign, the question it asks, and the authority's certificate; besides these its own assets.</summary>
    private static readonly HashSet<string> open = new(StringComparer.Ordinal) { PairPage, "/mark.svg", "/api/pairing", "/api/pairing/", "/api/pairing/authority.cer" };
    private const string PairAssets = "/assets/pair-";

    /// <summary>How often it is kept when a device was last seen.</summary>
    private static readonly TimeSpan seenEvery = TimeSpan.FromMinutes(1);

    /// <summary>Other devices may come here too, of these roles.</summary>
    public static RouteHandlerBuilder For(this RouteHandlerBuilder route, params DeviceRole[] roles) => route.WithMetadata(new ForDevices(roles));

    /// <summary>The device a request comes from; null for this machine itself.</summary>
    public static PairedDevice? DeviceOf(this HttpContext http) => http.Items[nameof(PairedDevice)] as PairedDevice;

    /// <summary>Whether it is still taken in.</summary>
    public static Task<bool> StillHere(LowfellDb db, PairedDevice device, CancellationToken stop) => db.PairedDevices.AnyAsync(d => d.Id == device.Id && d.SentAwayAt == null, stop);

    /// <summary>SHA-256 of a key or of what a device shows.</summary>
    public static byte[] Hash(string secret) => SHA256.HashData(Encoding.UTF8.GetBytes(secret));

    public static void UseElsewhere(this WebApplication app) => app.Use(async (http, next) =>
    {
        var (request, path) = (http.Request, http.Request.Path.Value ?? "");
        var token = request.Headers.Authorization.ToString() is { } shown && shown.StartsWith(Bearer, StringComparison.Ordinal) ? shown[Bearer.Length..].Trim() : request.IsHttps ? request.Cookies[Cookie] : null;
        if (!request.IsHttps && token is null)
        {
            await next(http);
            return;
        }

        var device = string.IsNullOrEmpty(token) ? null : await Find(http, Hash(token));
        http.Items[nameof(PairedDevice)] = device;
        if (request.IsHttps && !http.RequestServices.GetRequiredService<DoorLimits>().May(http, device))
        {
            await DoorLimits.TooMuch(http).ExecuteAsync(http);
            return;
        }

        if (!request.IsHttps || open.Contains(path) || path.StartsWith(PairAssets, StringComparison.Ordinal) || (device is not null && await May(http, device)))
        {
            await next(http);
            return;
        }

        // Somebody who opens an address is led to where they may be.
        if (HttpMethods.IsGet(request.Method) && request.Headers.Accept.ToString().Contains("text/html", StringComparison.Ordinal))
            http.Response.Redirect(device is { Role: not DeviceRole.Measure } ? $"/bench/{device.WorkshopId}" : PairPage);
        else if (device is null)
            await NotPaired().ExecuteAsync(http);
        else
            await Problems.Of(StatusCodes.Status403Forbidden, "only-there", "This is done on the machine that Lowfell runs on.").ExecuteAsync(http);
    });

    public static Microsoft.AspNetCore.Http.HttpResults.ProblemHttpResult NotPaired() =>
        Problems.Of(StatusCodes.Status401Unauthorized, "not-paired", "This device is not paired, or was sent away. Pair it: on the machine that Lowfell runs on, ask for a key under Bench on another device.");

    private static async Task<PairedDevice?> Find(HttpContext http, byte[] hash)
    {
        var (db, now) = (http.RequestServices.GetRequiredService<LowfellDb>(), http.RequestServices.GetRequiredService<TimeProvider>().GetUtcNow());
        var row = await db.PairedDevices.AsNoTracking().Where(d => d.TokenHash == hash && d.SentAwayAt == null).Select(d => new { Device = new PairedDevice(d.Id, d.WorkshopId, d.Name, d.Role), d.SeenAt }).FirstOrDefaultAsync(http.RequestAborted);
        if (row is not null && (row.SeenAt is null || now - row.SeenAt > seenEvery))
            await db.PairedDevices.Where(d => d.Id == row.Device.Id).ExecuteUpdateAsync(s => s.SetProperty(d => d.SeenAt, now), http.RequestAborted);
        return row?.Device;
    }

    private static async Task<bool> May(HttpContext http, PairedDevice device)
    {
        if (http.GetEndpoint() is not { } endpoint)
            return device.Role != DeviceRole.Measure && (HttpMethods.IsGet(http.Request.Method) || HttpMethods.IsHead(http.Request.Method));
        if (endpoint.Metadata.GetMetadata<ForDevices>()?.Roles.Contains(device.Role) != true)
            return false;

        // Of its own workshop only, under whatever name that stands in the address.
        var values = http.Request.RouteValues;
        if (Id(values, "workshopId") is { } workshop && workshop != device.WorkshopId)
            return false;
        return Id(values, "setId") is not { } set || await http.RequestServices.GetRequiredService<LowfellDb>().Sets.AnyAsync(s => s.Id == set && s.WorkshopId == device.WorkshopId, http.RequestAborted);
    }

    private static Guid? Id(RouteValueDictionary values, string name) => Guid.TryParse(values[name]?.ToString(), out var id) ? id : null;
}
