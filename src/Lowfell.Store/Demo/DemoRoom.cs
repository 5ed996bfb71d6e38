using System.Security.Cryptography;
using Lowfell.Core.Instruments;
using Lowfell.Store.Rows;

namespace Lowfell.Store.Demo;

/// <summary>
/// The air of the demo's evenings before yesterday, as a room sensor measured it: the stand-in plays it. The sensor has been off since, and so
/// the air counts as it was typed.
/// </summary>
internal sealed class DemoRoom(LowfellDb db, Guid workshop, DateTimeOffset now)
{
    private const int Seed = 11, EveryMinutes = 10;
    private const double FirstDaysAgo = 12, LastDaysAgo = 1.5;

    public async Task Load(CancellationToken stop)
    {
        var play = new StandInClimate(Seed);
        var sensor = new PairedDeviceRow { WorkshopId = workshop, Name = "Shelf sensor", Role = DeviceRole.Measure, TokenHash = RandomNumberGenerator.GetBytes(32), PairedAt = now.AddDays(-FirstDaysAgo), SeenAt = now.AddDays(-LastDaysAgo) };
        db.Add(sensor);
        await db.SaveChangesAsync(stop);
        for (var at = now.AddDays(-FirstDaysAgo); at < now.AddDays(-LastDaysAgo); at = at.AddMinutes(EveryMinutes))
        {
            var said = play.At(at);
            db.Add(new ReadingRow { WorkshopId = workshop, DeviceId = sensor.Id, At = at, TemperatureC = Math.Round(said.TemperatureC, 2), RelativeHumidity = Math.Round(said.RelativeHumidity, 3) });
        }

        await db.SaveChangesAsync(stop);
    }
}
