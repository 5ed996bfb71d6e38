namespace Lowfell.Store.Rows;

/// <summary>What a write came to, in few words, so that sending it again changes nothing and gives the same answer.</summary>
public sealed class WriteReceiptRow
{
    /// <summary>Made by the client.</summary>
    public Guid Id { get; init; }

    /// <summary>SHA-256 of method, path and body: the same id with another body is another write, and refused.</summary>
    public required byte[] BodyHash { get; init; }

    /// <summary>What is needed to tell the answer again: ids and versions, as JSON.</summary>
    public required string Told { get; init; }
    public DateTimeOffset At { get; init; }
}

/// <summary>An id whose receipt was pruned: known to be used, so that it is refused and not done twice.</summary>
public sealed class SpentWriteRow
{
    public Guid Id { get; init; }

    /// <summary>When its receipt was pruned: a year later the id itself goes.</summary>
    public DateTimeOffset At { get; init; }
}

/// <summary>What is read of a workshop in one piece, and changes in one piece.</summary>
public enum Slice
{
    /// <summary>Sets, designs, zones, pieces, treatments, house rules and climate.</summary>
    Plan,

    /// <summary>Materials and what was learned of them.</summary>
    Shelf,

    /// <summary>How much there is of each material.</summary>
    Stock,

    /// <summary>Pots and what was done.</summary>
    Work,

    /// <summary>Timetables that were taken over.</summary>
    Sessions,

    /// <summary>Other devices, and where they come in.</summary>
    Devices,
}

/// <summary>Counts the writes to one slice of a workshop: who holds that slice at this version holds it as it is.</summary>
public sealed class SliceVersionRow
{
    public Guid WorkshopId { get; init; }
    public Slice Slice { get; init; }
    public long Version { get; init; }
}
