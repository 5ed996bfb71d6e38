using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Mixing;
using Lowfell.Core.Order;
using Lowfell.Core.Sight;
using Lowfell.Core.Variation;
using Lowfell.Server.Stacks;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Variation;

/// <summary>Words the plan of a layer over all pieces of its zones.</summary>
internal sealed class VariationReader(SetGraph graph, ILookup<(Guid Zone, Guid Piece), PieceLayerRow> laid, IReadOnlyDictionary<(Guid Zone, Guid Piece), MarksDoneRow> otherwise)
{
    /// <summary>Reads what was done of a layer beside the plan of a set.</summary>
    public static async Task<VariationReader> For(SetGraph graph, Guid surface, Guid line, LowfellDb db, CancellationToken stop)
    {
        var zones = graph.Places.Where(p => p.Zone.SurfaceId == surface).Select(p => p.Zone.Id).ToList();
        var laid = await db.PieceLayers.AsNoTracking().Where(p => zones.Contains(p.ZoneId) && p.LineId == line).ToListAsync(stop);
        var otherwise = await db.MarksDone.AsNoTracking().Where(m => zones.Contains(m.ZoneId) && m.LineId == line).ToListAsync(stop);
        return new(graph, laid.ToLookup(l => (l.ZoneId, l.PieceId)), otherwise.ToDictionary(m => (m.ZoneId, m.PieceId)));
    }

    /// <summary>Every layer of a set that is varied or could be, those that are first.</summary>
    public static IReadOnlyList<VariationEntry> List(SetGraph graph) => graph.Places.GroupBy(p => p.Zone.SurfaceId).SelectMany(g =>
    {
        var (treatment, layers, pieces) = (g.First().Treatment, g.First().Layers, g.Sum(p => SetGraph.PieceCount(p.Design)));
        return layers.Select((l, i) => new VariationEntry(
            treatment.Id, l.Id, treatment.Name, i + 1, l.Technique, string.Join(" + ", l.Paint.Select(p => p.Material.Name)), g.Select(p => p.Name).ToList(), pieces, l.Varied is not null, Varied.HasMarks(l), Varied.CanBeDealt(l)));
    }).Where(e => e.Varied || (e.Pieces > 1 && (e.HasMarks || e.CanBeDealt))).OrderByDescending(e => e.Varied).ThenByDescending(e => e.HasMarks).ToList();

    public VariationReading Read(ZoneRow zone, int index, Varied varied)
    {
        var (treatment, layer) = (graph.Treatments[zone.TreatmentId], graph.Layers(zone)[index]);
        var places = graph.Places.Where(p => p.Zone.SurfaceId == zone.SurfaceId).ToList();
        var plans = places.Select(p => (At: p, Plan: PlanOfPieces.Of(p, layer, varied))).ToList();
        var (first, drawn) = (places[0].Context.Zone, layer with { Varied = varied });
        var usual = new Varied(varied.Seed);
        var wish = VariationWish.Of(layer with { Varied = usual }, usual with { Spread = varied.Spread, Marks = varied.Marks }, first);
        return new VariationReading(
            graph.Set.Id, graph.Workshop.Id, treatment.Id, treatment.Version, treatment.Name, layer.Id, index + 1, layer.Technique, string.Join(" + ", layer.Paint.Select(p => p.Material.Name)), LayerWords.ToDto(varied)!,
            new VariedDto(varied.Seed, wish.Habit, (decimal)wish.MeanMm, (decimal)wish.MarksAPiece, (decimal)Varied.UsualSpread, false), plans.Min(p => MarksPlan.MostMarks(Varied.HabitOf(drawn), p.Plan.Face)), Varied.ByRegion(layer.Region) is not null, layer.Varied == varied, Varied.HasMarks(layer), Varied.CanBeDealt(layer),
            Dealt(drawn, plans), plans.Select(p => Word(p.At, p.Plan, drawn, index)).ToList());
    }

    private VariationZone Word(Place at, PlanOfPieces plan, Layer layer, int index)
    {
        var layers = at.Layers.Select((l, i) => i == index ? layer : l).ToList();
        var view = new StackView(at.Context, layers);
        var (marked, bare) = Details.Colours(view.Predictions, index);
        var colours = new Dictionary<string, string>();
        string Colour(IReadOnlyList<int> hand)
        {
            if (hand.Count == 0)
                return marked.ToString();
            var key = string.Join(' ', hand);
            if (!colours.TryGetValue(key, out var known))
            {
                var paints = layer.Paint.Where(p => !p.Material.IsThinner).ToList();
                var own = layer with { Paint = hand.Select(h => paints[h] with { Parts = Parts.One }).ToList(), Varied = null };
                colours[key] = known = Details.Colours(view.Predict(layers.Select((l, i) => i == index ? own : l).ToList()), index).Marked.ToString();
            }

            return known;
        }

        var surface = Surfaces.Word(at.Zone, graph.Set.Scale);
        var shares = at.Context.Zone.Shares;
        return new VariationZone(
            at.Zone.Id, at.Zone.Name, at.Design.Name,
            new FaceReading(plan.Face.WidthMm, plan.Face.HeightMm, at.Zone.FaceWidthMm is not null, plan.Face.Anchors.Select(a => new AnchorReading(a.Name, Math.Round(a.X, 1), Math.Round(a.Y, 1))).ToList(), plan.Face.Courses.Select(c => Math.Round(c, 1)).ToList()),
            surface, new PositionsDto(shares.Raised, shares.Field, shares.Recess), bare.ToString(), plan.Wish is null ? 0 : MarksPlan.PlaceCount(plan.Wish.Habit, plan.Face), Figures(at, plan, layer),
            plan.Pieces.Select(p => new VariationPiece(
                p.Piece.Id, p.Piece.Label, p.Words, Colour(p.Hand), plan.Wish is null ? [] : p.Marks.Marks.Select(m => new MarkReading(m.X, m.Y, m.SizeMm, m.Heaviness, MarkWords.Of(m, plan.Wish, plan.Face))).ToList(),
                laid[(at.Zone.Id, p.Piece.Id)].FirstOrDefault()?.State ?? Core.Bench.PieceState.Open,
                otherwise.GetValueOrDefault((at.Zone.Id, p.Piece.Id)) is { } done ? new MarksDone(done.Marks, done.MeanMm, done.Note, done.At) : null)).ToList());
    }

