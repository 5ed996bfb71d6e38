using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>The plan of a set as it is stored: a fixed number of queries however large it is, and no history.</summary>
public sealed class SetPlan
{
    public required WorkshopRow Workshop { get; init; }
    public required SetRow Set { get; init; }
    public required IReadOnlyList<DesignRow> Designs { get; init; }
    public required IReadOnlyDictionary<Guid, TreatmentRow> Treatments { get; init; }
    public required IReadOnlyDictionary<Guid, MixRow> Mixes { get; init; }

    /// <summary>Zones that touch each zone.</summary>
    public required ILookup<Guid, Guid> Touching { get; init; }

    /// <summary>Findings the painter lives with, by zone; those taken back are left out.</summary>
    public required ILookup<Guid, AcceptedFindingRow> Accepted { get; init; }

    /// <summary>Reads a set, of its layers only what changed since <paramref name="before"/>; null when there is none with this id.</summary>
    public static async Task<SetPlan?> Load(LowfellDb db, Guid setId, SetPlan? before, CancellationToken stop)
    {
        var set = await db.Sets.AsNoTracking().FirstOrDefaultAsync(s => s.Id == setId, stop);
        if (set is null)
            return null;
        var workshop = await db.Workshops.AsNoTracking().FirstAsync(w => w.Id == set.WorkshopId, stop);
        var designs = await db.Designs.AsNoTracking().Where(d => d.SetId == setId)
            .Include(d => d.Zones.OrderBy(z => z.Position)).Include(d => d.Pieces.OrderBy(p => p.Label))
            .OrderBy(d => d.Position).AsSplitQuery().ToListAsync(stop);
        var treatments = await Revisions.Newest(db, designs.SelectMany(d => d.Zones).Select(z => z.TreatmentId).Distinct().ToList(), before?.Treatments, stop);
        var mixIds = treatments.Values.SelectMany(t => t.Layers).Where(l => l.MixId != null).Select(l => l.MixId!.Value).Distinct().ToList();
        var mixes = await db.Mixes.AsNoTracking().Where(m => mixIds.Contains(m.Id)).Include(m => m.Components.OrderBy(c => c.Position)).ToDictionaryAsync(m => m.Id, stop);
        var zones = designs.SelectMany(d => d.Zones).Select(z => z.Id).ToList();
        var touches = await db.ZoneTouches.AsNoTracking().Where(t => zones.Contains(t.FirstZoneId)).ToListAsync(stop);
        var accepted = await db.AcceptedFindings.AsNoTracking().Where(a => zones.Contains(a.ZoneId) && a.TakenBackAt == null).ToListAsync(stop);
        return new SetPlan
        {
            Workshop = workshop,
            Set = set,
            Designs = designs,
            Treatments = treatments,
            Mixes = mixes,
            Touching = touches.SelectMany(t => new[] { (t.FirstZoneId, Other: t.SecondZoneId), (t.SecondZoneId, Other: t.FirstZoneId) }).ToLookup(t => t.Item1, t => t.Other),
            Accepted = accepted.ToLookup(a => a.ZoneId),
        };
    }
}
