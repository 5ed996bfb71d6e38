namespace Lowfell.Core.Sessions;

/// <summary>How much of a search's limit is used up, by rounds where they are counted and by time otherwise.</summary>
internal sealed class Clock(SearchLimit limit, int lookEvery)
{
    private readonly long began = limit.Time.GetTimestamp();
    private int rounds, looked;
    private double time;

    public void Count()
    {
        rounds++;
        if (--looked > 0)
            return;
        looked = lookEvery;
        time = limit.Budget is { } budget ? limit.Time.GetElapsedTime(began) / budget : 0;
    }

    /// <summary>0 at the beginning, 1 when it is over.</summary>
    public double Now => Math.Max(limit.Rounds is { } most ? rounds / (double)most : 0, time);

    public double Share => Math.Min(1, Now);

    public bool Over => Now >= 1 || limit.Stop.IsCancellationRequested;

    public bool PastOr(double until) => Now >= until || Over;

    /// <summary>When a share of what is left is used up.</summary>
    public double Part(double share, double of = 1) => Now + share * (of - Now);
}
