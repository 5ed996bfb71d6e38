using Lowfell.Server.Timetables;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Sessions;

/// <summary>The timetable that the demo begins with: wanted on the day it can just be had.</summary>
internal static class DemoPlan
{
    /// <summary>Lays out a demo that was just loaded.</summary>
    public static async Task Begin(IServiceProvider services)
    {
        var (db, now, stop) = (services.GetRequiredService<LowfellDb>(), services.GetRequiredService<TimeProvider>().GetUtcNow(), CancellationToken.None);
        var (workshop, set) = (await db.Workshops.Select(w => w.Id).SingleAsync(stop), await db.Sets.SingleAsync(stop));
        var (planner, _) = (await Read())!.Value;
        var made = planner.Best(planner.Terms);
        if (made.Table is not { } table)
            return;
        set.DueDate = DateOnly.FromDateTime(made.Bench.Instant(table.Outcome.Finish).DateTime);
        await db.SaveChangesAsync(stop);
        var (dated, _) = (await Read())!.Value;
        db.Add(new TimetableRow { WorkshopId = workshop, Number = 1, MadeAt = now, Why = "Made anew", Plan = Planner.Keep(made, new Manner(), null, _ => false).Write(), Inputs = dated.Inputs.Write() });
        await db.SaveChangesAsync(stop);

        // Read with eyes of its own: what is kept of the set must not be how it stood before it had a due date.
        Task<(Planner, TimetableRow?)?> Read() => Planner.Read(workshop, db, new SetGraphs(services.GetRequiredService<IDbContextFactory<LowfellDb>>()), now, stop);
    }
}