    private VariationFigures Figures(Place at, PlanOfPieces plan, Layer layer)
    {
        var (zone, count) = (at.Context.Zone, plan.Pieces.Count);
        var marks = plan.Pieces.SelectMany(p => p.Marks.Marks).ToList();
        var shared = plan.Pieces.Zip(plan.Pieces.Skip(1)).Count(x => x.First.Marks.Marks.Select(m => m.Place).Intersect(x.Second.Marks.Marks.Select(m => m.Place)).Any());
        var places = plan.Wish is null ? 0 : MarksPlan.PlaceCount(plan.Wish.Habit, plan.Face);
        var (least, most) = places > 0 ? MarksPlan.Uses(plan.Pieces.Select(p => p.Marks).ToList(), places) : (0, 0);
        var done = plan.Pieces.Where(p => laid[(at.Zone.Id, p.Piece.Id)].Any(l => l.State == Core.Bench.PieceState.Done)).ToList();
        var noted = plan.Pieces.Where(p => otherwise.ContainsKey((at.Zone.Id, p.Piece.Id))).Select(p => otherwise[(at.Zone.Id, p.Piece.Id)]).ToList();

        // What was laid: as noted where it was, and else as planned.
        var really = done.Select(p => otherwise.GetValueOrDefault((at.Zone.Id, p.Piece.Id)) is { } o
            ? (o.Marks, Mm: (double?)o.MeanMm ?? plan.Wish?.MeanMm ?? 0) : (p.Marks.Marks.Count, Mm: p.Marks.Marks.Count > 0 ? p.Marks.Marks.Average(m => m.SizeMm) : 0)).ToList();
        var all = really.Sum(r => r.Item1);
        var mm2 = marks.Sum(m => Math.PI / 4 * m.SizeMm * m.SizeMm);
        return new VariationFigures(
            Math.Round(plan.Wish?.MeanMm ?? 0, 1), marks.Count > 0 ? Math.Round(marks.Average(m => m.SizeMm), 1) : 0, marks.Count > 0 ? Math.Round(marks.Min(m => m.SizeMm), 1) : 0, marks.Count > 0 ? Math.Round(marks.Max(m => m.SizeMm), 1) : 0,
            count > 0 ? Math.Round((double)marks.Count / count, 2) : 0, count > 0 ? Math.Round(mm2 / count / (zone.AreaCm2 * 100), 3) : 0,
            least, most, shared,
            Math.Round(Quantities.PotMl(layer, zone, count), 1), Math.Round(HandsOn.Batch(layer, zone, count, at.Context.Pace)), done.Count, noted.Count,
            done.Count > 0 && plan.Wish is not null ? Math.Round((double)all / done.Count, 2) : null, all > 0 ? Math.Round(really.Sum(r => r.Item1 * r.Mm) / all, 1) : null);
    }

    private List<DealtMaterial> Dealt(Layer layer, IReadOnlyList<(Place At, PlanOfPieces Plan)> plans)
    {
        if (!layer.IsDealt)
            return [];
        var paints = layer.Paint.Where(p => !p.Material.IsThinner).ToList();
        var (all, hands) = (paints.Sum(p => p.Parts.ToDouble()), plans.SelectMany(p => p.Plan.Pieces).Select(p => p.Hand).ToList());
        var needs = plans.Sum(p => Quantities.PotMl(layer, p.At.Context.Zone, p.Plan.Pieces.Count)) * (layer.Dilution?.PaintShare ?? 1);
        return paints.Select((p, m) => new DealtMaterial(
            p.Material.Id, p.Material.Name, p.Parts.ToDecimal(), Math.Round(p.Parts.ToDouble() / all, 3), hands.Count > 0 ? Math.Round(hands.Sum(h => h.Contains(m) ? 1.0 / h.Count : 0) / hands.Count, 3) : 0,
            Math.Round(needs * p.Parts.ToDouble() / all, 2), graph.StockMl.GetValueOrDefault(p.Material.Id))).ToList();
    }
}
