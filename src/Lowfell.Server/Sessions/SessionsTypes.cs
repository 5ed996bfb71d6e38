using Lowfell.Core.Sessions;

namespace Lowfell.Server.Sessions;

/// <summary>
/// A layer on some pieces of a design, from when to when, and how long it lies wet: estimates. ClosesAt says until when what follows it
/// still works; Binds is its place in the chain that sets the finish. Both are null where there is none.
/// </summary>
public sealed record PlannedOperation(
    int Id, Guid SetId, Guid ZoneId, Guid LayerId, string Set, string Design, string Zone, int Number, string Technique, string Paint, string Colour, IReadOnlyList<string> Pieces, int OfPieces,
    DateTimeOffset Start, DateTimeOffset End, int WetMinutes, DateTimeOffset? ClosesAt, int? Binds, int Painter);

/// <summary>A stretch at the bench with what is done in it.</summary>
public sealed record PlannedSession(DateTimeOffset Start, DateTimeOffset End, int HandsOnMinutes, IReadOnlyList<PlannedOperation> Operations);

/// <summary>One of the facts that cannot be had together.</summary>
public sealed record PlannedClash(FactKind Fact, string Words);

/// <summary>
/// All sets of a workshop in one timetable, worked out for this moment. Hours are those it keeps to, guessed where nobody has said them;
/// Finish is null where there is nothing to do, or no timetable; nothing can end before SoonestFinish, or in fewer than FewestSessions.
/// LeftOut are sets that wait until those before them are done: a timetable holds only so much.
/// </summary>
public sealed record SessionsReading(
    Guid WorkshopId, string TimeZone, string Hours, bool HoursGuessed, DateTimeOffset? Finish, DateTimeOffset? SoonestFinish, int FewestSessions, int HandsOnMinutes, int IdleMinutes, int SetUps,
    string Binding, IReadOnlyList<PlannedSession> Sessions, IReadOnlyList<PlannedClash> Clash, IReadOnlyList<string> LeftOut);
