using Lowfell.Core.Order;

namespace Lowfell.Server.Stacks;

/// <summary>An edit of a remedy; indices are bottom first, counted just before this edit.</summary>
public sealed record EditDto(EditKind Op, int At, int? To, LayerDto? Layer);

public enum EditKind
{
    Insert, Remove, Move, Replace,
}

public sealed record RemedyDto(string Id, string Text, IReadOnlyList<EditDto> Edits);

/// <summary>Why the painter lives with a finding.</summary>
public sealed record AcceptedDto(Guid Id, string Reason, DateTimeOffset AcceptedAt);

/// <summary>What a rule says. Facts are the same as long as what it rests on is; an accepted finding counts that long.</summary>
public sealed record FindingDto(
    string Rule, Severity Severity, IReadOnlyList<Guid> Layers, string Title, string Why, IReadOnlyList<RemedyDto> Remedies, IReadOnlyList<School> Schools, string Facts, AcceptedDto? Accepted);
