using System.Collections.Frozen;

namespace Lowfell.Core.Order;

/// <summary>A rule that judges every layer for itself, so that asking after one layer need not look at the others.</summary>
internal abstract class LayerRule : IOrderRule
{
    public abstract RuleFacts Facts { get; }

    public IEnumerable<Finding> Check(StackView view) => Check(view, FrozenSet<Guid>.Empty);

    public IEnumerable<Finding> Check(StackView view, IReadOnlySet<Guid> known)
    {
        for (var i = 0; i < view.Count; i++)
            if ((known.Count == 0 || !known.Contains(view.Layers[i].Id)) && At(view, i) is { } finding)
                yield return finding;
    }

    public bool SpeaksOf(StackView view, Guid layer) => view.IndexOf(layer) is var i and >= 0 && At(view, i) is not null;

    /// <summary>What it says of one layer; null when nothing.</summary>
    protected abstract Finding? At(StackView view, int i);
}
