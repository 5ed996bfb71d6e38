using Lowfell.Core.Layers;

namespace Lowfell.Core.Variation;

/// <summary>Something fixed to a face, that rust runs down from.</summary>
public readonly record struct Anchor(string Name, double X, double Y);

/// <summary>
/// A face of a zone, unrolled: true size in mm, x from the left and y from the top. Courses are the heights of joints that run along it, and
/// Uprights where joints cross all of it where none run along, mm.
/// </summary>
public sealed record Face(double WidthMm, double HeightMm, IReadOnlyList<Anchor> Anchors, IReadOnlyList<double> Courses, IReadOnlyList<double> Uprights)
{
    /// <summary>Where nobody measured a face it is taken for half as wide again as high, unless its edges say otherwise.</summary>
    private const double UsualAspect = 1.5;

    /// <summary>What is fixed to a face is taken to sit in its upper part, beside each other.</summary>
    private const double AnchorHeight = 0.4;

    /// <summary>More than half up is a face that looks up.</summary>
    private const double LooksUp = 0.5;

    /// <summary>The face of a zone.</summary>
    /// <param name="zone">Its measures.</param>
    /// <param name="surface">What it is made of: joints run along courses, boards, slates and panels.</param>
    /// <param name="others">Names of what is fixed to it.</param>
    /// <param name="widthMm">As it was measured, where it was.</param>
    public static Face Of(Zone zone, ZoneSurface surface, IReadOnlyList<string> others, double? widthMm = null)
    {
        var mm2 = Math.Max(1, zone.AreaCm2 * 100);
        var width = widthMm ?? ByEdges(mm2, zone.EdgeMm) ?? Math.Sqrt(mm2 * UsualAspect);
        var height = mm2 / width;
        var step = ZoneSurface.HasHeight(surface.Kind) ? surface.HeightMm : surface.Kind is SurfaceKind.Boards or SurfaceKind.Ribs or SurfaceKind.Links && !surface.Across ? surface.LengthMm : 0;
        var courses = Steps(step, height);

        // Moss on an upright face sits where rain stays longest: the upper joints.
        if (zone.Orientation.Up < LooksUp && courses.Count > 3)
            courses = courses.Take((courses.Count + 1) / 2).ToList();
        var across = courses.Count > 0 ? 0 : ZoneSurface.HasHeight(surface.Kind) || (surface.Kind is SurfaceKind.Boards or SurfaceKind.Ribs && surface.Across) ? surface.LengthMm : 0;
        return new(Math.Round(width, 1), Math.Round(height, 1), others.Select((n, i) => new Anchor(n, width * (i + 1) / (others.Count + 1), height * AnchorHeight)).ToList(), courses, Steps(across, width));
    }

    private static List<double> Steps(double step, double length) => step > 0 && step < length ? Enumerable.Range(1, (int)Math.Ceiling(length / step) - 1).Select(i => i * step).ToList() : [];

    /// <summary>The longer side of an oblong with this area and these edges; null where no oblong has them, or only a strip that nobody would call a face.</summary>
    private static double? ByEdges(double mm2, double edgeMm)
    {
        var half = edgeMm / 2;
        var root = half * half - 4 * mm2;
        if (root < 0)
            return null;
        var width = (half + Math.Sqrt(root)) / 2;
        return width * width / mm2 <= LongestStrip ? width : null;
    }

    private const double LongestStrip = 12;
}

/// <summary>What is asked of a plan.</summary>
/// <param name="Habit">Where marks lie.</param>
/// <param name="MeanMm">Their mean size, mm: quantities and minutes are worked out from it.</param>
/// <param name="MarksAPiece">How many on the mean, at least 0.</param>
/// <param name="Spread">From 0, shy, to 1, wild: how much sizes and heaviness differ.</param>
public sealed record VariationWish(Habit Habit, double MeanMm, double MarksAPiece, double Spread)
{
    /// <summary>What a layer asks of its plan on a zone.</summary>
    public static VariationWish Of(Layer layer, Varied varied, Zone zone) => new(Varied.HabitOf(layer with { Varied = varied }), varied.MeanOn(layer, zone), varied.Marks ?? Varied.UsualMarks, varied.Spread);
}

/// <summary>One mark: its middle and its size, mm; Heaviness is a factor on the usual; Place is the part of the face it lies in, counted by row from 0.</summary>
public readonly record struct PlacedMark(double X, double Y, double SizeMm, double Heaviness, int Place);

/// <summary>The marks of one piece, the largest first.</summary>
public sealed record PieceMarks(IReadOnlyList<PlacedMark> Marks);
