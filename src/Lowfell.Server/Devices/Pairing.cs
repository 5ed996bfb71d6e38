using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Devices;

/// <summary>Taking a device in: it shows a key once, and its own secret from then on.</summary>
public static class Pairing
{
    /// <summary>How long a key can be used.</summary>
    public static readonly TimeSpan Good = TimeSpan.FromMinutes(5);

    /// <summary>Letters that are not taken for one another, in print or aloud.</summary>
    private const string Letters = "ABCDEFGHJKLMNPQRSTUVWXYZ23456789";
    private const int KeyLength = 12, GroupLength = 4, LongestName = 60, ShortestSecret = 32, LongestSecret = 200;

    public static void MapPairing(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/pairing").WithTags("Devices");
        group.MapPost("/", Pair).WithName("pair").WithSummary("Takes a device in that shows a key.").AddEndpointFilter(KeepSecret).Writes<Paired>().WithMetadata(new PairingAttempt());
        group.MapGet("/authority.cer", async (Certificates certificates, CancellationToken stop) =>
            (await certificates.State(stop)).Certificate is { } bare ? Results.Bytes(bare, "application/x-x509-ca-cert", "lowfell-authority.cer") : Problems.NotFound("certificate")).WithName("authority").WithSummary("The certificate of the workshop's own authority, for devices that are to trust it.").Produces(200, contentType: "application/x-x509-ca-cert").ProducesProblem(404);
    }

    /// <summary>
    /// The key that a write makes: sixty bits, good for five minutes. It is worked out from what nobody else has, so that it can be told again and
    /// stands nowhere.
    /// </summary>
    internal static string KeyOf(OwnSecret secret, Guid id) => string.Concat(secret.Derived($"pairing key {id}").Take(KeyLength).Select(b => Letters[b % Letters.Length]));

    internal static string InGroups(string key) => string.Join('-', key.Chunk(GroupLength).Select(g => new string(g)));

    /// <summary>A browser shows its secret by a cookie that no script can read.</summary>
    private static async ValueTask<object?> KeepSecret(EndpointFilterInvocationContext invocation, EndpointFilterDelegate next)
    {
        var answer = await next(invocation);
        var http = invocation.HttpContext;
        if (http.Request.IsHttps && invocation.Arguments.OfType<PairIn>().First().Secret is { } secret && answer is IStatusCodeHttpResult { StatusCode: StatusCodes.Status200OK })
            http.Response.Cookies.Append(Elsewhere.Cookie, secret, new CookieOptions { HttpOnly = true, Secure = true, SameSite = SameSiteMode.Strict, MaxAge = TimeSpan.FromDays(365), Path = "/" });
        return answer;
    }

    private static async Task<Outcome<Paired>> Pair(PairIn entry, Write write)
    {
        var faults = new Faults();
        faults.Text(entry.Key, "key", 100);
        faults.Text(entry.Name, "name", LongestName);
        faults.Require(entry.Secret is { Length: >= ShortestSecret and <= LongestSecret } secret && secret.All(char.IsAsciiLetterOrDigit), "secret", $"Make up a secret of {ShortestSecret} to {LongestSecret} letters and digits, by chance.");
        if (faults.Any)
            return faults.ToProblem();
        var (hash, shown) = (Elsewhere.Hash(string.Concat(entry.Key!.ToUpperInvariant().Where(char.IsAsciiLetterOrDigit))), Elsewhere.Hash(entry.Secret!));

        // Of two devices that show one key at once, one waits here and then finds it used up.
        await write.Db.Database.ExecuteSqlAsync($"select 1 from pairing_keys where key_hash = {hash} for update", write.Stop);
        if (await write.Db.PairingKeys.FirstOrDefaultAsync(k => k.KeyHash == hash, write.Stop) is not { } key || (key.GoodUntil <= write.Now && key.DeviceId is null))
            return NoGood("This key is wrong, or older than five minutes. Ask for a new one on the machine that Lowfell runs on.");
        if (key.DeviceId is { } used)
            return await write.Db.PairedDevices.FirstAsync(d => d.Id == used, write.Stop) is { SentAwayAt: null } same && same.TokenHash.AsSpan().SequenceEqual(shown)
                ? new Paired(same.Id, same.WorkshopId, same.Role) : NoGood("This key was used already. Ask for a new one on the machine that Lowfell runs on.");
        if (await write.Db.PairedDevices.AnyAsync(d => d.TokenHash == shown, write.Stop))
            return Faults.One("secret", "Make up another secret: this one is used.");
        write.In(key.WorkshopId);
        var device = new PairedDeviceRow { WorkshopId = key.WorkshopId, Name = entry.Name!.Trim(), Role = key.Role, TokenHash = shown, PairedAt = write.Now, SeenAt = write.Now };
        write.Db.Add(device);
        await write.Save();
        key.DeviceId = device.Id;
        await write.Save();
        return new Paired(device.Id, device.WorkshopId, device.Role);
    }

    private static Microsoft.AspNetCore.Http.HttpResults.ProblemHttpResult NoGood(string says) => Problems.Of(StatusCodes.Status403Forbidden, "key-no-good", says, [new Fault("key", says)]);
}
