namespace Lowfell.Core.Order;

/// <summary>One rule of the craft: looks at a stack, says what is wrong with it, why, and what would help.</summary>
public interface IOrderRule
{
    RuleFacts Facts { get; }

    string Id => Facts.Id;

    IEnumerable<Finding> Check(StackView view);

    /// <summary>What it says of layers whose remark is not known already. Rules that judge every layer for itself do not look at the others.</summary>
    IEnumerable<Finding> Check(StackView view, IReadOnlySet<Guid> known) =>
        Check(view).Where(f => !known.Contains(OrderCheck.Key(view, f).Layer));

    /// <summary>Whether the rule speaks of one layer. Rules that predict colours answer without looking at all the others.</summary>
    bool SpeaksOf(StackView view, Guid layer) => Check(view).Any(f => f.Layers.Count > 0 && view.Layers[f.Layers[0]].Id == layer);
}
