using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Sessions;
using Lowfell.Server.Http;
using Lowfell.Server.Stacks;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Workshops;

public sealed record SetEntry(Guid Id, string Name, int Scale);

public sealed record WorkshopEntry(
    Guid Id, string Name, decimal TemperatureC, decimal RelativeHumidity, bool AirMoves, string Currency, uint Version, IReadOnlyList<SetEntry> Sets,
    decimal TableMetres, Handling Handling, Sheen TargetSheen, string TimeZone, IReadOnlyList<string> Painters, bool Inches, DateTimeOffset? PutAwayAt, string Hours, int? DryingPlaces);

/// <summary>A workshop as it is entered; what is left out of a change stays as it is, and 0 drying places are room for all. <paramref name="Version"/> is needed for a change.</summary>
public sealed record WorkshopIn(
    string? Name, decimal? TemperatureC, decimal? RelativeHumidity, string? Currency = null, uint? Version = null, bool? AirMoves = null,
    decimal? TableMetres = null, Handling? Handling = null, Sheen? TargetSheen = null, string? TimeZone = null, IReadOnlyList<string?>? Painters = null, bool? Inches = null, string? Hours = null,
    int? DryingPlaces = null);

/// <summary>What a change of a workshop comes to.</summary>
public sealed record WorkshopTold(Guid Id, uint Version);

/// <summary>Workshops and the sets on their benches.</summary>
public static class WorkshopEndpoints
{
    private const int LongestHours = 300, MostCurrency = 8, MostPainters = 4, LongestInitials = 4;

    public static void MapWorkshops(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/workshops").WithTags("Workshops");
        group.MapGet("/", List).WithName("workshops");
        group.MapPost("/", Add).WithName("addWorkshop").Writes<WorkshopEntry>(StatusCodes.Status201Created);
        group.MapPut("/{workshopId:guid}", Change).WithName("changeWorkshop").WithSummary("Its name, climate, currency, painters, time zone, units, and what a new set begins with.").Writes<WorkshopTold, WorkshopEntry>(Tell);
        group.MapPost("/{workshopId:guid}/put-away", PutAway).WithName("putAwayWorkshop").WithSummary("Takes a workshop out of the lists; everything in it stays, and it can be brought back.").Writes<WorkshopTold, WorkshopEntry>(Tell);
        group.MapPost("/{workshopId:guid}/bring-back", BringBack).WithName("bringBackWorkshop").Writes<WorkshopTold, WorkshopEntry>(Tell);
    }

    private static async Task<Ok<IReadOnlyList<WorkshopEntry>>> List(LowfellDb db, CancellationToken stop)
    {
        var rows = await WithSets(db).OrderBy(w => w.PutAwayAt != null).ThenBy(w => w.CreatedAt).Take(NewWorkshop.Most).ToListAsync(stop);
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
            TableMetres = entry.TableMetres ?? 0.9m,
            Handling = entry.Handling ?? Handling.Careful,
            TargetSheen = entry.TargetSheen ?? Sheen.Matt,
            TimeZone = entry.TimeZone?.Trim() ?? "UTC",
            Painters = entry.Painters?.Select(p => p!.Trim()).ToArray() ?? [],
            Inches = entry.Inches ?? false,
            Hours = Hours(entry.Hours) ?? "",
            DryingPlaces = entry.DryingPlaces is > 0 ? entry.DryingPlaces : null,
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
        faults.Range(entry.TableMetres, "tableMetres", 0.1m, 10);
        faults.Require(entry.TimeZone is null || TimeZoneInfo.TryFindSystemTimeZoneById(entry.TimeZone.Trim(), out _), "timeZone", "Give a time zone by its name, for example Europe/London.");
        if (!string.IsNullOrWhiteSpace(entry.Hours) && BenchHours.Read(entry.Hours, out var wrong) is null)
            faults.Add("hours", wrong);
        faults.Require(entry.Hours is null || entry.Hours.Length <= LongestHours, "hours", $"Say the hours in at most {LongestHours} characters.");
        faults.Range(entry.DryingPlaces, "dryingPlaces", 0, 500);
        faults.Require(entry.Painters is null || entry.Painters.Count <= MostPainters, "painters", $"At most {MostPainters} painters.");
        for (var i = 0; i < Math.Min(entry.Painters?.Count ?? 0, MostPainters); i++)
        {
            faults.Text(entry.Painters![i], $"painters[{i}]", LongestInitials);
            faults.Require(entry.Painters.Take(i).All(p => p?.Trim() != entry.Painters[i]?.Trim()), $"painters[{i}]", "Give every painter initials of their own.");
        }
    }

