namespace Lowfell.Store.Rows;

/// <summary>A finding that the painter lives with, and why. It counts as long as the facts stay; taken back, it is kept as history.</summary>
public sealed class AcceptedFindingRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid ZoneId { get; init; }
    public required string Rule { get; init; }

    /// <summary>The layer it hangs on; no foreign key, since the layer may go while the history stays.</summary>
    public Guid LayerId { get; init; }

    /// <summary>The facts it rested on; see the core's order check.</summary>
    public required string Facts { get; init; }

    /// <summary>What it said, for the history.</summary>
    public required string Why { get; init; }

    public required string Reason { get; init; }
    public DateTimeOffset AcceptedAt { get; init; }
    public DateTimeOffset? TakenBackAt { get; set; }
}
