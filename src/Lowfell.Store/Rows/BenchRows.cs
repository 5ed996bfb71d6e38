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

/// <summary>An event that a device told and that was not accepted: it is answered the same however often it is told.</summary>
public sealed class BenchRefusalRow
{
    public Guid EventId { get; init; }
    public Guid WorkshopId { get; init; }
    public required string Device { get; init; }
    public long Number { get; init; }
    public required string Why { get; init; }
    public DateTimeOffset At { get; init; }
}
