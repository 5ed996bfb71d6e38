namespace Lowfell.Store.Rows;

/// <summary>What was really laid of a varied layer on one piece, where it came out otherwise than its plan says.</summary>
public sealed class MarksDoneRow
{
    public Guid ZoneId { get; init; }

    /// <summary>The layer's line.</summary>
    public Guid LineId { get; init; }
    public Guid PieceId { get; init; }
    public int Marks { get; set; }

    /// <summary>Their mean size across; null where nobody measured.</summary>
    public decimal? MeanMm { get; set; }

    /// <summary>Where they are, in words.</summary>
    public string Note { get; set; } = "";
    public DateTimeOffset At { get; set; }
}

/// <summary>How the tops of the bases of a design are laid out.</summary>
public sealed class BasePlanRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid WorkshopId { get; init; }
    public Guid DesignId { get; init; }

    /// <summary>What is wanted on every base, and what was moved, added and taken away by hand, as JSON in the words of the API.</summary>
    public required string Body { get; set; }
    public DateTimeOffset CreatedAt { get; init; }
    public uint Version { get; init; }
}
