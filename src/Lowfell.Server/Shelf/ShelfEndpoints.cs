using System.Collections.Concurrent;
using Lowfell.Core.Colour;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing.Measures;
using Lowfell.Core.Words;
using Lowfell.Server.Http;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Shelf;

/// <summary>The shelf of a workshop.</summary>
public static class ShelfEndpoints
{
    internal const int MostMaterials = 20_000;
    private const int PageSize = 1000;

    public static void MapShelf(this IEndpointRouteBuilder app)
    {
        var shelf = app.MapGroup("/api/shelf").WithTags("Shelf");
        shelf.MapGet("/{workshopId:guid}/materials", List).WithName("materials").WithSummary("The shelf by maker and name, up to 1000 a page.");
        shelf.MapPost("/{workshopId:guid}/materials", Add).WithName("addMaterial").ProducesProblem(400).ProducesProblem(404).ProducesProblem(409).AddEndpointFilter<IdempotencyFilter>();
        shelf.MapPut("/materials/{id:guid}", Change).WithName("changeMaterial").ProducesProblem(400).ProducesProblem(404).ProducesProblem(409).AddEndpointFilter<IdempotencyFilter>();
        shelf.MapPut("/materials/{id:guid}/bottle", Bottle).WithName("calibrateBottle").WithSummary("The drop of a bottle, from drops counted onto a scale or into a syringe.").ProducesProblem(400).ProducesProblem(404).ProducesProblem(409);
        shelf.MapDelete("/materials/{id:guid}", Remove).WithName("removeMaterial").ProducesProblem(404).ProducesProblem(409);
        shelf.MapGet("/materials/{id:guid}/uses", Uses).WithName("materialUses").ProducesProblem(404);
        shelf.MapGet("/{workshopId:guid}/materials.csv", ShelfFiles.CsvOut).WithName("shelfCsv").ProducesProblem(404);
        shelf.MapGet("/{workshopId:guid}/palette.gpl", ShelfFiles.PaletteOut).WithName("shelfPalette").ProducesProblem(404);
        shelf.MapPost("/{workshopId:guid}/csv", ShelfFiles.CsvIn).WithName("importShelfCsv").WithSummary("Looks at a CSV of materials, and with store puts all of it on the shelf when nothing is wrong.")
            .ProducesProblem(404).WithMetadata(new LargeBody());
        shelf.MapPost("/{workshopId:guid}/palette", ShelfFiles.PaletteIn).WithName("importPalette").WithSummary("The same for a GIMP palette.").ProducesProblem(404);
        shelf.MapLooks();
        shelf.MapPost("/drawdown", Preview).WithName("drawdown").WithSummary("What the model predicts of a material that is being typed in.").ProducesProblem(400);
    }

    private static async Task<Ok<IReadOnlyList<MaterialCard>>> List(Guid workshopId, LowfellDb db, CoreMaterials core, CancellationToken stop, int page = 0)
    {
        var rows = await db.Materials.AsNoTracking().Where(m => m.WorkshopId == workshopId).OrderBy(m => m.Maker).ThenBy(m => m.Name)
            .Skip(Math.Clamp(page, 0, MostMaterials / PageSize) * PageSize).Take(PageSize).ToListAsync(stop);
        var uses = await UseCounts(db, workshopId, stop);
        return TypedResults.Ok<IReadOnlyList<MaterialCard>>(rows.Select(r => Card(r, core.Of(r), uses.GetValueOrDefault(r.Id))).ToList());
    }

    private static async Task<Results<Created<MaterialCard>, ProblemHttpResult>> Add(Guid workshopId, MaterialIn entry, LowfellDb db, CoreMaterials core, CancellationToken stop)
    {
        if (!await db.Workshops.AnyAsync(w => w.Id == workshopId, stop))
            return Problems.NotFound("workshop");
        var faults = MaterialEntry.Check(entry);
        faults.Require(await db.Materials.CountAsync(m => m.WorkshopId == workshopId, stop) < MostMaterials, "name", $"The shelf holds at most {MostMaterials} materials.");
        if (faults.Any)
            return faults.ToProblem();
        var row = new MaterialRow { WorkshopId = workshopId, Name = entry.Name! };
        MaterialEntry.Fill(row, entry);
        db.Add(row);
        await db.SaveChangesAsync(stop);
        return TypedResults.Created($"/api/shelf/materials/{row.Id}", Card(row, core.Of(row), 0));
    }

