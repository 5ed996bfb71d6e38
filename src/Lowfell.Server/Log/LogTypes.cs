using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Log;

/// <summary>A photograph. Pixels of the picture as it is kept; what it was taken at, of which piece.</summary>
public sealed record PhotoDto(Guid Id, Guid? EventId, Guid? PieceId, string Piece, Guid? ZoneId, string Zone, string Words, DateTimeOffset TakenAt, string Painter, int Width, int Height, bool PutAway, uint Version);

/// <summary>A photograph to keep. Data is a JPEG, PNG or WebP as base64; nothing but its pixels is kept.</summary>
public sealed record KeepPhotoIn(Guid? Id, string? Data, DateTimeOffset? TakenAt = null, Guid? EventId = null, Guid? PieceId = null, Guid? ZoneId = null, string? Words = null);

/// <summary>What is said of a photograph, of which piece it is, and whether it is put away.</summary>
public sealed record PhotoChangeIn(uint? Version, string? Words = null, Guid? PieceId = null, bool? PutAway = null);

/// <summary>Photographs, the newest first, and where the next page begins.</summary>
public sealed record PhotosPage(IReadOnlyList<PhotoDto> Photos, DateTimeOffset? Before);

/// <summary>
/// One thing that happened. Session is the evening it belongs to, by the workshop's calendar; minutes are what it took where that is known and
/// counts, estimated what it was thought to take. Guessed where what the device's clock said cannot be.
/// </summary>
public sealed record LogEntry(
    Guid Id, WorkKind Kind, DateTimeOffset At, DateOnly Session, string Painter, string Design, Guid? ZoneId, string Zone, int? Layer, string Technique, IReadOnlyList<string> Pieces, string Pot,
    decimal? Minutes, decimal? EstimateMinutes, bool Counts, string Note, string SavedBy, bool TakenBack, bool Guessed, IReadOnlyList<PhotoDto> Photos);

/// <summary>The air of an evening as it was measured, lowest and highest: Celsius, and relative humidity 0..1.</summary>
public sealed record EveningAir(DateOnly Session, double LowC, double HighC, double LowHumidity, double HighHumidity);

/// <summary>A varied layer that came out otherwise on a piece than its plan says: how many marks, of what mean size where that was measured, beside those planned.</summary>
public sealed record LogMarks(DateOnly Session, DateTimeOffset At, string Piece, string Zone, string Design, string Technique, int Marks, decimal? MeanMm, int Planned, double PlannedMm, string Note);

/// <summary>Part of the log, the newest first, with the air of its evenings where it was measured, and marks that came out otherwise. Next asks for what came before it; empty at the end.</summary>
public sealed record LogPage(Guid WorkshopId, Guid SetId, string Set, string TimeZone, IReadOnlyList<LogEntry> Entries, IReadOnlyList<EveningAir> Air, IReadOnlyList<LogMarks> Marks, string Next);

/// <summary>What was looked for, found: what it is, in words, and where it stands.</summary>
public sealed record Hit(HitKind Kind, Guid Id, string Title, string Words, DateTimeOffset? At, Guid? SetId, Guid? ZoneId);

public enum HitKind
{
    Log, Photo, Material, Pot, Treatment,
}

/// <summary>Everything found, the best first of each kind.</summary>
public sealed record Hits(string Of, IReadOnlyList<Hit> Found, bool More);

/// <summary>
/// What the log says of the minutes of a technique: the rule of thumb times the factor, four of five times between low and high, from so many
/// pieces in so many batches; batches that were too far off to believe are left out. InForce is the factor that is reckoned with; the minutes
/// are those of all that is still to do, as reckoned now and with what was learned.
/// </summary>
public sealed record LearnedMinutes(
    Technique Technique, int Pieces, int Batches, int LeftOut, double Factor, double Low, double High, double Error, double InForce, PaceFigures Figures, double MinutesNow, double MinutesThen);

/// <summary>What the log says of how soon a material is dry to the touch, minutes as on its label: now, learned, four of five times between low and high.</summary>
public sealed record LearnedDrying(Guid MaterialId, string Material, int Pieces, int LeftOut, double TouchMinutes, double Learned, double Low, double High, double Factor);

/// <summary>What was learned. Version is the workshop's.</summary>
public sealed record LearnedReading(Guid WorkshopId, uint Version, IReadOnlyList<LearnedMinutes> Minutes, IReadOnlyList<LearnedDrying> Drying);

/// <summary>Which material's drying times are to be as they were seen, and the factor that was shown.</summary>
public sealed record DryingIn(Guid? MaterialId, double? Factor);

/// <summary>So much of a material as really went into a pot; drops as they were counted, null where it was measured.</summary>
public sealed record RecordPart(string Name, decimal Ml, int? Drops);

/// <summary>A pot that was laid on this set: everything that was put in, in the order of the mix, and where it went.</summary>
public sealed record RecordPot(Guid Id, string Label, DateTimeOffset MadeAt, string Painter, IReadOnlyList<RecordPart> Parts, IReadOnlyList<string> Zones);

/// <summary>A trial that decided how a zone is laid.</summary>
public sealed record RecordTrial(Guid Id, string Name, string Zone, DateTimeOffset LaidOutAt);

/// <summary>What a printed record of a set has besides the cores of its zones: its pots, the trials that decided something, when work began and when it was last gone on with.</summary>
public sealed record RecordReading(
    Guid SetId, string TimeZone, DateTimeOffset? Begun, DateTimeOffset? Last, int Evenings, double Hours, IReadOnlyList<string> Painters, IReadOnlyList<RecordPot> Pots, IReadOnlyList<RecordTrial> Trials);
