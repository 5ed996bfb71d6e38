using System.Globalization;
using CsvHelper;
using Lowfell.Core.Bench;
using Lowfell.Core.Layers;
using Lowfell.Core.Pieces;
using Lowfell.Core.Sessions;
using Lowfell.Core.Sight;
using Lowfell.Core.Words;
using Lowfell.Server.Http;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Pieces;

/// <summary>What is really on every piece, and its story.</summary>
public static class CoresEndpoints
{
    private const int MostEvents = 500;

    public static void MapPieces(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/pieces/{setId:guid}").WithTags("Pieces");
        group.MapGet("/cores", Of).WithName("cores").WithSummary("What is really on every piece of a zone, side by side, and in what it differs.").ProducesProblem(404);
        group.MapGet("/cores.csv", Csv).WithName("coresAsTable").WithSummary("The same with a line for every layer on every piece.").Produces<string>(200, "text/csv").ProducesProblem(404);
        group.MapMatch();
        group.MapGet("/{pieceId:guid}/story", Story).WithName("story").WithSummary("What happened to one piece, newest first.").ProducesProblem(404);
    }

    private static async Task<Results<Ok<CoresReading>, ProblemHttpResult>> Of(Guid setId, Guid zoneId, LowfellDb db, SetGraphs graphs, CancellationToken stop) =>
        await Read(setId, zoneId, db, graphs, stop) is { } reading ? TypedResults.Ok(reading) : Problems.NotFound("zone");

    private static async Task<CoresReading?> Read(Guid setId, Guid zoneId, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph || graph.Find(zoneId) is not { } place)
            return null;
        return (await Reader(place, db, stop)).Read();
    }

    /// <summary>Reads what there is to know of the cores of a zone.</summary>
    internal static async Task<CoresReader> Reader(Place place, LowfellDb db, CancellationToken stop)
    {
        var zoneId = place.Zone.Id;
        var rows = await db.PieceLayers.AsNoTracking().Where(p => p.ZoneId == zoneId).ToListAsync(stop);
        var ids = rows.Select(r => r.LayerId).OfType<Guid>().Distinct().ToList();
        var layers = await db.Layers.AsNoTracking().Include(l => l.Over).Where(l => ids.Contains(l.Id)).ToDictionaryAsync(l => l.Id, stop);
        return new CoresReader(place, rows, layers, await Revisions.Mixes(db, layers.Values, stop));
    }

    private static async Task<IResult> Csv(Guid setId, Guid zoneId, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await Read(setId, zoneId, db, graphs, stop) is not { } reading)
            return Problems.NotFound("zone");
        await using var text = new StringWriter();
        await using var csv = CsvText.Writer(text);
        var lines = reading.Lines.ToDictionary(l => l.LayerId);
        csv.WriteRecords(reading.Pieces.SelectMany(p => p.Cells.Select(c => new
        {
            piece = p.Label,
            layer = lines[c.LayerId].Number,
            technique = lines[c.LayerId].Technique,
            paint = lines[c.LayerId].Paint,
            state = EnumWords.Of(c.State),
            turn = c.Turn,
            pot = c.Pot,
            at = c.At?.ToString("O", CultureInfo.InvariantCulture),
            colour = c.Colour,
            wiped = c.Wipes,
            mishaps = c.Mishaps,
            differs = string.Join("; ", p.Differences.Where(d => d.LayerId == c.LayerId).Select(d => d.Words)),
        })));
        return Results.Text(text.ToString(), "text/csv; charset=utf-8");
    }

    private static async Task<Results<Ok<StoryReading>, ProblemHttpResult>> Story(Guid setId, Guid pieceId, LowfellDb db, SetGraphs graphs, CancellationToken stop)
    {
        if (await graphs.OfSet(db, setId, stop) is not { } graph || graph.Designs.FirstOrDefault(d => d.Pieces.Any(p => p.Id == pieceId)) is not { } design)
            return Problems.NotFound("piece");
        var events = await (
            from e in db.WorkEvents.AsNoTracking()
            where e.Pieces.Any(p => p.PieceId == pieceId)
            join pot in db.Pots on e.PotId equals pot.Id into pots
            from pot in pots.DefaultIfEmpty()
            join layer in db.Layers on e.LayerId equals layer.Id into layers
            from layer in layers.DefaultIfEmpty()
            orderby e.At descending, e.Sequence descending
            select new { e.Id, e.Kind, Zones = e.Also.Select(a => a.ZoneId).ToList(), e.ZoneId, e.Coats, Technique = layer == null ? (Technique?)null : layer.Technique, Pot = pot == null ? "" : pot.Label, e.Note, e.SavedBy, e.Actor, e.At, TakenBack = db.WorkEvents.Any(u => u.UndoesId == e.Id) }).Take(MostEvents).ToListAsync(stop);
        var clock = TimeZoneInfo.FindSystemTimeZoneById(graph.Workshop.TimeZone);
        return TypedResults.Ok(new StoryReading(
            pieceId, design.Pieces.First(p => p.Id == pieceId).Label, design.Name, graph.Workshop.TimeZone,
            events.Select(e => new StoryEvent(e.Id, e.Kind, e.ZoneId is { } z ? string.Join(", ", e.Zones.Prepend(z).Select(x => graph.Plan.ZoneNames.GetValueOrDefault(x, "")).Order(StringComparer.Ordinal)) : "", e.Technique is { } t ? EnumWords.Of(t) : "", e.Pot, e.Note, e.SavedBy, e.Actor, e.At, Evenings.Of(e.At, clock), e.TakenBack)).ToList()));
    }
}
