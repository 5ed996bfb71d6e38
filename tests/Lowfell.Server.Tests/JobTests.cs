using System.Text.Json.Nodes;
using Lowfell.Server.Jobs;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Lowfell.Server.Tests;

/// <summary>The remarks of a large set: worked out beside the bench, by one server, with an end to it.</summary>
public sealed class JobTests(LowfellServer server) : IClassFixture<LowfellServer>
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    /// <summary>Waits for what a server does by itself.</summary>
    private static async Task<T> Until<T>(Func<Task<T>> look, Func<T, bool> holds)
    {
        using var late = CancellationTokenSource.CreateLinkedTokenSource(Stop);
        late.CancelAfter(TimeSpan.FromMinutes(1));
        using var timer = new PeriodicTimer(TimeSpan.FromMilliseconds(20));
        while (true)
        {
            if (await look() is var now && holds(now))
                return now;
            await timer.WaitForNextTickAsync(late.Token);
        }
    }

    /// <summary>A set with more layers than are gone through at once: 25 zones that share one long stack.</summary>
    private async Task<(Guid Workshop, Guid Set)> LargeSet(string name)
    {
        var workshop = await server.WorkshopId();
        var sheet = await server.Get($"/api/plan/zones/{await server.ZoneId("Jetty section", "Iron")}");
        static JsonNode Layer(JsonNode like)
        {
            var copy = like.Copy();
            copy["id"] = Guid.NewGuid();
            return copy;
        }

        var stack = new JsonArray([.. Enumerable.Range(0, 80).Select(n => Layer(sheet["layers"]!.AsArray()[n % 3]!))]);
        var zones = Enumerable.Range(1, 5).Select(z => new { name = $"Face {z}", areaCm2 = 40, relief = "deep", jointMm = 900, edgeMm = 400 }).ToList();
        object Design(int n) => new { name = $"Yard {n}", pieces = 1, substrate = "printed plastic", silhouette = "wall", zones };
        var set = (await server.Send(HttpMethod.Post, "/api/plan/sets", new { workshopId = workshop, name, scale = 56, tableMetres = 0.9, design = Design(1) })).Body["setId"]!.GetValue<Guid>();
        for (var n = 2; n <= 5; n++)
            await server.Send(HttpMethod.Post, $"/api/plan/sets/{set}/designs", Design(n));
        await using var db = server.Db();
        var zone = await db.Zones.Where(z => db.Designs.Any(d => d.Id == z.DesignId && d.SetId == set)).FirstAsync(Stop);
        await db.Zones.Where(z => db.Designs.Any(d => d.Id == z.DesignId && d.SetId == set)).ExecuteUpdateAsync(s => s.SetProperty(z => z.TreatmentId, zone.TreatmentId).SetProperty(z => z.SurfaceId, zone.SurfaceId), Stop);
        var version = (await server.Get($"/api/plan/zones/{zone.Id}"))["version"]!.GetValue<uint>();
        var (status, said) = await server.Send(HttpMethod.Put, $"/api/plan/zones/{zone.Id}/stack", new JsonObject { ["version"] = version, ["layers"] = stack });
        Assert.True(status == 200, said.ToJsonString());
        return (workshop, set);
    }

    private async Task<(int Status, JsonNode Body)> Remarks(HttpClient http, Guid set)
    {
        using var answer = await http.GetAsync($"/api/plan/sets/{set}/remarks", Stop);
        return ((int)answer.StatusCode, JsonNode.Parse(await answer.Content.ReadAsStringAsync(Stop))!);
    }

    private Task<JsonNode> Ended(string job) => Until(() => server.Get($"/api/jobs/{job}"), j => j.Text("state") is not ("waiting" or "running"));

    [Fact]
    public async Task The_remarks_of_a_large_set_are_a_job_that_any_server_knows_the_end_of()
    {
        var (_, set) = await LargeSet("Whole yard");
        var (status, large) = await Remarks(server.Http, set);
        Assert.Equal((202, 25), (status, large["zones"]!.GetValue<int>()));
        var first = await server.Send(HttpMethod.Post, $"/api/plan/sets/{set}/remarks/job", null);
        Assert.Equal(202, first.Status);
        var job = await Ended(first.Body.Text("id"));
        Assert.Equal(("done", 25, 25), (job.Text("state"), job["steps"]!.GetValue<int>(), job["allSteps"]!.GetValue<int>()));
        var (now, said) = await Remarks(server.Http, set);
        Assert.Equal(200, now);
        Assert.NotEmpty(said["groups"]!.AsArray());

        // One that has read nothing yet tells what was kept; after a write it is long again.
        var (other, http) = server.Start();
        await using var _ = other;
        var (there, kept) = await Remarks(http, set);
        Assert.Equal((200, said.ToJsonString()), (there, kept.ToJsonString()));
    }

    [Fact]
    public async Task However_many_ask_it_is_worked_out_once_and_can_be_stopped()
    {
        var (begun, ended) = (new TaskCompletionSource(), new TaskCompletionSource());
        var (other, http) = server.Start(s => s.AddSingleton<IJob>(new Endless(begun, ended)));
        await using var _ = other;
        var subject = Guid.NewGuid();
        var job = await Insert(j => j with { Kind = Endless.Word, Subject = subject });
        await Assert.ThrowsAsync<DbUpdateException>(() => Insert(j => j with { Kind = Endless.Word, Subject = subject }));

        // Only a server that knows such work takes it.
        await LowfellServer.Execute(server.Connection, "notify lowfell_jobs");
        await begun.Task.WaitAsync(TimeSpan.FromMinutes(1), Stop);
        var (status, said) = await server.Send(HttpMethod.Post, $"/api/jobs/{job}/cancel", null);
        Assert.Equal((200, "cancelled"), (status, said.Text("state")));
        await ended.Task.WaitAsync(TimeSpan.FromMinutes(1), Stop);
        Assert.Equal(JobState.Cancelled, await State(job));
        http.Dispose();
    }

    [Fact]
    public async Task A_job_whose_server_fell_silent_is_taken_up_by_another_but_not_for_ever()
    {
        var (_, set) = await LargeSet("Silent yard");
        var silent = DateTimeOffset.UtcNow.AddMinutes(-1);
        var lost = await Insert(j => j with { Kind = "set remarks", Subject = set, State = JobState.Running, Seen = silent, Tries = 1 });
        var deadly = await Insert(j => j with { Kind = "set remarks", Subject = Guid.NewGuid(), State = JobState.Running, Seen = silent, Tries = 3 });
        await LowfellServer.Execute(server.Connection, "notify lowfell_jobs");
        Assert.Equal("done", (await Ended(lost.ToString())).Text("state"));
        Assert.Equal("failed", (await Ended(deadly.ToString())).Text("state"));
    }

    [Fact]
    public async Task What_a_job_came_to_is_kept_for_a_day()
    {
        var (old, young) = (await Insert(j => j with { Kind = "old", Subject = Guid.NewGuid(), State = JobState.Done, Ended = DateTimeOffset.UtcNow.AddDays(-2), Keeps = true }),
            await Insert(j => j with { Kind = "young", Subject = Guid.NewGuid(), State = JobState.Done, Ended = DateTimeOffset.UtcNow, Keeps = true }));
        await using var db = server.Db();
        var blob = await db.Jobs.Where(j => j.Id == old).Select(j => j.BlobId).SingleAsync(Stop);
        await OldJobs.Prune(db, DateTimeOffset.UtcNow, Stop);
        Assert.False(await db.Jobs.AnyAsync(j => j.Id == old, Stop));
        Assert.False(await db.Blobs.AnyAsync(b => b.Id == blob, Stop));
        Assert.True(await db.Jobs.AnyAsync(j => j.Id == young && db.Blobs.Any(b => b.Id == j.BlobId), Stop));
    }

    private sealed record Entry(string Kind, Guid Subject, JobState State, DateTimeOffset? Seen, int Tries, DateTimeOffset? Ended, bool Keeps);

    private async Task<Guid> Insert(Func<Entry, Entry> change)
    {
        var entry = change(new Entry("", Guid.Empty, JobState.Waiting, null, 0, null, false));
        await using var db = server.Db();
        var workshop = await server.WorkshopId();
        var blob = entry.Keeps ? new BlobRow { WorkshopId = workshop, Type = "application/json", Bytes = [1], At = DateTimeOffset.UtcNow } : null;
        if (blob is not null)
            db.Add(blob);
        var job = new JobRow
        {
            WorkshopId = workshop,
            Kind = entry.Kind,
            SubjectId = entry.Subject,
            State = entry.State,
            AskedAt = DateTimeOffset.UtcNow,
            SeenAt = entry.Seen,
            Tries = entry.Tries,
            EndedAt = entry.Ended,
            BlobId = blob?.Id,
        };
        db.Add(job);
        await db.SaveChangesAsync(Stop);
        return job.Id;
    }

    private async Task<JobState> State(Guid job)
    {
        await using var db = server.Db();
        return await db.Jobs.Where(j => j.Id == job).Select(j => j.State).SingleAsync(Stop);
    }

    /// <summary>Work that goes on until it is stopped.</summary>
    private sealed class Endless(TaskCompletionSource begun, TaskCompletionSource ended) : IJob
    {
        public const string Word = "endless";

        public string Kind => Word;

        public async Task<JobResult?> Run(JobRow job, JobProgress progress, CancellationToken stop)
        {
            progress.Of(1);
            begun.TrySetResult();
            try
            {
                await new TaskCompletionSource().Task.WaitAsync(stop);
            }
            finally
            {
                ended.TrySetResult();
            }

            return null;
        }
    }
}
