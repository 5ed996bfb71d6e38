using Lowfell.Core.Layers;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Core.Sight;
using Lowfell.Server.Fillings;
using Lowfell.Server.Stacks;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Pots;

/// <summary>So much of a material, ml; drops as they were counted.</summary>
public sealed record PortionDto(Guid MaterialId, string Name, decimal Ml, int? Drops = null);

/// <summary>A pot to make. The id of the event makes it count once; with bottleHadMore a bottle that held more than the books say is corrected first.</summary>
public sealed record PotIn(Guid? Id, Guid? EventId, string? Label, Vessel? Vessel, string? RecipeKey, IReadOnlyList<PortionIn?>? Amounts, string? Note = null, bool? BottleHadMore = null);

/// <summary>Something that happens to a pot: the id is made by the client, the version is the pot's as it was seen.</summary>
public interface IPotStep
{
    Guid? Id { get; }
    uint? Version { get; }
    string? Note => null;

    /// <summary>Other pots it happens to as well, with their versions; without one where the step itself looks at how the other stands.</summary>
    IEnumerable<(Guid Id, uint? Version)> Others => [];
}

public sealed record TopUpIn(Guid? Id, uint? Version, IReadOnlyList<PortionIn?>? Amounts, string? Note = null, bool? BottleHadMore = null) : IPotStep;
public sealed record JoinIn(Guid? Id, uint? Version, Guid? OtherId, uint? OtherVersion) : IPotStep
{
    IEnumerable<(Guid Id, uint? Version)> IPotStep.Others => OtherId is { } other ? [(other, OtherVersion)] : [];
}

public sealed record SplitIn(Guid? Id, uint? Version, Guid? NewPotId, decimal? Ml, string? Label, Vessel? Vessel) : IPotStep;

/// <summary>Laid on pieces. Without ml, what the plan says they take, at most what is in the pot.</summary>
public sealed record GiveIn(Guid? Id, uint? Version, Guid? ZoneId, Guid? LayerId, IReadOnlyList<Guid>? PieceIds, decimal? Ml = null, string? Note = null) : IPotStep;

/// <summary>Thrown away: so much, or all of it.</summary>
public sealed record ThrowAwayIn(Guid? Id, uint? Version, decimal? Ml = null, string? Note = null) : IPotStep;

/// <summary>What is really left, ml.</summary>
public sealed record CorrectIn(Guid? Id, uint? Version, decimal? LeftMl, string? Note = null) : IPotStep;
public sealed record MoveIn(Guid? Id, uint? Version, Vessel? Vessel) : IPotStep;
public sealed record TakeBackIn(Guid? Id, uint? Version) : IPotStep;

/// <summary>Taking a pouring back, which happens to both pots.</summary>
public sealed record UnpourIn(Guid? Id, uint? Version, Guid OtherId) : IPotStep
{
    IEnumerable<(Guid Id, uint? Version)> IPotStep.Others => [(OtherId, null)];
}

/// <summary>A ratio to bring a pot to, an amount to fill it up to, or another pot to pour into it.</summary>
public sealed record PotAskIn(decimal? Paint, decimal? Thinner, Guid? ThinnerId, decimal? Ml = null, Guid? OtherId = null);

/// <summary>What to put in, and what it makes.</summary>
public sealed record PotAnswer(IReadOnlyList<PortionDto> Add, decimal TotalMl, IReadOnlyList<Drawdown> Drawdowns, double Difference, IReadOnlyList<PotRemarkDto> Remarks, string Says);

/// <summary>A pot as it stands. Life is an estimate.</summary>
public sealed record PotDto(
    Guid Id, uint Version, string Label, Vessel Vessel, string RecipeKey, DateTimeOffset MadeAt, DateTimeOffset LifeBeganAt, DateTimeOffset GoodUntil, string Note, decimal Ml, decimal MadeMl,
    IReadOnlyList<PortionDto> Contents, string Dilution, string Colour, IReadOnlyList<Drawdown> Drawdowns, double? OffRecipe, IReadOnlyList<PotPiece> Pieces);

/// <summary>A piece that got a pot, and where.</summary>
public sealed record PotPiece(Guid PieceId, string Label, Guid ZoneId, string Zone, Guid LayerId);

