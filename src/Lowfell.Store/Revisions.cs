using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Store;

/// <summary>Reads the newest layers of treatments, and stores a change as a revision of its own; what was is never touched.</summary>
public static class Revisions
{
    /// <summary>
    /// Treatments with the layers of their newest revision, bottom first, in two queries. A revision never changes: those that were
    /// read <paramref name="before"/> are not read again.
    /// </summary>
    public static async Task<Dictionary<Guid, TreatmentRow>> Newest(LowfellDb db, IReadOnlyCollection<Guid> treatments, IReadOnlyDictionary<Guid, TreatmentRow>? before, CancellationToken stop)
    {
        var rows = await db.Treatments.AsNoTracking().Where(t => treatments.Contains(t.Id)).ToDictionaryAsync(t => t.Id, stop);
        var unread = new List<Guid>();
        foreach (var row in rows.Values)
            if (before?.TryGetValue(row.Id, out var old) == true && old.Revision == row.Revision)
                row.Layers.AddRange(old.Layers);
            else
                unread.Add(row.Id);
        if (unread.Count > 0)
            foreach (var layer in await Layers(db).Where(l => unread.Contains(l.TreatmentId)).ToListAsync(stop))
                rows[layer.TreatmentId].Layers.Add(layer);
        return rows;
    }

    /// <summary>The layers that newest revisions consist of, bottom first.</summary>
    public static IQueryable<LayerRow> Layers(LowfellDb db) =>
        from treatment in db.Treatments.AsNoTracking()
        join place in db.RevisionLayers on new { treatment.Id, treatment.Revision } equals new { Id = place.TreatmentId, place.Revision }
        join layer in db.Layers.AsNoTracking() on place.LayerId equals layer.Id
        orderby place.TreatmentId, place.Position
        select layer;

    /// <summary>Adds a new treatment with its first revision.</summary>
    public static void Begin(LowfellDb db, TreatmentRow treatment, string actor)
    {
        treatment.Revision = 1;
        db.Add(treatment);
        db.AddRange(treatment.Layers);
        db.Add(Revision(treatment, treatment.Layers, treatment.ChangedAt, actor));
    }

    /// <summary>
    /// Makes other layers the newest revision of a tracked treatment. Layers that say the same as before stay the same rows; the
    /// others are new rows that carry their line on.
    /// </summary>
    public static void Add(LowfellDb db, TreatmentRow treatment, IReadOnlyList<LayerRow> before, IReadOnlyList<LayerRow> wanted, DateTimeOffset now, string actor)
    {
        var known = before.ToDictionary(l => l.LineId);
        var layers = wanted.Select(l => known.TryGetValue(l.LineId, out var old) && Same(old, l) ? old : l).ToList();
        treatment.Revision++;
        treatment.ChangedAt = now;
        db.AddRange(layers.Where(l => !before.Contains(l)));
        db.Add(Revision(treatment, layers, now, actor));
    }

    /// <summary>Makes layers that a treatment had once its newest revision again; they stay the same rows.</summary>
    public static async Task BringBack(LowfellDb db, TreatmentRow treatment, IReadOnlyList<LayerRow> layers, DateTimeOffset now, string actor, CancellationToken stop)
    {
        treatment.Revision = await db.TreatmentRevisions.Where(r => r.TreatmentId == treatment.Id).MaxAsync(r => r.Number, stop) + 1;
        treatment.ChangedAt = now;
        db.Add(Revision(treatment, layers, now, actor));
    }

    /// <summary>A layer as the first of another treatment's, carrying the same line on.</summary>
    public static LayerRow Copy(LayerRow l, Guid treatment) => new()
    {
        TreatmentId = treatment,
        LineId = l.LineId,
        Technique = l.Technique,
        MaterialId = l.MaterialId,
        MixId = l.MixId,
        ThinnerId = l.ThinnerId,
        PaintParts = l.PaintParts,
        ThinnerParts = l.ThinnerParts,
        Coats = l.Coats,
        Region = l.Region,
        Strength = l.Strength,
        Tool = l.Tool,
        Drying = l.Drying,
        WaitMinutes = l.WaitMinutes,
        Optional = l.Optional,
        MarkMm = l.MarkMm,
        VariationSeed = l.VariationSeed,
        VariationHabit = l.VariationHabit,
        VariationMm = l.VariationMm,
        VariationMarks = l.VariationMarks,
        VariationSpread = l.VariationSpread,
        VariationDealt = l.VariationDealt,
        DownTo = l.DownTo,
        Details = l.Details,
        Fades = l.Fades,
        Preparation = l.Preparation,
        Note = l.Note,
    };

    private static TreatmentRevisionRow Revision(TreatmentRow treatment, IReadOnlyList<LayerRow> layers, DateTimeOffset now, string actor)
    {
        var revision = new TreatmentRevisionRow { TreatmentId = treatment.Id, Number = treatment.Revision, StoredAt = now, Actor = actor };
        revision.Layers.AddRange(layers.Select((l, i) => new RevisionLayerRow { TreatmentId = treatment.Id, Revision = treatment.Revision, Position = i, LayerId = l.Id }));
        return revision;
    }

    private static bool Same(LayerRow a, LayerRow b) =>
        (a.Technique, a.MaterialId, a.MixId, a.ThinnerId, a.PaintParts, a.ThinnerParts, a.Coats) == (b.Technique, b.MaterialId, b.MixId, b.ThinnerId, b.PaintParts, b.ThinnerParts, b.Coats)
        && (a.Region, a.Strength, a.Tool, a.Drying, a.WaitMinutes, a.Optional, a.MarkMm, a.VariationSeed, a.Note) == (b.Region, b.Strength, b.Tool, b.Drying, b.WaitMinutes, b.Optional, b.MarkMm, b.VariationSeed, b.Note)
        && (a.VariationHabit, a.VariationMm, a.VariationMarks, a.VariationSpread, a.VariationDealt) == (b.VariationHabit, b.VariationMm, b.VariationMarks, b.VariationSpread, b.VariationDealt)
        && (a.DownTo, a.Details, a.Fades, a.Preparation) == (b.DownTo, b.Details, b.Fades, b.Preparation);
}
