using System.Globalization;
using System.Text;
using Lowfell.Core.Colour;
using Lowfell.Core.Estimates;
using Lowfell.Core.Materials;
using Lowfell.Server.Http;
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

    public static async Task<Results<Ok<ShoppingList>, ProblemHttpResult>> Of(Guid workshopId, LowfellDb db, SetGraphs graphs, CoreMaterials core, CancellationToken stop, double within = UsualWithin)
    {
        var faults = new Faults();
        faults.Range((decimal)within, "within", 0, 50);
        if (faults.Any)
            return faults.ToProblem();
        return await Make(workshopId, within, db, graphs, core, stop) is { } list ? TypedResults.Ok(list) : Problems.NotFound("workshop");
    }

    /// <summary>What is short, as a table for a spreadsheet: UTF-8, commas, one header line, decimal points.</summary>
    public static async Task<Results<ContentHttpResult, ProblemHttpResult>> Csv(Guid workshopId, LowfellDb db, SetGraphs graphs, CoreMaterials core, CancellationToken stop)
    {
        if (await Make(workshopId, UsualWithin, db, graphs, core, stop) is not { } list)
            return Problems.NotFound("workshop");
        var text = new StringBuilder("maker,name,need_ml,stock_ml,short_ml,pack_ml,packs,price,cost,left_ml\r\n");
        foreach (var l in list.Lines.Where(l => l.State == StockState.Short))
            text.Append(CultureInfo.InvariantCulture, $"{Cell(l.Maker)},{Cell(l.Name)},{l.NeedMl:0.##},{l.StockMl:0.##},{l.ShortMl:0.##},{l.PackMl:0.##},{l.Packs},{l.Price:0.00},{l.Cost:0.00},{l.LeftMl:0.##}\r\n");
        return TypedResults.Text(text.ToString(), "text/csv; charset=utf-8");
    }

    /// <summary>Quoted where needed; what a spreadsheet would take for a formula is made plain text.</summary>
    private static string Cell(string text)
    {
        if (text.Length > 0 && text[0] is '=' or '+' or '-' or '@' or '\t')
            text = "'" + text;
        return text.AsSpan().ContainsAny(",\"\r\n") ? $"\"{text.Replace("\"", "\"\"", StringComparison.Ordinal)}\"" : text;
    }

    private static async Task<ShoppingList?> Make(Guid workshopId, double within, LowfellDb db, SetGraphs graphs, CoreMaterials core, CancellationToken stop)
    {
        if (!await db.Workshops.AnyAsync(w => w.Id == workshopId, stop))
            return null;
        var sets = await db.Sets.Where(s => s.WorkshopId == workshopId).OrderBy(s => s.Name).Select(s => s.Id).Take(MostSets).ToListAsync(stop);
        var plans = new List<ZonePlan>();
        var names = new Dictionary<Guid, string>();
        var graphOf = new Dictionary<Guid, SetGraph>();
        foreach (var id in sets)
        {
            var graph = (await graphs.OfSet(db, id, stop))!;
            plans.AddRange(graph.Plans());
            foreach (var (design, zone) in graph.Designs.SelectMany(d => d.Zones.Select(z => (d, z))))
            {
                names[zone.Id] = $"{zone.Name} on {design.Name}";
                graphOf[zone.Id] = graph;
            }
        }

        // What is painted already needs nothing more, and what stands mixed in a pot does not come from the shelf again.
        var inPots = await db.Pots.Where(p => p.WorkshopId == workshopId && p.RecipeKey != "")
            .Select(p => new { p.RecipeKey, Ml = p.Contents.Sum(c => c.Ml) }).GroupBy(p => p.RecipeKey).Select(g => new { g.Key, Ml = g.Sum(p => p.Ml) }).ToDictionaryAsync(p => p.Key, p => (double)p.Ml, stop);
        var needs = SetMixes.FromShelf(SetMixes.Of(plans, (zone, layer) => graphOf[zone].DoneCount(zone, layer)), inPots).Where(n => n.Ml > 0).ToDictionary(n => n.Material.Id);
        var rows = await db.Materials.AsNoTracking().Where(m => m.WorkshopId == workshopId).ToDictionaryAsync(m => m.Id, stop);
        var lines = needs.Values.Where(n => rows.ContainsKey(n.Material.Id)).Select(n => Line(rows[n.Material.Id], n, names[n.DrivingZone], rows, needs, core, within))
            .OrderBy(l => l.State).ThenByDescending(l => l.ShortMl).ThenBy(l => l.Name, StringComparer.Ordinal).ToList();
        return new ShoppingList(workshopId, within, Math.Round(lines.Sum(l => l.Cost), 2), lines);
    }

    private static ShoppingLine Line(MaterialRow row, SetNeed need, string drivenBy, Dictionary<Guid, MaterialRow> shelf, Dictionary<Guid, SetNeed> needs, CoreMaterials core, double within)
    {
        var buy = Shopping.For(need.Ml, (double)row.StockMl, (double)row.PackMl, (double)row.Price);
        return new ShoppingLine(
            row.Id, row.Name, row.Maker, buy.State, Math.Round(need.Ml, 2), row.StockMl, Math.Round(buy.ShortMl, 2), row.PackMl, buy.Packs, row.Price, Math.Round(buy.Cost, 2), Math.Round(buy.LeftMl, 2),
            drivenBy, Math.Round(need.DrivingShare, 3), buy.State == StockState.Short ? Alternatives(row, buy.ShortMl, shelf, needs, core, within) : []);
    }

    /// <summary>Same kind and carrier, near in colour, with as much to spare as is missing.</summary>
    private static List<AlternativeDto> Alternatives(MaterialRow row, double shortMl, Dictionary<Guid, MaterialRow> shelf, Dictionary<Guid, SetNeed> needs, CoreMaterials core, double within)
    {
        if (core.Of(row).OpticsSource == OpticsSource.Clear)
            return [];
        Lab Look(MaterialRow r) => core.Of(r).Optics.Over(Reflectance.Flat(Optics.CardWhite), 1).ToLab();
        var wanted = Look(row);
        return shelf.Values
            .Where(r => r.Id != row.Id && r.Kind == row.Kind && r.Carrier == row.Carrier)
            .Select(r => (Row: r, Spare: (double)r.StockMl - (needs.TryGetValue(r.Id, out var n) ? n.Ml : 0)))
            .Where(x => x.Spare >= shortMl)
            .Select(x => new AlternativeDto(x.Row.Id, x.Row.Name, Math.Round(ColourDifference.Ciede2000(wanted, Look(x.Row)), 2), Math.Round(x.Spare, 1)))
            .Where(a => a.Difference <= within).OrderBy(a => a.Difference).Take(MostAlternatives).ToList();
    }
}
