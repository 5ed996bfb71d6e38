using Lowfell.Core.Bench;

namespace Lowfell.Store.Rows;

/// <summary>How far a device is with what it tells from the bench: its events come in order, each once.</summary>
public sealed class BenchDeviceRow
{
    public Guid WorkshopId { get; init; }
    public required string Device { get; init; }

    /// <summary>The number of its newest event that was answered, refused ones too.</summary>
    public long LastNumber { get; set; }

    /// <summary>How far its clock is behind the server's, in milliseconds, when it was heard of last.</summary>
    public long BehindMs { get; set; }
    public DateTimeOffset SeenAt { get; set; }
}

/// <summary>
/// How far a layer of a zone is on a piece: what the events of these three come to. Kept in the transaction that adds an event, and the
/// same as a replay of the whole stream.
/// </summary>
public sealed class PieceLayerRow
{
    public Guid ZoneId { get; init; }
    public Guid LineId { get; init; }
    public Guid PieceId { get; init; }
    public PieceState State { get; set; }
    public DateTimeOffset? BegunAt { get; set; }

    /// <summary>How many coats of it are there, and when the last of them was laid.</summary>
    public int Coats { get; set; }
    public DateTimeOffset? DoneAt { get; set; }

    /// <summary>The event that laid it, by which layer, from which filling of which pot.</summary>
    public Guid? DoneById { get; set; }
    public Guid? LayerId { get; set; }
    public Guid? PotId { get; set; }
    public int? Filling { get; set; }
    public bool HotAir { get; set; }
    public int Wipes { get; set; }
    public int Mishaps { get; set; }
    public required string Why { get; set; }
    public bool Accepted { get; set; }
    public DateTimeOffset At { get; set; }
}

/// <summary>How long hands were on what an event laid.</summary>
public sealed class TakenTimeRow
{
    public Guid EventId { get; init; }
    public int Pieces { get; set; }
    public decimal Minutes { get; set; }

    /// <summary>It is taken into what is learned.</summary>
    public bool Counts { get; set; }
}

/// <summary>What a person decided about an event that did not fit.</summary>
public enum Settled
{
    /// <summary>It was taken in after all, as it was told.</summary>
    TakenIn,

    /// <summary>It was put right and taken in.</summary>
    Corrected,

    /// <summary>It is not wanted.</summary>
    LetGo,
}

/// <summary>
/// An event that a device told and that did not fit, or as much of it as did not: it is answered the same however often it is told, and
/// kept whole until a person settles it, and after.
/// </summary>
public sealed class BenchRefusalRow
{
    public Guid EventId { get; init; }
    public Guid WorkshopId { get; init; }
    public required string Device { get; init; }

    /// <summary>Its number among the events of its device; null where the device kept it from the line itself.</summary>
    public long? Number { get; init; }
    public required string Why { get; init; }

    /// <summary>Who told it, the whole event as JSON (of the pieces only those that did not fit), and when it happened as far as that is known.</summary>
    public string Actor { get; init; } = "";
    public string Told { get; init; } = "{}";
    public DateTimeOffset? HappenedAt { get; init; }
    public DateTimeOffset At { get; init; }

    /// <summary>What a person decided; null while nobody did. The event that it became, where it was taken in.</summary>
    public Settled? Settled { get; set; }
    public DateTimeOffset? SettledAt { get; set; }
    public string SettledBy { get; set; } = "";
    public Guid? BecameId { get; set; }
}