    private static async Task<Results<Ok<MaterialCard>, ProblemHttpResult>> Change(Guid id, MaterialIn entry, LowfellDb db, CoreMaterials core, CancellationToken stop)
    {
        var row = await db.Materials.FirstOrDefaultAsync(m => m.Id == id, stop);
        if (row is null)
            return Problems.NotFound("material");
        var faults = MaterialEntry.Check(entry);
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        if (faults.Any)
            return faults.ToProblem();
        var uses = (await UseCounts(db, row.WorkshopId, stop)).GetValueOrDefault(id);
        if (row.Version != entry.Version)
            return Problems.Changed("material", Card(row, core.Of(row), uses));
        MaterialEntry.Fill(row, entry);
        await db.SaveChangesAsync(stop);
        return TypedResults.Ok(Card(row, core.Of(row), uses));
    }

    private static async Task<Results<Ok<BottleReading>, ProblemHttpResult>> Bottle(Guid id, BottleIn entry, LowfellDb db, CoreMaterials core, CancellationToken stop)
    {
        var row = await db.Materials.FirstOrDefaultAsync(m => m.Id == id, stop);
        if (row is null)
            return Problems.NotFound("material");
        var faults = new Faults();
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        faults.Require(entry.Drops is > 0 and <= 1000, "drops", "Give how many drops were counted; twenty is usual.");
        faults.Require((entry.Ml is null) != (entry.Grams is null), "ml", "Give either ml or grams.");
        faults.Require((entry.Ml ?? entry.Grams) is null or > 0, entry.Grams is null ? "ml" : "grams", "Give a number above 0.");
        faults.Range(entry.DensityGPerMl, "densityGPerMl", 0.3m, 8);
        if (faults.Any)
            return faults.ToProblem();
        if (row.Version != entry.Version)
            return Problems.Changed("material", Card(row, core.Of(row), (await UseCounts(db, row.WorkshopId, stop)).GetValueOrDefault(id)));
        DropCalibration found;
        try
        {
            found = entry.Ml is { } ml
                ? DropCalibration.FromMl(entry.Drops!.Value, ml)
                : DropCalibration.FromGrams(entry.Drops!.Value, entry.Grams!.Value, entry.DensityGPerMl ?? row.DensityGPerMl ?? UsualMeasures.UsualDensity(row.Kind, row.Carrier));
        }
        catch (ArgumentOutOfRangeException none)
        {
            faults.Add(entry.Ml is null ? "grams" : "ml", none.Message.Split(" (Parameter")[0]);
            return faults.ToProblem();
        }

        (row.DropMl, row.DensityGPerMl) = (found.DropMl, entry.DensityGPerMl ?? row.DensityGPerMl);
        await db.SaveChangesAsync(stop);
        return TypedResults.Ok(new BottleReading(Card(row, core.Of(row), (await UseCounts(db, row.WorkshopId, stop)).GetValueOrDefault(id)), found.DropMl, found.DoubtMl));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> Remove(Guid id, LowfellDb db, CancellationToken stop)
    {
        var row = await db.Materials.FirstOrDefaultAsync(m => m.Id == id, stop);
        if (row is null)
            return Problems.NotFound("material");
        if ((await UseCounts(db, row.WorkshopId, stop)).GetValueOrDefault(id) is > 0 and var uses)
            return Problems.Of(StatusCodes.Status409Conflict, "in-use", $"{row.Name} is used in {uses} layer{(uses == 1 ? "" : "s")}. Take it out of them first.");
        db.Remove(row);
        await db.SaveChangesAsync(stop);
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<IReadOnlyList<UseEntry>>, ProblemHttpResult>> Uses(Guid id, LowfellDb db, CancellationToken stop)
    {
        if (!await db.Materials.AnyAsync(m => m.Id == id, stop))
            return Problems.NotFound("material");
        var layers = await (
            from layer in db.Layers.AsNoTracking()
            join treatment in db.Treatments on layer.TreatmentId equals treatment.Id
            where layer.MaterialId == id || layer.ThinnerId == id || layer.Mix!.Components.Any(c => c.MaterialId == id)
            orderby treatment.Name, layer.Position
            select new { treatment.Id, treatment.Name, layer.Position, layer.Technique }).Take(200).ToListAsync(stop);
        var treatments = layers.Select(l => l.Id).Distinct().ToList();
        var zones = await (
            from zone in db.Zones.AsNoTracking()
            join design in db.Designs on zone.DesignId equals design.Id
            where treatments.Contains(zone.TreatmentId)
            orderby design.Position, zone.Position
            select new { zone.TreatmentId, Name = design.Name + ", " + zone.Name }).ToListAsync(stop);
        var byTreatment = zones.ToLookup(z => z.TreatmentId, z => z.Name);
        return TypedResults.Ok<IReadOnlyList<UseEntry>>(
            layers.Select(l => new UseEntry(l.Name, l.Position + 1, EnumWords.Of(l.Technique), byTreatment[l.Id].ToList())).ToList());
    }

    private static Results<Ok<MaterialCard>, ProblemHttpResult> Preview(MaterialIn entry)
    {
        var faults = MaterialEntry.Check(entry with { Name = string.IsNullOrWhiteSpace(entry.Name) ? "new" : entry.Name });
        if (faults.Any)
            return faults.ToProblem();
        var row = new MaterialRow { Name = entry.Name ?? "" };
        MaterialEntry.Fill(row, entry with { Name = entry.Name ?? "" });
        return TypedResults.Ok(Card(row, row.ToCore(), 0));
    }

    private static async Task<Dictionary<Guid, int>> UseCounts(LowfellDb db, Guid workshop, CancellationToken stop)
    {
        var direct = await db.Layers.Join(db.Treatments.Where(t => t.WorkshopId == workshop), l => l.TreatmentId, t => t.Id, (l, _) => l)
            .Select(l => new { l.MaterialId, l.ThinnerId, l.MixId }).ToListAsync(stop);
        var mixes = (await db.MixComponents.Join(db.Mixes.Where(m => m.WorkshopId == workshop), c => c.MixId, m => m.Id, (c, _) => c).AsNoTracking().ToListAsync(stop))
            .ToLookup(c => c.MixId, c => c.MaterialId);
        return direct
            .SelectMany(l => mixes[l.MixId ?? Guid.Empty].Append(l.MaterialId ?? Guid.Empty).Append(l.ThinnerId ?? Guid.Empty).Distinct())
            .Where(m => m != Guid.Empty).GroupBy(m => m).ToDictionary(g => g.Key, g => g.Count());
    }

    private static MaterialCard Card(MaterialRow r, Material m, int uses)
    {
        Reflectance black = Reflectance.Flat(Optics.CardBlack), white = Reflectance.Flat(Optics.CardWhite);
        var drawdowns = new[] { 1, 2, 3 }.Select(n => new Drawdown(n, m.Optics.Over(black, n).ToSrgb().ToString(), m.Optics.Over(white, n).ToSrgb().ToString())).ToList();
        int? coats = m.IsOpaque ? Enumerable.Range(1, Hiding.MostCoats).Cast<int?>().FirstOrDefault(n => m.Optics.ContrastRatio(n!.Value) >= Hiding.HiddenRatio) : null;
        return new MaterialCard(
            r.Id, r.Version, r.Name, r.Maker, r.Code, r.Kind, r.Carrier, r.Colour, r.OverBlack, r.OverWhite, r.CoatsToHide, r.Sheen, r.SolidsFraction, r.Thinners,
            r.TouchMinutes, r.RecoatMinutes, r.CureMinutes, r.HeatSafe, r.StockMl, r.PackMl, r.Price, r.Hazards, r.Notes, m.OpticsSource, coats, Doubt(r), r.HidingFactor, r.TintFactor, drawdowns, uses, r.Lustre, r.MostThinnerShare, r.DropMl, r.DensityGPerMl);
    }

    private static CardDoubt? Doubt(MaterialRow r)
    {
        if (!SrgbColour.TryParse(r.OverBlack, out var black) || !SrgbColour.TryParse(r.OverWhite, out var white))
            return null;
        var card = cards.GetOrAdd((black, white), c => ContrastCard.Read(c.Item1, c.Item2));
        return new CardDoubt(Math.Round(card.CoatsToHideLow, 1), Math.Round(card.CoatsToHideHigh, 1), card.IsFaint);
    }

    // Reading a card takes milliseconds, and a shelf is listed often.
    private static readonly ConcurrentDictionary<(SrgbColour, SrgbColour), ContrastCard> cards = new();
}
