using Lowfell.Core.Materials;

namespace Lowfell.Core.Layers;

/// <summary>What a run-off is drawn from: loose grains, or paint that its thinner still moves.</summary>
public static class RunOff
{
    /// <summary>The nearest layer below that still moves, or -1; a whole coat in between holds it fast.</summary>
    public static int SourceOf(IReadOnlyList<Layer> layers, int index)
    {
        var layer = layers[index];
        for (var i = index - 1; i >= 0; i--)
        {
            var below = layers[i];
            if (below.Paint.Count == 0 || !TechniqueTable.For(below.Technique, below.Tool).Leaves || below.Strength <= 0)
                continue;
            if (Moves(below, layer))
                return i;
            if (TechniqueTable.For(below.Technique, below.Tool).Laydown == Laydown.Film)
                return -1;
        }

        return -1;
    }

    private static bool Moves(Layer below, Layer thinner) =>
        below.Main is { } main && below.Technique is not (Technique.RunOff or Technique.Varnish)
        && (main.Kind is MaterialKind.Pigment or MaterialKind.Pencil
            || (below.Technique is Technique.Marking or Technique.Speckle or Technique.Dust or Technique.Streak or Technique.AllOverWash or Technique.PinWash && SameFamily(main.Carrier, thinner.Carrier)));

    private static bool SameFamily(Carrier a, Carrier b) => a == b || (a.IsSpiritBorne() && b.IsSpiritBorne());
}
