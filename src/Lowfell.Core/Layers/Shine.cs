using Lowfell.Core.Materials;

namespace Lowfell.Core.Layers;

/// <summary>How a surface shows the colour that is in it: smooth ones deepen, matt and dusty ones lay a haze over it.</summary>
internal static class Shine
{
    /// <summary>White haze that a matt or dusty surface adds, and depth that smoother ones give, against ordinary matt paint.</summary>
    private const double MattHaze = 0.012, ChalkHaze = 0.03, SatinDepth = 0.035, GlossDepth = 0.08;

    /// <summary>A wet surface is smoother than any dry one.</summary>
    public const double WetDepth = 0.12;

    /// <summary>How a layer's own dried surface shows what is in it: positive deepens, negative adds haze.</summary>
    public static double Depth(Layer layer) => layer.Main switch
    {
        { Kind: MaterialKind.Pigment } => -ChalkHaze,
        { Kind: MaterialKind.Varnish, Sheen: Sheen.Matt } => -MattHaze,
        { Kind: MaterialKind.Varnish, Sheen: Sheen.Satin } => SatinDepth,
        { Kind: MaterialKind.Varnish } => GlossDepth,
        _ => 0,
    };

    /// <summary>How far a film takes over the way the surface shines: half a standard coat is enough, a trace does nothing.</summary>
    public static double Hold(Layer layer, double um, double cover) =>
        layer.Main is { } main ? cover * Math.Min(1, um / StandardFilm.Um(main.Kind) * 2) : 0;

    /// <summary>What an eye makes of an internal reflectance below a surface of some depth.</summary>
    public static void Show(ReadOnlySpan<double> inside, double depth, Span<double> shown)
    {
        for (var i = 0; i < shown.Length; i++)
            shown[i] = depth >= 0 ? inside[i] * (1 - depth) : inside[i] - depth * (1 - inside[i]);
    }

    /// <summary>It reads darker and deeper until it has dried.</summary>
    public static bool DarkensWet(Layer layer) =>
        TechniqueTable.For(layer.Technique, layer.Tool).Laydown is Laydown.Wash or Laydown.Bead || layer.Technique is Technique.Filter or Technique.Glaze;
}
