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

/// <summary>
/// A piece that a task is to be done on; Planned is what the plan of a varied layer has for it, in words, and empty without one. Coats is how many of
/// the layer's coats it has already.
/// </summary>
public sealed record BenchPiece(Guid Id, string Label, PieceState State, DateTimeOffset? BegunAt, string Planned = "", int Coats = 0);

/// <summary>A further zone that a task's layer goes over on the same pieces, by its line there; Different says in words what is different there, empty where nothing is.</summary>
public sealed record BenchAlso(Guid ZoneId, Guid LayerId, string Zone, string Colour, string Different);

/// <summary>
/// By when something has to be done to what was just laid, counted from it, minutes: from when it can, until when it still can. What says
/// what it is, and Words how it is said aloud.
/// </summary>
public sealed record BenchWindow(string What, double OpensMinutes, double ClosesMinutes);

/// <summary>
/// One thing to do on some pieces. Minutes are hands-on estimates; wet until it may be touched, ready when what follows may go on.
/// Beforehand gets a material ready and lays nothing. Planned is when the timetable has it; null for work outside of it. SeenId names the layer
/// as it is shown here: what is told of it later is of that, whatever becomes of the plan meanwhile. Also is where else it goes, in the same
/// stroke; Coats is in how many coats.
/// </summary>
public sealed record BenchTask(
    Guid SetId, Guid ZoneId, Guid LayerId, string Set, string Design, string Zone, int Number, Technique Technique, string Paint, string Colour, Silhouette Silhouette, string Tool, Region Region, bool Beforehand,
    double MinutesEach, double Minutes, double WetMinutes, double ReadyMinutes, bool TakesHotAir, BenchWindow? Window, BenchMix? Mix, IReadOnlyList<string> Watch, IReadOnlyList<string> Care,
    IReadOnlyList<KnownMishap> Mishaps, IReadOnlyList<BenchPiece> Pieces, DateTimeOffset? Planned, Guid SeenId, IReadOnlyList<BenchAlso> Also, int Coats);

/// <summary>What was laid lately and still asks for something: wet until TouchAt, ready for what follows at ReadyAt; ClosesAt is when what has to follow can no longer.</summary>
public sealed record BenchWet(
    Guid ZoneId, Guid LayerId, Guid PieceId, Guid EventId, string Design, string Zone, string Piece, Technique Technique, string Colour, DateTimeOffset DoneAt, DateTimeOffset TouchAt, DateTimeOffset ReadyAt, string? Closes,
    DateTimeOffset? OpensAt, DateTimeOffset? ClosesAt);

/// <summary>Something else that could be done now, outside of the session.</summary>
public sealed record BenchOther(Guid ZoneId, Guid LayerId, string Words, int Pieces);

/// <summary>A further zone that an event is of, and the layer's line there.</summary>
public sealed record AlsoIn(Guid? ZoneId, Guid? LayerId);

/// <summary>An event that did not fit, and why; PieceIds are those that did not, where the others were taken in.</summary>
public sealed record BenchRefusal(Guid EventId, long Number, string Why, IReadOnlyList<Guid>? PieceIds = null);

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
/// One thing that happened at the bench. Id is made by the device, Number counts what that device has told. ToldAt is by its own clock; Epoch and
/// Tick, OffsetMs and AheadMs say what else it knows of that clock, so that one that is put right in between moves what was told. LayerId is
/// the layer's line. Minutes is what the painter said it took, where the timer was asked about; Ml is what was taken from the pot, as planned
/// where it is left out. SeenId is the layer as the device saw it; left out, it is as it is planned on arrival. Also is where else it was done, of the
/// same layer and on the same pieces; Coats is how many coats were laid, all that were left where it is left out. A pot is made under an id of the device's, and topped up, with what really went in, for a zone.
/// </summary>
public sealed record BenchEventIn(
    Guid? Id, long? Number, WorkKind? Kind, DateTimeOffset? ToldAt, Guid? ZoneId = null, Guid? LayerId = null, Guid? SeenId = null, IReadOnlyList<Guid>? PieceIds = null, Guid? PotId = null, decimal? Ml = null,
    string? Note = null, string? SavedBy = null, Guid? UndoesId = null, double? Minutes = null, string? Label = null, Vessel? Vessel = null, string? RecipeKey = null,
    IReadOnlyList<PortionIn?>? Amounts = null, Guid? Epoch = null, double? Tick = null, double? OffsetMs = null, double? AheadMs = null, IReadOnlyList<AlsoIn?>? Also = null, int? Coats = null)
{
    internal ToldInstant Instant => new(ToldAt ?? default, Epoch, Tick, OffsetMs, AheadMs);
}

/// <summary>What a device has to tell, in order. SentAt is its clock at the moment of sending, Epoch and Tick the run of its page and how long that has run, ms.</summary>
public sealed record BenchEventsIn(DateTimeOffset? SentAt, IReadOnlyList<BenchEventIn?>? Events, Guid? Epoch = null, double? Tick = null);

/// <summary>What came of it: the number up to which everything is answered, those that did not fit, and by how much the device's clock is behind, ms.</summary>
public sealed record BenchAnswer(long LastNumber, long BehindMs, IReadOnlyList<BenchRefusal> Refused);

public sealed record BenchTold(Guid WorkshopId, string Device, long From, long To);

/// <summary>A piece of an event that did not fit, by its label where it still has one.</summary>
public sealed record UnfitPiece(Guid Id, string Label);

/// <summary>
/// An event that did not fit, kept whole: what happened in words, when as far as that is known, on which device, and why it did not fit. Told is the event as
/// JSON; empty where only its reason was kept. Settled is what a person decided about it.
/// </summary>
public sealed record Unfit(
    Guid Id, string Words, DateTimeOffset? HappenedAt, DateTimeOffset At, string Device, string Actor, string Why, string Told, WorkKind? Kind, Guid? ZoneId, Guid? LayerId, IReadOnlyList<UnfitPiece> Pieces, string Note,
    Settled? Settled, DateTimeOffset? SettledAt, string SettledBy);

/// <summary>What did not fit: what waits for somebody to decide, and the newest of what was decided.</summary>
public sealed record UnfitReading(Guid WorkshopId, int Waiting, IReadOnlyList<Unfit> Entries);

/// <summary>Something that a device keeps because it could not even be read: as it stands there, and why.</summary>
public sealed record UnfitIn(Guid? Id, string? Told, string? Why, DateTimeOffset? ToldAt);

/// <summary>An event that did not fit, put right: what is left out stays as it was told.</summary>
public sealed record UnfitChange(Guid? ZoneId, Guid? LayerId, IReadOnlyList<Guid>? PieceIds, string? Note);

public sealed record UnfitTold(Guid WorkshopId, Guid Id);
