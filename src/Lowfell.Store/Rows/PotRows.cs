using Lowfell.Core.Mixing.Pots;

namespace Lowfell.Store.Rows;

/// <summary>What happened to a pot.</summary>
public enum PotEventKind
{
    /// <summary>Mixed; its amounts came from the shelf.</summary>
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

    /// <summary>An event taken back.</summary>
    TakenBack,
}

/// <summary>A mix actually made. What is in it is the sum of its events; see <see cref="PotContentRow"/>.</summary>
public sealed class PotRow
{
    public Guid Id { get; init; }
    public Guid WorkshopId { get; init; }
    public required string Label { get; set; }
    public Vessel Vessel { get; set; }

    /// <summary>The recipe it was meant to be; a layer of the same recipe can be laid from it. Empty for one mixed freely.</summary>
    public string RecipeKey { get; init; } = "";

    public DateTimeOffset MadeAt { get; init; }

    /// <summary>Begin and end of its life where it is now: an estimate.</summary>
    public DateTimeOffset LifeBeganAt { get; set; }

    public DateTimeOffset GoodUntil { get; set; }
    public string Note { get; set; } = "";

    /// <summary>Touched by every event, so that two windows never work from the same state.</summary>
    public DateTimeOffset ChangedAt { get; set; }

    public uint Version { get; init; }
    public List<PotContentRow> Contents { get; } = [];
    public List<PotEventRow> Events { get; } = [];
}

/// <summary>How much of a material is in a pot, kept by the database as the sum of the events' amounts; never below zero.</summary>
public sealed class PotContentRow
{
    public Guid PotId { get; init; }
    public Guid MaterialId { get; init; }
    public decimal Ml { get; init; }
}

/// <summary>One thing that happened to a pot. Append-only, as its amounts and pieces are.</summary>
public sealed class PotEventRow
{
    /// <summary>Made by the client, so that an event sent twice counts once.</summary>
    public Guid Id { get; init; }

    public Guid PotId { get; init; }
    public PotEventKind Kind { get; init; }
    public DateTimeOffset At { get; init; }
    public string Note { get; init; } = "";

    /// <summary>The other pot of a joining or a split.</summary>
    public Guid? OtherPotId { get; init; }

    /// <summary>The event at the other pot that happened together with this one.</summary>
    public Guid? TwinId { get; init; }

    /// <summary>The event that this one takes back.</summary>
    public Guid? UndoesId { get; init; }

    /// <summary>Where it was laid: the zone, and the layer of its treatment, which may be gone by now.</summary>
    public Guid? ZoneId { get; init; }

    public Guid? LayerId { get; init; }
    public List<PotEventAmountRow> Amounts { get; } = [];
    public List<PotEventPieceRow> Pieces { get; } = [];
}

/// <summary>What an event puts in; below 0 what it takes. Drops as they were counted, where they were.</summary>
public sealed class PotEventAmountRow
{
    public Guid EventId { get; init; }
    public Guid MaterialId { get; init; }
    public decimal Ml { get; init; }
    public int? Drops { get; init; }
}

/// <summary>A piece that was painted from a pot.</summary>
public sealed class PotEventPieceRow
{
    public Guid EventId { get; init; }
    public Guid PieceId { get; init; }
}
