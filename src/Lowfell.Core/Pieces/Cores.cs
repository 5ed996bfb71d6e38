using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Mixing;
using Lowfell.Core.Order;
using Lowfell.Core.Sight;

namespace Lowfell.Core.Pieces;

/// <summary>A layer that lies on a piece.</summary>
/// <param name="Layer">As it was really laid: with what was in its pot, by the version of the treatment it was done by. Its id is its line.</param>
/// <param name="At">When.</param>
public sealed record CoreLayer(Layer Layer, DateTimeOffset At)
{
    /// <summary>Which filling of which pot, named so that two of a kind are the same; null where nobody said.</summary>
    public string? Pot { get; init; }

    /// <summary>It was done by a version of the treatment that is no longer in force.</summary>
    public bool IsOlder { get; init; }
}

/// <summary>What is really on one piece in one zone, in the order in which it was laid.</summary>
/// <param name="Piece">The piece.</param>
/// <param name="Layers">The first one first.</param>
public sealed record PieceCore(Guid Piece, IReadOnlyList<CoreLayer> Layers)
{
    /// <summary>Lines whose difference may stay, and lines that are left out on purpose.</summary>
    public IReadOnlySet<Guid> Accepted { get; init; } = new HashSet<Guid>();
    public IReadOnlySet<Guid> Skipped { get; init; } = new HashSet<Guid>();
}

/// <summary>How a core differs from what it should be.</summary>
public enum CoreFault
{
    /// <summary>A layer that is not there, though others of its design have it or later ones lie here already.</summary>
    Missing,

    /// <summary>A layer that the treatment does not have.</summary>
    Extra,

    /// <summary>It lies above one that should lie on it.</summary>
    Swapped,

    /// <summary>Laid from another pot, or another filling of it, than on most pieces.</summary>
    OtherPot,

    /// <summary>The same paint in another dilution than on most pieces.</summary>
    OtherDilution,

    /// <summary>What is on it went on before it was dry.</summary>
    TooYoung,

    /// <summary>It is there in fewer coats than are planned, or in more.</summary>
    Coats,

    /// <summary>Done by an older version of the treatment, in which it was another.</summary>
    OlderVersion,
}

/// <summary>One difference of one piece.</summary>
/// <param name="Piece">The piece.</param>
/// <param name="Line">The layer.</param>
/// <param name="Fault">Its kind.</param>
/// <param name="Difference">CIEDE2000 between the zone's mean colour as it is and as it would be without this, an estimate.</param>
/// <param name="Verdict">Whether that is seen from the table.</param>
/// <param name="Minutes">For what went on too soon: how long it had, and how long it wanted at least.</param>
/// <param name="Accepted">It may stay.</param>
public sealed record CoreDifference(Guid Piece, Guid Line, CoreFault Fault, double Difference, Verdict Verdict, (double Had, double Wanted)? Minutes, bool Accepted);

/// <summary>Cores of the pieces of a design side by side.</summary>
public static class Cores
{
    /// <summary>Shares of thinner nearer than this are the same dilution: nobody counts drops more closely.</summary>
    private const double SameDilution = 0.05;

    /// <summary>Everything in which the cores of one zone differ from the treatment and from each other.</summary>
    /// <param name="plan">The treatment as it is in force.</param>
    /// <param name="cores">What is on the pieces.</param>
    public static IReadOnlyList<CoreDifference> Differences(StackView plan, IReadOnlyList<PieceCore> cores)
    {
        var order = plan.Layers.Select((l, i) => (l.Id, i)).ToDictionary(x => x.Id, x => x.i);
        var usual = cores.SelectMany(c => c.Layers).Where(l => l.Pot is not null).GroupBy(l => l.Layer.Id)
            .ToDictionary(g => g.Key, g => g.GroupBy(l => l.Pot).OrderByDescending(p => p.Count()).ThenBy(p => p.Min(l => l.At)).First().First());
        var laidOn = order.Keys.ToDictionary(l => l, l => cores.Count(c => c.Layers.Any(x => x.Layer.Id == l)));
        var looks = new Looks(plan);
        return cores.SelectMany(core => Of(plan, core, order, usual, line => 2 * laidOn[line] > cores.Count, looks)).ToList();
    }

