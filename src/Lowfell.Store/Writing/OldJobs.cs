using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>What a job came to is kept for a day: it can be worked out again at any time.</summary>
public static class OldJobs
{
    private static readonly TimeSpan kept = TimeSpan.FromDays(1);

    /// <summary>Prunes jobs that ended longer ago than they are kept, with what they came to.</summary>
    public static async Task Prune(LowfellDb db, DateTimeOffset now, CancellationToken stop)
    {
        var before = now - kept;
        await db.Database.ExecuteSqlAsync($"""
            with old as (delete from jobs where id in (select id from jobs where ended_at < {before} for update skip locked) returning id, blob_id)
            delete from blobs where id in (select blob_id from old)
            """, stop);
    }
}
