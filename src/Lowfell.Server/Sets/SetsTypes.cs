using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Sets;

/// <summary>A colour of a finished surface, and how much of the set it is, 0..1.</summary>
public sealed record ColourShare(string Colour, double Share);

/// <summary>
/// A set among the sets of its workshop: its facts, how far it is in layers counted on every piece, the outlines of its designs in their
/// order, and the colours of its zones as they will be, the largest first.
/// </summary>
public sealed record SetCard(
    Guid Id, uint Version, string Name, int Scale, decimal TableMetres, Handling Handling, Sheen TargetSheen, DateOnly? DueDate, int Rank, DateTimeOffset? PutAwayAt,
    int Designs, int Pieces, int LayersDone, int LayersAll, IReadOnlyList<Silhouette> Outlines, IReadOnlyList<ColourShare> Picture);

/// <summary>A set with everything that can be changed about it, those things put away too.</summary>
public sealed record SetSheet(
    Guid Id, uint Version, Guid WorkshopId, string Name, int Scale, decimal TableMetres, Handling Handling, Sheen TargetSheen, DateOnly? DueDate, decimal ReserveMl, int Rank,
    DateTimeOffset? PutAwayAt, IReadOnlyList<DesignSheet> Designs);

public sealed record DesignSheet(
    Guid Id, uint Version, string Name, Silhouette Silhouette, Substrate Substrate, int Position, DateTimeOffset? PutAwayAt, IReadOnlyList<PieceSheet> Pieces, IReadOnlyList<ZoneFacts> Zones);

/// <summary>A piece.</summary>
/// <param name="Id">The piece.</param>
/// <param name="Version">Of the row.</param>
/// <param name="Label">On the piece itself.</param>
/// <param name="RimNumber">On its rim.</param>
/// <param name="ParentId">The piece that this sub-assembly will be fixed to.</param>
/// <param name="Spare">Made besides what is wanted.</param>
/// <param name="Worked">Something was done on it: it can be put away, not removed.</param>
/// <param name="PutAwayAt">Since when.</param>
public sealed record PieceSheet(Guid Id, uint Version, string Label, string RimNumber, Guid? ParentId, bool Spare, bool Worked, DateTimeOffset? PutAwayAt);

/// <summary>Lengths and shares to begin with where none were measured.</summary>
public sealed record ZoneGuess(double JointMm, double EdgeMm, double Raised, double Field, double Recess, double SurfaceLengthMm, double SurfaceHeightMm);

public sealed record ZoneFacts(
    Guid Id, uint Version, string Name, int Position, decimal AreaCm2, Relief Relief, decimal Up, decimal Side, decimal Down, decimal Raised, decimal Field, decimal Recess,
    decimal EdgeMm, decimal JointMm, decimal SmallestDetailMm, decimal? FaceWidthMm, Handling? Handling, Sheen? TargetSheen, bool CutEdge, bool BeforeAssembly,
    SurfaceKind Surface, decimal? SurfaceLengthMm, decimal? SurfaceHeightMm, decimal? RivetMm, bool Across, IReadOnlyList<Guid> Touches,
    Guid TreatmentId, string Treatment, int SharedBy, bool Worked, ZoneGuess Guess, DateTimeOffset? PutAwayAt);

/// <summary>A surface as it is being typed in; what is left out is as usual at the set's scale.</summary>
public sealed record GuessIn(decimal? AreaCm2, Relief? Relief, SurfaceKind? Surface, decimal? SurfaceLengthMm, decimal? SurfaceHeightMm);

/// <summary>Changes of a set; what is left out stays as it is. Fields named in <paramref name="Clear"/> are made empty.</summary>
/// <param name="Version">The version it was changed from.</param>
/// <param name="Name">Its name.</param>
/// <param name="Scale">The n of 1:n.</param>
/// <param name="MeasuresFollow">With another scale: lengths, areas and surfaces become larger or smaller with it. Needed when the scale changes.</param>
/// <param name="TableMetres">From where it is looked at.</param>
/// <param name="Handling">How it is treated.</param>
/// <param name="TargetSheen">How it is to shine.</param>
/// <param name="DueDate">When it is wanted.</param>
/// <param name="ReserveMl">Kept back of each colour.</param>
/// <param name="Rank">Its place among the sets, from 0.</param>
/// <param name="Clear"><c>dueDate</c>.</param>
public sealed record SetIn(
    uint? Version, string? Name, int? Scale, bool? MeasuresFollow, decimal? TableMetres, Handling? Handling, Sheen? TargetSheen, DateOnly? DueDate, decimal? ReserveMl, int? Rank,
    IReadOnlyList<string>? Clear);

public sealed record DesignIn(uint? Version, string? Name, Silhouette? Silhouette, Substrate? Substrate, int? Position);

/// <summary>More pieces: so many, numbered on from those there are, or those with these labels.</summary>
public sealed record NewPiecesIn(int? Count, IReadOnlyList<string?>? Labels, bool? Spare, Guid? ParentId);

/// <summary>Changes of a piece. <paramref name="Clear"/> knows <c>parentId</c>.</summary>
public sealed record PieceIn(uint? Version, string? Label, string? RimNumber, Guid? ParentId, bool? Spare, Guid? DesignId, IReadOnlyList<string>? Clear);

/// <summary>A zone with whatever is known of it; what is left out is guessed.</summary>
public sealed record ZoneChange(
    uint? Version, string? Name, int? Position, Guid? DesignId, decimal? AreaCm2, Relief? Relief, decimal? Up, decimal? Side, decimal? Down, decimal? Raised, decimal? Field, decimal? Recess,
    decimal? EdgeMm, decimal? JointMm, decimal? SmallestDetailMm, decimal? FaceWidthMm, Handling? Handling, Sheen? TargetSheen, bool? CutEdge, bool? BeforeAssembly,
    SurfaceKind? Surface, decimal? SurfaceLengthMm, decimal? SurfaceHeightMm, decimal? RivetMm, bool? Across, IReadOnlyList<Guid>? Touches, Guid? TreatmentId, IReadOnlyList<string>? Clear, Guid? SurfaceId = null);

/// <summary>A copy: of this name, in this set or design; where left out, beside the original. WithWork has its pieces begin with what was done on the originals.</summary>
public sealed record CopyIn(string? Name, Guid? SetId = null, Guid? DesignId = null, bool? WithWork = null);

/// <summary>Takes designs out of another set into this one; all of them where none are named.</summary>
public sealed record MergeIn(Guid? FromSetId, IReadOnlyList<Guid>? Designs);

/// <summary>What a change came to: the thing, and the version it has now.</summary>
public sealed record Changed(Guid Id, uint Version);

/// <summary>What new pieces came to.</summary>
public sealed record PiecesMade(IReadOnlyList<Guid> Ids);

/// <summary>Whether it is gone for good in a month, or only put away because work refers to it.</summary>
public sealed record PutAwayOrRemoved(Guid Id, bool Removed, string Says);
