using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Treatments;
using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Stacks;

/// <summary>What becomes of a treatment, ready to be stored.</summary>
/// <param name="Treatment">Which.</param>
/// <param name="Version">The version it was edited from.</param>
/// <param name="Make">The treatment after the edit, of how it is before it.</param>
internal sealed record TreatmentEdit(Guid Treatment, uint Version, Func<Treatment, Treatment> Make)
{
    /// <summary>The one surface that was edited, and the revision it was edited from: it may be stored although others edited other surfaces since.</summary>
    public (Guid Surface, int Revision)? Alone { get; init; }

    /// <summary>Layers that the treatment had once and may have again: they stay the same rows.</summary>
    public IReadOnlyList<LayerRow> Once { get; init; } = [];

    /// <summary>A stack for a zone, lifted to its treatment.</summary>
    public static TreatmentEdit Of(SetGraph graph, ZoneRow zone, uint version, IReadOnlyList<Layer> stack, Scope scope = Scope.Here)
    {
        var notes = graph.Rows(zone).ToDictionary(r => r.LineId, r => r.Layer.Note);
        var wanted = stack.Select(l => new Edited(l, notes.GetValueOrDefault(l.Id, ""))).ToList();
        return new(zone.TreatmentId, version, was => Lift.Of(was, zone.SurfaceId, wanted, scope));
    }
}

/// <summary>Stores edits of treatments as new revisions of them.</summary>
internal sealed class StackWriter(Write write, IReadOnlyDictionary<Guid, Material> materials)
{
    private LowfellDb Db => write.Db;

    /// <summary>Reads a stack for a zone; null with every fault named.</summary>
    public Task<TreatmentEdit?> Read(ZoneRow zone, StackIn stack, string field, Faults faults) => Read(zone.TreatmentId, zone.SurfaceId, stack, field, faults);

    /// <summary>Reads a stack for the surface of a treatment; null with every fault named.</summary>
    public async Task<TreatmentEdit?> Read(Guid treatment, Guid surface, StackIn stack, string field, Faults faults)
    {
        var own = new Faults();
        var layers = LayerWords.Read(stack.Layers, materials, own);
        foreach (var fault in own.All)
            faults.Add(field + fault.Field["layers".Length..], fault.Message);
        if (layers is null)
            return null;
        var lines = layers.Select(l => l.Id).ToList();

        // A treatment that was parted from another carries its lines on: what is done on a zone stays done.
        if (await Db.LayerSurfaces.AnyAsync(l => lines.Contains(l.LineId) && l.TreatmentId != treatment && !Db.LayerSurfaces.Any(own => own.TreatmentId == treatment && own.LineId == l.LineId), write.Stop))
            faults.Add(field, "A layer id belongs to another treatment. Give copied layers new ids.");
        var (wanted, scope) = (layers.Select((l, i) => new Edited(l, stack.Layers![i]!.Note ?? "")).ToList(), stack.For ?? Scope.Here);
        return new TreatmentEdit(treatment, stack.Version ?? 0, was => Lift.Of(was, surface, wanted, scope))
        {
            Alone = scope == Scope.Here && stack.Revision is { } revision ? (surface, revision) : null,
        };
    }

