using Microsoft.AspNetCore.Http.Features;

namespace Lowfell.Server.Http;

/// <summary>Marks an endpoint that takes whole files, and how large they may be.</summary>
internal sealed class LargeBody(long mostBytes = LargeBody.Usual)
{
    /// <summary>A shelf of twenty thousand materials, or a photograph.</summary>
    private const long Usual = 16_000_000;

    public long MostBytes => mostBytes;
}

/// <summary>
/// Refuses large bodies with an answer the sender gets to read: closing the connection while it still sends
/// would show it a broken pipe instead of the reason.
/// </summary>
internal static class BodyLimit
{
    /// <summary>Far more than the largest stack or material.</summary>
    private const long LargestBytes = 1_000_000;

    /// <summary>Beyond this even politeness ends and the connection is closed.</summary>
    public const long MostDrainedBytes = 64_000_000;

    public static void UseBodyLimit(this WebApplication app) => app.Use(async (http, next) =>
    {
        var most = http.GetEndpoint()?.Metadata.GetMetadata<LargeBody>()?.MostBytes ?? LargestBytes;
        if (http.Request.ContentLength > most)
        {
            var scratch = new byte[65_536];
            while (await http.Request.Body.ReadAsync(scratch, http.RequestAborted) > 0)
            {
            }

            await Problems.Of(StatusCodes.Status413PayloadTooLarge, "too-large", $"The request is larger than {most / 1_000_000} MB, the most this server takes. Send less at once.").ExecuteAsync(http);
            return;
        }

        // Bodies that do not tell their length are counted while they are read.
        if (http.Features.Get<IHttpMaxRequestBodySizeFeature>() is { IsReadOnly: false } limit)
            limit.MaxRequestBodySize = most;
        await next(http);
    });
}
