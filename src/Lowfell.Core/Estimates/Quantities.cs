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
public readonly record struct Amount(double OnSurfaceMl, double Efficiency, int Fills, double LossPerFillMl)
{
    /// <summary>Overspray, and what rag and sponge drink.</summary>
    public double TransferLossMl => Efficiency > 0 ? OnSurfaceMl / Efficiency - OnSurfaceMl : 0;

    public double FillLossMl => Fills * LossPerFillMl;

    public double MarginMl => (OnSurfaceMl + TransferLossMl + FillLossMl) * Quantities.Margin;

    public double TotalMl => OnSurfaceMl + TransferLossMl + FillLossMl + MarginMl;
}

/// <summary>A zone with its layers and the number of pieces it is painted on.</summary>
public sealed record ZonePlan(Guid ZoneId, Zone Zone, IReadOnlyList<Layer> Layers, int Pieces);

/// <summary>How much of one material a set takes, and the layer that drives it most.</summary>
public sealed record SetNeed(Material Material, double Ml, Guid DrivingZone, Guid DrivingLayer, double DrivingShare);

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
        foreach (var part in layer.Paint)
            needs.Add(new Need(part.Material, total * mixed * part.Parts.ToDouble() / parts));
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
                return default;
            case Laydown.Bead:
                onSurface = Laying.SurfaceMl(layer, zone) * pieces;
                fills = Math.Ceiling(zone.JointMm / 10 * Regions.LengthShare(layer.Region, zone) * pieces * layer.Coats / BeadFillCm);
                break;
            case Laydown.Lift:
                (onSurface, fills, efficiency, loss) = (CleanerMlPerCm * zone.JointMm / 10 * Regions.LengthShare(layer.Region, zone) * pieces, 0, 1, 0);
                break;
            default:
                var area = zone.AreaCm2 * Regions.Share(layer.Region, zone);
                onSurface = Laying.SurfaceMl(layer, zone) * pieces;
                fills = figures.FillCoversCm2 > 0 ? Math.Ceiling(area * layer.Coats * pieces / figures.FillCoversCm2) : 0;
                break;
        }

        return new Amount(onSurface, efficiency, (int)fills, loss);
    }

    /// <summary>Every material that a set still takes, with what drives it, most first.</summary>
    /// <param name="zones">Zones with their layers and all their pieces.</param>
    /// <param name="done">Pieces that have a layer of a zone already; none when left out.</param>
    public static IReadOnlyList<SetNeed> ForSet(IEnumerable<ZonePlan> zones, Func<Guid, Guid, int>? done = null)
    {
        var totals = new Dictionary<Guid, Tally>();
        foreach (var plan in zones)
        {
            foreach (var layer in plan.Layers)
            {
                foreach (var need in ForLayer(layer, plan.Zone, plan.Pieces - (done?.Invoke(plan.ZoneId, layer.Id) ?? 0)))
                {
                    if (!totals.TryGetValue(need.Material.Id, out var tally))
                        totals[need.Material.Id] = tally = new Tally(need.Material);
                    tally.Add(need.Ml, plan.ZoneId, layer.Id);
                }
            }
        }

        return totals.Values
            .Select(t => new SetNeed(t.Material, t.Ml, t.Zone, t.Layer, t.Largest / t.Ml))
            .OrderByDescending(n => n.Ml)
            .ToList();
    }

    private sealed class Tally(Material material)
    {
        public Material Material { get; } = material;
        public double Ml { get; private set; }
        public double Largest { get; private set; }
        public Guid Zone { get; private set; }
        public Guid Layer { get; private set; }

        public void Add(double ml, Guid zone, Guid layer)
        {
            Ml += ml;
            if (ml <= Largest)
                return;
            (Largest, Zone, Layer) = (ml, zone, layer);
        }
    }
}
