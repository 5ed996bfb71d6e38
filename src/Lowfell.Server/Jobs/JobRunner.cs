using Lowfell.Server.Http;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Lowfell.Server.Jobs;

/// <summary>
/// Takes up jobs of the kinds it knows, one at a time, from whatever server they were asked of. While it is at one it says so every second; a job whose server
/// falls silent is taken up by another, and one that was cancelled is let go.
/// </summary>
internal sealed class JobRunner(IDbContextFactory<LowfellDb> factory, IEnumerable<IJob> jobs, SideTroubles troubles, TimeProvider clock, ILogger<JobRunner> log) : SideService(troubles, clock, log)
{
    protected override string What => "Long reckonings";

    /// <summary>Jobs that nobody told of: those of a server that fell silent.</summary>
    private static readonly TimeSpan look = TimeSpan.FromSeconds(10), beat = TimeSpan.FromMilliseconds(250), silent = TimeSpan.FromSeconds(15);

    private const int MostTries = 3;
    private readonly Dictionary<string, IJob> known = jobs.ToDictionary(k => k.Kind);

    protected override async Task Run(CancellationToken stop)
    {
        await using var line = await Listen(stop);
        while (true)
        {
            while (await Take(stop) is { } job)
                await Do(job, stop);
            Well();
            await line.WaitAsync(look, stop);
        }
    }

    private async Task<NpgsqlConnection> Listen(CancellationToken stop)
    {
        await using var db = await factory.CreateDbContextAsync(stop);
        var line = new NpgsqlConnection(new NpgsqlConnectionStringBuilder(db.Database.GetConnectionString()) { Pooling = false }.ConnectionString);
        await line.OpenAsync(stop);
        await using var listen = new NpgsqlCommand($"listen {JobBook.Channel}", line);
        await listen.ExecuteNonQueryAsync(stop);
        return line;
    }

    /// <summary>The oldest job that nobody is at; each is taken by one server.</summary>
    private async Task<JobRow?> Take(CancellationToken stop)
    {
        await using var db = await factory.CreateDbContextAsync(stop);
        var now = Clock.GetUtcNow();
        var (lost, kinds) = (now - silent, known.Keys.ToArray());
        await db.Jobs.Where(j => j.State == JobState.Running && j.SeenAt < lost && j.Tries >= MostTries).ExecuteUpdateAsync(s => s.SetProperty(j => j.State, JobState.Failed).SetProperty(j => j.EndedAt, now), stop);
        var taken = await db.Jobs.FromSql($"""
            update jobs set state = 'running', seen_at = {now}, tries = tries + 1, steps = 0
            where id = (select id from jobs where kind = any({kinds}) and (state = 'waiting' or (state = 'running' and seen_at < {lost})) order by asked_at limit 1 for update skip locked) returning *
            """).AsNoTracking().ToListAsync(stop);
        return taken.SingleOrDefault();
    }

    private async Task Do(JobRow job, CancellationToken stopping)
    {
        using var either = CancellationTokenSource.CreateLinkedTokenSource(stopping);
        var progress = new JobProgress();
        try
        {
            var work = Task.Run(() => known[job.Kind].Run(job, progress, either.Token), CancellationToken.None);
            while (await Task.WhenAny(work, Task.Delay(beat, Clock, CancellationToken.None)) != work)
                if (!either.IsCancellationRequested && !await Say(job, progress))
                    await either.CancelAsync();
            await End(job, progress, await work);
        }
        catch (OperationCanceledException) when (either.IsCancellationRequested)
        {
            // Cancelled by the painter, and then the row says so already; or the server stops, and another may go on at once.
            if (stopping.IsCancellationRequested)
                await Change(job, s => s.SetProperty(j => j.State, JobState.Waiting).SetProperty(j => j.SeenAt, (DateTimeOffset?)null));
        }
        catch (Exception defect) when (defect is not NpgsqlException)
        {
            log.LogError(defect, "Defect in the job {Kind}", job.Kind);
            await Change(job, s => s.SetProperty(j => j.State, JobState.Failed).SetProperty(j => j.EndedAt, Clock.GetUtcNow()));
        }
    }

    /// <summary>Says how far it is; false when the job is no longer wanted of this server.</summary>
    private async Task<bool> Say(JobRow job, JobProgress progress) =>
        await Change(job, s => s.SetProperty(j => j.SeenAt, Clock.GetUtcNow()).SetProperty(j => j.AllSteps, Math.Max(progress.All, progress.Steps)).SetProperty(j => j.Steps, progress.Steps)) == 1;

    private async Task End(JobRow job, JobProgress progress, JobResult? came)
    {
        await using var db = await factory.CreateDbContextAsync();
        await using var transaction = await db.Database.BeginTransactionAsync();
        var blob = came is null ? null : new BlobRow { WorkshopId = job.WorkshopId, Type = came.Type, Bytes = came.Bytes, At = Clock.GetUtcNow() };
        if (blob is not null)
            db.Add(blob);
        await db.SaveChangesAsync();
        var (state, at, id) = (came is null ? JobState.Failed : JobState.Done, came?.At ?? "", blob?.Id);
        if (await Mine(db, job).ExecuteUpdateAsync(s => s.SetProperty(j => j.State, state).SetProperty(j => j.EndedAt, Clock.GetUtcNow()).SetProperty(j => j.BlobId, id)
                .SetProperty(j => j.At, at).SetProperty(j => j.AllSteps, Math.Max(progress.All, progress.Steps)).SetProperty(j => j.Steps, progress.Steps)) == 1)
            await transaction.CommitAsync();
    }

    private async Task<int> Change(JobRow job, Action<Microsoft.EntityFrameworkCore.Query.UpdateSettersBuilder<JobRow>> change)
    {
        await using var db = await factory.CreateDbContextAsync();
        return await Mine(db, job).ExecuteUpdateAsync(change);
    }

    /// <summary>The row as long as it is this server's and this try's.</summary>
    private static IQueryable<JobRow> Mine(LowfellDb db, JobRow job) => db.Jobs.Where(j => j.Id == job.Id && j.State == JobState.Running && j.Tries == job.Tries);
}
