using Lowfell.Core.Layers;
using Lowfell.Core.Sight;
using Lowfell.Server.Stacks;

namespace Lowfell.Server.Trials;

/// <summary>What a trial is laid on, true size in mm; of a round one the largest square inside is used. Without a relief it has that of the zone.</summary>
public sealed record TileDto(double WidthMm, double HeightMm, bool Round = false, Relief? Relief = null);

/// <summary>What is varied: a layer of the treatment, and two to five ways to lay it; null leaves it out.</summary>
public sealed record TrialFactorDto(Guid LayerId, IReadOnlyList<LayerDto?> Levels);

/// <summary>A trial to look at, or to keep: of the treatment of a zone.</summary>
public sealed record TrialIn(Guid? Id, Guid? ZoneId, string? Name, TileDto? Tile, IReadOnlyList<TrialFactorDto?>? Factors);

/// <summary>What is changed about a trial that is kept.</summary>
public sealed record TrialChangeIn(uint? Version, string? Name = null, TileDto? Tile = null, bool? PutAway = null);

/// <summary>A colour that was seen in a field; without one, what was said before is taken away.</summary>
public sealed record TrialLookIn(string? Cell, Position? Position, string? Observed);

/// <summary>A field becomes a version of the treatment it came from, or a treatment of its own where a name is given.</summary>
public sealed record TrialChoiceIn(string? Cell, uint? TreatmentVersion, string? Name = null);

/// <summary>What a trial is to find out: what decides most, or how the finished zone gets darker or lighter.</summary>
public enum TrialWish
{
    DecidesMost, Darker, Lighter,
}

/// <summary>A question: what is to be known of the treatment of a zone, and what it should come near, where something is wished for; a colour says it best.</summary>
public sealed record TrialQuestionIn(Guid? ZoneId, Position? Position, string? Target, TrialWish? Wish = null);

/// <summary>A trial as it is listed.</summary>
public sealed record TrialEntry(Guid Id, uint Version, string Name, Guid ZoneId, string Zone, string Design, int Cells, int Looks, bool Chosen, DateTimeOffset CreatedAt, bool PutAway);

public sealed record TrialsReading(Guid SetId, Guid WorkshopId, IReadOnlyList<TrialEntry> Trials);

/// <summary>A factor in words: the layer, and each of its levels; in coats, where nothing else differs.</summary>
public sealed record TrialFactorReading(Guid LayerId, string Words, IReadOnlyList<string> Levels, bool InCoats, IReadOnlyList<LayerDto?> Layers);

/// <summary>A colour that was seen, and how far it is from what was predicted (CIEDE2000); Believed is how much it counts beside the others, 0..1.</summary>
public sealed record TrialLookReading(Position Position, string Observed, string Predicted, double Difference, string Words, double? Believed);

/// <summary>
/// One field: which level of each factor, where it lies (mm), and its predicted colours; how far a hand varies it, and how it stands apart from the
/// field that is held beside the model when seen from the table. All predictions are estimates.
/// </summary>
public sealed record TrialCellReading(
    int Number, string Cell, IReadOnlyList<int> Levels, double LeftMm, double TopMm, double WidthMm, double HeightMm, string Raised, string Field, string Recess, string Mean, double HandDifference,
    bool Held, double FromHeld, double AtTable, Verdict Verdict, IReadOnlyList<TrialLookReading> Looks);

/// <summary>Two levels that nobody could tell apart.</summary>
public sealed record TrialAlike(int Factor, int First, int Second, double Difference, string Words);

public sealed record TrialMask(bool Upright, double AtMm);

/// <summary>One step of the work: which fields at once, with tape along which lines, and how long to wait after it (minutes, an estimate).</summary>
public sealed record TrialStepReading(int Number, string Words, IReadOnlyList<TrialMask> Masks, IReadOnlyList<int> Cells, double WaitMinutes);

/// <summary>What the looks teach a material, all fields together: strength on hiding and on tint, before and after.</summary>
public sealed record TrialTaught(Guid MaterialId, string Material, double HidingBefore, double TintBefore, double HidingAfter, double TintAfter);

/// <summary>
/// What all looks together teach, and how far off the predictions were on the mean (CIEDE2000), before and after. TakenOver once the paints are
/// reckoned so: the same looks do not count twice.
/// </summary>
public sealed record TrialLesson(IReadOnlyList<TrialTaught> Taught, double MissedBefore, double MissedAfter, bool TakenOver);

/// <summary>
/// A trial: tile, layout, order of work, predictions and what was seen. Refusal says why it cannot be laid out; then there are no cells. Left and top
/// are where the fields begin on the tile, mm. OnBench once its tile is a piece of the set.
/// </summary>
public sealed record TrialReading(
    Guid? Id, uint? Version, Guid SetId, Guid WorkshopId, Guid ZoneId, string Zone, string Design, string Name, TileDto Tile, double LeftMm, double TopMm, IReadOnlyList<TrialFactorReading> Factors, string Refusal,
    IReadOnlyList<TrialCellReading> Cells, IReadOnlyList<TrialAlike> Alike, IReadOnlyList<TrialStepReading> Steps, int MaskingMoves, TrialLesson? Lesson, string Chosen, Guid TreatmentId, uint TreatmentVersion, bool PutAway, bool OnBench);

/// <summary>A trial that could be made, in words; how far off the prediction is to be expected, now and after it (CIELAB units), how much of that each field gains on the mean, the tile it takes, and how near the nearest field comes to the wish.</summary>
public sealed record TrialProposal(string Words, IReadOnlyList<TrialFactorDto> Factors, double ErrorNow, double ErrorThen, int Fields, double GainPerField, TileDto Tile, double? Nearest);

public sealed record TrialTold(Guid SetId, Guid TrialId);

/// <summary>What is kept of a trial: the stack as it was, and what is varied.</summary>
internal sealed record TrialBody(IReadOnlyList<LayerDto> Stack, IReadOnlyList<TrialFactorDto> Factors);
