using System.Threading.RateLimiting;

namespace Lowfell.Server.Http;

/// <summary>Marks the endpoint by which a device asks to be taken in.</summary>
internal sealed record PairingAttempt;

/// <summary>
/// What one other device may ask of this server, so that none takes what the others and this machine's own page need: requests, bytes,
/// attempts at being taken in, and streams.
/// </summary>
internal sealed class DoorLimits : IDisposable
{
    /// <summary>Requests at once and from then on each second; a page with all its bundles is some thirty.</summary>
    public const int MostRequests = 800, RequestsPerSecond = 40;

    /// <summary>Kilobytes at once and each second: a few photographs, then one every second or two.</summary>
    public const int MostKilobytes = 64_000, KilobytesPerSecond = 4_000;

    /// <summary>Attempts at being taken in, from one address and altogether, in a minute.</summary>
    public const int AttemptsPerMinute = 10, AllAttemptsPerMinute = 60;

    /// <summary>Pages that listen: of one device, of all devices, and with those of this machine.</summary>
    public const int StreamsEach = 4, StreamsOfDevices = 60, StreamsInAll = 100;

    /// <summary>Bodies that do not say how long they are count as this, kilobytes.</summary>
    private const int UnknownKilobytes = 100;

    private readonly PartitionedRateLimiter<string> requests = Buckets(MostRequests, RequestsPerSecond), bytes = Buckets(MostKilobytes, KilobytesPerSecond);
    private readonly PartitionedRateLimiter<string> attempts = Windows(AttemptsPerMinute), allAttempts = Windows(AllAttemptsPerMinute);

    private static PartitionedRateLimiter<string> Buckets(int most, int perSecond) => PartitionedRateLimiter.Create<string, string>(who => RateLimitPartition.GetTokenBucketLimiter(who, _ => new TokenBucketRateLimiterOptions
    {
        TokenLimit = most,
        TokensPerPeriod = perSecond,
        ReplenishmentPeriod = TimeSpan.FromSeconds(1),
        QueueLimit = 0,
    }));

    private static PartitionedRateLimiter<string> Windows(int most) => PartitionedRateLimiter.Create<string, string>(who => RateLimitPartition.GetFixedWindowLimiter(who, _ => new FixedWindowRateLimiterOptions
    {
        PermitLimit = most,
        Window = TimeSpan.FromMinutes(1),
        QueueLimit = 0,
    }));

    /// <summary>Whether a request through the door may go on.</summary>
    public bool May(HttpContext http, PairedDevice? device)
    {
        var address = http.Connection.RemoteIpAddress?.ToString() ?? "";
        var who = device?.Id.ToString() ?? address;
        if (!Takes(requests, who, 1))
            return false;
        if (http.GetEndpoint()?.Metadata.GetMetadata<PairingAttempt>() is not null && (!Takes(attempts, address, 1) || !Takes(allAttempts, "", 1)))
            return false;
        var kilobytes = http.Request.ContentLength is { } length ? (int)Math.Min(MostKilobytes, length / 1000) : HttpMethods.IsGet(http.Request.Method) ? 0 : UnknownKilobytes;
        return kilobytes == 0 || Takes(bytes, who, kilobytes);
    }

    private static bool Takes(PartitionedRateLimiter<string> limiter, string who, int permits)
    {
        using var lease = limiter.AttemptAcquire(who, permits);
        return lease.IsAcquired;
    }

    public static Microsoft.AspNetCore.Http.HttpResults.ProblemHttpResult TooMuch(HttpContext http)
    {
        http.Response.Headers.RetryAfter = "5";
        return Problems.Of(StatusCodes.Status429TooManyRequests, "too-much", "This device asks for more at once than one device may. Nothing was stored; it goes on in a moment.");
    }

    public void Dispose()
    {
        foreach (var limiter in new[] { requests, bytes, attempts, allAttempts })
            limiter.Dispose();
    }
}
