using Lowfell.Core.Layers;
using Lowfell.Core.Order;

using Lowfell.Server.Stacks;

namespace Lowfell.Server.Remarks;

/// <summary>A layer that a remark speaks of; numbers count from 1 at the bottom.</summary>
public sealed record RemarkLayer(Guid Id, int Number, string Says);

/// <summary>One remark on one zone.</summary>
public sealed record RemarkItem(
    Guid ZoneId, string Zone, Guid DesignId, string Design, int Pieces, Guid TreatmentId, Severity Severity, IReadOnlyList<RemarkLayer> Layers, string Why, string Facts,
    IReadOnlyList<string> Remedies, AcceptedDto? Accepted);

/// <summary>A way out that helps at some of a group's remarks.</summary>
public sealed record GroupRemedy(string Id, string Text, int Helps);

/// <summary>Remarks of one rule with one title: one thing to do, wherever it is to be done.</summary>
public sealed record RemarkGroup(string Rule, string Title, string What, Severity Severity, IReadOnlyList<School> Schools, IReadOnlyList<GroupRemedy> Remedies, IReadOnlyList<RemarkItem> Items);

/// <summary>Everything to be said of a set, worst first; counts leave out what is accepted.</summary>
public sealed record RemarksReading(Guid SetId, int Stops, int Cautions, int Hints, int Accepted, IReadOnlyList<RemarkGroup> Groups);

/// <summary>A set too large to be gone through while somebody waits: its remarks are worked out as a job.</summary>
public sealed record LargeSet(Guid SetId, int Zones);

/// <summary>Which remark is accepted, and why. Facts are those that were shown.</summary>
public sealed record AcceptIn(string? Rule, Guid? LayerId, string? Facts, string? Reason);

/// <summary>An edit to look at before it is made: the stack as it is, and as it would be.</summary>
public sealed record ChangeIn(IReadOnlyList<LayerDto?>? Layers, IReadOnlyList<LayerDto?>? After);

public sealed record AmountChangeDto(Guid MaterialId, string Name, double Ml);

public sealed record ChangedFinding(string Rule, Severity Severity, string Title);

/// <summary>What an edit does: finished colours, hands-on minutes over all pieces (an estimate; below 0 saved), amounts, remarks that go and come.</summary>
public sealed record ChangeDto(
    SeenAtPositions Before, SeenAtPositions After, PositionsDto Difference, double Minutes, IReadOnlyList<AmountChangeDto> Amounts,
    IReadOnlyList<ChangedFinding> Gone, IReadOnlyList<ChangedFinding> Come);

/// <summary>A treatment at a version.</summary>
public sealed record VersionOf(Guid TreatmentId, uint Version);

/// <summary>One remedy of a rule for the whole set. With <c>store</c> the versions that were shown are needed.</summary>
public sealed record SetRemedyIn(string? Rule, string? Remedy, bool? Store, IReadOnlyList<VersionOf?>? Versions);

/// <summary>A treatment that a remedy for the whole set changes; the stack as it was goes back through the stacks of the set.</summary>
public sealed record TreatmentChange(
    Guid TreatmentId, Guid SurfaceId, string Treatment, uint Version, IReadOnlyList<string> Zones, int Applied, ChangeDto Change, IReadOnlyList<LayerDto> Before);

/// <summary>What a remedy does over the set, and where it would have brought a stop or a caution and was left out; once stored, the new versions.</summary>
public sealed record SetRemedyReading(bool Stored, IReadOnlyList<TreatmentChange> Changes, IReadOnlyList<string> LeftOut, double Minutes, IReadOnlyList<VersionOf>? Versions = null);

/// <summary>What a remedy over a set came to.</summary>
public sealed record RemedyTold(Guid SetId, IReadOnlyList<Guid> Treatments);

/// <summary>What putting stacks back came to.</summary>
public sealed record StacksTold(IReadOnlyList<Guid> Treatments);

/// <summary>A whole stack to put back; the surface where the treatment has several.</summary>
public sealed record StackOf(Guid TreatmentId, uint? Version, IReadOnlyList<LayerDto?>? Layers, Guid? SurfaceId = null);

/// <summary>Several stacks, stored all or none.</summary>
public sealed record StacksIn(IReadOnlyList<StackOf?>? Stacks);

/// <summary>Layers that need one kind of care.</summary>
public sealed record CareGroup(Hazard Hazard, string Text, IReadOnlyList<CareLayer> Layers);

public sealed record CareLayer(string Zone, string Design, int Number, string Says);

/// <summary>What to have ready for the work of a set or of one design.</summary>
public sealed record CareSheet(string Of, string Deference, IReadOnlyList<CareGroup> Groups, IReadOnlyList<CareLabel> Labels);

/// <summary>What a pot's own entry says.</summary>
public sealed record CareLabel(Guid MaterialId, string Material, string Says);