    /// <summary>The new versions, in the order of the edits; null, and nothing stored, when a treatment is no longer as it was edited from.</summary>
    public async Task<IReadOnlyList<uint>?> Store(IReadOnlyList<TreatmentEdit> edits)
    {
        var ids = edits.Select(s => s.Treatment).Distinct().ToList();

        // Two writers of one treatment come one after the other, and the second finds that it has changed.
        await Db.Database.ExecuteSqlAsync($"select 1 from treatments where id = any({ids}) order by id for no key update", write.Stop);
        var rows = await Db.Treatments.Where(t => ids.Contains(t.Id)).OrderBy(t => t.Id).ToDictionaryAsync(t => t.Id, write.Stop);
        var newest = await Revisions.Newest(Db, ids, null, write.Stop);
        foreach (var edit in edits)
            if (!rows.TryGetValue(edit.Treatment, out var row) || (row.Version != edit.Version && !await IsAsItWas(edit, newest[row.Id])))
                return null;
        if (!newest.Values.SelectMany(t => t.Layers).All(Knows))
            return null;
        var mixes = await Revisions.Mixes(Db, newest.Values.SelectMany(t => t.Layers), write.Stop);
        var says = "";
        foreach (var treatment in edits.GroupBy(s => s.Treatment))
        {
            var before = newest[treatment.Key];
            var was = StoredLayer.ToCore(before, materials, mixes);
            var now = treatment.Aggregate(was, (t, e) => e.Make(t));
            await Add(rows[treatment.Key], before, was, now, treatment.SelectMany(e => e.Once).ToList());
            if (says.Length == 0)
                says = Difference(was, now);
        }

        write.Says(rows.Count == 1 ? $"{rows.Values.Single().Name}: {says}" : $"{rows.Count} treatments: {says}");
        await write.Save();
        return edits.Select(s => rows[s.Treatment].Version).ToList();
    }

    /// <summary>Stores what became of a treatment that nobody else writes; steps that are as they were keep their rows.</summary>
    private async Task Add(TreatmentRow row, TreatmentRow before, Treatment was, Treatment now, IReadOnlyList<LayerRow> once)
    {
        var known = new Dictionary<Step, LayerRow>(ReferenceEqualityComparer.Instance);
        foreach (var (step, layer) in was.Steps.Zip(before.Layers))
            known[step] = layer;
        var needed = await Mixes(before.WorkshopId, now.Steps.Select(s => s.Layer).ToList());
        var layers = now.Steps.Select(s => known.GetValueOrDefault(s) ?? Row(row.Id, s, needed)).ToList();
        var surfaces = now.Surfaces.Select(s => new RevisionSurfaceRow { SurfaceId = s.Id, Name = s.Name, OnId = s.On }).ToList();
        await Revisions.Add(Db, row, before, [.. before.Layers, .. once], layers, surfaces, write.Now, write.Actor.Name, write.Stop);
    }

    /// <summary>What changed, in words, on the first surface on which anything did.</summary>
    private static string Difference(Treatment was, Treatment now) =>
        was.Surfaces.Select(s => StackDifference.Line(was.Stack(s.Id), now.Stack(s.Id))).FirstOrDefault(w => w != StackDifference.Line([], [])) ?? StackDifference.Line([], []);

    /// <summary>Whether the one surface that was edited is as it was in the revision it was edited from, whatever became of others since.</summary>
    private async Task<bool> IsAsItWas(TreatmentEdit edit, TreatmentRow now)
    {
        if (edit.Alone is not var (surface, revision))
            return false;
        var then = await (
            from place in Db.RevisionLayers
            join lay in Db.LayerSurfaces on place.LayerId equals lay.LayerId
            where place.TreatmentId == edit.Treatment && place.Revision == revision && lay.SurfaceId == surface
            orderby place.Position
            select new { lay.LayerId, lay.LineId }).ToListAsync(write.Stop);
        return then.Select(l => (l.LayerId, l.LineId)).SequenceEqual(now.On(surface).Select(l => (l.Layer.Id, l.LineId)));
    }

    private bool Knows(LayerRow layer) => layer.MaterialId is not { } id || materials.ContainsKey(id);

    /// <summary>A new treatment of one surface that came from another, with a stack whose layers carry the lines of the other on; its id, which is its surface's too.</summary>
    public async Task<Guid> Begin(TreatmentRow from, string name, IReadOnlyList<Layer> layers, IReadOnlyList<string>? notes = null)
    {
        var treatment = new TreatmentRow { WorkshopId = from.WorkshopId, Name = name.Length <= LongestName ? name : name[..LongestName], CameFromId = from.Id, ChangedAt = write.Now };
        var mixes = await Mixes(from.WorkshopId, layers);
        treatment.Layers.AddRange(layers.Select((l, i) => Row(treatment.Id, new Step(l.Id, l, notes?[i] ?? "", []), mixes)));
        Revisions.Begin(Db, treatment, write.Actor.Name);
        return treatment.Id;
    }

