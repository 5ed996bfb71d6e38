using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Store.Rows;

namespace Lowfell.Store;

/// <summary>Layers as they are stored, as the core sees them.</summary>
public static class StoredLayer
{
    /// <summary>A stored layer with its materials; it goes by its line.</summary>
    public static Layer ToCore(LayerRow row, IReadOnlyDictionary<Guid, Material> materials, IReadOnlyDictionary<Guid, MixRow> mixes)
    {
        List<MixPart> paint = row switch
        {
            { MaterialId: { } material } => [new MixPart(materials[material], Parts.One)],
            { MixId: { } mix } => mixes[mix].Components.Select(c => new MixPart(materials[c.MaterialId], Parts.Of(c.Parts))).ToList(),
            _ => [],
        };
        return new Layer
        {
            Id = row.LineId,
            Technique = row.Technique,
            Paint = paint,
            Dilution = row.ThinnerId is { } thinner ? new Dilution(materials[thinner], Parts.Of(row.PaintParts!.Value), Parts.Of(row.ThinnerParts!.Value)) : null,
            Coats = row.Coats,
            Region = row.Region,
            Strength = (double)row.Strength,
            Tool = row.Tool,
            Drying = row.Drying,
            WaitMinutes = row.WaitMinutes,
            MarkMm = (double?)row.MarkMm,
            Varied = row.VariationSeed is { } seed
                ? new Varied(seed, row.VariationHabit, (double?)row.VariationMm, (double?)row.VariationMarks, (double?)row.VariationSpread ?? Varied.UsualSpread, row.VariationDealt == true) : null,
            DownTo = row.DownTo,
            Details = (double?)row.Details,
            Fades = row.Fades,
            Preparation = row.Preparation,
            Optional = row.Optional,
        };
    }
}
