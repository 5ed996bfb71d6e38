using Lowfell.Core.Colour;
using Lowfell.Core.Drying;
using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Mixing;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Core.Order;
using Lowfell.Core.Sight;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Pots;

/// <summary>What to add, one pot or several, how amounts come about, and how to go on when a pot ran out.</summary>
internal static class PotQuestions
{
    /// <summary>A step this much smaller (CIEDE2000) is worth the mess.</summary>
    private const double WorthPouring = 0.1;

    private const int MostRemixes = 6, MostSittings = 12, MostASitting = 500;

    public static async Task<Results<Ok<PotAnswer>, ProblemHttpResult>> Ask(Guid setId, Guid id, PotAskIn ask, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph)
            return Problems.NotFound("set");
        if (await PotsReader.Read(db, id, stop) is not { } pot || pot.WorkshopId != graph.Workshop.Id)
            return Problems.NotFound("pot");
        var faults = new Faults();
        var contents = graph.Contents(pot.Contents.Select(c => (c.MaterialId, c.Ml)));
        if (ask.OtherId is { } otherId)
            return await PotsReader.Read(db, otherId, stop) is { } other && other.WorkshopId == graph.Workshop.Id && other.Id != id
                ? TypedResults.Ok(Answer(contents, graph.Contents(other.Contents.Select(c => (c.MaterialId, c.Ml))).Portions, $"All of {other.Label} goes in."))
                : Problems.NotFound("pot");
        faults.Require(contents.Ml > contents.ThinnerMl, "id", "There is no paint left in this pot.");
        if (faults.Any)
            return faults.ToProblem();
        var add = ask.Ml is { } ml ? ToVolume(contents, ml, faults) : ToRatio(contents, ask, graph, faults);
        if (faults.Any)
            return faults.ToProblem();
        return TypedResults.Ok(Answer(contents, add!, add!.Count == 0 ? "It is there already." : $"Add {string.Join(" and ", add!.Select(p => FormattableString.Invariant($"{p.Ml:0.0#} ml {p.Material.Name}")))}."));
    }

    private static PotAnswer Answer(PotContents contents, IReadOnlyList<Portion> add, string says)
    {
        var after = contents.With(add);
        var (paint, dilution) = after.AsPaint();
        return new(
            add.Select(p => new PortionDto(p.Material.Id, p.Material.Name, p.Ml, (int)Math.Round(p.Ml / WholeDrops.UnitMl(new MixPart(p.Material, Parts.One))))).ToList(), after.Ml, Drawdowns.Of(paint, dilution),
            contents.Ml > contents.ThinnerMl ? Math.Round(PotColour.Draw(contents).DifferenceTo(PotColour.Draw(after)), 2) : 0,
            PotCheck.Of(after, Technique.BaseCoat, Tool.Brush).Select(r => new PotRemarkDto(r.Fit, r.Severity, r.Says)).ToList(), says);
    }

    private static IReadOnlyList<Portion> ToVolume(PotContents contents, decimal ml, Faults faults)
    {
        faults.Range(ml, "ml", 0.1m, 5000);
        return faults.Any ? [] : Solve.ToVolume(contents, ml);
    }

    private static IReadOnlyList<Portion> ToRatio(PotContents contents, PotAskIn ask, SetGraph graph, Faults faults)
    {
        faults.Require(ask.Paint is > 0 and <= 1000 && decimal.Round(ask.Paint.Value, 2) == ask.Paint, "paint", "Give parts of paint above 0, with at most two decimals.");
        faults.Require(ask.Thinner is > 0 and <= 1000 && decimal.Round(ask.Thinner.Value, 2) == ask.Thinner, "thinner", "Give parts of thinner above 0, with at most two decimals.");
        var thinner = ask.ThinnerId is { } id && graph.Materials.TryGetValue(id, out var known) && known.IsThinner ? known : null;
        faults.Require(thinner is not null, "thinnerId", "Choose a thinner from the shelf.");
        return faults.Any ? [] : Solve.ToRatio(contents, new Dilution(thinner!, Parts.Of(ask.Paint!.Value), Parts.Of(ask.Thinner!.Value)));
    }

    public static async Task<Results<Ok<IReadOnlyList<AdviceDto>>, ProblemHttpResult>> Advice(Guid setId, string key, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph)
            return Problems.NotFound("set");
        if (PotsReader.Mixes(graph).FirstOrDefault(m => m.Recipe.Key == key) is not { } mix)
            return Problems.NotFound("mix");
        var work = mix.Layers.Sum(l => HandsOn.Batch(l.Layer, l.Zone, l.Pieces, StoredPace.Read(graph.Workshop.Paces)));

        // Where it shows most decides: the same pot may lie under a wash here and open there.
        var difference = mix.Layers.Select(l => l.ZoneId).Distinct().Select(z => Remeasured(graph, z, mix)).Max();
        var climate = graph.Climate;
        return TypedResults.Ok<IReadOnlyList<AdviceDto>>(Enum.GetValues<Vessel>().Select(v =>
        {
            var advice = PotAdvice.For(mix.Ml, v, null, PotLife.Of(mix.Recipe.Whole(), v, climate), work, difference);
            return new AdviceDto(v, advice.Pots, advice.EachMl, Math.Round(work), Math.Round(advice.Difference, 2), Math.Round(advice.CarryShare, 2), advice.Says);
        }).ToList());
    }

    private static double Remeasured(SetGraph graph, Guid zoneId, MixNeed mix)
    {
        var view = graph.Find(zoneId)!.View;
        return mix.Layers.Where(l => l.ZoneId == zoneId).Select(l => PotAdvice.Remeasured(view, view.IndexOf(l.Layer.Id), mix.Recipe)).Max();
    }

    public static async Task<Results<Ok<AmountsReading>, ProblemHttpResult>> Amounts(Guid setId, LowfellDb db, SetGraphs graphs, CancellationToken stop, int sitting = 6)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph)
            return Problems.NotFound("set");
        var faults = new Faults();
        faults.Range(sitting, "sitting", 1, MostASitting);
        if (faults.Any)
            return faults.ToProblem();
        var mixes = PotsReader.Mixes(graph);
        var lines = mixes.SelectMany(mix => mix.Layers.Select(l => Line(l, mix.Recipe, graph, sitting))).OrderByDescending(l => l.TotalMl).ToList();
        var (low, high) = Quantities.Sum(lines.Select(l => (l.TotalMl, new AmountRange(l.LowMl, l.HighMl))).ToList());
        var reserves = mixes.Where(m => m.ReserveMl > 0).Select(m => new ReserveLine(m.Recipe.Key, m.Layers[0].Layer.MaterialName, Math.Round(m.ReserveMl, 2))).ToList();
        var kept = reserves.Sum(r => r.Ml);
        return TypedResults.Ok(new AmountsReading(
            sitting, Math.Round(lines.Sum(l => l.TotalMl) + kept, 2), Math.Round(low + kept, 2), Math.Round(high + kept, 2), lines, Reserves.Word(graph.Set), reserves));
    }

    private static AmountLine Line(LayerNeed need, Recipe recipe, SetGraph graph, int sitting)
    {
        var at = graph.Find(need.ZoneId)!;
        var a = need.Amount;
        var range = Quantities.Range(need.Layer, need.Zone, need.Pieces);

        // Cups shared with other zones are not filled again, however it is laid.
        var shared = Quantities.PotMl(need.Layer, need.Zone, need.Pieces) - a.TotalMl;
        var sittings = Enumerable.Range(0, Math.Min(MostSittings, (need.Pieces + sitting - 1) / sitting))
            .Select(i => Math.Round(Quantities.PotMl(need.Layer, need.Zone, Math.Min(sitting, need.Pieces - i * sitting)), 2)).ToList();
        return new AmountLine(
            need.ZoneId, at.Name, need.Layer.Id, PotsReader.Number(at, need.Layer), need.Layer.Technique, need.Layer.Tool, need.Layer.MaterialName, recipe.Key, need.Pieces,
            Math.Round(a.OnSurfaceMl, 3), Math.Round(a.TransferLossMl, 3), a.Fills, Math.Round(a.FillLossMl, 3), Math.Round(a.MarginMl, 3), Math.Round(a.TotalMl, 3),
            Math.Round(range.LowMl - shared, 3), Math.Round(range.HighMl - shared, 3), need.Layer.Main is { } main ? AmountWords.GramsOf(main, a.TotalMl) : null, Quantities.Things(need.Layer, need.Zone, need.Pieces), sittings);
    }

    /// <summary>How to go on when a pot ran out on a layer. Without a zone, where it was laid last.</summary>
    public static async Task<Results<Ok<RanOut>, ProblemHttpResult>> RanOut(Guid setId, Guid id, LowfellDb db, SetGraphs graphs, CancellationToken stop, Guid? zoneId = null, Guid? layerId = null)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph)
            return Problems.NotFound("set");
        if (await PotsReader.Read(db, id, stop) is not { } pot || pot.WorkshopId != graph.Workshop.Id)
            return Problems.NotFound("pot");
        var faults = new Faults();
        var (zone, line) = zoneId is { } named ? (named, layerId) : await LastLaid(db, id, stop);
        var given = graph.GivenFrom[id].Where(g => g.Zone == zone && g.Given.LineId == line).Select(g => g.Given).MaxBy(g => g.Sequence);
        faults.Require(given is not null, "zoneId", "This pot was not laid on anything here yet. Give it to the pieces that have it first.");
        var view = given is null ? null : graph.Find(zone)!.View;
        var index = view?.IndexOf(given!.LineId) ?? -1;
        faults.Require(given is null || index >= 0, "layerId", "The layer it was laid for is no longer in the plan.");
        if (faults.Any)
            return faults.ToProblem();
        return TypedResults.Ok(Find(graph, pot, zone, view!, index, given!, stop));
    }

    /// <summary>Where a pot was laid last, as far as that still stands.</summary>
    private static async Task<(Guid Zone, Guid? Line)> LastLaid(LowfellDb db, Guid pot, CancellationToken stop)
    {
        var last = await db.WorkEvents.Where(e => e.PotId == pot && e.Kind == WorkKind.Given && !db.WorkEvents.Any(u => u.UndoesId == e.Id))
            .OrderByDescending(e => e.Sequence).Select(e => new { e.ZoneId, e.LineId }).FirstOrDefaultAsync(stop);
        return (last?.ZoneId ?? Guid.Empty, last?.LineId);
    }

    private static RanOut Find(SetGraph graph, PotRow pot, Guid zoneId, StackView view, int index, PotGiven given, CancellationToken stop)
    {
        var at = graph.Find(zoneId)!;
        var layer = view.Layers[index];
        var done = PotsReader.DonePieces(graph, zoneId, layer);
        var pieces = SetGraph.PiecesOf(at.Design).Select(p => new MixPiece(p.Id, p.Label, done.Contains(p.Id))).ToList();
        var left = graph.Contents(pot.Contents.Select(c => (c.MaterialId, c.Ml)));
        var needed = Math.Max(0, Quantities.PotMl(layer, view.Context.Zone, pieces.Count(p => !p.Done)) - (double)left.Ml);
        var first = graph.Contents(given.Amounts);
        var end = PotAdvice.End(view, index, first);
        var stock = graph.StockMl.ToDictionary(s => s.Key, s => (decimal)s.Value);
        var options = needed <= 0 ? [] : Remix.Find(view, index, first, view.Context.Shelf, stock, decimal.Round((decimal)needed, 2), MostRemixes, stop);
        string[] doneLabels = [.. pieces.Where(p => p.Done).Select(p => p.Label)], rest = [.. pieces.Where(p => !p.Done).Select(p => p.Label)];

        // What may stand between: whole pieces that never see this mix.
        var between = graph.Designs.Where(d => d.Id != at.Design.Id && d.Zones.All(z => z.SurfaceId != at.Zone.SurfaceId)).SelectMany(SetGraph.PiecesOf).Select(p => p.Label).Take(3).ToList();
        return new RanOut(
            pot.Label, zoneId, at.Name, layer.Id, pieces, Math.Round(needed, 2), left.Ml, end.Raised.Colour.ToString(), end.Field.Colour.ToString(), end.Recess.Colour.ToString(),
            options.Select(o => Word(o, graph, view, index, end, doneLabels, rest, between)).ToList(), PourIn(left, options.Count > 0 ? options[0] : null, view, index, end));
    }

    private static RemixDto Word(RemixOption option, SetGraph graph, StackView view, int index, SeenSplit end, string[] done, string[] rest, List<string> between)
    {
        var (paint, dilution) = option.Recipe.Whole().AsPaint();
        Seen firstMean = Mean(view.Context.Zone, end), secondMean = Mean(view.Context.Zone, option.End);
        var apart = FromTheTable.Between(view.Context.Zone, firstMean, view.Context.Zone, secondMean, (double)graph.Set.TableMetres);
        return new RemixDto(
            option.Recipe.Key, paint.Count == 1 ? paint[0].Material.Name : string.Join(" + ", paint.Select(p => $"{p.Parts} {p.Material.Name}")), option.IsSame,
            option.Contents.Portions.Select(p => new PortionDto(p.Material.Id, p.Material.Name, p.Ml, (int)Math.Max(1, Math.Round(p.Ml / WholeDrops.UnitMl(new MixPart(p.Material, Parts.One)))))).ToList(),
            dilution is null ? "neat" : $"{dilution} {dilution.Thinner.Name}", option.End.Raised.Colour.ToString(), option.End.Field.Colour.ToString(), option.End.Recess.Colour.ToString(),
            Math.Round(option.Largest, 2), Math.Round(apart.Difference, 2), apart.Verdict, Words(end, option), Seam.Says(option.Largest, apart.Verdict, done, rest, between));
    }

    /// <summary>How it differs where it differs most.</summary>
    private static string Words(SeenSplit end, RemixOption option)
    {
        var most = Enum.GetValues<Position>().MaxBy(p => option.Difference[p]);
        return $"{DifferenceWords.Of(end[most].Lab, option.End[most].Lab)} {most switch { Position.Raised => "on raised edges", Position.Field => "on open faces", _ => "in recesses" }}";
    }

    /// <summary>The three positions as one, by their shares of the area.</summary>
    private static Seen Mean(Zone zone, SeenSplit seen)
    {
        var (r, f, c) = (seen.Raised.Colour.ToLinear(), seen.Field.Colour.ToLinear(), seen.Recess.Colour.ToLinear());
        var mean = new LinearRgb(zone.Shares.Dot(new(r.R, f.R, c.R)), zone.Shares.Dot(new(r.G, f.G, c.G)), zone.Shares.Dot(new(r.B, f.B, c.B)));
        return new Seen(mean.ToSrgb(), Lab.FromXyz(Observer.ToXyz(mean)));
    }

    /// <summary>What pouring the rest of the old pot into the new one does.</summary>
    private static string PourIn(PotContents left, RemixOption? best, StackView view, int index, SeenSplit end)
    {
        if (best is null || left.Ml < 0.05m || best.Largest < PotAdvice.Visible)
            return "";
        var together = end.DifferenceTo(PotAdvice.End(view, index, best.Contents.Join(left))).Largest();
        if (best.Largest - together < WorthPouring)
            return "";
        return FormattableString.Invariant($"Pour the last {left.Ml:0.0} ml of the old pot into the new one and stir: {together:0.0} instead of {best.Largest:0.0}.");
    }
}
