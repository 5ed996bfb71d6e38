using Lowfell.Core.Layers;

namespace Lowfell.Core.Estimates;

/// <summary>Hands-on minutes before any have been logged: a prior, good to about 30 %.</summary>
public static class HandsOn
{
    /// <summary>Taking up, turning and putting down one piece.</summary>
    public const double HandlingMinutes = 0.7;

    private const double SecondCoatShare = 0.8;

    /// <summary>Share of the minutes that remains with each doubling of the batch.</summary>
    public const double LearningPerDoubling = 0.93;

    /// <summary>Typical error of the prior, as a share.</summary>
    public const double TypicalError = 0.3;

    /// <summary>Minutes on one piece, set-up left out.</summary>
    public static double PerPiece(Layer layer, Zone zone, Pace? pace = null)
    {
        var (figures, own) = ((pace ?? Pace.Usual).Figures(layer.Technique, layer.Tool), (pace ?? Pace.Usual).Of(layer.Technique));
        var area = zone.AreaCm2 * Regions.Share(layer.Region, zone) * (layer.Varied?.Share(layer, zone) ?? 1);
        var length = layer.Technique is Technique.EdgeLine or Technique.Mask or Technique.Unmask ? zone.EdgeMm : zone.JointMm;
        length *= Regions.LengthShare(layer.Region, zone);
        var perCm = layer.Technique == Technique.CleanUpExcess && own.MinutesPerCm is null ? CleanUpPerCm(zone.Relief) : figures.MinutesPerCm;
        var relief = layer.Technique == Technique.CleanUpExcess ? 1 : ReliefFactor(zone.Relief);
        var once = (area * figures.MinutesPerCm2 + length / 10 * perCm) * relief + Details(layer, zone) * figures.MinutesPerDetail;
        return (once * (1 + (layer.Coats - 1) * SecondCoatShare) + (own.MinutesPerPiece ?? HandlingMinutes)) * (own.Factor ?? 1);
    }

    /// <summary>Minutes for a batch: set-up once, and the fifteenth quicker than the second.</summary>
    public static double Batch(Layer layer, Zone zone, int pieces, Pace? pace = null)
    {
        if (pieces <= 0)
            return 0;
        var figures = (pace ?? Pace.Usual).Figures(layer.Technique, layer.Tool);
        var learning = Math.Pow(pace?.Of(layer.Technique).Learning ?? LearningPerDoubling, Math.Log2(pieces));
        return figures.SetUpMinutes + figures.CleanUpMinutes + PerPiece(layer, zone, pace) * pieces * learning;
    }

    /// <summary>Details of a layer on one piece, counted or by the area; 0 for work that is not done one by one.</summary>
    public static double Details(Layer layer, Zone zone)
    {
        var figures = TechniqueTable.For(layer.Technique, layer.Tool);
        return figures.DetailsPerCm2 == 0 ? 0 : layer.Details ?? Math.Max(1, (int)Math.Round(figures.DetailsPerCm2 * zone.AreaCm2 * Regions.Share(layer.Region, zone) * layer.Strength));
    }

    /// <summary>Per cm by relief: it has its relief in it already.</summary>
    private static double CleanUpPerCm(Relief relief) => relief switch { Relief.Smooth => 0.04, Relief.Light => 0.07, _ => 0.12 };

    private static double ReliefFactor(Relief relief) => relief switch { Relief.Smooth => 1, Relief.Light => 1.15, _ => 1.35 };
}
