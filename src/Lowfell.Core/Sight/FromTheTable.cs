using Lowfell.Core.Colour;
using Lowfell.Core.Layers;

namespace Lowfell.Core.Sight;

/// <summary>How far two touching zones stand apart from the table.</summary>
public readonly record struct Apart(double Difference, Verdict Verdict);

/// <summary>What is left of a zone's relief and of its limits when the eye steps back.</summary>
public static class FromTheTable
{
    /// <summary>Zones that differ by less than this (CIEDE2000) are hard to tell apart, by less than half of it they are one.</summary>
    public const double PlainlyApart = 4;

    private const double NarrowestMm = 0.1, WidestMm = 20;

    /// <summary>Colours of the three positions as seen from a distance: fine relief runs together into its mean.</summary>
    /// <param name="zone">Shares and joints say how wide the relief is.</param>
    /// <param name="seen">Colours from near.</param>
    /// <param name="metres">Distance of the eye.</param>
    public static (SrgbColour Raised, SrgbColour Field, SrgbColour Recess) Colours(Zone zone, SeenSplit seen, double metres)
    {
        Xyz raised = Xyz(seen.Raised), field = Xyz(seen.Field), recess = Xyz(seen.Recess);
        var mean = new Xyz(
            zone.Shares.Dot(new(raised.X, field.X, recess.X)),
            zone.Shares.Dot(new(raised.Y, field.Y, recess.Y)),
            zone.Shares.Dot(new(raised.Z, field.Z, recess.Z)));

        // For drawing, the gain of luminance counts for all: colour blurred further than light would tint dark joints with
        // what lies around them, which shows in a picture though no eye sees it on the table.
        var gain = Math.Min(1, Eye.Gains(Eye.HalfAngle(JointWidthMm(zone), metres), MarkShape.Line).Luminance);
        SrgbColour Back(Xyz c) => Observer.ToLinear(Eye.Blur(c, mean, (gain, gain, gain))).ToSrgb();
        return (Back(raised), Back(field), Back(recess));
    }

    /// <summary>Mean width of a joint: the recessed area over the length of joints, or the smallest detail where there are none.</summary>
    public static double JointWidthMm(Zone zone) => zone.JointMm > 0
        ? Math.Clamp(zone.Shares.Recess * zone.AreaCm2 * 100 / zone.JointMm, NarrowestMm, WidestMm)
        : zone.SmallestDetailMm;

    /// <summary>Mean width of the raised rims along joints and edges; the smallest detail where there are neither.</summary>
    public static double RimWidthMm(Zone zone) => zone.JointMm + zone.EdgeMm > 0
        ? Math.Clamp(zone.Shares.Raised * zone.AreaCm2 * 100 / (zone.JointMm + zone.EdgeMm), NarrowestMm, WidestMm)
        : zone.SmallestDetailMm;

    /// <summary>Two touching zones: their mean colours, with the narrower taken for a band on the wider.</summary>
    public static Apart Between(Zone first, Seen firstMean, Zone second, Seen secondMean, double metres)
    {
        var width = Math.Sqrt(Math.Min(first.AreaCm2, second.AreaCm2)) * 10;
        var difference = Eye.Difference(Xyz(firstMean), Xyz(secondMean), width, metres, MarkShape.Line);
        var verdict = difference < PlainlyApart / 2 ? Verdict.Lost : difference < PlainlyApart ? Verdict.Just : Verdict.Seen;
        return new Apart(difference, verdict);
    }

    private static Xyz Xyz(Seen seen) => Observer.ToXyz(seen.Colour.ToLinear());
}
