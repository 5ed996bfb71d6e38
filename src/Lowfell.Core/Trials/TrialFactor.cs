using Lowfell.Core.Layers;

namespace Lowfell.Core.Trials;

/// <summary>A place in a treatment that a trial varies: the same layer at every level, each in its own way; null leaves it out.</summary>
/// <param name="Layer">The layer of the treatment.</param>
/// <param name="Levels">Two to five ways to lay it.</param>
public sealed record TrialFactor(Guid Layer, IReadOnlyList<Layer?> Levels)
{
    /// <summary>How it is masked: in coats where nothing but the number of coats differs.</summary>
    public FactorShape Shape
    {
        get
        {
            var laid = Levels.OfType<Layer>().ToList();
            var none = Levels.ToList().IndexOf(null);
            var coats = laid.Count > 0 && laid.All(l => SameButCoats(l, laid[0])) && laid.Select(l => l.Coats).Distinct().Count() == laid.Count;
            return coats ? new FactorShape(Levels.Count, Levels.Select(l => l?.Coats ?? 0).ToList()) : new FactorShape(Levels.Count, null, none);
        }
    }

    private static bool SameButCoats(Layer a, Layer b) =>
        (a.Technique, a.Tool, a.Region, a.Strength, a.Drying, a.MarkMm, a.Fades, a.Preparation) == (b.Technique, b.Tool, b.Region, b.Strength, b.Drying, b.MarkMm, b.Fades, b.Preparation)
        && a.Dilution?.ToString() == b.Dilution?.ToString() && a.Dilution?.Thinner.Id == b.Dilution?.Thinner.Id
        && a.Paint.Select(p => (p.Material.Id, p.Parts)).SequenceEqual(b.Paint.Select(p => (p.Material.Id, p.Parts)));
}

/// <summary>The stacks of a trial.</summary>
public static class TrialStacks
{
    /// <summary>The treatment with every factor at a level.</summary>
    /// <param name="stack">The treatment, bottom first.</param>
    /// <param name="factors">What is varied.</param>
    /// <param name="levels">One level of each.</param>
    public static IReadOnlyList<Layer> Of(IReadOnlyList<Layer> stack, IReadOnlyList<TrialFactor> factors, IReadOnlyList<int> levels)
    {
        var at = factors.Select((f, i) => (f.Layer, Level: f.Levels[levels[i]])).ToDictionary(x => x.Layer, x => x.Level);
        return stack.Select(l => at.TryGetValue(l.Id, out var other) ? other : l).OfType<Layer>().ToList();
    }

    /// <summary>The level of each factor that is the treatment as it is; 0 of one that has none like it.</summary>
    public static IReadOnlyList<int> Held(IReadOnlyList<Layer> stack, IReadOnlyList<TrialFactor> factors) => factors.Select(f =>
    {
        var now = stack.FirstOrDefault(l => l.Id == f.Layer);
        for (var i = 0; i < f.Levels.Count; i++)
            if (f.Levels[i] is { } level && now is not null && Same(level, now))
                return i;
        return 0;
    }).ToList();

    private static bool Same(Layer a, Layer b) => a.Coats == b.Coats && new TrialFactor(a.Id, [a, b with { Coats = a.Coats + 1 }]).Shape.Coats is not null;
}

/// <summary>Two levels of a factor that nobody could tell apart, whatever the other factors are at: by so much at most, CIEDE2000.</summary>
public readonly record struct Alike(int Factor, int First, int Second, double Difference);

/// <summary>Finds what need not be painted, before any paint is spent.</summary>
public static class Merging
{
    /// <summary>Below this nobody sees a difference side by side.</summary>
    public const double Visible = 1;

    /// <summary>Levels that are alike at every position, wherever the other factors are the same.</summary>
    /// <param name="factors">How many levels each factor has.</param>
    /// <param name="cells">Levels of each field, and what is predicted there.</param>
    public static IReadOnlyList<Alike> Of(IReadOnlyList<int> factors, IReadOnlyList<(IReadOnlyList<int> Levels, SeenSplit Seen)> cells)
    {
        var at = cells.ToDictionary(c => string.Join(' ', c.Levels), c => c.Seen);
        var found = new List<Alike>();
        for (var f = 0; f < factors.Count; f++)
            for (var a = 0; a < factors[f]; a++)
                for (var b = a + 1; b < factors[f]; b++)
                {
                    var most = cells.Where(c => c.Levels[f] == a).Select(c => Apart(c.Seen, at[string.Join(' ', c.Levels.Select((l, i) => i == f ? b : l))])).DefaultIfEmpty(0).Max();
                    if (most < Visible)
                        found.Add(new(f, a, b, most));
                }

        return found;
    }

    private static double Apart(SeenSplit a, SeenSplit b)
    {
        var d = a.DifferenceTo(b);
        return Math.Max(d.Raised, Math.Max(d.Field, d.Recess));
    }
}