/// <summary>One thing that happened, newest first.</summary>
public sealed record PotEventDto(Guid Id, WorkKind Kind, DateTimeOffset At, string Note, IReadOnlyList<PortionDto> Amounts, string OtherPot, string Where, IReadOnlyList<string> Pieces, bool TakenBack, bool CanTakeBack);

/// <summary>A pot and a page of what happened to it; there is more when it says so.</summary>
public sealed record PotHistory(PotDto Pot, IReadOnlyList<PotEventDto> Events, bool More);

/// <summary>One layer that a mix goes on, with the pieces that still want it.</summary>
public sealed record MixPlace(Guid ZoneId, string Zone, Guid LayerId, int Number, Technique Technique, Tool Tool, double Ml, int Pieces, Guid DesignId, IReadOnlyList<int> Done);

/// <summary>The pieces of a design, W2 before W10; places tell by their index which of them are done.</summary>
public sealed record MixDesign(Guid Id, IReadOnlyList<MixDesignPiece> Pieces);

public sealed record MixDesignPiece(Guid Id, string Label);


public sealed record MixPiece(Guid Id, string Label, bool Done);

public sealed record MixPartDto(Guid MaterialId, string Name, string Colour, bool Thinner, string Parts, double Percent);

/// <summary>A mix that the plan calls for: what it still takes over the set, what pots of it hold, and what the shelf allows.</summary>
public sealed record MixDto(
    string RecipeKey, string Name, string Dilution, string Colour, bool NeedsMixing, IReadOnlyList<MixPartDto> Parts, double Ml, double InPotsMl, double ShortMl, string ShortOf, string Drives, double DrivesShare, IReadOnlyList<MixPlace> Places);

/// <summary>The mixes of a set and a page of pots: those with something in them first, then the newest; there are more when it says so.</summary>
public sealed record PotsReading(Guid SetId, Guid WorkshopId, IReadOnlyList<MixDesign> Designs, IReadOnlyList<MixDto> Mixes, IReadOnlyList<PotDto> Pots, bool More);

/// <summary>One pot or several for a mix: estimates.</summary>
public sealed record AdviceDto(Vessel Vessel, int Pots, decimal EachMl, double WorkMinutes, double Difference, double CarryShare, string Says);

/// <summary>How the amount of one layer comes about, ml; and one sitting of it.</summary>
public sealed record AmountLine(
    Guid ZoneId, string Zone, Guid LayerId, int Number, Technique Technique, Tool Tool, string Paint, string RecipeKey, int Pieces, double OnSurfaceMl, double TransferLossMl, int Fills, double FillLossMl, double MarginMl, double TotalMl,
    double LowMl, double HighMl, double? Grams, int Things, IReadOnlyList<double> SittingsMl);

/// <summary>What is kept back of a mix, for corrections and for pieces to come.</summary>
public sealed record ReserveLine(string RecipeKey, string Paint, double Ml);

/// <summary>Every layer that takes something, and what is kept back besides; the total has both.</summary>
public sealed record AmountsReading(int PiecesASitting, double TotalMl, double LowMl, double HighMl, IReadOnlyList<AmountLine> Lines, ReserveDto Reserve, IReadOnlyList<ReserveLine> Reserves);

/// <summary>So many ml of every ground and finishing colour of a set are kept back.</summary>
public sealed record ReserveDto(Guid SetId, decimal Ml, uint Version);
public sealed record ReserveIn(decimal? Ml, uint? Version);

/// <summary>A way to go on when a pot ran out: the finished colours beside those of the pieces that are done.</summary>
public sealed record RemixDto(
    string RecipeKey, string Name, bool Same, IReadOnlyList<PortionDto> Amounts, string Dilution, string Raised, string Field, string Recess, double Difference, double FromTheTable, Verdict Verdict, string Words, string Seam);

/// <summary>Where a batch stands when its pot ran out.</summary>
public sealed record RanOut(
    string Pot, Guid ZoneId, string Zone, Guid LayerId, IReadOnlyList<MixPiece> Pieces, double NeededMl, decimal LeftMl, string DoneRaised, string DoneField, string DoneRecess, IReadOnlyList<RemixDto> Options, string PourIn);
