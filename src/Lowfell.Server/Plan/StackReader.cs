using Lowfell.Core.Colour;
using Lowfell.Core.Drying;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Core.Order;
using Lowfell.Core.Words;
using Lowfell.Server.Stacks;
using Lowfell.Store;
using Lowfell.Store.Rows;

namespace Lowfell.Server.Plan;

/// <summary>Asks the core everything about a stack and words the answer for the page.</summary>
internal sealed class StackReader(SetGraph graph)
{
    /// <summary>Colours, findings and amounts of <paramref name="layers"/> on a zone, as if they were stored.</summary>
    public Reading Read(DesignRow design, ZoneRow zoneRow, IReadOnlyList<Layer> layers, Progress? progress = null)
    {
        var context = graph.Context(zoneRow, design) with { Progress = progress ?? Progress.None };
        var zone = context.Zone;
        var view = new StackView(context, layers);
        var predictions = view.Predictions;
        var pieces = SetGraph.PieceCount(design);
        var readings = layers.Select((layer, i) => ReadLayer(view, i, pieces)).ToList();
        var findings = new ZoneRemarks(graph, zoneRow, view).Findings;
        return new Reading(SubstrateTraits.Colour(zone.Substrate).ToString(), readings, findings, SetNeeds(zoneRow.SurfaceId, layers), Target(zoneRow, predictions), Parts(predictions));
    }

    private static TargetReading? Target(ZoneRow row, StackRun run)
    {
        if (row.TargetColour is null || row.TargetPosition is not { } position)
            return null;
        var wanted = SrgbColour.Parse(row.TargetColour).ToLab();
        var seen = run.SeenBelow(run.Count)[position];
        return new TargetReading(position, row.TargetColour, seen.Colour.ToString(), Math.Round(ColourDifference.Ciede2000(wanted, seen.Lab), 2), DifferenceWords.Of(wanted, seen.Lab), run.RangeBelow(run.Count)[position].Holds(wanted));
    }

    /// <summary>The parts that differ, the largest first; none where the zone is alike all over.</summary>
    private static List<PartDto> Parts(StackRun run) => run.Places.Count == 0 ? []
        : run.PartsBelow(run.Count).Select(p => new PartDto(p.Places.Count == 0 ? "the rest" : string.Join(", ", p.Places.Select(EnumWords.Of)), Math.Round(p.Share, 3))).ToList();

    private static List<PartColours> PartColours(StackRun run, int index)
    {
        if (run.Places.Count == 0)
            return [];
        var region = run.Layers[index].Region;
        return run.PartsBelow(index + 1)
            .Select(p => new PartColours(p.Places.Contains(region) || !run.Places.Contains(region), SeenAtPositions.Of(p.Seen), SeenAtPositions.Of(p.Wet)))
            .ToList();
    }

    private static LayerReading ReadLayer(StackView view, int index, int pieces)
    {
        var (run, zone) = (view.Predictions, view.Context.Zone);
        var (layer, p) = (run.Layers[index], run[index]);
        var needed = index + 1 == view.Count ? view.DryingOf(index).TouchMinutes : view.Needed(index, index + 1).Minutes;
        var (hands, error) = (HandsOn.Batch(layer, zone, pieces, view.Context.Pace), view.Context.Pace.Error(layer.Technique));
        return new LayerReading(
            layer.Id, p.Raised.Colour.ToString(), p.Field.Colour.ToString(), p.Recess.Colour.ToString(), p.Average.Colour.ToString(),
            p.Wet.Raised.Colour.ToString(), p.Wet.Field.Colour.ToString(), p.Wet.Recess.Colour.ToString(),
            Positions(p.Change), Positions(p.DryFilmUm), Positions(p.Cover),
            Duration(needed.Usual), Duration(needed.Low), Duration(needed.High), Math.Round(hands * (1 - error)), Math.Round(hands * (1 + error)),
            Needs(layer, zone, pieces),
            layer.Paint.Any(x => x.Material.OpticsSource == OpticsSource.Estimated), CoatsToHide(run, index), LightLeft(run, index),
            Care.For(layer, zone.Substrate).Select(c => c.Text).ToList(), Recipe.Of(layer)?.Key ?? "", PartColours(run, index), Range(run, index + 1));
    }

