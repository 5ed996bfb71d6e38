using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using CsvHelper;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;
using Lowfell.Server.Http;
using Lowfell.Server.Timetables;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Sessions;

/// <summary>The plan outside of Lowfell: as a calendar file (RFC 5545), under a secret address, and as a table.</summary>
internal static class Calendars
{
    private const string CalendarType = "text/calendar; charset=utf-8";
    private const int SecretBytes = 24, MostSaid = 30;

    public static void Map(RouteGroupBuilder group, IEndpointRouteBuilder app)
    {
        var secret = app.ServiceProvider.GetRequiredService<OwnSecret>();
        group.MapGet("/calendar.ics", File).WithName("calendarFile").WithSummary("The sessions of the plan that was taken over, as a calendar file.").Produces<string>(200, "text/calendar").ProducesProblem(404);
        group.MapGet("/plan.csv", Csv).WithName("planAsTable").WithSummary("Every operation of the plan in a line.").Produces<string>(200, "text/csv").ProducesProblem(404);
        group.MapGet("/address", Address).WithName("calendarAddress").WithSummary("Whether there is a secret address to subscribe to.").Produces<CalendarAddress>().ProducesProblem(404);
        group.MapPost("/address", MakeAddress).WithName("makeCalendarAddress").WithSummary("Makes a secret address to subscribe to, in place of the one before; it is told once.").Writes<CalendarTold, CalendarAddress>((told, _) => Task.FromResult(new CalendarAddress(true, null, $"/api/calendar/{SecretOf(secret, told.Id)}")));
        group.MapDelete("/address", Revoke).WithName("revokeCalendarAddress").WithSummary("The secret address works no longer.").WritesSilently();
        app.MapGet("/api/calendar/{secret}", Subscribed).WithTags("Time").WithName("subscribedCalendar").Produces<string>(200, "text/calendar").ProducesProblem(404);
    }

    private static async Task<IResult> File(Guid workshopId, LowfellDb db, SetGraphs graphs, TimeProvider time, CancellationToken stop) =>
        await Read(workshopId, db, graphs, time, stop) is var (reading, row) ? Results.Text(Write(reading, row), CalendarType) : Problems.NotFound("workshop");

    private static async Task<IResult> Subscribed(string secret, LowfellDb db, SetGraphs graphs, TimeProvider time, CancellationToken stop)
    {
        var hash = Hash(secret);
        return await db.CalendarAddresses.AsNoTracking().FirstOrDefaultAsync(a => a.SecretHash == hash && a.RevokedAt == null, stop) is { } address
            ? await File(address.WorkshopId, db, graphs, time, stop) : Problems.NotFound("calendar");
    }

    private static async Task<(SessionsReading Reading, TimetableRow? Row)?> Read(Guid workshopId, LowfellDb db, SetGraphs graphs, TimeProvider time, CancellationToken stop) =>
        await Planner.Read(workshopId, db, graphs, time.GetUtcNow(), stop) is var (planner, row) ? (await Task.Run(() => new SessionsReader(planner).Read(row), stop), row) : null;

    /// <summary>Sessions of a plan that was taken over; without one there is nothing to rely on, and the calendar is empty.</summary>
    private static string Write(SessionsReading reading, TimetableRow? row)
    {
        var calendar = new Ical.Net.Calendar { ProductId = "-//Lowfell//Sessions//EN" };
        if (row is null)
            return new CalendarSerializer().SerializeToString(calendar)!;
        // As it was taken over, also where it is out of date: what would be moved is not told to anybody before it is.
        var zone = reading.TimeZone;
        var kept = KeptPlan.Read(row.Plan);
        var known = reading.Sessions.SelectMany(s => s.Operations).ToDictionary(o => new KeyOf(o.ZoneId, o.LayerId, o.PieceId, o.Beforehand));
        if (kept.Sessions.Count > 0)
            calendar.AddTimeZone(VTimeZone.FromDateTimeZone(zone, kept.Sessions[0].Start.UtcDateTime.AddYears(-1), includeHistoricalData: false));
        foreach (var session in kept.Sessions)
        {
            var mine = kept.Operations.Where(o => o.Start >= session.Start && o.Start < session.End).ToList();
            calendar.Events.Add(new CalendarEvent
            {
                Uid = $"{session.Id}@lowfell",
                Sequence = row.Number,
                DtStamp = new CalDateTime(row.MadeAt.UtcDateTime, "UTC"),
                DtStart = new CalDateTime(session.Start.DateTime, zone),
                DtEnd = new CalDateTime(session.End.DateTime, zone),
                Summary = $"Bench: {mine.Count} to do, {Core.Words.Duration.Words(mine.Sum(o => (o.End - o.Start).TotalMinutes))}",
                Description = Say(mine, known),
            });
        }

        return new CalendarSerializer().SerializeToString(calendar)!;
    }

