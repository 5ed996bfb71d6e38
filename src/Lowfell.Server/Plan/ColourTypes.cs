using Lowfell.Core.Layers;
using Lowfell.Core.Sight;

using Lowfell.Server.Stacks;

namespace Lowfell.Server.Plan;

/// <summary>A colour wanted at a position of the finished zone, and the layer to choose a paint for.</summary>
public sealed record StartIn(IReadOnlyList<LayerDto?>? Layers, Guid? LayerId, Position? Position, string? Wanted, int? Count, bool? OutOfStockToo);

/// <summary>A way to start: what to put in this layer, and where the finished zone then ends; met where a hand may end at the wanted colour.</summary>
public sealed record StartDto(IReadOnlyList<PaintDto> Paint, DilutionDto? Dilution, int Coats, bool Hides, double Difference, string Words, string Raised, string Field, string Recess, bool Met);

/// <summary>A draft, and from how far away; the set's own distance when left out.</summary>
public sealed record SightDraftIn(IReadOnlyList<LayerDto?>? Layers, double? Metres);

/// <summary>What becomes of a layer's marks at the table; minutes are an estimate over all pieces of the design.</summary>
public sealed record DetailDto(
    Guid LayerId, Position Position, double Millimetres, MarkShape Shape, double Difference, Verdict Verdict, double LostBeyondMetres, double MinutesSaved);

/// <summary>A touching zone and how far apart the two stand from the table.</summary>
public sealed record NeighbourDto(Guid ZoneId, string Name, string Colour, double Difference, Verdict Verdict);

public sealed record SightReading(double Metres, string Average, IReadOnlyList<DetailDto> Details, IReadOnlyList<NeighbourDto> Neighbours);

/// <summary>Two stacks on one zone: the second is a treatment of the workshop or a draft.</summary>
public sealed record CompareIn(IReadOnlyList<LayerDto?>? Layers, Guid? TreatmentId, IReadOnlyList<LayerDto?>? With, Guid? SurfaceId = null);

/// <summary>Two stacks at one position. What is within the range of a hand is no difference: the same stack laid again may be as far off.</summary>
public sealed record ComparedPosition(Position Position, string Mine, string Other, double Difference, string Words, bool WithinHand);

public sealed record CompareReading(IReadOnlyList<LayerDto> OtherLayers, Reading Other, IReadOnlyList<ComparedPosition> Positions, ComparedPosition Average);

/// <summary>A treatment to compare with.</summary>
public sealed record TreatmentEntry(Guid Id, string Name, int Layers);

/// <summary>What was really seen after a layer. Without <c>store</c> it is only told what would change.</summary>
public sealed record ObserveIn(IReadOnlyList<LayerDto?>? Layers, Guid? LayerId, Position? Position, string? Observed, bool? Store);

/// <summary>How a look moves a material's strength; factors against the entry.</summary>
public sealed record ObserveReading(
    Guid MaterialId, string MaterialName, string Predicted, double Difference, string Words, string PredictedAfter, double DifferenceAfter,
    double HidingBefore, double TintBefore, double HidingAfter, double TintAfter, Guid? CalibrationId);

/// <summary>Colours of a zone's relief at one distance.</summary>
public sealed record SeenAt(string Raised, string Field, string Recess);

public sealed record TableZone(Guid ZoneId, string Name, Relief Relief, decimal Raised, decimal Field, decimal Recess, decimal AreaCm2, IReadOnlyList<SeenAt> Seen,
    TableParts? Parts, SurfaceDto Surface, IReadOnlyList<SeenAt>? Masked);

/// <summary>A zone with places that have layers of their own: what lies beside them all, and each of them, at each distance.</summary>
public sealed record TableParts(IReadOnlyList<SeenAt> Beside, IReadOnlyList<TablePlace> Places);

/// <summary>One place of a zone at each distance.</summary>
public sealed record TablePlace(Region Place, IReadOnlyList<SeenAt> Seen);

/// <summary>Two touching zones at each distance.</summary>
public sealed record TablePair(Guid First, Guid Second, IReadOnlyList<double> Differences, IReadOnlyList<Verdict> Verdicts);

/// <summary>A design from each of a row of distances, nearest first.</summary>
public sealed record TableReading(Guid DesignId, string Name, IReadOnlyList<double> Metres, IReadOnlyList<TableZone> Zones, IReadOnlyList<TablePair> Pairs);
