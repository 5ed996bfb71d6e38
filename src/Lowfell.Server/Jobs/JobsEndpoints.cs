using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Lowfell.Server.Jobs;

/// <summary>How far a job is, and an end to it.</summary>
public static class JobsEndpoints
{
    public static void MapJobs(this IEndpointRouteBuilder app)
    {
        var jobs = app.MapGroup("/api/jobs").WithTags("Jobs");
        jobs.MapGet("/{id:guid}", Of).WithName("job").WithSummary("How far a job is.").ProducesProblem(404);
        jobs.MapPost("/{id:guid}/cancel", Cancel).WithName("cancelJob").WithSummary("Stops a job that has not ended.").Writes<JobTold, JobDto>(JobBook.Tell);
    }

    private static async Task<Results<Ok<JobDto>, ProblemHttpResult>> Of(Guid id, LowfellDb db, CancellationToken stop) =>
        await JobBook.Of(db, id, stop) is { } job ? TypedResults.Ok(job) : Problems.NotFound("job");

    private static async Task<Outcome<JobTold>> Cancel(Guid id, Write write) => await JobBook.Cancel(write, id) ? new JobTold(id) : Problems.NotFound("job");
}
