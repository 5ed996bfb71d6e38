using System.Text.Json.Serialization;
using Lowfell.Core.Sessions;

namespace Lowfell.Server.Calc;

/// <summary>What is got ready before an operation and cleaned after it, minutes; spray needs the spray place and hours for it.</summary>
[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Disallow)]
public sealed record SetUpIn(string? Id, int? Minutes, int? CleanMinutes, bool? Spray = null);

/// <summary>What comes before, and how many minutes after its end this one starts: at least, and at most where there is a window.</summary>
[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Disallow)]
public sealed record AfterIn(string? Operation, int? MinWait = null, int? MaxWait = null);

/// <summary>One thing done in one go, minutes.</summary>
[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Disallow)]
public sealed record OperationIn(string? Id, int? Minutes, string? Setup = null, int? HotAirMinutes = null, int? WetMinutes = null, IReadOnlyList<AfterIn?>? After = null);

/// <summary>
/// Work to make a timetable of; all times are whole minutes from zero. Hours are stretches at the bench, [start, end], ascending, not
/// overlapping; spraying those in which it is allowed, left out all of them.
/// </summary>
[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Disallow)]
public sealed record ScheduleIn(
    IReadOnlyList<int[]?>? Hours, IReadOnlyList<int[]?>? Spraying = null, int? Painters = null, IReadOnlyList<SetUpIn?>? Setups = null, IReadOnlyList<OperationIn?>? Operations = null,
    IReadOnlyList<string?[]?>? NotWetTogether = null, int? DryingPlaces = null, int? Due = null, Goal? Goal = null, int? BudgetMilliseconds = null, int? Seed = null);

public sealed record PlacementOut(string Operation, int Start, int End, int Painter);

/// <summary>What no timetable of this work can be better than.</summary>
public sealed record BoundOut(int LastStretch, int Sessions, int Finish);

/// <summary>What the finish hangs on: in words, and the operations in turn.</summary>
public sealed record BindingOut(string Words, IReadOnlyList<string> Operations);

/// <summary>One of the facts that cannot be had together.</summary>
public sealed record ClashOut(FactKind Fact, IReadOnlyList<string> Operations, string Words);

/// <summary>A timetable, or why there is none.</summary>
public sealed record ScheduleOut(
    bool Feasible, IReadOnlyList<PlacementOut> Placements, int? Finish, int? Late, int? LastStretch, int? SessionsUsed, int? IdleMinutes, int? SetUps, BoundOut? Bound, BindingOut? Binding,
    IReadOnlyList<ClashOut> Clash);
