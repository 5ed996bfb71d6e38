using Lowfell.Store;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Lowfell.Server.Writing;

/// <summary>Prunes receipts, old steps, old readings and what jobs came to a minute after the start, since a bench is open for an evening, and four times a day. Any number of servers may: each takes rows that no other is at.</summary>
internal sealed class Pruning(IDbContextFactory<LowfellDb> factory, TimeProvider clock, ILogger<Pruning> log) : BackgroundService
{
    private static readonly TimeSpan first = TimeSpan.FromMinutes(1), every = TimeSpan.FromHours(6);

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        using var timer = new PeriodicTimer(first, clock);
        while (await timer.WaitForNextTickAsync(stoppingToken))
        {
            timer.Period = every;
            try
            {
                await using var db = await factory.CreateDbContextAsync(stoppingToken);
                await Receipts.Prune(db, clock.GetUtcNow(), stoppingToken);
                await OldJobs.Prune(db, clock.GetUtcNow(), stoppingToken);
                await OldSteps.Prune(db, clock.GetUtcNow(), stoppingToken);
                await OldReadings.Prune(db, clock.GetUtcNow(), stoppingToken);
            }
            catch (Exception away) when (away is NpgsqlException or InvalidOperationException)
            {
                // The next round will do; nothing waits for this one.
                log.LogWarning("Nothing was pruned: {Why}", away.Message);
            }
        }
    }
}
