using Lowfell.Core.Colour;
using Lowfell.Core.Materials;
using Lowfell.Core.Mixing;

namespace Lowfell.Core.Layers;

/// <summary>Which surface a stack is seen through: that of what lies on top, see <see cref="Surface"/>.</summary>
public static class Shine
{
    /// <summary>First-surface share of a layer's own dried surface.</summary>
    public static double First(Layer layer) => Of(layer.Paint).First;

    /// <summary>The surface a mix dries with: its components' shares by volume, thinner aside. Thinner alone leaves what it wets matt.</summary>
    public static Surface Of(IReadOnlyList<MixPart> paint)
    {
        double sum = 0, parts = 0;
        foreach (var part in paint)
        {
            if (part.Material.IsThinner)
                continue;
            var share = part.Parts.ToDouble();
            sum += share * part.Material.Surface.First;
            parts += share;
        }

        return Surface.Of(parts > 0 ? sum / parts : Surface.MattFirst);
    }

    /// <summary>How far a film takes over the way the surface shines: half a standard coat is enough, a trace does nothing.</summary>
    public static double Hold(Layer layer, double um, double cover) =>
        layer.Main is { } main ? cover * Math.Min(1, um / StandardFilm.Um(main.Kind) * 2) : 0;

    /// <summary>It reads darker and deeper until it has dried.</summary>
    public static bool DarkensWet(Layer layer) =>
        TechniqueTable.For(layer.Technique, layer.Tool).Laydown is Laydown.Wash or Laydown.Bead || layer.Technique is Technique.Filter or Technique.Glaze;
}
