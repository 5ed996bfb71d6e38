using Lowfell.Core.Words;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Jobs;

/// <summary>Asking for jobs, and for what they came to.</summary>
public static class JobBook
{
    /// <summary>The channel on which a job is told to any server that has hands free.</summary>
    internal const string Channel = "lowfell_jobs";

    /// <summary>Asks for a job, or joins those who wait for it already.</summary>
    public static async Task<JobTold> Ask(Write write, Guid workshop, string kind, Guid subject)
    {
        write.In(workshop);
        var (id, waiting) = (Guid.CreateVersion7(), EnumWords.Of(JobState.Waiting));
        await write.Db.Database.ExecuteSqlAsync($"""
            insert into jobs (id, workshop_id, kind, subject_id, state, steps, all_steps, asked_at, at, tries)
            values ({id}, {workshop}, {kind}, {subject}, {waiting}, 0, 0, {write.Now}, '', 0)
            on conflict (kind, subject_id) where ended_at is null do nothing
            """, write.Stop);
        await write.Db.Database.ExecuteSqlAsync($"select pg_notify({Channel}, '')", write.Stop);
        return new JobTold(await write.Db.Jobs.AsNoTracking().Where(j => j.Kind == kind && j.SubjectId == subject && (j.State == JobState.Waiting || j.State == JobState.Running)).Select(j => j.Id).FirstOrDefaultAsync(write.Stop));
    }

    /// <summary>Stops a job that is waiting or running; one that has ended stays as it is.</summary>
    internal static async Task<bool> Cancel(Write write, Guid id)
    {
        if (await write.Db.Jobs.FirstOrDefaultAsync(j => j.Id == id, write.Stop) is not { } job)
            return false;
        write.In(job.WorkshopId);
        await write.Db.Jobs.Where(j => j.Id == id && (j.State == JobState.Waiting || j.State == JobState.Running))
            .ExecuteUpdateAsync(s => s.SetProperty(j => j.State, JobState.Cancelled).SetProperty(j => j.EndedAt, write.Now), write.Stop);
        return true;
    }

    /// <summary>How a job stands; null when there is none with this id.</summary>
    internal static async Task<JobDto?> Of(LowfellDb db, Guid id, CancellationToken stop) =>
        await db.Jobs.AsNoTracking().FirstOrDefaultAsync(j => j.Id == id, stop) is { } j ? new JobDto(j.Id, j.State, j.Steps, j.AllSteps) : null;

    /// <summary>How a job stands that was just written about.</summary>
    public static async Task<JobDto> Tell(JobTold told, Telling telling) => (await Of(telling.Db, told.Id, telling.Stop)) ?? new JobDto(told.Id, JobState.Cancelled, 0, 0);

    /// <summary>What a job of this kind came to, at just this version of its subject; null when none has.</summary>
    public static async Task<byte[]?> Result(LowfellDb db, string kind, Guid subject, string at, CancellationToken stop) =>
        await db.Jobs.Where(j => j.Kind == kind && j.SubjectId == subject && j.At == at && j.State == JobState.Done)
            .Join(db.Blobs, j => j.BlobId, b => b.Id, (_, b) => b.Bytes).FirstOrDefaultAsync(stop);
}

/// <summary>Which job a write was about.</summary>
public sealed record JobTold(Guid Id);

/// <summary>How a job stands; of how many steps is not known before it has begun.</summary>
public sealed record JobDto(Guid Id, JobState State, int Steps, int AllSteps);
