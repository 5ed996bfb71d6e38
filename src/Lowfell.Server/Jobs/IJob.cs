using Lowfell.Store.Rows;

namespace Lowfell.Server.Jobs;

/// <summary>How far a job is; its runner looks now and then.</summary>
public sealed class JobProgress
{
    private int steps, all;

    public int Steps => Volatile.Read(ref steps);
    public int All => Volatile.Read(ref all);

    /// <summary>Says how many steps there are.</summary>
    public void Of(int count) => Volatile.Write(ref all, count);

    /// <summary>Says that some more are done; any thread may.</summary>
    public void Done(int count) => Interlocked.Add(ref steps, count);
}

/// <summary>What a job came to: the version of its subject that it holds for, and the answer as bytes.</summary>
public sealed record JobResult(string At, string Type, byte[] Bytes);

/// <summary>A kind of work that takes too long to be waited for. It writes nothing itself and can be begun again at any time.</summary>
public interface IJob
{
    /// <summary>The word it is asked for by.</summary>
    string Kind { get; }

    /// <summary>Does it; null when its subject is gone.</summary>
    Task<JobResult?> Run(JobRow job, JobProgress progress, CancellationToken stop);
}
