using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Start;

namespace Lowfell.Core.Tests.Scalar;

/// <summary>
/// The same predictions one band at a time, written as plainly as the formulas: nothing kept, nothing shared, nothing vectorised.
/// What the core computes fast is held against it.
/// </summary>
public static class ScalarModel
{
    private const double Carried = 0.15;

    /// <summary>Reflectance as shown at the three positions after all layers.</summary>
    /// <param name="zone">Where it lies.</param>
    /// <param name="layers">Bottom first.</param>
    /// <param name="carryOver">House rule.</param>
    /// <param name="hands">Which hand lays each layer, 0 the thinnest to 1 the heaviest; the usual where left out.</param>
    public static double[][] Forward(Zone zone, IReadOnlyList<Layer> layers, bool carryOver = true, double[]? hands = null)
    {
        var bare = Reflectance.Of(SubstrateTraits.Colour(zone.Substrate)).Bands.ToArray().Select(r => (r - 0.01) / (0.99 * 0.6 + 0.4 * (r - 0.01))).ToArray();
        return Enum.GetValues<Position>().Select(p =>
        {
            var mean = new double[Observer.Bands];
            foreach (var (places, weight) in Places(zone, layers, p))
            {
                var shown = Shown(On((bare, 0.01), zone, layers, 0, p, carryOver, places, hands));
                for (var b = 0; b < mean.Length; b++)
                    mean[b] += weight * shown[b];
            }

            return mean;
        }).ToArray();
    }

    /// <summary>Every way to be inside or outside the places of a stack's layers, and the share of a position that is so.</summary>
    private static List<(Func<Region, bool> Lies, double Weight)> Places(Zone zone, IReadOnlyList<Layer> layers, Position position)
    {
        var places = layers.Where(l => l.Paint.Count > 0 || TakingAway.Removes(l.Technique)).Select(l => l.Region).Distinct().Where(r => Regions.PlaceShare(r, zone) < 1).Order().ToList();
        return Enumerable.Range(0, 1 << places.Count).Select(set =>
        {
            bool In(Region r) => places.IndexOf(r) is var at && (at < 0 || (set & 1 << at) != 0);
            var weight = places.Aggregate(1.0, (w, r) => (Regions.PlaceShare(r, zone) * Regions.Within(r)[position]) is var share && In(r) ? w * share : w * (1 - share));
            return ((Func<Region, bool>)In, weight);
        }).ToList();
    }

    /// <summary>Every single and every mix as a base, by full prediction of what lies on it.</summary>
    public static List<(double Difference, string Paint, int Coats)> Starts(
        StackRun run, int index, Position position, Lab wanted, IReadOnlyList<Material> shelf, IReadOnlyList<(int, int)> ratios, int count)
    {
        var candidates = new List<Layer>();
        for (var a = 0; a < shelf.Count; a++)
        {
            candidates.Add(With(run.Layers[index], (shelf[a], 1)));
            for (var b = a + 1; b < shelf.Count; b++)
                if (shelf[a].Carrier == shelf[b].Carrier)
                    candidates.AddRange(ratios.Select(r => With(run.Layers[index], (shelf[a], r.Item1), (shelf[b], r.Item2))));
        }

        return candidates.AsParallel().AsOrdered().Select(c => Score(run, index, position, wanted, c)).OrderBy(x => x.Difference).Take(count).ToList();
    }

    /// <summary>What lies in the part that takes in most of a position, of those where a region lies.</summary>
    public static Func<Region, bool> Largest(Zone zone, IReadOnlyList<Layer> layers, Position position, Region region) =>
        Places(zone, layers, position).Where(x => x.Lies(region)).MaxBy(x => x.Weight).Lies;

    private static (double Difference, string Paint, int Coats) Score(StackRun run, int index, Position position, Lab wanted, Layer candidate)
    {
        var optics = PerUm(candidate);
        var first = First(candidate);
        var masstone = Luminance(Shown((optics.K.Zip(optics.S, (k, s) => s / (k + s + Math.Sqrt(k * (k + 2 * s)))).ToArray(), first)));
        for (var coats = 1; ; coats++)
        {
            var film = Laying.Of(candidate with { Coats = coats }, run.Zone).FilmUm.Field;
            var over = Luminance(Shown((run.Below(index, Position.Field, candidate.Region).ToArray().Select((g, i) => KubelkaMunk.Film(optics.K[i], optics.S[i], film, g)).ToArray(), first)));
            if (coats < StartHere.MostCoats && Math.Min(over, masstone) / Math.Max(over, masstone) < Hiding.HiddenRatio)
                continue;
            var stack = run.Layers.ToList();
            stack[index] = candidate with { Coats = coats };
            var below = (run.Below(index, position, candidate.Region).ToArray(), run.FirstBelow(index, position, candidate.Region));
            var end = Shown(On(below, run.Zone, stack, index, position, run.CarriesOver, Largest(run.Zone, run.Layers, position, candidate.Region)));
            return (ColourDifference.Ciede2000(wanted, new Reflectance(end).ToLab()), Name(candidate.Paint), coats);
        }
    }

