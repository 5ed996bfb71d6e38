using Lowfell.Core.Layers;
using Lowfell.Core.Mixing;
using Lowfell.Store;
using Lowfell.Store.Rows;
using Microsoft.EntityFrameworkCore;

namespace Lowfell.Server.Plan;

/// <summary>Stores a stack in place of what a treatment had, keeping the rows of layers that stay.</summary>
internal sealed class StackWriter(LowfellDb db, TimeProvider clock)
{
    /// <summary>True when stored; false when the treatment is no longer at <paramref name="version"/>.</summary>
    public async Task<bool> Write(Guid treatmentId, uint version, IReadOnlyList<Layer> layers, IReadOnlyList<string> notes, CancellationToken stop)
    {
        var treatment = await db.Treatments.Include(t => t.Layers).FirstAsync(t => t.Id == treatmentId, stop);
        if (treatment.Version != version)
            return false;
        var mixes = await Mixes(treatment.WorkshopId, layers, stop);
        var rows = treatment.Layers.ToDictionary(l => l.Id);
        var wanted = layers.Select(l => l.Id).ToHashSet();
        db.RemoveRange(treatment.Layers.Where(l => !wanted.Contains(l.Id)));
        for (var i = 0; i < layers.Count; i++)
        {
            if (!rows.TryGetValue(layers[i].Id, out var row))
                db.Add(row = new LayerRow { Id = layers[i].Id, TreatmentId = treatmentId });
            Fill(row, layers[i], notes[i], i, mixes);
        }

        // Touches the treatment itself, so that its row version guards all its layers.
        treatment.ChangedAt = clock.GetUtcNow();
        try
        {
            await db.SaveChangesAsync(stop);
            return true;
        }
        catch (DbUpdateConcurrencyException)
        {
            return false;
        }
        finally
        {
            db.ChangeTracker.Clear();
        }
    }

    private static void Fill(LayerRow row, Layer layer, string note, int position, Dictionary<string, Guid> mixes)
    {
        row.Position = position;
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
        row.VariationSeed = layer.VariationSeed;
        row.Note = note;
    }

    /// <summary>Ids of the mixes the layers need; a new recipe becomes a new mix.</summary>
    private async Task<Dictionary<string, Guid>> Mixes(Guid workshop, IReadOnlyList<Layer> layers, CancellationToken stop)
    {
        var needed = layers.Where(l => l.Paint.Count > 1).GroupBy(Key).ToDictionary(g => g.Key, g => g.First());
        var keys = needed.Keys.ToList();
        var found = await db.Mixes.Where(m => m.WorkshopId == workshop && keys.Contains(m.RecipeKey)).ToDictionaryAsync(m => m.RecipeKey, m => m.Id, stop);
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
            db.Add(mix);
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
