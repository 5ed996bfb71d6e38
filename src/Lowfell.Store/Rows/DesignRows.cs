using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Store.Rows;

/// <summary>Which outline stands for a design.</summary>
public enum Silhouette
{
    Wall, Corner, House, Cottage, Jetty, Boat, Base,
}

/// <summary>A kind of piece.</summary>
public sealed class DesignRow
{
    public Guid Id { get; init; } = Guid.CreateVersion7();
    public Guid SetId { get; set; }
    public required string Name { get; set; }
    public Silhouette Silhouette { get; set; }
    public Substrate Substrate { get; set; }
    public int Position { get; set; }

    /// <summary>Since when it is out of the lists; what was done on it stays.</summary>
    public DateTimeOffset? PutAwayAt { get; set; }
    public uint Version { get; init; }
    public List<ZoneRow> Zones { get; } = [];
    public List<PieceRow> Pieces { get; } = [];
}

/// <summary>A surface of a design with its own layers.</summary>
public sealed class ZoneRow
{
    public Guid Id { get; init; } = InOrder.NewId();
    public Guid DesignId { get; set; }
    public Guid TreatmentId { get; set; }

    /// <summary>The surface of its treatment that it takes.</summary>
    public Guid SurfaceId { get; set; }
    public required string Name { get; set; }

    /// <summary>Its turn among the zones of its set, given once by the database: plans of variation begin with it.</summary>
    public int? Number { get; init; }
    public int Position { get; set; }
    public decimal AreaCm2 { get; set; }
    public Relief Relief { get; set; }
    public decimal UpShare { get; set; }
    public decimal SideShare { get; set; }
    public decimal DownShare { get; set; }
    public decimal RaisedShare { get; set; }
    public decimal FieldShare { get; set; }
    public decimal RecessShare { get; set; }
    public decimal EdgeMm { get; set; }
    public decimal JointMm { get; set; }
    public decimal SmallestDetailMm { get; set; } = 1;

    /// <summary>How wide its face is, unrolled; null takes it from area and edges.</summary>
    public decimal? FaceWidthMm { get; set; }

    /// <summary>How it is handled when that differs from the set.</summary>
    public Handling? Handling { get; set; }

    /// <summary>A sheen of its own, such as gloss for glass.</summary>
    public Sheen? TargetSheen { get; set; }

    /// <summary>The colour wanted on the finished zone, and where it is wanted; both or neither.</summary>
    public string? TargetColour { get; set; }

    public Position? TargetPosition { get; set; }

    /// <summary>The surface is itself a cut edge of board or plaster.</summary>
    public bool CutEdge { get; set; }

    /// <summary>Out of a brush's reach once the piece is assembled.</summary>
    public bool BeforeAssembly { get; set; }

    /// <summary>What the surface is made of, and its sizes on the model; null takes the usual.</summary>
    public SurfaceKind Surface { get; set; }
    public decimal? SurfaceLengthMm { get; set; }
    public decimal? SurfaceHeightMm { get; set; }

    /// <summary>From rivet to rivet; null has none.</summary>
    public decimal? RivetMm { get; set; }

    /// <summary>Boards and ribs that run up and down rather than along.</summary>
    public bool Across { get; set; }

    public DateTimeOffset? PutAwayAt { get; set; }
    public uint Version { get; init; }
    public TreatmentRow? Treatment { get; set; }
}

/// <summary>Two zones that touch each other; stored once, the smaller id first.</summary>
public sealed class ZoneTouchRow
{
    public Guid FirstZoneId { get; init; }
    public Guid SecondZoneId { get; init; }
}

/// <summary>One instance of a design.</summary>
public sealed class PieceRow
{
    public Guid Id { get; init; } = InOrder.NewId();
    public Guid DesignId { get; set; }

    /// <summary>Its turn among the pieces of its design, given once by the database and not again: plans over pieces go by it.</summary>
    public int? Number { get; init; }
    public required string Label { get; set; }
    public string RimNumber { get; set; } = "";

    /// <summary>The piece that this sub-assembly will be fixed to.</summary>
    public Guid? ParentId { get; set; }

    /// <summary>Made besides what is wanted: painted with the others, and not missed.</summary>
    public bool Spare { get; set; }

    public DateTimeOffset? PutAwayAt { get; set; }

    public uint Version { get; init; }
}
