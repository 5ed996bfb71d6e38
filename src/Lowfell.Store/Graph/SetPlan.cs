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

    /// <summary>Zones of other sets that take a surface of this one, in words, by surface: an edit here is an edit there.</summary>
    public required ILookup<Guid, string> SharedElsewhere { get; init; }

    /// <summary>"Brick field on Lock-wall straight", of every zone there ever was, those put away too: what was done there still tells where.</summary>
    public required IReadOnlyDictionary<Guid, string> ZoneNames { get; init; }

    /// <summary>Labels of every piece, those put away too.</summary>
    public required IReadOnlyDictionary<Guid, string> PieceLabels { get; init; }

    /// <summary>Zones that touch each zone.</summary>
    public required ILookup<Guid, Guid> Touching { get; init; }

    /// <summary>Layers left out for want of time, by treatment, first left out first.</summary>
    public required ILookup<Guid, LayerRow> LeftOut { get; init; }

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
        var zoneNames = designs.SelectMany(d => d.Zones.Select(z => (z.Id, Name: $"{z.Name} on {d.Name}"))).ToDictionary(z => z.Id, z => z.Name);
        var pieceLabels = designs.SelectMany(d => d.Pieces).ToDictionary(p => p.Id, p => p.Label);
        LeavePutAway(designs);
        var treatments = await Revisions.Newest(db, designs.SelectMany(d => d.Zones).Select(z => z.TreatmentId).Distinct().ToList(), before?.Treatments, stop);
        var ids = treatments.Keys.ToList();
        var elsewhere = await (
            from z in db.Zones
            join d in db.Designs on z.DesignId equals d.Id
            join s in db.Sets on d.SetId equals s.Id
            where ids.Contains(z.TreatmentId) && s.Id != setId && z.PutAwayAt == null && d.PutAwayAt == null && s.PutAwayAt == null
            orderby s.Rank, d.Position, z.Position
            select new { z.SurfaceId, Name = $"{d.Name}, {z.Name} ({s.Name})" }).ToListAsync(stop);
        var mixes = await Revisions.Mixes(db, treatments.Values.SelectMany(t => t.Layers), stop);
        var zones = designs.SelectMany(d => d.Zones).Select(z => z.Id).ToList();
        var touches = await db.ZoneTouches.AsNoTracking().Where(t => zones.Contains(t.FirstZoneId)).ToListAsync(stop);
        var accepted = await db.AcceptedFindings.AsNoTracking().Where(a => zones.Contains(a.ZoneId) && a.TakenBackAt == null).ToListAsync(stop);
        var leftOut = await (
            from l in db.LeftOut
            join layer in db.Layers.AsNoTracking().Include(x => x.Over) on l.LayerId equals layer.Id
            where ids.Contains(l.TreatmentId)
            orderby l.At
            select layer).ToListAsync(stop);
        return new SetPlan
        {
            Workshop = workshop,
            Set = set,
            Designs = designs,
            Treatments = treatments,
            Mixes = mixes,
            SharedElsewhere = elsewhere.ToLookup(e => e.SurfaceId, e => e.Name),
            ZoneNames = zoneNames,
            PieceLabels = pieceLabels,
            Touching = touches.SelectMany(t => new[] { (t.FirstZoneId, Other: t.SecondZoneId), (t.SecondZoneId, Other: t.FirstZoneId) }).ToLookup(t => t.Item1, t => t.Other),
            Accepted = accepted.ToLookup(a => a.ZoneId),
            LeftOut = leftOut.ToLookup(l => l.TreatmentId),
        };
    }

    /// <summary>What is put away has no part in the plan; a design without a zone has nothing to plan yet.</summary>
    private static void LeavePutAway(List<DesignRow> designs)
    {
        foreach (var design in designs)
        {
            design.Zones.RemoveAll(z => z.PutAwayAt is not null);
            design.Pieces.RemoveAll(p => p.PutAwayAt is not null);
        }

        designs.RemoveAll(d => d.PutAwayAt is not null || d.Zones.Count == 0);
    }
}
