using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;
using Npgsql;
using Npgsql.EntityFrameworkCore.PostgreSQL;

namespace Lowfell.Server.Writing;

/// <summary>
/// Tries a write again when the database asks to (a deadlock, a serialization failure) or was away for a moment. Safe also when the
/// commit's answer was lost: the next try finds the receipt.
/// </summary>
internal sealed class WriteRetry(DbContext db) : NpgsqlRetryingExecutionStrategy(db, MostTries, TimeSpan.FromMilliseconds(800), errorCodesToAdd: null)
{
    private const int MostTries = 7;

    protected override bool ShouldRetryOn(Exception? exception) => exception switch
    {
        // A write that found another's version is done once more: its step then sees the newer one, and says so with it.
        DbUpdateConcurrencyException => true,
        InvalidOperationException { InnerException: { } inner } => ShouldRetryOn(inner),
        DbUpdateException { InnerException: { } inner } => ShouldRetryOn(inner),
        PostgresException { SqlState: PostgresErrorCodes.SerializationFailure or PostgresErrorCodes.DeadlockDetected } => true,
        PostgresException p => p.IsTransient && p.SqlState is not (PostgresErrorCodes.DiskFull or PostgresErrorCodes.OutOfMemory),
        NpgsqlException n => n.IsTransient && n.InnerException is not TimeoutException,
        _ => false,
    };

    /// <summary>
    /// Whether this was thrown over a connection that broke meanwhile, in words that do not say so: the driver and the layers above it
    /// tell that in many ways, some as a mistake of the caller.
    /// </summary>
    public static bool HidesABreak(DbContext db, Exception error) =>
        error is not (NpgsqlException or DbUpdateException { InnerException: NpgsqlException } or OperationCanceledException) && db.Database.GetDbConnection().State != System.Data.ConnectionState.Open;

    /// <summary>The same, said as what it is.</summary>
    public static NpgsqlException Broke(Exception unclear) => new("The connection to the database broke.", new IOException(unclear.Message, unclear));

    // Deadlocks of many at once are parted by chance.
    protected override TimeSpan? GetNextDelay(Exception lastException) =>
        ExceptionsEncountered.Count <= MostTries ? TimeSpan.FromMilliseconds(Random.Shared.Next(10, 40) * Math.Min(20, 1 << ExceptionsEncountered.Count)) : null;
}

/// <summary>What is known of a write while it runs.</summary>
internal enum WriteState
{
    None,
    NotStored,
    Unknown,
    Stored,
}

/// <summary>Tells whoever words a fault how far the write had come.</summary>
internal sealed class WriteProgress
{
    public WriteState State { get; set; }

    public static WriteProgress Of(HttpContext http)
    {
        if (http.Items[nameof(WriteProgress)] is not WriteProgress progress)
            http.Items[nameof(WriteProgress)] = progress = new WriteProgress();
        return progress;
    }
}
