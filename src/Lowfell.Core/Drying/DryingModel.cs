using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Drying;

/// <summary>How dry a coat must be before something else happens to it.</summary>
public enum Dryness
{
    Touch, Recoat, Cure,
}

/// <summary>Scales stated dry times to the bench's climate, the film and what it lies on.</summary>
public static class DryingModel
{
    /// <summary>Water-borne coats halve their drying per 10 C, solvent-borne per 15 C.</summary>
    private const double WaterHalvingC = 10, SolventHalvingC = 15;

    /// <summary>Relative humidity beyond which the formula would run away.</summary>
    private const double HighestHumidity = 0.9;

    /// <summary>Hot air shortens thin water-borne coats so many times and thick ones less; never below touch.</summary>
    private const double HotAirThin = 5, HotAirThick = 3;

    /// <summary>A coat counts as thick from so many usual films on.</summary>
    private const double ThickFilms = 1.5;

    /// <summary>Coats dry with their thickness to this power, pastes and render with its square.</summary>
    private const double CoatPower = 1.3, PastePower = 2;

    /// <summary>Beyond these a power of a rule of thumb says nothing any more.</summary>
    private const double LeastFactor = 0.25, MostFactor = 12;

    /// <summary>A thirsty ground drinks part of it; moving air carries off what leaves it.</summary>
    private const double ThirstyFactor = 0.7, MovingAirFactor = 0.75;

    /// <summary>What is usually sprayed is laid about twice as thick by brush, with as much longer to dry.</summary>
    private const double BrushedFactor = 2.3;

    /// <summary>Minutes to touch, recoat and cure of one layer in this climate: usual.</summary>
    public static DryTimes Of(Layer layer, Climate climate) => Of(layer, new DryingConditions(climate)).Usual;

    /// <summary>Minutes to touch, recoat and cure of one layer, low – usual – high; the slowest component sets the pace.</summary>
    public static DryRange Of(Layer layer, DryingConditions conditions)
    {
        var slowest = DryRange.None;
        foreach (var part in layer.Paint)
            if (!part.Material.IsThinner)
                slowest = slowest.Slower(Scale(part.Material, layer, conditions));
        return slowest;
    }

    private static DryRange Scale(Material material, Layer layer, DryingConditions conditions)
    {
        DryingRow own = DryingTable.For(material.Kind, material.Carrier), laid = DryingTable.Laid(material, layer);
        var t = material.DryTimes;
        var paste = material.Kind is MaterialKind.TexturePaste or MaterialKind.Filler or MaterialKind.CracklePaste;
        var power = paste ? PastePower : CoatPower;

        // To the touch only the last coat counts: it lies on those that have set.
        double last = Films(layer with { Coats = 1 }), films = Films(layer);
        var room = ClimateFactor(material.Carrier, conditions.Climate) * (SprayedAsARule(layer) && layer.Tool is Tool.Brush or Tool.Swab ? BrushedFactor : 1);
        var surface = room * (conditions.Thirsty ? ThirstyFactor : 1) * (conditions.Climate.AirMoves ? MovingAirFactor : 1);
        double thin = Math.Clamp(Math.Pow(last, power), LeastFactor, MostFactor), thick = Math.Clamp(Math.Pow(films, power), LeastFactor, MostFactor);
        var touch = Times(Laid(t.TouchMinutes, own.TouchMinutes, laid.TouchMinutes), surface * thin);
        var recoat = Times(Laid(t.RecoatMinutes, own.RecoatMinutes, laid.RecoatMinutes), surface * thick);
        if (layer.Drying == DryingMode.HotAir && TakesHotAir(material, layer, conditions))
        {
            var by = paste || films >= ThickFilms ? HotAirThick : HotAirThin;
            recoat = new(Math.Max(touch.Low, recoat.Low / by), Math.Max(touch.Usual, recoat.Usual / by), Math.Max(touch.High, recoat.High / by));
        }

        var cure = Times(Laid(t.CureMinutes, own.CureMinutes, laid.CureMinutes), room * thick);
        return new(touch, recoat, new(Math.Max(cure.Low, recoat.Low), Math.Max(cure.Usual, recoat.Usual), Math.Max(cure.High, recoat.High)));
    }

    private static bool SprayedAsARule(Layer layer) => TechniqueTable.For(layer.Technique).UsualTool is Tool.Airbrush or Tool.SprayCan && layer.Carrier != Carrier.WaterAcrylic
        || layer.Technique == Technique.Varnish;

    /// <summary>A label's time, which stands for how the material is usually laid, turned to how it is laid here, with the spread of the trade.</summary>
    private static Span3 Laid(double label, Span3 own, Span3 laid) => own.Usual > 0
        ? new(label * laid.Low / own.Usual, label * laid.Usual / own.Usual, label * laid.High / own.Usual)
        : new(label, label, label);

