using System.Globalization;
using CsvHelper;
using CsvHelper.Configuration;
using Lowfell.Core.Colour;
using Lowfell.Core.Estimates;
using Lowfell.Core.Materials;
using Lowfell.Core.Order;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Stock;

/// <summary>What everything planned on a bench takes against what is on its shelf.</summary>
internal static class ShoppingLists
{
    private const int MostSets = 50, MostAlternatives = 3;
    private const double UsualWithin = 3;

    public static async Task<Results<Ok<ShoppingList>, ProblemHttpResult>> Of(Guid workshopId, LowfellDb db, SetGraphs graphs, CancellationToken stop, double within = UsualWithin)
    {
        var faults = new Faults();
        faults.Range(within, "within", 0, 50);
        if (faults.Any)
            return faults.ToProblem();
        return await Make(workshopId, within, db, graphs, stop) is { } list ? TypedResults.Ok(list) : Problems.NotFound("workshop");
    }

    private sealed record CsvLine(string maker, string name, string need_ml, string stock_ml, string short_ml, string pack_ml, int packs, string price, string cost, string left_ml);

    /// <summary>What is short, as a table for a spreadsheet: UTF-8, commas, one header line, decimal points; no text poses as a formula.</summary>
    public static async Task<Results<ContentHttpResult, ProblemHttpResult>> Csv(Guid workshopId, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await Make(workshopId, UsualWithin, db, graphs, stop) is not { } list)
            return Problems.NotFound("workshop");
        static string Two(IFormattable number) => number.ToString("0.##", CultureInfo.InvariantCulture);
        static string Money(IFormattable? number) => number?.ToString("0.00", CultureInfo.InvariantCulture) ?? "";
        await using var text = new StringWriter(CultureInfo.InvariantCulture);
        await using (var csv = CsvText.Writer(text))
            await csv.WriteRecordsAsync(list.Lines.Where(l => l.State == StockState.Short).Select(l =>
                new CsvLine(l.Maker, l.Name, Two(l.NeedMl), Two(l.StockMl), Two(l.ShortMl), Two(l.PackMl), l.Packs, Money(l.Price), Money(l.Cost), Two(l.LeftMl))), stop);
        return TypedResults.Text(text.ToString(), "text/csv; charset=utf-8");
    }

    private static async Task<ShoppingList?> Make(Guid workshopId, double within, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await db.Workshops.Where(w => w.Id == workshopId).Select(w => w.Currency).FirstOrDefaultAsync(stop) is not { } currency)
            return null;
        var sets = await db.Sets.Where(s => s.WorkshopId == workshopId && s.PutAwayAt == null).OrderBy(s => s.Name).Select(s => s.Id).Take(MostSets).ToListAsync(stop);
        var plans = new List<ZonePlan>();
        var places = new Dictionary<Guid, Place>();
        foreach (var id in sets)
        {
            if (await graphs.OfSet(db, id, stop) is not { } graph)
                continue;
            plans.AddRange(graph.Plans());
            foreach (var place in graph.Places)
                places[place.Zone.Id] = place;
        }

        // What is painted already needs nothing more, and what stands mixed in a pot does not come from the shelf again.
        var inPots = await db.Pots.Where(p => p.WorkshopId == workshopId && p.RecipeKey != "")
            .Select(p => new { p.RecipeKey, Ml = p.Contents.Sum(c => c.Ml) }).Where(p => p.Ml > 0).GroupBy(p => p.RecipeKey).Select(g => new { g.Key, Ml = g.Sum(p => p.Ml) }).ToDictionaryAsync(p => p.Key, p => (double)p.Ml, stop);
        var needs = SetMixes.FromShelf(SetMixes.Of(plans, (zone, line) => places[zone].Graph.OverCount(zone, line)), inPots).Where(n => n.Ml > 0).ToDictionary(n => n.Material.Id);
        var stock = await db.Materials.AsNoTracking().Where(m => m.WorkshopId == workshopId && m.PutAwayAt == null).ToDictionaryAsync(m => m.Id, m => m.StockMl, stop);
        var reader = new Reader(await graphs.ShelfOf(db, workshopId, stop), stock, needs, within);
        var lines = needs.Values.Where(n => stock.ContainsKey(n.Material.Id)).AsParallel().Select(n => reader.Line(n, places[n.DrivingZone].Name)).ToList()
            .OrderBy(l => l.State).ThenByDescending(l => l.ShortMl).ThenBy(l => l.Name, StringComparer.Ordinal).ToList();
        var unpriced = lines.Count(l => l.State == StockState.Short && l.Cost is null);
        return new ShoppingList(workshopId, within, currency, Math.Round(lines.Sum(l => l.Cost ?? 0), 2), unpriced, lines);
    }

    private sealed class Reader(ShelfMaterials shelf, IReadOnlyDictionary<Guid, decimal> stock, Dictionary<Guid, SetNeed> needs, double within)
    {
        public ShoppingLine Line(SetNeed need, string drivenBy)
        {
            var row = shelf.Row(need.Material.Id);
            var buy = Shopping.For(need.Ml, (double)stock[row.Id], (double)row.PackMl, (double?)row.Price);
            return new ShoppingLine(
                row.Id, row.Name, row.Maker, buy.State, Math.Round(need.Ml, 2), stock[row.Id], Math.Round(buy.ShortMl, 2), row.PackMl, buy.Packs, row.Price, buy.Cost is { } cost ? Math.Round(cost, 2) : null, Math.Round(buy.LeftMl, 2),
                drivenBy, Math.Round(need.DrivingShare, 3), buy.State == StockState.Short ? Alternatives(need.Material, buy.ShortMl) : []);
        }

        /// <summary>Same kind and carrier, near in colour, with as much to spare as is missing.</summary>
        private List<AlternativeDto> Alternatives(Material material, double shortMl)
        {
            if (material.OpticsSource == OpticsSource.Clear)
                return [];
            static Lab Look(Material m) => m.OnCard(1).OverWhite.ToLab();
            var wanted = Look(material);
            double Spare(Material m) => (double)stock[m.Id] - (needs.TryGetValue(m.Id, out var n) ? n.Ml : 0);
            var like = shelf.OnShelf.Where(m => m.Id != material.Id && m.Kind == material.Kind && m.Carrier == material.Carrier && Spare(m) >= shortMl);
            return ShelfPick.Likely(like, material.Entered ?? wanted)
                .Select(m => new AlternativeDto(m.Id, m.Name, Math.Round(ColourDifference.Ciede2000(wanted, Look(m)), 2), Math.Round(Spare(m), 1)))
                .Where(a => a.Difference <= within).OrderBy(a => a.Difference).Take(MostAlternatives).ToList();
        }
    }
}
