using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
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
        var newest = (await Revisions.Layers(db).Where(l => db.Treatments.Any(t => t.Id == l.TreatmentId && t.WorkshopId == workshop)).ToListAsync(stop)).ToLookup(l => l.TreatmentId);
        var mixes = await Mixes(newest.SelectMany(l => l));
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
            var layers = newest[t.Id].Select(l => StoredLayer.ToCore(l, materials, mixes)).ToList();
            var first = byTreatment[t.Id].FirstOrDefault();
            return new TreatmentCard(
                t.Id, t.Version, t.Name, t.Revision, t.ChangedAt, Picture(layers, first is null ? tile : Face(first.Zone, first.Substrate)), byTreatment[t.Id].Select(u => u.Use).ToList(),
                t.CameFromId, t.CameFromId is { } from ? names.GetValueOrDefault(from) : null, t.PutAwayAt);
        }).ToList();
    }

    private static Zone Face(ZoneRow z, Substrate substrate) => tile with
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

    private async Task<Dictionary<Guid, MixRow>> Mixes(IEnumerable<LayerRow> layers)
    {
        var ids = layers.Select(l => l.MixId).OfType<Guid>().Distinct().ToList();
        return await db.Mixes.AsNoTracking().Where(m => ids.Contains(m.Id)).Include(m => m.Components.OrderBy(c => c.Position)).ToDictionaryAsync(m => m.Id, stop);
    }

    /// <summary>Every revision of a treatment with its layers, oldest first.</summary>
    public async Task<List<(TreatmentRevisionRow Revision, List<LayerRow> Rows, List<Layer> Layers)>> RevisionsOf(Guid treatment)
    {
        var revisions = await db.TreatmentRevisions.AsNoTracking().Where(r => r.TreatmentId == treatment).OrderBy(r => r.Number).Include(r => r.Layers.OrderBy(l => l.Position)).ToListAsync(stop);
        var rows = await db.Layers.AsNoTracking().Where(l => l.TreatmentId == treatment).ToDictionaryAsync(l => l.Id, stop);
        var mixes = await Mixes(rows.Values);
        var core = rows.ToDictionary(r => r.Key, r => StoredLayer.ToCore(r.Value, materials, mixes));
        return revisions.Select(r => (r, r.Layers.Select(l => rows[l.LayerId]).ToList(), r.Layers.Select(l => core[l.LayerId]).ToList())).ToList();
    }

    /// <summary>Versions of a treatment, newest first: of edits within a minute by one painter the last stands for all.</summary>
    public async Task<IReadOnlyList<VersionEntry>> Versions(TreatmentRow treatment)
    {
        var revisions = await RevisionsOf(treatment.Id);
        var names = await db.VersionNames.AsNoTracking().Where(n => n.TreatmentId == treatment.Id).ToDictionaryAsync(n => n.Number, n => n.Name, stop);
        var at = await db.Zones.AsNoTracking().Where(z => z.TreatmentId == treatment.Id && z.PutAwayAt == null).OrderBy(z => z.Id).Join(db.Designs, z => z.DesignId, d => d.Id, (z, d) => new { Zone = z, d.Substrate }).FirstOrDefaultAsync(stop);
        var zone = at is null ? tile : Face(at.Zone, at.Substrate);
        var entries = new List<VersionEntry>();
        IReadOnlyList<Layer> before = [];
        for (var i = 0; i < revisions.Count; i++)
        {
            var (revision, rows, layers) = revisions[i];
            var goesOn = i + 1 < revisions.Count && revisions[i + 1].Revision is var next && next.Actor == revision.Actor && next.StoredAt - revision.StoredAt < together && !names.ContainsKey(revision.Number);
            if (goesOn)
                continue;
            var words = entries.Count == 0 ? layers.Count == 0 ? "empty" : $"begun with {layers.Count} layers" : StackDifference.Line(before, layers, most: 6);
            entries.Add(new VersionEntry(
                revision.Number, revision.StoredAt, revision.Actor, names.GetValueOrDefault(revision.Number), words, revision.Number == treatment.Revision,
                Picture(layers, zone), layers.Select((l, n) => LayerWords.ToDto(l) with { Note = rows[n].Note }).ToList()));
            before = layers;
        }

        entries.Reverse();
        return entries;
    }
}
