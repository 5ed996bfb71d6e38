namespace Lowfell.Core.Bench;

/// <summary>A layer of a zone on one piece.</summary>
/// <param name="Zone">The zone.</param>
/// <param name="Line">The line that the layer carries on through all versions of its treatment.</param>
/// <param name="Piece">The piece.</param>
public readonly record struct PieceKey(Guid Zone, Guid Line, Guid Piece);

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
