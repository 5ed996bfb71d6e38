using Lowfell.Store;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Http;

/// <summary>Says whether it serves, and what beside the serving does not go as it should.</summary>
internal static class Health
{
    public static void MapHealth(this WebApplication app)
    {
        app.MapGet("/health", async (LowfellDb db, SideTroubles troubles, CancellationToken stop) =>
            await db.Database.CanConnectAsync(stop) ? Results.Ok(new { status = "ok", troubles = troubles.Now }) : Results.StatusCode(StatusCodes.Status503ServiceUnavailable)).ExcludeFromDescription();
        app.MapGet("/api/troubles", Ok<IReadOnlyList<SideTrouble>> (SideTroubles troubles) => TypedResults.Ok(troubles.Now)).WithTags("Workshops").WithName("troubles").WithSummary("What beside the serving does not go as it should, as long as it does not.");
    }
}
