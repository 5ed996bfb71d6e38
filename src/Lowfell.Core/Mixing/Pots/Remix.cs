using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Order;
using Lowfell.Core.Start;

namespace Lowfell.Core.Mixing.Pots;

/// <summary>A way to go on when a pot ran out.</summary>
/// <param name="Recipe">What to mix.</param>
/// <param name="Contents">So much of each for what is left to do.</param>
/// <param name="End">The finished surface from it.</param>
/// <param name="Difference">CIEDE2000 to the pieces that are done, at each position.</param>
/// <param name="IsSame">The recipe that was mixed, again.</param>
/// <param name="AlsoFor">How many components were replaced.</param>
public sealed record RemixOption(Recipe Recipe, PotContents Contents, SeenSplit End, Split Difference, bool IsSame, int AlsoFor)
{
    public double Largest => Difference.Largest();
}

/// <summary>Finds what lands closest to a pot that ran out, from what the shelf still has.</summary>
public static class Remix
{
    private const int StartsTried = 40, AlikeKept = 6;

    /// <summary>Multiples of a replaced component's parts that are tried: another paint is never just as strong.</summary>
    private static readonly (int Times, int Over)[] strengths = [(1, 1), (1, 2), (2, 3), (3, 4), (4, 3), (3, 2), (2, 1)];

    /// <summary>Options that the stock allows, nearest first; the same recipe, when it can be had, before others as near.</summary>
    /// <param name="view">The stack of a zone that the pot goes on.</param>
    /// <param name="index">The layer.</param>
    /// <param name="first">What the pieces that are done got.</param>
    /// <param name="shelf">Materials to choose from.</param>
    /// <param name="stockMl">What there is of each; what is left out has no limit.</param>
    /// <param name="neededMl">What is still to be laid.</param>
    /// <param name="count">How many to return.</param>
    /// <param name="stop">Gives up.</param>
    public static IReadOnlyList<RemixOption> Find(StackView view, int index, PotContents first, IReadOnlyList<Material> shelf, IReadOnlyDictionary<Guid, decimal> stockMl, decimal neededMl, int count = 6, CancellationToken stop = default)
    {
        // What was mixed as planned is the plan's recipe, however it was rounded on the way.
        var mixed = Recipe.Of(first);
        var recipe = Recipe.Of(view.Layers[index]) is { } planned && planned.IsNear(mixed) ? planned : mixed.Plain();
        var target = PotAdvice.End(view, index, first);
        var seen = new HashSet<string>();
        var options = new List<RemixOption>();
        foreach (var (tried, replaced) in Candidates(view, index, recipe, target, shelf, stockMl, neededMl, stop))
        {
            stop.ThrowIfCancellationRequested();
            if (!seen.Add(tried.Key) || Solve.Most(tried, stockMl).Ml < neededMl || !Holds(tried, view.Layers[index]))
                continue;
            var contents = tried.Fill(neededMl);
            var end = PotAdvice.End(view, index, contents);
            options.Add(new RemixOption(tried, contents, end, target.DifferenceTo(end), tried.Key == recipe.Key, replaced));
        }

        // The same paints in another ratio are no other advice; the best ratio of each stands for it.
        return options.OrderBy(o => o.IsSame ? 0 : o.Largest).ThenBy(o => o.AlsoFor)
            .DistinctBy(o => string.Join('+', o.Recipe.Parts.Select(p => p.Material.Id).Order())).Take(count).ToList();
    }

    private static bool Holds(Recipe recipe, Layer layer) =>
        PotCheck.Of(recipe.Fill(10), layer.Technique, layer.Tool).All(r => r.Severity is null or Severity.Hint);

    private static IEnumerable<(Recipe Recipe, int Replaced)> Candidates(
        StackView view, int index, Recipe recipe, SeenSplit target, IReadOnlyList<Material> shelf, IReadOnlyDictionary<Guid, decimal> stockMl, decimal neededMl, CancellationToken stop)
    {
        yield return (recipe, 0);
        foreach (var swap in Swaps(recipe, shelf, stockMl, neededMl))
            yield return (swap, 1);
        var run = view.Predictions;
        if (!StartHere.CanAsk(run, index, Position.Field))
            yield break;
        var there = shelf.Where(m => stockMl.GetValueOrDefault(m.Id, decimal.MaxValue) > 0).ToList();
        foreach (var start in StartHere.Find(run, index, Position.Field, target.Field.Lab, there, StartsTried, stop: stop))
            if (Recipe.Of(view.Layers[index] with { Paint = start.Paint, Dilution = start.Dilution }) is { } mix)
                yield return (mix, mix.Parts.Count);
    }

    /// <summary>The recipe with one component that is short replaced by others like it, nearest in colour first, in several strengths.</summary>
    private static IEnumerable<Recipe> Swaps(Recipe recipe, IReadOnlyList<Material> shelf, IReadOnlyDictionary<Guid, decimal> stockMl, decimal neededMl)
    {
        var need = recipe.Fill(neededMl).Portions.ToDictionary(p => p.Material.Id, p => p.Ml);
        var missing = recipe.Parts.Where(p => stockMl.GetValueOrDefault(p.Material.Id, decimal.MaxValue) < need.GetValueOrDefault(p.Material.Id)).ToList();
        foreach (var part in missing.Count > 0 ? missing : recipe.Parts.Where(p => !p.Material.IsThinner))
        {
            foreach (var other in Alike(part.Material, shelf).Where(m => recipe.Parts.All(p => p.Material.Id != m.Id)).Take(AlikeKept))
            {
                foreach (var (times, over) in part.Material.IsThinner ? [(1, 1)] : strengths)
                    yield return Recipe.Of(recipe.Parts.Select(p => p.Material.Id == part.Material.Id ? new MixPart(other, p.Parts * Parts.Of(times, over)) : p));
            }

            // What is left of the missing one, helped out by another.
            if (missing.Count > 0 && stockMl[part.Material.Id] > 0 && !part.Material.IsThinner)
                foreach (var other in Alike(part.Material, shelf).Where(m => recipe.Parts.All(p => p.Material.Id != m.Id)).Take(AlikeKept))
                    yield return Stretched(recipe, part, other, stockMl[part.Material.Id] / need[part.Material.Id]);
        }
    }

    private static Recipe Stretched(Recipe recipe, MixPart part, Material other, decimal share)
    {
        // Tenths, and a little less than there is, so that it can be measured.
        var tenths = Math.Clamp((int)Math.Floor(share * 10), 0, 9);
        return Recipe.Of(recipe.Parts.Select(p => p.Material.Id == part.Material.Id ? p with { Parts = p.Parts * Parts.Of(tenths, 10) } : p)
            .Append(new MixPart(other, part.Parts * Parts.Of(10 - tenths, 10))));
    }

    private static IEnumerable<Material> Alike(Material material, IReadOnlyList<Material> shelf)
    {
        var look = PotColour.Draw([new MixPart(material, Parts.One)], null);
        var like = shelf.Where(m => m.Id != material.Id && m.Kind == material.Kind && m.Carrier == material.Carrier && m.Lustre == material.Lustre
            && (!material.IsThinner || m.Thinners.Intersect(material.Thinners).Any()));
        return (material.Entered is { } entered ? ShelfPick.Likely(like, entered) : like)
            .OrderBy(m => look.DifferenceTo(PotColour.Draw([new MixPart(m, Parts.One)], null)));
    }
}
