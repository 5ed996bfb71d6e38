using Lowfell.Server.Writing;
using Lowfell.Store;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Bench;

/// <summary>A zone that work is told of, put away or not; Place is where it stands in the plan, null while it has no part in that.</summary>
internal sealed record Spot(Guid Zone, Guid Design, Guid Treatment, Guid Surface, SetGraph Graph, Place? Place);

/// <summary>
/// Where work is told of. Work on what is put away is work; what was removed, or is somewhere else, is said to be just that.
/// </summary>
internal sealed class Spots(Guid workshop, Write write, SetGraphs graphs)
{
    private readonly Dictionary<Guid, Spot?> known = [];
    private readonly Dictionary<Guid, IReadOnlySet<Guid>> pieces = [];
    private readonly Dictionary<(Guid Zone, Guid Line, Guid? Seen), Guid?> rows = [];

    private LowfellDb Db => write.Db;

    /// <summary>A zone of this workshop; null where there is none.</summary>
    public async Task<Spot?> Of(Guid zone)
    {
        if (known.TryGetValue(zone, out var there))
            return there;
        var at = await (
            from z in Db.Zones.AsNoTracking()
            join d in Db.Designs on z.DesignId equals d.Id
            join s in Db.Sets on d.SetId equals s.Id
            where z.Id == zone && s.WorkshopId == workshop
            select new { z.DesignId, z.TreatmentId, z.SurfaceId, SetId = s.Id }).FirstOrDefaultAsync(write.Stop);
        return known[zone] = at is not null && await graphs.OfSet(Db, at.SetId, write.Stop) is { } graph ? new Spot(zone, at.DesignId, at.TreatmentId, at.SurfaceId, graph, graph.Find(zone)) : null;
    }

    /// <summary>Pieces of a design, those put away too.</summary>
    public async Task<IReadOnlySet<Guid>> Pieces(Guid design)
    {
        if (!pieces.TryGetValue(design, out var all))
            pieces[design] = all = (await Db.Pieces.Where(p => p.DesignId == design).Select(p => p.Id).ToListAsync(write.Stop)).ToHashSet();
        return all;
    }

    /// <summary>The row of a layer's line: the one that was seen, where that is one of it, else the newest on the zone's surface, or on one it had before.</summary>
    public async Task<Guid?> Row(Spot spot, Guid line, Guid? seen)
    {
        if (rows.TryGetValue((spot.Zone, line, seen), out var found))
            return found;
        var all = await Db.LayerSurfaces.AsNoTracking().Where(l => l.LineId == line && Db.Treatments.Any(t => t.Id == l.TreatmentId && t.WorkshopId == workshop)).Select(l => new { l.LayerId, l.SurfaceId }).ToListAsync(write.Stop);
        if (seen is { } id && all.Exists(l => l.LayerId == id))
            return rows[(spot.Zone, line, seen)] = id;
        var now = await Revisions.Laid(Db).Where(l => l.Lay.SurfaceId == spot.Surface && l.Lay.LineId == line).Select(l => (Guid?)l.Layer.Id).FirstOrDefaultAsync(write.Stop);
        return rows[(spot.Zone, line, seen)] = now ?? all.OrderByDescending(l => l.SurfaceId == spot.Surface).ThenByDescending(l => l.LayerId).Select(l => (Guid?)l.LayerId).FirstOrDefault();
    }

    /// <summary>Why a zone is none of this workshop's.</summary>
    public async Task<string> WhyNoZone(Guid zone)
    {
        if (await Removed("zones", zone, "name") is { } name)
            return $"The zone “{name}” was removed. Bring it back and take this in after all, or put right which zone it was.";
        return await Db.Zones.AnyAsync(z => z.Id == zone, write.Stop) ? "This zone is of another workshop." : "No zone of this id is known here, nor that there ever was one.";
    }

    /// <summary>Why some pieces are none of a design's.</summary>
    public async Task<string> WhyNoPieces(IReadOnlyList<Guid> unknown)
    {
        var elsewhere = await (
            from p in Db.Pieces
            join d in Db.Designs on p.DesignId equals d.Id
            where unknown.Contains(p.Id) && Db.Sets.Any(s => s.Id == d.SetId && s.WorkshopId == workshop)
            select new { p.Id, p.Label, d.Name }).ToListAsync(write.Stop);
        var said = elsewhere.Select(e => $"{e.Label} is a piece of {e.Name}").ToList();
        var never = 0;
        foreach (var id in unknown.Except(elsewhere.Select(e => e.Id)))
            if (await Removed("pieces", id, "label") is { } label)
                said.Add($"{label} was removed");
            else
                never++;
        if (never > 0)
            said.Add($"{(never == 1 ? "one piece is" : $"{never} pieces are")} not known here");
        return string.Join(", ", said) is { } text ? char.ToUpperInvariant(text[0]) + text[1..] + "." : "";
    }

    /// <summary>What something of this workshop was called that was removed and can still be brought back; null where that is not known.</summary>
    private async Task<string?> Removed(string table, Guid id, string column) => await Db.Database.SqlQuery<string?>($"""
        select c.before ->> {column} as "Value" from journal_changes c join journal_steps s on s.id = c.step_id
        where c.table_name = {table} and c.row_key = jsonb_build_object('id', {id}::text) and c.after is null and s.workshop_id = {workshop} order by c.number desc limit 1
        """).FirstOrDefaultAsync(write.Stop);
}