    private static IEnumerable<CoreDifference> Of(StackView plan, PieceCore core, Dictionary<Guid, int> order, Dictionary<Guid, CoreLayer> usual, Func<Guid, bool> onMost, Looks looks)
    {
        var layers = core.Layers.Select(l => l.Layer).ToList();
        var (seen, here) = (looks.Mean(layers), looks.Of(layers));
        CoreDifference Differs(Guid line, CoreFault fault, IReadOnlyList<Layer>? instead, (double, double)? minutes = null)
        {
            if (instead is null)
                return new(core.Piece, line, fault, 0, Verdict.Lost, minutes, core.Accepted.Contains(line));
            var (difference, verdict) = looks.Apart(seen, looks.Mean(instead));
            return new(core.Piece, line, fault, difference, verdict, minutes, core.Accepted.Contains(line));
        }

        var highest = layers.Where(l => order.ContainsKey(l.Id)).Select(l => order[l.Id]).DefaultIfEmpty(-1).Max();
        foreach (var (line, at) in order.OrderBy(o => o.Value))
            if (layers.All(l => l.Id != line) && !core.Skipped.Contains(line) && (at < highest || onMost(line)))
                yield return Differs(line, CoreFault.Missing, With(layers, plan.Layers[at], order));
        for (var i = 0; i < layers.Count; i++)
        {
            var layer = layers[i];
            if (!order.TryGetValue(layer.Id, out var at))
            {
                yield return Differs(layer.Id, CoreFault.Extra, Without(layers, i));
                continue;
            }

            if (layers.Take(i).Any(l => order.TryGetValue(l.Id, out var below) && below > at))
                yield return Differs(layer.Id, CoreFault.Swapped, With(Without(layers, i), layer, order));
            if (core.Layers[i].IsOlder && StackDifference.Phrases([layer], [plan.Layers[at]]).Count > 0)
                yield return Differs(layer.Id, CoreFault.OlderVersion, Replaced(layers, i, plan.Layers[at]));
            if (layer.Coats != plan.Layers[at].Coats && !core.Layers[i].IsOlder)
                yield return Differs(layer.Id, CoreFault.Coats, Replaced(layers, i, layer with { Coats = plan.Layers[at].Coats }));
            if (core.Layers[i].Pot is { } pot && usual.TryGetValue(layer.Id, out var most) && most.Pot != pot)
                yield return Differs(layer.Id, SamePaint(layer, most.Layer) && !SameThinning(layer, most.Layer) ? CoreFault.OtherDilution : CoreFault.OtherPot, Replaced(layers, i, most.Layer));
            if (Young(looks, here, core, i) is { } minutes)
                yield return Differs(layer.Id, CoreFault.TooYoung, null, minutes);
        }
    }

    /// <summary>How long a layer had before the next film went onto it, and how long it wanted; null where that was enough.</summary>
    private static (double Had, double Wanted)? Young(Looks looks, StackView here, PieceCore core, int i)
    {
        if (looks.Wants(here, i) is not var (next, wanted))
            return null;
        var had = (core.Layers[next].At - core.Layers[i].At).TotalMinutes;
        return had < wanted ? (had, wanted) : null;
    }

    /// <summary>How stacks look, each looked at once: of hundreds of pieces most are alike. Layers are alike when they are the same one.</summary>
    private sealed class Looks : IEqualityComparer<IReadOnlyList<Layer>>
    {
        private readonly StackView plan;
        private readonly Dictionary<IReadOnlyList<Layer>, StackView> views;
        private readonly Dictionary<IReadOnlyList<Layer>, Seen> means;
        private readonly Dictionary<(Seen, Seen), (double, Verdict)> apart = [];
        private readonly Dictionary<(StackView, int), (int Next, double Minutes)?> wants = [];

        public Looks(StackView plan) => (this.plan, views, means) = (plan, new(this), new(this));

