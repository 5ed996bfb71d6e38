using Lowfell.Core.Materials;

namespace Lowfell.Core.Drying;

/// <summary>Minutes until a coat can be touched, coated again, and is cured, at 20 C, 50 % relative humidity, usual film.</summary>
public sealed record DryTimes(double TouchMinutes, double RecoatMinutes, double CureMinutes)
{
    /// <summary>These with what a label says of them, in minutes; none is sooner than the one before it.</summary>
    public DryTimes With(double? touch, double? recoat, double? cure)
    {
        var first = touch ?? TouchMinutes;
        var second = Math.Max(first, recoat ?? RecoatMinutes);
        return new DryTimes(first, second, Math.Max(second, cure ?? CureMinutes));
    }
}

/// <summary>Bench climate. <paramref name="TemperatureC"/> in Celsius, <paramref name="RelativeHumidity"/> 0..1.</summary>
public sealed record Climate(double TemperatureC, double RelativeHumidity)
{
    /// <summary>The climate that drying figures are stated for.</summary>
    public static readonly Climate Standard = new(20, 0.5);
}

/// <summary>Usual drying figures by kind and carrier: rules of thumb, overridden by the material; the label wins.</summary>
public static class UsualDryTimes
{
    private const double Hour = 60, Day = 24 * Hour;

    /// <summary>The usual figures for a material whose label has not been copied yet.</summary>
    public static DryTimes For(MaterialKind kind, Carrier carrier) => (kind, carrier) switch
    {
        (MaterialKind.CracklePaste, _) => new(12 * Hour, 48 * Hour, 3 * Day),
        (MaterialKind.CrackleMedium, _) => new(2 * Hour, 2 * Hour, Day),
        (MaterialKind.TexturePaste, _) => new(90, 4 * Hour, Day),
        (MaterialKind.Filler, _) => new(150, 5 * Hour, Day),
        (MaterialKind.ChippingFluid, _) => new(25, 25, 4 * Hour),
        (MaterialKind.Primer, Carrier.SolventAcrylic) => new(10, 60, Day),
        (MaterialKind.Varnish, Carrier.WaterAcrylic) => new(15, 150, 1.5 * Day),
        (MaterialKind.Pigment, _) or (_, Carrier.Dry) or (_, Carrier.None) => new(0, 0, 0),
        (MaterialKind.Filter, Carrier.Enamel) => new(60, 4 * Hour, 1.5 * Day),
        (_, Carrier.Enamel) => new(40, 12 * Hour, 2 * Day),
        (_, Carrier.Oil) => new(12 * Hour, 2 * Day, 9 * Day),
        (_, Carrier.SolventAcrylic) => new(8, 30, 18 * Hour),
        (_, Carrier.PVA) => new(40, Hour, Day),
        (_, Carrier.Cyanoacrylate) => new(1, 5, Day),
        (_, Carrier.Alcohol) => new(10, 30, 12 * Hour),
        (MaterialKind.Wash or MaterialKind.Filter or MaterialKind.GlazeMedium or MaterialKind.Ink, _) => new(35, 75, 18 * Hour),
        _ => new(15, 35, Day),
    };
}