    private static Span3 Times(Span3 span, double factor) => new(span.Low * factor, span.Usual * factor, span.High * factor);

    /// <summary>Usual films that lie there: coats, heaviness, a stiffer paste. Patches lie one beside the other, each of them a film.</summary>
    private static double Films(Layer layer) =>
        Preparations.Film(layer) * (TechniqueTable.For(layer.Technique, layer.Tool).Laydown == Laydown.Cover ? 1 : layer.Strength * layer.Coats);

    /// <summary>Only water-borne coats may see hot air; never crackle paste, unless its label says it is heat-safe.</summary>
    public static bool TakesHotAir(Material material) =>
        material.Carrier.IsWaterBorne() && (material.Kind is not MaterialKind.CracklePaste || material.HeatSafe);

    /// <summary>The same for a layer: washes only where the house allows it.</summary>
    private static bool TakesHotAir(Material material, Layer layer, DryingConditions conditions) =>
        TakesHotAir(material) && (conditions.HotAirOnWashes || DryingTable.Laid(material, layer) != DryingTable.Wash);

    /// <summary>How much longer than at 20 C and 50 % everything takes.</summary>
    public static double ClimateFactor(Carrier carrier, Climate climate)
    {
        var cooler = Climate.Standard.TemperatureC - climate.TemperatureC;
        if (!carrier.IsWaterBorne())
            return Math.Pow(2, cooler / SolventHalvingC);
        var humidity = Math.Clamp(climate.RelativeHumidity, 0, HighestHumidity);
        return Math.Pow(2, cooler / WaterHalvingC) * (1 - Climate.Standard.RelativeHumidity) / (1 - humidity);
    }

    /// <summary>Minutes that <paramref name="below"/> must have dried before <paramref name="above"/> goes on, and why: usual.</summary>
    public static (double Minutes, Dryness Dryness) Needed(Layer below, Layer above, Climate climate)
    {
        var (minutes, dryness) = Needed(below, above, new DryingConditions(climate));
        return (minutes.Usual, dryness);
    }

    /// <summary>The same as a range.</summary>
    public static (Span3 Minutes, Dryness Dryness) Needed(Layer below, Layer above, DryingConditions conditions) => Needed(below, above, conditions, Of(below, conditions));

    /// <summary>The same where it is known how long the layer below takes.</summary>
    internal static (Span3 Minutes, Dryness Dryness) Needed(Layer below, Layer above, DryingConditions conditions, DryRange times)
    {
        if (above.Technique == Technique.CleanUpExcess)
            return (default, Dryness.Touch);
        if (above.Technique == Technique.ChipThrough)
            return (Times(new(1, 1, 1), Windows.Chipping(conditions.Climate).OpensMinutes), Dryness.Touch);

        // Tufts are pressed into paste while it is wet, and a run-off is drawn from what still moves.
        if ((above.Technique == Technique.Tuft && below.Technique == Technique.TexturePaste) || above.Technique == Technique.RunOff)
            return (default, Dryness.Touch);
        var carrier = above.Carrier;
        if (carrier.IsHot() && (below.Carrier.IsWaterBorne() || below.Carrier.IsSpiritBorne()))
            return (times.CureMinutes, Dryness.Cure);
        if (carrier.IsSpiritBorne() && below.Carrier.IsWaterBorne())
            return (AtLeast(times.RecoatMinutes, SolventOverWaterMinutes), Dryness.Recoat);
        if (above.Technique is Technique.AllOverWash or Technique.Filter or Technique.Glaze or Technique.PinWash
            && below.Carrier == Carrier.WaterAcrylic)
            return (Times(times.RecoatMinutes, WashOverAcrylicFactor), Dryness.Recoat);
        return above.Technique switch
        {
            Technique.Mask => (Times(times.RecoatMinutes, MaskFactor), Dryness.Recoat),
            Technique.Inspect or Technique.Unmask => (times.TouchMinutes, Dryness.Touch),
            Technique.Weight or Technique.TrimAndTouchUp => (Times(times.TouchMinutes, HandlingFactor), Dryness.Touch),
            Technique.Assemble => (times.CureMinutes, Dryness.Cure),
            _ => (times.RecoatMinutes, Dryness.Recoat),
        };
    }

    private static Span3 AtLeast(Span3 span, double least) => span.Usual == 0 ? span : new(Math.Max(span.Low, least), Math.Max(span.Usual, least), Math.Max(span.High, least));

    private const double SolventOverWaterMinutes = 120;
    private const double WashOverAcrylicFactor = 1.5;
    private const double MaskFactor = 3;
    private const double HandlingFactor = 2;
}
