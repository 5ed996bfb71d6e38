namespace Lowfell.Core.Order;

/// <summary>A figure at which a rule begins to speak, or ceases to, or says more.</summary>
/// <param name="Of">What is held against it, in words.</param>
/// <param name="Value">The figure.</param>
/// <param name="Unit">Its unit; 1 for a plain share.</param>
public sealed record RuleLimit(string Of, double Value, string Unit);

/// <summary>What a rule is, for the list of rules and for the page about them.</summary>
/// <param name="Id">Stable id, kebab-case.</param>
/// <param name="What">What it looks for, one sentence.</param>
/// <param name="Why">Why that goes wrong, one sentence.</param>
/// <param name="Remedies">The ways out it may offer, in words.</param>
/// <param name="CanStop">It may say <see cref="Severity.Stop"/>.</param>
public sealed record RuleFacts(string Id, string What, string Why, string Remedies, bool CanStop = false)
{
    /// <summary>It never says more than <see cref="Severity.Hint"/>, so that remedies of other rules need not be tried against it.</summary>
    public bool OnlyHints { get; init; }

    /// <summary>House rules that its findings or their remedies depend on.</summary>
    public IReadOnlyList<School> Schools { get; init; } = [];

    /// <summary>The figures it goes by.</summary>
    public IReadOnlyList<RuleLimit> Limits { get; init; } = [];
}
