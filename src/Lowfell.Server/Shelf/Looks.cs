using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Start;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Shelf;

/// <summary>What looking tells: nearest colours, photos, and the history of tuned strengths.</summary>
public static class Looks
{
    private const int MostNearest = 50;

    public static void MapLooks(this RouteGroupBuilder shelf)
    {
        shelf.MapPost("/{workshopId:guid}/nearest", Nearest).WithName("nearest").WithSummary("Materials and two-part mixes nearest to a colour.").ProducesProblem(400).ProducesProblem(404);
        shelf.MapPost("/photo", Photo).WithName("photoColour").WithSummary("A colour picked from a photo, corrected by a grey card in it.").ProducesProblem(400);
        shelf.MapGet("/materials/{id:guid}/calibrations", History).WithName("calibrations").ProducesProblem(404);
        shelf.MapPost("/calibrations/{id:guid}/take-back", TakeBack).WithName("takeBack").Writes<LookTold, IReadOnlyList<CalibrationEntry>>(Tell);
    }

    private static async Task<Results<Ok<IReadOnlyList<NearestEntry>>, ProblemHttpResult>> Nearest(Guid workshopId, NearestIn ask, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        var faults = new Faults();
        var colour = faults.Colour(ask.Colour, "colour") ?? default;
        faults.Range(ask.Count, "count", 1, MostNearest);
        if (faults.Any)
            return faults.ToProblem();
        if (!await db.Workshops.AnyAsync(w => w.Id == workshopId, stop))
            return Problems.NotFound("workshop");
        var known = await graphs.ShelfOf(db, workshopId, stop);
        var there = ask.OutOfStockToo == true ? null : (await db.Materials.Where(m => m.WorkshopId == workshopId && m.StockMl > 0).Select(m => m.Id).ToListAsync(stop)).ToHashSet();
        var shelf = known.OnShelf.Where(m => there?.Contains(m.Id) != false).ToList();
        var wanted = colour.ToLab();
        return TypedResults.Ok<IReadOnlyList<NearestEntry>>(
            StartHere.Find(Card(shelf), 0, Position.Field, wanted, shelf, (ask.Count ?? 12) * StartHere.AllRatios.Count, stop: stop)
                .DistinctBy(b => b.Paint.Count == 1 ? (b.Paint[0].Material.Id, Guid.Empty) : (b.Paint[0].Material.Id, b.Paint[1].Material.Id)).Take(ask.Count ?? 12).Select(b => new NearestEntry(
                b.Paint.Select(p => new NearestPart(p.Material.Id, p.Material.Name, (int)p.Parts.Numerator)).ToList(),
                b.Coats, b.Hides, Observer.ToLinear(Lab.ToXyz(b.End)).ToSrgb().ToString(), Math.Round(b.Difference, 2), DifferenceWords.Of(wanted, b.End))).ToList());
    }

    /// <summary>A plain paint brushed on a flat mid-grey card.</summary>
    private static StackRun Card(List<Material> shelf) => StackPrediction.Compute(
        new Zone { Name = "card", AreaCm2 = 25, Substrate = Substrate.PrintedPlastic, Relief = Relief.Smooth, Shares = Zone.UsualShares(Relief.Smooth) },
        [new Layer { Technique = Technique.BaseCoat, Paint = shelf.Find(m => m.Kind == MaterialKind.Paint && m.Lustre == default) is { } paint ? [new MixPart(paint, Parts.One)] : [] }]);

    private static Results<Ok<PhotoColour>, ProblemHttpResult> Photo(PhotoIn photo)
    {
        var faults = new Faults();
        var card = Linear(photo.Card, "card", faults);
        var sample = Linear(photo.Sample, "sample", faults);
        faults.Require(photo.CardReflectance is null or (>= 0.05 and <= 1), "cardReflectance", "Give what the card reflects, from 0.05 to 1; the usual grey card reflects 0.18.");
        if (faults.Any)
            return faults.ToProblem();
        try
        {
            return TypedResults.Ok(new PhotoColour(GreyCard.Correct(card, photo.CardReflectance ?? GreyCard.Usual, sample).ToString()));
        }
        catch (ArgumentException reason)
        {
            faults.Add("card", reason.Message);
            return faults.ToProblem();
        }
    }

    private static LinearRgb Linear(double[]? values, string field, Faults faults)
    {
        if (values is [var r and >= 0 and <= 1, var g and >= 0 and <= 1, var b and >= 0 and <= 1])
            return new LinearRgb(r, g, b);
        faults.Add(field, "Give three numbers from 0 to 1: red, green and blue in linear light.");
        return default;
    }

    private static async Task<Results<Ok<IReadOnlyList<CalibrationEntry>>, ProblemHttpResult>> History(Guid id, LowfellDb db, CancellationToken stop)
    {
        if (!await db.Materials.AnyAsync(m => m.Id == id, stop))
            return Problems.NotFound("material");
        return TypedResults.Ok(await Newest(id, db, stop));
    }

    private static async Task<IReadOnlyList<CalibrationEntry>> Newest(Guid material, LowfellDb db, CancellationToken stop) =>
        (await db.Calibrations.AsNoTracking().Where(c => c.MaterialId == material).OrderByDescending(c => c.At).Take(200).ToListAsync(stop)).Select(Word).ToList();

    /// <summary>What taking a look back comes to.</summary>
    private sealed record LookTold(Guid MaterialId);

    private static async Task<IReadOnlyList<CalibrationEntry>> Tell(LookTold told, Telling telling) => await Newest(told.MaterialId, telling.Db, telling.Stop);

    /// <summary>The look stays in the history but no longer counts; the strength is what the others make of it.</summary>
    private static async Task<Outcome<LookTold>> TakeBack(Guid id, Write write)
    {
        var db = write.Db;
        var look = await db.Calibrations.FirstOrDefaultAsync(c => c.Id == id, write.Stop);
        if (look is null)
            return Problems.NotFound("look");
        var material = await db.Materials.FirstAsync(m => m.Id == look.MaterialId, write.Stop);
        write.In(material.WorkshopId);
        look.TakenBackAt ??= write.Now;
        var counting = await db.Calibrations.AsNoTracking().Where(c => c.MaterialId == look.MaterialId && c.Id != id && c.TakenBackAt == null).OrderBy(c => c.At).ToListAsync(write.Stop);
        var strength = counting.Aggregate(Strength.AsEntered, (s, c) => s.Then(new Strength((double)c.HidingStep, (double)c.TintStep)));
        (material.HidingFactor, material.TintFactor) = ((decimal)strength.Hiding, (decimal)strength.Tint);
        material.Looks = counting.Count;
        await write.Save();
        return new LookTold(material.Id);
    }

    private static CalibrationEntry Word(CalibrationRow c) => new(
        c.Id, c.At, c.Place, c.Position, c.Observed, c.PredictedBefore, c.PredictedAfter, c.HidingStep, c.TintStep, c.TakenBackAt);
}
