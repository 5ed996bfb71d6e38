using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Start;
using Lowfell.Server.Http;
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
        shelf.MapPost("/calibrations/{id:guid}/take-back", TakeBack).WithName("takeBack").ProducesProblem(404).ProducesProblem(409);
    }

    private static async Task<Results<Ok<IReadOnlyList<NearestEntry>>, ProblemHttpResult>> Nearest(Guid workshopId, NearestIn ask, LowfellDb db, CoreMaterials core, CancellationToken stop)
    {
        var faults = new Faults();
        var good = SrgbColour.TryParse(ask.Colour, out var colour);
        faults.Require(good, "colour", "Write a hash and six hexadecimal digits, for example #6b4f2a.");
        faults.Range(ask.Count, "count", 1, MostNearest);
        if (faults.Any)
            return faults.ToProblem();
        if (!await db.Workshops.AnyAsync(w => w.Id == workshopId, stop))
            return Problems.NotFound("workshop");
        var (materials, stock, _) = await core.Of(db, workshopId, stop);
        var shelf = materials.Values.Where(m => ask.OutOfStockToo == true || stock[m.Id] > 0).ToList();
        var wanted = colour.ToLab();
        return TypedResults.Ok<IReadOnlyList<NearestEntry>>(
            StartHere.Find(Card(shelf), 0, Position.Field, wanted, shelf, (ask.Count ?? 12) * StartHere.AllRatios.Count, stop: stop)
                .DistinctBy(b => b.Paint.Count == 1 ? (b.Paint[0].Material.Id, Guid.Empty) : (b.Paint[0].Material.Id, b.Paint[1].Material.Id)).Take(ask.Count ?? 12).Select(b => new NearestEntry(
                b.Paint.Select(p => new NearestPart(p.Material.Id, p.Material.Name, (int)p.Parts.Numerator)).ToList(),
                b.Coats, b.Hides, Observer.ToLinear(Lab.ToXyz(b.End)).ToSrgb().ToString(), Math.Round(b.Difference, 2), DifferenceWords.Of(wanted, b.End))).ToList());
    }

    /// <summary>Anything brushed on a flat mid-grey card.</summary>
    private static StackRun Card(List<Material> shelf) => StackPrediction.Compute(
        new Zone { Name = "card", AreaCm2 = 25, Substrate = Substrate.PrintedPlastic, Relief = Relief.Smooth, Shares = Zone.UsualShares(Relief.Smooth) },
        [new Layer { Technique = Technique.BaseCoat, Paint = shelf.Count > 0 ? [new MixPart(shelf[0], Parts.One)] : [] }]);

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
        var rows = await db.Calibrations.AsNoTracking().Where(c => c.MaterialId == id).OrderByDescending(c => c.At).Take(200).ToListAsync(stop);
        return TypedResults.Ok<IReadOnlyList<CalibrationEntry>>(rows.Select(Word).ToList());
    }

    /// <summary>The look stays in the history but no longer counts; the strength is what the others make of it.</summary>
    private static async Task<Results<Ok<IReadOnlyList<CalibrationEntry>>, ProblemHttpResult>> TakeBack(Guid id, LowfellDb db, TimeProvider clock, CancellationToken stop)
    {
        var look = await db.Calibrations.FirstOrDefaultAsync(c => c.Id == id, stop);
        if (look is null)
            return Problems.NotFound("look");
        var material = await db.Materials.FirstAsync(m => m.Id == look.MaterialId, stop);
        look.TakenBackAt ??= clock.GetUtcNow();
        var counting = await db.Calibrations.AsNoTracking().Where(c => c.MaterialId == look.MaterialId && c.Id != id && c.TakenBackAt == null).OrderBy(c => c.At).ToListAsync(stop);
        var strength = counting.Aggregate(Strength.AsEntered, (s, c) => s.Then(new Strength((double)c.HidingStep, (double)c.TintStep)));
        (material.HidingFactor, material.TintFactor) = ((decimal)strength.Hiding, (decimal)strength.Tint);
        await db.SaveChangesAsync(stop);
        return await History(material.Id, db, stop);
    }

    private static CalibrationEntry Word(CalibrationRow c) => new(
        c.Id, c.At, c.Place, c.Position, c.Observed, c.PredictedBefore, c.PredictedAfter, c.HidingStep, c.TintStep, c.TakenBackAt);
}
