namespace Lowfell.Core.Layers;

/// <summary>What a mask keeps from part of a zone: stripes, signs, windows that stay as they were.</summary>
public static class Masking
{
    /// <summary>The layers that a masked part gets: all but those between each mask and its taking off. Null where no mask is taken off again.</summary>
    public static IReadOnlyList<Layer>? Under(IReadOnlyList<Layer> layers)
    {
        var kept = new List<Layer>(layers.Count);
        var any = false;
        for (var i = 0; i < layers.Count; i++)
        {
            kept.Add(layers[i]);
            if (layers[i].Technique != Technique.Mask)
                continue;
            var off = i + 1;
            while (off < layers.Count && layers[off].Technique != Technique.Unmask)
                off++;
            if (off == layers.Count || off == i + 1)
                continue;
            any = true;
            i = off - 1;
        }

        return any ? kept : null;
    }
}
