using System.Globalization;
using System.Text;
using Lowfell.Core.Bases;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Order;
using Lowfell.Core.Sight;
using Lowfell.Server.Stacks;
using Lowfell.Store;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Bases;

/// <summary>Lays out the bases of a design and words them.</summary>
internal static class TrayReader
{
    /// <summary>What nobody paints is drawn in the grey of stone, and in the brown of bare wood.</summary>
    private const string Stone = "#85858a", Bark = "#8f7355", Wood = "#8a6f4e", Straw = "#9a8b52";

    /// <summary>A base as it lies, with the grounds that are drawn and reckoned with.</summary>
    public sealed record Laid(PieceRow Piece, BasePlan Plan, IReadOnlyList<GroundArea> Grounds, bool ByHand);

    public static IReadOnlyList<Laid> Lay(Tray tray, IReadOnlyDictionary<Guid, IReadOnlyList<ElementDto>> hand)
    {
        var pieces = InTime.Pieces(tray.Design);
        var plans = Arranger.Tray(tray.Wish, tray.Asked.Seed, InTime.Turns(tray.Design));
        var ground = new Ground(tray.Wish);
        return pieces.Select(p =>
        {
            var drawn = InTime.Of(plans, p);

            // What a hand did stands on the ground that was drawn for its base.
            var mine = hand.GetValueOrDefault(p.Id) is { } elements ? drawn with { Elements = elements.Select(TrayWords.ToCore).ToList() } : drawn;
            return new Laid(p, mine, ground.Of(drawn), mine != drawn);
        }).ToList();
    }

    public static TrayReading Word(Tray tray, IReadOnlyDictionary<Guid, IReadOnlyList<ElementDto>> hand, uint? version)
    {
        var (graph, design, laid) = (tray.Graph, tray.Design, Lay(tray, hand));
        var likest = Arranger.Likest(laid.Select(l => l.Plan).ToList(), tray.Wish);
        var bases = laid.Select((l, i) => Word(l, tray, likest[i] is { } apart ? Math.Round(apart, 2) : null)).ToList();
        var rim = design.Zones.FirstOrDefault(z => graph.Layers(z).Any(l => l.Technique == Technique.Rim));
        return new TrayReading(
            graph.Set.Id, graph.Workshop.Id, design.Id, design.Name, version, tray.Asked, tray.Wish.MarginMm, (double)graph.Set.TableMetres, rim is null ? "#3a3a3a" : Finished(graph, design, rim).Field.Colour.ToString(),
            design.Zones.Select(z => new BaseZone(z.Id, z.Name)).ToList(), tray.Asked.Textures!.Select((t, i) => Texture(tray, laid, t!, i)).ToList(), Counts(tray, laid), bases.Min(b => b.Difference), Arranger.LeastDifference, bases);
    }

    /// <summary>Mean area of a texture on one base, cm².</summary>
    public static double DrawnCm2(IReadOnlyList<Laid> laid, int texture) => laid.Count == 0 ? 0 : laid.Average(l => l.Grounds[texture].AreaMm2) / 100;

    private static BaseReading Word(Laid laid, Tray tray, double? difference)
    {
        var plan = laid.Plan;
        return new BaseReading(
            laid.Piece.Id, laid.Piece.Label, plan.Elements.Select(TrayWords.ToDto).ToList(), laid.Grounds.Select(g => Outline(g.Outlines)).ToList(),
            Rules.Broken(plan, tray.Wish).Select(b =>
            {
                var to = b.Elements.Count == 0 ? null : Rules.Nearest(plan.Elements[b.Elements[^1]], plan.Elements.Where((_, i) => i != b.Elements[^1]).ToList(), tray.Wish, plan.Lean);
                return new BrokenRule(b.Fault, b.Elements, Math.Round(b.ByMm, 1), b.Words, to?.X, to?.Y);
            }).ToList(), difference, laid.ByHand);
    }

    private static string Outline(IReadOnlyList<IReadOnlyList<(double X, double Y)>> outlines)
    {
        var path = new StringBuilder();
        foreach (var outline in outlines)
        {
            for (var i = 0; i < outline.Count; i++)
                path.Append(i == 0 ? 'M' : 'L').Append(outline[i].X.ToString("0.#", CultureInfo.InvariantCulture)).Append(' ').Append(outline[i].Y.ToString("0.#", CultureInfo.InvariantCulture));
            path.Append('Z');
        }

        return path.ToString();
    }

