using Lowfell.Core.Drying;
using Lowfell.Core.Instruments;
using Lowfell.Core.Words;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Instruments;

/// <summary>Words the instruments of a workshop as they are now.</summary>
internal sealed class InstrumentsReader(WorkshopRow workshop, LowfellDb db, DateTimeOffset now, CancellationToken stop)
{
    /// <summary>A scale that said nothing for so long is not looked at.</summary>
    private static readonly TimeSpan scaleFresh = TimeSpan.FromSeconds(10);

    /// <summary>An instrument that was quiet for the night was switched off, which is no trouble.</summary>
    private static readonly TimeSpan switchedOff = TimeSpan.FromHours(12);

    private const int WeightsAtOnce = 50;

    public async Task<InstrumentsReading> Read()
    {
        var devices = await db.PairedDevices.AsNoTracking().Where(d => d.WorkshopId == workshop.Id && d.Role == DeviceRole.Measure && d.SentAwayAt == null).ToListAsync(stop);
        var typed = new Climate((double)workshop.TemperatureC, (double)workshop.RelativeHumidity, workshop.AirMoves);
        if (devices.Count == 0)
            return new InstrumentsReading(workshop.Id, now, new Air(typed.TemperatureC, typed.RelativeHumidity, "", null), null, []);
        return new InstrumentsReading(workshop.Id, now, await Air(devices, typed), await Scale(devices), await Troubles(devices));
    }

    private async Task<Air> Air(List<PairedDeviceRow> devices, Climate typed)
    {
        var room = await RoomBook.Read(db, workshop.Id, typed, now - Room.Fresh, stop);
        if (room.Newest(now) is not { } newest)
            return new Air(typed.TemperatureC, typed.RelativeHumidity, "", null);
        var by = await RoomBook.Measured(db, workshop.Id).Where(r => r.At == newest.At).Select(r => r.DeviceId).FirstOrDefaultAsync(stop);
        var air = room.At(now);
        return new Air(Math.Round(air.TemperatureC, 2), Math.Round(air.RelativeHumidity, 3), devices.FirstOrDefault(d => d.Id == by)?.Name ?? "", newest.At);
    }

    private async Task<OnScale?> Scale(List<PairedDeviceRow> devices)
    {
        var since = now - scaleFresh;
        var rows = await db.Readings.AsNoTracking().Where(r => r.WorkshopId == workshop.Id && r.Grams != null && r.At >= since).OrderByDescending(r => r.At).Take(WeightsAtOnce).Select(r => new { r.DeviceId, r.At, Grams = r.Grams!.Value }).ToListAsync(stop);

        // Of two scales, the one that spoke last.
        if (rows.Count == 0 || devices.FirstOrDefault(d => d.Id == rows[0].DeviceId) is not { } by)
            return null;
        var said = rows.Where(r => r.DeviceId == by.Id).Reverse().Select(r => new ScaleReading(r.At, r.Grams)).ToList();
        return Weighing.Of(said) is { } rest ? new OnScale(Math.Round(rest.Grams, 3), true, by.Name, said[^1].At) : new OnScale(said[^1].Grams, false, by.Name, said[^1].At);
    }

    private async Task<List<InstrumentTrouble>> Troubles(List<PairedDeviceRow> devices)
    {
        var ids = devices.Select(d => d.Id).ToList();
        var heard = await db.Readings.AsNoTracking().Where(r => ids.Contains(r.DeviceId) && r.TemperatureC != null).GroupBy(r => r.DeviceId).Select(g => new { g.Key, At = g.Max(r => r.At) }).ToDictionaryAsync(g => g.Key, g => g.At, stop);
        var found = new List<InstrumentTrouble>();
        foreach (var device in devices)
        {
            if (device.TroubleAt is { } wrong && now - wrong < Room.Fresh)
                found.Add(new(device.Id, device.Name, $"{device.Name} sends what cannot be, and is ignored: {device.Trouble}", wrong));
            else if (heard.TryGetValue(device.Id, out var at) && now - at is var quiet && quiet > Room.Fresh && quiet < switchedOff)
                found.Add(new(device.Id, device.Name, $"{device.Name} has been silent for {Duration.Words(quiet.TotalMinutes)}: the air counts as it was typed.", at));
        }

        return found;
    }
}
