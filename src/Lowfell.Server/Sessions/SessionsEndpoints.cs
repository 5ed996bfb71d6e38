using Lowfell.Server.Http;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Sessions;

/// <summary>The timetable of a workshop.</summary>
public static class SessionsEndpoints
{
    public static void MapSessions(this IEndpointRouteBuilder app) =>
        app.MapGet("/api/sessions/{workshopId:guid}", Of).WithTags("Time").WithName("sessions").WithSummary("What to do in which stretch at the bench, for all sets of a workshop.").ProducesProblem(404);

    private static async Task<Results<Ok<SessionsReading>, ProblemHttpResult>> Of(Guid workshopId, LowfellDb db, SetGraphs graphs, TimeProvider time, CancellationToken stop)
    {
        if (await db.Workshops.AsNoTracking().FirstOrDefaultAsync(w => w.Id == workshopId, stop) is not { } workshop)
            return Problems.NotFound("workshop");
        var sets = new List<SetGraph>();
        foreach (var id in await db.Sets.Where(s => s.WorkshopId == workshopId && s.PutAwayAt == null).OrderBy(s => s.Rank).ThenBy(s => s.Name).Select(s => s.Id).ToListAsync(stop))
            if (await graphs.OfSet(db, id, stop) is { } graph)
                sets.Add(graph);
        return TypedResults.Ok(await Task.Run(() => new SessionsReader(workshop, sets, time.GetUtcNow(), stop).Read(), stop));
    }
}
