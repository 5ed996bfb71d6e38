using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Core.Treatments;
using Lowfell.Store.Rows;

namespace Lowfell.Store;

/// <summary>Layers as they are stored, as the core sees them.</summary>
public static class StoredLayer
{
    /// <summary>What a layer's surfaces share, with its materials; it goes by its step, and so does what it may take.</summary>
    public static Layer ToCore(LayerRow row, IReadOnlyDictionary<Guid, Material> materials, IReadOnlyDictionary<Guid, MixRow> mixes)
    {
        List<MixPart> paint = row switch
        {
            { MaterialId: { } material } => [new MixPart(materials[material], Parts.One)],
            { MixId: { } mix } => mixes[mix].Components.Select(c => new MixPart(materials[c.MaterialId], Parts.Of(c.Parts))).ToList(),
            _ => [],
        };
        return With(new Layer
        {
            Id = row.StepId,
            Technique = row.Technique,
            Paint = paint,
            Dilution = row.ThinnerId is { } thinner ? new Dilution(materials[thinner], Parts.Of(row.PaintParts!.Value), Parts.Of(row.ThinnerParts!.Value)) : null,
            Tool = row.Tool,
            Drying = row.Drying,
            WaitMinutes = row.WaitMinutes,
            Preparation = row.Preparation,
        }, row);
    }

    /// <summary>A layer with everywhere it lies.</summary>
    public static Step ToStep(LayerRow row, IReadOnlyDictionary<Guid, Material> materials, IReadOnlyDictionary<Guid, MixRow> mixes)
    {
        var shared = ToCore(row, materials, mixes);
        return new Step(row.StepId, shared, row.Note, row.Over.Select(l => l.Differs == 0
            ? new Lay(l.SurfaceId, l.LineId) : new Lay(l.SurfaceId, l.LineId, (Differs)l.Differs, With(shared, l))).ToList());
    }

    /// <summary>A treatment as its newest revision has it.</summary>
    public static Treatment ToCore(TreatmentRow row, IReadOnlyDictionary<Guid, Material> materials, IReadOnlyDictionary<Guid, MixRow> mixes) =>
        new(row.Surfaces.Select(ToCore).ToList(), row.Layers.Select(l => ToStep(l, materials, mixes)).ToList());

    public static Surface ToCore(RevisionSurfaceRow row) => new(row.SurfaceId, row.Name, row.OnId);

    private static Layer With(Layer layer, ILayerFigures f) => layer with
    {
        Coats = f.Coats,
        Region = f.Region,
        Fades = f.Fades,
        Strength = (double)f.Strength,
        MarkMm = (double?)f.MarkMm,
        Varied = f.VariationSeed is { } seed
            ? new Varied(seed, f.VariationHabit, (double?)f.VariationMm, (double?)f.VariationMarks, (double?)f.VariationSpread ?? Varied.UsualSpread, f.VariationDealt == true) : null,
        Details = (double?)f.Details,
        DownTo = f.DownTo,
        Optional = f.Optional,
    };

    /// <summary>Stores figures of a layer.</summary>
    public static void Fill(ILayerFigures to, Layer from)
    {
        to.Coats = from.Coats;
        to.Region = from.Region;
        to.Fades = from.Fades;
        to.Strength = (decimal)from.Strength;
        to.MarkMm = (decimal?)from.MarkMm;
        to.VariationSeed = from.Varied?.Seed;
        to.VariationHabit = from.Varied?.Habit;
        to.VariationMm = (decimal?)from.Varied?.MeanMm;
        to.VariationMarks = (decimal?)from.Varied?.Marks;
        to.VariationSpread = (decimal?)from.Varied?.Spread;
        to.VariationDealt = from.Varied?.Dealt;
        to.Details = from.Details is { } details ? Math.Round((decimal)details, 2) : null;
        to.DownTo = from.DownTo;
        to.Optional = from.Optional;
    }
}
