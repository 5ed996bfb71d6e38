using Lowfell.Core.Layers;
using Lowfell.Core.Materials;

namespace Lowfell.Core.Estimates;

/// <summary>Millilitres of one material for one purpose, losses and margin included.</summary>
public readonly record struct Need(Material Material, double Ml);

/// <summary>How an amount comes about.</summary>
/// <param name="OnSurfaceMl">Wet film left on all pieces.</param>
/// <param name="Efficiency">Share of what leaves the tool that gets there, 0..1.</param>
/// <param name="Fills">How often cup, brush, sponge or palette is filled.</param>
/// <param name="LossPerFillMl">What stays in it each time.</param>
/// <param name="Fillings">The same as <paramref name="Fills"/> before the last one is counted as a whole.</param>
public readonly record struct Amount(double OnSurfaceMl, double Efficiency, int Fills, double LossPerFillMl, double Fillings = 0)
{
    /// <summary>Overspray, and what rag and sponge drink.</summary>
    public double TransferLossMl => Efficiency > 0 ? OnSurfaceMl / Efficiency - OnSurfaceMl : 0;

    public double FillLossMl => Fills * LossPerFillMl;

    public double MarginMl => (OnSurfaceMl + TransferLossMl + FillLossMl) * Quantities.Margin;

    public double TotalMl => OnSurfaceMl + TransferLossMl + FillLossMl + MarginMl;

    /// <summary>A share of it, in fillings of its own.</summary>
    public Amount Times(double share) => share == 1 ? this : this with { OnSurfaceMl = OnSurfaceMl * share, Fillings = Fillings * share, Fills = (int)Math.Ceiling(Fillings * share) };
}

/// <summary>An amount as hands vary: nine of ten stay between low and high.</summary>
public readonly record struct AmountRange(double LowMl, double HighMl);

/// <summary>A zone with its layers and the number of pieces it is painted on.</summary>
/// <param name="ZoneId">The zone.</param>
/// <param name="Zone">Its measures.</param>
/// <param name="Layers">Bottom first.</param>
/// <param name="Pieces">All of them.</param>
/// <param name="ReserveMl">Kept back of every ground and finishing colour, for corrections and for pieces to come; once a mix.</param>
public sealed record ZonePlan(Guid ZoneId, Zone Zone, IReadOnlyList<Layer> Layers, int Pieces, double ReserveMl = 0);

/// <summary>
/// Amounts: area of region × coats × wet film ÷ transfer + loss per fill × fills, × pieces, + a margin;
/// mixes are taken apart into their components and the thinner.
/// </summary>
public static class Quantities
{
    /// <summary>Kept in hand, as a share.</summary>
    public const double Margin = 0.1;

    private const double CleanerMlPerCm = 0.01;
    private const double BeadFillCm = 600;

    /// <summary>What one layer takes over a number of pieces: every component and the thinner, in ml.</summary>
    public static IReadOnlyList<Need> ForLayer(Layer layer, Zone zone, int pieces) => TakenApart(layer, PotMl(layer, zone, pieces));

    /// <summary>So much of a layer's pot as components and thinner, ml.</summary>
    public static IReadOnlyList<Need> TakenApart(Layer layer, double total)
    {
        if (total <= 0)
            return [];
        var needs = new List<Need>(layer.Paint.Count + 1);
        var parts = 0.0;
        foreach (var part in layer.Paint)
            parts += part.Parts.ToDouble();
        if (parts <= 0)
            return [];
        var mixed = layer.Dilution?.PaintShare ?? 1;
        var bed = GlueBed.Of(layer);
        foreach (var part in layer.Paint)
            needs.Add(new Need(part.Material, total * mixed * (bed?.ShareOf(part) ?? part.Parts.ToDouble() / parts)));
        if (layer.Dilution is { } dilution && mixed < 1)
            needs.Add(new Need(dilution.Thinner, total * (1 - mixed)));
        return needs;
    }

    /// <summary>What must be in the pot for a layer over all pieces, ml.</summary>
    public static double PotMl(Layer layer, Zone zone, int pieces) => Work(layer, zone, pieces).TotalMl;

