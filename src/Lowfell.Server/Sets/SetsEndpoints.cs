using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Sets;

/// <summary>The sets of a workshop, and everything that can be changed about one.</summary>
public static class SetsEndpoints
{
    public static void MapSets(this IEndpointRouteBuilder app)
    {
        var sets = app.MapGroup("/api").WithTags("Sets");
        sets.MapGet("/workshops/{workshopId:guid}/sets", Cards).WithName("sets").WithSummary("Every set of a workshop with its picture and how far it is; those put away last.").ProducesProblem(404);
        sets.MapGet("/sets/{setId:guid}", Sheet).WithName("setSheet").WithSummary("A set with its designs, pieces and zones, those put away too.").ProducesProblem(404);
        sets.MapPut("/sets/{setId:guid}", Change).WithName("changeSet").WithSummary("Name, scale, distance, handling, sheen, due date, reserve, rank. What others changed meanwhile stays, unless it is the same.").Writes<Changed>();
        sets.MapPost("/sets/{setId:guid}/copies", SetCopies.Copy).WithName("copySet").WithSummary("The set once more, with nothing done on it; its zones keep their treatments.").Writes<Changed>(StatusCodes.Status201Created);
        sets.MapPost("/sets/{setId:guid}/merges", SetCopies.Merge).WithName("mergeSet").WithSummary("Takes designs out of another set into this one, with what is done on them.").Writes<Changed>();
        sets.MapDesigns();
        sets.MapPieces();
        sets.MapZones();
        sets.MapPutAway();
    }

    private static async Task<Results<Ok<IReadOnlyList<SetCard>>, ProblemHttpResult>> Cards(Guid workshopId, LowfellDb db, SetGraphs graphs, CancellationToken stop) =>
        await db.Workshops.AnyAsync(w => w.Id == workshopId, stop) ? TypedResults.Ok(await SetsReader.Cards(workshopId, db, graphs, stop)) : Problems.NotFound("workshop");

    private static async Task<Results<Ok<SetSheet>, ProblemHttpResult>> Sheet(Guid setId, LowfellDb db, CancellationToken stop) =>
        await SetsReader.Sheet(setId, db, stop) is { } sheet ? TypedResults.Ok(sheet) : Problems.NotFound("set");

    private static async Task<Outcome<Changed>> Change(Guid setId, SetIn entry, Write write)
    {
        await write.Hold<SetRow>(setId);
        if (await write.Db.Sets.FirstOrDefaultAsync(s => s.Id == setId, write.Stop) is not { } row)
            return Problems.NotFound("set");
        write.In(row.WorkshopId);
        var faults = new Faults();
        Check(entry, row, faults);
        if (faults.Any)
            return faults.ToProblem();
        var name = entry.Name?.Trim();
        if (name is not null && name != row.Name && await write.Db.Sets.AnyAsync(s => s.WorkshopId == row.WorkshopId && s.Name == name && s.Id != setId && s.PutAwayAt == null, write.Stop))
            return Problems.Taken("name", "This workshop has a set of this name already.");
        write.Says(Words(entry, row));
        var factor = entry.Scale is { } scale && entry.MeasuresFollow == true ? (decimal)row.Scale / scale : 1;
        row.Name = name ?? row.Name;
        row.Scale = entry.Scale ?? row.Scale;
        row.TableMetres = entry.TableMetres ?? row.TableMetres;
        row.Handling = entry.Handling ?? row.Handling;
        row.TargetSheen = entry.TargetSheen ?? row.TargetSheen;
        row.DueDate = entry.Clear?.Contains("dueDate") == true ? null : entry.DueDate ?? row.DueDate;
        row.ReserveMl = entry.ReserveMl ?? row.ReserveMl;
        if (entry.Rank is { } rank)
            await Rank(write, row, rank);
        if (!await write.Fits(row, entry.Version))
            return Problems.Changed("set", (await SetsReader.Sheet(setId, write.Db, write.Stop))!);
        if (factor != 1)
            foreach (var zone in await write.Db.Zones.Join(write.Db.Designs.Where(d => d.SetId == setId), z => z.DesignId, d => d.Id, (z, _) => z).ToListAsync(write.Stop))
                ZoneFill.Scale(zone, factor);
        await write.Save();
        return new Changed(row.Id, row.Version);
    }

    private static void Check(SetIn entry, SetRow row, Faults faults)
    {
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        if (entry.Name is not null)
            faults.Text(entry.Name, "name", 120);
        faults.Range(entry.Scale, "scale", 1, 1000);
        faults.Require(entry.Scale is null || entry.Scale == row.Scale || entry.MeasuresFollow is not null, "measuresFollow", $"Say whether the measures follow: at 1:{entry.Scale} the same stones are {Math.Round(100.0 * row.Scale / Math.Max(1, entry.Scale ?? 1))} % of what they are at 1:{row.Scale}.");
        faults.Range(entry.TableMetres, "tableMetres", 0.1m, 10);
        faults.Range(entry.ReserveMl, "reserveMl", 0, 100);
        faults.Range(entry.Rank, "rank", 0, 1000);
        foreach (var field in entry.Clear ?? [])
            faults.Require(field == "dueDate", "clear", $"{field} cannot be made empty.");
    }

    private static string Words(SetIn entry, SetRow row) => entry switch
    {
        { Name: { } name } when name.Trim() != row.Name => $"Renamed the set {row.Name} to {name.Trim()}",
        { Scale: { } scale } when scale != row.Scale => $"{row.Name} from 1:{row.Scale} to 1:{scale}{(entry.MeasuresFollow == true ? ", measures too" : "")}",
        { Rank: not null } => $"Moved {row.Name} among the sets",
        _ => $"Changed the facts of {row.Name}",
    };

    /// <summary>Puts a set into its place; the others close up.</summary>
    private static async Task Rank(Write write, SetRow row, int rank)
    {
        var others = await write.Db.Sets.Where(s => s.WorkshopId == row.WorkshopId && s.Id != row.Id && s.PutAwayAt == null).OrderBy(s => s.Rank).ThenBy(s => s.Name).ToListAsync(write.Stop);
        others.Insert(Math.Min(rank, others.Count), row);
        for (var i = 0; i < others.Count; i++)
            others[i].Rank = i;
    }
}
