using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Workshops;

public sealed record SetEntry(Guid Id, string Name, int Scale);

public sealed record WorkshopEntry(Guid Id, string Name, decimal TemperatureC, decimal RelativeHumidity, bool AirMoves, string Currency, uint Version, IReadOnlyList<SetEntry> Sets);

/// <summary>A workshop as it is entered; what is left out of a change stays as it is. <paramref name="Version"/> is needed for a change.</summary>
public sealed record WorkshopIn(string? Name, decimal? TemperatureC, decimal? RelativeHumidity, string? Currency = null, uint? Version = null, bool? AirMoves = null);

/// <summary>What a change of a workshop comes to.</summary>
public sealed record WorkshopTold(Guid Id, uint Version);

/// <summary>Workshops and the sets on their benches.</summary>
public static class WorkshopEndpoints
{
    private const int MostCurrency = 8;

    public static void MapWorkshops(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/workshops").WithTags("Workshops");
        group.MapGet("/", List).WithName("workshops");
        group.MapPost("/", Add).WithName("addWorkshop").Writes<WorkshopEntry>(StatusCodes.Status201Created);
        group.MapPut("/{workshopId:guid}", Change).WithName("changeWorkshop").WithSummary("Its name, climate and currency.").Writes<WorkshopTold, WorkshopEntry>(Tell);
    }

    private static async Task<Ok<IReadOnlyList<WorkshopEntry>>> List(LowfellDb db, CancellationToken stop)
    {
        var rows = await WithSets(db).OrderBy(w => w.CreatedAt).Take(NewWorkshop.Most).ToListAsync(stop);
        return TypedResults.Ok<IReadOnlyList<WorkshopEntry>>(rows.Select(Word).ToList());
    }

    private static async Task<Outcome<WorkshopEntry>> Add(WorkshopIn entry, Write write)
    {
        var faults = new Faults();
        Check(entry, faults, named: true);
        faults.Require(await write.Db.Workshops.CountAsync(write.Stop) < NewWorkshop.Most, "name", $"At most {NewWorkshop.Most} workshops.");
        if (faults.Any)
            return faults.ToProblem();
        var row = new WorkshopRow
        {
            Name = entry.Name!.Trim(),
            CreatedAt = write.Now,
            TemperatureC = entry.TemperatureC ?? 20,
            RelativeHumidity = entry.RelativeHumidity ?? 0.5m,
            AirMoves = entry.AirMoves ?? false,
            Currency = entry.Currency?.Trim() ?? "",
        };
        NewWorkshop.Add(write, row);
        await write.Save();
        return Word(row);
    }

    private static void Check(WorkshopIn entry, Faults faults, bool named)
    {
        if (named || entry.Name is not null)
            faults.Text(entry.Name, "name", 120);
        faults.Range(entry.TemperatureC, "temperatureC", -10, 45);
        faults.Range(entry.RelativeHumidity, "relativeHumidity", 0, 1);
        faults.Text(entry.Currency, "currency", MostCurrency, needed: !string.IsNullOrWhiteSpace(entry.Currency));
    }

    private static async Task<Outcome<WorkshopTold>> Change(Guid workshopId, WorkshopIn entry, Write write)
    {
        if (await write.Db.Workshops.FirstOrDefaultAsync(w => w.Id == workshopId, write.Stop) is not { } row)
            return Problems.NotFound("workshop");
        write.In(workshopId);
        var faults = new Faults();
        Check(entry, faults, named: false);
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        if (faults.Any)
            return faults.ToProblem();
        if (row.Version != entry.Version)
            return Problems.Changed("workshop", Word(await WithSets(write.Db).FirstAsync(w => w.Id == workshopId, write.Stop)));
        row.Name = entry.Name?.Trim() ?? row.Name;
        row.TemperatureC = entry.TemperatureC ?? row.TemperatureC;
        row.RelativeHumidity = entry.RelativeHumidity ?? row.RelativeHumidity;
        row.AirMoves = entry.AirMoves ?? row.AirMoves;
        row.Currency = entry.Currency?.Trim() ?? row.Currency;
        await write.Save();
        return new WorkshopTold(row.Id, row.Version);
    }

    private static async Task<WorkshopEntry> Tell(WorkshopTold told, Telling telling) => Word(await WithSets(telling.Db).FirstAsync(w => w.Id == told.Id, telling.Stop));

    private static IQueryable<WorkshopRow> WithSets(LowfellDb db) => db.Workshops.AsNoTracking().Include(w => w.Sets.OrderBy(s => s.Name));

    private static WorkshopEntry Word(WorkshopRow w) => new(
        w.Id, w.Name, w.TemperatureC, w.RelativeHumidity, w.AirMoves, w.Currency, w.Version, w.Sets.Select(s => new SetEntry(s.Id, s.Name, s.Scale)).ToList());
}
