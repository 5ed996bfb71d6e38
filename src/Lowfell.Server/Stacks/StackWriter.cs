using Lowfell.Core.Layers;
using Lowfell.Core.Mixing;
using Lowfell.Server.Http;
using Lowfell.Server.Writing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Stacks;

/// <summary>A stack that was read and is ready to be stored in place of what its treatment has.</summary>
internal sealed record PreparedStack(Guid Treatment, uint Version, IReadOnlyList<Layer> Layers, IReadOnlyList<string> Notes, IReadOnlyList<Layer> Before);

/// <summary>Stores stacks as new revisions of their treatments.</summary>
internal sealed class StackWriter(Write write)
{
    private LowfellDb Db => write.Db;

    /// <summary>Reads a stack for a treatment; null with every fault named.</summary>
    public async Task<PreparedStack?> Read(SetGraph graph, Guid treatment, uint version, IReadOnlyList<LayerDto?>? entries, string field, Faults faults)
    {
        var own = new Faults();
        var layers = LayerWords.Read(entries, graph.Materials, own);
        foreach (var fault in own.All)
            faults.Add(field + fault.Field["layers".Length..], fault.Message);
        if (layers is null)
            return null;
        var lines = layers.Select(l => l.Id).ToList();

        // A treatment that was parted from another carries its lines on: what is done on a zone stays done.
        if (await Db.Layers.AnyAsync(l => lines.Contains(l.LineId) && l.TreatmentId != treatment && !Db.Layers.Any(own => own.TreatmentId == treatment && own.LineId == l.LineId), write.Stop))
            faults.Add(field, "A layer id belongs to another treatment. Give copied layers new ids.");
        return new PreparedStack(treatment, version, layers, entries!.Select(l => l!.Note ?? "").ToList(), graph.Treatments.ContainsKey(treatment) ? graph.Layers(treatment) : []);
    }

    /// <summary>The new versions, in the order of the stacks; null, and nothing stored, when a treatment is no longer at the version a stack was edited from.</summary>
    public async Task<IReadOnlyList<uint>?> Store(IReadOnlyList<PreparedStack> stacks)
    {
        var ids = stacks.Select(s => s.Treatment).ToList();

        // Two writers of one treatment come one after the other, and the second finds that it has changed.
        await Db.Database.ExecuteSqlAsync($"select 1 from treatments where id = any({ids}) order by id for no key update", write.Stop);
        var rows = await Db.Treatments.Where(t => ids.Contains(t.Id)).OrderBy(t => t.Id).ToDictionaryAsync(t => t.Id, write.Stop);
        if (stacks.Any(s => !rows.TryGetValue(s.Treatment, out var row) || row.Version != s.Version))
            return null;
        var before = (await Revisions.Layers(Db).Where(l => ids.Contains(l.TreatmentId)).ToListAsync(write.Stop)).ToLookup(l => l.TreatmentId);
        foreach (var stack in stacks)
        {
            var treatment = rows[stack.Treatment];
            var mixes = await Mixes(treatment.WorkshopId, stack.Layers);
            var wanted = stack.Layers.Select((l, i) => Row(treatment.Id, l, stack.Notes[i], mixes)).ToList();
            Revisions.Add(Db, treatment, before[treatment.Id].ToList(), wanted, write.Now, write.Actor.Name);
        }

        write.Says(Words(stacks, rows));
        await write.Save();
        return stacks.Select(s => rows[s.Treatment].Version).ToList();
    }

    /// <summary>A new treatment that came from another, with a stack whose layers carry the lines of the other on; its id.</summary>
    public async Task<Guid> Begin(TreatmentRow from, string name, IReadOnlyList<Layer> layers, IReadOnlyList<string>? notes = null)
    {
        var treatment = new TreatmentRow { WorkshopId = from.WorkshopId, Name = name.Length <= LongestName ? name : name[..LongestName], CameFromId = from.Id, ChangedAt = write.Now };
        var mixes = await Mixes(from.WorkshopId, layers);
        treatment.Layers.AddRange(layers.Select((l, i) => Row(treatment.Id, l, notes?[i] ?? "", mixes)));
        Revisions.Begin(Db, treatment, write.Actor.Name);
        return treatment.Id;
    }

    private const int LongestName = 120;

    private static string Words(IReadOnlyList<PreparedStack> stacks, Dictionary<Guid, TreatmentRow> rows) => stacks is [var one]
        ? $"{rows[one.Treatment].Name}: {StackDifference.Line(one.Before, one.Layers)}"
        : $"{stacks.Count} treatments: {StackDifference.Line(stacks[0].Before, stacks[0].Layers)}";

    private static LayerRow Row(Guid treatment, Layer layer, string note, Dictionary<string, Guid> mixes)
    {
        var row = new LayerRow { TreatmentId = treatment, LineId = layer.Id };
        Fill(row, layer, note, mixes);
        return row;
    }

    private static void Fill(LayerRow row, Layer layer, string note, Dictionary<string, Guid> mixes)
    {
        row.Technique = layer.Technique;
        row.MaterialId = layer.Paint.Count == 1 ? layer.Paint[0].Material.Id : null;
        row.MixId = layer.Paint.Count > 1 ? mixes[Key(layer)] : null;
        row.ThinnerId = layer.Dilution?.Thinner.Id;
        (row.PaintParts, row.ThinnerParts) = layer.Dilution is { } d ? Whole(d) : (null, null);
        row.Coats = layer.Coats;
        row.Region = layer.Region;
        row.Strength = (decimal)layer.Strength;
        row.Tool = layer.Tool;
        row.Drying = layer.Drying;
        row.WaitMinutes = (int?)layer.WaitMinutes;
        row.Optional = layer.Optional;
        row.MarkMm = (decimal?)layer.MarkMm;
        row.VariationSeed = layer.Varied?.Seed;
        row.VariationHabit = layer.Varied?.Habit;
        row.VariationMm = (decimal?)layer.Varied?.MeanMm;
        row.VariationMarks = (decimal?)layer.Varied?.Marks;
        row.VariationSpread = (decimal?)layer.Varied?.Spread;
        row.VariationDealt = layer.Varied?.Dealt;
        row.DownTo = layer.DownTo;
        row.Details = layer.Details is { } details ? Math.Round((decimal)details, 2) : null;
        row.Fades = layer.Fades;
        row.Preparation = layer.Preparation;
        row.Note = note;
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
