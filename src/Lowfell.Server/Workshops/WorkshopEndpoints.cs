using Lowfell.Server.Http;
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
        group.MapPost("/", Add).WithName("addWorkshop").ProducesProblem(400).AddEndpointFilter<IdempotencyFilter>();
    }

    private static async Task<Ok<IReadOnlyList<WorkshopEntry>>> List(LowfellDb db, CancellationToken stop)
    {
        var rows = await db.Workshops.AsNoTracking().Include(w => w.Sets.OrderBy(s => s.Name)).OrderBy(w => w.CreatedAt).Take(MostWorkshops).ToListAsync(stop);
        return TypedResults.Ok<IReadOnlyList<WorkshopEntry>>(rows.Select(Word).ToList());
    }

    private static async Task<Results<Created<WorkshopEntry>, ProblemHttpResult>> Add(WorkshopIn entry, LowfellDb db, TimeProvider clock, CancellationToken stop)
    {
        var faults = new Faults();
        faults.Text(entry.Name, "name", 120);
        faults.Range(entry.TemperatureC, "temperatureC", -10, 45);
        faults.Range(entry.RelativeHumidity, "relativeHumidity", 0, 1);
        faults.Require(await db.Workshops.CountAsync(stop) < MostWorkshops, "name", $"At most {MostWorkshops} workshops.");
        if (faults.Any)
            return faults.ToProblem();
        var row = new WorkshopRow
        {
            Name = entry.Name!.Trim(),
            CreatedAt = clock.GetUtcNow(),
            TemperatureC = entry.TemperatureC ?? 20,
            RelativeHumidity = entry.RelativeHumidity ?? 0.5m,
        };
        db.Add(row);
        db.AddRange(StarterShelf.Materials(row.Id));
        await db.SaveChangesAsync(stop);
        return TypedResults.Created($"/api/workshops/{row.Id}", Word(row));
    }

    private static WorkshopEntry Word(WorkshopRow w) => new(
        w.Id, w.Name, w.TemperatureC, w.RelativeHumidity, w.Version, w.Sets.Select(s => new SetEntry(s.Id, s.Name, s.Scale)).ToList());
}
