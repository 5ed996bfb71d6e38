using Lowfell.Core.Layers;

namespace Lowfell.Core.Variation;

/// <summary>The marks of a piece as one says them at the bench: "two: low left, large; under the mooring ring, small".</summary>
public static class MarkWords
{
    private const double Small = 0.75, Large = 1.3, AtJoint = 0.5;

    private static readonly string[] counts = ["none", "one", "two", "three", "four", "five", "six", "seven", "eight"];

    public static string Of(PieceMarks piece, VariationWish wish, Face face)
    {
        if (piece.Marks.Count == 0)
            return "none";
        var count = piece.Marks.Count < counts.Length ? counts[piece.Marks.Count] : $"{piece.Marks.Count}";
        return $"{count}: {string.Join("; ", piece.Marks.Select(m => Of(m, wish, face)))}";
    }

    /// <summary>One mark: where, how large, how heavy.</summary>
    public static string Of(PlacedMark mark, VariationWish wish, Face face)
    {
        var size = (mark.SizeMm / wish.MeanMm) switch { < Small => "small", > Large => "large", _ => "middling" };
        var heavy = mark.Heaviness switch { < 0.8 => ", faint", > 1.2 => ", heavy", _ => "" };
        return $"{Where(mark, wish.Habit, face)}, {size}{heavy}";
    }

    private static string Where(PlacedMark mark, Habit habit, Face face)
    {
        var side = (mark.X / face.WidthMm) switch { < 0.34 => "left", > 0.66 => "right", _ => "middle" };
        var height = (mark.Y / face.HeightMm) switch { < 0.34 => "high", > 0.66 => "low", _ => "" };
        var place = (height, side) switch { ("", "middle") => "in the middle", ("", _) => $"{side}, half way up", _ => $"{height} {side}" };
        return habit switch
        {
            Habit.FromGround => $"at the ground, {side}",
            Habit.FromAbove => $"from the upper edge, {side}",
            Habit.AtJoints when face.Courses.Any(c => Math.Abs(c - mark.Y) < AtJoint) || face.Uprights.Any(u => Math.Abs(u - mark.X) < AtJoint) => $"on a joint, {place}",
            Habit.AtEdges => $"at the {Edge(mark, face)}",
            Habit.UnderOthers when face.Anchors.Count > 0 => $"under the {face.Anchors.MinBy(a => Math.Abs(a.X - mark.X)).Name.ToLowerInvariant()}",
            _ => place,
        };
    }

    private static string Edge(PlacedMark mark, Face face)
    {
        var third = (mark.X / face.WidthMm) switch { < 0.34 => "left", > 0.66 => "right", _ => "middle" };
        var height = mark.Y < face.HeightMm / 2 ? "high" : "low";
        var nearest = new[] { (mark.Y, $"upper edge, {third}"), (face.HeightMm - mark.Y, $"lower edge, {third}"), (mark.X, $"left edge, {height}"), (face.WidthMm - mark.X, $"right edge, {height}") };
        return nearest.MinBy(n => n.Item1).Item2;
    }
}
