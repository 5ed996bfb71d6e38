using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Lowfell.Store.Starter;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Workshops;

public sealed record SetEntry(Guid Id, string Name, int Scale);

public sealed record WorkshopEntry(Guid Id, string Name, decimal TemperatureC, decimal RelativeHumidity, uint Version, IReadOnlyList<SetEntry> Sets);

public sealed record WorkshopIn(string? Name, decimal? TemperatureC, decimal? RelativeHumidity);

/// <summary>Workshops and the sets on their benches.</summary>
public static class WorkshopEndpoints
{
    private const int MostWorkshops = 200;

    public static void MapWorkshops(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/workshops").WithTags("Workshops");
        group.MapGet("/", List).WithName("workshops");
        group.MapPost("/", Add).WithName("addWorkshop").Writes<WorkshopEntry>(StatusCodes.Status201Created);
    }

    private static async Task<Ok<IReadOnlyList<WorkshopEntry>>> List(LowfellDb db, CancellationToken stop)
    {
        var rows = await db.Workshops.AsNoTracking().Include(w => w.Sets.OrderBy(s => s.Name)).OrderBy(w => w.CreatedAt).Take(MostWorkshops).ToListAsync(stop);
        return TypedResults.Ok<IReadOnlyList<WorkshopEntry>>(rows.Select(Word).ToList());
    }

    private static async Task<Outcome<WorkshopEntry>> Add(WorkshopIn entry, Write write)
    {
        var faults = new Faults();
        faults.Text(entry.Name, "name", 120);
        faults.Range(entry.TemperatureC, "temperatureC", -10, 45);
        faults.Range(entry.RelativeHumidity, "relativeHumidity", 0, 1);
        faults.Require(await write.Db.Workshops.CountAsync(write.Stop) < MostWorkshops, "name", $"At most {MostWorkshops} workshops.");
        if (faults.Any)
            return faults.ToProblem();
        var row = new WorkshopRow
        {
            Name = entry.Name!.Trim(),
            CreatedAt = write.Now,
            TemperatureC = entry.TemperatureC ?? 20,
            RelativeHumidity = entry.RelativeHumidity ?? 0.5m,
        };
        write.In(row.Id);
        write.Db.Add(row);
        write.Db.AddRange(StarterShelf.Materials(row.Id));
        await write.Save();
        return Word(row);
    }

    private static WorkshopEntry Word(WorkshopRow w) => new(
        w.Id, w.Name, w.TemperatureC, w.RelativeHumidity, w.Version, w.Sets.Select(s => new SetEntry(s.Id, s.Name, s.Scale)).ToList());
}
