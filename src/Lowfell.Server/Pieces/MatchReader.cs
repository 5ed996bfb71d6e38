using Lowfell.Core.Colour;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Order;
using Lowfell.Core.Pieces;
using Lowfell.Core.Sight;
using Lowfell.Core.Words;
using Lowfell.Store;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Pieces;

/// <summary>One zone as it was really done on a piece.</summary>
internal sealed record DoneZone(Place Place, StackView Plan, PieceCore Core);

/// <summary>Works out what more pieces like one mean: stacks, deviations, materials, stand-ins.</summary>
internal sealed class MatchReader(SetGraph graph, DesignRow design, PieceRow like, IReadOnlyList<DoneZone> zones, int count, IReadOnlySet<string> dropped, IReadOnlyDictionary<Guid, Material> swaps)
{
    private const int NearestLookedAt = 12, StandInsShown = 3;

    private readonly Dictionary<Guid, IReadOnlyList<Deviated>> deviations = zones.ToDictionary(z => z.Place.Zone.Id, z => AsDone.Of(z.Plan, z.Core));

    /// <summary>The stacks of the new pieces, zone by zone.</summary>
    public IReadOnlyList<(DoneZone Zone, IReadOnlyList<Layer> Stack)> Stacks() => zones.Select(z => (z, Swapped(Kept(z), swaps))).ToList();

    private IReadOnlyList<Layer> Kept(DoneZone zone) =>
        AsDone.Stack(zone.Plan, zone.Core, deviations[zone.Place.Zone.Id].Where(d => !dropped.Contains(Id(zone, d))).Select(d => (d.Kind, d.Line)).ToHashSet());

    private static string Id(DoneZone zone, Deviated d) => $"{zone.Place.Zone.Id:n} {EnumWords.Of(d.Kind).Replace(' ', '-')} {d.Line:n}";

    private static IReadOnlyList<Layer> Swapped(IReadOnlyList<Layer> stack, IReadOnlyDictionary<Guid, Material> by) => by.Count == 0 ? stack : stack.Select(l => l with
    {
        Paint = l.Paint.Select(p => by.TryGetValue(p.Material.Id, out var other) ? new MixPart(other, p.Parts) : p).ToList(),
        Dilution = l.Dilution is { } d && by.TryGetValue(d.Thinner.Id, out var thinner) ? new Dilution(thinner, d.PaintParts, d.ThinnerParts) : l.Dilution,
    }).ToList();

    public MatchReading Read(string name)
    {
        var stacks = Stacks();
        return new MatchReading(
            design.Name, like.Label, count, name, zones.SelectMany(z => deviations[z.Place.Zone.Id].Select(d => Word(z, d))).ToList(), Needs(),
            stacks.SelectMany(s => OrderCheck.Glance(new StackView(s.Zone.Place.Context, s.Stack)).Where(f => !f.IsCare && f.Severity != Severity.Hint).Select(f => new MatchRemark(s.Zone.Place.Zone.Name, f.Severity, f.Title))).ToList(),
            Math.Round(stacks.Sum(s => s.Stack.Sum(l => HandsOn.Batch(l, s.Zone.Place.Context.Zone, count, s.Zone.Place.Context.Pace)))));
    }

    private MatchDeviation Word(DoneZone zone, Deviated d)
    {
        var done = zone.Core.Layers.FirstOrDefault(l => l.Layer.Id == d.Line);
        var planned = zone.Plan.Layers.Select((l, i) => (l, i)).FirstOrDefault(x => x.l.Id == d.Line);
        var name = planned.l is { } layer ? $"layer {planned.i + 1}, {EnumWords.Of(layer.Technique)}" : done is { } extra ? EnumWords.Of(extra.Layer.Technique) : "";
        var words = d.Kind switch
        {
            Deviation.OtherMix => $"{name}: really {Mix(done!.Layer)} ({done.Pot}), planned {Mix(planned.l!)}",
            Deviation.OtherVersion => $"{name}: done by an older version",
            Deviation.LeftOut => $"{name}: left out",
            Deviation.Extra => $"{name}, {Mix(done!.Layer)}: not in the treatment",
            _ => "laid in another order",
        };
        return new MatchDeviation(Id(zone, d), zone.Place.Zone.Id, zone.Place.Zone.Name, d.Kind, words, Math.Round(d.Difference, 1), d.Verdict, !dropped.Contains(Id(zone, d)));
    }

