namespace Lowfell.Store.Rows;

/// <summary>
/// One thing that was done to a plan, as it can be undone: what a write changed, row by row, is kept by the database with it
/// (<c>journal_changes</c>), whichever feature wrote.
/// </summary>
public sealed class JournalStepRow
{
    /// <summary>The key of the write; several writes of one gesture are one step.</summary>
    public Guid Id { get; init; }

    /// <summary>Given by the database: the order of things.</summary>
    public long Sequence { get; init; }
    public Guid WorkshopId { get; init; }
    public required string Actor { get; init; }
    public required string Device { get; init; }
    public DateTimeOffset At { get; init; }

    /// <summary>What was done, in a sentence.</summary>
    public required string Words { get; init; }

    /// <summary>Something was removed by it that may be brought back by itself.</summary>
    public bool Removes { get; init; }
    public DateTimeOffset? UndoneAt { get; init; }
}
