using System.Globalization;
using CsvHelper;
using Lowfell.Core.Words;
using Lowfell.Server.Http;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Log;

/// <summary>The log: the story of a set by session and by piece, its photographs, and what is learned from it.</summary>
public static class LogEndpoints
{
    private const int MostAPage = 500, MostInFile = 100_000;

    public static void MapLog(this IEndpointRouteBuilder app)
    {
        var log = app.MapGroup("/api/log/{setId:guid}").WithTags("Log");
        log.MapGet("/", Of).WithName("log").WithSummary("What happened, the newest first; of one piece, one zone, or certain kinds.").ProducesProblem(400).ProducesProblem(404);
        log.MapGet("/log.csv", Csv).WithName("logAsTable").WithSummary("All of it, a line for every event.").Produces<string>(200, "text/csv").ProducesProblem(404);
        log.MapGet("/record", RecordReader.Of).WithName("record").WithSummary("What a printed record of the set has besides the cores: pots as they were really made, evenings and hands.").ProducesProblem(404);
        log.MapPhotos();
        log.MapLearned();
        log.MapMishaps();
        app.MapGroup("/api/search/{workshopId:guid}").WithTags("Log").MapGet("/", Search.Find).WithName("search").WithSummary("Looks through log, photographs, materials, pots and treatments of a workshop.").ProducesProblem(400).ProducesProblem(404);
    }

    private static async Task<Results<Ok<LogPage>, ProblemHttpResult>> Of(Guid setId, LowfellDb db, SetGraphs graphs, CancellationToken stop, Guid? pieceId = null, Guid? zoneId = null, string? kinds = null, string? before = null, int most = 150)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph)
            return Problems.NotFound("set");
        var faults = new Faults();
        faults.Range(most, "most", 1, MostAPage);
        var read = (kinds ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries).Select(k => (Word: k, Kind: EnumWords.Read<WorkKind>(k))).ToList();
        faults.Require(read.Count <= 20 && read.All(k => k.Kind is not null), "kinds", $"Name kinds of events with commas between: {string.Join(", ", Enum.GetValues<WorkKind>().Select(EnumWords.Of))}.");
        faults.Require(before is null or "" || LogReader.Place(before) is not null, "before", "Send what an answer gave as next, as it is.");
        if (faults.Any)
            return faults.ToProblem();
        return TypedResults.Ok(await new LogReader(graph, db, stop).Read(new LogAsk(pieceId, zoneId, read.Select(k => k.Kind!.Value).ToList(), LogReader.Place(before), most)));
    }

    private static async Task<IResult> Csv(Guid setId, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph)
            return Problems.NotFound("set");
        var page = await new LogReader(graph, db, stop).Read(new LogAsk(null, null, [], null, MostInFile));
        await using var text = new StringWriter();
        await using var csv = CsvText.Writer(text);
        csv.WriteRecords(page.Entries.Select(e => new
        {
            session = e.Session.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
            at = e.At.ToString("O", CultureInfo.InvariantCulture),
            painter = e.Painter,
            what = EnumWords.Of(e.Kind),
            design = e.Design,
            zone = e.Zone,
            layer = e.Layer,
            technique = e.Technique,
            pieces = string.Join(' ', e.Pieces),
            pot = e.Pot,
            minutes = e.Minutes,
            estimated = e.EstimateMinutes,
            note = e.Note,
            saved_by = e.SavedBy,
            taken_back = e.TakenBack ? "yes" : "",
            photos = e.Photos.Count,
        }));
        return Results.Text(text.ToString(), "text/csv; charset=utf-8");
    }
}
