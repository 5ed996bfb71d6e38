using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>Keys that devices were taken in with, or could have been: worth nothing after five minutes.</summary>
public static class OldKeys
{
    private static readonly TimeSpan kept = TimeSpan.FromHours(1);

    /// <summary>Prunes keys that nobody can use any more; the number of those that went.</summary>
    public static Task<int> Prune(LowfellDb db, DateTimeOffset now, CancellationToken stop)
    {
        var before = now - kept;
        return db.PairingKeys.Where(k => k.GoodUntil < before).ExecuteDeleteAsync(stop);
    }
}
