using System.Net.ServerSentEvents;
using System.Runtime.CompilerServices;
using Lowfell.Core.Words;
using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Changes;

/// <summary>Which versions a workshop's slices have come to; the write that brought them there, empty when they are told as they stand.</summary>
public sealed record SlicesMoved(IReadOnlyDictionary<string, long> Versions, Guid Write);

/// <summary>What others store arrives by itself.</summary>
public static class ChangesEndpoints
{
    public static void MapChanges(this IEndpointRouteBuilder app) =>
        app.MapGet("/api/changes/{workshopId:guid}", Listen).WithTags("Changes").WithName("changes").WithSummary("Server-sent events: how a workshop stands, and each change as it is stored.").ProducesProblem(404).ProducesProblem(503).For(DeviceRole.Look, DeviceRole.Work);

    private static async Task<Results<ServerSentEventsResult<SlicesMoved>, ProblemHttpResult>> Listen(Guid workshopId, LowfellDb db, ChangeFeed feed, HttpContext http, CancellationToken stop)
    {
        if (!await db.Workshops.AnyAsync(w => w.Id == workshopId, stop))
            return Problems.NotFound("workshop");
        var device = http.DeviceOf();
        var (all, devices, mine) = feed.Listening(device?.Id);
        if (device is not null && mine >= DoorLimits.StreamsEach)
            return Problems.Of(StatusCodes.Status503ServiceUnavailable, "busy", $"{DoorLimits.StreamsEach} pages of this device listen already. Close some of them.");

        // However many other devices listen, some places are this machine's own.
        if (device is not null ? devices >= DoorLimits.StreamsOfDevices : all >= DoorLimits.StreamsInAll)
            return Problems.Of(StatusCodes.Status503ServiceUnavailable, "busy", $"{(device is not null ? devices : all)} pages listen already. Close some of them.");
        http.Response.Headers.CacheControl = "no-store";
        return TypedResults.ServerSentEvents(Words(feed.Of(workshopId, device?.Id, stop), db, device, stop), "versions");
    }

    private static async IAsyncEnumerable<SlicesMoved> Words(IAsyncEnumerable<ChangeNotice> notices, LowfellDb db, PairedDevice? device, [EnumeratorCancellation] CancellationToken stop)
    {
        await foreach (var notice in notices.WithCancellation(stop))
        {
            // One that was sent away hears no more.
            if (device is not null && !await Elsewhere.StillHere(db, device, stop))
                yield break;
            yield return new SlicesMoved(notice.Versions.ToDictionary(v => EnumWords.Of(v.Key), v => v.Value), notice.Write);
        }
    }
}
