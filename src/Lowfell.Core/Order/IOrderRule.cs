namespace Lowfell.Core.Order;

/// <summary>One rule of the craft: looks at a stack, says what is wrong with it, why, and what would help.</summary>
public interface IOrderRule
{
    RuleFacts Facts { get; }

    string Id => Facts.Id;

    IEnumerable<Finding> Check(StackView view);

    /// <summary>Only what it stops at; remedies of every rule are tried against this.</summary>
    IEnumerable<Finding> Stops(StackView view) => Check(view).Where(f => f.Severity == Severity.Stop);

    /// <summary>Whether the rule speaks of one layer. Rules that predict colours answer without looking at all the others.</summary>
    bool SpeaksOf(StackView view, Guid layer) => Check(view).Any(f => f.Layers.Count > 0 && view.Layers[f.Layers[0]].Id == layer);
}
