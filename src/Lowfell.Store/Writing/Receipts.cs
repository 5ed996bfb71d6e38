using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>Receipts are kept as long as somebody may ask again; after that only the bare id is, so that nothing is done twice.</summary>
public static class Receipts
{
    public static readonly TimeSpan Kept = TimeSpan.FromDays(30);

    /// <summary>After that nobody asks again: a page that kept a write so long in its browser has long been told otherwise.</summary>
    public static readonly TimeSpan SpentKept = TimeSpan.FromDays(365);

    private const int AtOnce = 5000;

    /// <summary>Forgets ids that were spent longer ago than they are kept; the number of those that went.</summary>
    public static Task<int> Forget(LowfellDb db, DateTimeOffset now, CancellationToken stop) =>
        db.Database.SqlQuery<int>($"select spent_pruned({now - SpentKept}) as \"Value\"").SingleAsync(stop);

    /// <summary>Prunes receipts older than <see cref="Kept"/>; the number of those that went.</summary>
    public static async Task<int> Prune(LowfellDb db, DateTimeOffset now, CancellationToken stop)
    {
        var (before, all) = (now - Kept, 0);
        while (true)
        {
            var gone = await db.Database.ExecuteSqlAsync($"""
                with old as (delete from write_receipts where id in (select id from write_receipts where at < {before} order by at limit {AtOnce} for update skip locked) returning id)
                insert into spent_writes (id, at) select id, {now} from old on conflict do nothing
                """, stop);
            all += gone;
            if (gone == 0)
                return all;
        }
    }
}
