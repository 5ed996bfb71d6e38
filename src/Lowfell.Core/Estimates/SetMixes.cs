using Lowfell.Core.Layers;
using Lowfell.Core.Mixing.Pots;

namespace Lowfell.Core.Estimates;

/// <summary>One layer of one zone, on the pieces that still need it.</summary>
/// <param name="ZoneId">The zone.</param>
/// <param name="Zone">Its measures.</param>
/// <param name="Layer">The layer.</param>
/// <param name="Pieces">Pieces still without it.</param>
/// <param name="Amount">What they take.</param>
public sealed record LayerNeed(Guid ZoneId, Zone Zone, Layer Layer, int Pieces, Amount Amount);

/// <summary>Everything in a set that is laid from the same mix.</summary>
/// <param name="Recipe">The mix.</param>
/// <param name="Layers">Where it goes, most first.</param>
/// <param name="Ml">All of it.</param>
public sealed record MixNeed(Recipe Recipe, IReadOnlyList<LayerNeed> Layers, double Ml)
{
    /// <summary>The layer that takes most, and its share of the whole, 0..1.</summary>
    public (LayerNeed Layer, double Share) Driver => (Layers[0], Ml > 0 ? Layers[0].Amount.TotalMl / Ml : 0);
}

/// <summary>The amounts of a set by what is in the pot.</summary>
public static class SetMixes
{
    /// <summary>Every mix of a set, most first.</summary>
    /// <param name="zones">Zones with their layers and all their pieces.</param>
    /// <param name="done">Pieces that have a layer of a zone already.</param>
    public static IReadOnlyList<MixNeed> Of(IEnumerable<ZonePlan> zones, Func<Guid, Guid, int> done)
    {
        var byKey = new Dictionary<string, (Recipe Recipe, List<LayerNeed> Layers)>();

        // Zones share treatments: the same layer is worked out once.
        var known = new Dictionary<Layer, (Recipe Recipe, List<LayerNeed> Layers)?>(ReferenceEqualityComparer.Instance);
        foreach (var plan in zones)
        {
            foreach (var layer in plan.Layers)
            {
                if (!known.TryGetValue(layer, out var found))
                    known[layer] = found = Mix(layer, byKey);
                if (found is not { } mix || Quantities.PotMl(layer, plan.Zone, plan.Pieces) <= 0)
                    continue;
                var pieces = Math.Max(0, plan.Pieces - done(plan.ZoneId, layer.Id));
                mix.Layers.Add(new LayerNeed(plan.ZoneId, plan.Zone, layer, pieces, Quantities.Work(layer, plan.Zone, pieces)));
            }
        }

        return byKey.Values.Where(m => m.Layers.Count > 0).Select(m => new MixNeed(m.Recipe, m.Layers.OrderByDescending(l => l.Amount.TotalMl).ToList(), m.Layers.Sum(l => l.Amount.TotalMl)))
            .OrderByDescending(m => m.Ml).ToList();
    }

    private static (Recipe Recipe, List<LayerNeed> Layers)? Mix(Layer layer, Dictionary<string, (Recipe Recipe, List<LayerNeed> Layers)> byKey)
    {
        if (Recipe.Of(layer) is not { } recipe)
            return null;
        var key = recipe.Key;
        if (!byKey.TryGetValue(key, out var mix))
            byKey[key] = mix = (recipe, []);
        return mix;
    }

    /// <summary>
    /// What still has to come from the shelf, material by material with what drives it most: every mix less what is in pots of it,
    /// taken apart into its components.
    /// </summary>
    /// <param name="mixes">The mixes of a set.</param>
    /// <param name="inPotsMl">What is ready in pots of a recipe, by its key, ml.</param>
    public static IReadOnlyList<SetNeed> FromShelf(IEnumerable<MixNeed> mixes, IReadOnlyDictionary<string, double> inPotsMl)
    {
        var shares = new List<(Need Need, LayerNeed By)>();
        foreach (var mix in mixes.Where(m => m.Ml > 0))
        {
            // A pot serves all its layers alike, so that each is short by the same share.
            var missing = Math.Max(0, 1 - inPotsMl.GetValueOrDefault(mix.Recipe.Key) / mix.Ml);
            foreach (var layer in mix.Layers)
                shares.AddRange(Quantities.TakenApart(layer.Layer, layer.Amount.TotalMl * missing).Select(n => (n, layer)));
        }

        return shares.GroupBy(s => s.Need.Material.Id).Select(g =>
        {
            var all = g.Sum(s => s.Need.Ml);
            var most = g.MaxBy(s => s.Need.Ml);
            return new SetNeed(most.Need.Material, all, most.By.ZoneId, most.By.Layer.Id, most.Need.Ml / all);
        }).OrderByDescending(n => n.Ml).ToList();
    }
}
