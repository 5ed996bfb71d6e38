using System.Collections.Concurrent;
using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing.Measures;
using Lowfell.Core.Words;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
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
        shelf.MapGet("/{workshopId:guid}/materials", List).WithName("materials").WithSummary("The shelf by maker and name, up to 1000 a page; with away, what was taken off it.");
        shelf.MapPost("/{workshopId:guid}/materials", Add).WithName("addMaterial").Writes<MaterialTold, MaterialCard>(Tell, StatusCodes.Status201Created);
        shelf.MapPut("/materials/{id:guid}", Change).WithName("changeMaterial").Writes<MaterialTold, MaterialCard>(Tell);
        shelf.MapPut("/materials/{id:guid}/bottle", Bottle).WithName("calibrateBottle").WithSummary("The drop of a bottle, from drops counted onto a scale or into a syringe.").Writes<BottleTold, BottleReading>(Tell);
        shelf.MapDelete("/materials/{id:guid}", Remove).WithName("removeMaterial").WritesSilently();
        shelf.MapPost("/materials/{id:guid}/bring-back", BringBack).WithName("bringMaterialBack").WithSummary("Puts a material back on the shelf.").Writes<MaterialTold, MaterialCard>(Tell);
        shelf.MapGet("/materials/{id:guid}/uses", Uses).WithName("materialUses").ProducesProblem(404);
        shelf.MapGet("/materials/{id:guid}/stand-ins", StandIns.Of).WithName("standIns").WithSummary("What on the shelf comes nearest to a material and does the same work.").ProducesProblem(404);
        shelf.MapGet("/{workshopId:guid}/materials.csv", ShelfFiles.CsvOut).WithName("shelfCsv").ProducesProblem(404);
        shelf.MapGet("/{workshopId:guid}/palette.gpl", ShelfFiles.PaletteOut).WithName("shelfPalette").ProducesProblem(404);
        shelf.MapPost("/{workshopId:guid}/csv", ShelfFiles.CsvIn).WithName("importShelfCsv").WithSummary("Looks at a CSV of materials, and with store puts all of it on the shelf when nothing is wrong.").Writes<ImportReading>().WithMetadata(new LargeBody());
        shelf.MapPost("/{workshopId:guid}/palette", ShelfFiles.PaletteIn).WithName("importPalette").WithSummary("The same for a GIMP palette.").Writes<ImportReading>();
        shelf.MapLooks();
        shelf.MapInUse();
        shelf.MapPost("/drawdown", Preview).WithName("drawdown").WithSummary("What the model predicts of a material that is being typed in.").ProducesProblem(400);
    }

    private static async Task<Results<Ok<IReadOnlyList<MaterialCard>>, ProblemHttpResult>> List(Guid workshopId, LowfellDb db, SetGraphs graphs, CancellationToken stop, int page = 0, bool away = false)
    {
        var faults = new Faults();
        faults.Range(page, "page", 0, MostMaterials / PageSize);
        if (faults.Any)
            return faults.ToProblem();
        if (!await db.Workshops.AnyAsync(w => w.Id == workshopId, stop))
            return Problems.NotFound("workshop");
        var shelf = await graphs.ShelfOf(db, workshopId, stop);
        var shown = (away ? shelf.Away : shelf.OnShelf).Skip(page * PageSize).Take(PageSize).ToList();
        var ids = shown.Select(m => m.Id).ToList();
        var stock = await db.Materials.AsNoTracking().Where(m => ids.Contains(m.Id)).Select(m => new { m.Id, m.StockMl, m.Version }).ToDictionaryAsync(m => m.Id, stop);
        var uses = await UseCounts(db, workshopId, stop);

        // Working colours out is what takes time, and both cores can.
        return TypedResults.Ok<IReadOnlyList<MaterialCard>>(shown.AsParallel().AsOrdered()
            .Select(m => Card(shelf.Row(m.Id), m, uses.GetValueOrDefault(m.Id)) with { StockMl = stock[m.Id].StockMl, Version = stock[m.Id].Version }).ToList());
    }

    /// <summary>What a change of a material comes to.</summary>
    private sealed record MaterialTold(Guid Id, uint Version);

    private sealed record BottleTold(Guid Id, decimal DropMl, decimal DoubtMl);

    private static async Task<MaterialCard> Tell(MaterialTold told, Telling telling) => await CardOf(told.Id, telling.Db, telling.Stop);

    private static async Task<BottleReading> Tell(BottleTold told, Telling telling) => new(await CardOf(told.Id, telling.Db, telling.Stop), told.DropMl, told.DoubtMl);

    private static async Task<MaterialCard> CardOf(Guid id, LowfellDb db, CancellationToken stop)
    {
        var row = await db.Materials.AsNoTracking().FirstAsync(m => m.Id == id, stop);
        return Card(row, row.ToCore(), (await UseCounts(db, row.WorkshopId, stop)).GetValueOrDefault(id));
    }

    private static async Task<Outcome<MaterialTold>> Add(Guid workshopId, MaterialIn entry, Write write)
    {
        var db = write.Db;
        if (!await db.Workshops.AnyAsync(w => w.Id == workshopId, write.Stop))
            return Problems.NotFound("workshop");
        write.In(workshopId);
        var faults = MaterialEntry.Check(entry);
        faults.Require(await db.Materials.CountAsync(m => m.WorkshopId == workshopId && m.PutAwayAt == null, write.Stop) < MostMaterials, "name", $"The shelf holds at most {MostMaterials} materials.");
        if (faults.Any)
            return faults.ToProblem();
        var row = new MaterialRow { WorkshopId = workshopId, Name = entry.Name! };
        MaterialEntry.Fill(row, entry);
        if (await Taken(row, db, write.Stop) is { } taken)
            return taken;
        db.Add(row);
        await write.Save();
        return new MaterialTold(row.Id, row.Version);
    }

    private static async Task<Outcome<MaterialTold>> Change(Guid id, MaterialIn entry, Write write)
    {
        if (await write.Db.Materials.FirstOrDefaultAsync(m => m.Id == id && m.PutAwayAt == null, write.Stop) is not { } row)
            return Problems.NotFound("material");
        write.In(row.WorkshopId);
        var faults = MaterialEntry.Check(entry);
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        if (faults.Any)
            return faults.ToProblem();
        if (row.Version != entry.Version)
            return Problems.Changed("material", await CardOf(id, write.Db, write.Stop));
        MaterialEntry.Fill(row, entry);
        if (await Taken(row, write.Db, write.Stop) is { } taken)
            return taken;
        write.Says($"Changed the material {row.Name}");
        await write.Save();
        return new MaterialTold(row.Id, row.Version);
    }

    private static async Task<ProblemHttpResult?> Taken(MaterialRow row, LowfellDb db, CancellationToken stop) =>
        await db.Materials.AnyAsync(m => m.WorkshopId == row.WorkshopId && m.Maker == row.Maker && m.Name == row.Name && m.Id != row.Id && m.PutAwayAt == null, stop)
            ? Problems.Taken("name", row.Maker.Length == 0 ? "There is a material of this name on the shelf already." : $"There is a material of this name by {row.Maker} on the shelf already.") : null;

    private static async Task<Outcome<BottleTold>> Bottle(Guid id, BottleIn entry, Write write)
    {
        if (await write.Db.Materials.FirstOrDefaultAsync(m => m.Id == id && m.PutAwayAt == null, write.Stop) is not { } row)
            return Problems.NotFound("material");
        write.In(row.WorkshopId);
        var faults = new Faults();
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        faults.Require(entry.Drops is > 0 and <= 1000, "drops", "Give how many drops were counted; twenty is usual.");
        faults.Require((entry.Ml is null) != (entry.Grams is null), "ml", "Give either ml or grams.");
        faults.Require((entry.Ml ?? entry.Grams) is null or > 0, entry.Grams is null ? "ml" : "grams", "Give a number above 0.");
        faults.Range(entry.DensityGPerMl, "densityGPerMl", 0.3m, 8);
        var found = faults.Any ? null : Drop(entry, row, faults);
        if (faults.Any)
            return faults.ToProblem();
        if (row.Version != entry.Version)
            return Problems.Changed("material", await CardOf(id, write.Db, write.Stop));
        (row.DropMl, row.DensityGPerMl) = (found!.Value.DropMl, entry.DensityGPerMl ?? row.DensityGPerMl);
        write.Says($"Counted the drops of {row.Name}");
        await write.Save();
        return new BottleTold(row.Id, found.Value.DropMl, found.Value.DoubtMl);
    }

    /// <summary>The drop that was counted; null with the fault when no bottle drips like that.</summary>
    private static DropCalibration? Drop(BottleIn entry, MaterialRow row, Faults faults)
    {
        try
        {
            return entry.Ml is { } ml
                ? DropCalibration.FromMl(entry.Drops!.Value, ml)
                : DropCalibration.FromGrams(entry.Drops!.Value, entry.Grams!.Value, entry.DensityGPerMl ?? row.DensityGPerMl ?? UsualMeasures.UsualDensity(row.Kind, row.Carrier));
        }
        catch (ArgumentOutOfRangeException none)
        {
            faults.Add(entry.Ml is null ? "grams" : "ml", none.Message.Split(" (Parameter")[0]);
            return null;
        }
    }

    /// <summary>Takes a material off the shelf. Layers that have it keep it, and are told apart by it: what was done with it keeps its name and colour.</summary>
    private static async Task<Outcome<Nothing>> Remove(Guid id, Write write)
    {
        if (await write.Db.Materials.FirstOrDefaultAsync(m => m.Id == id && m.PutAwayAt == null, write.Stop) is not { } row)
            return Problems.NotFound("material");
        write.In(row.WorkshopId);
        write.Says($"Took {row.Name} off the shelf");
        row.PutAwayAt = write.Now;
        await write.Save();
        return new Nothing();
    }

    private static async Task<Outcome<MaterialTold>> BringBack(Guid id, Write write)
    {
        if (await write.Db.Materials.FirstOrDefaultAsync(m => m.Id == id, write.Stop) is not { } row)
            return Problems.NotFound("material");
        write.In(row.WorkshopId);
        if (await Taken(row, write.Db, write.Stop) is { } taken)
            return taken;
        write.Says($"Put {row.Name} back on the shelf");
        row.PutAwayAt = null;
        await write.Save();
        return new MaterialTold(row.Id, row.Version);
    }

    private static async Task<Results<Ok<IReadOnlyList<UseEntry>>, ProblemHttpResult>> Uses(Guid id, LowfellDb db, CancellationToken stop)
    {
        if (!await db.Materials.AnyAsync(m => m.Id == id, stop))
            return Problems.NotFound("material");
        var layers = await (
            from place in db.RevisionLayers.AsNoTracking()
            join treatment in db.Treatments on new { place.TreatmentId, place.Revision } equals new { TreatmentId = treatment.Id, treatment.Revision }
            join layer in db.Layers on place.LayerId equals layer.Id
            where treatment.PutAwayAt == null && (layer.MaterialId == id || layer.ThinnerId == id || layer.Mix!.Components.Any(c => c.MaterialId == id))
            orderby treatment.Name, place.Position
            select new { treatment.Id, treatment.Name, place.Position, layer.Technique, Over = layer.Over.Select(o => o.SurfaceId).ToList() }).Take(200).ToListAsync(stop);
        var surfaces = layers.SelectMany(l => l.Over).Distinct().ToList();
        var zones = await (
            from zone in db.Zones.AsNoTracking()
            join design in db.Designs on zone.DesignId equals design.Id
            where surfaces.Contains(zone.SurfaceId) && zone.PutAwayAt == null && design.PutAwayAt == null
            orderby design.Position, zone.Position
            select new { zone.SurfaceId, Name = design.Name + ", " + zone.Name }).ToListAsync(stop);
        return TypedResults.Ok<IReadOnlyList<UseEntry>>(
            layers.Select(l => new UseEntry(l.Id, l.Name, l.Position + 1, EnumWords.Of(l.Technique), zones.Where(z => l.Over.Contains(z.SurfaceId)).Select(z => z.Name).ToList())).ToList());
    }

    private static Results<Ok<MaterialPreview>, ProblemHttpResult> Preview(MaterialIn entry)
    {
        var faults = MaterialEntry.Check(entry with { Name = string.IsNullOrWhiteSpace(entry.Name) ? "new" : entry.Name });
        if (faults.Any)
            return faults.ToProblem();
        var row = new MaterialRow { Name = entry.Name ?? "" };
        MaterialEntry.Fill(row, entry with { Name = entry.Name ?? "" });
        var material = row.ToCore();
        return TypedResults.Ok(new MaterialPreview(Card(row, material, 0), MaterialEntry.Usual(material)));
    }

    private static async Task<Dictionary<Guid, int>> UseCounts(LowfellDb db, Guid workshop, CancellationToken stop)
    {
        var direct = await Revisions.Layers(db).Where(l => db.Treatments.Any(t => t.Id == l.TreatmentId && t.WorkshopId == workshop && t.PutAwayAt == null))
            .Select(l => new { l.MaterialId, l.ThinnerId, l.MixId }).ToListAsync(stop);
        var mixes = (await db.MixComponents.Join(db.Mixes.Where(m => m.WorkshopId == workshop), c => c.MixId, m => m.Id, (c, _) => c).AsNoTracking().ToListAsync(stop))
            .ToLookup(c => c.MixId, c => c.MaterialId);
        return direct
            .SelectMany(l => mixes[l.MixId ?? Guid.Empty].Append(l.MaterialId ?? Guid.Empty).Append(l.ThinnerId ?? Guid.Empty).Distinct())
            .Where(m => m != Guid.Empty).GroupBy(m => m).ToDictionary(g => g.Key, g => g.Count());
    }

    private static MaterialCard Card(MaterialRow r, Material m, int uses)
    {
        int? coats = m.IsOpaque ? Enumerable.Range(1, Hiding.MostCoats).Cast<int?>().FirstOrDefault(n => m.Optics.ContrastRatio(n!.Value, m.Surface) >= Hiding.HiddenRatio) : null;
        return new MaterialCard(
            r.Id, r.Version, r.Name, r.Maker, r.Code, r.Kind, r.Carrier, r.Colour, r.OverBlack, r.OverWhite, r.CoatsToHide, r.Sheen, r.SolidsFraction, r.Thinners,
            r.TouchMinutes, r.RecoatMinutes, r.CureMinutes, r.HeatSafe, r.StockMl, r.PackMl, r.Price, r.Hazards, r.Notes, m.OpticsSource, coats, Doubt(r), r.HidingFactor, r.TintFactor, Drawdowns.Of(m), uses, r.Lustre, r.MostThinnerShare, r.DropMl, r.DensityGPerMl, m.Surface.First < m.Sheen.Surface().First * PlainlyLower,
            Preparations.For(m));
    }

    /// <summary>A surface share lowered by less than this is no news.</summary>
    private const double PlainlyLower = 0.7;

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
