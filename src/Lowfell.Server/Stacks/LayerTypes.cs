using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Treatments;

namespace Lowfell.Server.Stacks;

public sealed record PaintDto(Guid MaterialId, decimal Parts);

/// <summary>
/// A plan that lays a layer differently on every piece; what is left out is as usual. MeanMm is the mean size of its marks across, Marks how many on a
/// piece, Spread from 0 (shy) to 1 (wild). Dealt gives each piece one or two of the materials instead of their mix.
/// </summary>
public sealed record VariedDto(int Seed, Habit? Habit = null, decimal? MeanMm = null, decimal? Marks = null, decimal? Spread = null, bool? Dealt = null);

public sealed record DilutionDto(Guid ThinnerId, decimal Paint, decimal Thinner);

/// <summary>One layer as it is edited. Layers always travel bottom first.</summary>
public sealed record LayerDto(
    Guid Id, Technique Technique, IReadOnlyList<PaintDto> Paint, DilutionDto? Dilution, int Coats, Region Region, decimal Strength,
    Tool Tool, DryingMode Drying, int? WaitMinutes, bool Optional, string Note, decimal? MarkMm = null, VariedDto? Varied = null,
    Guid? DownTo = null, decimal? Details = null, bool? Fades = null, Preparation Preparation = Preparation.None);

/// <summary>Figures for raised, field and recess.</summary>
public sealed record PositionsDto(double Raised, double Field, double Recess);

public sealed record SeenAtPositions(string Raised, string Field, string Recess)
{
    internal static SeenAtPositions Of(SeenSplit s) => new(s.Raised.Colour.ToString(), s.Field.Colour.ToString(), s.Recess.Colour.ToString());
}

/// <summary>
/// The whole stack of a zone to store, and the version of its treatment that it was edited from. With the revision it was edited from it is stored
/// although other surfaces were edited since. For: here, unless wherever the layers lie is meant.
/// </summary>
public sealed record StackIn(uint? Version, IReadOnlyList<LayerDto?>? Layers, int? Revision = null, Scope? For = null);
