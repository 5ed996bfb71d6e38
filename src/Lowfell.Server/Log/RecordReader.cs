using Lowfell.Core.Sessions;
using Lowfell.Server.Http;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Log;

/// <summary>Words what is kept of a set on paper.</summary>
internal static class RecordReader
{
    private const int MostPots = 1000, MostTrials = 200;

    public static async Task<Results<Ok<RecordReading>, ProblemHttpResult>> Of(Guid setId, LowfellDb db, CancellationToken stop)
    {
        if (await db.Sets.Where(s => s.Id == setId).Select(s => db.Workshops.Where(w => w.Id == s.WorkshopId).Select(w => w.TimeZone).First()).FirstOrDefaultAsync(stop) is not { } timeZone)
            return Problems.NotFound("set");
        var zones = await db.Zones.AsNoTracking().Where(z => db.Designs.Any(d => d.Id == z.DesignId && d.SetId == setId)).Select(z => new { z.Id, z.Name, Design = db.Designs.Where(d => d.Id == z.DesignId).Select(d => d.Name).First() }).ToDictionaryAsync(z => z.Id, z => $"{z.Name}, {z.Design}", stop);
        var ids = zones.Keys.ToList();
        var stands = db.WorkEvents.AsNoTracking().Where(e => e.ZoneId != null && ids.Contains(e.ZoneId.Value) && e.Kind != WorkKind.TakenBack && !db.WorkEvents.Any(u => u.UndoesId == e.Id));
        var done = await stands.Where(e => e.Kind == WorkKind.Given).Select(e => new { e.At, e.Actor, e.PotId, e.ZoneId, Minutes = db.TakenTimes.Where(t => t.EventId == e.Id && t.Counts).Sum(t => t.Minutes) }).ToListAsync(stop);
        var trials = await db.Trials.AsNoTracking().Where(t => ids.Contains(t.ZoneId) && t.Chosen != "").OrderBy(t => t.CreatedAt).Take(MostTrials).Select(t => new { t.Id, t.Name, t.ZoneId, t.CreatedAt }).ToListAsync(stop);
        var clock = TimeZoneInfo.FindSystemTimeZoneById(timeZone);
        return TypedResults.Ok(new RecordReading(
            setId, timeZone, done.Count == 0 ? null : done.Min(d => d.At), done.Count == 0 ? null : done.Max(d => d.At), done.Select(d => Evenings.Of(d.At, clock)).Distinct().Count(), Math.Round((double)done.Sum(d => d.Minutes) / 60, 1),
            done.Select(d => d.Actor).Distinct().Order(StringComparer.Ordinal).ToList(),
            await Pots(db, done.Where(d => d.PotId is not null).ToLookup(d => d.PotId!.Value, d => zones[d.ZoneId!.Value]), stop),
            trials.Select(t => new RecordTrial(t.Id, t.Name, zones[t.ZoneId], t.CreatedAt)).ToList()));
    }

    /// <summary>What was put into each pot together, mixed and topped up; what was taken back does not count.</summary>
    private static async Task<List<RecordPot>> Pots(LowfellDb db, ILookup<Guid, string> usedOn, CancellationToken stop)
    {
        var ids = usedOn.Select(u => u.Key).ToList();
        var put = await (
            from e in db.WorkEvents.AsNoTracking()
            where e.PotId != null && ids.Contains(e.PotId.Value) && (e.Kind == WorkKind.Made || e.Kind == WorkKind.ToppedUp) && !db.WorkEvents.Any(u => u.UndoesId == e.Id)
            from a in e.Amounts
            join m in db.Materials on a.MaterialId equals m.Id
            orderby e.Sequence, a.MaterialId
            select new { Pot = e.PotId!.Value, e.At, e.Actor, m.Name, a.Ml, a.Drops }).ToListAsync(stop);
        var labels = await db.Pots.AsNoTracking().Where(p => ids.Contains(p.Id)).Select(p => new { p.Id, p.Label }).ToDictionaryAsync(p => p.Id, p => p.Label, stop);
        return put.GroupBy(p => p.Pot).Take(MostPots).Select(g => new RecordPot(
            g.Key, labels[g.Key], g.First().At, g.First().Actor,
            g.GroupBy(p => p.Name).Select(p => new RecordPart(p.Key, p.Sum(x => x.Ml), p.All(x => x.Drops is not null) ? p.Sum(x => x.Drops) : null)).ToList(),
            usedOn[g.Key].Distinct().Order(StringComparer.Ordinal).ToList())).OrderBy(p => p.MadeAt).ToList();
    }
}
