namespace Lowfell.Core.Bench;

/// <summary>A layer of a zone on one piece.</summary>
/// <param name="Zone">The zone.</param>
/// <param name="Line">The line that the layer carries on through all versions of its treatment.</param>
/// <param name="Piece">The piece.</param>
public readonly record struct PieceKey(Guid Zone, Guid Line, Guid Piece);

/// <summary>A zone that a layer lies on, by the line that it has there.</summary>
/// <param name="Zone">The zone.</param>
/// <param name="Line">The line.</param>
public readonly record struct Target(Guid Zone, Guid Line)
{
    /// <summary>How many coats make the layer whole there, by the layer that was seen.</summary>
    public int Coats { get; init; } = 1;
}

/// <summary>One thing that happened to a layer on some pieces. Events that were taken back are not among those that are looked at.</summary>
/// <param name="Id">Its id.</param>
/// <param name="Sequence">Its place in the stream: decides between events of the same instant.</param>
/// <param name="At">When it happened: the clock of its device, put right by how far that is off.</param>
/// <param name="Device">The device it was told on.</param>
/// <param name="Kind">What happened.</param>
/// <param name="Zone">The zone.</param>
/// <param name="Line">The line of the layer.</param>
/// <param name="Pieces">The pieces.</param>
public sealed record BenchEvent(Guid Id, long Sequence, DateTimeOffset At, string Device, DoneKind Kind, Guid Zone, Guid Line, IReadOnlyList<Guid> Pieces)
{
    /// <summary>How many coats make the layer whole on its zone, by the layer that was seen.</summary>
    public int WholeCoats { get; init; } = 1;

    /// <summary>Zones that it is of as well: one layer goes over several.</summary>
    public IReadOnlyList<Target> Also { get; init; } = [];

    /// <summary>All zones it is of.</summary>
    public IEnumerable<Target> Targets => Also.Prepend(new Target(Zone, Line) { Coats = WholeCoats });

    /// <summary>How many coats were laid; null for all that were left.</summary>
    public int? Coats { get; init; }

    /// <summary>The layer of the revision it was done by.</summary>
    public Guid? Layer { get; init; }

    /// <summary>The pot it was laid from, and which filling of it.</summary>
    public Guid? Pot { get; init; }
    public int? Filling { get; init; }

    /// <summary>Why, or what.</summary>
    public string Note { get; init; } = "";

    /// <summary>What its pieces were thought to take together, minutes; null where nobody had said.</summary>
    public double? EstimateMinutes { get; init; }

    /// <summary>What they took, where the painter was asked; null where nobody asked.</summary>
    public double? SaidMinutes { get; init; }

    internal static int Order(BenchEvent a, BenchEvent b) => a.At != b.At ? a.At.CompareTo(b.At) : a.Sequence.CompareTo(b.Sequence);
}
