using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>A layer on one of its surfaces, as it is stored.</summary>
public sealed class LayerOn
{
    public required LayerRow Layer { get; init; }
    public required LayerSurfaceRow Lay { get; init; }
    public Guid LineId => Lay.LineId;
    public Guid TreatmentId => Layer.TreatmentId;
}

/// <summary>Reads the newest layers of treatments, and stores a change as a revision of its own; what was is never touched.</summary>
public static class Revisions
{
    /// <summary>
    /// Treatments with the surfaces and layers of their newest revision, bottom first, in a fixed number of queries. A revision never changes:
    /// those that were read <paramref name="before"/> are not read again.
    /// </summary>
    public static async Task<Dictionary<Guid, TreatmentRow>> Newest(
        LowfellDb db, IReadOnlyCollection<Guid> treatments, IReadOnlyDictionary<Guid, TreatmentRow>? before, CancellationToken stop)
    {
        var rows = await db.Treatments.AsNoTracking().Where(t => treatments.Contains(t.Id)).ToDictionaryAsync(t => t.Id, stop);
        var unread = new List<Guid>();
        foreach (var row in rows.Values)
            if (before?.TryGetValue(row.Id, out var old) == true && old.Revision == row.Revision)
            {
                row.Layers.AddRange(old.Layers);
                row.Surfaces.AddRange(old.Surfaces);
            }
            else
                unread.Add(row.Id);
        if (unread.Count > 0)
        {
            foreach (var layer in await Layers(db).Where(l => unread.Contains(l.TreatmentId)).ToListAsync(stop))
                rows[layer.TreatmentId].Layers.Add(layer);
            foreach (var surface in await Surfaces(db).Where(s => unread.Contains(s.TreatmentId)).ToListAsync(stop))
                rows[surface.TreatmentId].Surfaces.Add(surface);
        }

        return rows;
    }

    /// <summary>One treatment with its newest revision; it is there.</summary>
    public static async Task<TreatmentRow> Newest(LowfellDb db, Guid treatment, CancellationToken stop) => (await Newest(db, [treatment], null, stop))[treatment];

    /// <summary>The layers that newest revisions consist of, bottom first, each with where it lies.</summary>
    public static IQueryable<LayerRow> Layers(LowfellDb db) =>
        from treatment in db.Treatments.AsNoTracking()
        join place in db.RevisionLayers on new { treatment.Id, treatment.Revision } equals new { Id = place.TreatmentId, place.Revision }
        join layer in db.Layers.AsNoTracking().Include(l => l.Over.OrderBy(o => o.SurfaceId)) on place.LayerId equals layer.Id
        orderby place.TreatmentId, place.Position
        select layer;

    /// <summary>The mixes that layers are laid with, with their components.</summary>
    public static async Task<Dictionary<Guid, MixRow>> Mixes(LowfellDb db, IEnumerable<LayerRow> layers, CancellationToken stop)
    {
        var ids = layers.Select(l => l.MixId).OfType<Guid>().Distinct().ToList();
        return ids.Count == 0 ? [] : await db.Mixes.AsNoTracking().Where(m => ids.Contains(m.Id)).Include(m => m.Components.OrderBy(c => c.Position)).ToDictionaryAsync(m => m.Id, stop);
    }

    /// <summary>The same surface by surface.</summary>
    public static IQueryable<LayerOn> Laid(LowfellDb db) =>
        from treatment in db.Treatments.AsNoTracking()
        join place in db.RevisionLayers on new { treatment.Id, treatment.Revision } equals new { Id = place.TreatmentId, place.Revision }
        join layer in db.Layers.AsNoTracking() on place.LayerId equals layer.Id
        join lay in db.LayerSurfaces.AsNoTracking() on layer.Id equals lay.LayerId
        orderby place.TreatmentId, place.Position
        select new LayerOn { Layer = layer, Lay = lay };

    /// <summary>The surfaces that newest revisions have, in their order.</summary>
    public static IQueryable<RevisionSurfaceRow> Surfaces(LowfellDb db) =>
        from treatment in db.Treatments.AsNoTracking()
        join revision in db.TreatmentRevisions on new { treatment.Id, treatment.Revision } equals new { Id = revision.TreatmentId, Revision = revision.Number }
        join surface in db.RevisionSurfaces.AsNoTracking() on new { revision.TreatmentId, Revision = revision.SurfacesOf } equals new { surface.TreatmentId, surface.Revision }
        orderby surface.TreatmentId, surface.Position
        select surface;

    /// <summary>A surface of a treatment as it is now: the one that is asked for, or its first; null where it has none such.</summary>
    public static async Task<Guid?> SurfaceOf(LowfellDb db, Guid treatment, Guid? asked, CancellationToken stop) =>
        await Surfaces(db).Where(s => s.TreatmentId == treatment && (asked == null || s.SurfaceId == asked)).Select(s => (Guid?)s.SurfaceId).FirstOrDefaultAsync(stop);

