using Lowfell.Core.Colour;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Order;
using Lowfell.Core.Sight;

namespace Lowfell.Core.Sessions;

/// <summary>A zone that takes a surface.</summary>
/// <param name="View">Its stack.</param>
/// <param name="Pieces">Pieces of its design.</param>
/// <param name="ToGo">How many still want a layer, by its id.</param>
/// <param name="Metres">Distance of the eye.</param>
public sealed record FitZone(StackView View, int Pieces, Func<Guid, int> ToGo, double Metres);

/// <summary>A surface of a treatment with every zone that takes it: what is left out of it is left out on all of them.</summary>
public sealed record FitSurface(Guid Id, IReadOnlyList<FitZone> Zones);

/// <summary>A layer that is left out of a surface.</summary>
public readonly record struct Omission(Guid Surface, Guid Layer);

/// <summary>A point of the trade.</summary>
/// <param name="Minutes">Hands-on minutes that remain; an estimate.</param>
/// <param name="Difference">CIEDE2000 from the table between this and all of it, by area.</param>
/// <param name="Out">What is left out.</param>
public sealed record FitPoint(double Minutes, double Difference, IReadOnlyList<Omission> Out);

/// <summary>What to leave out so that least is lost as seen from the table: minutes kept against difference seen.</summary>
public static class FitToHours
{
    private const double LeastMinutes = 1;

    /// <summary>
    /// The curve, from everything down to what cannot be left out. Layers that hold, shape or finish are never offered, nor what cracks and
    /// chips stand on, nor one that some piece has already, nor one without which the order of layers would be stopped. Each surface is
    /// thinned greedily, and the lower convex hulls of all are walked by their slope, so that every further minute costs at least as much
    /// as the one before.
    /// </summary>
    public static IReadOnlyList<FitPoint> Of(IReadOnlyList<FitSurface> surfaces, CancellationToken stop = default)
    {
        var area = Math.Max(1e-9, surfaces.SelectMany(t => t.Zones).Sum(z => z.View.Context.Zone.AreaCm2 * z.Pieces));
        var hulls = surfaces.AsParallel().AsOrdered().WithCancellation(stop).Select(t => Hull(Thin(t, area, stop))).ToList();
        var (minutes, difference, left) = (surfaces.SelectMany(t => t.Zones).Sum(z => Minutes(z, z.View)), 0.0, new List<Omission>());
        var points = new List<FitPoint> { new(minutes, 0, []) };
        foreach (var step in hulls.SelectMany(h => h).OrderBy(s => s.Lost / s.Saved).ThenByDescending(s => s.Saved))
        {
            (minutes, difference) = (minutes - step.Saved, difference + step.Lost);
            left.AddRange(step.Out);
            points.Add(new FitPoint(minutes, difference, left.ToList()));
        }

        return points;
    }

    /// <summary>Hands-on minutes of a zone's stack on the pieces that still want it.</summary>
    private static double Minutes(FitZone zone, StackView view) => view.Layers.Sum(l => HandsOn.Batch(l, view.Context.Zone, zone.ToGo(l.Id), view.Context.Pace));

    private readonly record struct Step(double Saved, double Lost, IReadOnlyList<Omission> Out);

    /// <summary>One layer after the other, always the one that loses least for its minutes.</summary>
    private static List<Step> Thin(FitSurface surface, double area, CancellationToken stop)
    {
        var steps = new List<Step>();
        if (surface.Zones.Count == 0)
            return steps;
        var full = surface.Zones.Select(z => Far(z, z.View)).ToList();
        var stops = surface.Zones.Select(z => Stops(z.View)).ToList();
        var now = surface.Zones.Select(z => z.View).ToList();
        var (lost, refused) = (0.0, new HashSet<Guid>());
        while (!stop.IsCancellationRequested)
        {
            var best = Candidates(surface, now, refused)
                .Select(bundle =>
                {
                    var then = now.Select(v => Without(v, bundle)).ToList();
                    var saved = surface.Zones.Select((z, i) => Minutes(z, now[i]) - Minutes(z, then[i])).Sum();
                    var loss = surface.Zones.Select((z, i) => z.View.Context.Zone.AreaCm2 * z.Pieces * Apart(z, full[i], Far(z, then[i]))).Sum() / area;
                    return (bundle, then, saved, loss);
                })
                .Where(c => c.saved >= LeastMinutes).OrderBy(c => Math.Max(0, c.loss - lost) / c.saved);
            var taken = false;
            foreach (var (bundle, then, saved, loss) in best)
            {
                if (then.Select((v, i) => Stops(v).IsSubsetOf(stops[i])).Any(sound => !sound))
                {
                    refused.Add(bundle[0]);
                    continue;
                }

                steps.Add(new Step(saved, loss - lost, bundle.Select(l => new Omission(surface.Id, l)).ToList()));
                (now, lost, taken) = (then, loss, true);
                break;
            }

            if (!taken)
                break;
        }

        return steps;
    }

