using Lowfell.Core.Drying;
using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Mixing.Pots;

/// <summary>What a pot is kept in.</summary>
public enum Vessel
{
    Palette, WetPalette, Jar,
}

/// <summary>How long a mix stays good where it is: rules of thumb at 20 C and 50 % relative humidity; look and stir before use.</summary>
public static class PotLife
{
    private const double Hour = 60, Day = 24 * Hour, Month = 30 * Day;

    /// <summary>Low, usual and high minutes in a vessel.</summary>
    public static Span3 Usual(MaterialKind kind, Carrier carrier, Vessel vessel) => (vessel, carrier) switch
    {
        // Instant glue keeps nowhere but in its own tube.
        (_, Carrier.Cyanoacrylate) => new(1, 3, 8),
        (_, Carrier.Dry or Carrier.None) => new(12 * Month, 24 * Month, 60 * Month),

        // On an open palette the film dries like a coat, a little slower for standing thicker.
        (Vessel.Palette, Carrier.WaterAcrylic) when kind is MaterialKind.TexturePaste or MaterialKind.Filler or MaterialKind.CracklePaste => new(20, 40, 60),
        (Vessel.Palette, Carrier.WaterAcrylic) => new(10, 25, 45),
        (Vessel.Palette, Carrier.PVA) => new(15, 30, 60),
        (Vessel.Palette, Carrier.SolventAcrylic) => new(4, 10, 20),
        (Vessel.Palette, Carrier.Enamel) => new(30, 90, 180),
        (Vessel.Palette, Carrier.Oil) => new(12 * Hour, 36 * Hour, 72 * Hour),
        (Vessel.Palette, Carrier.Alcohol) => new(3, 8, 15),

        // Wet paper keeps water-based paint from below; spirits dry on it as anywhere.
        (Vessel.WetPalette, Carrier.WaterAcrylic or Carrier.PVA) => new(1 * Day, 3 * Day, 7 * Day),
        (Vessel.WetPalette, _) => Usual(kind, carrier, Vessel.Palette),

        // Closed jars: water-thinned paint spoils first.
        (_, Carrier.WaterAcrylic) => new(2 * Month, 4 * Month, 9 * Month),
        (_, Carrier.PVA) => new(1 * Month, 2 * Month, 4 * Month),
        (_, Carrier.Oil) => new(1 * Month, 3 * Month, 6 * Month),
        _ => new(4 * Month, 9 * Month, 18 * Month),
    };

    /// <summary>Minutes that a mix stays good: the shortest of its paints. Warmth and dry air shorten it where it stands open.</summary>
    public static Span3 Of(PotContents contents, Vessel vessel, Climate climate)
    {
        var shortest = new Span3(double.MaxValue, double.MaxValue, double.MaxValue);
        foreach (var material in contents.Portions.Select(p => p.Material).Where(m => !m.IsThinner))
        {
            var life = Usual(material.Kind, material.Carrier, vessel);
            var open = vessel == Vessel.Palette || vessel == Vessel.WetPalette && !material.Carrier.IsWaterBorne();
            var factor = open ? DryingModel.ClimateFactor(material.Carrier, climate) : 1;
            if (life.Usual * factor < shortest.Usual)
                shortest = new(life.Low * factor, life.Usual * factor, life.High * factor);
        }

        return shortest.Usual < double.MaxValue ? shortest : Usual(MaterialKind.Thinner, Carrier.Dry, vessel);
    }

    /// <summary>
    /// When a pot is no longer good after it was moved to another vessel: it keeps the share of life that it had left.
    /// </summary>
    /// <param name="madeAt">When its life in the old vessel began.</param>
    /// <param name="goodUntil">When that would have ended.</param>
    /// <param name="movedAt">When it was moved; after the end nothing is left.</param>
    /// <param name="newMinutes">A whole life in the new vessel, minutes.</param>
    public static DateTimeOffset Moved(DateTimeOffset madeAt, DateTimeOffset goodUntil, DateTimeOffset movedAt, double newMinutes)
    {
        var whole = (goodUntil - madeAt).TotalMinutes;
        var left = whole <= 0 ? 0 : Math.Clamp((goodUntil - movedAt).TotalMinutes / whole, 0, 1);
        return movedAt.AddMinutes(newMinutes * left);
    }
}
