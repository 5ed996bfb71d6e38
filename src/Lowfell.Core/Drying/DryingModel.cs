using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Drying;

/// <summary>How dry a coat must be before something else happens to it.</summary>
public enum Dryness
{
    Touch, Recoat, Cure,
}

/// <summary>Scales stated dry times to the bench's climate and film.</summary>
public static class DryingModel
{
    /// <summary>Water-borne coats halve their drying per 10 C, solvent-borne per 15 C.</summary>
    private const double WaterHalvingC = 10, SolventHalvingC = 15;

    /// <summary>Relative humidity beyond which the formula would run away.</summary>
    private const double HighestHumidity = 0.9;

    /// <summary>Hot air shortens thin water-borne coats this many times; never below touch.</summary>
    private const double HotAirFactor = 5;

    /// <summary>Dry brush and sponge leave so little that they are dry in a fraction of a coat's time.</summary>
    private const double ScantFilmFactor = 0.2;

    /// <summary>Minutes to touch, recoat and cure of one layer in this climate.</summary>
    public static DryTimes Of(Layer layer, Climate climate)
    {
        var slowest = new DryTimes(0, 0, 0);
        foreach (var part in layer.Paint)
        {
            if (part.Material.IsThinner)
                continue;
            var t = Scale(part.Material, layer, climate);
            slowest = new DryTimes(
                Math.Max(slowest.TouchMinutes, t.TouchMinutes),
                Math.Max(slowest.RecoatMinutes, t.RecoatMinutes),
                Math.Max(slowest.CureMinutes, t.CureMinutes));
        }

        return slowest;
    }

    private static DryTimes Scale(Material material, Layer layer, Climate climate)
    {
        var factor = ClimateFactor(material.Carrier, climate);
        if (layer.Technique is Technique.DryBrush or Technique.Overbrush or Technique.Sponge)
            factor *= ScantFilmFactor;
        var t = material.DryTimes;
        var recoat = t.RecoatMinutes * factor;
        if (layer.Drying == DryingMode.HotAir && TakesHotAir(material))
            recoat = Math.Max(t.TouchMinutes * factor, recoat / HotAirFactor);
        return new DryTimes(t.TouchMinutes * factor, recoat, t.CureMinutes * ClimateFactor(material.Carrier, climate));
    }

    /// <summary>Only water-borne coats may see hot air, and never crackle paste.</summary>
    public static bool TakesHotAir(Material material) =>
        material.Carrier.IsWaterBorne() && material.Kind is not MaterialKind.CracklePaste;

    /// <summary>How much longer than at 20 C and 50 % everything takes.</summary>
    public static double ClimateFactor(Carrier carrier, Climate climate)
    {
        var cooler = Climate.Standard.TemperatureC - climate.TemperatureC;
        if (!carrier.IsWaterBorne())
            return Math.Pow(2, cooler / SolventHalvingC);
        var humidity = Math.Clamp(climate.RelativeHumidity, 0, HighestHumidity);
        return Math.Pow(2, cooler / WaterHalvingC) * (1 - Climate.Standard.RelativeHumidity) / (1 - humidity);
    }

    /// <summary>Minutes that <paramref name="below"/> must have dried before <paramref name="above"/> goes on, and why.</summary>
    public static (double Minutes, Dryness Dryness) Needed(Layer below, Layer above, Climate climate)
    {
        if (above.Technique == Technique.CleanUpExcess)
            return (0, Dryness.Touch);

        if (above.Technique == Technique.ChipThrough)
            return (Windows.Chipping(climate).OpensMinutes, Dryness.Touch);

        // Tufts are pressed into paste while it is wet.
        if (above.Technique == Technique.Tuft && below.Technique == Technique.TexturePaste)
            return (0, Dryness.Touch);
        var times = Of(below, climate);
        var carrier = above.Carrier;
        if (carrier.IsHot() && (below.Carrier.IsWaterBorne() || below.Carrier.IsSpiritBorne()))
            return (times.CureMinutes, Dryness.Cure);
        if (carrier.IsSpiritBorne() && below.Carrier.IsWaterBorne())
            return (times.RecoatMinutes == 0 ? 0 : Math.Max(times.RecoatMinutes, SolventOverWaterMinutes), Dryness.Recoat);
        if (above.Technique is Technique.AllOverWash or Technique.Filter or Technique.Glaze or Technique.PinWash
            && below.Carrier == Carrier.WaterAcrylic)
            return (times.RecoatMinutes * WashOverAcrylicFactor, Dryness.Recoat);
        if (above.Technique is Technique.Mask)
            return (times.RecoatMinutes * MaskFactor, Dryness.Recoat);
        return above.Technique is Technique.Inspect or Technique.Weight or Technique.Unmask or Technique.TrimAndTouchUp
            ? (times.TouchMinutes, Dryness.Touch)
            : above.Technique is Technique.Assemble ? (times.CureMinutes, Dryness.Cure) : (times.RecoatMinutes, Dryness.Recoat);
    }

    private const double SolventOverWaterMinutes = 120;
    private const double WashOverAcrylicFactor = 1.5;
    private const double MaskFactor = 3;
}
