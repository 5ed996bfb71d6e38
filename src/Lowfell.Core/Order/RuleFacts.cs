namespace Lowfell.Core.Order;

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
}
