using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

using Lowfell.Server.Stacks;

namespace Lowfell.Server.Shelf;

/// <summary>A material as it is entered; colours are #rrggbb, times minutes at 20 C and 50 %, volumes ml.</summary>
public sealed record MaterialIn(
    uint? Version, string? Name, string? Maker, string? Code, MaterialKind? Kind, Carrier? Carrier, string? Colour, string? OverBlack, string? OverWhite,
    decimal? CoatsToHide, Sheen? Sheen, decimal? SolidsFraction, IReadOnlyList<ThinnerFamily>? Thinners, decimal? TouchMinutes, decimal? RecoatMinutes,
    decimal? CureMinutes, bool? HeatSafe, decimal? StockMl, decimal? PackMl, decimal? Price, string? Hazards, string? Notes,
    Lustre? Lustre = null, decimal? MostThinnerShare = null, decimal? DropMl = null, decimal? DensityGPerMl = null);

/// <summary>A material on the shelf with what is predicted of it.</summary>
public sealed record MaterialCard(
    Guid Id, uint Version, string Name, string Maker, string Code, MaterialKind Kind, Carrier Carrier, string? Colour, string? OverBlack, string? OverWhite,
    decimal? CoatsToHide, Sheen Sheen, decimal SolidsFraction, IReadOnlyList<ThinnerFamily> Thinners, decimal TouchMinutes, decimal RecoatMinutes,
    decimal CureMinutes, bool HeatSafe, decimal StockMl, decimal PackMl, decimal? Price, string Hazards, string Notes,
    OpticsSource OpticsSource, int? PredictedCoatsToHide, CardDoubt? CardDoubt, decimal HidingFactor, decimal TintFactor, IReadOnlyList<Drawdown> Drawdowns, int Uses,
    Lustre Lustre, decimal? MostThinnerShare, decimal? DropMl, decimal? DensityGPerMl, bool DarkerThanSheen,
    IReadOnlyList<Preparation> Preparations);

/// <summary>What a material of its kind and carrier usually has, for all that is left out: guesses, and the label wins.</summary>
public sealed record UsualFigures(
    decimal SolidsFraction, IReadOnlyList<ThinnerFamily> Thinners, decimal TouchMinutes, decimal RecoatMinutes, decimal CureMinutes, decimal DropMl, decimal DensityGPerMl);

/// <summary>A material that is being typed in: its card, and what is taken for what is left out.</summary>
public sealed record MaterialPreview(MaterialCard Card, UsualFigures Usual);

/// <summary>Drops counted into something with a scale: ml, or grams. Without a density the usual of its kind counts.</summary>
public sealed record BottleIn(uint? Version, int? Drops, decimal? Ml, decimal? Grams, decimal? DensityGPerMl);

/// <summary>The drop found, and how far the reading leaves it open.</summary>
public sealed record BottleReading(MaterialCard Material, decimal DropMl, decimal DoubtMl);

/// <summary>How far a reading off by one step moves the coats to hide; faint when the halves are so alike that scattering is hardly known.</summary>
public sealed record CardDoubt(double CoatsLow, double CoatsHigh, bool Faint);

/// <summary>One look that tuned a material's strength.</summary>
public sealed record CalibrationEntry(
    Guid Id, DateTimeOffset At, string Place, Position Position, string Observed, string PredictedBefore, string PredictedAfter,
    decimal HidingStep, decimal TintStep, DateTimeOffset? TakenBackAt);

/// <summary>A colour to look for on the shelf.</summary>
public sealed record NearestIn(string? Colour, int? Count, bool? OutOfStockToo);

public sealed record NearestPart(Guid MaterialId, string Name, int Parts);

/// <summary>A material or a two-part mix that comes near a colour once its coats hide a mid-grey card.</summary>
public sealed record NearestEntry(IReadOnlyList<NearestPart> Paint, int Coats, bool Hides, string Colour, double Difference, string Words);

/// <summary>Mean colours picked from a photo, linear light 0..1 as [r, g, b]; the card's reflectance is 0.18 unless said otherwise.</summary>
public sealed record PhotoIn(double[]? Card, double[]? Sample, double? CardReflectance);

public sealed record PhotoColour(string Colour);

/// <summary>One layer that a material is used in.</summary>
public sealed record UseEntry(Guid TreatmentId, string Treatment, int Layer, string Technique, IReadOnlyList<string> Zones);
