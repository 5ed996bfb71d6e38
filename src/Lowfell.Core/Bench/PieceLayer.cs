namespace Lowfell.Core.Bench;

/// <summary>How far a layer is on a piece.</summary>
public enum PieceState
{
    /// <summary>Nothing of it is there, whatever was tried.</summary>
    Open,

    /// <summary>Hands are on it.</summary>
    Begun,

    /// <summary>It was begun, and the hands are off it.</summary>
    Paused,

    /// <summary>Some of its coats are there, and not all.</summary>
    Partly,

    /// <summary>It is there.</summary>
    Done,

    /// <summary>It is left out.</summary>
    Skipped,
}

/// <summary>What is known of a layer on a piece: what its events come to.</summary>
public sealed record PieceLayer(PieceKey Key)
{
    public PieceState State { get; init; }

    /// <summary>When hands came onto it last.</summary>
    public DateTimeOffset? BegunAt { get; init; }

    /// <summary>How many coats of it are there.</summary>
    public int Coats { get; init; }

    /// <summary>When it was laid, the last coat of it; null where nothing of it is there.</summary>
    public DateTimeOffset? DoneAt { get; init; }

    /// <summary>The event that laid it, and by which layer, from which filling of which pot.</summary>
    public Guid? DoneBy { get; init; }
    public Guid? Layer { get; init; }
    public Guid? Pot { get; init; }
    public int? Filling { get; init; }

    /// <summary>It saw the dryer since it was laid.</summary>
    public bool HotAir { get; init; }

    /// <summary>How often it was wiped off, and how often something went wrong with it.</summary>
    public int Wipes { get; init; }
    public int Mishaps { get; init; }

    /// <summary>Why it is left out, or may be as it is.</summary>
    public string Why { get; init; } = "";

    /// <summary>How it differs from the others may stay.</summary>
    public bool Accepted { get; init; }

    /// <summary>When anything happened to it last.</summary>
    public DateTimeOffset At { get; init; }
}
