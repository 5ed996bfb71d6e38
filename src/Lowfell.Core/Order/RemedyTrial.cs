using System.Collections.Frozen;
using Lowfell.Core.Layers;

namespace Lowfell.Core.Order;

/// <summary>
/// Tries remedies on the stack before they are offered. One is offered when its remark goes, no stop and no caution comes that was not there
/// before, and every layer it changes keeps its purpose. Where none holds alone, each is tried together with the first remedy of what it
/// brings.
/// </summary>
internal sealed class RemedyTrial
{
    private readonly StackView before;
    private readonly Dictionary<string, HashSet<Guid>> stops, troubles;

    /// <param name="before">The stack as it is.</param>
    /// <param name="found">Everything that is stopped or cautioned in it.</param>
    public RemedyTrial(StackView before, IEnumerable<Finding> found)
    {
        this.before = before;

        // Tried side by side, stacks only read what is worked out here.
        _ = before.Predictions.SeenBelow(before.Count);
        var known = found.Where(f => f.Severity != Severity.Hint).ToList();
        Dictionary<string, HashSet<Guid>> ByRule(IEnumerable<Finding> of) =>
            of.GroupBy(f => f.Rule, f => OrderCheck.Key(before, f).Layer).ToDictionary(g => g.Key, g => g.ToHashSet());
        troubles = ByRule(known);
        stops = ByRule(known.Where(f => f.Severity == Severity.Stop));
    }

    /// <summary>Those of a finding's remedies that hold.</summary>
    public IReadOnlyList<Remedy> Offered(IOrderRule rule, Finding finding)
    {
        var offered = new List<Remedy>();
        var brought = new List<(Remedy Remedy, StackView After, Finding Trouble)>();
        foreach (var remedy in finding.Remedies)
        {
            if (Mended(rule, finding, remedy) is not { } after)
                continue;
            if (Trouble(after) is { } trouble)
                brought.Add((remedy, after, trouble));
            else
                offered.Add(remedy);
        }

        return offered.Count > 0 || finding.Severity == Severity.Hint ? offered : brought.Select(b => Together(rule, finding, b)).OfType<Remedy>().Take(1).ToList();
    }

    private Remedy? Together(IOrderRule rule, Finding finding, (Remedy Remedy, StackView After, Finding Trouble) brought)
    {
        foreach (var second in brought.Trouble.Remedies)
        {
            var both = new Remedy($"{brought.Remedy.Id}+{second.Id}", $"{brought.Remedy.Text}, and {char.ToLowerInvariant(second.Text[0])}{second.Text[1..]}", [.. brought.Remedy.Edits, .. second.Edits]);
            if (Mended(rule, finding, both) is { } after && Trouble(after) is null)
                return both;
        }

        return null;
    }

    /// <summary>The stack with a remedy, if its remark is gone from it and every layer is still what it is for.</summary>
    private StackView? Mended(IOrderRule rule, Finding finding, Remedy remedy)
    {
        if (remedy.Edits.Any(Undoes) || !KeepsPurpose(remedy))
            return null;
        var after = new StackView(before.Context, StackEdit.Apply(before.Layers, remedy.Edits), before);
        return rule.SpeaksOf(after, OrderCheck.Key(before, finding).Layer) ? null : after;
    }

    /// <summary>The first stop or caution of a stack that was not there before.</summary>
    private Finding? Trouble(StackView after)
    {
        foreach (var finding in OrderCheck.Troubles(after, rule => Known(rule.Id, rule.Facts.CanStop)))
            if (!Known(finding.Rule, finding.Severity == Severity.Stop).Contains(OrderCheck.Key(after, finding).Layer))
                return finding;
        return null;
    }

    /// <summary>Layers of which a rule said so before: that they are stopped, or that anything is wrong with them.</summary>
    private IReadOnlySet<Guid> Known(string rule, bool stopped) => (stopped ? stops : troubles).GetValueOrDefault(rule) ?? (IReadOnlySet<Guid>)FrozenSet<Guid>.Empty;

    /// <summary>On a piece half done nothing below the last layer can be changed, and of that one only how long it still waits.</summary>
    private bool Undoes(StackEdit edit)
    {
        var laid = before.Context.Progress.Laid;
        if (edit is StackEdit.Replace replace && replace.At == laid - 1 && laid > 0)
            return replace.Layer with { WaitMinutes = before.Layers[replace.At].WaitMinutes } != before.Layers[replace.At];
        return edit.At < laid;
    }

    /// <summary>A wash, filter or glaze stays one: none becomes a coat that hides.</summary>
    private bool KeepsPurpose(Remedy remedy)
    {
        foreach (var edit in remedy.Edits)
            if (edit is StackEdit.Replace { Layer: var now } && before.IndexOf(now.Id) is >= 0 and var at && IsVeil(before.Layers[at]) && !IsVeil(now) && now.Technique != Technique.Stipple)
                return false;
        return true;
    }

    /// <summary>It tints what is below: by technique, and by what it is laid with or how far that is thinned.</summary>
    internal static bool IsVeil(Layer layer) =>
        layer.Technique is Technique.AllOverWash or Technique.PinWash or Technique.Filter or Technique.Glaze
        && (layer.Main is not { IsOpaque: true } || layer.PaintShare < ThinEnough);

    /// <summary>Opaque paint thinner than this share tints.</summary>
    private const double ThinEnough = 0.6;
}
