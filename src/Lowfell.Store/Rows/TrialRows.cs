using Lowfell.Core.Layers;

namespace Lowfell.Store.Rows;

/// <summary>
/// What is to be found out on a tile before the set: a treatment as it was then, and what is varied about it. Kept as it was made, whatever
/// becomes of the treatment.
/// </summary>
public sealed class TrialRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid WorkshopId { get; init; }

    /// <summary>The zone whose treatment it came from: its ground is that of the tile, and its set is the trial's.</summary>
    public Guid ZoneId { get; init; }
    public required string Name { get; set; }
    public decimal TileWidthMm { get; set; }
    public decimal TileHeightMm { get; set; }
    public bool Round { get; set; }

    /// <summary>The relief of the tile, where it has not that of the zone.</summary>
    public Relief? Relief { get; set; }

    /// <summary>Stack and factors as JSON, in the words of the API.</summary>
    public required string Body { get; set; }

    /// <summary>The field that was chosen, by the levels of its factors; empty while none is.</summary>
    public string Chosen { get; set; } = "";

    /// <summary>The tile as a design of its set, once it was put on the bench.</summary>
    public Guid? DesignId { get; set; }
    public DateTimeOffset CreatedAt { get; init; }
    public DateTimeOffset? PutAwayAt { get; set; }
    public uint Version { get; init; }
}

/// <summary>A colour that was seen in one field of a trial.</summary>
public sealed class TrialLookRow
{
    public Guid TrialId { get; init; }

    /// <summary>The field, by the levels of its factors: "0 2".</summary>
    public required string Cell { get; init; }
    public Position Position { get; init; }
    public required string Observed { get; set; }
    public DateTimeOffset At { get; set; }
}
