using Lowfell.Core.Materials;

namespace Lowfell.Core.Layers;

/// <summary>The wet film, um, of "one standard coat" that a material's colour was judged by.</summary>
public static class StandardFilm
{
    public static double Um(MaterialKind kind) => kind switch
    {
        MaterialKind.Primer => 40,
        MaterialKind.Wash => 70,
        MaterialKind.Filter or MaterialKind.GlazeMedium or MaterialKind.Ink => 20,
        MaterialKind.Varnish => 30,
        MaterialKind.Pigment => 40,
        MaterialKind.TexturePaste or MaterialKind.Filler or MaterialKind.CracklePaste or MaterialKind.Aggregate => 500,
        _ => 90,
    };
}
