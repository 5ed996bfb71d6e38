using Lowfell.Core.Layers;

namespace Lowfell.Store.Rows;

/// <summary>The ordered layers of one or more zones: a row of revisions, of which the newest is the plan.</summary>
public sealed class TreatmentRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid WorkshopId { get; init; }
    public required string Name { get; set; }

    /// <summary>Number of the newest revision. Moves with every change, and so does the row's version.</summary>
    public int Revision { get; set; }
    public DateTimeOffset ChangedAt { get; set; }

    /// <summary>The treatment it began as a copy of, or was parted from.</summary>
    public Guid? CameFromId { get; init; }

    public DateTimeOffset? PutAwayAt { get; set; }
    public uint Version { get; init; }

    /// <summary>The layers of the newest revision, bottom first; filled by <see cref="Revisions"/>.</summary>
    public List<LayerRow> Layers { get; } = [];
}

/// <summary>A treatment as it stood at one time. Never changed: work points at the layers it was done by.</summary>
public sealed class TreatmentRevisionRow
{
    public Guid TreatmentId { get; init; }
    public int Number { get; init; }
    public DateTimeOffset StoredAt { get; init; }
    public required string Actor { get; init; }
    public List<RevisionLayerRow> Layers { get; } = [];
}

/// <summary>The name of a version that is worth keeping.</summary>
public sealed class VersionNameRow
{
    public Guid TreatmentId { get; init; }
    public int Number { get; init; }
    public required string Name { get; set; }
}

/// <summary>A layer's place in a revision; 0 is the bottom. A layer that a change left alone is the same row in both revisions.</summary>
public sealed class RevisionLayerRow
{
    public Guid TreatmentId { get; init; }
    public int Revision { get; init; }
    public int Position { get; init; }
    public Guid LayerId { get; init; }
}

/// <summary>One application. Its paint is either one material or a mix; parts are whole numbers, so ratios stay exact. Never changed.</summary>
public sealed class LayerRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid TreatmentId { get; init; }

    /// <summary>What it carries on from revision to revision: the layer as the painter knows it.</summary>
    public Guid LineId { get; init; } = Guid.CreateVersion7();
    public Technique Technique { get; set; }
    public Guid? MaterialId { get; set; }
    public Guid? MixId { get; set; }
    public Guid? ThinnerId { get; set; }
    public int? PaintParts { get; set; }
    public int? ThinnerParts { get; set; }
    public int Coats { get; set; } = 1;
    public Region Region { get; set; }
    public decimal Strength { get; set; } = 1;
    public Tool Tool { get; set; }
    public DryingMode Drying { get; set; }

    /// <summary>Planned wait after it; null waits as long as it takes.</summary>
    public int? WaitMinutes { get; set; }

    public bool Optional { get; set; }

    /// <summary>Width of its marks on the model; null takes the technique's usual.</summary>
    public decimal? MarkMm { get; set; }

    /// <summary>Seed of the plan that lays it differently on every piece.</summary>
    public int? VariationSeed { get; set; }

    /// <summary>What the plan is asked for; null is as usual.</summary>
    public Habit? VariationHabit { get; set; }
    public decimal? VariationMm { get; set; }
    public decimal? VariationMarks { get; set; }
    public decimal? VariationSpread { get; set; }
    public bool? VariationDealt { get; set; }

    /// <summary>Line of the lowest layer that one which takes away may take; null takes all it can.</summary>
    public Guid? DownTo { get; set; }

    /// <summary>Details on one piece on the mean; null counts them by the area.</summary>
    public decimal? Details { get; set; }

    /// <summary>Full at one end of its region, nothing at the other.</summary>
    public bool Fades { get; set; }

    public Preparation Preparation { get; set; }

    public string Note { get; set; } = "";
    public MixRow? Mix { get; set; }
}

/// <summary>A recipe in whole parts. The same recipe is stored once in a workshop.</summary>
public sealed class MixRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid WorkshopId { get; init; }
    public required string Name { get; set; }

    /// <summary>Components in a fixed order, so that the same recipe has the same key.</summary>
    public required string RecipeKey { get; init; }

    public List<MixComponentRow> Components { get; } = [];
}

public sealed class MixComponentRow
{
    public Guid MixId { get; init; }
    public Guid MaterialId { get; init; }
    public int Position { get; init; }
    public int Parts { get; init; }
}
