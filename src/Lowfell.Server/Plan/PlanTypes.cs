using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Order;
using Lowfell.Server.Stacks;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Plan;

/// <summary>
/// A layers-only request: what would this stack give? On a piece half done, how many layers are on it already and the minutes since the last.
/// While a slider is moving it may be answered by how the rest of the set stood a moment ago.
/// </summary>
public sealed record DraftIn(IReadOnlyList<LayerDto?>? Layers, int? Laid = null, double? MinutesSinceLast = null, bool? Moving = null);

/// <summary>What a layer takes of a material: ml as it is usually laid, by a thin and by a heavy hand; grams of what is weighed, the number of what is counted.</summary>
public sealed record NeedDto(Guid MaterialId, double Ml, double LowMl, double HighMl, double? Grams, int? Count);

/// <summary>
/// What is predicted of one layer. Colours are hex; films are dry um; minutes are estimates, low to high. Coats to hide are over
/// what really lies below; light left is the share of painted light still seen after each coat, where there is light below.
/// </summary>
public sealed record LayerReading(
    Guid Id, string Raised, string Field, string Recess, string Average, string WetRaised, string WetField, string WetRecess, PositionsDto Change, PositionsDto FilmUm, PositionsDto Cover,
    double NeededWaitMinutes, double NeededLowMinutes, double NeededHighMinutes, double HandsOnLowMinutes, double HandsOnHighMinutes, IReadOnlyList<NeedDto> Needs, bool HidingEstimated,
    int? CoatsToHide, IReadOnlyList<double>? LightLeft, IReadOnlyList<string> Care, string RecipeKey, IReadOnlyList<PartColours> Parts, RangeReading Range);

/// <summary>
/// Where hands end that lay every layer thinner or heavier than usual, nine of ten between the two; the layer that causes most of it, and
/// how much of the difference (CIEDE2000) it causes alone.
/// </summary>
public sealed record RangeAt(string Thin, string Heavy, double Difference, Guid? DecidesId, double Share);

/// <summary>The range at each position.</summary>
public sealed record RangeReading(RangeAt Raised, RangeAt Field, RangeAt Recess);

/// <summary>Colours of one part of a zone after a layer, and whether that layer lies there.</summary>
public sealed record PartColours(bool Lies, SeenAtPositions Dry, SeenAtPositions Wet);

/// <summary>A part of a zone that differs from the rest: "lower third", and its share of the zone, 0..1.</summary>
public sealed record PartDto(string Name, double Share);

/// <summary>How much of a material the whole set takes with this stack in place.</summary>
public sealed record SetNeedDto(Guid MaterialId, double Ml, double StockMl, string DrivenBy, double DrivenShare);

/// <summary>How near the finished zone comes to the colour wanted of it; met where a hand may end there as well as anywhere.</summary>
public sealed record TargetReading(Position Position, string Wanted, string Predicted, double Difference, string Words, bool Met);

/// <summary>Everything Lowfell says of a stack.</summary>
public sealed record Reading(
    string Ground, IReadOnlyList<LayerReading> Layers, IReadOnlyList<FindingDto> Findings, IReadOnlyList<SetNeedDto> SetNeeds, TargetReading? Target,
    IReadOnlyList<PartDto> Parts);

public sealed record ZoneDto(
    Guid Id, string Name, Guid DesignId, string DesignName, Substrate Substrate, int Pieces, decimal AreaCm2, Relief Relief,
    decimal Up, decimal Side, decimal Down, decimal Raised, decimal Field, decimal Recess, decimal EdgeMm, decimal JointMm, decimal SmallestDetailMm,
    Sheen? TargetSheen, string? TargetColour, Position? TargetPosition, bool CutEdge, bool BeforeAssembly, uint Version, SurfaceDto Surface);

/// <summary>
/// A zone with its treatment and what is said of it. Surface is the name of the one it takes, where the treatment has several; those are
/// named then, and what each layer of the zone goes over.
/// </summary>
public sealed record ZoneSheet(
    ZoneDto Zone, Guid TreatmentId, string TreatmentName, Guid SurfaceId, string? Surface, uint Version, int Revision, IReadOnlyList<string> SharedWith, IReadOnlyList<LayerDto> Layers, Reading Reading, IReadOnlyList<LeftOutLayer> LeftOut,
    IReadOnlyList<SurfaceWord> Surfaces, IReadOnlyList<LayerOver> Over);

/// <summary>A surface of a treatment by its name, and the one it stands on where it is a detail.</summary>
public sealed record SurfaceWord(Guid Id, string Name, Guid? OnId);

/// <summary>What a layer of a zone goes over: its step in the treatment, and all surfaces of that.</summary>
public sealed record LayerOver(Guid LayerId, Guid StepId, IReadOnlyList<Guid> Surfaces);

/// <summary>A layer that was left out of the treatment for want of time, and can be put back.</summary>
public sealed record LeftOutLayer(Guid LayerId, string Words);

public sealed record ZoneEntry(Guid Id, string Name, string? Colour, int Layers, int Stops, int Cautions, int Hints);

public sealed record DesignEntry(Guid Id, string Name, Silhouette Silhouette, Substrate Substrate, int Pieces, IReadOnlyList<ZoneEntry> Zones);

/// <summary>A set as the plan lists it.</summary>
public sealed record PlanOverview(
    Guid SetId, string Name, Guid WorkshopId, string WorkshopName, int Scale, decimal TableMetres, Sheen TargetSheen, Handling Handling,
    decimal TemperatureC, decimal RelativeHumidity, bool AirMoves, int Pieces, IReadOnlyList<DesignEntry> Designs);

/// <summary>A technique as the layer editor offers it, and whether it is one that usually goes over everything.</summary>
public sealed record TechniqueDto(Technique Technique, Laydown Laydown, Tool UsualTool, IReadOnlyList<MaterialKind> Suits, bool OverEverything);

/// <summary>Changes to a zone's measures. An empty target colour takes the target away.</summary>
public sealed record ZoneIn(
    uint? Version, string? Name, decimal? AreaCm2, Relief? Relief, decimal? EdgeMm, decimal? JointMm, decimal? Up, decimal? Side, decimal? Down,
    decimal? Raised, decimal? Field, decimal? Recess, Sheen? TargetSheen,
    string? TargetColour, Position? TargetPosition, bool? CutEdge = null, bool? BeforeAssembly = null);