    private const int LongestName = 120;

    private static LayerRow Row(Guid treatment, Step step, Dictionary<string, Guid> mixes)
    {
        var layer = step.Layer;
        var (paint, thinner) = layer.Dilution is { } d ? Whole(d) : (null, null);
        var row = new LayerRow
        {
            TreatmentId = treatment,
            StepId = step.Id,
            Technique = layer.Technique,
            MaterialId = layer.Paint.Count == 1 ? layer.Paint[0].Material.Id : null,
            MixId = layer.Paint.Count > 1 ? mixes[Key(layer)] : null,
            ThinnerId = layer.Dilution?.Thinner.Id,
            PaintParts = paint,
            ThinnerParts = thinner,
            Tool = layer.Tool,
            Drying = layer.Drying,
            WaitMinutes = (int?)layer.WaitMinutes,
            Preparation = layer.Preparation,
            Note = step.Note,
        };
        StoredLayer.Fill(row, layer);
        foreach (var lay in step.Over)
        {
            var on = new LayerSurfaceRow { TreatmentId = treatment, LayerId = row.Id, SurfaceId = lay.Surface, LineId = lay.Line, Differs = (int)lay.Differs };
            if (lay.Own is { } own)
                StoredLayer.Fill(on, own);
            row.Over.Add(on);
        }

        return row;
    }

    /// <summary>Ids of the mixes the layers need; a new recipe becomes a new mix.</summary>
    private async Task<Dictionary<string, Guid>> Mixes(Guid workshop, IReadOnlyList<Layer> layers)
    {
        var needed = layers.Where(l => l.Paint.Count > 1).GroupBy(Key).ToDictionary(g => g.Key, g => g.First());
        var keys = needed.Keys.ToList();
        var found = await Db.Mixes.Where(m => m.WorkshopId == workshop && keys.Contains(m.RecipeKey)).ToDictionaryAsync(m => m.RecipeKey, m => m.Id, write.Stop);

        // Several stacks of one write may need the same new recipe.
        foreach (var mix in Db.Mixes.Local.Where(m => m.WorkshopId == workshop))
            found.TryAdd(mix.RecipeKey, mix.Id);
        foreach (var (key, layer) in needed)
        {
            if (found.ContainsKey(key))
                continue;
            var mix = new MixRow { WorkshopId = workshop, RecipeKey = key, Name = string.Join(" + ", layer.Paint.Select(p => p.Material.Name)) };
            if (mix.Name.Length > 400)
                mix.Name = mix.Name[..400];
            var parts = WholeParts(layer);
            for (var i = 0; i < parts.Count; i++)
                mix.Components.Add(new MixComponentRow { MixId = mix.Id, MaterialId = layer.Paint[i].Material.Id, Position = i, Parts = parts[i] });
            Db.Add(mix);
            found[key] = mix.Id;
        }

        return found;
    }

    private static string Key(Layer layer) => MixRecipe.Key(layer.Paint.Select(p => p.Material.Id).Zip(WholeParts(layer)));

    private static List<int> WholeParts(Layer layer)
    {
        var scale = layer.Paint.Aggregate(1L, (s, p) => Lcm(s, p.Parts.Denominator));
        return layer.Paint.Select(p => (int)(p.Parts.Numerator * (scale / p.Parts.Denominator))).ToList();
    }

    private static (int?, int?) Whole(Dilution d)
    {
        var scale = Lcm(d.PaintParts.Denominator, d.ThinnerParts.Denominator);
        return ((int)(d.PaintParts.Numerator * (scale / d.PaintParts.Denominator)), (int)(d.ThinnerParts.Numerator * (scale / d.ThinnerParts.Denominator)));
    }

    private static long Lcm(long a, long b)
    {
        long x = a, y = b;
        while (y != 0)
            (x, y) = (y, x % y);
        return a / x * b;
    }
}