    private static RangeReading Range(StackRun run, int level)
    {
        var range = run.RangeBelow(level);
        RangeAt At(HandRange r) => new(
            r.Thin.Colour.ToString(), r.Heavy.Colour.ToString(), Math.Round(r.Difference, 1), r.Decides >= 0 ? run.Layers[r.Decides].Id : null, Math.Round(r.Share, 1));
        return new(At(range.Raised), At(range.Field), At(range.Recess));
    }

    /// <summary>For layers that are meant to cover: coats until what is below no longer shows.</summary>
    private static int? CoatsToHide(StackRun run, int index)
    {
        var layer = run.Layers[index];
        if (TechniqueTable.For(layer.Technique, layer.Tool).Laydown != Laydown.Film || layer.Main is not { IsOpaque: true })
            return null;
        var coat = Laying.Of(layer with { Coats = 1 }, run.Zone).FilmUm.Field;
        return coat > 0 ? Hiding.CoatsOver(Laying.PerUm(layer), coat, new Reflectance(run.Below(index, Position.Field, layer.Region)), Shine.Of(layer.Paint)) : null;
    }

    private static List<double>? LightLeft(StackRun run, int index)
    {
        for (var light = index - 1; light >= 0; light--)
            if (run.Layers[light].Technique == Technique.DirectionalLight)
                return PreShade.AfterEachCoat(run, light, index).Select(s => Math.Round(s, 3)).ToList();
        return null;
    }

    private static List<NeedDto> Needs(Layer layer, Zone zone, int pieces)
    {
        var things = Quantities.Things(layer, zone, pieces);
        if (things > 0 && layer.Main is { } thing)
            return [new(thing.Id, 0, 0, 0, null, things)];
        var usual = Quantities.PotMl(layer, zone, pieces);
        var (low, high) = Quantities.Range(layer, zone, pieces);
        return Quantities.ForLayer(layer, zone, pieces).Select(n => new NeedDto(
            n.Material.Id, Math.Round(n.Ml, 2), Math.Round(n.Ml * low / usual, 2), Math.Round(n.Ml * high / usual, 2), AmountWords.GramsOf(n.Material, n.Ml), null)).ToList();
    }

    private static double Duration(double minutes) => minutes <= 0 ? 0 : Core.Words.Duration.RoundUp(minutes);

    private static PositionsDto Positions(Split s) => new(Math.Round(s.Raised, 3), Math.Round(s.Field, 3), Math.Round(s.Recess, 3));

    /// <summary>What the whole set still takes of the materials in this stack, with the stack as drafted wherever its treatment is used.</summary>
    private List<SetNeedDto> SetNeeds(Guid draftSurface, IReadOnlyList<Layer> draft)
    {
        var here = draft.SelectMany(l => l.Paint.Select(p => p.Material.Id).Append(l.Dilution?.Thinner.Id ?? Guid.Empty)).ToHashSet();
        var names = graph.Designs.SelectMany(d => d.Zones.Select(z => (z.Id, Name: $"{z.Name} on {d.Name}"))).ToDictionary(x => x.Id, x => x.Name);
        return SetMixes.Needs(graph.Plans(draftSurface, draft), graph.OverCount)
            .Where(n => here.Contains(n.Material.Id))
            .Select(n => new SetNeedDto(n.Material.Id, Math.Round(n.Ml, 2), graph.StockMl.GetValueOrDefault(n.Material.Id), names[n.DrivingZone], Math.Round(n.DrivingShare, 3)))
            .ToList();
    }
}
