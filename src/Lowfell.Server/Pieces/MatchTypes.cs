using Lowfell.Core.Order;
using Lowfell.Core.Pieces;
using Lowfell.Core.Sight;

namespace Lowfell.Server.Pieces;

/// <summary>A material in place of another.</summary>
public sealed record SwapIn(Guid? MaterialId, Guid? ById);

/// <summary>
/// So many more pieces like these. Dropped are deviations that are not to be repeated, by their ids; swaps are materials in place of others. Name is
/// what the new design is called.
/// </summary>
public sealed record MatchIn(IReadOnlyList<Guid>? PieceIds, int? Count, IReadOnlyList<string?>? Dropped = null, IReadOnlyList<SwapIn?>? Swaps = null, string? Name = null);

/// <summary>
/// In what the pieces were really done otherwise than planned, with how far that changes the finished zone (CIEDE2000, an estimate) and whether it
/// is seen from the table; kept unless it is dropped.
/// </summary>
public sealed record MatchDeviation(string Id, Guid ZoneId, string Zone, Deviation Kind, string Words, double Difference, Verdict Verdict, bool Kept);

/// <summary>What could stand in for a material: how far the finished zones lie off at most, and whether that is seen from the table.</summary>
public sealed record MatchSwap(Guid MaterialId, string Name, double Difference, Verdict Verdict, decimal StockMl, bool Chosen);

/// <summary>What the new pieces take of a material, and what the shelf has; stand-ins where that is too little.</summary>
public sealed record MatchNeed(Guid MaterialId, string Name, double Ml, decimal StockMl, bool Short, IReadOnlyList<MatchSwap> StandIns);

public sealed record MatchRemark(string Zone, Severity Severity, string Title);

/// <summary>What making more of them means. Like is the piece that stands for those that were chosen; minutes are hands-on, an estimate.</summary>
public sealed record MatchReading(
    string Design, string Like, int Count, string Name, IReadOnlyList<MatchDeviation> Deviations, IReadOnlyList<MatchNeed> Needs, IReadOnlyList<MatchRemark> Remarks, double Minutes);

/// <summary>What was made: a design of its own, so that what is planned for the new pieces is what was done on the old ones.</summary>
public sealed record Matched(Guid SetId, Guid DesignId, string Name, IReadOnlyList<string> Pieces);
