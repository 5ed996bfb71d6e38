namespace Lowfell.Server.Files;

/// <summary>
/// Files of sets are large in memory while they are taken in: one after the other, and what they took is given back once nobody waits any more.
/// </summary>
internal sealed class OneAtATime : IDisposable
{
    private readonly SemaphoreSlim turn = new(1);
    private int waiting;

    /// <summary>Does something in its turn.</summary>
    public async Task<T> Do<T>(Func<Task<T>> heavy, CancellationToken stop)
    {
        Interlocked.Increment(ref waiting);
        try
        {
            await turn.WaitAsync(stop);
            try
            {
                return await heavy();
            }
            finally
            {
                // What this one left goes before the next begins.
                GC.Collect(GC.MaxGeneration, GCCollectionMode.Forced, blocking: true, compacting: true);
                turn.Release();
            }
        }
        finally
        {
            Interlocked.Decrement(ref waiting);
        }
    }

    /// <summary>Gives what was taken back to the machine, where nobody else is at it.</summary>
    public void GiveBack()
    {
        if (Volatile.Read(ref waiting) == 0)
            GC.Collect(GC.MaxGeneration, GCCollectionMode.Aggressive, blocking: true, compacting: true);
    }

    public void Dispose() => turn.Dispose();
}
