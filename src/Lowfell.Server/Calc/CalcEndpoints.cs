using System.Text.Json.Serialization;
using Lowfell.Core.Colour;
using Lowfell.Core.Layers;
using Lowfell.Core.Sight;
using Lowfell.Server.Http;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Lowfell.Server.Calc;

[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Disallow)]
public sealed record MixComponentIn(string? Colour, double? Parts);

[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Disallow)]
public sealed record MixIn(IReadOnlyList<MixComponentIn?>? Components);

/// <summary>A mark of some width in mm on a field, seen from metres away; a spot unless said to be a line.</summary>
[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Disallow)]
public sealed record SightIn(string? Spot, string? Field, double? Millimetres, double? Metres, MarkShape? Shape);

/// <summary>CIEDE2000 as seen, the verdict, and the distance beyond which it is lost; 0 when it cannot be told from anywhere.</summary>
public sealed record SightOut(double Difference, Verdict Verdict, double LostBeyondMetres);

[JsonUnmappedMemberHandling(JsonUnmappedMemberHandling.Disallow)]
public sealed record FilmIn(string? Paint, double? Hiding, double? Coats, string? Ground);

/// <summary>A colour as hex and as CIELAB [L, a, b].</summary>
public sealed record ColourOut(string Colour, double[] Lab)
{
    internal static ColourOut Of(Reflectance r)
    {
        var lab = r.ToLab();
        return new ColourOut(r.ToSrgb().ToString(), [Round(lab.L), Round(lab.A), Round(lab.B)]);
    }

    private static double Round(double v) => Math.Round(v, 4);
}

/// <summary>Stateless colour arithmetic for scripts; equal scattering for all paints is the convention here.</summary>
public static class CalcEndpoints
{
    private const int MostComponents = 64;
    private const double MostParts = 1_000_000;

    public static void MapCalc(this IEndpointRouteBuilder app)
    {
        var calc = app.MapGroup("/api/calc").WithTags("Calc");
        calc.MapPost("/mix", Mix).WithName("calcMix").WithSummary("Colour of a thick film of a mix; parts by volume.").ProducesProblem(400);
        calc.MapPost("/sight", Sight).WithName("calcSight").WithSummary("Whether a mark of some width can be told from its field at a distance, and from where on it is lost.").ProducesProblem(400);
        calc.MapPost("/order", OrderCalc.Check).WithName("calcOrder").WithSummary("Whether a stack of layers will hold and look right; bottom layer first.").ProducesProblem(400);
        calc.MapPost("/dilution", DilutionCalc.Read).WithName("calcDilution").WithSummary("Reads a dilution as people write it; asks where it can mean two things.").ProducesProblem(400);
        app.MapPost("/api/workshops/{workshopId:guid}/dilution", DilutionCalc.InTheHouse).WithTags("Workshops").WithName("readDilution").WithSummary("Reads a dilution by the house rule for bare percentages.").ProducesProblem(400).ProducesProblem(404);
        calc.MapPost("/schedule", ScheduleCalc.Make).WithName("calcSchedule").WithSummary("A timetable of operations with waits, windows, set-ups and bench hours, or the smallest clash.").ProducesProblem(400).WithMetadata(new LargeBody());
        calc.MapPost("/film", Film).WithName("calcFilm").WithSummary("Colour of some coats over a ground; hiding is S·X of one coat.").ProducesProblem(400);
    }

    private static Results<Ok<ColourOut>, ProblemHttpResult> Mix(MixIn request)
    {
        var faults = new Faults();
        var components = request.Components ?? [];
        faults.Require(components.Count > 0, "components", "Give at least one component.");
        faults.Require(components.Count <= MostComponents, "components", $"At most {MostComponents} components.");
        var shares = new List<(Optics, double)>();
        for (var i = 0; i < Math.Min(components.Count, MostComponents); i++)
        {
            var colour = faults.Colour(components[i]?.Colour, $"components[{i}].colour");
            var parts = components[i]?.Parts;
            var good = parts is > 0 and <= MostParts;
            faults.Require(good, $"components[{i}].parts", "Give parts above 0.");
            if (colour is { } c && good)
                shares.Add((Optics.FromMasstone(c, 1), parts!.Value));
        }

        return faults.Any ? faults.ToProblem() : TypedResults.Ok(ColourOut.Of(Optics.Mix(shares).Masstone()));
    }

    private static Results<Ok<ColourOut>, ProblemHttpResult> Film(FilmIn request)
    {
        var faults = new Faults();
        var paint = faults.Colour(request.Paint, "paint");
        var ground = faults.Colour(request.Ground, "ground");
        faults.Require(request.Hiding is >= 0 and <= 1000, "hiding", "Give the hiding of one coat, S·X, from 0 to 1000.");
        faults.Require(request.Coats is >= 0 and <= 1000, "coats", "Give coats from 0 to 1000.");
        if (faults.Any)
            return faults.ToProblem();
        var film = Optics.FromMasstone(paint!.Value, request.Hiding!.Value);
        return TypedResults.Ok(ColourOut.Of(film.Over(Reflectance.Of(ground!.Value), request.Coats!.Value)));
    }

    private static Results<Ok<SightOut>, ProblemHttpResult> Sight(SightIn request)
    {
        var faults = new Faults();
        var spot = faults.Colour(request.Spot, "spot");
        var field = faults.Colour(request.Field, "field");
        faults.Require(request.Millimetres is >= 0.01 and <= 10_000, "millimetres", "Give the width of the mark, from 0.01 to 10000 mm.");
        faults.Require(request.Metres is >= 0.01 and <= 1000, "metres", "Give the distance of the eye, from 0.01 to 1000 m.");
        if (faults.Any)
            return faults.ToProblem();
        Xyz mark = Observer.ToXyz(spot!.Value.ToLinear()), around = Observer.ToXyz(field!.Value.ToLinear());
        var shape = request.Shape ?? MarkShape.Spot;
        var difference = Eye.Difference(mark, around, request.Millimetres!.Value, request.Metres!.Value, shape);
        return TypedResults.Ok(new SightOut(
            Math.Round(difference, 4), Eye.Judge(difference), Math.Round(Eye.LostBeyond(mark, around, around, request.Millimetres.Value, shape), 4)));
    }
}
