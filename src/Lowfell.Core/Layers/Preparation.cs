using Lowfell.Core.Materials;

namespace Lowfell.Core.Layers;

/// <summary>What is done to a material before it is laid; the hands are needed for the moment only, the rest is waiting.</summary>
public enum Preparation
{
    None,

    /// <summary>Texture paste left open until it is stiff.</summary>
    LeftOpen,

    /// <summary>Texture paste spread on card until it is stiff.</summary>
    SpreadOnCard,

    /// <summary>Oil colour left on card until its oil has drained.</summary>
    DrainedOnCard,

    /// <summary>A home-made wash or a settled pot, shaken with a ball and stirred.</summary>
    Shaken,

    /// <summary>Render mixed and rested.</summary>
    MixedAndRested,

    /// <summary>Varnish warmed in water and shaken.</summary>
    WarmedAndShaken,
}

/// <summary>Lead time and effect of each preparation: rules of thumb.</summary>
public static class Preparations
{
    /// <summary>Hands needed for it, minutes.</summary>
    public const double HandsMinutes = 1;

    /// <summary>A stiff paste stands thicker, and cracks wider.</summary>
    private const double StiffFilm = 1.5;

    /// <summary>Minutes from the hand's moment until the material is ready.</summary>
    public static Span3 LeadMinutes(Preparation preparation) => preparation switch
    {
        Preparation.LeftOpen => new(15, 30, 60),
        Preparation.SpreadOnCard => new(5, 10, 20),
        Preparation.DrainedOnCard => new(20, 40, 90),
        Preparation.Shaken => new(1, 1, 2),
        Preparation.MixedAndRested => new(5, 10, 20),
        Preparation.WarmedAndShaken => new(3, 5, 10),
        _ => default,
    };

    /// <summary>How long a preparation keeps, minutes from the hand's moment: as long again as it takes at most, and an hour at least.</summary>
    public static double KeepsMinutes(Preparation preparation) => Math.Max(60, 2 * LeadMinutes(preparation).High);

    /// <summary>What is done to a layer's material beforehand, as long as it suits it.</summary>
    public static Preparation Of(Layer layer) => layer.Main is { } main && Suits(layer.Preparation, main) ? layer.Preparation : Preparation.None;

    /// <summary>How much thicker a layer's film stands for what was done to its material; what does not suit the material does nothing.</summary>
    public static double Film(Layer layer) =>
        layer.Preparation is Preparation.LeftOpen or Preparation.SpreadOnCard && layer.Main is { } main && Suits(layer.Preparation, main) ? StiffFilm : 1;

    /// <summary>All that can be done to a material beforehand, nothing first.</summary>
    public static IReadOnlyList<Preparation> For(Material material) => Enum.GetValues<Preparation>().Where(p => Suits(p, material)).ToList();

    /// <summary>Whether a material can be prepared so.</summary>
    public static bool Suits(Preparation preparation, Material material) => preparation switch
    {
        Preparation.LeftOpen or Preparation.SpreadOnCard => material.Kind is MaterialKind.TexturePaste or MaterialKind.CracklePaste or MaterialKind.Filler,
        Preparation.DrainedOnCard => material.Carrier == Carrier.Oil,
        Preparation.MixedAndRested => material.Kind is MaterialKind.Filler,
        Preparation.WarmedAndShaken => material.Kind is MaterialKind.Varnish or MaterialKind.Primer,
        _ => true,
    };
}
