namespace Lowfell.Core.Sessions;

/// <summary>A stretch of bench time: minutes from zero, the end left out.</summary>
public readonly record struct Stretch(int Start, int End)
{
    public int Minutes => End - Start;
}

/// <summary>What has to be got ready before an operation and cleaned after it, and is shared while the next needs the same.</summary>
/// <param name="Id">Its name.</param>
/// <param name="Minutes">To get it ready.</param>
/// <param name="CleanMinutes">To clean it.</param>
/// <param name="Spray">It needs the spray place, and hours in which spraying is allowed.</param>
public sealed record SetUp(string Id, int Minutes, int CleanMinutes, bool Spray = false);

/// <summary>What has to be done before, and how long ago at least and at most: start of the later less end of the earlier, minutes.</summary>
/// <param name="Operation">Index of the earlier operation.</param>
/// <param name="MinWait">It dries so long; below 0 where the later may begin before the whole batch is through.</param>
/// <param name="MaxWait">Its window; null has none.</param>
public sealed record After(int Operation, int MinWait, int? MaxWait = null);

/// <summary>One thing done in one go, whole within a stretch, by one painter.</summary>
/// <param name="Id">Its name.</param>
/// <param name="Minutes">Hands on, hot air left out.</param>
/// <param name="SetUp">Index of what it needs; -1 for nothing.</param>
/// <param name="HotAirMinutes">The dryer held in hand at its end.</param>
/// <param name="WetMinutes">How long its pieces lie and may not be touched.</param>
public sealed record Operation(string Id, int Minutes, int SetUp = -1, int HotAirMinutes = 0, int WetMinutes = Operation.UsualWetMinutes)
{
    public const int UsualWetMinutes = 30;

    public IReadOnlyList<After> After { get; init; } = [];

    /// <summary>It cannot start before: what it waits for is done already, or it is pinned.</summary>
    public int NotBefore { get; init; }

    /// <summary>It cannot start after; null whenever it is.</summary>
    public int? NotAfter { get; init; }

    /// <summary>Minutes its painter is taken.</summary>
    public int Length => Minutes + HotAirMinutes;
}

/// <summary>By when some operations should be finished.</summary>
/// <param name="Minute">From zero.</param>
/// <param name="Operations">Their indices; none is in two.</param>
public sealed record Deadline(int Minute, IReadOnlyList<int> Operations);

/// <summary>What comes first once nothing is late.</summary>
public enum Goal
{
    /// <summary>The earliest last stretch, then the fewest stretches.</summary>
    Soonest,

    /// <summary>The fewest stretches, then the earliest last one.</summary>
    Fewest,
}

/// <summary>Everything a timetable has to keep to.</summary>
public sealed record Work
{
    /// <summary>When somebody is at the bench: ascending, not overlapping.</summary>
    public required IReadOnlyList<Stretch> Hours { get; init; }

    /// <summary>When spraying is allowed; null allows it whenever somebody is at the bench.</summary>
    public IReadOnlyList<Stretch>? Spraying { get; init; }

    public int Painters { get; init; } = 1;
    public IReadOnlyList<SetUp> SetUps { get; init; } = [];
    public required IReadOnlyList<Operation> Operations { get; init; }

    /// <summary>Of each pair the later waits until the earlier is dry to the touch.</summary>
    public IReadOnlyList<(int First, int Second)> NotWetTogether { get; init; } = [];

    /// <summary>How many operations' pieces can lie and dry at once; null has room for all.</summary>
    public int? DryingPlaces { get; init; }

    /// <summary>When all should be finished; null whenever it is.</summary>
    public int? Due { get; init; }

    /// <summary>Dates of some of the work, besides the one of all.</summary>
    public IReadOnlyList<Deadline> Deadlines { get; init; } = [];

    public Goal Goal { get; init; }
}

/// <summary>Where an operation lies in a timetable, minutes from zero.</summary>
public readonly record struct Placement(int Operation, int Start, int End, int Painter);

/// <summary>What a timetable comes to, in the order it is judged by.</summary>
/// <param name="Late">Minutes past the due date, those of each deadline added up.</param>
/// <param name="LastStretch">Index of the stretch in which all is finished.</param>
/// <param name="Sessions">Stretches in which something is done.</param>
/// <param name="Finish">End of the last operation.</param>
/// <param name="Idle">Minutes between the first and the last activity of a painter in a stretch in which nothing is done.</param>
/// <param name="SetUps">How often something is got ready.</param>
public readonly record struct Outcome(int Late, int LastStretch, int Sessions, int Finish, int Idle, int SetUps)
{
    /// <summary>Below 0 when this is the better of two.</summary>
    public int CompareTo(Outcome other, Goal goal)
    {
        ReadOnlySpan<(int Mine, int Theirs)> steps = goal == Goal.Soonest
            ? [(Late, other.Late), (LastStretch, other.LastStretch), (Sessions, other.Sessions), (Finish, other.Finish), (Idle, other.Idle), (SetUps, other.SetUps)]
            : [(Late, other.Late), (Sessions, other.Sessions), (LastStretch, other.LastStretch), (Finish, other.Finish), (Idle, other.Idle), (SetUps, other.SetUps)];
        foreach (var (mine, theirs) in steps)
            if (mine != theirs)
                return mine.CompareTo(theirs);
        return 0;
    }
}

/// <summary>A sound timetable.</summary>
public sealed record Timetable(IReadOnlyList<Placement> Placements, Outcome Outcome);
