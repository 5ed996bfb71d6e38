namespace Lowfell.Core.Sessions;

/// <summary>How long to look for something better: rounds make it the same on every machine, a budget makes it end.</summary>
/// <param name="Rounds">Timetables tried at most; null does not count them.</param>
/// <param name="Budget">Time at most; null does not look at the clock.</param>
/// <param name="Seed">Of the chance that moves are picked by.</param>
public sealed record SearchLimit(int? Rounds, TimeSpan? Budget, int Seed = 7)
{
    public CancellationToken Stop { get; init; }

    /// <summary>How many look side by side, each by a chance of its own.</summary>
    public int Side { get; init; } = 1;

    /// <summary>A timetable to begin with, where one is known: what comes of it is never worse. One that does not hold is passed over.</summary>
    public IReadOnlyList<Placement>? Begin { get; init; }

    /// <summary>The clock the budget is measured by.</summary>
    public TimeProvider Time { get; init; } = TimeProvider.System;

    /// <summary>Told now and then how far it is, 0..1, and what is best by then.</summary>
    public Action<double, Outcome>? Progress { get; init; }
}