    /// <summary>Adds a new treatment with its first revision; one that names no surface gets one, which has its id.</summary>
    public static void Begin(LowfellDb db, TreatmentRow treatment, string actor)
    {
        treatment.Revision = 1;
        if (treatment.Surfaces.Count == 0)
            treatment.Surfaces.Add(new RevisionSurfaceRow { TreatmentId = treatment.Id, Revision = 1, SurfaceId = treatment.Id, Name = treatment.Name });
        foreach (var layer in treatment.Layers.Where(l => l.Over.Count == 0))
            layer.Over.AddRange(treatment.Surfaces.Select(s => new LayerSurfaceRow { TreatmentId = treatment.Id, LayerId = layer.Id, SurfaceId = s.SurfaceId, LineId = layer.StepId }));
        db.Add(treatment);
        db.AddRange(treatment.Surfaces.Select(s => new SurfaceRow { Id = s.SurfaceId, TreatmentId = treatment.Id }));
        db.AddRange(treatment.Surfaces);
        db.AddRange(treatment.Layers);
        db.Add(Revision(treatment, 1, treatment.Layers, treatment.ChangedAt, actor));
    }

    /// <summary>
    /// Makes other layers and surfaces the newest revision of a tracked treatment. Layers that say the same as
    /// some it had stay the same rows; the others are new rows that carry their step on.
    /// </summary>
    public static async Task Add(
        LowfellDb db, TreatmentRow treatment, TreatmentRow before, IReadOnlyList<LayerRow> had, IReadOnlyList<LayerRow> wanted, IReadOnlyList<RevisionSurfaceRow> surfaces,
        DateTimeOffset now, string actor, CancellationToken stop)
    {
        var known = had.ToLookup(l => l.StepId);
        var layers = wanted.Select(l => known[l.StepId].FirstOrDefault(old => Same(old, l)) ?? l).ToList();
        var surfacesOf = await SurfacesOf(db, treatment, stop);
        treatment.Revision++;
        treatment.ChangedAt = now;
        if (!Same(surfaces, before.Surfaces))
        {
            surfacesOf = treatment.Revision;
            var there = await db.Surfaces.Where(s => s.TreatmentId == treatment.Id).Select(s => s.Id).ToListAsync(stop);
            db.AddRange(surfaces.Where(s => !there.Contains(s.SurfaceId)).Select(s => new SurfaceRow { Id = s.SurfaceId, TreatmentId = treatment.Id }));
            db.AddRange(surfaces.Select((s, i) => new RevisionSurfaceRow
            {
                TreatmentId = treatment.Id,
                Revision = treatment.Revision,
                Position = i,
                SurfaceId = s.SurfaceId,
                Name = s.Name,
                OnId = s.OnId,
            }));
        }

        db.AddRange(layers.Where(l => !had.Contains(l)));
        db.Add(Revision(treatment, surfacesOf, layers, now, actor));
    }

    /// <summary>Makes an old revision of a treatment its newest once more; its layers stay the same rows.</summary>
    public static async Task BringBack(LowfellDb db, TreatmentRow treatment, int number, DateTimeOffset now, string actor, CancellationToken stop)
    {
        var old = await db.TreatmentRevisions.AsNoTracking().Include(r => r.Layers.OrderBy(l => l.Position)).FirstAsync(r => r.TreatmentId == treatment.Id && r.Number == number, stop);
        treatment.Revision = await db.TreatmentRevisions.Where(r => r.TreatmentId == treatment.Id).MaxAsync(r => r.Number, stop) + 1;
        treatment.ChangedAt = now;
        db.Add(Revision(treatment, old.SurfacesOf, old.Layers.Select(l => l.LayerId), now, actor));
    }

    private static Task<int> SurfacesOf(LowfellDb db, TreatmentRow treatment, CancellationToken stop) =>
        db.TreatmentRevisions.Where(r => r.TreatmentId == treatment.Id && r.Number == treatment.Revision).Select(r => r.SurfacesOf).FirstAsync(stop);

    /// <summary>
    /// A treatment of its own that begins as another is, with surfaces of its own in the same order, or as one surface of it is; its layers carry
    /// their steps and lines on.
    /// </summary>
    public static TreatmentRow Twin(TreatmentRow was, string name, DateTimeOffset now, Guid? only = null)
    {
        var twin = new TreatmentRow { WorkshopId = was.WorkshopId, Name = name, ChangedAt = now, CameFromId = was.Id };
        var those = was.Surfaces.Where(s => only is null || s.SurfaceId == only).ToList();
        var surfaces = those.Select((s, i) => (Was: s.SurfaceId, Now: i == 0 ? twin.Id : Guid.CreateVersion7())).ToDictionary(s => s.Was, s => s.Now);
        twin.Surfaces.AddRange(those.Select((s, i) => new RevisionSurfaceRow
        {
            TreatmentId = twin.Id,
            Revision = 1,
            Position = i,
            SurfaceId = surfaces[s.SurfaceId],
            Name = s.Name,
            OnId = s.OnId is { } on && surfaces.TryGetValue(on, out var own) ? own : null,
        }));
        twin.Layers.AddRange(was.Layers.Where(l => l.Over.Any(o => surfaces.ContainsKey(o.SurfaceId))).Select(l => Copy(l, twin.Id, surfaces)));
        return twin;
    }

