using Lowfell.Core.Layers;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;
using Lowfell.Server.Http;

namespace Lowfell.Server.Stacks;

/// <summary>Turns layers of the core into what travels, and checks what comes back.</summary>
internal static class LayerWords
{
    /// <summary>More layers than this is a mistake, not a treatment.</summary>
    public const int MostLayers = 100;

    /// <summary>What a layer may say, in whatever words it comes.</summary>
    public const int MostComponents = 8, MostCoats = 20, MostDetails = 1000;
    private const decimal LeastDetails = 0.01m;
    public const decimal MostParts = 1000, MostStrength = 3, LeastMarkMm = 0.01m, MostMarkMm = 200;

    private const int LongestNote = 500, LongestWaitMinutes = 43_200;

    public static LayerDto ToDto(Layer l) => new(
        l.Id, l.Technique, l.Paint.Select(p => new PaintDto(p.Material.Id, p.Parts.ToDecimal())).ToList(),
        l.Dilution is { } d ? new DilutionDto(d.Thinner.Id, d.PaintParts.ToDecimal(), d.ThinnerParts.ToDecimal()) : null,
        l.Coats, l.Region, (decimal)l.Strength, l.Tool, l.Drying, l.WaitMinutes is { } wait ? (int)wait : null, l.Optional, "", (decimal?)l.MarkMm, ToDto(l.Varied),
        l.DownTo, (decimal?)l.Details, l.Fades, l.Preparation);

    public static VariedDto? ToDto(Varied? v) => v is null ? null : new(v.Seed, v.Habit, (decimal?)v.MeanMm, (decimal?)v.Marks, (decimal)v.Spread, v.Dealt);

    /// <summary>A plan of variation as it was asked for; null where none is wanted.</summary>
    public static Varied? ReadVaried(VariedDto? dto, string at, Faults faults)
    {
        if (dto is null)
            return null;
        faults.Range(dto.Seed, $"{at}.seed", 1, 1_000_000);
        faults.Range(dto.MeanMm, $"{at}.meanMm", (decimal)Varied.LeastMm, (decimal)Varied.MostMm);
        faults.Range(dto.Marks, $"{at}.marks", (decimal)Varied.LeastMarks, (decimal)Varied.MostMarks);
        faults.Range(dto.Spread, $"{at}.spread", 0, 1);
        return new Varied(dto.Seed, dto.Habit, (double?)dto.MeanMm, (double?)dto.Marks, (double?)dto.Spread ?? Varied.UsualSpread, dto.Dealt == true);
    }

    /// <summary>The layers with materials of this shelf, or null with every fault named.</summary>
    public static List<Layer>? Read(IReadOnlyList<LayerDto?>? layers, IReadOnlyDictionary<Guid, Material> shelf, Faults faults)
    {
        if (layers is null)
        {
            faults.Add("layers", "Give the layers, bottom first; an empty list clears the stack.");
            return null;
        }

        if (layers.Count > MostLayers)
        {
            faults.Add("layers", $"At most {MostLayers} layers on one zone; this has {layers.Count}.");
            return null;
        }

        var read = new List<Layer>(layers.Count);
        var ids = new HashSet<Guid>();
        for (var i = 0; i < layers.Count; i++)
        {
            if (layers[i] is not { } layer)
            {
                faults.Add($"layers[{i}]", "A layer is missing here.");
                continue;
            }

            faults.Require(layer.Id != Guid.Empty && ids.Add(layer.Id), $"layers[{i}].id", "Every layer needs an id of its own.");
            if (ReadOne(layer, $"layers[{i}]", shelf, faults) is { } good)
                read.Add(good);
        }

        return faults.Any ? null : read;
    }

