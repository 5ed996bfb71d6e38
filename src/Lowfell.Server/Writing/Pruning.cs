using Lowfell.Server.Http;
using Lowfell.Store;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Writing;

/// <summary>Prunes receipts, old steps, old readings and what jobs came to a minute after the start, since a bench is open for an evening, and four times a day. Any number of servers may: each takes rows that no other is at.</summary>
internal sealed class Pruning(IDbContextFactory<LowfellDb> factory, SideTroubles troubles, TimeProvider clock, ILogger<Pruning> log) : SideService(troubles, clock, log)
{
    protected override string What => "Putting old things away";

    private static readonly TimeSpan first = TimeSpan.FromMinutes(1), every = TimeSpan.FromHours(6);

    /// <summary>Nothing waits for it.</summary>
    protected override TimeSpan Pause => TimeSpan.FromMinutes(1);

    protected override async Task Run(CancellationToken stop)
    {
        using var timer = new PeriodicTimer(first, Clock);
        while (await timer.WaitForNextTickAsync(stop))
        {
            timer.Period = every;
            await using var db = await factory.CreateDbContextAsync(stop);
            var now = Clock.GetUtcNow();
            await Receipts.Prune(db, now, stop);
            await Receipts.Forget(db, now, stop);
            await OldJobs.Prune(db, now, stop);
            await OldSteps.Prune(db, now, stop);
            await OldReadings.Prune(db, now, stop);
            await OldKeys.Prune(db, now, stop);
            Well();
        }
    }
}