    private static string Mix(Layer layer)
    {
        var all = layer.Paint.Sum(p => p.Parts.ToDouble());
        var paint = layer.Paint.Count == 1 ? layer.Paint[0].Material.Name : string.Join(" + ", layer.Paint.Select(p => FormattableString.Invariant($"{100 * p.Parts.ToDouble() / all:0} % {p.Material.Name}")));
        return layer.Dilution is { } d ? FormattableString.Invariant($"{paint}, {100 * (1 - layer.PaintShare):0} % {d.Thinner.Name}") : paint;
    }

    private List<MatchNeed> Needs()
    {
        // What is wanted before anything is swapped: a stand-in that was chosen stays beside what it stands for.
        var wanted = zones.SelectMany(z => Kept(z).SelectMany(l => Quantities.ForLayer(l, z.Place.Context.Zone, count))).GroupBy(n => n.Material.Id).Select(g => (g.First().Material, Ml: g.Sum(n => n.Ml)));
        var onShelf = zones.Count > 0 ? zones[0].Plan.Context.Shelf.Select(m => m.Id).ToHashSet() : [];
        return wanted.Select(w =>
        {
            var stock = onShelf.Contains(w.Material.Id) ? (decimal)graph.StockMl.GetValueOrDefault(w.Material.Id) : 0;
            var isShort = (double)stock < w.Ml;
            return new MatchNeed(w.Material.Id, w.Material.Name, Math.Round(w.Ml, 2), decimal.Round(stock, 1), isShort, isShort ? StandIns(w.Material, w.Ml) : []);
        }).OrderByDescending(n => n.Short).ThenByDescending(n => n.Ml).ToList();
    }

    /// <summary>What does the same work, there is enough of, and leaves the finished zones nearest to what they would be.</summary>
    private List<MatchSwap> StandIns(Material missing, double ml)
    {
        var lab = missing.Entered ?? default;
        return zones[0].Plan.Context.Shelf.Where(m => m.Id != missing.Id && m.Kind == missing.Kind && m.Carrier == missing.Carrier && m.IsThinner == missing.IsThinner && graph.StockMl.GetValueOrDefault(m.Id) >= ml)
            .OrderBy(m => ColourDifference.Ciede2000(lab, m.Entered ?? lab)).Take(NearestLookedAt)
            .Select(m =>
            {
                var by = new Dictionary<Guid, Material> { [missing.Id] = m };
                var worst = zones.Select(z => (Zone: z, Stack: Kept(z))).Where(z => z.Stack.Any(l => l.Paint.Any(p => p.Material.Id == missing.Id) || l.Dilution?.Thinner.Id == missing.Id)).Select(z =>
                {
                    var (one, other) = (Mean(z.Zone.Plan, z.Stack), Mean(z.Zone.Plan, Swapped(z.Stack, by)));
                    var zone = z.Zone.Plan.Context.Zone;
                    return (Difference: ColourDifference.Ciede2000(one.Lab, other.Lab), FromTheTable.Between(zone, one, zone, other, z.Zone.Plan.Context.Set.TableMetres).Verdict);
                }).DefaultIfEmpty().MaxBy(x => x.Difference);
                return new MatchSwap(m.Id, m.Name, Math.Round(worst.Difference, 1), worst.Verdict, decimal.Round((decimal)graph.StockMl.GetValueOrDefault(m.Id), 1), swaps.TryGetValue(missing.Id, out var chosen) && chosen.Id == m.Id);
            }).OrderBy(s => s.Difference).ThenBy(s => s.Name, StringComparer.Ordinal).Take(StandInsShown).ToList();
    }

    private static Seen Mean(StackView plan, IReadOnlyList<Layer> stack)
    {
        var run = plan.Predict(stack);
        return run.Count > 0 ? run[^1].Average : run.SeenBelow(0).Field;
    }
}
