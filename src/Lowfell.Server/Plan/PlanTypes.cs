using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Order;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Plan;

public sealed record PaintDto(Guid MaterialId, decimal Parts);

public sealed record DilutionDto(Guid ThinnerId, decimal Paint, decimal Thinner);

/// <summary>One layer as it is edited. Layers always travel bottom first.</summary>
public sealed record LayerDto(
    Guid Id, Technique Technique, IReadOnlyList<PaintDto> Paint, DilutionDto? Dilution, int Coats, Region Region, decimal Strength,
    Tool Tool, DryingMode Drying, int? WaitMinutes, bool Optional, string Note);

/// <summary>A layers-only request: what would this stack give?</summary>
public sealed record DraftIn(IReadOnlyList<LayerDto?>? Layers);

/// <summary>A whole stack to store, and the version it was edited from.</summary>
public sealed record StackIn(uint? Version, IReadOnlyList<LayerDto?>? Layers);

/// <summary>Figures for raised, field and recess.</summary>
public sealed record PositionsDto(double Raised, double Field, double Recess);

public sealed record NeedDto(Guid MaterialId, double Ml);

/// <summary>What is predicted of one layer. Colours are hex; films are dry um; minutes are estimates, low to high.</summary>
public sealed record LayerReading(
    Guid Id, string Raised, string Field, string Recess, string Average, string WetField, PositionsDto Change, PositionsDto FilmUm, PositionsDto Cover,
    double NeededWaitMinutes, double HandsOnLowMinutes, double HandsOnHighMinutes, IReadOnlyList<NeedDto> Needs, bool HidingEstimated);

/// <summary>An edit of a remedy; indices are bottom first, counted just before this edit.</summary>
public sealed record EditDto(EditKind Op, int At, int? To, LayerDto? Layer);

public enum EditKind
{
    Insert, Remove, Move, Replace,
}

public sealed record RemedyDto(string Id, string Text, IReadOnlyList<EditDto> Edits);

public sealed record FindingDto(string Rule, Severity Severity, IReadOnlyList<Guid> Layers, string Title, string Why, IReadOnlyList<RemedyDto> Remedies);

/// <summary>How much of a material the whole set takes with this stack in place.</summary>
public sealed record SetNeedDto(Guid MaterialId, double Ml, double StockMl, string DrivenBy, double DrivenShare);

/// <summary>Everything Lowfell says of a stack.</summary>
public sealed record Reading(
    string Ground, IReadOnlyList<LayerReading> Layers, IReadOnlyList<FindingDto> Findings, IReadOnlyList<SetNeedDto> SetNeeds);

public sealed record ZoneDto(
    Guid Id, string Name, Guid DesignId, string DesignName, Substrate Substrate, int Pieces, decimal AreaCm2, Relief Relief,
    decimal Up, decimal Side, decimal Down, decimal Raised, decimal Field, decimal Recess, decimal EdgeMm, decimal JointMm, decimal SmallestDetailMm,
    Sheen? TargetSheen, uint Version);

/// <summary>A zone with its treatment and what is said of it.</summary>
public sealed record ZoneSheet(ZoneDto Zone, Guid TreatmentId, string TreatmentName, uint Version, IReadOnlyList<string> SharedWith, IReadOnlyList<LayerDto> Layers, Reading Reading);

public sealed record ZoneEntry(Guid Id, string Name, string? Colour, int Layers, int Stops, int Cautions, int Hints);

public sealed record DesignEntry(Guid Id, string Name, Silhouette Silhouette, Substrate Substrate, int Pieces, IReadOnlyList<ZoneEntry> Zones);

/// <summary>A set as the plan lists it.</summary>
public sealed record PlanOverview(
    Guid SetId, string Name, Guid WorkshopId, string WorkshopName, int Scale, decimal TableMetres, Sheen TargetSheen, Handling Handling,
    decimal TemperatureC, decimal RelativeHumidity, int Pieces, IReadOnlyList<DesignEntry> Designs);

/// <summary>A technique as the layer editor offers it.</summary>
public sealed record TechniqueDto(Technique Technique, Laydown Laydown, Tool UsualTool, IReadOnlyList<MaterialKind> Suits);

/// <summary>Changes to a zone's measures.</summary>
public sealed record ZoneIn(
    uint? Version, string? Name, decimal? AreaCm2, Relief? Relief, decimal? EdgeMm, decimal? JointMm, decimal? Up, decimal? Side, decimal? Down,
    decimal? Raised, decimal? Field, decimal? Recess, Sheen? TargetSheen);