    private static string Say(List<KeptOperation> operations, Dictionary<KeyOf, PlannedOperation> known)
    {
        var lines = new List<string>();
        foreach (var kept in operations.Take(MostSaid))
            if (known.TryGetValue(new KeyOf(kept.Zone, kept.Line, kept.Pieces[0], kept.Beforehand), out var o))
                lines.Add($"{kept.Start:HH:mm} {o.Technique}{(o.Paint.Length > 0 ? $", {o.Paint}" : "")}: {o.Zone} on {o.Design} ({string.Join(", ", o.Pieces)}){Closes(kept, o)}");
        if (operations.Count > MostSaid)
            lines.Add($"and {operations.Count - MostSaid} more");
        return string.Join('\n', lines);
    }

    /// <summary>Its window, where it lies as it was planned.</summary>
    private static string Closes(KeptOperation kept, PlannedOperation o) =>
        o.ClosesAt is not { } closes || o.Start != kept.Start ? "" : $"; what follows by {(closes.Date == o.Start.Date ? "" : SessionsReader.Day(closes) + ", ")}{closes:HH:mm}";

    private static async Task<IResult> Csv(Guid workshopId, LowfellDb db, SetGraphs graphs, TimeProvider time, CancellationToken stop)
    {
        if (await Read(workshopId, db, graphs, time, stop) is not var (reading, _))
            return Problems.NotFound("workshop");
        using var text = new StringWriter(CultureInfo.InvariantCulture);
        await using (var csv = CsvText.Writer(text))
        {
            foreach (var head in new[] { "session", "start", "end", "painter", "set", "design", "zone", "pieces", "layer", "technique", "paint", "wet minutes", "what follows by" })
                csv.WriteField(head);
            await csv.NextRecordAsync();
            foreach (var (session, i) in reading.Sessions.Select((s, i) => (s, i)))
                foreach (var o in session.Operations)
                {
                    object[] fields = [i + 1, o.Start.ToString("O", CultureInfo.InvariantCulture), o.End.ToString("O", CultureInfo.InvariantCulture), reading.Painters.ElementAtOrDefault(o.Painter) ?? $"{o.Painter + 1}", o.Set, o.Design, o.Zone, string.Join(' ', o.Pieces), o.Number, o.Technique, o.Paint, o.WetMinutes, o.ClosesAt?.ToString("O", CultureInfo.InvariantCulture) ?? ""];
                    foreach (var field in fields)
                        csv.WriteField(Convert.ToString(field, CultureInfo.InvariantCulture));
                    await csv.NextRecordAsync();
                }
        }

        return Results.Text(text.ToString(), "text/csv; charset=utf-8");
    }

    private static async Task<IResult> Address(Guid workshopId, LowfellDb db, CancellationToken stop)
    {
        if (!await db.Workshops.AnyAsync(w => w.Id == workshopId, stop))
            return Problems.NotFound("workshop");
        var row = await db.CalendarAddresses.AsNoTracking().FirstOrDefaultAsync(a => a.WorkshopId == workshopId && a.RevokedAt == null, stop);
        return Results.Ok(new CalendarAddress(row is not null, row?.MadeAt, null));
    }

    private static async Task<Outcome<CalendarTold>> MakeAddress(Guid workshopId, Write write, OwnSecret secret)
    {
        if (!await Exists(workshopId, write))
            return Problems.NotFound("workshop");
        await Close(workshopId, write);
        write.Db.Add(new CalendarAddressRow { WorkshopId = workshopId, SecretHash = Hash(SecretOf(secret, write.Id)), MadeAt = write.Now });
        write.Says("Made a secret address for the calendar");
        await write.Save();
        return new CalendarTold(workshopId, write.Id);
    }

    private static async Task<Outcome<Nothing>> Revoke(Guid workshopId, Write write)
    {
        if (!await Exists(workshopId, write))
            return Problems.NotFound("workshop");
        await Close(workshopId, write);
        write.Says("Revoked the secret address of the calendar");
        await write.Save();
        return new Nothing();
    }

    private static async Task<bool> Exists(Guid workshopId, Write write)
    {
        await write.Hold<WorkshopRow>(workshopId);
        write.In(workshopId);
        return await write.Db.Workshops.AnyAsync(w => w.Id == workshopId, write.Stop);
    }

    private static async Task Close(Guid workshopId, Write write)
    {
        foreach (var row in await write.Db.CalendarAddresses.Where(a => a.WorkshopId == workshopId && a.RevokedAt == null).ToListAsync(write.Stop))
            row.RevokedAt = write.Now;
        await write.Save();
    }

    /// <summary>The secret that a write makes: worked out, so that it can be told again and stands nowhere but as a hash.</summary>
    private static string SecretOf(OwnSecret own, Guid id) => Convert.ToHexStringLower(own.Derived($"calendar {id}"))[..(2 * SecretBytes)];

    private static byte[] Hash(string secret) => SHA256.HashData(Encoding.UTF8.GetBytes(secret));
}
