namespace Lowfell.Server.Files;

/// <summary>
/// Files of sets are large in memory while they are taken in: one after the other, and what a large one took is given back once nobody waits
/// any more.
/// </summary>
internal sealed class OneAtATime(TimeProvider clock) : IDisposable
{
    /// <summary>
    /// What the base library keeps of large buffers it lets go of when memory is collected, those of a thread half a minute and those of a processor a
    /// minute after a collection first found them unused, and the next collection has them. Counted from the end of the last file, also where
    /// that ends while this goes on.
    /// </summary>
    private static readonly TimeSpan[] rounds = [TimeSpan.Zero, .. new[] { 35, 38, 62, 63, 65 }.Select(s => TimeSpan.FromSeconds(s))];

    private readonly SemaphoreSlim turn = new(1);
    private int waiting, owed, givingBack;
    private long lastEnded;

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
                turn.Release();
            }
        }
        finally
        {
            Interlocked.Decrement(ref waiting);
        }
    }

    /// <summary>
    /// Has what a large file took go before the next begins. Back to the machine it goes from whichever ends while nobody waits any more: the
    /// last may be a small one.
    /// </summary>
    public async Task GiveBack(bool large)
    {
        if (large)
        {
            GC.Collect(GC.MaxGeneration, GCCollectionMode.Forced, blocking: true, compacting: true);
            Volatile.Write(ref lastEnded, clock.GetTimestamp());
            Interlocked.Exchange(ref owed, 1);
        }

        while (Volatile.Read(ref waiting) == 0 && Volatile.Read(ref owed) == 1 && Interlocked.Exchange(ref givingBack, 1) == 0)
        {
            foreach (var after in rounds)
            {
                while (after - clock.GetElapsedTime(Volatile.Read(ref lastEnded)) is var left && left > TimeSpan.Zero)
                    await Task.Delay(left, clock);
                GC.Collect(GC.MaxGeneration, GCCollectionMode.Aggressive, blocking: true, compacting: true);
            }

            // One that ended since the last round was told that somebody is at it: it is owed still.
            if (clock.GetElapsedTime(Volatile.Read(ref lastEnded)) >= rounds[^1])
                Volatile.Write(ref owed, 0);
            Volatile.Write(ref givingBack, 0);
        }
    }

    public void Dispose() => turn.Dispose();
}
