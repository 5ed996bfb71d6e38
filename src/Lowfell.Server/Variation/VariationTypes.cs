using Lowfell.Core.Bench;
using Lowfell.Core.Layers;
using Lowfell.Server.Stacks;

namespace Lowfell.Server.Variation;

/// <summary>A layer that is laid differently on every piece, or could be; Pieces it goes on over all zones of its treatment.</summary>
public sealed record VariationEntry(Guid TreatmentId, Guid LayerId, string Treatment, int Number, Technique Technique, string Paint, IReadOnlyList<string> Zones, int Pieces, bool Varied, bool HasMarks, bool CanBeDealt);

public sealed record VariationsReading(Guid SetId, Guid WorkshopId, IReadOnlyList<VariationEntry> Layers);

/// <summary>One mark on a face: its middle and size, mm; Heaviness as a factor on the usual.</summary>
public sealed record MarkReading(double X, double Y, double SizeMm, double Heaviness, string Words);

/// <summary>What was laid, where it came out otherwise than planned.</summary>
public sealed record MarksDone(int Marks, decimal? MeanMm, string Note, DateTimeOffset At);

/// <summary>What the plan has for a piece, and how far that is. Colour is that of its marks, or of the whole layer, on the finished face.</summary>
public sealed record VariationPiece(Guid PieceId, string Label, string Words, string Colour, IReadOnlyList<MarkReading> Marks, PieceState State, MarksDone? Done);

public sealed record AnchorReading(string Name, double X, double Y);

/// <summary>A face, unrolled, mm. Courses are the heights of joints that marks may lie on.</summary>
public sealed record FaceReading(double WidthMm, double HeightMm, bool Measured, IReadOnlyList<AnchorReading> Anchors, IReadOnlyList<double> Courses);

/// <summary>A zone with the plan for its pieces. Ground is its finished colour beside the marks.</summary>
public sealed record VariationZone(Guid ZoneId, string Zone, string Design, FaceReading Face, SurfaceDto Surface, PositionsDto Shares, string Ground, int Places, VariationFigures Figures, IReadOnlyList<VariationPiece> Pieces);

/// <summary>
/// What the plan comes to. Means, smallest and largest in mm across; Covers is its share of the face; LeastUsed and MostUsed are how often a place is;
/// SharedPlaces how often neighbours share one. Ml and minutes for all its pieces are estimates. Done and otherwise count pieces.
/// </summary>
public sealed record VariationFigures(
    double AskedMm, double MeanMm, double SmallestMm, double LargestMm, double MarksAPiece, double Covers, int LeastUsed, int MostUsed, int SharedPlaces, double Ml, double Minutes, int Done, int Otherwise, double? DoneMarks, double? DoneMm);

/// <summary>One material of a layer that deals them: its share as asked, how many pieces it comes to (half for two together), and what is on the shelf.</summary>
public sealed record DealtMaterial(Guid MaterialId, string Name, decimal Parts, double Share, double PieceShare, double NeedsMl, double StockMl);

/// <summary>The plan of a layer. Usual is what stands in where nothing is said; HabitByRegion, that the region of the layer says where its marks lie.</summary>
public sealed record VariationReading(
    Guid SetId, Guid WorkshopId, Guid TreatmentId, uint TreatmentVersion, string Treatment, Guid LayerId, int Number, Technique Technique, string Paint, VariedDto Varied, VariedDto Usual, double MostMarks, bool HabitByRegion, bool Kept, bool HasMarks, bool CanBeDealt,
    IReadOnlyList<DealtMaterial> Dealt, IReadOnlyList<VariationZone> Zones);

/// <summary>A plan to look at.</summary>
public sealed record VariationDraft(VariedDto? Varied);

/// <summary>A plan to keep, or none any more; ByShelf shares the materials as they are on the shelf.</summary>
public sealed record VariationIn(uint? TreatmentVersion, VariedDto? Varied, bool? ByShelf = null);

/// <summary>What was laid on a piece otherwise than planned; without a number of marks it is as planned after all.</summary>
public sealed record MarksDoneIn(Guid? ZoneId, Guid? PieceId, int? Marks, decimal? MeanMm = null, string? Note = null);

public sealed record VariationTold(Guid SetId, Guid TreatmentId, Guid LayerId);
