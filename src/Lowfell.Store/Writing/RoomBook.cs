using Lowfell.Core.Drying;
using Lowfell.Core.Instruments;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>The air at the bench as instruments measured it.</summary>
public static class RoomBook
{
    private const int Most = 20_000;

    /// <summary>The air since an instant: as measured where that is fresh, as typed otherwise.</summary>
    public static async Task<Room> Read(LowfellDb db, Guid workshop, Climate typed, DateTimeOffset since, CancellationToken stop) => new(
        typed,
        (await Measured(db, workshop).Where(r => r.At >= since).OrderByDescending(r => r.At).Take(Most).Select(r => new { r.At, C = r.TemperatureC!.Value, Humidity = r.RelativeHumidity!.Value }).ToListAsync(stop))
            .Select(r => new ClimateReading(r.At, r.C, r.Humidity)));

    /// <summary>Readings of the air, of instruments that were not sent away.</summary>
    public static IQueryable<ReadingRow> Measured(LowfellDb db, Guid workshop) =>
        db.Readings.AsNoTracking().Where(r => r.WorkshopId == workshop && r.TemperatureC != null && db.PairedDevices.Any(d => d.Id == r.DeviceId && d.SentAwayAt == null));
}
