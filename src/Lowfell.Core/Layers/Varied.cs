namespace Lowfell.Core.Layers;

/// <summary>Where marks of a kind come to lie by themselves.</summary>
public enum Habit
{
    /// <summary>Anywhere on the face: stains, mottling, patches.</summary>
    Anywhere,

    /// <summary>From the ground line up: damp, mud.</summary>
    FromGround,

    /// <summary>From the upper edge down: soot, streaks of what lies above.</summary>
    FromAbove,

    /// <summary>At the edges: chips, wear.</summary>
    AtEdges,

    /// <summary>Along the joints, and on a face that does not look up along the upper ones: moss, lichen.</summary>
    AtJoints,

    /// <summary>Under something that is fixed to it: rust under iron.</summary>
    UnderOthers,
}

/// <summary>
/// A layer that is laid differently on every piece of a row, by a plan that a seed makes: where its marks lie, and which of its materials goes on
/// which piece.
/// </summary>
/// <param name="Seed">Any number from 1; another is another plan.</param>
/// <param name="Habit">Where its marks lie; null is as such layers do.</param>
/// <param name="MeanMm">Mean size of a mark across, mm; null makes them so large that together they cover what the technique does.</param>
/// <param name="Marks">How many on a piece on the mean; null is three.</param>
/// <param name="Spread">From 0, shy, to 1, wild: how much sizes, numbers and heaviness differ.</param>
/// <param name="Dealt">Its materials are not mixed: each piece gets one of them, or two that are run together.</param>
public sealed record Varied(int Seed, Habit? Habit = null, double? MeanMm = null, double? Marks = null, double Spread = Varied.UsualSpread, bool Dealt = false)
{
    public const double UsualSpread = 0.5, UsualMarks = 3, LeastMarks = 0.2, MostMarks = 5, LeastMm = 0.3, MostMm = 200;

    /// <summary>Marks of a plan cover no more of a face than this.</summary>
    private const double MostShare = 0.6;

    /// <summary>Its work is marks in places, so that a plan can say where they lie; the rest can only be dealt.</summary>
    public static bool HasMarks(Layer layer) => layer.Technique is Technique.Patch or Technique.Sponge or Technique.Stipple or Technique.Speckle or Technique.Streak or Technique.PaintedChip
        or Technique.ChipThrough or Technique.Scratch or Technique.Stencil or Technique.Dust or Technique.Pigment or Technique.RunOff or Technique.Hit;

    /// <summary>It has several materials of one kind, so that a piece may get one as well as another.</summary>
    public static bool CanBeDealt(Layer layer)
    {
        var paints = layer.Paint.Where(p => !p.Material.IsThinner).ToList();
        return paints.Count > 1 && layer.Technique is not (Technique.GlueAndScatter or Technique.WetBlend) && paints.All(p => p.Material.Kind == paints[0].Material.Kind);
    }

    /// <summary>Where a region has its layer's marks lie, whatever a plan says; null where it leaves that open.</summary>
    public static Habit? ByRegion(Region region) => region switch
    {
        Region.LowerThird or Region.AroundFeet => Layers.Habit.FromGround,
        Region.Edges or Region.LeadingEdges => Layers.Habit.AtEdges,
        _ => null,
    };

    /// <summary>Where marks of a layer lie: as its region and its plan say, and else as such layers do.</summary>
    public static Habit HabitOf(Layer layer) => ByRegion(layer.Region) ?? layer.Varied?.Habit ?? (layer.Technique, layer.Region) switch
    {
        (Technique.PaintedChip or Technique.ChipThrough or Technique.EdgeLine, _) => Layers.Habit.AtEdges,
        (_, Region.Recess or Region.RecessedLine) => Layers.Habit.AtJoints,
        (Technique.Streak or Technique.RunOff, _) => Layers.Habit.UnderOthers,
        _ => Layers.Habit.Anywhere,
    };

    /// <summary>Mean size of its marks on a zone across, mm.</summary>
    public double MeanOn(Layer layer, Zone zone)
    {
        if (MeanMm is { } said)
            return said;
        var mm2 = Math.Min(MostShare, UsualShare(layer, zone)) * zone.AreaCm2 * 100;
        return Math.Round(Math.Clamp(Math.Sqrt(mm2 / (Math.PI / 4 * MarkSizes.MeanSquare(Spread) * (Marks ?? UsualMarks))), LeastMm, MostMm), 1);
    }

    /// <summary>What its marks cover of a zone where a size was said, against what the technique usually covers; 1 where none was.</summary>
    public double Share(Layer layer, Zone zone)
    {
        if (MeanMm is not { } mm || UsualShare(layer, zone) is not (> 0 and var usual))
            return 1;
        return Math.Min(MostShare, (Marks ?? UsualMarks) * Math.PI / 4 * mm * mm * MarkSizes.MeanSquare(Spread) / (zone.AreaCm2 * 100)) / usual;
    }

    private static double UsualShare(Layer layer, Zone zone)
    {
        var laid = Laying.Of(layer with { Varied = null }, zone);
        return Regions.PlaceShare(layer.Region, zone) * zone.Shares.Dot(laid.Covered);
    }
}
