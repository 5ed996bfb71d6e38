using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;

namespace Lowfell.Core.Trials;

/// <summary>A colour seen in one field of a trial, at one position of its relief.</summary>
public readonly record struct TrialLook(IReadOnlyList<int> Levels, Position Position, Lab Seen);

/// <summary>How strong a material was thought to be, and is now.</summary>
public sealed record Taught(Material Material, Strength Before, Strength After);

/// <summary>What a trial teaches its materials, all fields together.</summary>
public static class TrialMaterials
{
    /// <summary>Materials of a trial with a colour of their own, each once: of these something can be learned.</summary>
    public static IReadOnlyList<Material> Of(IReadOnlyList<Layer> stack, IReadOnlyList<TrialFactor> factors) =>
        stack.Concat(factors.SelectMany(f => f.Levels.OfType<Layer>())).SelectMany(l => l.Paint).Select(p => p.Material).Where(m => m.OpticsSource != OpticsSource.Clear && !m.IsThinner).DistinctBy(m => m.Id).ToList();

    /// <summary>The strengths after a trial was looked at, and how much each look was believed.</summary>
    /// <param name="predict">Predicts a stack.</param>
    /// <param name="stack">The treatment it came from.</param>
    /// <param name="factors">What was varied.</param>
    /// <param name="looks">What was seen.</param>
    /// <param name="entered">Optics and strength so far of a material.</param>
    public static (IReadOnlyList<Taught> Taught, IReadOnlyList<double> Believed) Learn(
        Func<IReadOnlyList<Layer>, StackRun> predict, IReadOnlyList<Layer> stack, IReadOnlyList<TrialFactor> factors, IReadOnlyList<TrialLook> looks, Func<Material, (Optics Entered, Strength Now)> entered)
    {
        var materials = Of(stack, factors);
        var known = materials.Select(entered).ToList();
        var cells = looks.Select(l => string.Join(' ', l.Levels)).Distinct().ToList();
        var stacks = cells.Select(c => TrialStacks.Of(stack, factors, looks.First(l => string.Join(' ', l.Levels) == c).Levels)).ToList();
        Strength At(double[] x, int m) => known[m].Now.Then(new Strength(Math.Exp(x[2 * m]), Math.Exp(x[2 * m + 1])));
        List<Lab> Predict(double[] x)
        {
            var strong = materials.Select((m, i) => m with { Optics = At(x, i).Of(known[i].Entered) }).ToDictionary(m => m.Id);
            var ends = stacks.Select(s => predict(s.Select(l => With(l, strong)).ToList())).Select(r => r.SeenBelow(r.Count)).ToList();
            return looks.Select(l => ends[cells.IndexOf(string.Join(' ', l.Levels))][l.Position].Lab).ToList();
        }

        double[] Bounds(double edge) => known.SelectMany(k => new[] { Math.Log(edge / k.Now.Hiding), Math.Log(edge / k.Now.Tint) }).ToArray();
        var fitted = TrialFit.Of(Predict, looks.Select(l => l.Seen).ToList(), materials.Count * 2, Bounds(Strength.Least), Bounds(Strength.Most));
        return (materials.Select((m, i) => new Taught(m, known[i].Now, At([.. fitted.Parameters], i))).ToList(), fitted.Weights);
    }

    /// <summary>A layer with other materials of the same ids.</summary>
    public static Layer With(Layer layer, IReadOnlyDictionary<Guid, Material> materials) => layer.Paint.Any(p => materials.ContainsKey(p.Material.Id))
        ? layer with { Paint = layer.Paint.Select(p => materials.TryGetValue(p.Material.Id, out var other) ? new MixPart(other, p.Parts) : p).ToList() } : layer;
}