        public StackView Of(IReadOnlyList<Layer> layers)
        {
            if (!views.TryGetValue(layers, out var view))
                views[layers] = view = new StackView(plan.Context, layers);
            return view;
        }

        /// <summary>Its colour, meant over the zone.</summary>
        public Seen Mean(IReadOnlyList<Layer> layers)
        {
            if (means.TryGetValue(layers, out var mean))
                return mean;
            var run = plan.Predict(layers);
            return means[layers] = run.Count > 0 ? run[^1].Average : run.SeenBelow(0).Field;
        }

        /// <summary>How far two colours are apart (CIEDE2000), and whether that is seen from the table.</summary>
        public (double Difference, Verdict Verdict) Apart(Seen one, Seen other)
        {
            if (!apart.TryGetValue((one, other), out var known))
                apart[(one, other)] = known = (ColourDifference.Ciede2000(one.Lab, other.Lab), FromTheTable.Between(plan.Context.Zone, one, plan.Context.Zone, other, plan.Context.Set.TableMetres).Verdict);
            return known;
        }

        /// <summary>The next film on a layer, and how long the layer wants before that, minutes; null where it leaves none or nothing follows.</summary>
        public (int Next, double Minutes)? Wants(StackView view, int i)
        {
            if (!wants.TryGetValue((view, i), out var known))
                wants[(view, i)] = known = view.LeavesFilm(i) && view.NextAbove(i, j => view.LeavesFilm(j) && view.FilmBelow(j) == i) is >= 0 and var next ? (next, view.Needed(i, next).Minutes.Low) : null;
            return known;
        }

        public bool Equals(IReadOnlyList<Layer>? a, IReadOnlyList<Layer>? b)
        {
            if (a!.Count != b!.Count)
                return false;
            for (var i = 0; i < a.Count; i++)
                if (!ReferenceEquals(a[i], b[i]))
                    return false;
            return true;
        }

        public int GetHashCode(IReadOnlyList<Layer> layers)
        {
            var hash = new HashCode();
            foreach (var layer in layers)
                hash.Add(layer.Id);
            return hash.ToHashCode();
        }
    }

    /// <summary>A layer put in where the plan has it: above all that should lie below it.</summary>
    private static List<Layer> With(IReadOnlyList<Layer> layers, Layer layer, Dictionary<Guid, int> order)
    {
        var at = order[layer.Id];
        var above = layers.Select((l, i) => (l, i)).Where(x => order.TryGetValue(x.l.Id, out var o) && o > at).Select(x => x.i).DefaultIfEmpty(layers.Count).First();
        return [.. layers.Take(above), layer, .. layers.Skip(above)];
    }

    private static List<Layer> Without(IReadOnlyList<Layer> layers, int i) => [.. layers.Take(i), .. layers.Skip(i + 1)];

    private static List<Layer> Replaced(IReadOnlyList<Layer> layers, int i, Layer by) => [.. layers.Take(i), by, .. layers.Skip(i + 1)];

    /// <summary>The same materials in the same parts, to what anybody measures.</summary>
    private static bool SamePaint(Layer a, Layer b)
    {
        var (first, second) = (Shares(a.Paint), Shares(b.Paint));
        return first.Count == second.Count && first.All(s => second.TryGetValue(s.Key, out var share) && Math.Abs(share - s.Value) <= SameDilution);
    }

    private static Dictionary<Guid, double> Shares(IReadOnlyList<MixPart> paint)
    {
        var all = paint.Sum(p => p.Parts.ToDouble());
        return paint.GroupBy(p => p.Material.Id).ToDictionary(g => g.Key, g => g.Sum(p => p.Parts.ToDouble()) / all);
    }

    /// <summary>The same materials in the same parts, thinned alike: to what anybody measures.</summary>
    public static bool IsSameMix(Layer a, Layer b) => SamePaint(a, b) && SameThinning(a, b);

    private static bool SameThinning(Layer a, Layer b) => Math.Abs(a.PaintShare - b.PaintShare) <= SameDilution && (a.Dilution is null) == (b.Dilution is null);
}
