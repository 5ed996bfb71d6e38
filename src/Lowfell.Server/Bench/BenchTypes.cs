using Lowfell.Core.Bench;
using Lowfell.Core.Layers;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Server.Fillings;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Bench;

/// <summary>A pot that a layer can be laid from, with what is left in it, ml.</summary>
public sealed record BenchPot(Guid Id, string Label, decimal Ml);

/// <summary>One material of a mix: whole drops of its own bottle, brush-loads where it does not drip, and what one of them is, ml.</summary>
public sealed record BenchPart(Guid MaterialId, string Name, int Drops, bool BrushLoads, decimal UnitMl);

/// <summary>
/// What to mix for a task: what is in it, its thinning, whole drops and millilitres for all its pieces, and pots of it that are there
/// already. Key names the recipe; one material needs no mixing. An estimate.
/// </summary>
public sealed record BenchMix(string Key, string Words, string Thinned, double Ml, IReadOnlyList<BenchPart> Parts, IReadOnlyList<BenchPot> Pots);

/// <summary>A piece that a task is to be done on; Planned is what the plan of a varied layer has for it, in words, and empty without one.</summary>
public sealed record BenchPiece(Guid Id, string Label, PieceState State, DateTimeOffset? BegunAt, string Planned = "");

/// <summary>
/// By when something has to be done to what was just laid, counted from it, minutes: from when it can, until when it still can. What says
/// what it is, and Words how it is said aloud.
/// </summary>
public sealed record BenchWindow(string What, double OpensMinutes, double ClosesMinutes);

/// <summary>
/// One thing to do on some pieces. Minutes are hands-on estimates; wet until it may be touched, ready when what follows may go on.
/// Beforehand gets a material ready and lays nothing. Planned is when the timetable has it; null for work outside of it.
/// </summary>
public sealed record BenchTask(
    Guid SetId, Guid ZoneId, Guid LayerId, string Set, string Design, string Zone, int Number, Technique Technique, string Paint, string Colour, Silhouette Silhouette, string Tool, Region Region, bool Beforehand,
    double MinutesEach, double Minutes, double WetMinutes, double ReadyMinutes, bool TakesHotAir, BenchWindow? Window, BenchMix? Mix, IReadOnlyList<string> Watch, IReadOnlyList<string> Care,
    IReadOnlyList<KnownMishap> Mishaps, IReadOnlyList<BenchPiece> Pieces, DateTimeOffset? Planned);

/// <summary>What was laid lately and still asks for something: wet until TouchAt, ready for what follows at ReadyAt; ClosesAt is when what has to follow can no longer.</summary>
public sealed record BenchWet(
    Guid ZoneId, Guid LayerId, Guid PieceId, Guid EventId, string Design, string Zone, string Piece, Technique Technique, string Colour, DateTimeOffset DoneAt, DateTimeOffset TouchAt, DateTimeOffset ReadyAt, string? Closes,
    DateTimeOffset? OpensAt, DateTimeOffset? ClosesAt);

/// <summary>Something else that could be done now, outside of the session.</summary>
public sealed record BenchOther(Guid ZoneId, Guid LayerId, string Words, int Pieces);

/// <summary>An event that was not accepted, and why.</summary>
public sealed record BenchRefusal(Guid EventId, long Number, string Why);

/// <summary>What just happened, newest first, as it can be taken back.</summary>
public sealed record BenchStep(Guid EventId, WorkKind Kind, string Words, DateTimeOffset At, string Painter, bool Mine);

/// <summary>
/// The bench as it stands. Now is the server's clock. LastNumber is how far this device is with what it has told. Begins and Ends are those
/// of the session at hand, or of the next one. SetId is what a photograph is of while nothing is at hand. Measured where drying follows what
/// instruments said.
/// </summary>
public sealed record BenchReading(
    Guid WorkshopId, DateTimeOffset Now, long LastNumber, IReadOnlyList<string> Painters, DateTimeOffset? Begins, DateTimeOffset? Ends, string News, Guid? SetId,
    IReadOnlyList<BenchTask> Tasks, IReadOnlyList<BenchOther> Others, IReadOnlyList<BenchWet> Wet, IReadOnlyList<BenchStep> Steps, IReadOnlyList<BenchRefusal> Refused, bool Measured);

/// <summary>
/// One thing that happened at the bench. Id is made by the device, Number counts what that device has told. ToldAt is by its own clock. LayerId is
/// the layer's line. Minutes is what the painter said it took, where the timer was asked about; Ml is what was taken from the pot, as planned
/// where it is left out. A pot is made under an id of the device's, and topped up, with what really went in, for a zone.
/// </summary>
public sealed record BenchEventIn(
    Guid? Id, long? Number, WorkKind? Kind, DateTimeOffset? ToldAt, Guid? ZoneId = null, Guid? LayerId = null, IReadOnlyList<Guid>? PieceIds = null, Guid? PotId = null, decimal? Ml = null,
    string? Note = null, string? SavedBy = null, Guid? UndoesId = null, double? Minutes = null, string? Label = null, Vessel? Vessel = null, string? RecipeKey = null,
    IReadOnlyList<PortionIn?>? Amounts = null);

/// <summary>What a device has to tell, in order. SentAt is its clock at the moment of sending: by how far that is off, times are put right.</summary>
public sealed record BenchEventsIn(DateTimeOffset? SentAt, IReadOnlyList<BenchEventIn?>? Events);

/// <summary>What came of it: the number up to which everything is answered, those that were refused, and by how much the device's clock is behind, ms.</summary>
public sealed record BenchAnswer(long LastNumber, long BehindMs, IReadOnlyList<BenchRefusal> Refused);

public sealed record BenchTold(Guid WorkshopId, string Device, long From, long To);