    /// <summary>A layer as one of another treatment's, carrying the same step and lines on.</summary>
    private static LayerRow Copy(LayerRow l, Guid treatment, IReadOnlyDictionary<Guid, Guid> surfaces)
    {
        var copy = new LayerRow
        {
            TreatmentId = treatment,
            StepId = l.StepId,
            Technique = l.Technique,
            MaterialId = l.MaterialId,
            MixId = l.MixId,
            ThinnerId = l.ThinnerId,
            PaintParts = l.PaintParts,
            ThinnerParts = l.ThinnerParts,
            Tool = l.Tool,
            Drying = l.Drying,
            WaitMinutes = l.WaitMinutes,
            Preparation = l.Preparation,
            Note = l.Note,
        };
        Copy(l, copy);
        foreach (var lay in l.Over.Where(o => surfaces.ContainsKey(o.SurfaceId)))
        {
            var own = new LayerSurfaceRow { TreatmentId = treatment, LayerId = copy.Id, SurfaceId = surfaces[lay.SurfaceId], LineId = lay.LineId, Differs = lay.Differs };
            Copy(lay, own);
            copy.Over.Add(own);
        }

        return copy;
    }

    private static void Copy(ILayerFigures from, ILayerFigures to)
    {
        (to.Coats, to.Region, to.Fades, to.Strength, to.MarkMm, to.Details, to.DownTo, to.Optional) = (from.Coats, from.Region, from.Fades, from.Strength, from.MarkMm, from.Details, from.DownTo, from.Optional);
        (to.VariationSeed, to.VariationHabit, to.VariationMm) = (from.VariationSeed, from.VariationHabit, from.VariationMm);
        (to.VariationMarks, to.VariationSpread, to.VariationDealt) = (from.VariationMarks, from.VariationSpread, from.VariationDealt);
    }

    private static TreatmentRevisionRow Revision(TreatmentRow treatment, int surfacesOf, IEnumerable<LayerRow> layers, DateTimeOffset now, string actor) =>
        Revision(treatment, surfacesOf, layers.Select(l => l.Id), now, actor);

    private static TreatmentRevisionRow Revision(TreatmentRow treatment, int surfacesOf, IEnumerable<Guid> layers, DateTimeOffset now, string actor)
    {
        var revision = new TreatmentRevisionRow { TreatmentId = treatment.Id, Number = treatment.Revision, StoredAt = now, Actor = actor, SurfacesOf = surfacesOf };
        revision.Layers.AddRange(layers.Select((l, i) => new RevisionLayerRow { TreatmentId = treatment.Id, Revision = treatment.Revision, Position = i, LayerId = l }));
        return revision;
    }

    private static bool Same(IReadOnlyList<RevisionSurfaceRow> a, IReadOnlyList<RevisionSurfaceRow> b) =>
        a.Select(s => (s.SurfaceId, s.Name, s.OnId)).SequenceEqual(b.Select(s => (s.SurfaceId, s.Name, s.OnId)));

    private static bool Same(LayerRow a, LayerRow b) =>
        (a.Technique, a.MaterialId, a.MixId, a.ThinnerId, a.PaintParts, a.ThinnerParts) == (b.Technique, b.MaterialId, b.MixId, b.ThinnerId, b.PaintParts, b.ThinnerParts)
        && (a.Tool, a.Drying, a.WaitMinutes, a.Preparation, a.Note) == (b.Tool, b.Drying, b.WaitMinutes, b.Preparation, b.Note)
        && SameFigures(a, b)
        && a.Over.Count == b.Over.Count
        && a.Over.All(l => b.Over.Any(o => (o.SurfaceId, o.LineId, o.Differs) == (l.SurfaceId, l.LineId, l.Differs) && SameFigures(o, l)));

    private static bool SameFigures(ILayerFigures a, ILayerFigures b) =>
        (a.Coats, a.Region, a.Fades, a.Strength, a.MarkMm, a.Details, a.DownTo, a.Optional) == (b.Coats, b.Region, b.Fades, b.Strength, b.MarkMm, b.Details, b.DownTo, b.Optional)
        && (a.VariationSeed, a.VariationHabit, a.VariationMm) == (b.VariationSeed, b.VariationHabit, b.VariationMm)
        && (a.VariationMarks, a.VariationSpread, a.VariationDealt) == (b.VariationMarks, b.VariationSpread, b.VariationDealt);
}
