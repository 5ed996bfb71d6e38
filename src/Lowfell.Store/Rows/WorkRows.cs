namespace Lowfell.Store.Rows;

/// <summary>What happened at the bench.</summary>
public enum WorkKind
{
    /// <summary>A pot was mixed; its amounts came from the shelf.</summary>
    Made,

    /// <summary>More put in from the shelf, thinner too.</summary>
    ToppedUp,

    /// <summary>Another pot was poured in.</summary>
    Joined,

    /// <summary>Part of it, or all, was poured into another pot.</summary>
    PouredOut,

    /// <summary>It began as part of another pot.</summary>
    SplitOff,

    /// <summary>Laid on pieces.</summary>
    Given,

    ThrownAway,

    /// <summary>Counted anew: what dried up or was measured wrongly.</summary>
    Corrected,

    /// <summary>Moved to another vessel.</summary>
    Moved,

    /// <summary>It came over with a copy of its piece: done as the twin says.</summary>
    CarriedOver,

    /// <summary>Hands came onto a layer of some pieces.</summary>
    Begun,

    /// <summary>The hands are off it for a while.</summary>
    Paused,

    /// <summary>Left out on these pieces, for a reason.</summary>
    Skipped,

    /// <summary>Wiped off, to be tried once more.</summary>
    Wiped,

    /// <summary>Something went wrong, and what saved it.</summary>
    Mishap,

    /// <summary>Dried with the dryer.</summary>
    HotAir,

    /// <summary>It was found to be dry to the touch.</summary>
    TouchedDry,

    /// <summary>Something to remember.</summary>
    Noted,

    /// <summary>A difference between pieces that is to stay, for a reason.</summary>
    Accepted,

    /// <summary>An event taken back.</summary>
    TakenBack,
}

/// <summary>
/// One thing that happened. All work of a workshop is one stream, in the order of <see cref="Sequence"/>: clocks are told and kept, and
/// decide nothing. Append-only, as its amounts and pieces are.
/// </summary>
public sealed class WorkEventRow
{
    /// <summary>Made by the client, so that an event sent twice counts once.</summary>
    public Guid Id { get; init; }

    /// <summary>Given by the database: the order of things.</summary>
    public long Sequence { get; init; }
    public Guid WorkshopId { get; init; }

    /// <summary>Who did it, and on which device.</summary>
    public required string Actor { get; init; }
    public required string Device { get; init; }
    public WorkKind Kind { get; init; }

    /// <summary>When it happened by the clock of the device, and when the server heard of it.</summary>
    public DateTimeOffset ToldAt { get; init; }
    public DateTimeOffset ReceivedAt { get; init; }

    /// <summary>When it happened: the clock of the device, put right by how far that was off.</summary>
    public DateTimeOffset At { get; init; }

    /// <summary>That the instant is a guess, because what the device's clock said cannot be; null where it is believed.</summary>
    public string? Clock { get; init; }

    /// <summary>A clock that could not be believed.</summary>
    public const string Guessed = "guessed";

    /// <summary>The how-many-eth event of its device at the bench; null for what was told elsewhere.</summary>
    public long? DeviceNumber { get; init; }

    /// <summary>What its pieces were thought to take together, and what the painter said they took, minutes.</summary>
    public decimal? EstimateMinutes { get; init; }
    public decimal? SaidMinutes { get; init; }
    public string Note { get; init; } = "";

    /// <summary>What saved it, when something went wrong.</summary>
    public string SavedBy { get; init; } = "";
    public Guid? PotId { get; init; }

    /// <summary>The other pot of a joining or a split.</summary>
    public Guid? OtherPotId { get; init; }

    /// <summary>The event at the other pot that happened together with this one.</summary>
    public Guid? TwinId { get; init; }

    /// <summary>The event that this one takes back.</summary>
    public Guid? UndoesId { get; init; }

    /// <summary>The newest event of the pot that still stood when this one came: what stands again once this one is taken back.</summary>
    public Guid? BeforeId { get; init; }

    /// <summary>When the pot would have gone bad had this not been poured in; set where that made it sooner.</summary>
    public DateTimeOffset? GoodUntilBefore { get; init; }

    /// <summary>Where it was laid: the zone, the layer of the revision it was done by, and the line that layer carries on.</summary>
    public Guid? ZoneId { get; init; }
    public Guid? LayerId { get; init; }
    public Guid? LineId { get; init; }

    /// <summary>Which filling of the pot it was laid from.</summary>
    public int? Filling { get; init; }

    /// <summary>How many coats were laid; null for all that were left.</summary>
    public int? Coats { get; init; }

    /// <summary>Zones that it is of as well, of the same layer.</summary>
    public List<WorkAlsoRow> Also { get; } = [];
    public List<WorkAmountRow> Amounts { get; } = [];
    public List<WorkPieceRow> Pieces { get; } = [];
}

/// <summary>What an event puts into its pot; below 0 what it takes. Drops as they were counted, where they were.</summary>
public sealed class WorkAmountRow
{
    public Guid EventId { get; init; }
    public Guid MaterialId { get; init; }
    public decimal Ml { get; init; }
    public int? Drops { get; init; }
}

/// <summary>A further zone that an event is of: one layer goes over several, each under a line of its own.</summary>
public sealed class WorkAlsoRow
{
    public Guid EventId { get; init; }
    public Guid ZoneId { get; init; }
    public Guid LineId { get; init; }
}

/// <summary>A piece that an event was done to.</summary>
public sealed class WorkPieceRow
{
    public Guid EventId { get; init; }
    public Guid PieceId { get; init; }
}

/// <summary>
/// That a piece has a layer of a zone, from which filling of which pot: what the stream comes to, kept by the database as events come
/// in and are taken back.
/// </summary>
public sealed class DoneLayerRow
{
    public long Id { get; init; }
    public Guid ZoneId { get; init; }
    public Guid LineId { get; init; }
    public Guid PieceId { get; init; }
    public Guid? PotId { get; init; }
    public int? Filling { get; init; }

    /// <summary>The first event that laid it, and its place in the stream.</summary>
    public Guid EventId { get; init; }
    public long Sequence { get; init; }

    /// <summary>How often; a row that comes to 0 goes.</summary>
    public int Times { get; init; }
}