    public static string Name(IEnumerable<MixPart> paint) => string.Join(" + ", paint.Select(p => $"{p.Parts} {p.Material.Name}"));

    private static Layer With(Layer layer, params (Material Material, int Parts)[] paint) => layer with
    {
        Paint = paint.Select(p => new MixPart(p.Material, Parts.Of(p.Parts))).ToList(),
        Dilution = layer.Dilution is { } d && paint.All(p => p.Material.Thinners.Intersect(d.Thinner.Thinners).Any()) ? layer.Dilution : null,
    };

    /// <summary>Lays the layers from one index up on a surface.</summary>
    private static (double[] Inside, double First) On((double[] Inside, double First) surface, Zone zone, IReadOnlyList<Layer> layers, int from, Position position, bool carryOver, Func<Region, bool> lies, double[]? hands = null)
    {
        var (inside, first) = (surface.Inside.ToArray(), surface.First);
        for (var i = from; i < layers.Count; i++)
        {
            var layer = layers[i];
            var laydown = TechniqueTable.For(layer.Technique, layer.Tool).Laydown;
            if (!lies(layer.Region))
                continue;
            var laid = hands is null ? Laying.Of(layer, zone) : Hand.Of(layer, Laying.Of(layer, zone), hands[i]);
            if (laydown == Laydown.Chip)
            {
                if (TakingAway.LowestBroken(layers, i) == i)
                    continue;

                // What shows is what lay there when the lowest broken layer was not yet on.
                var core = On(surface, zone, layers.Take(TakingAway.LowestBroken(layers, i)).ToList(), from, position, carryOver, lies, hands);
                var share = laid.Covered[position];
                inside = inside.Zip(core.Inside, (now, was) => now + share * (was - now)).ToArray();
                first += share * (core.First - first);
                continue;
            }

            if (layer.Paint.Count == 0 || laydown is Laydown.Lift or Laydown.Rub)
                continue;
            double um = laid.FilmUm[position] * TakingAway.LeftOf(layers, i, zone, layers.Count, lies)[position], cover = laid.Cover[position];
            if (um <= 0 || cover <= 0)
                continue;
            var optics = Optics(layers, i, carryOver);
            var hold = cover * Math.Min(1, 2 * um / StandardFilm.Um(layer.Main!.Kind));
            for (var pass = 0; pass < laid.Passes; pass++)
            {
                for (var b = 0; b < inside.Length; b++)
                    inside[b] = cover * KubelkaMunk.Film(optics.K[b], optics.S[b], um, inside[b]) + (1 - cover) * inside[b];
                first = (1 - hold) * first + hold * First(layer);
            }
        }

        return (inside, first);
    }

    private static double First(Layer layer)
    {
        var paint = layer.Paint.Where(p => !p.Material.IsThinner).ToList();
        return paint.Count == 0 ? 0.015 : paint.Sum(p => p.Parts.ToDouble() * p.Material.Surface.First) / paint.Sum(p => p.Parts.ToDouble());
    }

    private static (double[] K, double[] S) Optics(IReadOnlyList<Layer> layers, int index, bool carryOver)
    {
        var own = PerUm(layers[layers[index].Technique == Technique.RunOff && RunOff.SourceOf(layers, index) is >= 0 and var source ? source : index]);
        if (!carryOver || layers[index].Technique != Technique.DryBrush)
            return own;
        var before = index - 1;
        while (before >= 0 && TechniqueTable.For(layers[before].Technique).Laydown == Laydown.None)
            before--;
        if (before < 0 || layers[before].Technique != Technique.DryBrush)
            return own;
        var last = Optics(layers, before, carryOver);
        return (Blend(own.K, last.K), Blend(own.S, last.S));
    }

    private static double[] Blend(double[] own, double[] last) => own.Zip(last, (o, l) => (1 - Carried) * o + Carried * l).ToArray();

    private static (double[] K, double[] S) PerUm(Layer layer)
    {
        double[] k = new double[Observer.Bands], s = new double[Observer.Bands];
        var paint = layer.Paint.Where(p => !p.Material.IsThinner).ToList();
        var total = paint.Sum(p => p.Parts.ToDouble());
        foreach (var part in paint)
        {
            for (var i = 0; i < k.Length; i++)
            {
                var share = part.Parts.ToDouble() / total * layer.PaintShare / StandardFilm.Um(part.Material.Kind);
                k[i] += share * part.Material.Optics.K[i];
                s[i] += share * part.Material.Optics.S[i];
            }
        }

        return (k, s);
    }

    private static double[] Shown((double[] Inside, double First) surface) =>
        surface.Inside.Select(r => surface.First + (1 - surface.First) * 0.6 * r / (1 - 0.4 * r)).ToArray();

    private static double Luminance(double[] reflectance) => Observer.Luminance(reflectance);
}