    /// <summary>Layers that may be left out, each with what is there for it alone: its clean-up, the fluid below its chips.</summary>
    private static IEnumerable<List<Guid>> Candidates(FitSurface surface, List<StackView> now, HashSet<Guid> refused)
    {
        var (zone, view) = (surface.Zones[0], now[0]);
        for (var i = 0; i < view.Count; i++)
        {
            var layer = view.Layers[i];
            if (refused.Contains(layer.Id) || StopHere.PurposeOf(layer) != Purpose.Look || !Untouched(surface, layer.Id) || Carries(view, i))
                continue;
            var bundle = new List<Guid> { layer.Id };
            for (var k = i + 1; k < view.Count; k++)
                if (Lifting.CleansOnly(view.Layers, k, i, zone.View.Context.Zone.Relief))
                    bundle.Add(view.Layers[k].Id);
            if (layer.Technique == Technique.ChipThrough && TakingAway.FluidOf(view.Layers, i) is >= 0 and var fluid && !Enumerable.Range(0, view.Count).Any(k => k != i && view.Layers[k].Technique == Technique.ChipThrough && TakingAway.FluidOf(view.Layers, k) == fluid))
                bundle.Add(view.Layers[fluid].Id);
            if (bundle.All(id => Untouched(surface, id)))
                yield return bundle;
        }
    }

    /// <summary>What cracks, chips or is stuck on needs what it stands on, and shows it in time.</summary>
    private static bool Carries(StackView view, int layer) =>
        view.NextAbove(layer, view.LeavesFilm) is >= 0 and var above && view.Layers[above].Technique is Technique.CracklePaste or Technique.CrackleMedium or Technique.ChippingFluid or Technique.Decal or Technique.GlueAndScatter;

    private static bool Untouched(FitSurface surface, Guid layer) => surface.Zones.All(z => z.Pieces == 0 || z.ToGo(layer) == z.Pieces);

    private static StackView Without(StackView view, List<Guid> bundle) => new(view.Context, view.Layers.Where(l => !bundle.Contains(l.Id)).ToList());

    private static HashSet<(string, Guid)> Stops(StackView view)
    {
        var bare = view.Context.Shelf.Count == 0 ? view : new StackView(view.Context with { Shelf = [] }, view.Layers);
        return OrderCheck.Glance(bare).Where(f => f.Severity == Severity.Stop).Select(f => OrderCheck.Key(bare, f)).ToHashSet();
    }

    private static (SrgbColour Raised, SrgbColour Field, SrgbColour Recess) Far(FitZone zone, StackView view) => FromTheTable.Colours(view.Context.Zone, view.Predictions.SeenBelow(view.Count), zone.Metres);

    private static double Apart(FitZone zone, (SrgbColour Raised, SrgbColour Field, SrgbColour Recess) a, (SrgbColour Raised, SrgbColour Field, SrgbColour Recess) b) => StopHere.Between(zone.View.Context.Zone, a, b);

    /// <summary>The lower convex hull of minutes saved against difference, as its edges: steps that pay only together are taken together.</summary>
    private static List<Step> Hull(List<Step> steps)
    {
        var hull = new List<Step>();
        foreach (var step in steps)
        {
            var edge = step;
            while (hull.Count > 0 && hull[^1].Lost * edge.Saved >= edge.Lost * hull[^1].Saved)
            {
                var before = hull[^1];
                hull.RemoveAt(hull.Count - 1);
                edge = new Step(before.Saved + edge.Saved, before.Lost + edge.Lost, [.. before.Out, .. edge.Out]);
            }

            hull.Add(edge);
        }

        return hull;
    }
}
