using Lowfell.Core.Layers;
using Lowfell.Core.Words;
using Lowfell.Store.Rows;

namespace Lowfell.Store.Demo;

/// <summary>
/// Writes a demo treatment as lines, bottom first: <c>technique | paint | options</c>.
/// Paint is "Name" or "Name 3 + Name 2"; options are words such as <c>2 coats</c>, <c>2:1 Tap Water</c>, <c>airbrush</c>,
/// <c>lower third</c>, <c>x0.6</c> (strength), <c>0.5 mm</c> (width of marks), <c>wait 40</c> (minutes) and a quoted note.
/// </summary>
internal sealed class StackText(Guid workshop, IReadOnlyDictionary<string, MaterialRow> shelf, Dictionary<string, MixRow> mixes)
{
    public TreatmentRow Read(string name, DateTimeOffset at, string text)
    {
        var treatment = new TreatmentRow { WorkshopId = workshop, Name = name, ChangedAt = at };
        foreach (var line in text.Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries))
            treatment.Layers.Add(Layer(line, treatment.Id));
        return treatment;
    }

    private LayerRow Layer(string line, Guid treatment)
    {
        var fields = line.Split('|', StringSplitOptions.TrimEntries);
        var technique = EnumWords.Read<Technique>(fields[0]) ?? throw new FormatException($"No technique '{fields[0]}'.");
        var layer = new LayerRow
        {
            TreatmentId = treatment,
            Technique = technique,
            Tool = TechniqueTable.For(technique).UsualTool,
        };
        if (fields.Length > 1 && fields[1].Length > 0)
            Paint(layer, fields[1]);
        if (fields.Length > 2)
            Options(layer, fields[2]);
        return layer;
    }

    private void Paint(LayerRow layer, string text)
    {
        var parts = text.Split('+', StringSplitOptions.TrimEntries);
        if (parts.Length == 1)
        {
            layer.MaterialId = shelf[parts[0]].Id;
            return;
        }

        var components = parts.Select(p => (Material: shelf[p[..p.LastIndexOf(' ')]], Parts: int.Parse(p[(p.LastIndexOf(' ') + 1)..], System.Globalization.CultureInfo.InvariantCulture))).ToList();
        var key = MixRecipe.Key(components.Select(c => (c.Material.Id, c.Parts)));
        if (!mixes.TryGetValue(key, out var mix))
        {
            mixes[key] = mix = new MixRow { WorkshopId = workshop, RecipeKey = key, Name = string.Join(" + ", components.Select(c => c.Material.Name)) };
            for (var i = 0; i < components.Count; i++)
                mix.Components.Add(new MixComponentRow { MixId = mix.Id, MaterialId = components[i].Material.Id, Position = i, Parts = components[i].Parts });
        }

        layer.MixId = mix.Id;
    }

    private void Options(LayerRow layer, string text)
    {
        var quote = text.IndexOf('"');
        if (quote >= 0)
        {
            layer.Note = text[(quote + 1)..text.LastIndexOf('"')];
            text = text[..quote];
        }

        foreach (var option in text.Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries))
            Option(layer, option);
    }

    private void Option(LayerRow layer, string option)
    {
        var culture = System.Globalization.CultureInfo.InvariantCulture;
        if (option.EndsWith("coats", StringComparison.Ordinal))
            layer.Coats = int.Parse(option.Split(' ')[0], culture);
        else if (option.EndsWith(" mm", StringComparison.Ordinal))
            layer.MarkMm = decimal.Parse(option.Split(' ')[0], culture);
        else if (option.StartsWith("wait ", StringComparison.Ordinal))
            layer.WaitMinutes = int.Parse(option[5..], culture);
        else if (option.StartsWith("plan ", StringComparison.Ordinal))
            layer.VariationSeed = int.Parse(option[5..], culture);
        else if (EnumWords.Read<Habit>(option) is { } habit)
            layer.VariationHabit = habit;
        else if (option.StartsWith('x'))
            layer.Strength = decimal.Parse(option[1..], culture);
        else if (option.Contains(':'))
            (layer.PaintParts, layer.ThinnerParts, layer.ThinnerId) =
                (int.Parse(option.Split(':', ' ')[0], culture), int.Parse(option.Split(':', ' ')[1], culture), shelf[option[(option.IndexOf(' ') + 1)..]].Id);
        else if (EnumWords.Read<Tool>(option) is { } tool)
            layer.Tool = tool;
        else if (EnumWords.Read<DryingMode>(option) is { } mode)
            layer.Drying = mode;
        else
            layer.Region = EnumWords.Read<Region>(option) ?? throw new FormatException($"No option '{option}'.");
    }
}
