using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Mixing;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Core.Words;
using Lowfell.Server.Http;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Pots;

/// <summary>The mixes that a set calls for and the pots there are.</summary>
internal static class PotsReader
{
    private const int MostPots = 500, MostEvents = 500;

    public static async Task<Results<Ok<PotsReading>, ProblemHttpResult>> OfSet(Guid setId, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph)
            return Problems.NotFound("set");
        var rows = await db.Pots.AsNoTracking().Where(p => p.WorkshopId == graph.Workshop.Id).Include(p => p.Contents).Include(p => p.Events).ThenInclude(e => e.Amounts)
            .OrderByDescending(p => p.MadeAt).Take(MostPots).AsSplitQuery().ToListAsync(stop);
        var pots = rows.Select(p => ToDto(p, graph)).ToList();
        var inPots = pots.GroupBy(p => p.RecipeKey).ToDictionary(g => g.Key, g => g.Sum(p => (double)p.Ml));
        return TypedResults.Ok(new PotsReading(setId, graph.Workshop.Id, Mixes(graph).Select(m => ToDto(m, graph, inPots.GetValueOrDefault(m.Recipe.Key))).OrderByDescending(m => m.ShortMl > 0).ToList(), pots));
    }

    /// <summary>The mixes of a set, by what still has to be laid.</summary>
    public static IReadOnlyList<MixNeed> Mixes(SetGraph graph) => SetMixes.Of(graph.Plans(), graph.DoneCount);

    public static PotDto ToDto(PotRow pot, SetGraph graph)
    {
        var contents = graph.Contents(pot.Contents.Select(c => (c.MaterialId, c.Ml)));
        var undone = pot.Events.Where(e => e.UndoesId is not null).Select(e => e.UndoesId!.Value).ToHashSet();
        var filled = pot.Events.Where(e => e.Kind is PotEventKind.Made or PotEventKind.ToppedUp or PotEventKind.Joined or PotEventKind.SplitOff && !undone.Contains(e.Id)).SelectMany(e => e.Amounts).Sum(a => a.Ml);
        // An empty pot still shows what was in it last.
        var shown = contents.Ml > 0 ? contents : LastOf(pot, graph);
        var (paint, dilution) = shown.AsPaint();
        return new PotDto(
            pot.Id, pot.Version, pot.Label, pot.Vessel, pot.RecipeKey, pot.MadeAt, pot.LifeBeganAt, pot.GoodUntil, pot.Note, contents.Ml, filled,
            contents.Portions.OrderBy(p => p.Material.IsThinner).ThenByDescending(p => p.Ml).Select(p => new PortionDto(p.Material.Id, p.Material.Name, p.Ml)).ToList(), dilution?.ToString() ?? "neat", PotColour.InTheJar(paint).ToString(),
            JarReader.Drawdowns(paint, dilution), OffRecipe(pot, shown, graph), Pieces(pot, graph));
    }

    /// <summary>CIEDE2000 on a card between what is in a pot and the recipe it was meant to be; null when no layer of this set has that recipe.</summary>
    private static double? OffRecipe(PotRow pot, PotContents contents, SetGraph graph)
    {
        if (pot.RecipeKey.Length == 0 || contents.Ml == 0 || graph.RecipeOf(pot.RecipeKey) is not { } meant)
            return null;
        return Math.Round(PotColour.Draw(contents).DifferenceTo(PotColour.Draw(meant.Whole())), 2);
    }

    /// <summary>What was in a pot when something was last taken out of it.</summary>
    public static PotContents LastOf(PotRow pot, SetGraph graph)
    {
        var last = pot.Events.Where(e => e.Kind is PotEventKind.Given or PotEventKind.PouredOut or PotEventKind.ThrownAway or PotEventKind.Corrected && e.Amounts.All(a => a.Ml < 0) && e.Amounts.Count > 0).MaxBy(e => (e.At, e.Id));
        return graph.Contents((last?.Amounts ?? []).Select(a => (a.MaterialId, -a.Ml)));
    }

    private static List<PotPiece> Pieces(PotRow pot, SetGraph graph) => (
        from design in graph.Designs
        from zone in design.Zones
        from given in graph.Given[zone.Id]
        where given.PotId == pot.Id
        from id in given.Pieces
        let piece = design.Pieces.Find(p => p.Id == id)
        where piece is not null
        orderby given.At, piece.Label.Length, piece.Label
        select new PotPiece(id, piece.Label, zone.Id, $"{zone.Name} on {design.Name}", given.LayerId)).ToList();

    private static MixDto ToDto(MixNeed mix, SetGraph graph, double inPotsMl)
    {
        var (driver, share) = mix.Driver;
        var (paint, dilution) = mix.Recipe.Whole().AsPaint();
        var shares = mix.Recipe.Shares();
        var missing = Math.Max(0, mix.Ml - inPotsMl);
        var most = Solve.Most(mix.Recipe, mix.Recipe.Parts.ToDictionary(p => p.Material.Id, p => (decimal)graph.StockMl.GetValueOrDefault(p.Material.Id)));
        var shortMl = Math.Max(0, missing - (double)most.Ml);
        return new MixDto(
            mix.Recipe.Key, string.Join(" + ", paint.Select(p => p.Material.Name)), dilution is null ? "neat" : $"{dilution} {dilution.Thinner.Name}", PotColour.InTheJar(paint).ToString(), mix.Recipe.NeedsMixing,
            mix.Recipe.Parts.Select((p, i) => new MixPartDto(p.Material.Id, p.Material.Name, PotColour.InTheJar([new MixPart(p.Material, Parts.One)]).ToString(), p.Material.IsThinner, p.Parts.ToString(), Math.Round(shares[i] * 100, 1))).ToList(),
            Math.Round(mix.Ml, 2), Math.Round(inPotsMl, 2), Math.Round(shortMl, 2), shortMl > 0 ? most.Limit.Material.Name : "",
            mix.Ml > 0 ? PlaceName(graph, driver.ZoneId) : "", Math.Round(share, 3), mix.Layers.Select(l => Place(l, graph)).ToList());
    }

    private static MixPlace Place(LayerNeed need, SetGraph graph)
    {
        var (design, zone) = Find(graph, need.ZoneId);
        var done = graph.Given[zone.Id].Where(g => g.LayerId == need.Layer.Id).SelectMany(g => g.Pieces).ToHashSet();
        return new MixPlace(zone.Id, $"{zone.Name} on {design.Name}", need.Layer.Id, Number(graph, zone, need.Layer), need.Layer.Technique, need.Layer.Tool, Math.Round(need.Amount.TotalMl, 2), need.Pieces,
            PiecesOf(design).Select(p => new MixPiece(p.Id, p.Label, done.Contains(p.Id))).ToList());
    }

    /// <summary>Pieces that get a design's layers, W2 before W10.</summary>
    public static IEnumerable<PieceRow> PiecesOf(DesignRow design) => design.Pieces.Where(p => p.ParentId is null).OrderBy(p => p.Label.Length).ThenBy(p => p.Label, StringComparer.Ordinal);

    public static (DesignRow Design, ZoneRow Zone) Find(SetGraph graph, Guid zoneId) => graph.Designs.SelectMany(d => d.Zones.Select(z => (d, z))).First(x => x.z.Id == zoneId);

    public static string PlaceName(SetGraph graph, Guid zoneId)
    {
        var (design, zone) = Find(graph, zoneId);
        return $"{zone.Name} on {design.Name}";
    }

    public static int Number(SetGraph graph, ZoneRow zone, Layer layer) => graph.Layers(zone.TreatmentId).ToList().FindIndex(l => l.Id == layer.Id) + 1;

    public static async Task<Results<Ok<PotHistory>, ProblemHttpResult>> OfPot(Guid setId, Guid id, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph)
            return Problems.NotFound("set");
        if (await Read(db, id, stop) is not { } pot || pot.WorkshopId != graph.Workshop.Id)
            return Problems.NotFound("pot");
        var others = pot.Events.Where(e => e.OtherPotId is not null).Select(e => e.OtherPotId!.Value).ToList();
        var labels = await db.Pots.Where(p => others.Contains(p.Id)).ToDictionaryAsync(p => p.Id, p => p.Label, stop);
        var undone = pot.Events.Where(e => e.UndoesId is not null).Select(e => e.UndoesId!.Value).ToHashSet();
        var pieces = graph.Designs.SelectMany(d => d.Pieces).ToDictionary(p => p.Id, p => p.Label);
        var newest = NewestStanding(pot);
        var events = pot.Events.OrderByDescending(e => e.At).ThenByDescending(e => e.Id).Take(MostEvents).Select(e => new PotEventDto(
            e.Id, e.Kind, e.At, e.Note, e.Amounts.Select(a => new PortionDto(a.MaterialId, graph.Materials[a.MaterialId].Name, a.Ml, a.Drops)).ToList(),
            e.OtherPotId is { } other ? labels.GetValueOrDefault(other, "") : "", Where(e, graph), e.Pieces.Select(p => pieces.GetValueOrDefault(p.PieceId, "")).Where(l => l.Length > 0).Order().ToList(),
            undone.Contains(e.Id), e.Id == newest?.Id && e.Kind is not (PotEventKind.Made or PotEventKind.SplitOff))).ToList();
        return TypedResults.Ok(new PotHistory(ToDto(pot, graph), events));
    }

    /// <summary>The last event that still counts: only that one can be taken back, since the others built on it.</summary>
    public static PotEventRow? NewestStanding(PotRow pot)
    {
        var undone = pot.Events.Where(e => e.UndoesId is not null).Select(e => e.UndoesId!.Value).ToHashSet();
        return pot.Events.Where(e => e.Kind != PotEventKind.TakenBack && !undone.Contains(e.Id)).MaxBy(e => (e.At, e.Id));
    }

    private static string Where(PotEventRow e, SetGraph graph) =>
        e.ZoneId is { } zone && graph.Designs.SelectMany(d => d.Zones).Any(z => z.Id == zone) ? PlaceName(graph, zone) : "";

    public static async Task<PotRow?> Read(LowfellDb db, Guid id, CancellationToken stop) =>
        await db.Pots.AsNoTracking().Include(p => p.Contents).Include(p => p.Events).ThenInclude(e => e.Amounts).Include(p => p.Events).ThenInclude(e => e.Pieces).AsSplitQuery().FirstOrDefaultAsync(p => p.Id == id, stop);
}
