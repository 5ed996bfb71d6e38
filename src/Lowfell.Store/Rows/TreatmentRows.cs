using Lowfell.Core.Layers;

namespace Lowfell.Store.Rows;

/// <summary>The ordered layers of one or more zones. Every change of its layers touches <see cref="ChangedAt"/>, and so its version.</summary>
public sealed class TreatmentRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid WorkshopId { get; init; }
    public required string Name { get; set; }
    public DateTimeOffset ChangedAt { get; set; }
    public uint Version { get; init; }
    public List<LayerRow> Layers { get; } = [];
}

/// <summary>One application. Its paint is either one material or a mix; parts are whole numbers, so ratios stay exact.</summary>
public sealed class LayerRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid TreatmentId { get; init; }

    /// <summary>0 is the bottom.</summary>
    public int Position { get; set; }

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
