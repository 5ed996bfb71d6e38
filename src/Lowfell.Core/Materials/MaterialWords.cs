namespace Lowfell.Core.Materials;

/// <summary>What a product on the shelf is for.</summary>
public enum MaterialKind
{
    Primer, Paint, Ink, Wash, Filter, GlazeMedium, Varnish, Thinner, Medium, Pigment, Pencil, TexturePaste,
    Filler, CracklePaste, CrackleMedium, ChippingFluid, Glue, Aggregate, Tuft, Decal,
}

/// <summary>What carries the solids to the surface and then leaves; decides rules and drying.</summary>
public enum Carrier
{
    WaterAcrylic, SolventAcrylic, Enamel, Oil, Alcohol, Dry, PVA, Cyanoacrylate, None,
}

/// <summary>How a dried surface shines.</summary>
public enum Sheen
{
    Matt, Eggshell, Satin, Gloss,
}

/// <summary>What a material has besides its colour that a matt coat would take away.</summary>
public enum Lustre
{
    Plain, Metal, Glass, Glow,
}

/// <summary>A family of liquids that can thin or clean up a material.</summary>
public enum ThinnerFamily
{
    Water, AcrylicThinner, LacquerThinner, WhiteSpirit, Alcohol,
}

/// <summary>Where a material's colour and hiding come from, best first.</summary>
public enum OpticsSource
{
    /// <summary>One coat over black and over white.</summary>
    ContrastCard,

    /// <summary>Masstone and the coats it takes to hide black.</summary>
    CoatsToHide,

    /// <summary>A transparent film over white.</summary>
    OverWhite,

    /// <summary>Masstone alone: the hiding is a guess for its kind, and shown as one.</summary>
    Estimated,

    /// <summary>No colour of its own.</summary>
    Clear,
}

/// <summary>Traits that follow from the carrier alone.</summary>
public static class CarrierTraits
{
    /// <summary>Dissolves and lifts paint bound like itself: enamels and oils.</summary>
    public static bool IsSpiritBorne(this Carrier carrier) => carrier is Carrier.Enamel or Carrier.Oil;

    /// <summary>Strong enough to craze softer paint below it.</summary>
    public static bool IsHot(this Carrier carrier) => carrier is Carrier.SolventAcrylic;

    /// <summary>Carried by water.</summary>
    public static bool IsWaterBorne(this Carrier carrier) => carrier is Carrier.WaterAcrylic or Carrier.PVA;

    /// <summary>Flows into one another in a pot: water with water, spirit with spirit; what is dry goes into anything.</summary>
    public static bool MixesWith(this Carrier one, Carrier other) => one is Carrier.Dry or Carrier.None || other is Carrier.Dry or Carrier.None || Pot(one) == Pot(other);

    private static int Pot(Carrier carrier) => carrier switch
    {
        Carrier.WaterAcrylic or Carrier.PVA => 0,
        Carrier.Enamel or Carrier.Oil => 1,
        Carrier.SolventAcrylic => 2,
        Carrier.Alcohol => 3,
        _ => 4,
    };

    /// <summary>Gives off vapour that burns.</summary>
    public static bool IsSolvent(this Carrier carrier) => carrier.IsSpiritBorne() || carrier.IsHot() || carrier is Carrier.Alcohol;

    /// <summary>The family of thinner that belongs to this carrier before a label says otherwise.</summary>
    public static IReadOnlyList<ThinnerFamily> UsualThinners(this Carrier carrier) => carrier switch
    {
        Carrier.WaterAcrylic => [ThinnerFamily.Water, ThinnerFamily.AcrylicThinner],
        Carrier.PVA => [ThinnerFamily.Water],
        Carrier.SolventAcrylic => [ThinnerFamily.LacquerThinner],
        Carrier.Enamel or Carrier.Oil => [ThinnerFamily.WhiteSpirit],
        Carrier.Alcohol => [ThinnerFamily.Alcohol],
        Carrier.Dry => [ThinnerFamily.Water, ThinnerFamily.WhiteSpirit, ThinnerFamily.Alcohol],
        _ => [],
    };
}
