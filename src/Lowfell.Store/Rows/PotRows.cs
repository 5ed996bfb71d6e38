using Lowfell.Core.Mixing.Pots;

namespace Lowfell.Store.Rows;

/// <summary>A mix actually made, as it stands now. What happened to it is in the stream of work; this is what that comes to.</summary>
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

    /// <summary>Counts how often what is in it was made another mix.</summary>
    public int Filling { get; set; }

    /// <summary>Everything that was ever put in and not taken back.</summary>
    public decimal FilledMl { get; set; }

    /// <summary>The newest event that still stands, and the last one that took something out.</summary>
    public Guid? NewestEventId { get; set; }
    public Guid? LastOutEventId { get; set; }
    public uint Version { get; init; }
    public List<PotContentRow> Contents { get; } = [];
}

/// <summary>How much of a material is in a pot, kept by the database as the sum of the events' amounts; never below zero.</summary>
public sealed class PotContentRow
{
    public Guid PotId { get; init; }
    public Guid MaterialId { get; init; }
    public decimal Ml { get; init; }
}
