using Lowfell.Core.Layers;
using Lowfell.Server.Stacks;

namespace Lowfell.Server.Treatments;

/// <summary>One layer of a treatment as its picture shows it: what is done, and the field's colour once it is on.</summary>
public sealed record Stratum(Technique Technique, string Paint, string Colour);

/// <summary>A zone that has a treatment.</summary>
public sealed record TreatmentUse(Guid ZoneId, string Zone, string Design, Guid SetId, string Set);

/// <summary>A treatment of the library: its layers as a picture, bottom first, and every zone that has it.</summary>
public sealed record TreatmentCard(
    Guid Id, uint Version, string Name, int Revision, DateTimeOffset ChangedAt, IReadOnlyList<Stratum> Strata, IReadOnlyList<TreatmentUse> Uses, Guid? CameFromId, string? CameFrom, DateTimeOffset? PutAwayAt, int Surfaces);

public sealed record TreatmentIn(uint? Version, string? Name);

/// <summary>A new treatment that begins with the layers of another.</summary>
public sealed record TreatmentCopyIn(string? Name);

/// <summary>The treatment a zone is to have, and which surface of it; left out, the first.</summary>
public sealed record LinkIn(uint? Version, Guid? TreatmentId, Guid? SurfaceId = null);

/// <summary>A zone parts from the others with its treatment: it gets one of its own, with these layers, or those it has where none are given.</summary>
public sealed record PartIn(string? Name, IReadOnlyList<LayerDto?>? Layers);

/// <summary>
/// A treatment as it stood at one time, edits within a minute taken together. <paramref name="Words"/> say what changed since the
/// version before it.
/// </summary>
public sealed record VersionEntry(int Number, DateTimeOffset At, string Actor, string? Name, string Words, bool Current, IReadOnlyList<Stratum> Strata, IReadOnlyList<LayerDto> Layers);

/// <summary>A name for a version; an empty one takes it away.</summary>
public sealed record VersionNameIn(string? Name);

/// <summary>Brings back a version as a new one; <paramref name="Version"/> is that of the treatment as it is now.</summary>
public sealed record BringBackIn(uint? Version);

/// <summary>What a change of a treatment came to.</summary>
public sealed record TreatmentTold(Guid TreatmentId, uint Version);

/// <summary>What a link or a parting came to.</summary>
public sealed record LinkTold(Guid ZoneId, Guid TreatmentId);
