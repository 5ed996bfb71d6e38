using Lowfell.Core.Treatments;
using Lowfell.Server.Stacks;

namespace Lowfell.Server.Treatments;

/// <summary>A surface of a treatment, and the zones that take it.</summary>
public sealed record SurfaceEntry(Guid Id, string Name, Guid? OnId, IReadOnlyList<TreatmentUse> Zones);

/// <summary>A layer on a surface: its line there, the colour of the field once it is on, and the figures it has of its own where it differs.</summary>
public sealed record LayDto(Guid SurfaceId, Guid LineId, string Colour, LayerDto? Own);

/// <summary>A layer of a treatment over its surfaces. Its id is its step; what it may take goes by steps too.</summary>
public sealed record StepDto(LayerDto Layer, string Words, IReadOnlyList<LayDto> Over);

/// <summary>A treatment as one order over all its surfaces, bottom first.</summary>
public sealed record TreatmentOrder(Guid Id, string Name, uint Version, int Revision, IReadOnlyList<SurfaceEntry> Surfaces, IReadOnlyList<StepDto> Steps);

/// <summary>A new layer: over what, and just above which step; at the bottom where none is named.</summary>
public sealed record StepIn(uint? Version, LayerDto? Layer, IReadOnlyList<Guid>? Over, Guid? AboveId = null);

/// <summary>What a layer goes over from now on.</summary>
public sealed record OverIn(uint? Version, IReadOnlyList<Guid>? Over);

/// <summary>Where a layer lies from now on: just above a step, or at the bottom.</summary>
public sealed record PlaceIn(uint? Version, Guid? AboveId);

/// <summary>A detail is left out from now on.</summary>
public sealed record LeaveDetailOutIn(uint? Version);

/// <summary>A surface as it is to be called, and what it stands on.</summary>
public sealed record SurfaceIn(Guid? Id, string? Name, Guid? OnId = null);

/// <summary>All surfaces of a treatment in their order.</summary>
public sealed record SurfacesIn(uint? Version, IReadOnlyList<SurfaceIn?>? Surfaces);

/// <summary>A treatment that is to come in, at the version that was seen.</summary>
public sealed record OtherTreatment(Guid? TreatmentId, uint? Version);

/// <summary>Treatments that are brought together in one: their layers come on top, one after another, and no stack changes.</summary>
public sealed record TogetherIn(uint? Version, IReadOnlyList<OtherTreatment?>? With, string? Name = null);