    /// <summary>The sum behind <see cref="PotMl"/>, step by step; all zero for work without material.</summary>
    public static Amount Work(Layer layer, Zone zone, int pieces)
    {
        if (pieces <= 0 || layer.Paint.Count == 0 || layer.Strength <= 0)
            return default;
        var figures = TechniqueTable.For(layer.Technique, layer.Tool);
        double onSurface, fills, efficiency = figures.Efficiency, loss = figures.LossPerFillMl;
        switch (figures.Laydown)
        {
            case Laydown.None:
                (onSurface, fills, efficiency, loss) = (GlueMl(layer, zone) * pieces, 0, 1, 0);
                break;
            case Laydown.Bead:
                onSurface = Laying.SurfaceMl(layer, zone) * pieces;
                fills = zone.JointMm / 10 * Regions.LengthShare(layer.Region, zone) * pieces * layer.Coats / BeadFillCm;
                break;
            case Laydown.Lift:
                (onSurface, fills, efficiency, loss) = (CleanerMlPerCm * zone.JointMm / 10 * Regions.LengthShare(layer.Region, zone) * pieces, 0, 1, 0);
                break;
            default:
                var area = zone.AreaCm2 * Regions.Share(layer.Region, zone);
                onSurface = Laying.SurfaceMl(layer, zone) * (GlueBed.Of(layer)?.OfGrains ?? 1) * pieces;
                fills = figures.FillCoversCm2 > 0 ? area * layer.Coats * pieces / figures.FillCoversCm2 : 0;
                break;
        }

        return new Amount(onSurface, efficiency, (int)Math.Ceiling(fills), loss, fills);
    }

    /// <summary>What a layer takes when it is laid by a thin and by a heavy hand, and covers as such hands do, ml.</summary>
    public static AmountRange Range(Layer layer, Zone zone, int pieces)
    {
        var usual = Work(layer, zone, pieces);
        var laid = Laying.Of(layer, zone);
        var mean = zone.Shares.Dot(laid.MeanUm);
        double By(double hand) => (usual with
        {
            OnSurfaceMl = usual.OnSurfaceMl * (mean > 0 ? zone.Shares.Dot(Hand.Of(layer, laid, hand).MeanUm) / mean : Hand.At(Hand.Film(layer), hand)),
        }).TotalMl;
        return new(By(LowHand), By(HighHand));
    }

    /// <summary>The range of a sum: layers vary each for itself, so that what one takes more another takes less.</summary>
    public static AmountRange Sum(IReadOnlyCollection<(double Ml, AmountRange Range)> amounts)
    {
        var all = amounts.Sum(a => a.Ml);
        double Apart(Func<(double Ml, AmountRange Range), double> by) => Math.Sqrt(amounts.Sum(a => by(a) * by(a)));
        return new(all - Apart(a => a.Ml - a.Range.LowMl), all + Apart(a => a.Range.HighMl - a.Ml));
    }

    /// <summary>Five of a hundred hands lay less than the one, as many more than the other.</summary>
    private const double LowHand = 0.05, HighHand = 0.95;

    /// <summary>Ready-made things a layer sets one by one, over all pieces: tufts, stones, decals; 0 for what comes out of a pot.</summary>
    public static int Things(Layer layer, Zone zone, int pieces) =>
        layer.Technique is Technique.Tuft or Technique.Rock or Technique.Decal ? (int)Math.Ceiling(HandsOn.Details(layer, zone) * Math.Max(0, pieces) - Counted) : 0;

    /// <summary>A mean is written down to two decimals: that much does not make another tuft.</summary>
    private const double Counted = 0.3;

    /// <summary>Glue along what is joined, ml to the cm; where no edge was measured, around a square of the same area. Under a weight, a few spots, ml.</summary>
    private const double GlueMlPerCm = 0.005, WeightGlueMl = 0.1;

    private static double GlueMl(Layer layer, Zone zone) => layer switch
    {
        { Technique: Technique.Assemble, Main.Kind: MaterialKind.Glue } => GlueMlPerCm * (zone.EdgeMm > 0 ? zone.EdgeMm / 10 : 4 * Math.Sqrt(zone.AreaCm2)),
        { Technique: Technique.Weight, Main.Kind: MaterialKind.Glue } => WeightGlueMl,
        _ => 0,
    };
}
