using Lowfell.Core.Bench;
using Lowfell.Core.Layers;
using Lowfell.Core.Pieces;
using Lowfell.Core.Sight;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Pieces;

/// <summary>A layer of the treatment, or one that only lies on pieces: then it has no number. Colour is that of the plan.</summary>
public sealed record CoreLine(Guid LayerId, int? Number, string Technique, string Paint, string Colour);

/// <summary>How far a layer is on a piece. Turn counts what lies on it, the first one 1; Colour is predicted from what is really there.</summary>
public sealed record CoreCell(Guid LayerId, PieceState State, int? Turn, string? Colour, string? Pot, DateTimeOffset? At, int Wipes, int Mishaps, string Why);

/// <summary>One difference: the colour it makes (CIEDE2000, an estimate), whether it is seen from the table, and what to do.</summary>
public sealed record CoreDifferenceDto(Guid LayerId, CoreFault Fault, double Difference, Verdict Verdict, string Words, string Todo, bool Accepted);

/// <summary>What is really on one piece.</summary>
public sealed record CorePiece(Guid Id, string Label, IReadOnlyList<CoreCell> Cells, IReadOnlyList<CoreDifferenceDto> Differences);

/// <summary>The cores of one zone on all pieces of its design, side by side. Lines come bottom first.</summary>
public sealed record CoresReading(Guid WorkshopId, Guid SetId, Guid DesignId, Guid ZoneId, string Design, string Zone, IReadOnlyList<CoreLine> Lines, IReadOnlyList<CorePiece> Pieces);

/// <summary>Something that happened to a piece.</summary>
public sealed record StoryEvent(Guid Id, WorkKind Kind, string Zone, string Technique, string Pot, string Note, string SavedBy, string Painter, DateTimeOffset At, DateOnly Session, bool TakenBack);

/// <summary>The story of one piece, newest first; its evenings are those of the workshop's own time zone.</summary>
public sealed record StoryReading(Guid PieceId, string Label, string Design, string TimeZone, IReadOnlyList<StoryEvent> Events);
