using Lowfell.Core.Instruments;
using Lowfell.Core.Mixing.Measures;
using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Instruments;

/// <summary>Room sensors and scales: what they say, and what that comes to.</summary>
public static class InstrumentsEndpoints
{
    private const int MostReadings = 500, MostParts = 12;
    private const double MostMl = 5000;

    public static void MapInstruments(this IEndpointRouteBuilder app)
    {
        var group = app.MapGroup("/api/instruments").WithTags("Instruments");
        group.MapPost("/readings", Take).WithName("sendReadings").WithSummary("Readings of a paired instrument, which shows its secret as a bearer token.").Writes<ReadingsTold>().ProducesProblem(401).For(DeviceRole.Measure);
        group.MapGet("/{workshopId:guid}", Of).WithName("instruments").WithSummary("The air as it counts now, what lies on the scale, and instruments that are in trouble.").ProducesProblem(404).For(DeviceRole.Look, DeviceRole.Work);
        group.MapPost("/{workshopId:guid}/pour", Pour).WithName("pour").WithSummary("What to pour next of a mix, from what lies on the scale. Nothing is stored.").ProducesProblem(400).ProducesProblem(404).For(DeviceRole.Look, DeviceRole.Work);
    }

    private static async Task<Outcome<ReadingsTold>> Take(ReadingsIn entry, Write write, HttpContext http)
    {
        if (http.DeviceOf() is not { Role: DeviceRole.Measure } device)
            return Elsewhere.NotPaired();
        var readings = entry.Readings ?? [];
        var faults = new Faults();
        faults.Require(readings.Count is > 0 and <= MostReadings, "readings", $"Send from 1 to {MostReadings} readings at a time, the oldest first.");
        for (var i = 0; i < Math.Min(readings.Count, MostReadings); i++)
            faults.Require(readings[i] is { TemperatureC: not null, RelativeHumidity: not null, Grams: null } or { TemperatureC: null, RelativeHumidity: null, Grams: not null }, $"readings[{i}]", "Give temperatureC and relativeHumidity, or grams.");
        if (faults.Any)
            return faults.ToProblem();
        write.In(device.WorkshopId);
        var last = (await write.Db.Readings.AsNoTracking().Where(r => r.DeviceId == device.Id && r.TemperatureC != null).OrderByDescending(r => r.At).Select(r => new { r.At, C = r.TemperatureC!.Value, Humidity = r.RelativeHumidity!.Value }).FirstOrDefaultAsync(write.Stop)) is { } found
            ? new ClimateReading(found.At, found.C, found.Humidity) : (ClimateReading?)null;
        var (taken, why) = (0, "");
        foreach (var r in readings)
        {
            var at = (r!.At ?? write.Now).ToUniversalTime();
            string? wrong;
            if (r.Grams is { } grams)
                wrong = Plausible.Grams(new(at, grams), write.Now);
            else if ((wrong = Plausible.Climate(new(at, r.TemperatureC!.Value, r.RelativeHumidity!.Value), last, write.Now)) is null)
                last = new(at, r.TemperatureC.Value, r.RelativeHumidity.Value);
            if (wrong is not null)
            {
                why = wrong;
                continue;
            }

            taken++;
            write.Db.Add(new ReadingRow { WorkshopId = device.WorkshopId, DeviceId = device.Id, At = at, TemperatureC = r.TemperatureC, RelativeHumidity = r.RelativeHumidity, Grams = r.Grams });
        }

        // Not a change of the plan or the list: whoever looks at instruments asks often anyway.
        if (why.Length > 0)
            await write.Db.PairedDevices.Where(d => d.Id == device.Id).ExecuteUpdateAsync(s => s.SetProperty(d => d.Trouble, why).SetProperty(d => d.TroubleAt, write.Now), write.Stop);
        await write.Save();
        return new ReadingsTold(device.WorkshopId, taken, readings.Count - taken, why);
    }

    private static async Task<Results<Ok<InstrumentsReading>, ProblemHttpResult>> Of(Guid workshopId, LowfellDb db, TimeProvider time, CancellationToken stop) =>
        await db.Workshops.AsNoTracking().FirstOrDefaultAsync(w => w.Id == workshopId, stop) is { } workshop
            ? TypedResults.Ok(await new InstrumentsReader(workshop, db, time.GetUtcNow(), stop).Read()) : Problems.NotFound("workshop");

    private static async Task<Results<Ok<PourSays>, ProblemHttpResult>> Pour(Guid workshopId, PourIn entry, LowfellDb db, CancellationToken stop)
    {
        var (faults, entries) = (new Faults(), entry.Parts ?? []);
        faults.Require(entries.Count is > 0 and <= MostParts, "parts", $"Say what is mixed: from 1 to {MostParts} materials.");
        faults.Require(entry.Ml is > 0 and <= MostMl, "ml", $"Say how much is wanted, ml above 0, at most {MostMl:0}.");
        var ids = entries.Select(p => p?.MaterialId).OfType<Guid>().ToList();
        var materials = await db.Materials.AsNoTracking().Where(m => m.WorkshopId == workshopId && ids.Contains(m.Id)).ToDictionaryAsync(m => m.Id, stop);
        for (var i = 0; i < Math.Min(entries.Count, MostParts); i++)
        {
            faults.Require(entries[i]?.MaterialId is { } id && materials.ContainsKey(id), $"parts[{i}].materialId", "This material is not on the shelf. Choose one that is.");
            faults.Require(entries[i]?.Parts is > 0 and < 1e6, $"parts[{i}].parts", "Give its share in parts, above 0.");
            faults.Require(entries[i]?.Grams is null or (>= -Plausible.MostGrams and <= Plausible.MostGrams), $"parts[{i}].grams", $"Give the grams poured, at most {Plausible.MostGrams:0}.");
        }

        if (faults.Any)
            return faults.ToProblem();
        var parts = entries.Select(p => materials[p!.MaterialId!.Value]).Select((m, i) => new PourPart(
            entries[i]!.Parts!.Value, (double)(m.DropMl ?? UsualMeasures.DropMl), (double)(m.DensityGPerMl ?? UsualMeasures.UsualDensity(m.Kind, m.Carrier)))).ToList();
        var grams = entries.Select(p => Math.Max(0, p!.Grams ?? 0)).ToList();
        var next = PourByWeight.Next(parts, grams, entry.Ml!.Value);
        return TypedResults.Ok(new PourSays(
            next.Part < 0 ? null : entries[next.Part]!.MaterialId, next.Drops, Math.Round(next.WorstShare, 4),
            parts.Select((p, i) => new PouredPart(entries[i]!.MaterialId!.Value, Math.Round(grams[i] / p.DensityGPerMl, 4), Math.Round(grams[i] / p.DensityGPerMl / p.DropMl, 1), materials[entries[i]!.MaterialId!.Value].DensityGPerMl is null)).ToList()));
    }
}
