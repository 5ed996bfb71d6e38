using Lowfell.Core.Layers;
using Lowfell.Core.Order.Rules;

namespace Lowfell.Core.Order;

/// <summary>Runs every rule on a stack and keeps only remedies that really help.</summary>
public static class OrderCheck
{
    /// <summary>Every rule, in the order of the craft: ground, chemistry, texture, washes, light, sealing.</summary>
    public static readonly IReadOnlyList<IOrderRule> Rules =
    [
        new BareGround(),
        new HotOverSoft(),
        new SameSolvent(),
        new NoBarrier(),
        new WrongThinner(),
        new SoftBelow(),
        new UnsealedTexture(),
        new WashOnFlat(),
        new PinOnMatt(),
        new NoVisibleChange(),
        new LightBuried(),
        new CoatsToHide(),
        new SheenTarget(),
    ];

    private static readonly IReadOnlyList<IOrderRule> stopRules = Rules.Where(r => r.CanStop).ToList();

    /// <summary>All findings, worst first, then from the bottom of the stack up.</summary>
    public static IReadOnlyList<Finding> Run(StackContext context, IReadOnlyList<Layer> layers)
    {
        var view = new StackView(context, layers);
        var found = Rules.SelectMany(r => r.Check(view).Select(f => (Rule: r, Finding: f))).ToList();
        var stops = found.Where(f => f.Finding.Severity == Severity.Stop).Select(f => Key(view, f.Finding)).ToHashSet();
        return found
            .Select(f => f.Finding with { Remedies = f.Finding.Remedies.Where(r => Helps(view, f.Rule, f.Finding, r, stops)).ToList() })
            .OrderBy(f => f.Severity)
            .ThenBy(f => f.Layers.Count > 0 ? f.Layers[0] : -1)
            .ToList();
    }

    /// <summary>Findings without trying their remedies: for counts.</summary>
    public static IReadOnlyList<Finding> Glance(StackView view) =>
        Rules.SelectMany(r => r.Check(view)).OrderBy(f => f.Severity).ToList();

    /// <summary>A finding's identity across edits: its rule and the layer it hangs on.</summary>
    public static (string Rule, Guid Layer) Key(StackView view, Finding finding) =>
        (finding.Rule, finding.Layers.Count > 0 ? view.Layers[finding.Layers[0]].Id : Guid.Empty);

    private static bool Helps(StackView before, IOrderRule rule, Finding finding, Remedy remedy, HashSet<(string, Guid)> stops)
    {
        var after = new StackView(before.Context, StackEdit.Apply(before.Layers, remedy.Edits));
        var key = Key(before, finding);
        if (rule.SpeaksOf(after, key.Layer))
            return false;
        return !stopRules
            .SelectMany(r => r.Check(after))
            .Any(f => f.Severity == Severity.Stop && !stops.Contains(Key(after, f)));
    }
}
