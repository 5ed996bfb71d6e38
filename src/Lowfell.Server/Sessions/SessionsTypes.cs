using Lowfell.Core.Sessions;

namespace Lowfell.Server.Sessions;

/// <summary>
/// A layer on some pieces of a design, from when to when, and how long it lies wet: estimates. Beforehand gets its material ready and lays nothing yet. ClosesAt says until when what follows it
/// still works; Binds is its place in the chain that sets the finish. Both are null where there is none. PieceId is the first of its pieces:
/// with zone and layer it names the operation.
/// </summary>
public sealed record PlannedOperation(
    int Id, Guid SetId, Guid ZoneId, Guid LayerId, Guid PieceId, string Set, string Design, string Zone, int Number, string Technique, string Paint, string Colour, IReadOnlyList<string> Pieces, int OfPieces,
    DateTimeOffset Start, DateTimeOffset End, int WetMinutes, DateTimeOffset? ClosesAt, int? Binds, int Painter, bool Pinned, bool Beforehand);

/// <summary>A pot to have ready: what is in it, its thinning, and how much is needed in the session; an estimate.</summary>
public sealed record PotReady(string Words, string Thinned, double Ml, string Colour);

/// <summary>What to get ready before a session: what needs time beforehand, pots, tools, and the usual cautions.</summary>
public sealed record GetReady(IReadOnlyList<string> Prepare, IReadOnlyList<PotReady> Pots, IReadOnlyList<string> Tools, IReadOnlyList<string> Care);

/// <summary>A stretch at the bench with what is done in it.</summary>
public sealed record PlannedSession(Guid? Id, DateTimeOffset Start, DateTimeOffset End, int HandsOnMinutes, IReadOnlyList<PlannedOperation> Operations, GetReady Ready);

/// <summary>One of the facts that cannot be had together.</summary>
public sealed record PlannedClash(FactKind Fact, string Words);

/// <summary>A set that is wanted by a day, and when it is finished.</summary>
public sealed record PlannedDue(Guid SetId, string Set, DateOnly Due, DateTimeOffset? Finish, bool Met);

/// <summary>
/// The plan that was taken over: its number, and since when and for what reason it is as it is; how many pieces go together at most,
/// whether it is on the safe side, and what comes first.
/// </summary>
public sealed record KeptInfo(int Number, DateTimeOffset MadeAt, string Why, int? AtOnce, bool Careful, Goal Goal);

/// <summary>The plan no longer is what would be made today: what has changed, and what taking today's over would do, in a sentence.</summary>
public sealed record PlanNews(string Words, int Moved, DateTimeOffset? Finish);

/// <summary>
/// All sets of a workshop in one timetable. Kept is null where none was taken over: it is worked out for this moment then. News is null as
/// long as the plan holds. Hours are those it keeps to, guessed where nobody has said them; Finish is null where there is nothing to do, or
/// no timetable; nothing can end before SoonestFinish, or in fewer than FewestSessions. LeftOut are sets that wait until those before them
/// are done: a timetable holds only so much.
/// </summary>
public sealed record SessionsReading(
    Guid WorkshopId, string TimeZone, string Hours, bool HoursGuessed, IReadOnlyList<string> Painters, KeptInfo? Kept, PlanNews? News, DateTimeOffset? Finish, DateTimeOffset? SoonestFinish, int FewestSessions, int HandsOnMinutes,
    int IdleMinutes, int SetUps, string Binding, IReadOnlyList<PlannedDue> Due, IReadOnlyList<PlannedSession> Sessions, IReadOnlyList<PlannedClash> Clash, IReadOnlyList<string> LeftOut);

/// <summary>
/// A timetable to take over. Number is that of the plan it stands in for, 0 for none. Careful keeps waits and windows on the safe side;
/// the plan there is stays as it is in that and in its goal where closest is taken over.
/// </summary>
public sealed record TimetableIn(int? Number, TimetableOrigin? From, int? AtOnce = null, int? LateMinutes = null, bool Careful = false, Goal Goal = Goal.Soonest);

/// <summary>What is taken over.</summary>
public enum TimetableOrigin
{
    /// <summary>The best that is found today.</summary>
    Anew,

    /// <summary>The plan there is, with as little moved as can be.</summary>
    Closest,
}

/// <summary>An operation to be done in another session, which is named by an instant within it; null lets it go where it likes.</summary>
public sealed record OperationMoveIn(int? Number, Guid? ZoneId, Guid? LayerId, Guid? PieceId, DateTimeOffset? To, bool Beforehand = false);

public sealed record TimetableTold(Guid WorkshopId);

/// <summary>What beginning late does, before it is taken over.</summary>
public sealed record LateReading(string Words, IReadOnlyList<string> Moved, DateTimeOffset? Finish);

/// <summary>One way to do it otherwise. Finish is null where it cannot be had. AtOnce, Careful and Goal are what to take over to get it, where that is all it takes.</summary>
public sealed record Alternative(
    string Id, string Name, string Words, DateTimeOffset? Finish, int HandsOnMinutes, int Sessions, int IdleMinutes, int SetUps, double? OnTime, bool CanTake, int? AtOnce, bool Careful, Goal Goal);

/// <summary>A figure that moves the finish: by so many days from where it comes out well to where it comes out badly.</summary>
public sealed record InfluenceReading(string Name, double Days);

/// <summary>How the plan may come out: simulated, by the ranges of its figures.</summary>
public sealed record ChanceReading(double? OnTime, DateTimeOffset? Early, DateTimeOffset? Middle, DateTimeOffset? Late, int Trials, IReadOnlyList<InfluenceReading> Most);

/// <summary>A layer that is left out at a point of the trade.</summary>
public sealed record OmissionDto(Guid TreatmentId, Guid LayerId, string Words, double Minutes);

/// <summary>Minutes that remain against the difference that is seen from the table (CIEDE2000, by area); Out are those it leaves out beyond the point before.</summary>
public sealed record FitPointDto(double Minutes, double Difference, IReadOnlyList<OmissionDto> Out);

public sealed record FitReading(IReadOnlyList<FitPointDto> Points, IReadOnlyList<LeftOutDto> LeftOut);

/// <summary>A layer that is left out by now.</summary>
public sealed record LeftOutDto(Guid TreatmentId, Guid LayerId, string Words);

public sealed record OmissionIn(Guid? TreatmentId, Guid? LayerId);

public sealed record LeaveOutIn(IReadOnlyList<OmissionIn?>? Layers);

public sealed record LeftOutTold(Guid WorkshopId, int Layers);

/// <summary>The secret address of a calendar. The path is told once, when it is made.</summary>
public sealed record CalendarAddress(bool Exists, DateTimeOffset? MadeAt, string? Path);

public sealed record CalendarTold(Guid WorkshopId, Guid Id);
