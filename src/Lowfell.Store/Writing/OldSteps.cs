using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>What was done can be undone as far back as anybody goes, and what was removed for as long as receipts are kept.</summary>
public static class OldSteps
{
    /// <summary>So many steps of a workshop are kept however old they are.</summary>
    public const int Kept = 200;

    /// <summary>Prunes what is older than receipts are kept; the number of changes that went.</summary>
    public static Task<int> Prune(LowfellDb db, DateTimeOffset now, CancellationToken stop) =>
        db.Database.SqlQuery<int>($"select journal_pruned({now - Receipts.Kept}, {Kept}) as \"Value\"").SingleAsync(stop);
}