    private static Layer? ReadOne(LayerDto dto, string at, IReadOnlyDictionary<Guid, Material> shelf, Faults faults)
    {
        faults.Require(Enum.IsDefined(dto.Technique), $"{at}.technique", "Choose a technique.");
        faults.Range(dto.Coats, $"{at}.coats", 1, MostCoats);
        faults.Range(dto.Strength, $"{at}.strength", 0, MostStrength);
        faults.Range(dto.WaitMinutes, $"{at}.waitMinutes", 0, LongestWaitMinutes);
        faults.Range(dto.MarkMm, $"{at}.markMm", LeastMarkMm, MostMarkMm);
        var varied = ReadVaried(dto.Varied, $"{at}.varied", faults);
        faults.Range(dto.Details, $"{at}.details", LeastDetails, MostDetails);
        faults.Text(dto.Note, $"{at}.note", LongestNote, needed: false);
        var paint = ReadPaint(dto.Paint, at, shelf, faults);
        var dilution = ReadDilution(dto.Dilution, at, shelf, faults);
        if (faults.Any)
            return null;
        return new Layer
        {
            Id = dto.Id,
            Technique = dto.Technique,
            Paint = paint,
            Dilution = dilution,
            Coats = dto.Coats,
            Region = dto.Region,
            Strength = (double)dto.Strength,
            Tool = dto.Tool,
            Drying = dto.Drying,
            WaitMinutes = dto.WaitMinutes,
            MarkMm = (double?)dto.MarkMm,
            Varied = varied,
            DownTo = dto.DownTo,
            Details = (double?)dto.Details,
            Fades = dto.Fades == true,
            Preparation = dto.Preparation,
            Optional = dto.Optional,
        };
    }

    private static List<MixPart> ReadPaint(IReadOnlyList<PaintDto?>? entries, string at, IReadOnlyDictionary<Guid, Material> shelf, Faults faults)
    {
        var paint = (entries ?? []).OfType<PaintDto>().ToList();
        faults.Require(paint.Count == (entries?.Count ?? 0), $"{at}.paint", "A component is missing here.");
        faults.Require(paint.Count <= MostComponents, $"{at}.paint", $"At most {MostComponents} components in a mix.");
        faults.Require(paint.Select(p => p.MaterialId).Distinct().Count() == paint.Count, $"{at}.paint", "Each material only once; add its parts together.");
        var parts = new List<MixPart>();
        for (var k = 0; k < Math.Min(paint.Count, MostComponents); k++)
        {
            var good = Parts(paint[k].Parts, $"{at}.paint[{k}].parts", faults);
            if (!shelf.TryGetValue(paint[k].MaterialId, out var material))
                faults.Add($"{at}.paint[{k}].materialId", "This material is not on the shelf. Choose one that is.");
            else if (good is { } p)
                parts.Add(new MixPart(material, p));
        }

        return parts;
    }

    private static Dilution? ReadDilution(DilutionDto? dto, string at, IReadOnlyDictionary<Guid, Material> shelf, Faults faults)
    {
        if (dto is null)
            return null;
        var paint = Parts(dto.Paint, $"{at}.dilution.paint", faults);
        var thinner = Parts(dto.Thinner, $"{at}.dilution.thinner", faults);
        if (!shelf.TryGetValue(dto.ThinnerId, out var material))
            faults.Add($"{at}.dilution.thinnerId", "This thinner is not on the shelf. Choose one that is.");
        else if (!material.IsThinner)
            faults.Add($"{at}.dilution.thinnerId", $"{material.Name} is not a thinner.");
        else if (paint is { } p && thinner is { } t)
            return new Dilution(material, p, t);
        return null;
    }

    /// <summary>Parts with at most two decimals, so that ratios stay whole numbers in the store.</summary>
    public static Parts? Parts(decimal value, string field, Faults faults)
    {
        if (value is > 0 and <= MostParts && decimal.Round(value, 2) == value)
            return Core.Mixing.Parts.Of(value);
        faults.Add(field, $"Give parts above 0, at most {MostParts}, with at most two decimals.");
        return null;
    }
}
