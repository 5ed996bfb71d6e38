namespace Lowfell.Store.Rows;

public enum JobState
{
    Waiting,
    Running,
    Done,
    Failed,
    Cancelled,
}

/// <summary>Work too long to wait for: any server takes it up, tells how far it is, and leaves what came of it as a blob.</summary>
public sealed class JobRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid WorkshopId { get; init; }

    /// <summary>Which job, and what it is about.</summary>
    public required string Kind { get; init; }
    public Guid SubjectId { get; init; }
    public JobState State { get; set; }

    /// <summary>Steps done, and of how many.</summary>
    public int Steps { get; set; }
    public int AllSteps { get; set; }
    public DateTimeOffset AskedAt { get; init; }

    /// <summary>When its server last said that it is at it; one that falls silent loses the job to another.</summary>
    public DateTimeOffset? SeenAt { get; set; }
    public DateTimeOffset? EndedAt { get; set; }
    public Guid? BlobId { get; set; }

    /// <summary>At which version of its subject it was done.</summary>
    public string At { get; set; } = "";

    /// <summary>How often it was taken up; what brings its server down is not taken up for ever.</summary>
    public int Tries { get; set; }
}

/// <summary>Bytes with their type: what a job came to, later pictures.</summary>
public sealed class BlobRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid WorkshopId { get; init; }
    public required string Type { get; init; }
    public required byte[] Bytes { get; init; }
    public DateTimeOffset At { get; init; }
}
