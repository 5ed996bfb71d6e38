using Lowfell.Core.Layers;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Core.Order;

using Lowfell.Server.Stacks;

namespace Lowfell.Server.Pots;

/// <summary>So many parts of a material; thinner is a component like any other.</summary>
public sealed record JarPartIn(Guid? MaterialId, decimal? Parts);

/// <summary>One number that was typed: the others follow.</summary>
public sealed record JarChangeIn(Guid? MaterialId, JarMeasure? Measure, decimal? Value);

/// <summary>A jar to look at. Against is a recipe to compare its colour with; needle in mm and pressure in bar are those of the airbrush in hand.</summary>
public sealed record JarIn(
    IReadOnlyList<JarPartIn?>? Parts, decimal? TotalMl, JarChangeIn? Change = null, Technique? Technique = null, Tool? Tool = null,
    double? NeedleMm = null, double? Bar = null, IReadOnlyList<JarPartIn?>? Against = null);

/// <summary>One component in every measure at once. Units are drops of its own bottle, or brush-loads of what does not drip.</summary>
public sealed record JarLine(
    Guid MaterialId, string Name, string Colour, bool Thinner, string Parts, decimal Percent, decimal Ml, decimal Units, int WholeUnits, string UnitWord, decimal UnitMl, bool Calibrated,
    decimal Grams, decimal DensityGPerMl, bool Weighed, decimal StockMl);

/// <summary>The fewest whole drops that keep the colour, in the order of the lines.</summary>
public sealed record FewestDrops(IReadOnlyList<int> Counts, decimal Ml, double Difference);

public sealed record PotRemarkDto(PotFit Fit, Severity? Severity, string Says);

public sealed record RangeDto(double Low, double High);

/// <summary>Pressure bar, needle mm and thinner's share of the mix 0..1, from low to high: estimates, the label wins.</summary>
public sealed record AirbrushDto(RangeDto PressureBar, double StartBar, RangeDto NeedleMm, RangeDto ThinnerShare, IReadOnlyList<string> Warnings);

/// <summary>Minutes a mix stays good, low, usual and high: estimates.</summary>
public sealed record LifeDto(Vessel Vessel, double LowMinutes, double UsualMinutes, double HighMinutes, decimal HoldsMl);

/// <summary>Everything there is to say of a jar.</summary>
public sealed record JarLook(
    string RecipeKey, decimal TotalMl, IReadOnlyList<JarLine> Lines, string Colour, IReadOnlyList<Drawdown> Drawdowns, double ThinnerShare, string Dilution, string Consistency,
    IReadOnlyList<PotRemarkDto> Remarks, AirbrushDto? Airbrush, IReadOnlyList<LifeDto> Life, FewestDrops Fewest, decimal? MostMl, string MostLimit, double? Difference, IReadOnlyList<string> Cautions);
