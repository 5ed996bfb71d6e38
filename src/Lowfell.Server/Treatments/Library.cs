using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Treatments;
using Lowfell.Server.Stacks;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Treatments;

/// <summary>Reads the treatments of a workshop, and any of their revisions, with pictures.</summary>
internal sealed class Library(LowfellDb db, IReadOnlyDictionary<Guid, Material> materials, CancellationToken stop)
{
    public const int Most = 1000;

    /// <summary>Edits that follow each other this closely are one version.</summary>
    private static readonly TimeSpan together = TimeSpan.FromMinutes(1);

    /// <summary>Where a treatment that no zone has is pictured: a plain face of light relief.</summary>
    private static readonly Zone tile = new() { Name = "Tile", AreaCm2 = 100, Substrate = Substrate.PrintedPlastic };

    public async Task<IReadOnlyList<TreatmentCard>> Cards(Guid workshop)
    {
        var rows = await db.Treatments.AsNoTracking().Where(t => t.WorkshopId == workshop).OrderBy(t => t.PutAwayAt != null).ThenBy(t => t.Name).ThenBy(t => t.Id).Take(Most).ToListAsync(stop);
        var newest = await Revisions.Newest(db, rows.Select(r => r.Id).ToList(), null, stop);
        var mixes = await Revisions.Mixes(db, newest.Values.SelectMany(t => t.Layers), stop);
        var uses = await (
            from z in db.Zones.AsNoTracking()
            join d in db.Designs on z.DesignId equals d.Id
            join s in db.Sets on d.SetId equals s.Id
            where s.WorkshopId == workshop && z.PutAwayAt == null && d.PutAwayAt == null && s.PutAwayAt == null
            orderby s.Name, d.Position, z.Position
            select new { z.TreatmentId, Zone = z, d.Substrate, Use = new TreatmentUse(z.Id, z.Name, d.Name, s.Id, s.Name) }).ToListAsync(stop);
        var byTreatment = uses.ToLookup(u => u.TreatmentId);
        var names = rows.ToDictionary(r => r.Id, r => r.Name);
        return rows.AsParallel().AsOrdered().Select(t =>
        {
            var first = byTreatment[t.Id].FirstOrDefault();
            var its = newest[t.Id];
            var layers = StoredLayer.ToCore(its, materials, mixes).Stack(first?.Zone.SurfaceId ?? its.Surfaces[0].SurfaceId);
            return new TreatmentCard(
                t.Id, t.Version, t.Name, t.Revision, t.ChangedAt, Picture(layers, first is null ? tile : Face(first.Zone, first.Substrate)), byTreatment[t.Id].Select(u => u.Use).ToList(),
                t.CameFromId, t.CameFromId is { } from ? names.GetValueOrDefault(from) : null, t.PutAwayAt, its.Surfaces.Count);
        }).ToList();
    }

    /// <summary>The zone that stands for a surface; a plain tile where no zone takes it.</summary>
    public static Zone Face(ZoneRow? zone, Substrate substrate) => zone is { } z ? Shown(z, substrate) : tile;

    private static Zone Shown(ZoneRow z, Substrate substrate) => tile with
    {
        Substrate = substrate,
        Relief = z.Relief,
        Shares = new Split((double)z.RaisedShare, (double)z.FieldShare, (double)z.RecessShare),
        Orientation = new Orientation((double)z.UpShare, (double)z.SideShare, (double)z.DownShare),
    };

    private static List<Stratum> Picture(IReadOnlyList<Layer> layers, Zone zone)
    {
        var run = StackPrediction.Compute(zone, layers);
        return layers.Select((l, i) => new Stratum(l.Technique, l.MaterialName, run[i].Average.Colour.ToString())).ToList();
    }

    /// <summary>Every revision of a treatment, oldest first, with the notes of its steps.</summary>
    private async Task<List<(TreatmentRevisionRow Revision, Treatment Treatment)>> RevisionsOf(Guid treatment)
    {
        var revisions = await db.TreatmentRevisions.AsNoTracking().Where(r => r.TreatmentId == treatment).OrderBy(r => r.Number).Include(r => r.Layers.OrderBy(l => l.Position)).ToListAsync(stop);
        var rows = await db.Layers.AsNoTracking().Include(l => l.Over).Where(l => l.TreatmentId == treatment).ToListAsync(stop);
        var surfaces = (await db.RevisionSurfaces.AsNoTracking().Where(s => s.TreatmentId == treatment).OrderBy(s => s.Position).ToListAsync(stop)).ToLookup(s => s.Revision, StoredLayer.ToCore);
        var mixes = await Revisions.Mixes(db, rows, stop);
        var steps = rows.ToDictionary(r => r.Id, r => StoredLayer.ToStep(r, materials, mixes));
        return revisions.Select(r => (r, new Treatment(surfaces[r.SurfacesOf].ToList(), r.Layers.Select(l => steps[l.LayerId]).ToList()))).ToList();
    }

    /// <summary>Versions of a treatment, newest first, with the layers of a surface: of edits within a minute by one painter the last stands for all.</summary>
    public async Task<IReadOnlyList<VersionEntry>> Versions(TreatmentRow treatment, Guid? surface)
    {
        var revisions = await RevisionsOf(treatment.Id);
        var names = await db.VersionNames.AsNoTracking().Where(n => n.TreatmentId == treatment.Id).ToDictionaryAsync(n => n.Number, n => n.Name, stop);
        var at = await db.Zones.AsNoTracking().Where(z => z.TreatmentId == treatment.Id && z.PutAwayAt == null && (surface == null || z.SurfaceId == surface)).OrderBy(z => z.Id)
            .Join(db.Designs, z => z.DesignId, d => d.Id, (z, d) => new { Zone = z, d.Substrate }).FirstOrDefaultAsync(stop);
        var zone = at is null ? tile : Face(at.Zone, at.Substrate);
        var shown = surface ?? at?.Zone.SurfaceId ?? revisions[^1].Treatment.Surfaces[0].Id;
        var entries = new List<VersionEntry>();
        Treatment? before = null;
        for (var i = 0; i < revisions.Count; i++)
        {
            var (revision, then) = revisions[i];
            var goesOn = i + 1 < revisions.Count && revisions[i + 1].Revision is var next && next.Actor == revision.Actor && next.StoredAt - revision.StoredAt < together && !names.ContainsKey(revision.Number);
            if (goesOn)
                continue;
            var layers = then.Stack(shown);
            var notes = then.Steps.Where(s => s.On(shown) is not null).Select(s => s.Note).ToList();
            entries.Add(new VersionEntry(
                revision.Number, revision.StoredAt, revision.Actor, names.GetValueOrDefault(revision.Number), Words(before, then, shown), revision.Number == treatment.Revision,
                Picture(layers, zone), layers.Select((l, n) => LayerWords.ToDto(l) with { Note = notes[n] }).ToList()));
            before = then;
        }

        entries.Reverse();
        return entries;
    }

    /// <summary>What changed on a surface, or else on the first on which anything did.</summary>
    private static string Words(Treatment? before, Treatment then, Guid shown)
    {
        if (before is null)
            return then.Steps.Count == 0 ? "empty" : $"begun with {then.Steps.Count} layers";
        var same = StackDifference.Line([], []);
        foreach (var surface in then.Surfaces.OrderByDescending(s => s.Id == shown))
            if (StackDifference.Line(before.Stack(surface.Id), then.Stack(surface.Id), most: 6) is var words && words != same)
                return surface.Id == shown ? words : $"{surface.Name}: {words}";
        return same;
    }
}
