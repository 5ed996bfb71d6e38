using Lowfell.Core.Layers;

namespace Lowfell.Store.Rows;

/// <summary>The ordered layers of the surfaces of a piece, or of a part of it: a row of revisions, of which the newest is the plan.</summary>
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

    /// <summary>The surfaces of the newest revision, in their order; filled by <see cref="Revisions"/>.</summary>
    public List<RevisionSurfaceRow> Surfaces { get; } = [];

    /// <summary>The layers of the newest revision, bottom first; filled by <see cref="Revisions"/>.</summary>
    public List<LayerRow> Layers { get; } = [];

    /// <summary>Those of them that go over a surface.</summary>
    public IEnumerable<LayerOn> On(Guid surface) => from l in Layers from o in l.Over where o.SurfaceId == surface select new LayerOn { Layer = l, Lay = o };
}

/// <summary>A surface of a treatment, whatever it is called and wherever it stands in one version or another. What zones take.</summary>
public sealed class SurfaceRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid TreatmentId { get; init; }
}

/// <summary>A surface as a revision has it. Revisions between which no surface changes have the same rows.</summary>
public sealed class RevisionSurfaceRow
{
    public Guid TreatmentId { get; init; }
    public int Revision { get; init; }
    public int Position { get; init; }
    public Guid SurfaceId { get; init; }
    public required string Name { get; init; }

    /// <summary>The surface it stands on, where it is a detail of one.</summary>
    public Guid? OnId { get; init; }
}

/// <summary>A treatment as it stood at one time. Never changed: work points at the layers it was done by.</summary>
public sealed class TreatmentRevisionRow
{
    public Guid TreatmentId { get; init; }
    public int Number { get; init; }
    public DateTimeOffset StoredAt { get; init; }
    public required string Actor { get; init; }

    /// <summary>The revision whose surfaces it has: itself where they changed.</summary>
    public int SurfacesOf { get; init; }
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

/// <summary>
/// One application over one or more surfaces, and what they share of it. Its paint is either one material or a mix; parts are whole numbers, so
/// ratios stay exact. Never changed.
/// </summary>
public sealed class LayerRow : ILayerFigures
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid TreatmentId { get; init; }

    /// <summary>What it carries on from revision to revision, over all its surfaces: the layer as the painter knows it.</summary>
    public Guid StepId { get; init; } = Guid.CreateVersion7();
    public Technique Technique { get; set; }
    public Guid? MaterialId { get; set; }
    public Guid? MixId { get; set; }
    public Guid? ThinnerId { get; set; }
    public int? PaintParts { get; set; }
    public int? ThinnerParts { get; set; }
    public Tool Tool { get; set; }
    public DryingMode Drying { get; set; }

    /// <summary>Planned wait after it; null waits as long as it takes.</summary>
    public int? WaitMinutes { get; set; }
    public Preparation Preparation { get; set; }
    public string Note { get; set; } = "";
    public MixRow? Mix { get; set; }

    public int Coats { get; set; } = 1;
    public Region Region { get; set; }
    public bool Fades { get; set; }
    public decimal Strength { get; set; } = 1;
    public decimal? MarkMm { get; set; }
    public int? VariationSeed { get; set; }
    public Habit? VariationHabit { get; set; }
    public decimal? VariationMm { get; set; }
    public decimal? VariationMarks { get; set; }
    public decimal? VariationSpread { get; set; }
    public bool? VariationDealt { get; set; }
    public decimal? Details { get; set; }
    public Guid? DownTo { get; set; }
    public bool Optional { get; set; }

    /// <summary>Where it lies; at least one surface.</summary>
    public List<LayerSurfaceRow> Over { get; } = [];
}

/// <summary>What a layer has for all its surfaces, and may have different on one of them.</summary>
public interface ILayerFigures
{
    int Coats { get; set; }
    Region Region { get; set; }

    /// <summary>Full at one end of its region, nothing at the other.</summary>
    bool Fades { get; set; }
    decimal Strength { get; set; }

    /// <summary>Width of its marks on the model; null takes the technique's usual.</summary>
    decimal? MarkMm { get; set; }

    /// <summary>Seed of the plan that lays it differently on every piece.</summary>
    int? VariationSeed { get; set; }

    /// <summary>What the plan is asked for; null is as usual.</summary>
    Habit? VariationHabit { get; set; }
    decimal? VariationMm { get; set; }
    decimal? VariationMarks { get; set; }
    decimal? VariationSpread { get; set; }
    bool? VariationDealt { get; set; }

    /// <summary>Details on one piece on the mean; null counts them by the area.</summary>
    decimal? Details { get; set; }

    /// <summary>Step of the lowest layer that one which takes away may take; null takes all it can.</summary>
    Guid? DownTo { get; set; }
    bool Optional { get; set; }
}

/// <summary>A layer on one of its surfaces: the line that work, pins and remarks hang on there, and what is different. Never changed.</summary>
public sealed class LayerSurfaceRow : ILayerFigures
{
    public Guid TreatmentId { get; init; }
    public Guid LayerId { get; init; }
    public Guid SurfaceId { get; init; }

    /// <summary>The layer as the painter knows it on this surface, from revision to revision.</summary>
    public Guid LineId { get; init; }

    /// <summary>Which of the figures below count, as <see cref="Core.Treatments.Differs"/>; the others are as of a layer that says nothing.</summary>
    public int Differs { get; set; }
    public int Coats { get; set; } = 1;
    public Region Region { get; set; }
    public bool Fades { get; set; }
    public decimal Strength { get; set; } = 1;
    public decimal? MarkMm { get; set; }
    public int? VariationSeed { get; set; }
    public Habit? VariationHabit { get; set; }
    public decimal? VariationMm { get; set; }
    public decimal? VariationMarks { get; set; }
    public decimal? VariationSpread { get; set; }
    public bool? VariationDealt { get; set; }
    public decimal? Details { get; set; }
    public Guid? DownTo { get; set; }
    public bool Optional { get; set; }
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
