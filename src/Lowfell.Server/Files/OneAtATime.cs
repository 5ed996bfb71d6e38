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
    private int waiting, givingBack;
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

    /// <summary>Has what was taken go before the next begins, and back to the machine where nobody else is at it.</summary>
    public async Task GiveBack()
    {
        GC.Collect(GC.MaxGeneration, GCCollectionMode.Forced, blocking: true, compacting: true);
        Volatile.Write(ref lastEnded, clock.GetTimestamp());
        while (Volatile.Read(ref waiting) == 0 && Interlocked.Exchange(ref givingBack, 1) == 0)
        {
            foreach (var after in rounds)
            {
                while (after - clock.GetElapsedTime(Volatile.Read(ref lastEnded)) is var left && left > TimeSpan.Zero)
                    await Task.Delay(left, clock);
                GC.Collect(GC.MaxGeneration, GCCollectionMode.Aggressive, blocking: true, compacting: true);
            }

            Volatile.Write(ref givingBack, 0);

            // One that ended since the last round was told that somebody is at it.
            if (clock.GetElapsedTime(Volatile.Read(ref lastEnded)) >= rounds[^1])
                return;
        }
    }

    public void Dispose() => turn.Dispose();
}