    /// <summary>Hours said one way; empty takes the usual ones again.</summary>
    private static string? Hours(string? text) => text is null ? null : string.IsNullOrWhiteSpace(text) ? "" : BenchHours.Read(text, out _)!.ToString();

    private static async Task<Outcome<WorkshopTold>> Change(Guid workshopId, WorkshopIn entry, Write write)
    {
        await write.Hold<WorkshopRow>(workshopId);
        if (await write.Db.Workshops.FirstOrDefaultAsync(w => w.Id == workshopId, write.Stop) is not { } row)
            return Problems.NotFound("workshop");
        write.In(workshopId);
        var faults = new Faults();
        Check(entry, faults, named: false);
        faults.Require(entry.Version is not null, "version", "Give the version you edited from.");
        if (faults.Any)
            return faults.ToProblem();
        write.Says(entry.Name is { } renamed && renamed.Trim() != row.Name ? $"Renamed the workshop {row.Name} to {renamed.Trim()}" : entry.TemperatureC is not null || entry.RelativeHumidity is not null || entry.AirMoves is not null ? "Changed the air at the bench" : $"Changed the facts of {row.Name}");
        row.Name = entry.Name?.Trim() ?? row.Name;
        row.TemperatureC = entry.TemperatureC ?? row.TemperatureC;
        row.RelativeHumidity = entry.RelativeHumidity ?? row.RelativeHumidity;
        row.AirMoves = entry.AirMoves ?? row.AirMoves;
        row.Currency = entry.Currency?.Trim() ?? row.Currency;
        row.TableMetres = entry.TableMetres ?? row.TableMetres;
        row.Handling = entry.Handling ?? row.Handling;
        row.TargetSheen = entry.TargetSheen ?? row.TargetSheen;
        row.TimeZone = entry.TimeZone?.Trim() ?? row.TimeZone;
        if (entry.Painters is not null)
            row.Painters = entry.Painters.Select(p => p!.Trim()).ToArray();
        row.Inches = entry.Inches ?? row.Inches;
        row.Hours = Hours(entry.Hours) ?? row.Hours;
        row.DryingPlaces = entry.DryingPlaces is null ? row.DryingPlaces : entry.DryingPlaces == 0 ? null : entry.DryingPlaces;
        if (!await write.Fits(row, entry.Version))
            return Problems.Changed("workshop", Word(await WithSets(write.Db).FirstAsync(w => w.Id == workshopId, write.Stop)));
        await write.Save();
        return new WorkshopTold(row.Id, row.Version);
    }

    private static Task<Outcome<WorkshopTold>> PutAway(Guid workshopId, Write write) => Away(workshopId, write, write.Now);

    private static Task<Outcome<WorkshopTold>> BringBack(Guid workshopId, Write write) => Away(workshopId, write, null);

    private static async Task<Outcome<WorkshopTold>> Away(Guid workshopId, Write write, DateTimeOffset? at)
    {
        if (await write.Db.Workshops.FirstOrDefaultAsync(w => w.Id == workshopId, write.Stop) is not { } row)
            return Problems.NotFound("workshop");
        write.In(workshopId);
        write.Says(at is null ? $"Brought the workshop {row.Name} back" : $"Put the workshop {row.Name} away");
        row.PutAwayAt = at;
        await write.Save();
        return new WorkshopTold(row.Id, row.Version);
    }

    private static async Task<WorkshopEntry> Tell(WorkshopTold told, Telling telling) => Word(await WithSets(telling.Db).FirstAsync(w => w.Id == told.Id, telling.Stop));

    private static IQueryable<WorkshopRow> WithSets(LowfellDb db) => db.Workshops.AsNoTracking().Include(w => w.Sets.Where(s => s.PutAwayAt == null).OrderBy(s => s.Rank).ThenBy(s => s.Name));

    private static WorkshopEntry Word(WorkshopRow w) => new(
        w.Id, w.Name, w.TemperatureC, w.RelativeHumidity, w.AirMoves, w.Currency, w.Version, w.Sets.Select(s => new SetEntry(s.Id, s.Name, s.Scale)).ToList(),
        w.TableMetres, w.Handling, w.TargetSheen, w.TimeZone, w.Painters, w.Inches, w.PutAwayAt, w.Hours, w.DryingPlaces);
}
