using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing.Pots;

namespace Lowfell.Core.Estimates;

/// <summary>One layer of one zone, on the pieces that still need it.</summary>
/// <param name="ZoneId">The zone.</param>
/// <param name="Zone">Its measures.</param>
/// <param name="Layer">The layer.</param>
/// <param name="Pieces">Pieces still without it.</param>
/// <param name="Amount">What they take.</param>
/// <param name="Turn">The how-many-eth time its zone gets this mix, from 0.</param>
public sealed record LayerNeed(Guid ZoneId, Zone Zone, Layer Layer, int Pieces, Amount Amount, int Turn = 0);

/// <summary>How much of one material a set takes, and the layer that drives it most.</summary>
public sealed record SetNeed(Material Material, double Ml, Guid DrivingZone, Guid DrivingLayer, double DrivingShare);

/// <summary>Everything in a set that is laid from the same mix.</summary>
/// <param name="Recipe">The mix.</param>
/// <param name="Layers">Where it goes, most first.</param>
/// <param name="Ml">All of it, the reserve included.</param>
/// <param name="ReserveMl">What of it is kept back for corrections and for pieces to come.</param>
public sealed record MixNeed(Recipe Recipe, IReadOnlyList<LayerNeed> Layers, double Ml, double ReserveMl = 0)
{
    /// <summary>It is mixed or filled into a pot, rather than glued from its tube, strewn, or set one by one.</summary>
    public bool IsPoured => Layers.Any(l => l.Layer.Technique != Technique.GlueAndScatter && TechniqueTable.For(l.Layer.Technique).Laydown != Laydown.None && Quantities.Things(l.Layer, l.Zone, 1) == 0);

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
        var reserves = new Dictionary<Recipe, double>(ReferenceEqualityComparer.Instance);

        // Zones share treatments: the same layer is worked out once.
        var known = new Dictionary<Layer, List<(Recipe Recipe, List<LayerNeed> Layers, double Share)>>(ReferenceEqualityComparer.Instance);
        var turns = new Dictionary<Recipe, int>(ReferenceEqualityComparer.Instance);
        foreach (var plan in zones)
        {
            turns.Clear();
            foreach (var layer in plan.Layers)
            {
                if (!known.TryGetValue(layer, out var found))
                    known[layer] = found = Mixes(layer, byKey);
                if (found.Count == 0 || (Quantities.PotMl(layer, plan.Zone, plan.Pieces) <= 0 && Quantities.Things(layer, plan.Zone, plan.Pieces) == 0))
                    continue;
                var pieces = Math.Max(0, plan.Pieces - done(plan.ZoneId, layer.Id));
                foreach (var mix in found)
                {
                    var turn = turns[mix.Recipe] = turns.GetValueOrDefault(mix.Recipe, -1) + 1;
                    if (pieces > 0 && IsKeptBack(layer))
                        reserves[mix.Recipe] = Math.Max(reserves.GetValueOrDefault(mix.Recipe), plan.ReserveMl);
                    mix.Layers.Add(new LayerNeed(plan.ZoneId, plan.Zone, layer, pieces, Quantities.Work(layer, plan.Zone, pieces).Times(mix.Share), turn));
                }
            }
        }

        return byKey.Values.Where(m => m.Layers.Count > 0).Select(m => Whole(m.Recipe, m.Layers, reserves.GetValueOrDefault(m.Recipe))).OrderByDescending(m => m.Ml).ToList();
    }

    /// <summary>Colours that show in the end: a slip is put right in the one it fell on.</summary>
    private static bool IsKeptBack(Layer layer) =>
        layer.Main is { Kind: MaterialKind.Paint or MaterialKind.Ink }
        && layer.Technique is Technique.BaseCoat or Technique.WetBlend or Technique.Rim or Technique.Overbrush or Technique.DryBrush or Technique.EdgeLine;

    private static MixNeed Whole(Recipe recipe, List<LayerNeed> layers, double reserveMl)
    {
        var needs = CupsShared(layers.OrderByDescending(l => l.Amount.TotalMl)).OrderByDescending(l => l.Amount.TotalMl).ToList();
        return new(recipe, needs, needs.Sum(l => l.Amount.TotalMl) + reserveMl, reserveMl);
    }

    /// <summary>
    /// Zones that are sprayed with one mix in the same turn share their cups: what the first leaves in the last one goes on the next. Each
    /// takes the cups that are filled while it is sprayed, the largest first.
    /// </summary>
    private static IEnumerable<LayerNeed> CupsShared(IEnumerable<LayerNeed> layers)
    {
        var sprayed = new Dictionary<int, double>();
        foreach (var need in layers)
        {
            if (need.Layer.Tool != Tool.Airbrush || need.Amount.Fills == 0)
            {
                yield return need;
                continue;
            }

            var before = sprayed.GetValueOrDefault(need.Turn);
            var after = sprayed[need.Turn] = before + need.Amount.Fillings;
            yield return need with { Amount = need.Amount with { Fills = (int)(Math.Ceiling(after - Rounding) - Math.Ceiling(before - Rounding)) } };
        }
    }

    /// <summary>A cup that is full to a billionth is full.</summary>
    private const double Rounding = 1e-9;

    private static List<(Recipe Recipe, List<LayerNeed> Layers, double Share)> Mixes(Layer layer, Dictionary<string, (Recipe Recipe, List<LayerNeed> Layers)> byKey) => Recipe.Each(layer).Select(pot =>
    {
        var key = pot.Recipe.Key;
        if (!byKey.TryGetValue(key, out var mix))
            byKey[key] = mix = (pot.Recipe, []);
        return (mix.Recipe, mix.Layers, pot.Share);
    }).ToList();

    /// <summary>Every material that a set still takes, with what drives it, most first; what is in pots already is not taken off.</summary>
    /// <param name="zones">Zones with their layers and all their pieces.</param>
    /// <param name="done">Pieces that have a layer of a zone already.</param>
    public static IReadOnlyList<SetNeed> Needs(IEnumerable<ZonePlan> zones, Func<Guid, Guid, int> done) => FromShelf(Of(zones, done), new Dictionary<string, double>());

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
                shares.AddRange(Quantities.TakenApart(layer.Layer, (layer.Amount.TotalMl + (ReferenceEquals(layer, mix.Layers[0]) ? mix.ReserveMl : 0)) * missing).Select(n => (n, layer)));
        }

        return shares.GroupBy(s => s.Need.Material.Id).Select(g =>
        {
            var all = g.Sum(s => s.Need.Ml);
            var most = g.MaxBy(s => s.Need.Ml);
            return new SetNeed(most.Need.Material, all, most.By.ZoneId, most.By.Layer.Id, most.Need.Ml / all);
        }).OrderByDescending(n => n.Ml).ToList();
    }
}
