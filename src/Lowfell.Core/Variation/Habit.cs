namespace Lowfell.Core.Variation;

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

    /// <summary>Under something: rust under iron.</summary>
    UnderAnchors,
}

/// <summary>A face of a zone, true size in mm, x from the left and y from the top; anchors are what rust runs down from.</summary>
public sealed record Face(double WidthMm, double HeightMm, IReadOnlyList<(double X, double Y)> Anchors);

/// <summary>What is asked of a plan.</summary>
/// <param name="Habit">Where marks lie.</param>
/// <param name="MeanMm">Their mean size, mm: quantities and minutes are worked out from it.</param>
/// <param name="MarksAPiece">How many on the mean, at least 0.</param>
/// <param name="Spread">From 0, shy, to 1, wild: how much sizes and heaviness differ.</param>
public sealed record VariationWish(Habit Habit, double MeanMm, double MarksAPiece, double Spread);

/// <summary>One mark: its middle and its size, mm; Heaviness is a factor on the usual; Place is the part of the face it lies in, counted by row from 0.</summary>
public readonly record struct Mark(double X, double Y, double SizeMm, double Heaviness, int Place);

/// <summary>The marks of one piece, the largest first.</summary>
public sealed record PieceMarks(IReadOnlyList<Mark> Marks);
