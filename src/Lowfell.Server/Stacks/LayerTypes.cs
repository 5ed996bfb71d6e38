using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Server.Stacks;

public sealed record PaintDto(Guid MaterialId, decimal Parts);

public sealed record DilutionDto(Guid ThinnerId, decimal Paint, decimal Thinner);

/// <summary>One layer as it is edited. Layers always travel bottom first.</summary>
public sealed record LayerDto(
    Guid Id, Technique Technique, IReadOnlyList<PaintDto> Paint, DilutionDto? Dilution, int Coats, Region Region, decimal Strength,
    Tool Tool, DryingMode Drying, int? WaitMinutes, bool Optional, string Note, decimal? MarkMm = null, int? VariationSeed = null,
    Guid? DownTo = null, int? Details = null, bool? Fades = null, Preparation Preparation = Preparation.None);

/// <summary>Figures for raised, field and recess.</summary>
public sealed record PositionsDto(double Raised, double Field, double Recess);

public sealed record SeenAtPositions(string Raised, string Field, string Recess)
{
    internal static SeenAtPositions Of(SeenSplit s) => new(s.Raised.Colour.ToString(), s.Field.Colour.ToString(), s.Recess.Colour.ToString());
}
