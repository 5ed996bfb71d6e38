using Lowfell.Core.Colour;

namespace Lowfell.Core.Materials;

/// <summary>What surface a sheen stands for.</summary>
public static class SheenSurface
{
    public static Surface Surface(this Sheen sheen) => Colour.Surface.Of(sheen switch
    {
        Sheen.Matt => Colour.Surface.MattFirst,
        Sheen.Eggshell => Colour.Surface.UnstatedFirst,
        Sheen.Satin => Colour.Surface.SatinFirst,
        _ => Colour.Surface.GlossFirst,
    });
}
