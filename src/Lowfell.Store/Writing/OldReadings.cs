using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>Readings of instruments thin out with age: nobody asks what the air was at 19:42:10 a month ago.</summary>
public static class OldReadings
{
    /// <summary>Weights are for the pot that is being mixed.</summary>
    private static readonly TimeSpan weights = TimeSpan.FromDays(1);

    /// <summary>After so long one reading of the air is kept of every ten minutes, and after so long one of every hour.</summary>
    private static readonly TimeSpan fewer = TimeSpan.FromDays(2), fewest = TimeSpan.FromDays(90);

    private const int FewerSeconds = 600, FewestSeconds = 3600;

    /// <summary>Thins readings out; the number of those that went.</summary>
    public static async Task<int> Prune(LowfellDb db, DateTimeOffset now, CancellationToken stop) =>
        await db.Database.ExecuteSqlAsync($"delete from readings where grams is not null and at < {now - weights}", stop)
        + await Thin(db, now - fewer, FewerSeconds, stop) + await Thin(db, now - fewest, FewestSeconds, stop);

    /// <summary>Of every so many seconds before an instant the first reading of a device stays.</summary>
    private static Task<int> Thin(LowfellDb db, DateTimeOffset before, int seconds, CancellationToken stop) =>
        db.Database.ExecuteSqlAsync($"""
            delete from readings r using (
                select id, row_number() over (partition by device_id, floor(extract(epoch from at) / {seconds}) order by at, id) as place
                from readings where grams is null and at < {before}) x
            where r.id = x.id and x.place > 1
            """, stop);
}
