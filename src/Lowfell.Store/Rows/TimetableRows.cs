namespace Lowfell.Store.Rows;

/// <summary>A timetable that was taken over, with everything it was made from: the newest of a workshop is the one it goes by. Never changed.</summary>
public sealed class TimetableRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid WorkshopId { get; init; }

    /// <summary>Counts the timetables of a workshop.</summary>
    public int Number { get; init; }
    public DateTimeOffset MadeAt { get; init; }

    /// <summary>What it was made for, in a sentence.</summary>
    public required string Why { get; init; }

    /// <summary>The operations with their instants, as JSON.</summary>
    public required string Plan { get; init; }

    /// <summary>What it was made from, as JSON: hours, hands, and every treatment by its version.</summary>
    public required string Inputs { get; init; }
}

/// <summary>A layer that was left out of a treatment for want of time, and where it would lie.</summary>
public sealed class LeftOutRow
{
    public Guid TreatmentId { get; init; }
    public Guid LineId { get; init; }

    /// <summary>The layer as it was planned.</summary>
    public Guid LayerId { get; init; }

    /// <summary>The line it would lie on; null at the bottom.</summary>
    public Guid? OnLineId { get; init; }
    public DateTimeOffset At { get; init; }
}

/// <summary>A secret address under which the sessions of a workshop can be subscribed to; only a hash of it is kept.</summary>
public sealed class CalendarAddressRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid WorkshopId { get; init; }
    public required byte[] SecretHash { get; init; }
    public DateTimeOffset MadeAt { get; init; }
    public DateTimeOffset? RevokedAt { get; set; }
}
