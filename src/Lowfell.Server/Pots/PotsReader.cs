using Lowfell.Core.Estimates;
using Lowfell.Core.Layers;
using Lowfell.Core.Mixing;
using Lowfell.Core.Mixing.Pots;
using Lowfell.Core.Words;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Pots;

/// <summary>The mixes that a set calls for and the pots there are.</summary>
internal static class PotsReader
{
    private const int PotsAPage = 60, EventsAPage = 50, MostPages = 100_000;

    public static async Task<Results<Ok<PotsReading>, ProblemHttpResult>> OfSet(Guid setId, LowfellDb db, SetGraphs graphs, CancellationToken stop, int page = 0)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph)
            return Problems.NotFound("set");
        var faults = new Faults();
        faults.Range(page, "page", 0, MostPages);
        if (faults.Any)
            return faults.ToProblem();
        var mine = db.Pots.AsNoTracking().Where(p => p.WorkshopId == graph.Workshop.Id);
        var rows = await mine.Include(p => p.Contents).OrderByDescending(p => p.Contents.Any(c => c.Ml > 0)).ThenByDescending(p => p.MadeAt).ThenBy(p => p.Id)
            .Skip(page * PotsAPage).Take(PotsAPage + 1).AsSplitQuery().ToListAsync(stop);
        var last = await LastOut(rows, db, stop);
        var pots = rows.Take(PotsAPage).AsParallel().AsOrdered().Select(p => ToDto(p, last, graph)).ToList();
        var inPots = await mine.Where(p => p.RecipeKey != "").Select(p => new { p.RecipeKey, Ml = p.Contents.Sum(c => c.Ml) }).Where(p => p.Ml > 0)
            .GroupBy(p => p.RecipeKey).Select(g => new { g.Key, Ml = g.Sum(p => p.Ml) }).ToDictionaryAsync(p => p.Key, p => (double)p.Ml, stop);
        var mixes = Mixes(graph).Where(m => m.IsPoured).AsParallel().AsOrdered().Select(m => ToDto(m, graph, inPots.GetValueOrDefault(m.Recipe.Key))).ToList().OrderByDescending(m => m.ShortMl > 0).ToList();
        var designs = graph.Designs.Select(d => new MixDesign(d.Id, SetGraph.PiecesOf(d).Select(p => new MixDesignPiece(p.Id, p.Label)).ToList())).ToList();
        return TypedResults.Ok(new PotsReading(setId, graph.Workshop.Id, designs, mixes, pots, rows.Count > PotsAPage));
    }

    /// <summary>The mixes of a set, by what still has to be laid.</summary>
    public static IReadOnlyList<MixNeed> Mixes(SetGraph graph) => SetMixes.Of(graph.Plans(), graph.OverCount);

    /// <summary>What empty pots had in them when something was last taken out, by event.</summary>
    private static async Task<ILookup<Guid, (Guid MaterialId, decimal Ml)>> LastOut(IEnumerable<PotRow> pots, LowfellDb db, CancellationToken stop)
    {
        var events = pots.Where(p => p.Contents.All(c => c.Ml == 0)).Select(p => p.LastOutEventId).OfType<Guid>().ToList();
        return (events.Count == 0 ? [] : await db.WorkAmounts.AsNoTracking().Where(a => events.Contains(a.EventId)).ToListAsync(stop)).ToLookup(a => a.EventId, a => (a.MaterialId, -a.Ml));
    }

    public static async Task<PotDto> ToDto(PotRow pot, SetGraph graph, LowfellDb db, CancellationToken stop) => ToDto(pot, await LastOut([pot], db, stop), graph);

    private static PotDto ToDto(PotRow pot, ILookup<Guid, (Guid MaterialId, decimal Ml)> last, SetGraph graph)
    {
        var contents = graph.Contents(pot.Contents.Select(c => (c.MaterialId, c.Ml)));

        // An empty pot still shows what was in it last.
        var shown = contents.Ml > 0 ? contents : graph.Contents(last[pot.LastOutEventId ?? Guid.Empty]);
        var (paint, dilution) = shown.AsPaint();
        return new PotDto(
            pot.Id, pot.Version, pot.Label, pot.Vessel, pot.RecipeKey, pot.MadeAt, pot.LifeBeganAt, pot.GoodUntil, pot.Note, contents.Ml, pot.FilledMl,
            contents.Portions.OrderBy(p => p.Material.IsThinner).ThenByDescending(p => p.Ml).Select(p => new PortionDto(p.Material.Id, p.Material.Name, p.Ml)).ToList(), dilution?.ToString() ?? "neat", PotColour.InTheJar(paint).ToString(),
            Drawdowns.Of(paint, dilution), OffRecipe(pot, shown, graph), Pieces(pot, graph));
    }

    /// <summary>CIEDE2000 on a card between what is in a pot and the recipe it was meant to be; null when no layer of this set has that recipe.</summary>
    private static double? OffRecipe(PotRow pot, PotContents contents, SetGraph graph)
    {
        if (pot.RecipeKey.Length == 0 || contents.Ml == 0 || graph.RecipeOf(pot.RecipeKey) is not { } meant)
            return null;
        return Math.Round(PotColour.Draw(contents).DifferenceTo(PotColour.Draw(meant.Whole())), 2);
    }

    private static List<PotPiece> Pieces(PotRow pot, SetGraph graph) => (
        from laid in graph.GivenFrom[pot.Id]
        from id in laid.Given.Pieces
        let label = graph.Plan.PieceLabels.GetValueOrDefault(id)
        where label is not null && graph.Plan.ZoneNames.ContainsKey(laid.Zone)
        orderby laid.Given.Sequence, label.Length, label
        select new PotPiece(id, label, laid.Zone, graph.Plan.ZoneNames[laid.Zone], laid.Given.LineId)).ToList();

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
            mix.Ml > 0 ? graph.Find(driver.ZoneId)!.Name : "", Math.Round(share, 3), mix.Layers.Select(l => Place(l, graph)).ToList());
    }

    private static MixPlace Place(LayerNeed need, SetGraph graph)
    {
        var at = graph.Find(need.ZoneId)!;
        var done = DonePieces(graph, need.ZoneId, need.Layer);
        return new MixPlace(need.ZoneId, at.Name, need.Layer.Id, Number(at, need.Layer), need.Layer.Technique, need.Layer.Tool, Math.Round(need.Amount.TotalMl, 2), need.Pieces,
            at.Design.Id, done.Count == 0 ? [] : SetGraph.PiecesOf(at.Design).Index().Where(p => done.Contains(p.Item.Id)).Select(p => p.Index).ToList());
    }

    /// <summary>Pieces that have a layer of a zone, all its coats.</summary>
    public static HashSet<Guid> DonePieces(SetGraph graph, Guid zone, Layer layer) =>
        graph.Given[zone].Where(g => g.LineId == layer.Id).SelectMany(g => g.Pieces).Where(p => !graph.IsPartly(zone, layer, p)).ToHashSet();

    /// <summary>Where a layer lies on its zone, from 1 at the bottom.</summary>
    public static int Number(Place at, Layer layer)
    {
        for (var i = 0; i < at.Layers.Count; i++)
            if (at.Layers[i].Id == layer.Id)
                return i + 1;
        return 0;
    }

    public static async Task<Results<Ok<PotHistory>, ProblemHttpResult>> OfPot(Guid setId, Guid id, LowfellDb db, SetGraphs graphs, CancellationToken stop, int page = 0)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph)
            return Problems.NotFound("set");
        if (await Read(db, id, stop) is not { } pot || pot.WorkshopId != graph.Workshop.Id)
            return Problems.NotFound("pot");
        var faults = new Faults();
        faults.Range(page, "page", 0, MostPages);
        if (faults.Any)
            return faults.ToProblem();
        var rows = await db.WorkEvents.AsNoTracking().Where(e => e.PotId == id).OrderByDescending(e => e.Sequence).Skip(page * EventsAPage).Take(EventsAPage + 1)
            .Include(e => e.Amounts).Include(e => e.Pieces).AsSplitQuery().ToListAsync(stop);
        var shown = rows.Take(EventsAPage).ToList();
        var ids = shown.Select(e => e.Id).ToList();
        var undone = (await db.WorkEvents.Where(e => ids.Contains(e.UndoesId!.Value)).Select(e => e.UndoesId!.Value).ToListAsync(stop)).ToHashSet();
        var others = shown.Select(e => e.OtherPotId).OfType<Guid>().Distinct().ToList();
        var beside = await db.Pots.Where(p => others.Contains(p.Id)).Select(p => new { p.Id, p.Label, p.NewestEventId }).ToDictionaryAsync(p => p.Id, stop);

        // A pouring is taken back at both pots or not at all.
        bool Stands(WorkEventRow e) => e.Id == pot.NewestEventId && CanTakeBack(e.Kind) && (e.OtherPotId is not { } other || (e.TwinId is { } twin && beside[other].NewestEventId == twin));
        var pieces = graph.Designs.SelectMany(d => d.Pieces).ToDictionary(p => p.Id, p => p.Label);
        var events = shown.Select(e => new PotEventDto(
            e.Id, e.Kind, e.ToldAt, e.Note, e.Amounts.Select(a => new PortionDto(a.MaterialId, graph.Materials[a.MaterialId].Name, a.Ml, a.Drops)).ToList(),
            e.OtherPotId is { } other ? beside[other].Label : "", e.ZoneId is { } zone ? graph.Find(zone)?.Name ?? "" : "", e.Pieces.Select(p => pieces.GetValueOrDefault(p.PieceId, "")).Where(l => l.Length > 0).Order().ToList(),
            undone.Contains(e.Id), Stands(e))).ToList();
        return TypedResults.Ok(new PotHistory(await ToDto(pot, graph, db, stop), events, rows.Count > EventsAPage));
    }

    /// <summary>A pot that was made, or split off, stays made.</summary>
    public static bool CanTakeBack(WorkKind kind) =>
        kind is WorkKind.ToppedUp or WorkKind.Given or WorkKind.ThrownAway or WorkKind.Corrected or WorkKind.Joined or WorkKind.PouredOut or WorkKind.SplitOff;

    /// <summary>The answer to a step: the pot as it stands now.</summary>
    public static async Task<PotDto> Tell(PotTold told, Telling telling) =>
        await ToDto((await Read(telling.Db, told.PotId, telling.Stop))!, (await telling.Graphs.OfSet(telling.Db, told.SetId, telling.Stop))!, telling.Db, telling.Stop);

    public static async Task<PotRow?> Read(LowfellDb db, Guid id, CancellationToken stop) => await db.Pots.AsNoTracking().Include(p => p.Contents).FirstOrDefaultAsync(p => p.Id == id, stop);
}