    private static SeenSplit Finished(SetGraph graph, DesignRow design, ZoneRow zone)
    {
        var run = new StackView(graph.Context(zone, design), graph.Layers(zone)).Predictions;
        return run.SeenBelow(run.Count);
    }

    private static TextureReading Texture(Tray tray, IReadOnlyList<Laid> laid, TextureDto texture, int index)
    {
        var (graph, design) = (tray.Graph, tray.Design);
        var drawn = Math.Round(DrawnCm2(laid, index), 2);
        if (design.Zones.FirstOrDefault(z => z.Id == texture.ZoneId) is not { } zone)
        {
            var grey = SubstrateTraits.Colour(design.Substrate).ToString();
            return new(null, "bare", new SurfaceDto(SurfaceKind.Plain, 0, 0, null, false), new PositionsDto(0, 1, 0), new(grey, grey, grey), new(grey, grey, grey), drawn, null, 0, 0);
        }

        var (core, seen) = (graph.ToCore(zone, design), Finished(graph, design, zone));
        var (raised, field, recess) = FromTheTable.Colours(core, seen, (double)graph.Set.TableMetres);

        // Amounts of its layers as they would be with the area that is drawn.
        var (asDrawn, pieces, layers) = (core with { AreaCm2 = drawn }, laid.Count, graph.Layers(zone));
        return new(
            zone.Id, zone.Name, Surfaces.Word(zone, graph.Set.Scale), new PositionsDto(core.Shares.Raised, core.Shares.Field, core.Shares.Recess), SeenAtPositions.Of(seen), new(raised.ToString(), field.ToString(), recess.ToString()),
            drawn, (double)zone.AreaCm2, Math.Round(layers.Sum(l => Quantities.PotMl(l, asDrawn, pieces)), 1), Math.Round(layers.Sum(l => HandsOn.Batch(l, asDrawn, pieces, graph.Context(zone, design).Pace))));
    }

    /// <summary>Which layers set what lies on bases.</summary>
    public static (ZoneRow Zone, Layer Layer)? Setter(SetGraph graph, DesignRow design, ElementKind kind)
    {
        var technique = kind is ElementKind.Rock or ElementKind.Cork ? Technique.Rock : Technique.Tuft;
        if (kind == ElementKind.Plank)
            return null;
        var found = design.Zones.SelectMany(z => graph.Layers(z).Where(l => l.Technique == technique).Select(l => (z, l))).ToList();

        // Two such layers: the first for what is more usual.
        return found.Count == 0 ? null : kind is ElementKind.Reed or ElementKind.Cork ? found[^1] : found[0];
    }

    private static List<BaseCount> Counts(Tray tray, IReadOnlyList<Laid> laid) => Enum.GetValues<ElementKind>().Select(kind =>
    {
        var all = laid.SelectMany(l => l.Plan.Elements).Where(e => e.Kind == kind).ToList();
        var sizes = all.Select(e => e.LengthMm + 2 * e.RadiusMm).ToList();
        var (least, most) = sizes.Count > 0 ? (sizes.Min(), sizes.Max()) : (0, 0);
        int Of(double from, double to) => sizes.Count(s => s >= least + (most - least) * from - 1e-9 && s < least + (most - least) * to - 1e-9);
        var (small, middling) = most - least < 0.1 ? (0, sizes.Count) : (Of(0, 1.0 / 3), Of(1.0 / 3, 2.0 / 3));
        var set = Setter(tray.Graph, tray.Design, kind);
        var fallback = kind switch { ElementKind.Rock => Stone, ElementKind.Cork => Bark, ElementKind.Plank => Wood, _ => Straw };
        return new BaseCount(
            kind, small, middling, sizes.Count - small - middling, sizes.Count, set is { } s ? $"{s.Layer.MaterialName}, {s.Zone.Name}" : null, set is { } p ? Quantities.Things(p.Layer, tray.Graph.ToCore(p.Zone, tray.Design), laid.Count) : null,
            set?.Layer.Main is { } material ? material.Masstone().ToSrgb().ToString() : fallback);
    }).Where(c => c.All > 0).ToList();
}
