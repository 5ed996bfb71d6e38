using Lowfell.Core.Estimates;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Stock;

/// <summary>A change of stock: ml above 0 whatever the kind, signed only for a correction. The id is made by the client.</summary>
public sealed record StockMoveIn(Guid? Id, Guid? MaterialId, StockMoveKind? Kind, decimal? Ml, string? Reason);

/// <summary>Moves that happen together: all of them or none.</summary>
public sealed record StockMovesIn(IReadOnlyList<StockMoveIn?>? Moves);

/// <summary>Takes a move back with one of its own.</summary>
public sealed record UndoMoveIn(Guid? Id);

public sealed record StockMoveDto(Guid Id, Guid MaterialId, StockMoveKind Kind, decimal Ml, string Reason, DateTimeOffset At, Guid? UndoesId, bool Undone);

/// <summary>Stock of a material after a write.</summary>
public sealed record StockDto(Guid MaterialId, decimal StockMl);

/// <summary>Something on the shelf that comes near and has enough to spare.</summary>
public sealed record AlternativeDto(Guid MaterialId, string Name, double Difference, double SpareMl);

/// <summary>One material against everything planned on the bench.</summary>
public sealed record ShoppingLine(
    Guid MaterialId, string Name, string Maker, StockState State, double NeedMl, decimal StockMl, double ShortMl, decimal PackMl, int Packs, decimal? Price, double? Cost, double LeftMl,
    string DrivenBy, double DrivenShare, IReadOnlyList<AlternativeDto> Alternatives);

/// <summary>What all sets of a workshop still take, shortest first; alternatives differ by at most so much (CIEDE2000). What is to be bought
/// and has no price or no pack size is counted, not added.</summary>
public sealed record ShoppingList(Guid WorkshopId, double Within, string Currency, double Cost, int Unpriced, IReadOnlyList<ShoppingLine> Lines);
