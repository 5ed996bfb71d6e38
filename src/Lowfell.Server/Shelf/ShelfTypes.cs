using Lowfell.Core.Materials;

namespace Lowfell.Server.Shelf;

/// <summary>A material as it is entered; colours are #rrggbb, times minutes at 20 C and 50 %, volumes ml.</summary>
public sealed record MaterialIn(
    uint? Version, string? Name, string? Maker, string? Code, MaterialKind? Kind, Carrier? Carrier, string? Colour, string? OverBlack, string? OverWhite,
    decimal? CoatsToHide, Sheen? Sheen, decimal? SolidsFraction, IReadOnlyList<ThinnerFamily>? Thinners, decimal? TouchMinutes, decimal? RecoatMinutes,
    decimal? CureMinutes, bool? HeatSafe, decimal? StockMl, decimal? PackMl, decimal? Price, string? Hazards, string? Notes);

/// <summary>Predicted colours of some standard coats over the black and the white half of a card.</summary>
public sealed record Drawdown(int Coats, string OverBlack, string OverWhite);

/// <summary>A material on the shelf with what is predicted of it.</summary>
public sealed record MaterialCard(
    Guid Id, uint Version, string Name, string Maker, string Code, MaterialKind Kind, Carrier Carrier, string? Colour, string? OverBlack, string? OverWhite,
    decimal? CoatsToHide, Sheen Sheen, decimal SolidsFraction, IReadOnlyList<ThinnerFamily> Thinners, decimal TouchMinutes, decimal RecoatMinutes,
    decimal CureMinutes, bool HeatSafe, decimal StockMl, decimal PackMl, decimal Price, string Hazards, string Notes,
    OpticsSource OpticsSource, int? PredictedCoatsToHide, IReadOnlyList<Drawdown> Drawdowns, int Uses);

/// <summary>One layer that a material is used in.</summary>
public sealed record UseEntry(string Treatment, int Layer, string Technique, IReadOnlyList<string> Zones);
