namespace Lowfell.Store.Rows;

/// <summary>Why stock changed.</summary>
public enum StockMoveKind
{
    /// <summary>What was there when the material came onto the shelf; written by the database.</summary>
    Opening,

    Bought, Used, ThrownAway, Lent, Returned,

    /// <summary>Counted anew, or a move taken back.</summary>
    Corrected,
}

/// <summary>
/// One change of stock. Append-only: the database refuses to change or delete a move, keeps the material's stock the sum of its
/// moves, and writes a move itself when a stock is typed in.
/// </summary>
public sealed class StockMoveRow
{
    /// <summary>Made by the client, so that a move sent twice counts once.</summary>
    public Guid Id { get; init; }

    public Guid MaterialId { get; init; }
    public StockMoveKind Kind { get; init; }

    /// <summary>What it adds; below 0 what it takes.</summary>
    public decimal Ml { get; init; }

    public string Reason { get; init; } = "";
    public DateTimeOffset At { get; init; }

    /// <summary>The move that this one takes back.</summary>
    public Guid? UndoesId { get; init; }

    /// <summary>What it was used for: a pot made or topped up.</summary>
    public Guid? WorkEventId { get; init; }
}
